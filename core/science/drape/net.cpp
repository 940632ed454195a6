#include "core/science/drape/net.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <queue>
#include <set>
#include <unordered_map>
#include <unordered_set>

#include "core/base/error.hpp"
#include "core/science/drape/boxes.hpp"
#include "core/science/drape/cloth.hpp"
#include "core/science/drape/walk.hpp"
#include "core/science/mesh/nearest.hpp"
#include "core/science/mesh/nearest_face.hpp"

namespace jig {
namespace {

constexpr std::size_t kMostNodes = 2'000'000;
/// Threads that close in further than this are not laid: the cloth is long since a fold.
constexpr double kSharpest = 8 * std::numbers::pi / 180;

/// Never the table's free one: all ones is beyond kMostNodes.
std::uint64_t key_of(int i, int j) {
    constexpr std::uint32_t kMiddle = 1u << 31;
    return (static_cast<std::uint64_t>(static_cast<std::uint32_t>(i) + kMiddle) << 32) |
           (static_cast<std::uint32_t>(j) + kMiddle);
}

class Weaver {
  public:
    Weaver(const TriangleMesh& mesh, const Topology& topology, const MeshWalk& walk, const DrapeRules& rules,
           const Sides& sides, Drape& out)
        : mesh_(mesh),
          topology_(topology),
          walk_(walk),
          rules_(rules),
          sides_(sides),
          d_(rules.cell),
          out_(out),
          boxes_(rules.cell) {}

    void weave(Progress& progress) {
        const auto face = static_cast<std::uint32_t>(nearest_face(mesh_, rules_.seed));
        const auto seed = start_at(face);
        // By the normal between those of the corners, so that both ways do not follow one facet's tilt.
        const Point up = walk_.normal({seed.at, seed.face, false});
        Point warp = rules_.warp - rules_.warp.dot(up) * up;
        if (warp.norm() < 0.02 * rules_.warp.norm() || rules_.warp.norm() <= 0)
            throw InputError("warp", "it points straight off the face at the seed",
                             "turn it, or move the seed to where the face lies along it");
        warp.normalize();
        const Point weft = up.cross(warp);
        add(0, 0, {seed.at, seed.face, false}, 0);
        threads_ = {{{seed, warp, 1, 0}, {seed, -warp, -1, 0}, {seed, weft, 0, 1}, {seed, -weft, 0, -1}}};
        // Rings outwards, the first threads with them, each crossing from two that are nearer the seed; what
        // those cannot reach, from any two. So cloth that comes round meets itself half way round.
        offer(0, 0);
        double area = 0;
        for (std::size_t f = 0; f < mesh_.triangles.size(); ++f) area += mesh_.area_vector2(f).norm() / 2;
        const double most = 1000 + 4 * area / (d_ * d_);
        std::size_t looked = 0;
        for (bool past_rim = false;;) {
            if (++looked % 2048 == 0) progress.check();
            if (queue_.empty()) {
                // Where a first thread ended early the next ones start straight on from those beside them;
                // what lies past the rim comes last of all.
                if (start_thread(past_rim)) continue;
                if (past_rim) break;
                past_rim = true;
                for (const auto& [key, next] : resting_) stuck_.insert(next);
                resting_.clear();
                continue;
            }
            const auto [ring, i, j] = queue_.top();
            queue_.pop();
            // Beside a slit a crossing may be wanted once on either side.
            if (!sides_.any() && taken(i, j)) continue;
            if (onward(i, j) || lay(i, j))
                offer(i, j);
            else if (sides_.any() || !taken(i, j))
                stuck_.insert({ring, i, j});
            // More than the face could hold, however sheared: it winds over itself and is laid no further.
            if (inside_ > most) break;
            if (out_.nodes.size() > kMostNodes)
                throw InputError("cell", fmt::format("the net needs more than {} crossings", kMostNodes),
                                 "lay it with a larger cell");
        }
        cells();
    }

