#include "core/stages/back/tool.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <numeric>

#include "core/science/mesh/remesh.hpp"
#include "core/science/mesh/topology.hpp"
#include "core/science/mesh/triangulate.hpp"

namespace jig::back {
namespace {

using shell_fe::Bar;
using shell_fe::Model;
using shell_fe::Tie;

/// Typical: thickened resin in a fillet, a closed-cell strip, one tab ply (docs/methods.md, Back).
constexpr double kFilletE = 3e9, kStripE = 5e6, kTabE = 14e9, kTabG = 4e9, kTabPly = 0.0004;
/// Twice the area of a face ÷ its longest side squared, below which it is left out.
constexpr double kSliver = 3e-3;
/// A floating joint carries across its gap and hardly along it.
constexpr double kSlide = 0.01;

struct MetalFacts {
    double E, G, density, alpha;
};
MetalFacts facts_of(Metal metal) {
    return metal == Metal::steel ? MetalFacts{205e9, 79e9, 7850, 12e-6}
                                 : MetalFacts{69e9, 26e9, 2700, 23.6e-6};
}

class Builder {
  public:
    Builder(const ToolInputs& in, const EvenFace& face, Progress& progress)
        : in_(in), c_(in.back), face_(face), progress_(progress) {}

    Tool build() {
        tool_.edge = face_.edge;
        planes_ = rib_planes(c_, in_.face);
        planes_[0].normal = f_.u;
        planes_[1].normal = f_.v;
        if (c_.has_grid()) {
            lined_ = lined_up(face_.mesh, face_.patch, planes_);
        } else {
            lined_.mesh = face_.mesh;
            lined_.patch = face_.patch;
        }
        drop_slivers();
        auto& model = tool_.model;
        model.mesh = lined_.mesh;
        shell_points_ = model.mesh.points.size();
        lay_shell();
        tool_.level = highest() + thickness_ + (c_.has_grid() ? c_.height : 0);
        if (c_.has_grid()) find_crossings();
        if (c_.has_plates()) stand_ribs();
        if (c_.has_bars()) stand_tubes();
        if (tool_.base.size() < 3) tool_.base.insert(tool_.base.end(), ends_.begin(), ends_.end());
        std::sort(tool_.base.begin(), tool_.base.end());
        tool_.base.erase(std::unique(tool_.base.begin(), tool_.base.end()), tool_.base.end());
        find_rim();
        find_feet();
        return std::move(tool_);
    }

  private:
    /// Faces with hardly any area join nothing, and spoil the sums of those that do.
    void drop_slivers() {
        auto& mesh = lined_.mesh;
        std::size_t kept = 0;
        for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
            if (is_sliver(mesh, f)) continue;
            mesh.triangles[kept] = mesh.triangles[f];
            lined_.patch[kept++] = lined_.patch[f];
        }
        mesh.triangles.resize(kept);
        lined_.patch.resize(kept);
        keep_largest_piece();
    }

    /// A scrap that hung on by a sliver alone is no part of the tool any more.
    void keep_largest_piece() {
        auto& mesh = lined_.mesh;
        std::vector<std::uint32_t> root(mesh.points.size());
        std::iota(root.begin(), root.end(), 0u);
        const auto find = [&](std::uint32_t i) {
            while (root[i] != i) i = root[i] = root[root[i]];
            return i;
        };
        for (const auto& t : mesh.triangles) {
            root[find(t[1])] = find(t[0]);
            root[find(t[2])] = find(t[0]);
        }
        std::map<std::uint32_t, std::size_t> size;
        for (const auto& t : mesh.triangles) ++size[find(t[0])];
        if (size.size() < 2) return;
        const auto largest = std::max_element(size.begin(), size.end(), [](const auto& a, const auto& b) {
                                 return a.second < b.second;
                             })->first;
        std::size_t kept = 0;
        for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
            if (find(mesh.triangles[f][0]) != largest) continue;
            mesh.triangles[kept] = mesh.triangles[f];
            lined_.patch[kept++] = lined_.patch[f];
        }
        mesh.triangles.resize(kept);
        lined_.patch.resize(kept);
    }

