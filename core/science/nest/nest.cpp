#include "core/science/nest/nest.hpp"

#include <algorithm>

#include "core/base/units.hpp"
#include "core/science/nest/packing.hpp"

namespace jig {
namespace {

constexpr double kGrid =
    1e5;  // hundredths of a millimetre: fine enough for a saw, small enough for the library's products

/// An outline of few points that covers the given one.
Loop covering(const Loop& loop) {
    const Point2 size = high_corner({loop}) - low_corner({loop});
    const double coarse = std::max(5e-4, 0.004 * size.maxCoeff());
    auto grown = offset({simplified(loop, coarse)}, coarse, false);
    Loop best;
    for (const auto& g : grown) {
        if (std::abs(signed_area(g)) > std::abs(signed_area(best))) best = g;
    }
    return best.empty() ? loop : best;
}

}  // namespace

Nesting nest(const std::vector<Loop>& outlines, const SheetRules& rules, Progress& progress) {
    const double room_x = rules.length - 2 * rules.margin, room_y = rules.width - 2 * rules.margin;
    if (!(room_x > 0) || !(room_y > 0))
        throw InputError("sheet", "the margin leaves no room on it",
                         "give a larger sheet or a smaller margin");
    Nesting out;
    out.placed.resize(outlines.size());
    std::vector<PackItem> items;
    std::vector<std::size_t> which;
    std::vector<double> before;  // turn that a piece comes with
    for (std::size_t i = 0; i < outlines.size(); ++i) {
        const auto cover = covering(outlines[i]);
        const Point2 size = high_corner({cover}) - low_corner({cover});
        const bool lies = size.x() <= room_x && size.y() <= room_y,
                   stands = !rules.grain && size.y() <= room_x && size.x() <= room_y;
        if (!lies && !stands) continue;
        PackItem item;
        // The library tries an empty sheet only the way a piece comes.
        for (const auto& p : cover) {
            const Point2 q = lies ? p : Point2(-p.y(), p.x());
            item.outline.emplace_back(std::llround(q.x() * kGrid), std::llround(q.y() * kGrid));
        }
        before.push_back(lies ? 0 : kPi / 2);
        items.push_back(std::move(item));
        which.push_back(i);
    }
    if (items.empty()) return out;
    progress.report(0.1, "laying slabs onto sheets");
    // The library calls back from inside its own loops: exceptions must not pass through it.
    const auto left = [&](unsigned more) {
        if (progress.stopped()) return;
        try {
            progress.report(1 - 0.9 * static_cast<double>(more) / static_cast<double>(items.size()),
                            "laying slabs onto sheets");
        } catch (const Cancelled&) {
            return;
        }
    };
    pack(items, std::llround(room_x * kGrid), std::llround(room_y * kGrid), std::llround(rules.kerf * kGrid),
         rules.grain, left, [&] { return progress.stopped(); });
    progress.check();
    double used = 0;
    for (std::size_t k = 0; k < items.size(); ++k) {
        const auto& item = items[k];
        if (item.bin < 0) continue;
        auto& p = out.placed[which[k]];
        p.sheet = item.bin;
        p.turn = item.turn + before[k];
        p.move = {static_cast<double>(item.move_x) / kGrid + rules.margin,
                  static_cast<double>(item.move_y) / kGrid + rules.margin};
        out.sheets = std::max(out.sheets, p.sheet + 1);
        used += std::abs(signed_area(outlines[which[k]]));
    }
    if (out.sheets > 0) out.yield = used / (out.sheets * rules.length * rules.width);
    return out;
}

}  // namespace jig