  private:
    /// The place of the mesh next to the seed; from a rim a little way in, or no thread would lie on the
    /// face.
    [[nodiscard]] OnMesh start_at(std::uint32_t face) const {
        const auto& t = mesh_.triangles[face];
        OnMesh out{nearest_on_triangle(rules_.seed, mesh_.corner(face, 0), mesh_.corner(face, 1),
                                       mesh_.corner(face, 2)),
                   face, false};
        const Point middle = mesh_.centre(face);
        const double near = 1e-6 * (mesh_.corner(face, 0) - middle).norm();
        std::set<std::uint32_t> rim;  // of this face's corners
        for (std::uint32_t f = 0; f < mesh_.triangles.size(); ++f) {
            for (std::size_t k = 0; k < 3; ++k) {
                if (topology_.across[f][k] != kNoFace) continue;
                for (const auto p : {mesh_.triangles[f][k], mesh_.triangles[f][(k + 1) % 3]}) {
                    if (std::find(t.begin(), t.end(), p) != t.end()) rim.insert(p);
                }
            }
        }
        bool on_rim = false;
        for (std::size_t k = 0; k < 3; ++k) {
            const Point &a = mesh_.points[t[k]], &b = mesh_.points[t[(k + 1) % 3]];
            on_rim = on_rim || (rim.contains(t[k]) && (out.at - a).norm() < near) ||
                     (topology_.across[face][k] == kNoFace &&
                      (b - a).cross(out.at - a).norm() < near * (b - a).norm());
        }
        if (on_rim) out.at += 0.3 * (middle - out.at);
        return out;
    }

    [[nodiscard]] bool taken(int i, int j) const { return index_.find(key_of(i, j)) != kNoNode; }

    /// Each node of that number: one, but for those that lie on either side of a slit.
    template <class Visit>
    void each(int i, int j, const Visit& visit) const {
        for (auto n = index_.find(key_of(i, j)); n != kNoNode; n = twins_[n]) visit(n);
    }

    [[nodiscard]] bool apart(std::uint32_t a, std::uint32_t b) const {
        return sides_.apart(out_.nodes[a].face, out_.nodes[b].face);
    }

    /// Whether that crossing is laid already for cloth that lies on this side of every slit.
    [[nodiscard]] bool laid_for(int i, int j, std::uint32_t face) const {
        bool found = false;
        each(i, j, [&](std::uint32_t n) { found = found || !sides_.apart(out_.nodes[n].face, face); });
        return found;
    }

    void add(int i, int j, const OnMesh& place, int depth) {
        const auto n = static_cast<std::uint32_t>(out_.nodes.size());
        out_.nodes.push_back({i, j, place.at, place.face, place.outside, 0});
        depth_.push_back(depth);
        inside_ += place.outside ? 0 : 1;
        twins_.push_back(std::exchange(index_[key_of(i, j)], n));
        boxes_.add(place.at, n);
        if (resting_.empty()) return;
        for (const auto& [di, dj] : {std::pair{1, 0}, {-1, 0}, {0, 1}, {0, -1}}) {
            for (const int steps : {1, 2}) {
                const auto rests = resting_.find(key_of(i + steps * di, j + steps * dj));
                if (rests == resting_.end()) continue;
                stuck_.insert(rests->second);
                resting_.erase(rests);
            }
        }
    }

    /// One crossing further on a first thread; false where (i, j) is not the next of one.
    bool onward(int i, int j) {
        for (auto& t : threads_) {
            if (t.ended || i != (t.laid + 1) * t.di || j != (t.laid + 1) * t.dj) continue;
            const auto next = walk_.straight(t.from, t.way, d_);
            if (laid_for(i, j, next.face) || (!next.outside && overlaps(i, j, next))) return false;
            add(i, j, next, next.outside ? 1 : 0);
            // Past the rim it leads nowhere.
            t.ended = next.outside;
            ++t.laid;
            t.from = next;
            return true;
        }
        return false;
    }

