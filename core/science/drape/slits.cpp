#include "core/science/drape/slits.hpp"

#include <algorithm>
#include <cassert>
#include <cmath>
#include <functional>
#include <map>
#include <set>

#include "core/science/mesh/bodies.hpp"
#include "core/science/mesh/nearest_face.hpp"

namespace jig {
namespace {

double cross2(const Point2& a, const Point2& b) {
    return a.x() * b.y() - a.y() * b.x();
}

/// Lines cut into a mesh one after the other.
class Scorer {
  public:
    Scorer(const TriangleMesh& mesh, const Frame& frame, double close, Scored& out)
        : frame_(frame), close_(close), out_(out) {
        out_.mesh = mesh;
        for (const auto& p : mesh.points) seen_.push_back(frame.flat(p));
    }

    void score(const SeenLine& line) {
        for (const auto& corner : line) place(corner);
        for (std::size_t i = 0; i + 1 < line.size(); ++i) cut(line[i], line[i + 1]);
        auto& edges = out_.edges.emplace_back(now_.begin(), now_.end());
        std::sort(edges.begin(), edges.end());
        now_.clear();
    }

  private:
    std::uint32_t add(const Point& p) {
        out_.mesh.points.push_back(p);
        seen_.push_back(frame_.flat(p));
        return static_cast<std::uint32_t>(seen_.size() - 1);
    }

    /// An edge that was cut along stays so in both its halves.
    void halve(const PointPair& edge, std::uint32_t middle) {
        const auto pass_on = [&](auto& edges, const auto& put) {
            const auto it = std::find(edges.begin(), edges.end(), edge);
            if (it == edges.end()) return;
            edges.erase(it);
            put(edge_of(edge.first, middle));
            put(edge_of(edge.second, middle));
        };
        for (auto& edges : out_.edges) pass_on(edges, [&](const PointPair& e) { edges.push_back(e); });
        pass_on(now_, [&](const PointPair& e) { now_.insert(e); });
    }

    /// Makes a corner of a line a point of the face, wherever it lies under it.
    void place(const Point2& q) {
        auto& triangles = out_.mesh.triangles;
        std::map<PointPair, std::uint32_t> split;
        const std::size_t count = triangles.size();
        for (std::size_t f = 0; f < count; ++f) {
            const auto t = triangles[f];
            const Point2 &a = seen_[t[0]], &b = seen_[t[1]], &c = seen_[t[2]];
            if (q.x() < std::min({a.x(), b.x(), c.x()}) - close_ ||
                q.x() > std::max({a.x(), b.x(), c.x()}) + close_ ||
                q.y() < std::min({a.y(), b.y(), c.y()}) - close_ ||
                q.y() > std::max({a.y(), b.y(), c.y()}) + close_)
                continue;
            const bool on_corner = std::any_of(
                t.begin(), t.end(), [&](std::uint32_t i) { return (seen_[i] - q).norm() < close_; });
            // What stands along the line of sight has no inside to be seen.
            const double whole = cross2(b - a, c - a);
            if (on_corner || std::abs(whole) < 1e-9 * out_.mesh.area_vector2(f).norm()) continue;
            std::array<double, 3> share{cross2(b - q, c - q) / whole, cross2(c - q, a - q) / whole,
                                        cross2(a - q, b - q) / whole};
            bool on_edge = false;
            for (std::size_t k = 0; k < 3 && !on_edge; ++k) {
                const Point2 &x = seen_[t[k]], &y = seen_[t[(k + 1) % 3]];
                const double length = (y - x).norm();
                if (length < close_ || std::abs(cross2(y - x, q - x)) > close_ * length) continue;
                const double along = (q - x).dot(y - x) / (length * length);
                if (along <= 0 || along >= 1) continue;
                const auto edge = edge_of(t[k], t[(k + 1) % 3]);
                if (!split.contains(edge)) {
                    const Point &from = out_.mesh.points[t[k]], &to = out_.mesh.points[t[(k + 1) % 3]];
                    split[edge] = add(from + along * (to - from));
                }
                on_edge = true;
            }
            if (on_edge || std::min({share[0], share[1], share[2]}) <= 0) continue;
            const auto m = add(share[0] * out_.mesh.points[t[0]] + share[1] * out_.mesh.points[t[1]] +
                               share[2] * out_.mesh.points[t[2]]);
            triangles[f] = {t[0], t[1], m};
            triangles.push_back({t[1], t[2], m});
            triangles.push_back({t[2], t[0], m});
        }
        if (!split.empty()) parted_at(split, {});
    }

