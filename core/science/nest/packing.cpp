#include "core/science/nest/packing.hpp"

#include <iostream>
#include <libnest2d/libnest2d.hpp>

namespace jig {

void pack(std::vector<PackItem>& items, std::int64_t width, std::int64_t height, std::int64_t gap, bool grain,
          const std::function<void(unsigned)>& left, const std::function<bool()>& stop) {
    std::vector<libnest2d::Item> pieces;
    for (const auto& item : items) {
        // The library wants clockwise paths that close on themselves.
        ClipperLib::Path path;
        for (auto p = item.outline.rbegin(); p != item.outline.rend(); ++p)
            path.emplace_back(p->first, p->second);
        path.push_back(path.front());
        pieces.emplace_back(path);
    }
    using Align = libnest2d::NfpPlacer::Config::Alignment;
    const double quarter = 1.5707963267948966;
    libnest2d::NestConfig<> config;
    if (grain)
        config.placer_config.rotations = {0.0, 2 * quarter};
    else
        config.placer_config.rotations = {0.0, quarter, 2 * quarter, 3 * quarter};
    config.placer_config.alignment = Align::BOTTOM_LEFT;
    config.placer_config.starting_point = Align::BOTTOM_LEFT;
    config.placer_config.parallel = false;
    // More of its search lays the demos' plugs onto as many sheets, and takes two to four times as long.
    config.placer_config.accuracy = 0.3f;
    libnest2d::NestControl control;
    control.progressfn = left;
    control.stopcond = stop;
    const libnest2d::Box box(width, height, {width / 2, height / 2});
    libnest2d::nest(pieces, box, gap, config, control);
    for (std::size_t i = 0; i < items.size(); ++i) {
        items[i].bin = pieces[i].binId();
        items[i].turn = static_cast<double>(pieces[i].rotation());
        items[i].move_x = libnest2d::getX(pieces[i].translation());
        items[i].move_y = libnest2d::getY(pieces[i].translation());
    }
}

}  // namespace jig
