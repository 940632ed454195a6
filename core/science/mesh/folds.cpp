#include "core/science/mesh/folds.hpp"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <optional>

#include "core/science/mesh/curving.hpp"

namespace jig {
namespace {

/// Of the bend across a fold, what it may have along it.
constexpr double kOneWay = 1.0 / 3;
/// Of a strip's tightest bend, what still belongs to it.
constexpr double kShoulder = 0.2;
/// Cosine between the ways of two faces of one fold.
constexpr double kSameWay = 0.8;
/// Of a turn, what lies within its radius: the rest is what facets and fits smear.
constexpr double kCore = 0.8;
/// Reaches that a fold is long at least: where others meet, scraps are left.
constexpr double kShortest = 2.5;
/// Of a strip, what may come back to itself: walks near its rims slip off.
constexpr double kClosed = 0.2;
/// Of a strip's length, what it covers from end to end where it is straight.
constexpr double kStraight = 0.8;
/// Of a strip's length, how far about its middle its axis is averaged.
constexpr double kNear = 0.1;
/// Faces from which a strip is walked across, and its flanks.
constexpr std::size_t kWalks = 400, kFlanks = 64;
constexpr std::uint32_t kNoFold = 0xffffffffu;

/// rad from which an edge is a fold by itself: what is fitted through so steep a crease says little.
constexpr double kCrease = 0.5;

/// How a face bends.
struct Bend {
    double most = 0;               ///< 1/m, positive where it is hollow
    Point across = Point::Zero();  ///< unit, in the face
    Point axis = Point::Zero();    ///< unit, along the fold
};

/// Where a face ends at a crease, it bends as that does.
void crease(const TriangleMesh& mesh, const Topology& topology, const FoldRules& rules, std::size_t face,
            Bend& out) {
    double steepest = 0;
    int at = -1;
    for (int k = 0; k < 3; ++k) {
        const double turn = fold_at(mesh, topology, face, k);
        if (std::abs(turn) > std::max(kCrease, std::abs(steepest))) steepest = turn, at = k;
    }
    if (at < 0) return;
    const Point edge = (mesh.corner(face, (at + 1) % 3) - mesh.corner(face, at)).normalized();
    out = {steepest / rules.reach, edge.cross(mesh.area_vector2(face)).normalized(), edge};
}

std::vector<Bend> one_way_bends(const TriangleMesh& mesh, const Topology& topology, const FoldRules& rules,
                                Progress& progress) {
    const auto at = curvings(mesh, topology, rules.reach, progress);
    std::vector<Bend> out(mesh.triangles.size());
    for (std::size_t f = 0; f < out.size(); ++f) {
        double most = 0, least = 0;
        const auto* tightest = &at[mesh.triangles[f].front()];
        for (const auto i : mesh.triangles[f]) {
            most += at[i].most / 3;
            least += at[i].least / 3;
            if (std::abs(at[i].most) > std::abs(tightest->most)) tightest = &at[i];
        }
        if (std::abs(most) * rules.widest < 1 || std::abs(least) > kOneWay * std::abs(most)) continue;
        const Point normal = mesh.area_vector2(f);
        if (!(normal.squaredNorm() > 0)) continue;
        const Point flat = tightest->along - normal * (normal.dot(tightest->along) / normal.squaredNorm());
        if (flat.norm() > 0.2) out[f] = {most, flat.normalized(), normal.cross(flat).normalized()};
    }
    for (std::size_t f = 0; f < out.size(); ++f) crease(mesh, topology, rules, f, out[f]);
    return out;
}

/// Strips grown from their tightest faces outwards.
class Strips {
  public:
    Strips(const TriangleMesh& mesh, const Topology& topology, const std::vector<Bend>& bends)
        : topology_(topology), bends_(bends), parent_(bends.size()), peak_(bends.size(), 0) {
        std::vector<std::uint32_t> order;
        for (std::uint32_t f = 0; f < mesh.triangles.size(); ++f)
            if (bends[f].most != 0) order.push_back(f);
        std::stable_sort(order.begin(), order.end(),
                         [&](auto a, auto b) { return std::abs(bends[a].most) > std::abs(bends[b].most); });
        std::iota(parent_.begin(), parent_.end(), 0u);
        for (const auto f : order) {
            peak_[f] = std::abs(bends[f].most);
            for (const auto g : topology_.across[f])
                if (g != kNoFace && peak_[g] > 0 && belongs(f, g)) join(f, g);
        }
    }
    [[nodiscard]] std::uint32_t of(std::uint32_t face) const {
        auto at = face;
        while (parent_[at] != at) at = parent_[at];
        return at;
    }

