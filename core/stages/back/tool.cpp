#include "core/stages/back/tool.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

#include "core/science/mesh/remesh.hpp"
#include "core/science/mesh/topology.hpp"
#include "core/science/mesh/triangulate.hpp"
#include "core/stages/back/findings.hpp"
#include "core/stages/back/tubes.hpp"

namespace jig::back {
namespace {

/// A board in its plane, alike both ways: plywood and fibre board shear more than their E would say.
PlyMaterial plate_of(const Board& board) {
    auto out = isotropic(board.E, 0.3, board.density, board.alpha);
    if (board.G) out.G12 = out.G13 = out.G23 = *board.G;
    return out;
}

using shell_fe::Bar;
using shell_fe::Tie;

/// Twice the area of a face ÷ its longest side squared, below which it is left out.
constexpr double kSliver = 3e-3;
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
        drop_slivers(lined_, kSliver);
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
        for (std::size_t z = 0; z < zones; ++z) mark_zone(in_.shell.zones[z], 1u << z, masks);
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
                auto standing = zone;
                for (auto& touch : standing.painted) {
                    const auto dab = touch.dab();
                    const Point at = upright(in_.face.frame, dab.at),
                                facing = upright(in_.face.frame, dab.facing);
                    touch.at = {at.x(), at.y(), at.z()};
                    touch.facing = {facing.x(), facing.y(), facing.z()};
                }
                const auto touched = shell::painted_faces(standing, mesh);
                for (std::size_t f = 0; f < touched.size(); ++f) {
                    if (touched[f]) mark(f);
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
            plies.push_back({plate_of(board), 0, board.thickness});
        } else {
            const auto& board = need(in_.shop.boards, c_.foam.board, "back foam");
            auto laid = lay_up(std::vector<Layer>(static_cast<std::size_t>(c_.foam.plies),
                                                  {LayerKind::ply, c_.foam.cloth, 0, 0}),
                               in_.shell_found.resin, LayUp::hand, in_.shop, "back cloth");
            plies = plies_of(laid);
            const auto cloth = plies;
            plies.push_back({plate_of(board), 0, c_.foam.wide});
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
            if (is_sliver(tool_.model.mesh, tool_.model.mesh.triangles.size() - 1, kSliver)) {
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

    static Tie tied(std::uint32_t a, std::uint32_t b, const BondFacts& bond, double reach,
                    const Point& normal) {
        Tie tie{a, b, {}, Eigen::Matrix3d::Zero()};
        tie.stiffness = reach * (bond.sliding * Eigen::Matrix3d::Identity() +
                                 (bond.across - bond.sliding) * normal * normal.transpose());
        return tie;
    }

    /// Ties a rib's edge to the shell with the bond's stiffness a metre.
    void tie_chain(const std::vector<std::uint32_t>& chain, const Point& along) {
        const auto bond = bond_of(c_.joint, rib_thickness_, in_.shell_found.resin, in_.shop);
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
            auto tie = tied(chain[i], beside(chain[i]), bond, reach, normal);
            // Both flanks of the rib hold it upright.
            const Point line = way.normalized();
            tie.turning = reach * bond.across * rib_thickness_ * rib_thickness_ / 4 * line * line.transpose();
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
        const auto section = section_of(c_);
        Bar bar{a, b};
        bar.stretch = m.E * section.area;
        bar.bend_up = bar.bend_across = m.E * section.second;
        bar.twist = m.G * section.twist;
        bar.mass = m.density * section.area;
        bar.alpha = m.alpha;
        bar.up = upright_of(a, b);
        return bar;
    }

    /// A level grid with a leg to the shell at each crossing, bonded there over twice its own width.
    void stand_tubes() {
        if (crossing_.empty())
            throw InputError("back",
                             "tubes stand where lines along and across meet, and none do on this shell",
                             "take lines both ways, or a closer pitch");
        std::map<std::pair<int, int>, std::uint32_t> level;
        const double size = c_.tubes.size;
        const auto bond = bond_of(c_.joint, size, in_.shell_found.resin, in_.shop);
        for (const auto& [pair, shell] : crossing_) {
            const Point p = points()[shell];
            const auto foot = beside(shell);
            const auto top = add_point(p + f_.w * std::max(0.02, tool_.level - f_.w.dot(p)));
            level[pair] = top;
            tool_.model.bars.push_back(tube(foot, top));
            auto tie = tied(shell, foot, bond, 2 * size, f_.w);
            // The patch holds the leg upright by its own breadth, and against turning by what slides.
            tie.turning = 2 * size * size * size / 4 *
                          (bond.across * (f_.u * f_.u.transpose() + f_.v * f_.v.transpose()) +
                           bond.sliding * f_.w * f_.w.transpose());
            tool_.model.ties.push_back(tie);
            tool_.base.push_back(top);
        }
        for (const auto& [pair, point] : level) {
            for (const auto& next :
                 {std::pair{pair.first + 1, pair.second}, std::pair{pair.first, pair.second + 1}}) {
                const auto known = level.find(next);
                if (known != level.end()) tool_.model.bars.push_back(tube(point, known->second));
            }
        }
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

    /// Whether the feet that would be taken of some places lie off every line by that much, m.
    [[nodiscard]] bool stands_wide(const std::vector<std::uint32_t>& stands, double off) const {
        std::vector<Point2> places;
        for (const auto i : stands) places.push_back(f_.flat(tool_.model.mesh.points[i]));
        const auto feet = feet_on(c_, places);
        double widest = 0, off_line = 0;
        for (const auto a : feet) {
            for (const auto b : feet) {
                const Point2 line = places[b] - places[a];
                if (line.norm() < 1e-9) continue;
                double most = 0;
                for (const auto c : feet) {
                    const Point2 to = places[c] - places[a];
                    most = std::max(most, std::abs(line.x() * to.y() - line.y() * to.x()) / line.norm());
                }
                if (line.norm() <= widest) continue;
                widest = line.norm();
                off_line = most;
            }
        }
        return off_line > off;
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
                if (stands.size() >= 4 && ((most - least).array() >= 0.3 * size.head<2>().array()).all() &&
                    stands_wide(stands, 0.1 * size.head<2>().minCoeff()))
                    break;
            }
        }
        if (stands.empty()) {
            for (std::uint32_t i = 0; i < shell_points_; ++i) stands.push_back(i);
        }
        std::vector<Point2> places;
        for (const auto i : stands) places.push_back(f_.flat(points()[i]));
        for (const auto k : feet_on(c_, places)) tool_.feet.push_back(stands[k]);
        tool_.stands = std::move(stands);
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
        const auto inner = inner_layers(in.back.sandwich);
        all.insert(all.end(), inner.begin(), inner.end());
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