    /// Whether cloth from elsewhere lies there already: the net has come round.
    [[nodiscard]] bool overlaps(int i, int j, const OnMesh& place) const {
        bool found = false;
        boxes_.around(place.at, [&](std::uint32_t n) {
            const auto& other = out_.nodes[n];
            // No place of a square cell is further from a crossing; the back of a thin wall is elsewhere.
            if (std::abs(other.i - i) + std::abs(other.j - j) > 7 && !other.outside &&
                (other.at - place.at).norm() < 0.72 * d_ && !sides_.apart(other.face, place.face) &&
                (topology_.turned_edges > 0 ||
                 walk_.flat_normal(other.face).dot(walk_.flat_normal(place.face)) > 0))
                found = true;
        });
        return found;
    }

    void offer(int i, int j) {
        for (int x = -1; x <= 1; ++x) {
            for (int y = -1; y <= 1; ++y) {
                if ((x != 0 || y != 0) && (sides_.any() || !taken(i + x, j + y)))
                    queue_.push({std::abs(i + x) + std::abs(j + y), i + x, j + y});
            }
        }
    }

    /// Lays (i, j) from a corner of three, once for each side of a slit; false where none is known or none
    /// holds.
    bool lay(int i, int j) {
        const int si = i > 0 ? 1 : -1, sj = j > 0 ? 1 : -1;
        bool found = false;
        for (const auto& [di, dj] : {std::pair{si, sj}, {-si, sj}, {si, -sj}, {-si, -sj}}) {
            each(i - di, j, [&, di = di, dj = dj](std::uint32_t a) {
                each(i, j - dj, [&](std::uint32_t b) {
                    if (depth_[a] + depth_[b] > 4 || apart(a, b)) return;
                    each(i - di, j - dj, [&](std::uint32_t c) {
                        if (apart(a, c) || apart(b, c) || (found && !sides_.any())) return;
                        found = lay_from(i, j, a, b, c) || found;
                    });
                });
            });
            if (found && !sides_.any()) return true;
        }
        return found;
    }

    bool lay_from(int i, int j, std::uint32_t a, std::uint32_t b, std::uint32_t c) {
        // What lies one cell from both is that crossing.
        bool known = false;
        each(i, j, [&](std::uint32_t n) {
            const Point& at = out_.nodes[n].at;
            known = known || (std::abs((at - out_.nodes[a].at).norm() / d_ - 1) < 0.1 &&
                              std::abs((at - out_.nodes[b].at).norm() / d_ - 1) < 0.1);
        });
        if (known) return false;
        const auto place = cross(a, b, c);
        if (!place || laid_for(i, j, place->face)) return false;
        if (!place->outside && overlaps(i, j, *place)) return false;
        const int depth = place->outside ? 1 + std::min(depth_[a], depth_[b]) : 0;
        if (depth > 3) return false;
        add(i, j, *place, depth);
        return true;
    }

    /// Lays one crossing straight on from the two before it on its thread; false where there is none to lay.
    bool start_thread(bool past_rim) {
        for (auto it = stuck_.begin(); it != stuck_.end();) {
            const int i = std::get<1>(*it), j = std::get<2>(*it);
            if (!sides_.any() && taken(i, j)) {
                it = stuck_.erase(it);
                continue;
            }
            for (const auto& [di, dj] : {std::pair{0, 1}, {0, -1}, {1, 0}, {-1, 0}}) {
                bool started = false;
                each(i - di, j - dj, [&, di = di, dj = dj](std::uint32_t near) {
                    each(i - 2 * di, j - 2 * dj, [&](std::uint32_t far) {
                        started = started || start_from(i, j, near, far, past_rim);
                    });
                });
                if (!started) continue;
                // It may still be wanted on the other side of a slit.
                if (!sides_.any()) stuck_.erase(it);
                offer(i, j);
                return true;
            }
            resting_.emplace(key_of(i, j), *it);
            it = stuck_.erase(it);
        }
        return false;
    }