    static bool is_sliver(const TriangleMesh& mesh, std::size_t f) {
        double longest = 0;
        for (int k = 0; k < 3; ++k)
            longest = std::max(longest, (mesh.corner(f, (k + 1) % 3) - mesh.corner(f, k)).squaredNorm());
        return !(mesh.area_vector2(f).norm() > kSliver * longest);
    }

    std::vector<Point>& points() { return tool_.model.mesh.points; }
    double height(std::uint32_t i) { return f_.w.dot(points()[i]); }
    double highest() {
        double top = -1e30;
        for (std::size_t i = 0; i < shell_points_; ++i) top = std::max(top, f_.w.dot(points()[i]));
        return top;
    }

    /// Skins by which zones lie on a face.
    void lay_shell() {
        auto& model = tool_.model;
        const auto zones = in_.shell.zones.size();
        std::vector<unsigned> masks(model.mesh.triangles.size(), 0);
        for (std::size_t z = 0; z < zones && z < 16; ++z) mark_zone(in_.shell.zones[z], 1u << z, masks);
        std::map<unsigned, std::uint16_t> skins;
        for (std::size_t f = 0; f < masks.size(); ++f) {
            const auto known = skins.find(masks[f]);
            if (known != skins.end()) {
                model.skin.push_back(known->second);
            } else {
                auto layers = in_.shell.layers;
                for (std::size_t z = 0; z < zones; ++z) {
                    if ((masks[f] >> z & 1u) != 0)
                        layers.insert(layers.end(), in_.shell.zones[z].layers.begin(),
                                      in_.shell.zones[z].layers.end());
                }
                const auto number = static_cast<std::uint16_t>(model.skins.size());
                model.skins.push_back({with_sandwich(layers, in_), f_.u});
                skins[masks[f]] = number;
                model.skin.push_back(number);
            }
            tool_.parts.push_back(lined_.patch[f] == 1 ? ToolPart::flange : ToolPart::face);
        }
        thickness_ = with_sandwich(in_.shell.layers, in_).thickness;
    }

    void mark_zone(const shell::Zone& zone, unsigned bit, std::vector<unsigned>& masks) {
        if (zone.layers.empty()) return;
        const auto& mesh = tool_.model.mesh;
        const auto mark = [&](std::size_t f) { masks[f] |= bit; };
        switch (zone.kind) {
            case ZoneKind::flange:
                for (std::size_t f = 0; f < masks.size(); ++f) {
                    if (lined_.patch[f] == 1) mark(f);
                }
                break;
            case ZoneKind::under_ribs:
                for (std::size_t f = 0; f < masks.size() && !lined_.on[0].empty(); ++f) {
                    const Point p = mesh.centre(f);
                    for (const auto& set : planes_) {
                        for (const double at : set.at) {
                            if (std::abs(set.normal.dot(p) - at) < zone.width / 2) mark(f);
                        }
                    }
                }
                break;
            case ZoneKind::corners: {
                std::vector<Point> tight;
                const auto& marked = in_.shell_found.corners.faces;
                for (std::size_t f = 0; f < marked.size(); ++f) {
                    if (marked[f]) tight.push_back(upright(in_.face.frame, in_.corners.centre(f)));
                }
                for (std::size_t f = 0; f < masks.size() && !tight.empty(); ++f) {
                    const Point p = mesh.centre(f);
                    for (const auto& q : tight) {
                        if ((p - q).squaredNorm() < zone.width * zone.width / 4) {
                            mark(f);
                            break;
                        }
                    }
                }
                break;
            }
            case ZoneKind::painted:
                for (const auto& touch : zone.painted) {
                    auto dab = touch.dab();
                    dab.at = upright(in_.face.frame, dab.at);
                    dab.facing = upright(in_.face.frame, dab.facing);
                    for (const auto f : faces_under(mesh, dab)) mark(f);
                }
                break;
        }
    }

    std::uint32_t add_point(const Point& p) {
        points().push_back(p);
        return static_cast<std::uint32_t>(points().size() - 1);
    }

    /// Where planes of both sets meet on the shell: the highest such place of each pair.
    void find_crossings() {
        for (std::uint32_t i = 0; i < shell_points_; ++i) {
            const int a = lined_.on[0][i], b = lined_.on[1][i];
            if (a < 0 || b < 0) continue;
            const auto known = crossing_.find({a, b});
            if (known == crossing_.end() || height(known->second) < height(i)) crossing_[{a, b}] = i;
        }
    }