    /// Parts every triangle at the points on its edges; `lies` tells of a pair of points whether the line
    /// that is being cut runs from one to the other.
    void parted_at(
        const std::map<PointPair, std::uint32_t>& split,
        const std::function<void(std::uint32_t, std::uint32_t, const std::array<std::uint32_t, 3>&)>& joins) {
        auto& triangles = out_.mesh.triangles;
        const std::size_t count = triangles.size();
        for (std::size_t f = 0; f < count; ++f) {
            const auto t = triangles[f];
            std::array<std::uint32_t, 3> at{kNoFace, kNoFace, kNoFace};
            std::size_t cuts = 0;
            for (std::size_t k = 0; k < 3; ++k) {
                const auto found = split.find(edge_of(t[k], t[(k + 1) % 3]));
                if (found == split.end()) continue;
                at[k] = found->second;
                ++cuts;
            }
            if (cuts == 0) continue;
            if (cuts == 1) {
                const std::size_t k = at[0] != kNoFace ? 0 : at[1] != kNoFace ? 1 : 2;
                const auto a = t[k], b = t[(k + 1) % 3], c = t[(k + 2) % 3], m = at[k];
                triangles[f] = {a, m, c};
                triangles.push_back({m, b, c});
                if (joins) joins(m, c, t);
                continue;
            }
            // Two: a corner is cut off. Three only by rounding: the last is left to the other two.
            std::size_t k = 0;
            while (at[k] == kNoFace || at[(k + 2) % 3] == kNoFace) ++k;
            const auto c = t[k], a = t[(k + 1) % 3], b = t[(k + 2) % 3], m = at[k], n = at[(k + 2) % 3];
            triangles[f] = {c, m, n};
            if ((seen_[m] - seen_[b]).squaredNorm() < (seen_[n] - seen_[a]).squaredNorm()) {
                triangles.push_back({m, a, b});
                triangles.push_back({m, b, n});
            } else {
                triangles.push_back({m, a, n});
                triangles.push_back({a, b, n});
            }
            if (joins) joins(m, n, t);
        }
        for (const auto& [edge, m] : split) halve(edge, m);
    }

    void cut(const Point2& from, const Point2& to) {
        const double length = (to - from).norm();
        if (length < close_) return;
        const Point2 way = (to - from) / length;
        const auto off = [&](std::uint32_t i) { return cross2(way, seen_[i] - from); };
        const auto on = [&](std::uint32_t i) {
            const double along = way.dot(seen_[i] - from);
            return std::abs(off(i)) < close_ && along > -close_ && along < length + close_;
        };
        std::map<PointPair, std::uint32_t> split;
        for (const auto& t : std::vector(out_.mesh.triangles)) {
            for (std::size_t k = 0; k < 3; ++k) {
                const auto edge = edge_of(t[k], t[(k + 1) % 3]);
                const double a = off(edge.first), b = off(edge.second);
                if (std::abs(a) < close_ || std::abs(b) < close_ || (a < 0) == (b < 0) ||
                    split.contains(edge))
                    continue;
                const double share = a / (a - b);
                const Point2 at = seen_[edge.first] + share * (seen_[edge.second] - seen_[edge.first]);
                const double along = way.dot(at - from);
                if (along < 0 || along > length) continue;
                const Point &p = out_.mesh.points[edge.first], &q = out_.mesh.points[edge.second];
                split[edge] = add(p + share * (q - p));
            }
        }
        // What stands along the line of sight, in the line, is not cut along all its edges.
        const auto stands = [&](const std::array<std::uint32_t, 3>& t) {
            return on(t[0]) && on(t[1]) && on(t[2]);
        };
        for (const auto& t : out_.mesh.triangles) {
            for (std::size_t k = 0; k < 3; ++k) {
                if (on(t[k]) && on(t[(k + 1) % 3]) && !stands(t)) now_.insert(edge_of(t[k], t[(k + 1) % 3]));
            }
        }
        parted_at(split, [&](std::uint32_t m, std::uint32_t c, const auto&) {
            if (on(m) && on(c)) now_.insert(edge_of(m, c));
        });
    }