    bool start_from(int i, int j, std::uint32_t near, std::uint32_t far, bool past_rim) {
        // What fails once fails again.
        if (!tried_[past_rim ? 1 : 0].insert(std::uint64_t{near} << 32 | far).second) return false;
        if (depth_[near] > 0 || depth_[far] > 0 || apart(near, far)) return false;
        const auto& from = out_.nodes[near];
        Point way = from.at - out_.nodes[far].at;
        const auto place = walk_.straight({from.at, from.face, false}, way, d_);
        if (place.outside != past_rim || laid_for(i, j, place.face) ||
            (!place.outside && overlaps(i, j, place)))
            return false;
        add(i, j, place, place.outside ? 1 : 0);
        return true;
    }

    /// Chord of a way of one cell along the face between two normals.
    [[nodiscard]] double chord(const Point& m, const Point& n) const {
        // Over a sharp fold the normals between say little: no more than a quarter turn is made good.
        const double sine = std::min((m - n).norm() / 2, 0.389);  // of half the turn
        return sine < 1e-6 ? d_ : d_ * sine / std::asin(sine);
    }

    [[nodiscard]] OnMesh place(std::uint32_t n) const { return place_of(out_.nodes[n]); }

    /// As `cross`, beside folds, where chords and normals say little: along straight ways over the unfolded
    /// face. From where the rhomb of the three would end; none where such ways are not found.
    std::optional<OnMesh> cross_unfolded(std::uint32_t a, std::uint32_t b, std::uint32_t c) const {
        OnMesh A = place(a), B = place(b);
        const OnMesh C = place(c);
        if (C.outside || (A.outside && B.outside)) return {};
        // From one that lies on the face.
        if (B.outside) std::swap(A, B);
        const auto to_a = walk_.way(C, A), to_b = walk_.way(C, B);
        if (!to_a || !to_b) return {};
        // On from b as a lies from c.
        const Point &up_c = walk_.flat_normal(C.face), &up_b = walk_.flat_normal(B.face);
        const double turn =
            std::atan2(up_c.dot(to_b->leaves.cross(to_a->leaves)), to_b->leaves.dot(to_a->leaves));
        Point on = std::cos(turn) * to_b->arrives + std::sin(turn) * up_b.cross(to_b->arrives);
        OnMesh here = walk_.straight(B, on, d_);
        // Past the rim nothing leads back: the rhomb has to do.
        if (A.outside) return here;
        const auto between = walk_.way(A, B);
        if (!between) return {};
        if (between->length > 2 * d_ * std::cos(kSharpest / 2) ||
            between->length < 2 * d_ * std::sin(kSharpest / 2))
            return {};
        for (int round = 0; round < 10; ++round) {
            const auto from_a = walk_.way(A, here), from_b = walk_.way(B, here);
            if (!from_a || !from_b) return {};
            const double ra = d_ - from_a->length, rb = d_ - from_b->length;
            if (std::max(std::abs(ra), std::abs(rb)) < 1e-7 * d_) {
                if ((here.at - C.at).norm() < 0.1 * d_) return {};
                return here;
            }
            const Point& x = from_a->arrives;
            const Point y = walk_.flat_normal(here.face).cross(x);
            Eigen::Matrix2d J;
            J << 1, 0, from_b->arrives.dot(x), from_b->arrives.dot(y);
            if (std::abs(J(1, 1)) < 0.02) return {};
            Eigen::Vector2d step = J.inverse() * Eigen::Vector2d(ra, rb);
            if (step.norm() > 0.5 * d_) step *= 0.5 * d_ / step.norm();
            if (here.outside) {
                here.at += step.x() * x + step.y() * y;
                continue;
            }
            Point way = step.x() * x + step.y() * y;
            here = walk_.straight(here, way, step.norm());
        }
        return {};
    }

    /// The place one cell from a and from b, on the other side of them from c.
    std::optional<OnMesh> cross(std::uint32_t a, std::uint32_t b, std::uint32_t c) const {
        const auto folded = [&](std::uint32_t n) { return walk_.beside_fold(out_.nodes[n].face); };
        if (folded(a) || folded(b) || folded(c)) {
            if (const auto found = cross_unfolded(a, b, c)) return found;
        }
        const auto smooth = cross_smooth(a, b, c);
        if (smooth && walk_.beside_fold(smooth->face)) {
            if (const auto found = cross_unfolded(a, b, c)) return found;
        }
        return smooth;
    }