    /// The rib's own point beside a point of the shell; ribs that meet there share it.
    std::uint32_t beside(std::uint32_t shell) {
        const auto known = beside_.find(shell);
        if (known != beside_.end()) return known->second;
        const Point p = points()[shell];
        const auto made = add_point(p);
        beside_[shell] = made;
        return made;
    }

    /// Points from the shell to the rib's other edge at a crossing, shared by the two ribs there.
    const std::vector<std::uint32_t>& column(std::uint32_t shell) {
        const auto known = columns_.find(shell);
        if (known != columns_.end()) return known->second;
        std::vector<std::uint32_t> out{beside(shell)};
        const Point from = points()[out.front()];
        const double tall = std::max(0.2 * face_.edge, top_of(from) - f_.w.dot(from));
        const int steps = std::max(1, static_cast<int>(std::lround(tall / face_.edge)));
        for (int k = 1; k <= steps; ++k) out.push_back(add_point(from + f_.w * (tall * k / steps)));
        return columns_[shell] = std::move(out);
    }

    /// Height of a rib's other edge over a place of the shell.
    double top_of(const Point& p) {
        return c_.kind == BackKind::foam_blocks ? f_.w.dot(p) + std::max(0.02, c_.height) : tool_.level;
    }

    void stand_ribs() {
        const auto skin = rib_skin();
        for (int s = 0; s < 2; ++s) {
            const auto& set = planes_[static_cast<std::size_t>(s)];
            const Point along = s == 0 ? f_.v : f_.u;
            for (std::size_t p = 0; p < set.at.size(); ++p) {
                progress_.check();
                for (const auto& chain : chains_on(lined_, s, static_cast<int>(p), along))
                    stand_rib(chain, along, skin);
            }
        }
        drop_loose_ties();
    }

    /// Ties to ribs that could not be built hold nothing.
    void drop_loose_ties() {
        std::vector<char> used(points().size(), 0);
        for (const auto& t : tool_.model.mesh.triangles) {
            for (const auto i : t) used[i] = 1;
        }
        std::erase_if(tool_.model.ties, [&](const Tie& tie) { return !used[tie.a] || !used[tie.b]; });
        const auto gone = [&](std::uint32_t i) { return !used[i]; };
        std::erase_if(tool_.base, gone);
        std::erase_if(ends_, gone);
    }

    std::uint16_t rib_skin() {
        auto& model = tool_.model;
        std::vector<StackPly> plies;
        if (c_.kind == BackKind::egg_crate) {
            const auto& board = need(in_.shop.boards, c_.board, "back board");
            plies.push_back({isotropic(board.E, 0.3, board.density, board.alpha), 0, board.thickness});
        } else {
            const auto& board = need(in_.shop.boards, c_.foam.board, "back foam");
            auto laid = lay_up(std::vector<Layer>(static_cast<std::size_t>(c_.foam.plies),
                                                  {LayerKind::ply, c_.foam.cloth, 0, 0}),
                               in_.shell_found.resin, LayUp::hand, in_.shop, "back cloth");
            plies = plies_of(laid);
            const auto cloth = plies;
            plies.push_back({isotropic(board.E, 0.3, board.density, board.alpha), 0, c_.foam.wide});
            plies.insert(plies.end(), cloth.rbegin(), cloth.rend());
            cap_ = laminate(cloth);
        }
        model.skins.push_back({laminate(plies), f_.u});
        rib_thickness_ = model.skins.back().laminate.thickness;
        return static_cast<std::uint16_t>(model.skins.size() - 1);
    }

    void stand_rib(const std::vector<std::uint32_t>& chain, const Point& along, std::uint16_t skin) {
        // From crossing to crossing, the pieces of the rib between two columns.
        std::vector<std::size_t> cuts;
        for (std::size_t i = 0; i < chain.size(); ++i) {
            const int a = lined_.on[0][chain[i]], b = lined_.on[1][chain[i]];
            const auto known = crossing_.find({a, b});
            const bool end = i == 0 || i + 1 == chain.size();
            if (end || (known != crossing_.end() && known->second == chain[i])) cuts.push_back(i);
        }
        tie_chain(chain, along);
        for (std::size_t k = 1; k < cuts.size(); ++k) {
            try {
                panel(chain, cuts[k - 1], cuts[k], along, skin);
            } catch (const InputError&) {
                tool_.notes.push_back("a rib is left out where the shell overhangs it");
            }
        }
    }

