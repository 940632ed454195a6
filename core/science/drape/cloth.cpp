#include "core/science/drape/cloth.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <numeric>
#include <span>

#include "core/base/parallel.hpp"
#include "core/science/drape/boxes.hpp"
#include "core/science/mesh/nearest_face.hpp"

namespace jig {
namespace {

class Cloth {
  public:
    Cloth(Drape& out, const TriangleMesh& mesh, const Topology& topology, const MeshWalk& walk,
          const DrapeRules& rules, const Sides& sides)
        : mesh_(mesh),
          topology_(topology),
          walk_(walk),
          rules_(rules),
          sides_(sides),
          d_(rules.cell),
          out_(out),
          boxes_(rules.cell) {
        for (std::uint32_t n = 0; n < out.nodes.size(); ++n) boxes_.add(out.nodes[n].at, n);
    }

    void lay() {
        map();
        extend();
        part_seams();
        measure();
    }

  private:
    /// Where a place of a face that looks along `up` lies in a cell, from 0 to 1 along both threads; none
    /// outside it.
    std::optional<Point2> within(const Drape::Cell& cell, const Point& p, const Point& up) const {
        const auto at = [&](std::size_t k) -> const Point& { return out_.nodes[cell.nodes[k]].at; };
        const Point du = (at(1) - at(0) + at(2) - at(3)) / 2, dv = (at(3) - at(0) + at(2) - at(1)) / 2;
        const Point n = du.cross(dv);
        // The other side of a thin wall is as near.
        if (n.dot(up) <= 0 || n.norm() < 1e-12 * d_ * d_) return {};
        double u = 0.5, v = 0.5;
        Point off = Point::Zero();
        for (int round = 0; round < 8; ++round) {
            off = p - ((1 - u) * (1 - v) * at(0) + u * (1 - v) * at(1) + u * v * at(2) + (1 - u) * v * at(3));
            const Point x = (1 - v) * (at(1) - at(0)) + v * (at(2) - at(3)),
                        y = (1 - u) * (at(3) - at(0)) + u * (at(2) - at(1));
            const double xx = x.squaredNorm(), yy = y.squaredNorm(), xy = x.dot(y), det = xx * yy - xy * xy;
            if (det < 1e-12 * xx * yy) return {};
            const double px = off.dot(x), py = off.dot(y);
            const double more_u = (yy * px - xy * py) / det, more_v = (xx * py - xy * px) / det;
            u += more_u;
            v += more_v;
            if (std::abs(more_u) + std::abs(more_v) < 1e-10) break;
        }
        constexpr double kOver = 0.02;
        if (!(u > -kOver && u < 1 + kOver && v > -kOver && v < 1 + kOver)) return {};
        // On this sheet of the face, not on one behind it.
        if (std::abs(off.dot(n.normalized())) > 0.5 * d_) return {};
        return Point2(u, v);
    }

    /// Where a place lies on the cloth by one corner of a cell: the straight way to it over the unfolded
    /// face, in parts of the ways to the two crossings beside that corner; none further outside the cell than
    /// `over` of it.
    std::optional<Point2> unfolded(const Drape::Cell& cell, std::size_t corner, const OnMesh& p,
                                   double over) const {
        const auto& node = out_.nodes[cell.nodes[corner]];
        if (node.outside) return {};
        const bool right = corner == 0 || corner == 3, up = corner < 2;
        const auto along = cell.nodes[corner ^ 1u], across = cell.nodes[3 - corner];
        const OnMesh from = place_of(node);
        const Point2 at(node.i, node.j);
        if ((p.at - from.at).norm() < 1e-9 * d_) return Point2(d_ * at);
        const auto x = walk_.way(from, place_of(out_.nodes[along])),
                   y = walk_.way(from, place_of(out_.nodes[across])), w = walk_.way(from, p);
        if (!x || !y || !w) return {};
        const Point u = x->length * x->leaves, v = y->length * y->leaves, to = w->length * w->leaves;
        const double uu = u.squaredNorm(), vv = v.squaredNorm(), uv = u.dot(v), det = uu * vv - uv * uv;
        if (det < 1e-9 * uu * vv) return {};
        const double a = (vv * u.dot(to) - uv * v.dot(to)) / det, b = (uu * v.dot(to) - uv * u.dot(to)) / det;
        if (!(a > -over && a < 1 + over && b > -over && b < 1 + over)) return {};
        return Point2(d_ * (at + Point2(right ? a : -a, up ? b : -b)));
    }