  private:
    [[nodiscard]] bool belongs(std::uint32_t f, std::uint32_t g) const {
        const double own = std::abs(bends_[f].most);
        return bends_[f].most * bends_[g].most > 0 &&
               std::abs(bends_[f].axis.dot(bends_[g].axis)) > kSameWay && own >= kShoulder * peak_[of(f)] &&
               own >= kShoulder * peak_[of(g)];
    }
    void join(std::uint32_t f, std::uint32_t g) {
        auto a = of(f), b = of(g);
        if (a == b) return;
        if (peak_[a] < peak_[b]) std::swap(a, b);
        parent_[b] = a;
    }
    const Topology& topology_;
    const std::vector<Bend>& bends_;
    std::vector<std::uint32_t> parent_;
    std::vector<double> peak_;  ///< 1/m, of the strip that a face heads; 0 for one that is not yet in any
};

/// What is met on the way across a strip.
struct Crossing {
    double turn = 0;   ///< rad, positive where it is hollow
    double width = 0;  ///< m within the strip
    double core = 0;   ///< m within which `kCore` of the turn lies
    Point middle = Point::Zero();
    bool round = false;  ///< it came back to where it began
};

class Walk {
  public:
    Walk(const TriangleMesh& mesh, const Topology& topology, const std::vector<std::uint32_t>& fold_of)
        : mesh_(mesh), topology_(topology), fold_of_(fold_of) {}

    Crossing across(std::uint32_t face, const Point& way) {
        begin(face, way);
        steps_.clear();
        Crossing out;
        out.width = side(face, way, 1, out.round);
        if (!out.round) out.width += side(face, -way, -1, out.round);
        for (const auto& s : steps_) out.turn += s.turn;
        out.middle = through_;
        // Half of what is no core lies at either end.
        std::sort(steps_.begin(), steps_.end(), [](const Step& a, const Step& b) { return a.at < b.at; });
        const double skip = (1 - kCore) / 2 * std::abs(out.turn);
        double sum = 0, from = 0, to = 0, middle = 0;
        bool begun = false, halved = false;
        for (const auto& s : steps_) {
            sum += out.turn < 0 ? -s.turn : s.turn;
            if (!begun && sum > skip) begun = true, from = s.at;
            if (!halved && sum >= std::abs(out.turn) / 2) halved = true, middle = s.at;
            if (sum >= std::abs(out.turn) - skip) {
                to = s.at;
                break;
            }
        }
        out.core = std::max(0.0, to - from);
        for (const auto& s : steps_)
            if (s.at == middle) out.middle = s.point;
        return out;
    }

    /// m that the face reaches, in a straight line, as one walks on across: the less of both sides.
    double flank(std::uint32_t face, const Point& way) {
        begin(face, way);
        const auto reach = [&](const Point& to) {
            double furthest = 0;
            go(face, to, [&](const Point& at, std::uint32_t, double) {
                furthest = std::max(furthest, (at - through_).norm());
                return true;
            });
            return furthest;
        };
        return std::min(reach(way), reach(-way));
    }

  private:
    struct Step {
        double at, turn;  ///< m from the start, negative behind it; rad at an edge
        Point point;
    };

    void begin(std::uint32_t face, const Point& way) {
        plane_ = mesh_.area_vector2(face).cross(way).normalized();
        through_ = mesh_.centre(face);
    }
    /// Adds what is met on the way that `way` shows, ahead (1) or behind (-1), and gives how far the strip
    /// reaches.
    double side(std::uint32_t face, const Point& way, int sign, bool& round) {
        double gone = 0;
        Point last = through_;
        go(face, way, [&](const Point& at, std::uint32_t next, double turn) {
            gone += (at - last).norm();
            last = at;
            if (next == kNoFace) return false;
            // Normals that lean the way one goes are those of a round face.
            steps_.push_back({sign * gone, -sign * turn, at});
            round = next == face;
            return fold_of_[next] == fold_of_[face] && !round;
        });
        return gone;
    }
    /// From face to face within the plane: `met` is given each edge's place, what lies beyond it (kNoFace
    /// past a rim) and the turn to it, and says whether to go on. Once round is the furthest.
    template <class Met>
    void go(std::uint32_t face, const Point& way, Met&& met) {
        constexpr int kMost = 20000;
        Point at = through_, ahead = way;
        auto f = face;
        for (int guard = 0; guard < kMost; ++guard) {
            Point next = at;
            int left_by = -1;
            double furthest = 0;
            for (int k = 0; k < 3; ++k) {
                const Point &a = mesh_.corner(f, k), &b = mesh_.corner(f, (k + 1) % 3);
                const double da = plane_.dot(a - through_), db = plane_.dot(b - through_);
                if ((da < 0) == (db < 0)) continue;
                const Point cut = a + (b - a) * (da / (da - db));
                const double far = (cut - at).dot(ahead);
                if (left_by < 0 || far > furthest) left_by = k, furthest = far, next = cut;
            }
            if (left_by < 0) return;
            const auto g = topology_.across[f][static_cast<std::size_t>(left_by)];
            const double turn = g == kNoFace ? 0 : turn_between(f, g);
            if (!met(next, g, turn) || g == kNoFace || g == face) return;
            ahead = Eigen::AngleAxisd(turn, plane_) * ahead;
            at = next;
            f = g;
        }
    }
    /// rad about the plane's normal from one face to the next.
    [[nodiscard]] double turn_between(std::uint32_t f, std::uint32_t g) const {
        const auto in_plane = [&](std::uint32_t face) -> Point {
            const Point n = mesh_.area_vector2(face);
            return n - plane_ * plane_.dot(n);
        };
        const Point a = in_plane(f), b = in_plane(g);
        return std::atan2(plane_.dot(a.cross(b)), a.dot(b));
    }