    void panel(const std::vector<std::uint32_t>& chain, std::size_t from, std::size_t to, const Point& along,
               std::uint16_t skin) {
        std::vector<std::uint32_t> ring;
        for (auto i = from; i <= to; ++i) ring.push_back(beside(chain[i]));
        const auto right = column(chain[to]), left = column(chain[from]);
        ring.insert(ring.end(), right.begin() + 1, right.end());
        // The other edge, back from right to left.
        const Point a = points()[right.back()], b = points()[left.back()];
        if (c_.kind == BackKind::foam_blocks) {
            for (auto i = to - 1; i > from; --i) {
                const Point p = points()[beside(chain[i])];
                ring.push_back(add_point(p + f_.w * (top_of(p) - f_.w.dot(p))));
            }
        } else {
            const int steps = std::max(1, static_cast<int>(std::lround((b - a).norm() / face_.edge)));
            for (int k = 1; k < steps; ++k) ring.push_back(add_point(a + (b - a) * k / steps));
        }
        const auto edge_from = ring.size() - (c_.kind == BackKind::foam_blocks ? to - from - 1 : 0);
        for (auto i = left.size(); i-- > 1;) ring.push_back(left[i]);
        Loop flat;
        for (const auto i : ring) flat.emplace_back(along.dot(points()[i]), f_.w.dot(points()[i]));
        const auto mesh = filled(flat, face_.edge);
        auto number = ring;
        const Point across = along.cross(f_.w).normalized();
        const double off = across.dot(points()[ring.front()]);
        for (std::size_t i = ring.size(); i < mesh.points.size(); ++i)
            number.push_back(
                add_point(along * mesh.points[i].x() + f_.w * mesh.points[i].y() + across * off));
        for (const auto& t : mesh.triangles) {
            tool_.model.mesh.triangles.push_back({number[t[0]], number[t[1]], number[t[2]]});
            if (is_sliver(tool_.model.mesh, tool_.model.mesh.triangles.size() - 1)) {
                tool_.model.mesh.triangles.pop_back();
                continue;
            }
            tool_.model.skin.push_back(skin);
            tool_.parts.push_back(ToolPart::rib);
        }
        // What a stretched bag presses on: where ribs hold each other up.
        for (const auto& [place, top] :
             {std::pair{chain[to], right.back()}, std::pair{chain[from], left.back()}}) {
            const auto known = crossing_.find({lined_.on[0][place], lined_.on[1][place]});
            if (known != crossing_.end() && known->second == place)
                tool_.base.push_back(top);
            else
                ends_.push_back(top);
        }
        if (c_.kind == BackKind::foam_blocks) cap(ring, right, left, edge_from);
    }

    /// The wrapped cloth over a foam block's back edge is a bar.
    void cap(const std::vector<std::uint32_t>& ring, const std::vector<std::uint32_t>& right,
             const std::vector<std::uint32_t>& left, std::size_t edge_from) {
        std::vector<std::uint32_t> line{right.back()};
        for (auto i = edge_from; i < ring.size() && ring[i] != left.back(); ++i) line.push_back(ring[i]);
        line.push_back(left.back());
        const double E = cap_.membrane.Ex, t = cap_.thickness, w = c_.foam.wide;
        for (std::size_t i = 1; i < line.size(); ++i) {
            if ((points()[line[i]] - points()[line[i - 1]]).norm() < 1e-9) continue;
            Bar bar{line[i - 1], line[i]};
            bar.stretch = E * t * w;
            bar.bend_up = E * w * t * t * t / 12;
            bar.bend_across = E * t * w * w * w / 12;
            bar.twist = cap_.membrane.Gxy * w * t * t * t / 3;
            bar.mass = cap_.areal_mass * w;
            bar.alpha = cap_.cte[0];
            bar.up = upright_of(line[i - 1], line[i]);
            tool_.model.bars.push_back(bar);
        }
    }

