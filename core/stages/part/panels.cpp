#include "core/stages/part/panels.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <memory>
#include <set>

#include "core/science/drape/flatten.hpp"
#include "core/science/mesh/cut.hpp"
#include "core/science/mesh/nearest_face.hpp"
#include "core/stages/some_of.hpp"

namespace jig::part {
namespace {

/// m: panels are cut no smaller for the sake of their stretch.
constexpr double kSmallest = 0.08;
/// m: nor any smaller where it cannot be laid flat.
constexpr double kLeast = 0.01;
/// Share of a panel's area by whose stretch it is judged: its worst corner may be wrung.
constexpr double kJudged = 0.95;
/// m: pieces of one triangle meet to rounding.
constexpr double kSeam = 2e-5;
/// m from a cut that counts as on it.
constexpr double kOnCut = 1e-8;
/// m²
constexpr double kNoArea = 1e-14;

/// A piece of one triangle of the face under a core.
struct Bit {
    std::uint32_t face = 0;
    std::vector<Point> corners;
};
using Bits = std::vector<Bit>;

Point area_of(const Bit& bit) {
    Point out = Point::Zero();
    for (std::size_t i = 1; i + 1 < bit.corners.size(); ++i)
        out += (bit.corners[i] - bit.corners[0]).cross(bit.corners[i + 1] - bit.corners[0]) / 2;
    return out;
}

/// The side of a convex piece on which `way` points, from `at`.
Bit side_of(const Bit& bit, const Point& way, double at) {
    Bit out;
    // What lies on the cut lies on both sides, or slivers would be parted off.
    const auto above = [&](const Point& p) {
        const double h = way.dot(p) - at;
        return std::abs(h) < kOnCut ? 0.0 : h;
    };
    out.face = bit.face;
    for (std::size_t i = 0; i < bit.corners.size(); ++i) {
        const Point &a = bit.corners[i], &b = bit.corners[(i + 1) % bit.corners.size()];
        const double ha = above(a), hb = above(b);
        if (ha >= 0) out.corners.push_back(a);
        if ((ha > 0 && hb < 0) || (ha < 0 && hb > 0)) out.corners.push_back(a + ha / (ha - hb) * (b - a));
    }
    return out;
}

/// An edge by its middle, to the tenth of a micrometre.
using Key = std::array<std::int64_t, 3>;
Key key_of(const Point& a, const Point& b) {
    const Point middle = (a + b) / 2e-7;
    return {std::llround(middle.x()), std::llround(middle.y()), std::llround(middle.z())};
}

void each_edge(const Bits& bits, const auto& take) {
    for (const auto& bit : bits) {
        for (std::size_t i = 0; i < bit.corners.size(); ++i)
            take(bit, bit.corners[i], bit.corners[(i + 1) % bit.corners.size()]);
    }
}

/// m round all of them: edges that no other of them has.
double border_of(const Bits& bits) {
    std::map<Key, std::pair<int, double>> edges;
    each_edge(bits, [&](const Bit&, const Point& a, const Point& b) {
        auto& [count, length] = edges[key_of(a, b)];
        ++count;
        length = (b - a).norm();
    });
    double out = 0;
    for (const auto& [key, edge] : edges) out += edge.first == 1 ? edge.second : 0;
    return out;
}

/// Those that hang together by faces that share an edge.
std::vector<Bits> joined(const Bits& bits, const Topology& topology) {
    std::map<std::uint32_t, std::vector<std::size_t>> by_face;
    for (std::size_t i = 0; i < bits.size(); ++i) by_face[bits[i].face].push_back(i);
    std::vector<Bits> out;
    while (!by_face.empty()) {
        auto& piece = out.emplace_back();
        std::vector<std::uint32_t> open{by_face.begin()->first};
        while (!open.empty()) {
            const auto face = open.back();
            open.pop_back();
            const auto at = by_face.find(face);
            if (at == by_face.end()) continue;
            for (const auto i : at->second) piece.push_back(bits[i]);
            by_face.erase(at);
            for (const auto next : topology.across[face]) {
                if (next != kNoFace) open.push_back(next);
            }
        }
    }
    return out;
}

/// A piece laid flat, the tool's length along x.
struct Laid {
    Loops outline;
    double stretch = 0;
};

/// Where a piece lies in the tool's directions, and which way it looks.
struct Spread {
    Point low = Point::Constant(1e300), high = -low;
    Point middle = Point::Zero(), normal = Point::Zero();
    double area = 0;
};
Spread spread_of(const Bits& piece, const Frame& frame) {
    Spread out;
    for (const auto& bit : piece) {
        const Point normal = area_of(bit);
        Point mean = Point::Zero();
        for (const auto& p : bit.corners) {
            mean += p / static_cast<double>(bit.corners.size());
            const Point seen(frame.u.dot(p), frame.v.dot(p), frame.w.dot(p));
            out.low = out.low.cwiseMin(seen);
            out.high = out.high.cwiseMax(seen);
        }
        out.normal += normal;
        out.area += normal.norm();
        out.middle += normal.norm() * mean;
    }
    if (out.area > 0) out.middle /= out.area;
    if (out.normal.norm() > 0) out.normal.normalize();
    return out;
}

/// An arrow along x in the middle of an outline.
std::vector<Loop> arrow_in(const Loops& outline) {
    const Point2 low = low_corner(outline), high = high_corner(outline), centre = (low + high) / 2;
    const double arm = 0.15 * (high - low).minCoeff();
    const Point2 tip = centre + Point2(arm, 0);
    return {{centre - Point2(arm, 0), tip},
            {tip - arm * Point2(0.3, 0.18), tip, tip - arm * Point2(0.3, -0.18)}};
}

class Cutter {
  public:
    Cutter(const PieceFace& on, CorePanels& out, Progress& progress)
        : face_(*on.bare.face),
          frame_(on.frame),
          piece_(on.bare.piece),
          topology_(topology_of(face_)),
          out_(out),
          progress_(progress) {}