    const TriangleMesh& mesh_;
    const Topology& topology_;
    const std::vector<std::uint32_t>& fold_of_;
    Point plane_ = Point::Zero(), through_ = Point::Zero();
    std::vector<Step> steps_;
};

/// By point, a rim edge that it ends; zero where it lies on no rim.
std::vector<Point> rim_ways(const TriangleMesh& mesh, const Topology& topology) {
    std::vector<Point> out(mesh.points.size(), Point::Zero());
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        for (std::size_t k = 0; k < 3; ++k) {
            if (topology.across[f][k] != kNoFace) continue;
            const auto a = mesh.triangles[f][k], b = mesh.triangles[f][(k + 1) % 3];
            out[a] = out[b] = mesh.points[b] - mesh.points[a];
        }
    }
    return out;
}

/// Whether a strip runs straight from rim to rim: only there nothing holds what swings about it.
bool runs_out(const TriangleMesh& mesh, const std::vector<Point>& rims, const std::vector<Bend>& bends,
              const Fold& fold) {
    double low = 0, high = 0, first = 1e300, last = -1e300;
    for (const auto f : fold.faces) {
        const double at = (mesh.centre(f) - fold.at).dot(fold.along);
        low = std::min(low, at);
        high = std::max(high, at);
        for (const auto i : mesh.triangles[f]) {
            // A rim along it is no end of it.
            if (std::abs(rims[i].dot(bends[f].axis)) >= std::abs(rims[i].dot(bends[f].across))) continue;
            first = std::min(first, at);
            last = std::max(last, at);
        }
    }
    if (high - low < kStraight * fold.length) return false;
    const double near = 0.1 * (high - low);
    return first <= low + near && last >= high - near;
}

double median(std::vector<double> values) {
    const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
    std::nth_element(values.begin(), middle, values.end());
    return *middle;
}

/// Up to about `most` of a strip's faces, strewn over it whatever their order.
std::vector<std::uint32_t> some_of(const std::vector<std::uint32_t>& faces, std::size_t most) {
    if (faces.size() <= most) return faces;
    std::vector<std::uint32_t> out;
    const auto share = static_cast<double>(most) / static_cast<double>(faces.size());
    for (const auto f : faces) {
        // Knuth's multiplicative hash.
        if (static_cast<double>(f * 2654435761u) < share * 4294967296.0) out.push_back(f);
    }
    return out;
}

/// Walks over strips and says what folds they are.
class Measurer {
  public:
    Measurer(const TriangleMesh& mesh, const Topology& topology, const FoldRules& rules,
             const std::vector<Bend>& bends, const std::vector<std::uint32_t>& fold_of)
        : mesh_(mesh),
          rules_(rules),
          bends_(bends),
          walk_(mesh, topology, fold_of),
          rims_(rim_ways(mesh, topology)) {}