    /// Ties a rib's edge to the shell with the bond's stiffness a metre.
    void tie_chain(const std::vector<std::uint32_t>& chain, const Point& along) {
        const auto& j = c_.joint;
        const double tab = j.plies * kTabPly, gap = std::max(0.0005, j.gap);
        double across = 0, sliding = 0;
        switch (j.bond) {
            case Bond::hard:
                across = kFilletE * rib_thickness_ / gap;
                sliding = across / 2.7;
                break;
            case Bond::soft:
                // Tabs carry along their own plane; the strip carries what presses.
                across = kStripE * rib_thickness_ / gap + 2 * kTabE * tab / j.tab * 0.2;
                sliding = 2 * kTabG * tab / j.tab;
                break;
            case Bond::floating:
                across = kStripE * rib_thickness_ / gap + 2 * kTabE * tab / j.tab * 0.2;
                sliding = kSlide * across;
                break;
        }
        const Point side = along.cross(f_.w).normalized();
        for (std::size_t i = 0; i < chain.size(); ++i) {
            double reach = 0;
            Point way = Point::Zero();
            if (i > 0) {
                reach += (points()[chain[i]] - points()[chain[i - 1]]).norm() / 2;
                way += points()[chain[i]] - points()[chain[i - 1]];
            }
            if (i + 1 < chain.size()) {
                reach += (points()[chain[i + 1]] - points()[chain[i]]).norm() / 2;
                way += points()[chain[i + 1]] - points()[chain[i]];
            }
            const Point normal = side.cross(way).normalized();
            Tie tie{chain[i], beside(chain[i]), {}, {}};
            // Both flanks of the rib hold it upright.
            const Point line = way.normalized();
            tie.turning = reach * across * rib_thickness_ * rib_thickness_ / 4 * line * line.transpose();
            tie.stiffness = reach * (sliding * Eigen::Matrix3d::Identity() +
                                     (across - sliding) * normal * normal.transpose());
            tool_.model.ties.push_back(tie);
        }
    }

    /// A direction across a bar: the pull, or the length for bars that stand.
    Point upright_of(std::uint32_t a, std::uint32_t b) {
        const Point way = (points()[b] - points()[a]).normalized();
        return std::abs(way.dot(f_.w)) < 0.9 ? f_.w : std::abs(way.dot(f_.u)) < 0.9 ? f_.u : f_.v;
    }

    Bar tube(std::uint32_t a, std::uint32_t b) {
        const auto m = facts_of(c_.tubes.metal);
        const double s = c_.tubes.size, t = std::min(c_.tubes.wall, s / 2);
        const bool square = c_.kind == BackKind::frame;
        const double in = s - 2 * t;
        const double area = square ? s * s - in * in : kPi / 4 * (s * s - in * in);
        const double second =
            square ? (std::pow(s, 4) - std::pow(in, 4)) / 12 : kPi / 64 * (std::pow(s, 4) - std::pow(in, 4));
        Bar bar{a, b};
        bar.stretch = m.E * area;
        bar.bend_up = bar.bend_across = m.E * second;
        bar.twist = m.G * second * (square ? 1.7 : 2);
        bar.mass = m.density * area;
        bar.alpha = m.alpha;
        bar.up = upright_of(a, b);
        return bar;
    }

    /// A level grid with a leg to the shell at each crossing.
    void stand_tubes() {
        std::map<std::pair<int, int>, std::uint32_t> level;
        for (const auto& [pair, shell] : crossing_) {
            const Point p = points()[shell];
            const auto top = add_point(p + f_.w * std::max(0.02, tool_.level - f_.w.dot(p)));
            level[pair] = top;
            tool_.model.bars.push_back(tube(shell, top));
            tool_.base.push_back(top);
        }
        for (const auto& [pair, point] : level) {
            for (const auto& next :
                 {std::pair{pair.first + 1, pair.second}, std::pair{pair.first, pair.second + 1}}) {
                const auto known = level.find(next);
                if (known != level.end()) tool_.model.bars.push_back(tube(point, known->second));
            }
        }
        if (level.empty()) tool_.notes.push_back("tubes want ribs both ways: no crossing lies on the shell");
    }

    void find_rim() {
        TriangleMesh shell;
        shell.points.assign(points().begin(), points().begin() + static_cast<std::ptrdiff_t>(shell_points_));
        for (std::size_t f = 0; f < tool_.parts.size(); ++f) {
            if (tool_.parts[f] != ToolPart::rib) shell.triangles.push_back(tool_.model.mesh.triangles[f]);
        }
        const auto rims = rim_loops(shell, topology_of(shell));
        if (!rims.empty()) tool_.rim = rims.front();
    }

