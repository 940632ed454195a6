#include "core/science/flow/ways.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <deque>
#include <map>

namespace jig {
namespace {

constexpr std::uint32_t kNowhere = 0xffffffffu;
/// Two preforms whose conducting differs by more are not mixed by parting their triangles the other way.
constexpr double kUnlike = 3;
/// Flips for each triangle after which the rest is left: with one K everywhere far fewer do.
constexpr std::size_t kFlips = 20;

using Tensor = Eigen::Matrix2d;
using Place = Eigen::Vector2d;

/// A triangle laid flat: its corner 0 at the origin, corner 1 along x.
struct Flat {
    std::array<std::uint32_t, 3> point{};
    std::array<Place, 3> at{};
    Tensor K = Tensor::Zero();
    std::array<std::uint32_t, 3> next{kNowhere, kNowhere, kNowhere};  ///< face across from each corner
    double area = 0;

    /// What the edge across from a corner conducts by this triangle.
    [[nodiscard]] double conducts(std::size_t corner) const {
        const Place &o = at[corner], &a = at[(corner + 1) % 3], &b = at[(corner + 2) % 3];
        // Slopes of the shape functions of a and b, each a side turned by a quarter over twice the area.
        const Place to_b(-(o - b).y(), (o - b).x()), to_a(-(a - o).y(), (a - o).x());
        return -to_b.dot(K * to_a) / (4 * area);
    }
};

/// Laid anew from corners that lie anywhere in a plane, counter-clockwise.
Flat laid(const std::array<std::uint32_t, 3>& point, const std::array<Place, 3>& at, const Tensor& K) {
    Flat out;
    out.point = point;
    const Place x = (at[1] - at[0]).normalized(), y(-x.y(), x.x());
    Tensor turn;
    turn << x.transpose(), y.transpose();
    for (std::size_t k = 0; k < 3; ++k) out.at[k] = turn * (at[k] - at[0]);
    out.K = turn * K * turn.transpose();
    out.area = out.at[1].x() * out.at[2].y() / 2;
    return out;
}

class Flips {
  public:
    Flips(const TriangleMesh& mesh, const std::vector<FaceFlow>& faces) {
        std::map<std::pair<std::uint32_t, std::uint32_t>, std::vector<std::uint32_t>> at_edge;
        for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
            const auto& t = mesh.triangles[f];
            const Point normal = mesh.area_vector2(f);
            const Point along = mesh.corner(f, 1) - mesh.corner(f, 0);
            if (!(normal.norm() > 0) || !(along.norm() > 0)) continue;
            Flat flat;
            flat.point = t;
            const Point x = along.normalized(), y = normal.normalized().cross(x);
            const Point far = mesh.corner(f, 2) - mesh.corner(f, 0);
            flat.at = {Place::Zero(), {along.norm(), 0}, {x.dot(far), y.dot(far)}};
            Eigen::Matrix<double, 3, 2> plane;
            plane << x, y;
            flat.K = plane.transpose() * faces[f].conducts * plane;
            flat.area = normal.norm() / 2;
            const auto own = static_cast<std::uint32_t>(flats_.size());
            for (std::size_t k = 0; k < 3; ++k)
                at_edge[std::minmax(t[(k + 1) % 3], t[(k + 2) % 3])].push_back(own);
            flats_.push_back(flat);
        }
        for (const auto& [edge, two] : at_edge) {
            // Where three meet, or two look opposite ways, nothing is parted otherwise.
            if (two.size() != 2) continue;
            const auto f = two[0], g = two[1];
            const auto kf = across(f, edge), kg = across(g, edge);
            if (flats_[f].point[(kf + 1) % 3] != flats_[g].point[(kg + 2) % 3]) continue;
            flats_[f].next[kf] = g;
            flats_[g].next[kg] = f;
        }
    }

    void go() {
        std::deque<std::uint32_t> look;
        for (std::uint32_t f = 0; f < flats_.size(); ++f) look.push_back(f);
        const std::size_t most = kFlips * flats_.size();
        for (std::size_t done = 0; !look.empty() && done < most;) {
            const auto f = look.front();
            look.pop_front();
            for (std::size_t k = 0; k < 3; ++k) {
                const auto g = flats_[f].next[k];
                if (g == kNowhere || !flip(f, k)) continue;
                ++done;
                for (const auto one : {f, g}) {
                    look.push_back(one);
                    for (const auto n : flats_[one].next) {
                        if (n != kNowhere) look.push_back(n);
                    }
                }
                break;
            }
        }
    }