    const Frame& frame_;
    double close_;
    Scored& out_;
    std::vector<Point2> seen_;
    std::set<PointPair> now_;  ///< edges along the line that is being cut
};

}  // namespace

Scored scored(const TriangleMesh& mesh, const Frame& frame, const std::vector<SeenLine>& lines,
              double close) {
    Scored out;
    Scorer scorer(mesh, frame, close, out);
    for (const auto& line : lines) scorer.score(line);
    return out;
}

Opened opened(const TriangleMesh& mesh, const std::vector<PointPair>& edges) {
    Opened out;
    out.mesh = mesh;
    for (std::uint32_t i = 0; i < mesh.points.size(); ++i) out.origin.push_back(i);
    const std::set<PointPair> cut(edges.begin(), edges.end());
    std::map<std::uint32_t, std::vector<std::uint32_t>> round;  // faces at each point of a slit
    for (const auto& [a, b] : cut) round[a], round[b];
    for (std::uint32_t f = 0; f < mesh.triangles.size(); ++f) {
        for (const auto p : mesh.triangles[f]) {
            if (const auto at = round.find(p); at != round.end()) at->second.push_back(f);
        }
    }
    for (auto& [p, faces] : round) {
        const auto shares = [&, p = p](std::uint32_t f, std::uint32_t g) {
            for (const auto q : mesh.triangles[f]) {
                const auto& other = mesh.triangles[g];
                if (q != p && std::find(other.begin(), other.end(), q) != other.end() &&
                    !cut.contains(edge_of(p, q)))
                    return true;
            }
            return false;
        };
        for (bool first = true; !faces.empty(); first = false) {
            std::vector<std::uint32_t> fan{faces.front()};
            faces.erase(faces.begin());
            for (std::size_t k = 0; k < fan.size(); ++k) {
                std::erase_if(faces, [&](std::uint32_t g) {
                    if (!shares(fan[k], g)) return false;
                    fan.push_back(g);
                    return true;
                });
            }
            if (first) continue;
            const auto own = static_cast<std::uint32_t>(out.mesh.points.size());
            out.mesh.points.push_back(mesh.points[p]);
            out.origin.push_back(p);
            for (const auto f : fan)
                std::replace(out.mesh.triangles[f].begin(), out.mesh.triangles[f].end(), p, own);
        }
    }
    return out;
}

std::vector<MeshPiece> pieces_of(const Opened& open, std::size_t face) {
    const auto& mesh = open.mesh;
    const auto part = body_of_points(mesh);
    // What hung together before it was opened: through each point and its twins.
    TriangleMesh closed;
    closed.points.resize(mesh.points.size());
    closed.triangles = mesh.triangles;
    for (auto& t : closed.triangles) {
        for (auto& p : t) p = open.origin[p];
    }
    const auto body = body_of_points(closed);
    const auto body_of = [&](std::size_t f) { return body[closed.triangles[f][0]]; };
    std::map<std::uint32_t, std::size_t> number{{part[mesh.triangles[face][0]], 0}};
    std::vector<MeshPiece> out(1);
    std::vector<std::uint32_t> own(mesh.points.size(), kNoFace);
    for (std::uint32_t f = 0; f < mesh.triangles.size(); ++f) {
        if (body_of(f) != body_of(face)) continue;
        const auto [at, fresh] = number.try_emplace(part[mesh.triangles[f][0]], out.size());
        if (fresh) out.emplace_back();
        auto& piece = out[at->second];
        piece.faces.push_back(f);
        auto t = mesh.triangles[f];
        for (auto& p : t) {
            if (own[p] == kNoFace) {
                own[p] = static_cast<std::uint32_t>(piece.points.size());
                piece.points.push_back(p);
                piece.mesh.points.push_back(mesh.points[p]);
            }
            p = own[p];
        }
        piece.mesh.triangles.push_back(t);
    }
    return out;
}

std::size_t middle_face(const TriangleMesh& mesh) {
    Point middle = Point::Zero();
    double area = 0;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        const double a = mesh.area_vector2(f).norm();
        middle += a * mesh.centre(f);
        area += a;
    }
    return nearest_face(mesh, area > 0 ? Point(middle / area) : middle);
}

Sides::Sides(const TriangleMesh& mesh, const Frame& frame, const std::vector<SeenLine>& lines) {
    assert(lines.size() <= kMostSlits);
    if (lines.empty()) return;
    faces_.resize(mesh.triangles.size());
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        const Point2 at = frame.flat(mesh.centre(f));
        for (std::size_t l = 0; l < lines.size(); ++l) {
            const auto& line = lines[l];
            double least = 1e300, side = 0;
            bool beyond = false;
            for (std::size_t i = 0; i + 1 < line.size(); ++i) {
                const Point2 way = line[i + 1] - line[i];
                if (!(way.squaredNorm() > 0)) continue;
                const double along = (at - line[i]).dot(way) / way.squaredNorm();
                const double away = (line[i] + std::clamp(along, 0.0, 1.0) * way - at).norm();
                const double same = 1e-9 * away;
                if (away > least + same) continue;
                // Outside a corner both pieces of the line are as near: the one that it lies more squarely
                // beside says which side that is.
                const double turn = cross2(way.normalized(), at - line[i]);
                if (away > least - same && std::abs(turn) < std::abs(side)) continue;
                least = std::min(least, away);
                side = turn;
                beyond = (i == 0 && along < 0) || (i + 2 == line.size() && along > 1);
            }
            if (beyond || side == 0) continue;
            (side > 0 ? faces_[f].left : faces_[f].right) |= 1u << l;
        }
    }
}

}  // namespace jig