    using Near = std::array<std::pair<double, std::uint32_t>, 6>;  ///< squared distance, crossing

    /// A point beside a fold onto the cloth; false where no cell takes it.
    bool map_unfolded(std::size_t i, const OnMesh& p, const Near& near) {
        // At a rim the last cells hang past it, and ways do not lead there: those before them reach on.
        for (const double over : {0.02, 0.6}) {
            for (const auto& [away, n] : near) {
                if (n == kNoNode) break;
                for (const auto c : cells_at(n)) {
                    const auto& cell = out_.cells[c];
                    const auto corner =
                        std::find(cell.nodes.begin(), cell.nodes.end(), n) - cell.nodes.begin();
                    const auto flat = unfolded(cell, static_cast<std::size_t>(corner), p, over);
                    if (!flat) continue;
                    out_.points[i] = {true, *flat, cell.shear};
                    return true;
                }
            }
        }
        return false;
    }

    /// The cells that a crossing is a corner of.
    [[nodiscard]] std::span<const std::uint32_t> cells_at(std::uint32_t node) const {
        return std::span(cells_at_).subspan(first_cell_[node], first_cell_[node + 1] - first_cell_[node]);
    }

    /// Finds the cells at each crossing.
    void know_cells() {
        first_cell_.assign(out_.nodes.size() + 1, 0);
        for (const auto& cell : out_.cells) {
            for (const auto n : cell.nodes) ++first_cell_[n + 1];
        }
        std::partial_sum(first_cell_.begin(), first_cell_.end(), first_cell_.begin());
        cells_at_.resize(4 * out_.cells.size());
        auto next = first_cell_;
        for (std::uint32_t c = 0; c < out_.cells.size(); ++c) {
            for (const auto n : out_.cells[c].nodes) cells_at_[next[n]++] = c;
        }
    }

    /// A point of the mesh, on `face`, onto the flat cloth.
    void map_point(std::size_t i, std::uint32_t face) {
        const Point& p = mesh_.points[i];
        // The nearest crossings' cells come first.
        Near near;
        near.fill({1e300, kNoNode});
        boxes_.around(p, [&](std::uint32_t n) {
            const double away = (out_.nodes[n].at - p).squaredNorm();
            if (away >= near.back().first || sides_.apart(face, out_.nodes[n].face)) return;
            auto at = near.size() - 1;
            for (; at > 0 && near[at - 1].first > away; --at) near[at] = near[at - 1];
            near[at] = {away, n};
        });
        if (walk_.beside_fold(face) && map_unfolded(i, {p, face, false}, near)) return;
        double least = 1e300;
        for (const auto& [away, n] : near) {
            if (n == kNoNode) break;
            for (const auto c : cells_at(n)) {
                const auto& cell = out_.cells[c];
                const auto in = within(cell, p, walk_.flat_normal(face));
                if (!in) continue;
                const double over = std::max({0.0, -in->x(), in->x() - 1, -in->y(), in->y() - 1});
                if (over >= least) continue;
                least = over;
                const auto& first = out_.nodes[cell.nodes[0]];
                auto& point = out_.points[i];
                point.covered = true;
                point.flat = d_ * Point2(first.i + in->x(), first.j + in->y());
                const auto shear = [&](std::size_t k) { return out_.nodes[cell.nodes[k]].shear; };
                const double u = in->x(), v = in->y();
                point.shear = (1 - u) * (1 - v) * shear(0) + u * (1 - v) * shear(1) + u * v * shear(2) +
                              (1 - u) * v * shear(3);
                if (least == 0) return;
            }
        }
    }

    /// Each point of the mesh onto the flat cloth.
    void map() {
        out_.points.assign(mesh_.points.size(), {});
        know_cells();
        // A face at each point that is used; one beside a fold where there is one.
        std::vector<std::uint32_t> face_of(mesh_.points.size(), kNoNode);
        for (std::uint32_t f = 0; f < mesh_.triangles.size(); ++f) {
            for (const auto i : mesh_.triangles[f]) {
                if (face_of[i] == kNoNode || walk_.beside_fold(f)) face_of[i] = f;
            }
        }
        constexpr std::size_t kGrain = 5000;
        parallel_shares(mesh_.points.size(), kGrain, [&](std::size_t from, std::size_t to, unsigned) {
            for (auto i = from; i < to; ++i) {
                if (face_of[i] != kNoNode) map_point(i, face_of[i]);
            }
        });
    }

