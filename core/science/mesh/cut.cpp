#include "core/science/mesh/cut.hpp"

#include <algorithm>
#include <cassert>
#include <cmath>
#include <map>
#include <unordered_map>

#include "core/science/mesh/grid_key.hpp"

#include "core/base/units.hpp"

namespace jig {
namespace {

/// Collects triangles of one side with points of its own.
class Side {
  public:
    explicit Side(TriangleMesh& out) : out_(out) {}
    std::uint32_t corner(std::uint64_t name, const Point& p) {
        const auto [found, fresh] = names_.try_emplace(name, static_cast<std::uint32_t>(out_.points.size()));
        if (fresh) out_.points.push_back(p);
        return found->second;
    }
    void add(std::uint32_t a, std::uint32_t b, std::uint32_t c) { out_.triangles.push_back({a, b, c}); }

  private:
    TriangleMesh& out_;
    std::unordered_map<std::uint64_t, std::uint32_t> names_;
};

}  // namespace

double length_of(const Line& line) {
    double sum = 0;
    for (std::size_t i = 1; i < line.size(); ++i) sum += (line[i] - line[i - 1]).norm();
    return sum;
}

std::vector<Line> chained(const std::vector<std::pair<Point, Point>>& segments, double reach) {
    const double cell = 4 * reach;
    const auto key = [&](const Point& p) {
        return GridKey{std::llround(p.x() / cell), std::llround(p.y() / cell), std::llround(p.z() / cell)};
    };
    std::unordered_multimap<GridKey, std::size_t, GridHash>
        ends;  // 2 i and 2 i + 1 are the ends of segment i
    const auto end_at = [&](std::size_t e) { return e % 2 ? segments[e / 2].second : segments[e / 2].first; };
    for (std::size_t e = 0; e < 2 * segments.size(); ++e) ends.emplace(key(end_at(e)), e);
    std::vector<char> used(segments.size(), 0);
    const auto next_end = [&](const Point& p) -> std::ptrdiff_t {
        const auto k = key(p);
        for (std::int64_t dx = -1; dx <= 1; ++dx) {
            for (std::int64_t dy = -1; dy <= 1; ++dy) {
                for (std::int64_t dz = -1; dz <= 1; ++dz) {
                    const auto [from, to] = ends.equal_range({k.x + dx, k.y + dy, k.z + dz});
                    for (auto at = from; at != to; ++at) {
                        if (!used[at->second / 2] && (end_at(at->second) - p).norm() <= reach)
                            return static_cast<std::ptrdiff_t>(at->second);
                    }
                }
            }
        }
        return -1;
    };
    std::vector<Line> lines;
    for (std::size_t i = 0; i < segments.size(); ++i) {
        if (used[i]) continue;
        used[i] = 1;
        Line ahead{segments[i].first, segments[i].second}, behind;
        for (auto e = next_end(ahead.back()); e >= 0; e = next_end(ahead.back())) {
            used[static_cast<std::size_t>(e) / 2] = 1;
            ahead.push_back(end_at(static_cast<std::size_t>(e) ^ 1U));
        }
        for (auto e = next_end(behind.empty() ? ahead.front() : behind.back()); e >= 0;
             e = next_end(behind.back())) {
            used[static_cast<std::size_t>(e) / 2] = 1;
            behind.push_back(end_at(static_cast<std::size_t>(e) ^ 1U));
        }
        Line line(behind.rbegin(), behind.rend());
        line.insert(line.end(), ahead.begin(), ahead.end());
        if (line.size() > 2 && (line.front() - line.back()).norm() <= reach) line.back() = line.front();
        lines.push_back(std::move(line));
    }
    std::stable_sort(lines.begin(), lines.end(),
                     [](const Line& a, const Line& b) { return length_of(a) > length_of(b); });
    return lines;
}

Parted parted(const TriangleMesh& mesh, std::span<const double> field, double snap) {
    assert(field.size() == mesh.points.size());
    Parted out;
    double largest = 0;
    for (const double v : field) largest = std::max(largest, std::abs(v));
    const double zero = snap * largest;
    const auto side_of = [&](std::uint32_t i) { return field[i] > zero ? 1 : field[i] < -zero ? -1 : 0; };
    Side above(out.above), below(out.below);
    std::vector<std::pair<Point, Point>> segments;
    // Points are named by their number, crossings by both ends of their edge.
    const auto whole = [&](Side& side, std::uint32_t i) { return side.corner(i, mesh.points[i]); };
    const auto crossing_at = [&](std::uint32_t a, std::uint32_t b) {
        if (a > b) std::swap(a, b);
        const double t = std::clamp(field[a] / (field[a] - field[b]), 0.0, 1.0);
        return Point(mesh.points[a] + t * (mesh.points[b] - mesh.points[a]));
    };
    const auto crossing = [&](Side& side, std::uint32_t a, std::uint32_t b) {
        const std::uint64_t name = (static_cast<std::uint64_t>(std::min(a, b) + 1U) << 32U) | std::max(a, b);
        return side.corner(name, crossing_at(a, b));
    };
    // Edges that lie in the line part a face above from one below, or touch it only.
    struct Along {
        int above = 0, below = 0;
    };
    std::map<std::pair<std::uint32_t, std::uint32_t>, Along> along;
    for (const auto& t : mesh.triangles) {
        const std::array<int, 3> sign{side_of(t[0]), side_of(t[1]), side_of(t[2])};
        const auto [least, most] = std::minmax({sign[0], sign[1], sign[2]});
        if (least >= 0 || most <= 0) {
            auto& side = least >= 0 ? above : below;
            side.add(whole(side, t[0]), whole(side, t[1]), whole(side, t[2]));
            for (std::size_t k = 0; k < 3; ++k) {
                if (sign[k] != 0 || sign[(k + 1) % 3] != 0) continue;
                auto& edge = along[std::minmax(t[k], t[(k + 1) % 3])];
                ++(least >= 0 ? edge.above : edge.below);
            }
            continue;
        }
        if (std::count(sign.begin(), sign.end(), 0) == 1) {
            // Through a corner: two triangles.
            std::size_t on = 0;
            while (sign[on] != 0) ++on;
            const auto a = t[on], b = t[(on + 1) % 3], c = t[(on + 2) % 3];
            auto& first = sign[(on + 1) % 3] > 0 ? above : below;
            auto& second = sign[(on + 1) % 3] > 0 ? below : above;
            first.add(whole(first, a), whole(first, b), crossing(first, b, c));
            second.add(whole(second, a), crossing(second, b, c), whole(second, c));
            segments.emplace_back(mesh.points[a], crossing_at(b, c));
            continue;
        }
        // Turn the triangle so that its first corner stands alone.
        const int count = (sign[0] > 0) + (sign[1] > 0) + (sign[2] > 0);
        std::size_t alone = 0;
        for (std::size_t k = 0; k < 3; ++k) {
            if ((sign[k] > 0) == (count == 1)) alone = k;
        }
        const auto a = t[alone], b = t[(alone + 1) % 3], c = t[(alone + 2) % 3];
        auto& tip = count == 1 ? above : below;
        auto& rest = count == 1 ? below : above;
        tip.add(whole(tip, a), crossing(tip, a, b), crossing(tip, a, c));
        const auto ab = crossing(rest, a, b), ac = crossing(rest, a, c);
        rest.add(ab, whole(rest, b), whole(rest, c));
        rest.add(ab, whole(rest, c), ac);
        segments.emplace_back(crossing_at(a, b), crossing_at(a, c));
    }
    for (const auto& [ends, sides] : along) {
        if (sides.above == 1 && sides.below == 1)
            segments.emplace_back(mesh.points[ends.first], mesh.points[ends.second]);
    }
    out.seams = chained(segments, 1e-9 * std::max(1e-6, bounds_of(mesh).diagonal()));
    for (const auto& line : out.seams) out.seam_length += length_of(line);
    return out;
}

Parted parted(const TriangleMesh& mesh, const Point& at, const Point& normal, double snap) {
    const Point n = normal.normalized();
    std::vector<double> field(mesh.points.size());
    for (std::size_t i = 0; i < field.size(); ++i) field[i] = n.dot(mesh.points[i] - at);
    return parted(mesh, field, snap);
}

TriangleMesh some_faces(const TriangleMesh& mesh, const std::vector<std::uint32_t>& keep) {
    TriangleMesh out;
    std::vector<std::uint32_t> renamed(mesh.points.size(), kNoFace);
    for (const auto f : keep) {
        Triangle t = mesh.triangles[f];
        for (auto& i : t) {
            if (renamed[i] == kNoFace) {
                renamed[i] = static_cast<std::uint32_t>(out.points.size());
                out.points.push_back(mesh.points[i]);
            }
            i = renamed[i];
        }
        out.triangles.push_back(t);
    }
    return out;
}

std::vector<Line> zero_draft_lines(const TriangleMesh& mesh, const Topology& topology, const Point& pull) {
    const double crease = radians(25);
    std::vector<Point> normal(mesh.points.size(), Point::Zero());
    std::vector<Point> own(mesh.triangles.size());
    for (std::size_t f = 0; f < own.size(); ++f) {
        const Point twice = mesh.area_vector2(f);
        own[f] = twice.normalized();
        for (const auto i : mesh.triangles[f]) normal[i] += twice;
    }
    for (auto& n : normal) n.normalize();
    std::vector<std::pair<Point, Point>> segments;
    // What stands straight all over has no line of its own: only a change of sign counts.
    const double straight = std::sin(radians(0.01));
    for (std::size_t f = 0; f < own.size(); ++f) {
        const auto& t = mesh.triangles[f];
        std::array<double, 3> draft{};
        bool gentle = true;
        for (std::size_t k = 0; k < 3; ++k) {
            draft[k] = normal[t[k]].dot(pull);
            gentle &= normal[t[k]].dot(own[f]) > std::cos(crease);
        }
        const double most = std::max({std::abs(draft[0]), std::abs(draft[1]), std::abs(draft[2])});
        if (gentle && most > straight) {
            // A point on the line itself counts as above, as in `parted`.
            for (auto& d : draft) d = d >= -1e-9 ? std::max(d, 0.0) : d;
            std::vector<Point> cross;
            for (std::size_t k = 0; k < 3; ++k) {
                const auto j = (k + 1) % 3;
                if ((draft[k] >= 0) == (draft[j] >= 0)) continue;
                const double s = draft[k] / (draft[k] - draft[j]);
                cross.push_back(mesh.points[t[k]] + s * (mesh.points[t[j]] - mesh.points[t[k]]));
            }
            if (cross.size() == 2 && (cross[0] - cross[1]).norm() > 0)
                segments.emplace_back(cross[0], cross[1]);
        }
        for (int k = 0; k < 3; ++k) {
            const auto g = topology.across[f][static_cast<std::size_t>(k)];
            if (g == kNoFace || g < f) continue;
            const double here = own[f].dot(pull), there = own[g].dot(pull);
            if (own[f].dot(own[g]) < std::cos(crease) &&
                ((here > straight && there < -straight) || (here < -straight && there > straight)))
                segments.emplace_back(mesh.corner(f, k), mesh.corner(f, (k + 1) % 3));
        }
    }
    return chained(segments, 1e-7 * std::max(1e-6, bounds_of(mesh).diagonal()));
}

}  // namespace jig
