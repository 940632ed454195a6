#include "core/stages/part/roll_seams.hpp"

#include <algorithm>
#include <cmath>

#include "core/base/units.hpp"
#include "core/science/mesh/cut.hpp"
#include "core/stages/part/cut_line.hpp"
#include "core/stages/part/flat_cloth.hpp"

namespace jig::part {
namespace {

constexpr int kMoreSeams = 3;  ///< that are tried where pieces come out wider than they were meant to

/// Plies whose roll runs alike.
struct Wide {
    double way = 0;             ///< rad
    double width = 0;           ///< m of the narrowest roll, without its edges
    std::vector<Source> plies;  ///< of the common stack
};

double height(const Loops& loops) {
    return high_corner(loops).y() - low_corner(loops).y();
}

/// m across the roll of the widest piece that a ply's cloth is cut into.
double widest(const FlatCloth& flat, const KitCut& kit) {
    double out = 0;
    for (const auto& island : islands(flat.grown(kit.trim, kit.lap))) out = std::max(out, height(island));
    return out;
}

/// Fewer corners, none of them further than `off` m from the line (Ramer 1972; Douglas & Peucker 1973).
void thin(const std::vector<Point2>& line, std::size_t from, std::size_t to, double off,
          std::vector<Point2>& out) {
    const Point2 way = line[to] - line[from];
    std::size_t worst = from;
    double most = off;
    for (auto i = from + 1; i < to; ++i) {
        const Point2 d = line[i] - line[from];
        const double share = way.squaredNorm() > 0 ? std::clamp(d.dot(way) / way.squaredNorm(), 0.0, 1.0) : 0,
                     away = (d - share * way).norm();
        if (away <= most) continue;
        most = away;
        worst = i;
    }
    if (worst == from) {
        out.push_back(line[to]);
        return;
    }
    thin(line, from, worst, off, out);
    thin(line, worst, to, off, out);
}

/// Seams of plies as they are draped, on one face.
class Drawn {
  public:
    Drawn(const Draped& draped, const Frame& frame)
        : face_(*draped.face), frame_(frame), middle_(seen_middle(face_, frame)), cell_(draped.cell) {}

    /// The lines across which an island of the cloth is as high as `y`, seen along the pull.
    void level(const FlatCloth& flat, const Loops& island, double y, std::vector<Cut>& out) const {
        std::vector<std::pair<Point, Point>> segments;
        for (std::uint32_t f = 0; f < face_.triangles.size(); ++f) {
            const auto centre = flat.at(f, face_.centre(f));
            if (!centre || !holds(island, *centre)) continue;
            std::array<double, 3> high{};
            for (int k = 0; k < 3; ++k)
                high[static_cast<std::size_t>(k)] = flat.at(f, face_.corner(f, k))->y() - y;
            std::vector<Point> ends;
            for (int k = 0; k < 3; ++k) {
                const double a = high[static_cast<std::size_t>(k)],
                             b = high[static_cast<std::size_t>((k + 1) % 3)];
                // What lies on the line counts as above it, so that no edge is met twice.
                if ((a < 0) == (b < 0)) continue;
                ends.emplace_back(face_.corner(f, k) +
                                  a / (a - b) * (face_.corner(f, (k + 1) % 3) - face_.corner(f, k)));
            }
            if (ends.size() == 2) segments.emplace_back(ends[0], ends[1]);
        }
        for (const auto& line : chained(segments, 1e-4 * cell_)) {
            if (line.size() < 2 || (line.front() - line.back()).norm() < cell_) continue;
            std::vector<Point2> seen, few;
            for (const auto& p : line) seen.push_back(frame_.flat(p) - middle_);
            few.push_back(seen.front());
            thin(seen, 0, seen.size() - 1, cell_ / 4, few);
            // Out past the rim at both ends, so that it parts the cloth whatever the face is laid finer by.
            const auto past = [&](Point2& end, const Point2& before) {
                if ((end - before).norm() > 0) end += 3 * cell_ * (end - before).normalized();
            };
            const Point2 first = few[1];
            past(few.back(), few[few.size() - 2]);
            past(few.front(), first);
            auto& cut = out.emplace_back();
            // To a tenth of a millimetre, as it would be typed.
            const auto typed = [](double v) { return std::round(v * 1e4) / 1e4; };
            for (const auto& p : few) cut.line.push_back({typed(p.x()), typed(p.y())});
        }
    }

