#include "core/science/drape/walk.hpp"

#include <algorithm>
#include <array>

#include "core/base/parallel.hpp"

namespace jig {
namespace {

/// Cosine of a fold that smooth faces do not have: 20°.
constexpr double kFolded = 0.94;

/// The point of a triangle next to `p`, and the edge that it lies on, -1 inside (Ericson 2005, 5.1.5).
Point in_triangle(const Point& p, const Point& a, const Point& b, const Point& c, int& edge) {
    const Point ab = b - a, ac = c - a, ap = p - a;
    const double d1 = ab.dot(ap), d2 = ac.dot(ap);
    edge = -1;
    if (d1 <= 0 && d2 <= 0) {
        edge = d1 >= d2 ? 0 : 2;
        return a;
    }
    const Point bp = p - b;
    const double d3 = ab.dot(bp), d4 = ac.dot(bp);
    if (d3 >= 0 && d4 <= d3) {
        edge = (c - b).dot(bp) > 0 ? 1 : 0;
        return b;
    }
    const double vc = d1 * d4 - d3 * d2;
    if (vc <= 0 && d1 >= 0 && d3 <= 0) {
        edge = 0;
        return a + ab * (d1 / (d1 - d3));
    }
    const Point cp = p - c;
    const double d5 = ab.dot(cp), d6 = ac.dot(cp);
    if (d6 >= 0 && d5 <= d6) {
        edge = (b - c).dot(cp) > 0 ? 1 : 2;
        return c;
    }
    const double vb = d5 * d2 - d1 * d6;
    if (vb <= 0 && d2 >= 0 && d6 <= 0) {
        edge = 2;
        return a + ac * (d2 / (d2 - d6));
    }
    const double va = d3 * d6 - d5 * d4;
    if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
        edge = 1;
        return b + (c - b) * ((d4 - d3) / ((d4 - d3) + (d5 - d6)));
    }
    const double whole = 1 / (va + vb + vc);
    return a + ab * (vb * whole) + ac * (vc * whole);
}

}  // namespace

MeshWalk::MeshWalk(const TriangleMesh& mesh, const Topology& topology)
    : mesh_(mesh),
      topology_(topology),
      normals_(mesh.triangles.size()),
      corner_normals_(mesh.points.size(), Point::Zero()) {
    std::vector<std::array<double, 3>> angles(mesh.triangles.size());
    constexpr std::size_t kGrain = 20000;
    parallel_shares(mesh.triangles.size(), kGrain, [&](std::size_t from, std::size_t to, unsigned) {
        for (auto f = from; f < to; ++f) {
            const Point area = mesh.area_vector2(f);
            normals_[f] = area.norm() > 0 ? Point(area.normalized()) : Point(Point::UnitZ());
            for (int k = 0; k < 3; ++k) {
                const Point a = mesh.corner(f, (k + 1) % 3) - mesh.corner(f, k),
                            b = mesh.corner(f, (k + 2) % 3) - mesh.corner(f, k);
                angles[f][static_cast<std::size_t>(k)] = std::atan2(a.cross(b).norm(), a.dot(b));
            }
        }
    });
    // By the angle at the corner, so that how a face is cut up does not matter.
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        for (std::size_t k = 0; k < 3; ++k)
            corner_normals_[mesh.triangles[f][k]] += angles[f][k] * normals_[f];
    }
    for (auto& normal : corner_normals_) normal.normalize();
    std::vector<char> folded(mesh.points.size(), 0);
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        for (std::size_t k = 0; k < 3; ++k) {
            const auto other = topology.across[f][k];
            if (other == kNoFace || normals_[f].dot(normals_[other]) > kFolded) continue;
            folded[mesh.triangles[f][k]] = folded[mesh.triangles[f][(k + 1) % 3]] = 1;
        }
    }
    for (const auto& t : mesh.triangles)
        sharp_.push_back(static_cast<char>(folded[t[0]] | folded[t[1]] | folded[t[2]]));
}

std::optional<MeshWalk::Way> MeshWalk::way(const OnMesh& from, const OnMesh& to) const {
    Point heading = to.at - from.at;
    const double air = heading.norm();
    double length = air;
    heading -= heading.dot(normals_[from.face]) * normals_[from.face];
    if (heading.norm() < 1e-9 * air) return {};
    heading.normalize();
    for (int round = 0; round < 25; ++round) {
        Way out{length, heading, heading};
        const auto end = straight(from, out.arrives, length);
        const Point off = to.at - end.at;
        if (off.norm() < 1e-9 * air) return out;
        // Beside the way, and on along it, as they lie in the face that it ended in.
        const Point beside = normals_[end.face].cross(out.arrives);
        const double turn = std::clamp(off.dot(beside) / length, -0.5, 0.5);
        heading = std::cos(turn) * heading + std::sin(turn) * normals_[from.face].cross(heading);
        length = std::clamp(length + off.dot(out.arrives), 0.5 * length, 2 * length);
        if (length > 4 * air) return {};
    }
    return {};
}