    /// As `cross`, by chords that are corrected for the turn of the normals.
    std::optional<OnMesh> cross_smooth(std::uint32_t a, std::uint32_t b, std::uint32_t c) const {
        const auto &A = out_.nodes[a], &B = out_.nodes[b], &C = out_.nodes[c];
        const double across = (A.at - B.at).norm();
        // So far apart, or so near, that the threads lie along each other.
        if (across > 2 * d_ * std::cos(kSharpest / 2) || across < 2 * d_ * std::sin(kSharpest / 2)) return {};
        const Point middle = (A.at + B.at) / 2;
        Point away = middle - C.at;
        const double reach = std::sqrt(std::max(d_ * d_ - across * across / 4, 0.0));
        if (away.norm() < 1e-9 * d_) return {};
        OnMesh here = walk_.nearest(middle + reach * away.normalized(), A.face);
        const Point nA = walk_.normal({A.at, A.face, A.outside}),
                    nB = walk_.normal({B.at, B.face, B.outside});
        for (int round = 0; round < 12; ++round) {
            const Point n = walk_.normal(here);
            const Point toA = here.at - A.at, toB = here.at - B.at;
            const double la = toA.norm(), lb = toB.norm();
            const double ra = chord(nA, n) - la, rb = chord(nB, n) - lb;
            if (la < 1e-9 * d_ || lb < 1e-9 * d_) return {};
            const bool good = std::abs(ra) < 1e-7 * d_ && std::abs(rb) < 1e-7 * d_;
            if (good || (round == 11 && std::max(std::abs(ra), std::abs(rb)) < 1e-3 * d_)) {
                // On the far side of a and b, not folded back onto c.
                if ((here.at - middle).dot(away) <= 0) return {};
                return here;
            }
            const Point& f = walk_.flat_normal(here.face);
            const Point x = (toA - toA.dot(f) * f).normalized(), y = f.cross(x);
            Eigen::Matrix2d J;
            J << toA.dot(x) / la, toA.dot(y) / la, toB.dot(x) / lb, toB.dot(y) / lb;
            const double det = J.determinant();
            if (std::abs(det) < 0.02) return {};
            Eigen::Vector2d step = J.inverse() * Eigen::Vector2d(ra, rb);
            if (step.norm() > 0.5 * d_) step *= 0.5 * d_ / step.norm();
            here = walk_.nearest(here.at + step.x() * x + step.y() * y, here.face);
        }
        return {};
    }

    /// m between two crossings: along the face beside folds, else as good as straight.
    [[nodiscard]] double diagonal(std::uint32_t a, std::uint32_t b) const {
        const auto &A = out_.nodes[a], &B = out_.nodes[b];
        if (!A.outside && !B.outside && (walk_.beside_fold(A.face) || walk_.beside_fold(B.face))) {
            if (const auto way = walk_.way(place(a), place(b))) return way->length;
        }
        return (A.at - B.at).norm();
    }

    void cells() {
        std::vector<int> count(out_.nodes.size(), 0);
        for (std::uint32_t n = 0; n < out_.nodes.size(); ++n) {
            const auto i = out_.nodes[n].i, j = out_.nodes[n].j;
            each(i + 1, j, [&](std::uint32_t right) {
                each(i, j + 1, [&](std::uint32_t up) {
                    each(i + 1, j + 1, [&](std::uint32_t far) {
                        if (!apart(n, right) && !apart(n, up) && !apart(n, far) && !apart(right, up) &&
                            !apart(right, far) && !apart(up, far))
                            cell({n, right, far, up}, count);
                    });
                });
            });
        }
        for (std::uint32_t n = 0; n < out_.nodes.size(); ++n) {
            if (count[n] > 0) out_.nodes[n].shear /= count[n];
        }
    }

