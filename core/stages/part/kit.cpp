#include "core/stages/part/kit.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "core/stages/part/flat_cloth.hpp"
#include "core/stages/part/goes.hpp"

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

/// Which plies lie where: all of the face, or the pieces of it that zones leave them.
class Cover {
  public:
    Cover(const Choices& c, const Draped& draped, const Frame& frame, Progress& progress)
        : lies_(c), pieces_(region_pieces(zones_asked(c), frame, draped, progress)) {}

    /// Where a ply lies on its cloth; its edges on the face's rim are moved out by `trim` m, those along cuts
    /// by half of `lap` m. With `covers`, what has to lie over the cuts that open.
    Loops of(const Source& ply, const FlatCloth& flat, double trim, double lap, Loops& covers) {
        Loops with, without;
        for (const auto& piece : pieces_) {
            auto& to = lies_(ply, piece.zones) ? with : without;
            Loop loop;
            for (const auto& corner : piece.corners) {
                const auto at = flat.at(piece.face, corner);
                if (!at) break;
                loop.push_back(*at);
            }
            if (loop.size() < piece.corners.size() || loop.size() < 3) continue;
            if (signed_area(loop) < 0) std::reverse(loop.begin(), loop.end());
            to.push_back(std::move(loop));
        }
        covers = offset(flat.twice, lap);
        if (without.empty()) return flat.grown(trim, lap);
        // Seams between pieces that were cut from one triangle are no edges.
        const auto closed = [](const Loops& loops) { return offset(offset(united(loops), kSeam), -kSeam); };
        Loops out = flat.flanks.empty()
                        ? offset(closed(with), trim)
                        : shared(offset(closed(with), std::max(trim, lap / 2)), flat.grown(trim, lap));
        out = taken_off(out, closed(without));
        if (!covers.empty()) covers = offset(shared(flat.twice, closed(with)), lap);
        Loops clean;
        for (const auto& loop : out) clean.push_back(simplified(loop, 2e-4));
        return united(clean);
    }

  private:
    /// m: pieces of one triangle meet to rounding, which leaves hairs between them.
    static constexpr double kSeam = 2e-5;

    LiesUnder lies_;
    std::vector<RegionPiece> pieces_;
};

}  // namespace

Choices kit_asked(const Choices& c) {
    Choices out;
    out.how = c.how;  // an infusion knows no goes
    out.layers = c.layers;
    out.zones = c.zones;
    out.inserts = ringed_inserts(c);
    out.drape = c.drape;
    out.cuts = c.cuts;
    out.kit = c.kit;
    return out;
}

Kit kit(const Choices& c, const Draped& draped, const Frame& frame, const Lists<Reinforcement>& shop,
        double trim, double lap, Progress& progress) {
    Kit out;
    if (!draped.face) return out;
    std::map<std::string, std::vector<CutPiece>> by_cloth;
    Cover cover(c, draped, frame, progress);
    FlatCloths cloths(c.drape.turn, draped, frame);
    const auto cut = [&](int zone, std::size_t i, const std::string& number) {
        const auto& layer = zone < 0 ? c.layers[i] : c.zones[static_cast<std::size_t>(zone)].layers[i];
        const Source source{zone, i};
        const auto& cloth = need(shop.reinforcements, layer.material, "part");
        const auto* flat = cloths.of(source, layer.angle, cloth, progress);
        if (flat == nullptr) {
            if (std::find(out.left_out.begin(), out.left_out.end(), layer.material) == out.left_out.end())
                out.left_out.push_back(layer.material);
            return;
        }
        if (flat->whole.empty()) return;
        const double width = cloth.roll_width - kSelvedge;
        if (width <= lap)
            throw InputError(layer.material, "its roll is narrower than a lap", "see its roll width");
        std::vector<Loops> parts;
        Loops covers;
        for (const auto& island : islands(cover.of(source, *flat, trim, lap, covers))) {
            for (auto& strip : strips(island, width, lap)) parts.push_back(std::move(strip));
        }
        const auto whole = parts.size();
        for (const auto& island : islands(covers)) {
            for (auto& strip : strips(island, width, lap)) parts.push_back(std::move(strip));
        }
        for (std::size_t k = 0; k < parts.size(); ++k) {
            KitPiece piece;
            piece.name = parts.size() > 1 ? fmt::format("{}.{}", number, k + 1) : number;
            piece.of = source;
            piece.go = go_of(c, source);
            piece.material = layer.material;
            piece.angle = layer.angle;
            piece.outline = parts[k];
            piece.area = net_area(parts[k]);
            piece.joined = static_cast<int>(parts.size());
            piece.cover = k >= whole;
            piece.stretch = flat->most;
            piece.torn = flat->most > may_stretch(cloth);
            auto& sheet = by_cloth[layer.material].emplace_back();
            sheet.name = piece.name;
            sheet.outline = piece.outline;
            sheet.engraved = arrow_on(piece.outline);
            if (!piece.cover) {
                for (const auto& line : flat->flanks) {
                    if (holds(piece.outline, line[line.size() / 2])) sheet.engraved.push_back(line);
                }
            }
            out.pieces.push_back(std::move(piece));
        }
    };
    int number = 0;
    for (std::size_t i = 0; i < c.layers.size(); ++i) {
        if (c.layers[i].kind == LayerKind::ply) cut(-1, i, std::to_string(++number));
    }
    // Zones of one name go on counting, so that no two pieces bear the same.
    std::map<std::string, int> named;
    for (std::size_t z = 0; z < c.zones.size(); ++z) {
        for (std::size_t i = 0; i < c.zones[z].layers.size(); ++i) {
            if (c.zones[z].layers[i].kind == LayerKind::ply)
                cut(static_cast<int>(z), i, fmt::format("{} {}", c.zones[z].name, ++named[c.zones[z].name]));
        }
    }
    std::stable_sort(out.pieces.begin(), out.pieces.end(),
                     [](const KitPiece& a, const KitPiece& b) { return a.go < b.go; });
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
        // A mat has no direction.
        rules.grain = need(shop.reinforcements, material, "part").weave != Weave::mat;
        roll.sheets = lay_onto_sheets(pieces, rules, progress);
        for (const auto& sheet : roll.sheets.sheets) {
            double used = 0;
            for (const auto& piece : sheet.pieces) used = std::max(used, high_corner(piece.loops).x());
            roll.metres += used;
        }
        // As wide as the roll it is no offcut: the roll goes on there.
        std::erase_if(roll.sheets.offcuts, [&](const Offcut& o) {
            return std::max(o.length, o.width) >= roll.width &&
                   std::min(o.length, o.width) >= roll.width - 1e-6;
        });
        roll.yield = roll.metres > 0 ? area / (roll.metres * roll.width) : 0;
        out.rolls.push_back(std::move(roll));
    }
    return out;
}

}  // namespace jig::part