    /// Panels of one core that covers `bits`, yet without their names.
    void cut(const Bits& bits, const Source& of, const std::string& material, const SheetRules& rules,
             double takes, double gap) {
        std::vector<Bits> open = joined(bits, topology_);
        const auto first = static_cast<std::ptrdiff_t>(out_.panels.size());
        while (!open.empty()) {
            progress_.check();
            const auto piece = std::move(open.back());
            open.pop_back();
            const auto spread = spread_of(piece, frame_);
            if (!(spread.area > 1e-8)) continue;
            int widest = 0;
            const double size = (spread.high - spread.low).maxCoeff(&widest);
            const bool small = size <= kSmallest;
            // What is longer than the sheet is from corner to corner need not be laid out.
            const bool parts = !small && size > std::hypot(rules.length, rules.width);
            auto laid = parts ? std::nullopt : lay(piece);
            // What closes on itself comes to lie over itself, and its outline holds next to nothing.
            if (laid && net_area(laid->outline) < spread.area / 2) laid.reset();
            const bool bears = laid && laid->stretch <= takes;
            // What cannot be laid flat at all is cut as small as it takes.
            const bool closed = !laid && size > kLeast;
            if (parts || closed || (!small && (!bears || !goes_on(*laid, rules, gap)))) {
                part(piece, widest, (spread.low[widest] + spread.high[widest]) / 2, open);
                continue;
            }
            if (!laid) {
                out_.not_flat += spread.area;
                continue;
            }
            for (const auto& outline : islands(offset(laid->outline, -gap / 2, false))) {
                if (net_area(outline) < 1e-6) continue;
                if (out_.panels.size() >= kMostPanels) {
                    out_.too_many = true;
                    return;
                }
                out_.panels.push_back({{},
                                       of,
                                       piece_,
                                       material,
                                       outline,
                                       arrow_in(outline),
                                       net_area(outline),
                                       laid->stretch,
                                       !bears,
                                       spread.middle,
                                       spread.normal});
            }
        }
        // Numbered from behind forward, and from right to left, as rows of 5 mm.
        std::sort(out_.panels.begin() + first, out_.panels.end(), [&](const auto& a, const auto& b) {
            const Point2 p = frame_.flat(a.middle), q = frame_.flat(b.middle);
            return std::pair(std::lround(200 * p.x()), p.y()) < std::pair(std::lround(200 * q.x()), q.y());
        });
    }