    /// One of (i, j), (i + 1, j), (i + 1, j + 1), (i, j + 1).
    void cell(const std::array<std::uint32_t, 4>& of, std::vector<int>& count) {
        // Where two ends of the net meet over a tip, what lies between them is no cell.
        for (std::size_t k = 0; k < 4; ++k) {
            if ((out_.nodes[of[k]].at - out_.nodes[of[(k + 1) % 4]].at).norm() > 1.05 * d_) return;
        }
        // Of a rhomb, by its diagonals.
        const double one = diagonal(of[0], of[2]), other = diagonal(of[1], of[3]);
        const double shear = std::abs(std::numbers::pi / 2 - 2 * std::atan2(other, one));
        out_.cells.push_back({of, shear});
        for (const auto k : of) {
            out_.nodes[k].shear += shear;
            ++count[k];
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
    NodeTable index_;                   ///< the last laid of each number
    std::vector<std::uint32_t> twins_;  ///< the one laid before of the same number, across a slit
    std::vector<int> depth_;            ///< cells past the rim
    double inside_ = 0;                 ///< crossings on the face
    /// A first thread, straight along the face from the seed.
    struct Thread {
        OnMesh from;
        Point way;
        int di = 0, dj = 0;
        int laid = 0;  ///< crossings
        bool ended = false;
    };
    std::array<Thread, 4> threads_;
    using Next = std::tuple<int, int, int>;
    std::set<Next> stuck_;  ///< crossings that no corner of three reaches
    /// Those of them from beside which no thread leads on, until there is a new crossing there.
    std::unordered_map<std::uint64_t, Next> resting_;
    /// Pairs of crossings from which a thread was tried straight on: on the face, and past its rim.
    std::array<std::unordered_set<std::uint64_t>, 2> tried_;
    std::priority_queue<Next, std::vector<Next>, std::greater<>> queue_;
};

}  // namespace

namespace {

/// The middle of the face nearest to the seed that lies `away` m from every rim; none where the mesh is
/// narrower.
std::optional<Point> inward(const TriangleMesh& mesh, const Topology& topology, const Point& seed,
                            double away) {
    std::vector<Point> rim;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        for (int k = 0; k < 3; ++k) {
            if (topology.across[f][static_cast<std::size_t>(k)] == kNoFace)
                rim.push_back((mesh.corner(f, k) + mesh.corner(f, (k + 1) % 3)) / 2);
        }
    }
    std::vector<std::pair<double, std::size_t>> near;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f)
        near.emplace_back((mesh.centre(f) - seed).squaredNorm(), f);
    std::sort(near.begin(), near.end());
    for (const auto& [distance, f] : near) {
        const Point at = mesh.centre(f);
        if (std::none_of(rim.begin(), rim.end(),
                         [&, at = at](const Point& p) { return (p - at).squaredNorm() < away * away; }))
            return at;
    }
    return {};
}

}  // namespace

Drape drape_piece(const TriangleMesh& mesh, const Topology& topology, const DrapeRules& rules,
                  const Sides& sides, Progress& progress) {
    Drape out;
    const MeshWalk walk(mesh, topology);
    Weaver(mesh, topology, walk, rules, sides, out).weave(progress);
    lay_on_cloth(out, mesh, topology, walk, rules, sides);
    double area = 0;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) area += mesh.area_vector2(f).norm() / 2;
    // In a corner of a rim every thread may lead straight off the face: then from further in.
    for (const double cells : {2.0, 5.0}) {
        if (out.covered > area / 2) break;
        auto further = rules;
        const auto seed = inward(mesh, topology, rules.seed, cells * rules.cell);
        if (!seed) break;
        further.seed = *seed;
        Drape other;
        try {
            Weaver(mesh, topology, walk, further, sides, other).weave(progress);
        } catch (const InputError&) {
            continue;  // the warp has no direction there
        }
        lay_on_cloth(other, mesh, topology, walk, further, sides);
        if (other.covered > out.covered) out = std::move(other);
    }
    return out;
}

Drape drape(const TriangleMesh& mesh, const Topology& topology, const DrapeRules& rules, Progress& progress) {
    return drape_piece(mesh, topology, rules, Sides(), progress);
}

}  // namespace jig
