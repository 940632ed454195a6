#include "core/stages/part/kit.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace jig::part {
namespace {

/// m of a roll that are looked at as one table: longer lengths are cut in turn.
constexpr double kTable = 6;

/// The outline in strips no wider than the roll, each laid over the one before by `lap`.
std::vector<Loops> strips(const Loops& outline, double width, double lap) {
    double low = 1e300, high = -1e300, left = 1e300, right = -1e300;
    for (const auto& loop : outline) {
        for (const auto& p : loop) {
            low = std::min(low, p.y());
            high = std::max(high, p.y());
            left = std::min(left, p.x());
            right = std::max(right, p.x());
        }
    }
    const double whole = high - low;
    if (whole <= width) return {outline};
    const int n = static_cast<int>(std::ceil((whole - lap) / (width - lap)));
    const double each = (whole - lap) / n;
    std::vector<Loops> out;
    for (int i = 0; i < n; ++i) {
        const double from = low + i * each;
        auto strip = shared(outline, {rectangle(left - 1, from, right + 1, from + each + lap)});
        if (!strip.empty()) out.push_back(std::move(strip));
    }
    return out;
}

}  // namespace

Kit kit(const Choices& c, const Draped& draped, const Lists<Reinforcement>& shop, double trim, double lap,
        Progress& progress) {
    Kit out;
    std::map<std::string, std::vector<CutPiece>> by_cloth;
    int number = 0;
    for (std::size_t i = 0; i < c.layers.size(); ++i) {
        const auto& layer = c.layers[i];
        if (layer.kind != LayerKind::ply) continue;
        ++number;
        const auto& cloth = need(shop.reinforcements, layer.material, "part");
        const auto net = std::find_if(draped.nets.begin(), draped.nets.end(), [&](const ClothNet& n) {
            return std::find(n.layers.begin(), n.layers.end(), i) != n.layers.end();
        });
        if (net == draped.nets.end()) {
            if (std::find(out.left_out.begin(), out.left_out.end(), layer.material) == out.left_out.end())
                out.left_out.push_back(layer.material);
            continue;
        }
        Loops flat;
        for (const auto& outline : flat_outlines(net->drape, *draped.face)) {
            flat.push_back(simplified(outline, 2e-4));
            if (flat.size() == 1 && signed_area(flat.front()) < 0)
                std::reverse(flat.front().begin(), flat.front().end());
        }
        if (flat.empty()) continue;
        // Holes run the other way round.
        for (std::size_t k = 1; k < flat.size(); ++k) {
            if (signed_area(flat[k]) > 0 && holds({flat.front()}, flat[k].front()))
                std::reverse(flat[k].begin(), flat[k].end());
        }
        const double width = cloth.roll_width - 0.02;
        if (width <= lap)
            throw InputError(layer.material, "its roll is narrower than a lap", "see its roll width");
        const auto parts = strips(offset(united(flat), trim), width, lap);
        for (std::size_t k = 0; k < parts.size(); ++k) {
            KitPiece piece;
            piece.name = fmt::format(
                "{}{}", number,
                parts.size() > 1 ? std::string(1, static_cast<char>('a' + std::min<std::size_t>(k, 25)))
                                 : std::string());
            piece.layer = i;
            piece.material = layer.material;
            piece.angle = layer.angle;
            piece.outline = parts[k];
            piece.area = net_area(parts[k]);
            piece.of = static_cast<int>(parts.size());
            CutPiece cut;
            cut.name = piece.name;
            cut.outline = piece.outline;
            // An arrow along the warp, in its middle.
            const auto box = [&](int axis) {
                double low = 1e300, high = -1e300;
                for (const auto& p : piece.outline.front()) {
                    low = std::min(low, p[axis]);
                    high = std::max(high, p[axis]);
                }
                return std::pair{low, high};
            };
            const auto [x0, x1] = box(0);
            const auto [y0, y1] = box(1);
            const Point2 middle((x0 + x1) / 2, (y0 + y1) / 2);
            const double arm = 0.15 * (x1 - x0);
            cut.engraved = {{middle - Point2(arm, 0), middle + Point2(arm, 0)},
                            {middle + Point2(0.7 * arm, 0.2 * arm), middle + Point2(arm, 0),
                             middle + Point2(0.7 * arm, -0.2 * arm)}};
            by_cloth[layer.material].push_back(std::move(cut));
            out.pieces.push_back(std::move(piece));
        }
    }
    for (const auto& [material, pieces] : by_cloth) {
        KitRoll roll;
        roll.material = material;
        roll.width = need(shop.reinforcements, material, "part").roll_width;
        double longest = 0, area = 0;
        for (const auto& p : pieces) {
            double low = 1e300, high = -1e300;
            for (const auto& q : p.outline.front()) {
                low = std::min(low, q.x());
                high = std::max(high, q.x());
            }
            longest = std::max(longest, high - low);
            area += net_area(p.outline);
        }
        SheetRules rules;
        rules.length = std::max(kTable, longest + 0.05);
        rules.width = roll.width;
        rules.kerf = 0.002;
        rules.margin = 0.005;
        rules.grain = true;
        roll.sheets = lay_onto_sheets(pieces, rules, progress);
        for (const auto& sheet : roll.sheets.sheets) {
            double used = 0;
            for (const auto& piece : sheet.pieces) {
                for (const auto& loop : piece.loops) {
                    for (const auto& p : loop) used = std::max(used, p.x());
                }
            }
            roll.metres += used;
        }
        roll.yield = roll.metres > 0 ? area / (roll.metres * roll.width) : 0;
        out.rolls.push_back(std::move(roll));
    }
    return out;
}

}  // namespace jig::part