  private:
    static bool goes_on(const Laid& laid, const SheetRules& rules, double gap) {
        const auto parts = islands(offset(laid.outline, -gap / 2, false));
        return std::all_of(parts.begin(), parts.end(),
                           [&](const Loops& l) { return fits_a_sheet(l.front(), rules); });
    }

    void part(const Bits& piece, int axis, double at, std::vector<Bits>& open) {
        const Point way = axis == 0 ? frame_.u : axis == 1 ? frame_.v : frame_.w;
        Bits ahead, behind;
        for (const auto& bit : piece) {
            auto front = side_of(bit, way, at), back = side_of(bit, -way, -at);
            if (area_of(front).norm() > kNoArea) ahead.push_back(std::move(front));
            if (area_of(back).norm() > kNoArea) behind.push_back(std::move(back));
        }
        // Joints are the edges on the cut that both sides have, whether it parts faces or runs between them.
        const auto on_cut = [&](const Point& p) { return std::abs(way.dot(p) - at) < kOnCut; };
        std::set<Key> edges;
        each_edge(behind, [&](const Bit&, const Point& a, const Point& b) {
            if (on_cut(a) && on_cut(b)) edges.insert(key_of(a, b));
        });
        each_edge(ahead, [&](const Bit& bit, const Point& a, const Point& b) {
            if (!on_cut(a) || !on_cut(b) || edges.count(key_of(a, b)) == 0) return;
            out_.seams.push_back({a, b, area_of(bit).normalized(), piece_});
            out_.joints += (b - a).norm();
        });
        for (const auto& side : {ahead, behind}) {
            for (auto& one : joined(side, topology_)) open.push_back(std::move(one));
        }
    }

    /// None where it has no area to speak of.
    std::optional<Laid> lay(const Bits& piece) const {
        std::map<std::uint32_t, std::uint32_t> local;
        std::vector<std::uint32_t> keep;
        for (const auto& bit : piece) {
            if (local.try_emplace(bit.face, static_cast<std::uint32_t>(keep.size())).second)
                keep.push_back(bit.face);
        }
        const auto mesh = some_faces(face_, keep);
        Flattened flat;
        try {
            flat = flatten(mesh, progress_);
        } catch (const InputError&) {
            return {};
        }
        Laid out;
        if (flat.folded) out.stretch = 1;
        std::vector<std::pair<double, double>> stretches;
        Loops loops;
        double all = 0;
        Point2 along = Point2::Zero();
        for (const auto& bit : piece) {
            const auto f = local.at(bit.face);
            const auto& t = mesh.triangles[f];
            Loop loop;
            for (const auto& corner : bit.corners) {
                const Point share = corner_shares(mesh, f, corner);
                loop.push_back(share[0] * flat.flat[t[0]] + share[1] * flat.flat[t[1]] +
                               share[2] * flat.flat[t[2]]);
            }
            const double area = area_of(bit).norm();
            stretches.emplace_back(flat.stretch[f], area);
            all += area;
            along += area * laid_flat(mesh, flat, f, frame_.u);
            if (signed_area(loop) < 0) std::reverse(loop.begin(), loop.end());
            loops.push_back(std::move(loop));
        }
        if (!(all > 0)) return {};
        std::sort(stretches.begin(), stretches.end());
        double so_far = 0;
        for (const auto& [stretch, area] : stretches) {
            so_far += area;
            if (so_far >= kJudged * all) {
                out.stretch = std::max(out.stretch, stretch);
                break;
            }
        }
        for (auto& loop : offset(offset(united(loops), kSeam), -kSeam))
            out.outline.push_back(simplified(loop, 1e-4));
        // The tool's length lies along the sheet's, until it is nested.
        if (!(along.norm() > 0)) along = {1, 0};
        along.normalize();
        for (auto& loop : out.outline) {
            for (auto& p : loop) p = Point2(along.dot(p), along.x() * p.y() - along.y() * p.x());
        }
        return out;
    }