    /// Where a point `p` beyond edge k of face `t` lies on the cloth, as the face does: unfolded about the
    /// edge, by its own and the face's other side. `flat` are a, b and c from corner k on.
    [[nodiscard]] std::optional<Point2> beyond(const std::array<Point2, 3>& flat,
                                               const std::array<std::uint32_t, 3>& t, std::size_t k,
                                               std::uint32_t p) const {
        const Point &A = mesh_.points[t[k]], &B = mesh_.points[t[(k + 1) % 3]],
                    &C = mesh_.points[t[(k + 2) % 3]], &P = mesh_.points[p];
        const Point edge = B - A;
        const double length = edge.norm(), along = (P - A).dot(edge) / (length * length),
                     c_along = (C - A).dot(edge) / (length * length);
        const Point out = (P - A) - along * edge, in = (C - A) - c_along * edge;
        if (!(in.norm() > 1e-12 * length)) return {};
        const Point2 flat_edge = flat[1] - flat[0], flat_in = flat[2] - flat[0] - c_along * flat_edge;
        return Point2(flat[0] + along * flat_edge - out.norm() / in.norm() * flat_in);
    }

    /// m between two places on the cloth that may be neighbours on the face.
    [[nodiscard]] bool near_on_cloth(const Point2& a, const Point2& b, double on_face) const {
        return (a - b).norm() < 4 * d_ + 2 * on_face;
    }

    /// Where the cloth has come round to itself, corners of one face lie at either end of it. Such faces
    /// go to one side, the same all along their seam, and what they reach on the other lies twice.
    void part_seams() {
        std::vector<char> torn(mesh_.triangles.size(), 0);
        for (std::uint32_t f = 0; f < mesh_.triangles.size(); ++f) {
            const auto& t = mesh_.triangles[f];
            if (!on_cloth(out_, mesh_, f)) continue;
            for (std::size_t k = 0; k < 3; ++k) {
                const auto a = t[k], b = t[(k + 1) % 3];
                if (!near_on_cloth(out_.points[a].flat, out_.points[b].flat,
                                   (mesh_.points[a] - mesh_.points[b]).norm()))
                    torn[f] = 1;
            }
        }
        std::map<std::uint32_t, std::uint32_t> twice;  // a point's second place among the drape's
        // The corners of torn face g, that lies beyond edge k of f.
        const auto side = [&](std::uint32_t f, std::size_t k, std::uint32_t g) {
            const auto at = *on_cloth(out_, mesh_, f);
            const auto& t = mesh_.triangles[f];
            std::array<std::uint32_t, 3> own{};
            for (std::size_t c = 0; c < 3; ++c) {
                const auto p = mesh_.triangles[g][c];
                const auto shared = std::find(t.begin(), t.end(), p) - t.begin();
                if (shared < 3) {
                    own[c] = at[static_cast<std::size_t>(shared)];
                    continue;
                }
                const auto flat = beyond({out_.points[at[k]].flat, out_.points[at[(k + 1) % 3]].flat,
                                          out_.points[at[(k + 2) % 3]].flat},
                                         t, k, p);
                if (!flat) return false;
                const double reach = (mesh_.points[p] - mesh_.points[t[k]]).norm();
                if (near_on_cloth(out_.points[p].flat, *flat, reach)) {
                    own[c] = p;
                    continue;
                }
                const auto [it, fresh] = twice.try_emplace(p, static_cast<std::uint32_t>(out_.points.size()));
                if (fresh) out_.points.push_back({true, *flat, out_.points[p].shear});
                if (!near_on_cloth(out_.points[it->second].flat, *flat, reach)) return false;
                own[c] = it->second;
            }
            out_.seams[g] = own;
            torn[g] = 2;
            return true;
        };
        std::vector<std::uint32_t> along;
        const auto onward = [&](std::uint32_t f) {
            for (std::size_t k = 0; k < 3; ++k) {
                const auto g = topology_.across[f][k];
                if (g != kNoFace && torn[g] == 1 && side(f, k, g)) along.push_back(g);
            }
        };
        for (std::uint32_t f = 0; f < mesh_.triangles.size(); ++f) {
            if (torn[f] != 0 || !on_cloth(out_, mesh_, f)) continue;
            // One face begins a seam, and all along it follow before another does.
            for (std::size_t k = 0; k < 3; ++k) {
                const auto g = topology_.across[f][k];
                if (g == kNoFace || torn[g] != 1 || !side(f, k, g)) continue;
                along.assign(1, g);
                for (std::size_t n = 0; n < along.size(); ++n) onward(along[n]);
            }
        }
        // What lies between more than two ends of the cloth is left bare.
        for (std::uint32_t f = 0; f < mesh_.triangles.size(); ++f) {
            if (torn[f] == 1) out_.seams[f] = {kNoNode, kNoNode, kNoNode};
        }
    }