    std::optional<Fold> measured(std::vector<std::uint32_t> faces) {
        walk_over(faces);
        Fold fold;
        std::vector<double> turns, cores;
        double weighed = 0, round = 0;
        Point middle = Point::Zero();
        for (const auto& w : walks_) {
            fold.length += w.along;
            weighed += w.along * w.met.turn;
            round += w.met.round ? w.along : 0;
            middle += w.along * w.met.middle;
            if (!w.whole) continue;
            turns.push_back(std::abs(w.met.turn));
            cores.push_back(w.met.core);
        }
        if (!(fold.length > kShortest * rules_.reach) || turns.empty()) return {};
        // What closes on itself has no flank to swing.
        if (round > kClosed * fold.length) return {};
        fold.turn = std::abs(weighed) / fold.length;
        if (fold.turn < rules_.least) return {};
        // A twentieth is let go: walks that slip over a corner.
        std::sort(turns.begin(), turns.end());
        fold.most = std::max(fold.turn, turns[(turns.size() - 1) * 19 / 20]);
        fold.radius = median(cores) / (kCore * fold.turn);
        fold.hollow = bends_[faces.front()].most > 0;
        place(middle / fold.length, fold);
        std::vector<double> flanks;
        for (const auto f : some_of(faces, kFlanks)) flanks.push_back(walk_.flank(f, bends_[f].across));
        fold.flank = flanks.empty() ? 0 : median(std::move(flanks));
        fold.faces = std::move(faces);
        fold.free = runs_out(mesh_, rims_, bends_, fold);
        return fold;
    }

  private:
    struct Walked {
        std::uint32_t face = 0;
        Crossing met;
        double along = 0;    ///< m of the fold's length that it stands for
        bool whole = false;  ///< not over a corner of the strip's end
    };

    void walk_over(const std::vector<std::uint32_t>& faces) {
        walks_.clear();
        std::vector<double> widths;
        double all = 0, walked = 0;
        const auto area = [&](std::uint32_t f) { return mesh_.area_vector2(f).norm() / 2; };
        for (const auto f : faces) all += area(f);
        for (const auto f : some_of(faces, kWalks)) {
            walks_.push_back({f, walk_.across(f, bends_[f].across), area(f), false});
            widths.push_back(walks_.back().met.width);
            walked += area(f);
        }
        if (walks_.empty() || !(walked > 0)) return walks_.clear();
        // A face at a strip's end is crossed at a corner of it: it would seem long.
        const double usual = median(widths);
        for (auto& w : walks_) {
            w.along *= all / walked / std::max(w.met.width, usual / 2);
            w.whole = w.met.width >= usual / 2;
        }
    }
    /// Where it is and how it lies there.
    void place(const Point& middle, Fold& fold) const {
        double nearest = 1e300;
        Point outside = Point::Zero();
        for (const auto& w : walks_) {
            const double away = (w.met.middle - middle).norm();
            if (away >= nearest || !w.whole) continue;
            nearest = away;
            fold.at = w.met.middle;
            fold.along = bends_[w.face].axis;
            outside = mesh_.area_vector2(w.face);
        }
        // One face's axis is as rough as its fit: that of its neighbourhood is taken.
        Point along = Point::Zero();
        for (const auto& w : walks_) {
            if ((w.met.middle - fold.at).norm() > kNear * fold.length) continue;
            const auto& bend = bends_[w.face];
            const Point axis = std::abs(bend.most) * mesh_.area_vector2(w.face).norm() * bend.axis;
            along += axis.dot(fold.along) < 0 ? -axis : axis;
        }
        fold.along = along.normalized();
        fold.across = outside.cross(fold.along).normalized();
    }

    const TriangleMesh& mesh_;
    const FoldRules& rules_;
    const std::vector<Bend>& bends_;
    Walk walk_;
    std::vector<Point> rims_;
    std::vector<Walked> walks_;
};

}  // namespace

std::vector<Fold> folds(const TriangleMesh& mesh, const Topology& topology, const FoldRules& rules,
                        Progress& progress) {
    const auto bends = one_way_bends(mesh, topology, rules, progress);
    const Strips strips(mesh, topology, bends);
    std::vector<std::uint32_t> fold_of(mesh.triangles.size(), kNoFold);
    std::vector<std::vector<std::uint32_t>> members(mesh.triangles.size());
    for (std::uint32_t f = 0; f < fold_of.size(); ++f) {
        if (bends[f].most == 0) continue;
        fold_of[f] = strips.of(f);
        members[fold_of[f]].push_back(f);
    }
    Measurer measurer(mesh, topology, rules, bends, fold_of);
    std::vector<Fold> out;
    for (auto& faces : members) {
        if (faces.empty()) continue;
        progress.check();
        if (auto fold = measurer.measured(std::move(faces))) out.push_back(std::move(*fold));
    }
    std::stable_sort(out.begin(), out.end(), [](const Fold& a, const Fold& b) { return a.turn > b.turn; });
    return out;
}

}  // namespace jig
