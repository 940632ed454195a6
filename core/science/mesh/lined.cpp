#include "core/science/mesh/lined.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <queue>
#include <set>

#include "core/science/mesh/bodies.hpp"
#include "core/science/mesh/topology.hpp"

namespace jig {
namespace {

class Liner {
  public:
    Liner(const TriangleMesh& mesh, const std::vector<int>& patch) {
        out_.mesh = mesh;
        out_.patch = patch;
        for (auto& on : out_.on) on.assign(mesh.points.size(), -1);
        for (const auto& e : outline_edges(mesh, patch)) keep(e);
    }

    void line_up(int set, int plane, const Point& normal, double at, double reach) {
        set_ = static_cast<std::size_t>(set);
        height_.resize(points().size());
        double size = 0;
        for (std::size_t i = 0; i < points().size(); ++i) height_[i] = normal.dot(points()[i]) - at;
        for (const auto& t : out_.mesh.triangles)
            size = std::max(size, (points()[t[1]] - points()[t[0]]).norm());
        const double near = 1e-6 * size;
        for (std::size_t i = 0; i < points().size(); ++i) {
            if (std::abs(height_[i]) <= near) put_on(static_cast<std::uint32_t>(i), plane);
        }
        move_near(plane, reach);
        split_crossing(plane);
    }

    Lined take() { return std::move(out_); }

  private:
    std::vector<Point>& points() { return out_.mesh.points; }
    void keep(const PointPair& e) {
        outline_.insert(e);
        on_outline_.insert(e.first);
        on_outline_.insert(e.second);
    }
    void put_on(std::uint32_t i, int plane) {
        height_[i] = 0;
        out_.on[set_][i] = plane;
    }
    bool crosses(std::uint32_t a, std::uint32_t b) const { return height_[a] * height_[b] < 0; }
    /// Whether a point may slide along an edge without leaving the outline or the other set's plane.
    bool may_slide(std::uint32_t i, const PointPair& e) const {
        if (out_.on[set_][i] >= 0) return false;
        const auto& other = out_.on[1 - set_];
        if (other[i] >= 0 && other[e.first] != other[e.second]) return false;
        return on_outline_.count(i) == 0 || outline_.count(e) != 0;
    }

    void move_near(int plane, double reach) {
        // The shortest way onto the plane that each point has.
        std::map<std::uint32_t, std::pair<double, Point>> moves;
        for (const auto& t : out_.mesh.triangles) {
            for (std::size_t k = 0; k < 3; ++k) {
                const auto a = t[k], b = t[(k + 1) % 3];
                if (a > b || !crosses(a, b)) continue;
                const double share = height_[a] / (height_[a] - height_[b]);
                const Point place = points()[a] + share * (points()[b] - points()[a]);
                const auto i = share < 0.5 ? a : b;
                const double part = std::min(share, 1 - share);
                if (part > reach || !may_slide(i, edge_of(a, b))) continue;
                const auto known = moves.find(i);
                if (known == moves.end() || part < known->second.first) moves[i] = {part, place};
            }
        }
        for (const auto& [i, move] : moves) {
            points()[i] = move.second;
            put_on(i, plane);
        }
    }

    std::uint32_t crossing(std::uint32_t a, std::uint32_t b, int plane) {
        const auto e = edge_of(a, b);
        const auto known = made_.find(e);
        if (known != made_.end()) return known->second;
        const double share = height_[e.first] / (height_[e.first] - height_[e.second]);
        const auto i = static_cast<std::uint32_t>(points().size());
        const Point place = points()[e.first] + share * (points()[e.second] - points()[e.first]);
        points().push_back(place);
        height_.push_back(0);
        const auto& other = out_.on[1 - set_];
        const int both = other[e.first] == other[e.second] ? other[e.first] : -1;
        out_.on[set_].push_back(plane);
        out_.on[1 - set_].push_back(both);
        if (outline_.count(e) != 0) {
            outline_.erase(e);
            keep(edge_of(e.first, i));
            keep(edge_of(i, e.second));
        }
        made_[e] = i;
        return i;
    }

    void split_crossing(int plane) {
        made_.clear();
        auto& triangles = out_.mesh.triangles;
        const auto count = triangles.size();
        for (std::size_t f = 0; f < count; ++f) {
            const auto t = triangles[f];
            const int patch = out_.patch[f];
            const auto add = [&](std::uint32_t a, std::uint32_t b, std::uint32_t c) {
                triangles.push_back({a, b, c});
                out_.patch.push_back(patch);
            };
            std::size_t crossed = 0, last = 0, clear = 0;
            for (std::size_t k = 0; k < 3; ++k) {
                if (crosses(t[k], t[(k + 1) % 3])) {
                    ++crossed;
                    last = k;
                } else {
                    clear = k;
                }
            }
            if (crossed == 1) {
                const auto a = t[last], b = t[(last + 1) % 3], c = t[(last + 2) % 3];
                const auto m = crossing(a, b, plane);
                triangles[f] = {a, m, c};
                add(m, b, c);
            } else if (crossed == 2) {
                // The corner alone on its side, and the two across from it.
                const auto b = t[clear], c = t[(clear + 1) % 3], a = t[(clear + 2) % 3];
                const auto m = crossing(a, b, plane), n = crossing(a, c, plane);
                triangles[f] = {a, m, n};
                // The shorter diagonal makes the better pair.
                if ((points()[m] - points()[c]).squaredNorm() < (points()[b] - points()[n]).squaredNorm()) {
                    add(m, b, c);
                    add(m, c, n);
                } else {
                    add(m, b, n);
                    add(b, c, n);
                }
            }
        }
    }