    /// Points within a cell or two of the net go onto the cloth as the covered face next to them lies on it.
    void extend() {
        for (int pass = 0; pass < 4; ++pass) {
            std::vector<std::pair<std::uint32_t, DrapedPoint>> found;
            // Most faces have nothing bare beside them, which is seen at once.
            std::vector<char> bare(mesh_.triangles.size());
            for (std::size_t f = 0; f < bare.size(); ++f) {
                for (const auto i : mesh_.triangles[f]) bare[f] |= static_cast<char>(!out_.points[i].covered);
            }
            for (std::size_t f = 0; f < mesh_.triangles.size(); ++f) {
                const auto& t = mesh_.triangles[f];
                for (std::size_t k = 0; k < 3; ++k) {
                    const auto other = topology_.across[f][k];
                    if (other == kNoFace || bare[other] == 0 || bare[f] != 0) continue;
                    const auto &a = out_.points[t[k]], &b = out_.points[t[(k + 1) % 3]],
                               &c = out_.points[t[(k + 2) % 3]];
                    for (const auto p : mesh_.triangles[other]) {
                        if (out_.points[p].covered) continue;
                        bool near = false;
                        boxes_.around(mesh_.points[p], [&](std::uint32_t n) {
                            near = near || (out_.nodes[n].at - mesh_.points[p]).norm() < 1.5 * d_;
                        });
                        if (!near) continue;
                        const auto flat = beyond({a.flat, b.flat, c.flat}, t, k, p);
                        if (!flat) continue;
                        DrapedPoint point;
                        point.covered = true;
                        point.flat = *flat;
                        point.shear = (a.shear + b.shear) / 2;
                        found.emplace_back(p, point);
                    }
                }
            }
            if (found.empty()) return;
            for (const auto& [p, point] : found) {
                if (!out_.points[p].covered) out_.points[p] = point;
            }
        }
    }

    void measure() {
        bool first = true;
        std::vector<std::size_t> bare;
        for (std::size_t f = 0; f < mesh_.triangles.size(); ++f) {
            const auto at = on_cloth(out_, mesh_, f);
            if (!at) {
                bare.push_back(f);
                continue;
            }
            const auto &a = out_.points[(*at)[0]], &b = out_.points[(*at)[1]], &c = out_.points[(*at)[2]];
            const double area = mesh_.area_vector2(f).norm() / 2;
            out_.covered += area;
            if ((a.shear + b.shear + c.shear) / 3 > rules_.lock) out_.locked += area;
            const Point2 x = b.flat - a.flat, y = c.flat - a.flat;
            out_.flat_area += std::abs(x.x() * y.y() - x.y() * y.x()) / 2;
            for (const auto* p : {&a, &b, &c}) {
                if (first) out_.flat_low = out_.flat_high = p->flat;
                first = false;
                out_.flat_low = out_.flat_low.cwiseMin(p->flat);
                out_.flat_high = out_.flat_high.cwiseMax(p->flat);
            }
        }
        for (const auto& cell : out_.cells) {
            const auto inside = std::count_if(cell.nodes.begin(), cell.nodes.end(),
                                              [&](std::uint32_t n) { return !out_.nodes[n].outside; });
            if (inside < 3 || cell.shear <= out_.most) continue;
            out_.most = cell.shear;
            out_.most_at = out_.nodes[cell.nodes[0]].at;
        }
        for (const auto& [f, own] : out_.seams) {
            for (std::size_t k = 0; k < 3; ++k) {
                const auto other = topology_.across[f][k];
                const auto at = other == kNoFace ? std::nullopt : on_cloth(out_, mesh_, other);
                if (!at || !on_cloth(out_, mesh_, f)) continue;
                const auto there = [&](std::uint32_t p) {
                    return std::find(at->begin(), at->end(), p) != at->end();
                };
                // Between two faces of seams it is met from both.
                if ((there(own[k]) && there(own[(k + 1) % 3])) || (out_.seams.contains(other) && other < f))
                    continue;
                const Point &a = mesh_.points[mesh_.triangles[f][k]],
                            &b = mesh_.points[mesh_.triangles[f][(k + 1) % 3]];
                out_.meets.push_back({a, b, walk_.flat_normal(f)});
                out_.seam += (a - b).norm();
            }
        }
        // One place for each patch of faces that no cloth reaches.
        std::vector<char> open(mesh_.triangles.size(), 0);
        for (const auto f : bare) open[f] = 1;
        for (const auto f : bare) {
            if (open[f] != 1) continue;
            std::vector<std::size_t> patch{f};
            open[f] = 2;
            for (std::size_t k = 0; k < patch.size(); ++k) {
                for (const auto other : topology_.across[patch[k]]) {
                    if (other == kNoFace || open[other] != 1) continue;
                    open[other] = 2;
                    patch.push_back(other);
                }
            }
            out_.holes.push_back(mesh_.centre(patch[patch.size() / 2]));
        }
    }

