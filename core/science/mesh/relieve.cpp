#include "core/science/mesh/relieve.hpp"

#include <algorithm>
#include <cmath>
#include <deque>
#include <map>
#include <set>

#include "core/science/mesh/topology.hpp"

namespace jig {
namespace {

double least_angle_of(const Point& a, const Point& b, const Point& c) {
    const auto at = [](const Point& p, const Point& q, const Point& r) {
        return std::atan2((q - p).cross(r - p).norm(), (q - p).dot(r - p));
    };
    return std::min({at(a, b, c), at(b, c, a), at(c, a, b)});
}

constexpr double kTurn = 0.2618;      ///< rad that a face may turn by
constexpr double kStraight = 0.1745;  ///< rad that an outline may turn at a point that is closed away

class Reliever {
  public:
    Reliever(Lined& lined, double wanted) : l_(lined), m_(lined.mesh), wanted_(wanted) {
        for (const auto& e : outline_edges(m_, l_.patch)) {
            outline_.insert(e);
            beside_[e.first].push_back(e.second);
            beside_[e.second].push_back(e.first);
        }
        at_.resize(m_.points.size());
        alive_.assign(m_.triangles.size(), 1);
        for (std::uint32_t f = 0; f < m_.triangles.size(); ++f) {
            for (const auto i : m_.triangles[f]) at_[i].push_back(f);
        }
    }

    void run() {
        std::deque<std::uint32_t> open;
        for (std::uint32_t f = 0; f < m_.triangles.size(); ++f) {
            if (angle(f) < wanted_) open.push_back(f);
        }
        // Each step betters the worst of the faces that it touches, so this ends; the bound is a promise.
        std::size_t left = 20 * open.size() + 100;
        while (!open.empty() && left-- > 0) {
            const auto f = open.front();
            open.pop_front();
            if (!alive_[f] || angle(f) >= wanted_) continue;
            touched_.clear();
            if (!turn_an_edge(f)) close_an_edge(f);
            for (const auto g : touched_) {
                if (alive_[g] && angle(g) < wanted_) open.push_back(g);
            }
        }
        std::size_t kept = 0;
        for (std::size_t f = 0; f < m_.triangles.size(); ++f) {
            if (!alive_[f]) continue;
            m_.triangles[kept] = m_.triangles[f];
            l_.patch[kept++] = l_.patch[f];
        }
        m_.triangles.resize(kept);
        l_.patch.resize(kept);
    }

  private:
    const Point& at(std::uint32_t i) const { return m_.points[i]; }
    double angle(std::uint32_t f) const {
        const auto& t = m_.triangles[f];
        return least_angle_of(at(t[0]), at(t[1]), at(t[2]));
    }
    static Point normal(const Point& a, const Point& b, const Point& c) { return (b - a).cross(c - a); }
    /// An edge that ribs stand on, or that the surface's outline runs along.
    bool bound(std::uint32_t a, std::uint32_t b) const {
        if (outline_.count(edge_of(a, b)) != 0) return true;
        return std::any_of(l_.on.begin(), l_.on.end(),
                           [&](const auto& on) { return on[a] >= 0 && on[a] == on[b]; });
    }
    /// Where the planes of both ways cross, a rib's line changes: no point there may go.
    bool may_leave(std::uint32_t from, std::uint32_t to) const {
        for (const auto& on : l_.on) {
            if (on[from] >= 0 && on[from] != on[to]) return false;
        }
        const auto known = beside_.find(from);
        if (known == beside_.end()) return true;
        if (outline_.count(edge_of(from, to)) == 0 || known->second.size() != 2) return false;
        const Point p = at(from) - at(known->second[0]), q = at(known->second[1]) - at(from);
        return std::atan2(p.cross(q).norm(), p.dot(q)) < kStraight;
    }
    std::vector<std::uint32_t> faces_at(std::uint32_t a, std::uint32_t b) const {
        std::vector<std::uint32_t> out;
        for (const auto f : at_[a]) {
            const auto& t = m_.triangles[f];
            if (alive_[f] && std::find(t.begin(), t.end(), b) != t.end()) out.push_back(f);
        }
        return out;
    }
    static std::uint32_t third(const Triangle& t, std::uint32_t a, std::uint32_t b) {
        for (const auto i : t) {
            if (i != a && i != b) return i;
        }
        return t[0];
    }