    Lined out_;
    std::size_t set_ = 0;
    std::vector<double> height_;
    std::set<PointPair> outline_;
    std::set<std::uint32_t> on_outline_;
    std::map<PointPair, std::uint32_t> made_;
};

}  // namespace

std::set<std::pair<std::uint32_t, std::uint32_t>> outline_edges(const TriangleMesh& mesh,
                                                                const std::vector<int>& patch) {
    std::set<PointPair> out;
    const auto topology = topology_of(mesh);
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        for (std::size_t k = 0; k < 3; ++k) {
            const auto other = topology.across[f][k];
            if (other == kNoFace || patch[other] != patch[f] ||
                std::abs(fold_at(mesh, topology, f, static_cast<int>(k))) > 0.61)
                out.insert(edge_of(mesh.triangles[f][k], mesh.triangles[f][(k + 1) % 3]));
        }
    }
    return out;
}

Lined lined_up(const TriangleMesh& mesh, const std::vector<int>& patch, const std::array<PlaneSet, 2>& sets,
               double reach) {
    Liner liner(mesh, patch);
    for (std::size_t s = 0; s < 2; ++s) {
        for (std::size_t p = 0; p < sets[s].at.size(); ++p)
            liner.line_up(static_cast<int>(s), static_cast<int>(p), sets[s].normal, sets[s].at[p], reach);
    }
    return liner.take();
}

bool is_sliver(const TriangleMesh& mesh, std::size_t face, double least) {
    double longest = 0;
    for (int k = 0; k < 3; ++k)
        longest = std::max(longest, (mesh.corner(face, (k + 1) % 3) - mesh.corner(face, k)).squaredNorm());
    return !(mesh.area_vector2(face).norm() > least * longest);
}

void drop_unused_points(Lined& lined) {
    auto& mesh = lined.mesh;
    constexpr auto kUnused = static_cast<std::uint32_t>(-1);
    std::vector<std::uint32_t> number(mesh.points.size(), kUnused);
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) number[i] = 0;
    }
    std::uint32_t kept = 0;
    for (std::uint32_t i = 0; i < number.size(); ++i) {
        if (number[i] == kUnused) continue;
        number[i] = kept;
        mesh.points[kept] = mesh.points[i];
        for (auto& on : lined.on) {
            if (!on.empty()) on[kept] = on[i];
        }
        ++kept;
    }
    mesh.points.resize(kept);
    for (auto& on : lined.on) {
        if (!on.empty()) on.resize(kept);
    }
    for (auto& t : mesh.triangles) {
        for (auto& i : t) i = number[i];
    }
}

void drop_slivers(Lined& lined, double least) {
    auto& mesh = lined.mesh;
    const auto keep = [&](auto&& wanted) {
        std::size_t kept = 0;
        for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
            if (!wanted(f)) continue;
            mesh.triangles[kept] = mesh.triangles[f];
            lined.patch[kept++] = lined.patch[f];
        }
        mesh.triangles.resize(kept);
        lined.patch.resize(kept);
    };
    keep([&](std::size_t f) { return !is_sliver(mesh, f, least); });
    const auto body = body_of_points(mesh);
    std::map<std::uint32_t, std::size_t> size;
    for (const auto& t : mesh.triangles) ++size[body[t[0]]];
    if (size.size() > 1) {
        const auto largest = std::max_element(size.begin(), size.end(), [](const auto& a, const auto& b) {
                                 return a.second < b.second;
                             })->first;
        keep([&](std::size_t f) { return body[mesh.triangles[f][0]] == largest; });
    }
    drop_unused_points(lined);
}

std::vector<std::vector<std::uint32_t>> chains_on(const Lined& lined, int set, int plane,
                                                  const Point& along) {
    const auto& on = lined.on[static_cast<std::size_t>(set)];
    const auto& points = lined.mesh.points;
    std::map<std::uint32_t, std::set<std::uint32_t>> joined;
    for (const auto& t : lined.mesh.triangles) {
        for (std::size_t k = 0; k < 3; ++k) {
            const auto a = t[k], b = t[(k + 1) % 3];
            if (on[a] != plane || on[b] != plane) continue;
            joined[a].insert(b);
            joined[b].insert(a);
        }
    }
    std::vector<std::vector<std::uint32_t>> out;
    std::set<std::uint32_t> seen;
    for (const auto& [seed, none] : joined) {
        if (seen.count(seed) != 0) continue;
        std::vector<std::uint32_t> piece{seed};
        seen.insert(seed);
        for (std::size_t i = 0; i < piece.size(); ++i) {
            for (const auto next : joined[piece[i]]) {
                if (seen.insert(next).second) piece.push_back(next);
            }
        }
        const auto by_place = [&](std::uint32_t a, std::uint32_t b) {
            return along.dot(points[a]) < along.dot(points[b]);
        };
        const auto [from, to] = std::minmax_element(piece.begin(), piece.end(), by_place);
        std::map<std::uint32_t, double> far;
        std::map<std::uint32_t, std::uint32_t> before;
        using Way = std::pair<double, std::uint32_t>;
        std::priority_queue<Way, std::vector<Way>, std::greater<>> open;
        far[*from] = 0;
        open.emplace(0, *from);
        while (!open.empty()) {
            const auto [length, i] = open.top();
            open.pop();
            if (length > far[i]) continue;
            for (const auto next : joined[i]) {
                const double longer = length + (points[next] - points[i]).norm();
                const auto known = far.find(next);
                if (known != far.end() && known->second <= longer) continue;
                far[next] = longer;
                before[next] = i;
                open.emplace(longer, next);
            }
        }
        std::vector<std::uint32_t> chain{*to};
        while (chain.back() != *from) chain.push_back(before[chain.back()]);
        std::reverse(chain.begin(), chain.end());
        if (chain.size() > 1) out.push_back(std::move(chain));
    }
    return out;
}

}  // namespace jig