    [[nodiscard]] std::vector<FlowWay> ways() const {
        std::vector<FlowWay> out;
        out.reserve(3 * flats_.size());
        for (const auto& flat : flats_) {
            for (std::size_t k = 0; k < 3; ++k) {
                const auto a = flat.point[(k + 1) % 3], b = flat.point[(k + 2) % 3];
                out.push_back({std::min(a, b), std::max(a, b), flat.conducts(k)});
            }
        }
        std::sort(out.begin(), out.end(), [](const FlowWay& a, const FlowWay& b) {
            return std::tie(a.from, a.to, a.conducts) < std::tie(b.from, b.to, b.conducts);
        });
        std::size_t kept = 0;
        for (std::size_t i = 0; i < out.size(); ++i) {
            if (kept > 0 && out[i].from == out[kept - 1].from && out[i].to == out[kept - 1].to)
                out[kept - 1].conducts += out[i].conducts;
            else
                out[kept++] = out[i];
        }
        out.resize(kept);
        for (auto& way : out) way.conducts = std::max(0.0, way.conducts);
        return out;
    }

  private:
    /// The corner of f that lies across an edge.
    [[nodiscard]] std::size_t across(std::uint32_t f,
                                     const std::pair<std::uint32_t, std::uint32_t>& edge) const {
        const auto& p = flats_[f].point;
        for (std::size_t k = 0; k < 2; ++k) {
            const auto a = p[(k + 1) % 3], b = p[(k + 2) % 3];
            if (std::min(a, b) == edge.first && std::max(a, b) == edge.second) return k;
        }
        return 2;
    }
    /// The corner of f across from its neighbour g, beside the same two points.
    [[nodiscard]] std::size_t back(std::uint32_t g, std::uint32_t f, std::uint32_t a, std::uint32_t b) const {
        for (std::size_t k = 0; k < 3; ++k) {
            if (flats_[g].next[k] == f && flats_[g].point[(k + 1) % 3] == b &&
                flats_[g].point[(k + 2) % 3] == a)
                return k;
        }
        return 3;
    }

    /// Parts a pair of triangles the other way where their common edge conducts less than nothing; whether it
    /// did.
    bool flip(std::uint32_t f, std::size_t k) {
        const auto g = flats_[f].next[k];
        if (g == f) return false;
        const Flat &F = flats_[f], &G = flats_[g];
        const auto a = F.point[(k + 1) % 3], b = F.point[(k + 2) % 3], c = F.point[k];
        const auto j = back(g, f, a, b);
        if (j > 2) return false;
        const auto d = G.point[j];
        const double now = F.conducts(k) + G.conducts(j);
        if (c == d || !(now < -1e-12 * (F.K.trace() + G.K.trace()))) return false;
        if (F.K.trace() > kUnlike * G.K.trace() || G.K.trace() > kUnlike * F.K.trace()) return false;
        // The edge along x from a to b; c above, d below.
        const auto turned = [](const Flat& flat, std::size_t from, std::size_t to) {
            const Place x = (flat.at[to] - flat.at[from]).normalized();
            Tensor turn;
            turn << x.x(), x.y(), -x.y(), x.x();
            return turn;
        };
        const Tensor turn_f = turned(F, (k + 1) % 3, (k + 2) % 3),
                     turn_g = turned(G, (j + 2) % 3, (j + 1) % 3);
        const Place at_a = Place::Zero(), at_b((F.at[(k + 2) % 3] - F.at[(k + 1) % 3]).norm(), 0),
                    at_c = turn_f * (F.at[k] - F.at[(k + 1) % 3]),
                    at_d = turn_g * (G.at[j] - G.at[(j + 2) % 3]);
        const double crosses = at_c.x() + (at_d.x() - at_c.x()) * at_c.y() / (at_c.y() - at_d.y());
        // Two edges between the same points are not one.
        const double other = (G.at[(j + 1) % 3] - G.at[(j + 2) % 3]).norm();
        if (std::abs(other - at_b.x()) > 1e-9 * at_b.x()) return false;
        if (!(crosses > 1e-6 * at_b.x() && crosses < (1 - 1e-6) * at_b.x())) return false;
        const Tensor K =
            (F.area * turn_f * F.K * turn_f.transpose() + G.area * turn_g * G.K * turn_g.transpose()) /
            (F.area + G.area);
        Flat left = laid({c, a, d}, {at_c, at_a, at_d}, K), right = laid({d, b, c}, {at_d, at_b, at_c}, K);
        if (!(left.conducts(1) + right.conducts(1) > now)) return false;
        left.next = {G.next[(j + 1) % 3], g, F.next[(k + 2) % 3]};
        right.next = {F.next[(k + 1) % 3], f, G.next[(j + 2) % 3]};
        const auto hand_over = [&](std::uint32_t n, std::uint32_t from, std::uint32_t to, std::uint32_t p,
                                   std::uint32_t q) {
            if (n == kNowhere || n == f || n == g) return;
            const auto at = back(n, from, p, q);
            if (at < 3) flats_[n].next[at] = to;
        };
        // The sides that change hands: a–d goes from g to f, b–c from f to g.
        hand_over(left.next[0], g, f, a, d);
        hand_over(right.next[0], f, g, b, c);
        flats_[f] = left;
        flats_[g] = right;
        return true;
    }

    std::vector<Flat> flats_;
};

}  // namespace

std::vector<FlowWay> ways_between(const TriangleMesh& mesh, const std::vector<FaceFlow>& faces) {
    Flips flips(mesh, faces);
    flips.go();
    return flips.ways();
}

}  // namespace jig
