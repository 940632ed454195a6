#include "core/stages/part/kit.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace jig::part {
namespace {

/// m of a roll that are looked at as one table: longer lengths are cut in turn.
constexpr double kTable = 6;

/// The outline in strips no wider than the roll, each laid over the one before by `lap`; what of a strip
/// hangs together is a piece.
std::vector<Loops> strips(const Loops& outline, double width, double lap) {
    const Point2 low = low_corner(outline), high = high_corner(outline);
    const double whole = high.y() - low.y();
    const int n = whole <= width ? 1 : static_cast<int>(std::ceil((whole - lap) / (width - lap)));
    const double each = (whole - lap) / n;
    std::vector<Loops> out;
    for (int i = 0; i < n; ++i) {
        const double from = low.y() + i * each;
        for (auto& piece :
             islands(shared(outline, {rectangle(low.x() - 1, from, high.x() + 1, from + each + lap)})))
            out.push_back(std::move(piece));
    }
    return out;
}

/// An arrow along the roll, in the middle of a piece.
std::vector<Loop> arrow_on(const Loops& outline) {
    const Point2 low = low_corner(outline), high = high_corner(outline), middle = (low + high) / 2;
    const double arm = 0.15 * (high.x() - low.x());
    return {{middle - Point2(arm, 0), middle + Point2(arm, 0)},
            {middle + Point2(0.7 * arm, 0.2 * arm), middle + Point2(arm, 0),
             middle + Point2(0.7 * arm, -0.2 * arm)}};
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
        // The net lies along its threads, from the angle that they have on the face; the roll runs along the
        // ply.
        const Eigen::Rotation2Dd onto_roll(net->angle - layer.angle);
        Loops flat;
        for (const auto& outline : flat_outlines(net->drape, *draped.face)) {
            auto& loop = flat.emplace_back(simplified(outline, 2e-4));
            for (auto& p : loop) p = onto_roll * p;
            if (flat.size() == 1 && signed_area(loop) < 0) std::reverse(loop.begin(), loop.end());
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
            piece.name = parts.size() > 1 ? fmt::format("{}.{}", number, k + 1) : std::to_string(number);
            piece.layer = i;
            piece.material = layer.material;
            piece.angle = layer.angle;
            piece.outline = parts[k];
            piece.area = net_area(parts[k]);
            piece.of = static_cast<int>(parts.size());
            auto& cut = by_cloth[layer.material].emplace_back();
            cut.name = piece.name;
            cut.outline = piece.outline;
            cut.engraved = arrow_on(piece.outline);
            out.pieces.push_back(std::move(piece));
        }
    }
    for (const auto& [material, pieces] : by_cloth) {
        KitRoll roll;
        roll.material = material;
        roll.width = need(shop.reinforcements, material, "part").roll_width;
        double longest = 0, area = 0;
        for (const auto& p : pieces) {
            longest = std::max(longest, (high_corner(p.outline) - low_corner(p.outline)).x());
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
            for (const auto& piece : sheet.pieces) used = std::max(used, high_corner(piece.loops).x());
            roll.metres += used;
        }
        roll.yield = roll.metres > 0 ? area / (roll.metres * roll.width) : 0;
        out.rolls.push_back(std::move(roll));
    }
    return out;
}

}  // namespace jig::part