    const TriangleMesh& face_;
    const Frame& frame_;
    int piece_;
    Topology topology_;
    CorePanels& out_;
    Progress& progress_;
};

/// One face that cores are cut to.
struct Ground {
    std::vector<RegionPiece> pieces;
    std::unique_ptr<Cutter> cutter;
};

SheetRules rules_for(const Core& core) {
    SheetRules rules;
    rules.length = core.sheet_length;
    rules.width = core.sheet_width;
    rules.kerf = 0.002;
    rules.margin = 0.005;
    return rules;
}

}  // namespace

CorePanels core_panels(const CoreAsked& asked, const std::vector<PieceFace>& faces, const Lists<Core>& shop,
                       Progress& progress) {
    CorePanels out;
    const auto& c = asked.stack;
    const auto cores = cores_of(c);
    if (cores.empty()) return out;
    progress.report(0.05, "cutting the core into panels");
    std::vector<Ground> grounds;
    for (const auto& face : faces) {
        if (!face.bare.face) continue;
        auto& ground =
            grounds.emplace_back(Ground{region_pieces(zones_asked(c), face.frame, face.bare, progress),
                                        std::make_unique<Cutter>(face, out, progress)});
        const auto& mesh = *face.bare.face;
        // Without zones nothing parts the face's triangles.
        for (std::uint32_t f = 0; c.zones.empty() && f < mesh.triangles.size(); ++f)
            ground.pieces.push_back({f, 0, {mesh.corner(f, 0), mesh.corner(f, 1), mesh.corner(f, 2)}});
    }
    if (grounds.empty()) return out;
    LiesUnder lies(c);
    std::map<std::string, std::pair<double, std::vector<CutPiece>>> by_core;
    int number = 0;
    for (const auto& [source, layer] : cores) {
        // What the library has not the part itself says.
        const auto* known = find(shop.cores, layer.material);
        if (known == nullptr) continue;
        const auto& core = *known;
        if (core.sheet_length <= 0 || core.sheet_width <= 0) {
            out.no_sheets.push_back(core.name);
            continue;
        }
        const double thickness = layer.thickness > 0 ? layer.thickness : core.thickness;
        const auto open = open_of(layer.cut, thickness);
        const double takes = c.core.takes + (layer.cut.slits == Slits::both ? open.across : 0);
        const auto rules = rules_for(core);
        if (std::min(rules.length, rules.width) < 2 * rules.margin + 0.02)
            throw InputError(core.name, "its sheets are too small to cut a panel from",
                             "see its sheet's length and width in the shop library");
        const auto first = out.panels.size();
        const double joints = out.joints;
        double round = 0;
        ++number;
        for (const auto& ground : grounds) {
            Bits bits;
            for (const auto& piece : ground.pieces) {
                if (!lies(source, piece.zones)) continue;
                // A border through a corner leaves pieces without area.
                Bit bit{piece.face, piece.corners};
                if (area_of(bit).norm() > kNoArea) bits.push_back(std::move(bit));
            }
            const auto from = out.panels.size();
            ground.cutter->cut(bits, source, core.name, rules, takes, c.core.gap);
            if (out.too_many) {
                out = {};
                out.too_many = true;
                return out;
            }
            for (auto i = from; i < out.panels.size(); ++i) {
                auto& panel = out.panels[i];
                panel.name = fmt::format("C{}.{}", number, i - first + 1);
                CutPiece piece;
                piece.name = panel.name;
                piece.outline = panel.outline;
                piece.engraved = panel.arrow;
                piece.words = panel.material +
                              (panel.piece > 0 ? fmt::format(", on piece {}", panel.piece) : "") +
                              ", seen from the tool; the arrow points along the tool";
                auto& stock = by_core[core.name];
                stock.first = thickness;
                stock.second.push_back(std::move(piece));
            }
            round += border_of(bits);
        }
        out.edges += round;
        out.joint_fill += (out.joints - joints) * c.core.gap * thickness;
        out.edge_fill += round * c.core.edge * thickness;
    }
    double done = 0;
    for (const auto& [name, stock] : by_core) {
        progress.report(0.6 + 0.4 * done++ / static_cast<double>(by_core.size()),
                        "laying panels onto sheets");
        out.stocks.push_back(
            {name, stock.first,
             lay_onto_sheets(stock.second, rules_for(need(shop.cores, name, "part")), progress)});
    }
    return out;
}

Findings with_panels(Findings part, const CorePanels& f, bool one_off) {
    if (f.panels.empty()) return part;
    part.panel_filler = f.joint_fill + f.edge_fill;
    for (const auto& stock : f.stocks) {
        const auto& sheets = stock.sheets.sheets;
        if (sheets.empty()) continue;
        // What is left of the last one serves the next part.
        double cut = 0;
        for (const auto& piece : sheets.back().pieces) cut = std::max(cut, high_corner(piece.loops).x());
        const auto& rules = stock.sheets.rules;
        const double last = one_off ? 1 : std::min(1.0, (cut + rules.kerf) / rules.length);
        const double count = static_cast<double>(sheets.size() - 1) + last;
        part.core_bought.push_back(
            {stock.material, count * rules.length * rules.width,
             fmt::format("{:.2g} sheets of {} × {}, as its panels are laid onto them{}", count,
                         quantity(Kind::length, rules.length), quantity(Kind::length, rules.width),
                         one_off ? "" : ", the last by the length cut off it")});
    }
    return part;
}

std::vector<Figure> panel_figures(const CorePanels& f, const Choices& c) {
    std::vector<Figure> out;
    if (f.panels.empty()) return out;
    double worst = 0;
    for (const auto& p : f.panels) worst = std::max(worst, p.stretch);
    std::string sheets;
    int count = 0;
    for (const auto& s : f.stocks) {
        count += static_cast<int>(s.sheets.sheets.size());
        sheets += (sheets.empty() ? "" : ", ") + fmt::format("{} of {}, {:.0f} % of them used",
                                                             s.sheets.sheets.size(), s.material,
                                                             100 * s.sheets.yield);
    }
    out.push_back(
        {"core_panels", "panels of core", Kind::count, static_cast<double>(f.panels.size()),
         fmt::format("cut until each goes onto its sheet and stretches by at most {:.1f} %; the worst "
                     "by {:.1f} %",
                     100 * c.core.takes, 100 * worst)});
    out.push_back({"core_sheets", "sheets of core for one", Kind::count, static_cast<double>(count), sheets});
    out.push_back({"core_joints", "joints between panels", Kind::length, f.joints,
                   "of " + quantity(Kind::length, c.core.gap) + ", filled with " +
                       quantity(Kind::volume, f.joint_fill) + " of thickened resin as they are laid"});
    out.push_back({"core_edge", "core's own edge", Kind::length, f.edges,
                   c.core.edge > 0
                       ? quantity(Kind::volume, f.edge_fill) + " of filled cells, " +
                             quantity(Kind::length, c.core.edge) + " deep"
                       : std::string("beveled, so that the inner skin comes down to the outer one")});
    return out;
}

Calls panel_calls(const CorePanels& f, const Choices& c) {
    Calls out;
    if (f.too_many)
        out.push_back(
            {Stage::part,
             Severity::caution,
             "core_too_many",
             fmt::format("The core makes more than {} panels", kMostPanels),
             fmt::format("The face bends both ways more than sheets follow at {:.1f} %: slit it both "
                         "ways, let a panel stretch more, or end it before the bends.",
                         100 * c.core.takes),
             {}});
    if (f.not_flat > 1e-6)
        out.push_back({Stage::part,
                       Severity::caution,
                       "core_not_flat",
                       quantity(Kind::area, f.not_flat) + " of the core cannot be laid flat",
                       "It is in no panel and on no sheet: fill it with paste there, or lay solid laminate.",
                       {}});
    std::vector<std::string> strained;
    double worst = 0;
    for (const auto& p : f.panels) {
        if (!p.strained) continue;
        strained.push_back(p.name);
        worst = std::max(worst, p.stretch);
    }
    if (!strained.empty())
        out.push_back(
            {Stage::part,
             Severity::caution,
             "core_strained",
             "Panels " + some_of(strained) + fmt::format(" stretch by up to {:.1f} %", 100 * worst),
             fmt::format("The face bends both ways there more than a sheet follows at {:.1f} %, however "
                         "small it is cut: slit it both ways, bend it hot, or lay solid laminate.",
                         100 * c.core.takes),
             {}});
    for (const auto& stock : f.stocks) {
        if (stock.sheets.too_large.empty()) continue;
        out.push_back({Stage::part,
                       Severity::caution,
                       "core_sheet",
                       fmt::format("{} of the panels go onto no sheet of {}", stock.sheets.too_large.size(),
                                   stock.material),
                       "Its sheets are as the shop library has them.",
                       {}});
    }
    return out;
}

}  // namespace jig::part