    const TriangleMesh& mesh_;
    const Topology& topology_;
    const MeshWalk& walk_;
    const DrapeRules& rules_;
    const Sides& sides_;
    double d_;
    Drape& out_;
    NetBoxes boxes_;
    std::vector<std::uint32_t> first_cell_, cells_at_;  ///< by crossing, one more than there are; its cells
};

}  // namespace

void lay_on_cloth(Drape& drape, const TriangleMesh& mesh, const Topology& topology, const MeshWalk& walk,
                  const DrapeRules& rules, const Sides& sides) {
    Cloth(drape, mesh, topology, walk, rules, sides).lay();
}

std::optional<std::array<std::uint32_t, 3>> on_cloth(const Drape& drape, const TriangleMesh& mesh,
                                                     std::size_t face) {
    const auto seam = drape.seams.find(static_cast<std::uint32_t>(face));
    const auto& out = seam == drape.seams.end() ? mesh.triangles[face] : seam->second;
    for (const auto i : out) {
        if (i >= drape.points.size() || !drape.points[i].covered) return {};
    }
    return out;
}

std::optional<double> shear_at(const Drape& drape, const TriangleMesh& mesh, std::size_t face,
                               const Point& at) {
    const auto corners = on_cloth(drape, mesh, face);
    if (!corners) return {};
    const Point share = corner_shares(mesh, face, at);
    double out = 0;
    for (int k = 0; k < 3; ++k) out += share[k] * drape.points[(*corners)[static_cast<std::size_t>(k)]].shear;
    return out;
}

std::optional<Threads> threads_on(const Drape& drape, const TriangleMesh& mesh, std::size_t face) {
    const auto corners = on_cloth(drape, mesh, face);
    if (!corners) return {};
    const auto& t = *corners;
    const Point2 x = drape.points[t[1]].flat - drape.points[t[0]].flat,
                 y = drape.points[t[2]].flat - drape.points[t[0]].flat;
    const double det = x.x() * y.y() - x.y() * y.x();
    if (std::abs(det) < 1e-18) return {};
    // The directions on the face whose images are (1, 0) and (0, 1).
    const Point a = mesh.corner(face, 1) - mesh.corner(face, 0),
                b = mesh.corner(face, 2) - mesh.corner(face, 0);
    const Point along = a * (y.y() / det) - b * (x.y() / det), across = b * (x.x() / det) - a * (y.x() / det);
    if (!(along.norm() > 0) || !(across.norm() > 0)) return {};
    return Threads{along.normalized(), across.normalized()};
}

std::optional<Point> warp_on(const Drape& drape, const TriangleMesh& mesh, std::size_t face) {
    const auto threads = threads_on(drape, mesh, face);
    return threads ? std::optional<Point>(threads->warp) : std::nullopt;
}

std::vector<std::vector<Point2>> flat_outlines(const Drape& drape, const TriangleMesh& mesh) {
    TriangleMesh covered;
    // What lies twice on the cloth is two points, so that a seam has two edges.
    covered.points = mesh.points;
    covered.points.resize(std::max(mesh.points.size(), drape.points.size()), Point::Zero());
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        if (const auto t = on_cloth(drape, mesh, f)) covered.triangles.push_back(*t);
    }
    std::vector<std::vector<Point2>> out;
    for (const auto& loop : rim_loops(covered, topology_of(covered))) {
        auto& flat = out.emplace_back();
        for (const auto i : loop) flat.push_back(drape.points[i].flat);
    }
    return out;
}

}  // namespace jig