  private:
    const TriangleMesh& face_;
    const Frame& frame_;
    Point2 middle_;
    double cell_;
};

}  // namespace

RollSeams seams_by_roll(const Choices& c, const Draped& now, const edge::ToolFace& tool,
                        const Lists<Reinforcement>& shop, Progress& progress) {
    RollSeams out;
    out.cuts = c.cuts;
    if (!now.face) return out;
    const auto asked = cloth_asked(c);
    // The widest ply of each way that a roll runs.
    std::vector<Wide> wide;
    {
        FlatCloths flats(c.drape.turn, now, tool.frame);
        for (const auto& ply : asked.plies) {
            const auto* cloth = find(shop.reinforcements, ply.material);
            // Where a zone's plies lie no net knows; they are cut where the common ones are.
            if (cloth == nullptr || ply.of.zone >= 0) continue;
            const double width = cloth->roll_width - kSelvedge;
            const auto* flat = flats.of(ply.of, ply.angle, *cloth, progress);
            if (flat == nullptr || flat->whole.empty() || widest(*flat, c.kit) <= width) continue;
            ++out.wide;
            const double way = roll_way(ply.angle);
            auto at = std::find_if(wide.begin(), wide.end(), [&](const Wide& w) { return w.way == way; });
            if (at == wide.end()) at = wide.insert(wide.end(), Wide{way, width, {}});
            at->width = std::min(at->width, width);
            at->plies.push_back(ply.of);
        }
    }
    double done = 0;
    for (const auto& w : wide) {
        const double step = w.plies.size() > 1 ? 2 * c.kit.lap : 0;
        const auto& first = w.plies.front();
        const auto& cloth = need(shop.reinforcements, c.layers[first.layer].material, "part");
        FlatCloths flats(c.drape.turn, now, tool.frame);
        const FlatCloth flat = *flats.of(first, c.layers[first.layer].angle, cloth, progress);
        const Drawn drawn(now, tool.frame);
        // Of the outer pieces' width the rim takes its trim and the seam half its lap, and as much as it is
        // stepped aside by; of the inner ones' two halves of laps.
        const double room = w.width - std::max(c.kit.lap, c.kit.lap / 2 + c.kit.trim + step);
        bool fits = false;
        for (int more = 0; more <= kMoreSeams && !fits && room > 0; ++more) {
            progress.report(done / static_cast<double>(wide.size()),
                            "plies whose roll runs at " + quantity(Kind::angle, w.way));
            auto next = c;
            next.cuts = out.cuts;
            for (const auto& island : islands(flat.whole)) {
                const double whole = height(island);
                if (whole + 2 * c.kit.trim <= w.width) continue;
                const int n = static_cast<int>(std::ceil(whole / room - 1e-9)) + more;
                for (int i = 1; i < n; ++i)
                    drawn.level(flat, island, low_corner(island).y() + whole * i / n, next.cuts);
            }
            if (next.cuts.size() > kMostCuts || next.cuts.size() == out.cuts.size()) break;
            for (auto k = out.cuts.size(); k < next.cuts.size(); ++k) {
                next.cuts[k].piece = tool.piece;
                next.cuts[k].in = CutIn::roll;
                next.cuts[k].angle = w.way;
                next.cuts[k].step = step;
            }
            const auto then = draped(cloth_asked(next), tool, shop, progress);
            FlatCloths cut(c.drape.turn, then, tool.frame);
            fits = std::all_of(w.plies.begin(), w.plies.end(), [&](const Source& ply) {
                const auto& layer = c.layers[ply.layer];
                const auto* laid =
                    cut.of(ply, layer.angle, need(shop.reinforcements, layer.material, "part"), progress);
                return laid != nullptr && widest(*laid, c.kit) <= w.width + 1e-6;
            });
            if (!fits) continue;
            for (auto k = out.cuts.size(); k < next.cuts.size(); ++k) out.length += cut_length(then, k);
            out.found += next.cuts.size() - out.cuts.size();
            out.cuts = std::move(next.cuts);
        }
        if (!fits) out.left += w.plies.size();
        ++done;
    }
    return out;
}

}  // namespace jig::part