    void find_feet() {
        std::vector<std::uint32_t> stands;
        if (c_.has_bars()) {
            stands = tool_.base;
        } else if (c_.kind == BackKind::egg_crate) {
            // Where ribs cross, and at their ends.
            stands = tool_.base;
            stands.insert(stands.end(), ends_.begin(), ends_.end());
            std::sort(stands.begin(), stands.end());
            stands.erase(std::unique(stands.begin(), stands.end()), stands.end());
        } else {
            // The tool lies on its own highest places.
            std::vector<std::uint32_t> from;
            if (c_.kind == BackKind::foam_blocks) {
                from = tool_.base;
                from.insert(from.end(), ends_.begin(), ends_.end());
                std::sort(from.begin(), from.end());
                from.erase(std::unique(from.begin(), from.end()), from.end());
            } else {
                for (std::uint32_t i = 0; i < shell_points_; ++i) from.push_back(i);
            }
            double top = -1e30, low = 1e30;
            for (const auto i : from) {
                top = std::max(top, height(i));
                low = std::min(low, height(i));
            }
            // On a shape that comes to a point the floor is shimmed up to lower places, until the tool stands
            // wide.
            const Point size = in_.face.high - in_.face.low;
            for (const double share : {0.06, 0.15, 0.3, 0.5, 0.75, 1.0}) {
                stands.clear();
                Point2 least = Point2::Constant(1e30), most = -least;
                for (const auto i : from) {
                    if (height(i) < top - std::max(0.002, share * (top - low))) continue;
                    stands.push_back(i);
                    least = least.cwiseMin(f_.flat(points()[i]));
                    most = most.cwiseMax(f_.flat(points()[i]));
                }
                if (stands.size() >= 4 && ((most - least).array() >= 0.3 * size.head<2>().array()).all())
                    break;
            }
        }
        if (stands.empty()) {
            for (std::uint32_t i = 0; i < shell_points_; ++i) stands.push_back(i);
        }
        std::vector<Point2> places;
        for (const auto i : stands) places.push_back(f_.flat(points()[i]));
        for (const auto k : feet_on(c_, places)) tool_.feet.push_back(stands[k]);
    }

    const ToolInputs& in_;
    const Choices& c_;
    const Frame f_{Point::UnitX(), Point::UnitY(), Point::UnitZ()};
    const EvenFace& face_;
    Progress& progress_;
    Tool tool_;
    Lined lined_;
    std::array<PlaneSet, 2> planes_;
    std::size_t shell_points_ = 0;
    double thickness_ = 0, rib_thickness_ = 0;
    Laminate cap_;
    std::vector<std::uint32_t> ends_;
    std::map<std::pair<int, int>, std::uint32_t> crossing_;
    std::map<std::uint32_t, std::uint32_t> beside_;
    std::map<std::uint32_t, std::vector<std::uint32_t>> columns_;
};

}  // namespace

Laminate with_sandwich(const std::vector<Layer>& layers, const ToolInputs& in) {
    auto all = layers;
    if (in.back.kind == BackKind::sandwich) {
        all.push_back({LayerKind::core, in.back.sandwich.core, 0, 0});
        for (int i = 0; i < in.back.sandwich.plies; ++i)
            all.push_back({LayerKind::ply, in.back.sandwich.cloth, 0, 0});
    }
    return sum_stack(all, in.shell_found.resin, in.shell.how, in.shop, "back sandwich").laminate;
}

Point upright(const Frame& frame, const Point& p) {
    return {frame.u.dot(p), frame.v.dot(p), frame.w.dot(p)};
}

EvenFace even_face(const edge::ToolFace& face, double edge, Progress& progress) {
    auto standing = face.rimmed.mesh;
    for (auto& p : standing.points) p = upright(face.frame, p);
    auto even = remeshed(standing, face.rimmed.patch, edge, progress);
    return {std::move(even.mesh), std::move(even.patch), edge};
}

Tool build_tool(const ToolInputs& in, const EvenFace& face, Progress& progress) {
    return Builder(in, face, progress).build();
}

}  // namespace jig::back