    bool turn_an_edge(std::uint32_t f) {
        double best = angle(f) * 1.01;
        std::size_t turned = 3;
        for (std::size_t k = 0; k < 3; ++k) {
            const auto t = m_.triangles[f];
            const auto a = t[k], b = t[(k + 1) % 3], c = t[(k + 2) % 3];
            if (bound(a, b)) continue;
            const auto both = faces_at(a, b);
            if (both.size() != 2) continue;
            const auto g = both[0] == f ? both[1] : both[0];
            const auto d = third(m_.triangles[g], a, b);
            if (!faces_at(c, d).empty() || l_.patch[f] != l_.patch[g]) continue;
            // a, d, c and d, b, c instead of a, b, c and b, a, d.
            const Point n =
                normal(at(a), at(b), at(c)).normalized() + normal(at(b), at(a), at(d)).normalized();
            const Point p = normal(at(a), at(d), at(c)), q = normal(at(d), at(b), at(c));
            if (too_far(p, n) || too_far(q, n)) continue;
            const double now =
                std::min(least_angle_of(at(a), at(d), at(c)), least_angle_of(at(d), at(b), at(c)));
            const double before = std::min(angle(f), angle(g));
            if (now <= before * 1.01 || now <= best) continue;
            best = now;
            turned = k;
        }
        if (turned == 3) return false;
        const auto t = m_.triangles[f];
        const auto a = t[turned], b = t[(turned + 1) % 3], c = t[(turned + 2) % 3];
        const auto both = faces_at(a, b);
        const auto g = both[0] == f ? both[1] : both[0];
        const auto d = third(m_.triangles[g], a, b);
        m_.triangles[f] = {a, d, c};
        m_.triangles[g] = {d, b, c};
        std::erase(at_[b], f);
        std::erase(at_[a], g);
        at_[d].push_back(f);
        at_[c].push_back(g);
        touched_ = {f, g};
        return true;
    }
    static bool too_far(const Point& now, const Point& before) {
        return std::atan2(now.cross(before).norm(), now.dot(before)) > kTurn;
    }

    void close_an_edge(std::uint32_t f) {
        const auto t = m_.triangles[f];
        std::array<std::size_t, 3> by_length{0, 1, 2};
        const auto length = [&](std::size_t k) { return (at(t[(k + 1) % 3]) - at(t[k])).norm(); };
        std::sort(by_length.begin(), by_length.end(),
                  [&](std::size_t p, std::size_t q) { return length(p) < length(q); });
        for (const auto k : by_length) {
            for (const bool back : {false, true}) {
                const auto from = t[back ? (k + 1) % 3 : k], to = t[back ? k : (k + 1) % 3];
                if (may_leave(from, to) && close(from, to)) return;
            }
        }
    }

    bool close(std::uint32_t from, std::uint32_t to) {
        const auto between = faces_at(from, to);
        // Only the corners opposite the edge may be neighbours of both of its ends.
        std::set<std::uint32_t> near, shared;
        for (const auto f : at_[from]) {
            if (alive_[f]) near.insert(m_.triangles[f].begin(), m_.triangles[f].end());
        }
        for (const auto f : at_[to]) {
            if (!alive_[f]) continue;
            for (const auto i : m_.triangles[f]) {
                if (near.count(i) != 0 && i != from && i != to) shared.insert(i);
            }
        }
        if (between.empty() || shared.size() != between.size()) return false;
        double before = 10, now = 10;
        for (const auto f : at_[from]) {
            if (!alive_[f]) continue;
            before = std::min(before, angle(f));
            if (std::find(between.begin(), between.end(), f) != between.end()) continue;
            auto t = m_.triangles[f];
            const Point old = normal(at(t[0]), at(t[1]), at(t[2]));
            std::replace(t.begin(), t.end(), from, to);
            const Point moved = normal(at(t[0]), at(t[1]), at(t[2]));
            now = std::min(now, least_angle_of(at(t[0]), at(t[1]), at(t[2])));
            // A splinter's own normal says little: what matters is that it does not turn over.
            if (angle(f) < wanted_ / 3 ? old.dot(moved) <= 0 : too_far(moved, old)) return false;
        }
        if (now <= before * 1.01) return false;
        for (const auto f : between) {
            alive_[f] = 0;
            for (const auto i : m_.triangles[f]) {
                if (i != from) std::erase(at_[i], f);
            }
        }
        for (const auto f : at_[from]) {
            if (!alive_[f]) continue;
            std::replace(m_.triangles[f].begin(), m_.triangles[f].end(), from, to);
            at_[to].push_back(f);
            touched_.push_back(f);
        }
        at_[from].clear();
        move_outline(from, to);
        return true;
    }

    /// The outline goes past a point that has been closed onto its neighbour.
    void move_outline(std::uint32_t from, std::uint32_t to) {
        const auto known = beside_.find(from);
        if (known == beside_.end()) return;
        const auto ends = known->second;
        for (const auto e : ends) {
            outline_.erase(edge_of(from, e));
            std::erase(beside_[e], from);
        }
        const auto far = ends[0] == to ? ends[1] : ends[0];
        outline_.insert(edge_of(far, to));
        beside_[far].push_back(to);
        beside_[to].push_back(far);
        beside_.erase(from);
    }

    Lined& l_;
    TriangleMesh& m_;
    double wanted_;
    std::set<PointPair> outline_;
    std::map<std::uint32_t, std::vector<std::uint32_t>> beside_;  ///< along the outline
    std::vector<std::vector<std::uint32_t>> at_;
    std::vector<char> alive_;
    std::vector<std::uint32_t> touched_;
};

}  // namespace

double least_angle(const TriangleMesh& mesh, std::size_t face) {
    return least_angle_of(mesh.corner(face, 0), mesh.corner(face, 1), mesh.corner(face, 2));
}

void relieve(Lined& lined, double wanted) {
    Reliever(lined, wanted).run();
}

}  // namespace jig