Point MeshWalk::normal(const OnMesh& place) const {
    const auto f = place.face;
    const Point n = mesh_.area_vector2(f);
    Point out = Point::Zero();
    for (int k = 0; k < 3; ++k) {
        const Point &b = mesh_.corner(f, (k + 1) % 3), &c = mesh_.corner(f, (k + 2) % 3);
        const double share = std::clamp((c - b).cross(place.at - b).dot(n) / n.squaredNorm(), 0.0, 1.0);
        out += share * corner_normals_[mesh_.triangles[f][static_cast<std::size_t>(k)]];
    }
    return out.norm() > 1e-9 ? Point(out.normalized()) : normals_[f];
}

OnMesh MeshWalk::nearest(const Point& p, std::uint32_t start) const {
    // Faces that are as near as the best are looked at too: round a corner the next one that is nearer may
    // lie behind some that share its corner.
    std::array<std::uint32_t, 64> seen;
    std::size_t count = 0, next = 0;
    seen[count++] = start;
    int edge = -1;
    const auto foot = [&](std::uint32_t f, int& e) {
        return in_triangle(p, mesh_.corner(f, 0), mesh_.corner(f, 1), mesh_.corner(f, 2), e);
    };
    OnMesh out{foot(start, edge), start, false};
    double best = (out.at - p).squaredNorm();
    int rim = -1;
    std::uint32_t rim_face = start;
    // Whether the foot lies on a rim of its face and `p` past it.
    const auto lean = [&](std::uint32_t f, const Point& q) {
        for (int k = 0; k < 3; ++k) {
            if (topology_.across[f][static_cast<std::size_t>(k)] != kNoFace) continue;
            const Point &a = mesh_.corner(f, k), along = mesh_.corner(f, (k + 1) % 3) - a;
            const Point past = along.cross(normals_[f]);
            if (std::abs((q - a).dot(past)) > 1e-9 * along.squaredNorm() || (p - a).dot(past) <= 0) continue;
            rim = k;
            rim_face = f;
        }
    };
    lean(start, out.at);
    for (int step = 0; step < 4000 && next < count && edge != -1; ++step) {
        const auto face = seen[next++];
        for (const auto other : topology_.across[face]) {
            if (other == kNoFace || std::find(seen.begin(), seen.begin() + static_cast<std::ptrdiff_t>(count),
                                              other) != seen.begin() + static_cast<std::ptrdiff_t>(count))
                continue;
            int leans = -1;
            const Point q = foot(other, leans);
            const double away = (q - p).squaredNorm();
            if (away > best * (1 + 1e-9) + 1e-30) continue;
            if (away < best * (1 - 1e-9)) {
                best = away;
                out = {q, other, false};
                edge = leans;
                rim = -1;
                // From here on afresh.
                seen[0] = other;
                count = 1;
                next = 0;
                lean(other, q);
                break;
            }
            lean(other, q);
            if (count < seen.size()) seen[count++] = other;
        }
    }
    if (edge >= 0 && rim >= 0) {
        const Point flat = p - (p - mesh_.corner(rim_face, 0)).dot(normals_[rim_face]) * normals_[rim_face];
        if ((flat - out.at).norm() > 1e-9 * (mesh_.corner(rim_face, 1) - mesh_.corner(rim_face, 0)).norm())
            return {flat, rim_face, true};
    }
    return out;
}

OnMesh MeshWalk::straight(const OnMesh& from, Point& way, double length) const {
    OnMesh here = from;
    way -= way.dot(normals_[here.face]) * normals_[here.face];
    if (way.norm() < 1e-12) return here;
    way.normalize();
    int came = -1;
    for (int step = 0; step < 100000 && length > 0 && !here.outside; ++step) {
        // The first edge that the way crosses.
        int through = -1;
        double least = 1e300;
        const Point& n = normals_[here.face];
        for (int k = 0; k < 3; ++k) {
            if (k == came) continue;
            const Point &a = mesh_.corner(here.face, k), &b = mesh_.corner(here.face, (k + 1) % 3);
            const Point out = (b - a).cross(n);
            const double speed = out.dot(way);
            if (speed <= 0) continue;
            const double t = std::max(0.0, out.dot(a - here.at) / speed);
            if (t < least) {
                least = t;
                through = k;
            }
        }
        if (through < 0 || least >= length) {
            here.at += length * way;
            return here;
        }
        here.at += least * way;
        length -= least;
        const auto next = topology_.across[here.face][static_cast<std::size_t>(through)];
        if (next == kNoFace) {
            here.outside = true;
            break;
        }
        // The way keeps its angle to the edge.
        const Point edge =
            (mesh_.corner(here.face, (through + 1) % 3) - mesh_.corner(here.face, through)).normalized();
        const Point side = edge.cross(n), turned = edge.cross(normals_[next]);
        way = way.dot(edge) * edge + way.dot(side) * turned;
        for (int k = 0; k < 3; ++k) {
            if (topology_.across[next][static_cast<std::size_t>(k)] == here.face) came = k;
        }
        here.face = next;
    }
    if (here.outside) here.at += length * way;
    return here;
}

}  // namespace jig
