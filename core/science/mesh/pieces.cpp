#include "core/science/mesh/pieces.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <numeric>

#include "core/base/parallel.hpp"
#include "core/base/units.hpp"
#include "core/science/mesh/pull_search.hpp"
#include "core/science/mesh/refine.hpp"
#include "core/science/mesh/seam_cut.hpp"

namespace jig {
namespace {

const double kNoise = radians(0.01);
constexpr double kShowPrice = 8;  // times dearer is a seam on show surface

/// No face larger than this share of the whole, so that a shadow's edge is not lost inside a face.
TriangleMesh fine_enough(const TriangleMesh& mesh, std::vector<std::uint32_t>& parent, Progress& progress) {
    double total = 0, largest = 0;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        const double area = mesh.area_vector2(f).norm() / 2;
        total += area;
        largest = std::max(largest, area);
    }
    constexpr double kFinest = 1.0 / 4000;
    if (largest <= kFinest * total * 4) {
        parent.resize(mesh.triangles.size());
        std::iota(parent.begin(), parent.end(), 0U);
        return mesh;
    }
    auto fine = refined(mesh, std::sqrt(4 * kFinest * total), progress);
    parent = std::move(fine.parent);
    return std::move(fine.mesh);
}

/// Labels of all faces: what the maker gave (a pull's number, -1 where he did not) and what only one pull
/// frees is settled, the rest is shared out by minimum cut.
std::vector<std::uint8_t> labelled(const TriangleMesh& mesh, const Topology& topology,
                                   const std::vector<std::vector<char>>& free,
                                   const std::vector<Point>& pulls, double drag_angle,
                                   const std::vector<char>& show, const std::vector<int>& given) {
    const auto faces = mesh.triangles.size();
    std::vector<std::uint8_t> label(faces, 0);
    std::vector<std::uint32_t> number(faces, kNoFace);
    std::vector<std::uint32_t> open;
    for (std::size_t f = 0; f < faces; ++f) {
        if (given[f] >= 0) {
            label[f] = static_cast<std::uint8_t>(given[f]);
            continue;
        }
        int count = 0;
        for (std::size_t l = 0; l < pulls.size(); ++l) {
            if (!free[l][f]) continue;
            ++count;
            label[f] = static_cast<std::uint8_t>(l);
        }
        if (count == 1) continue;
        number[f] = static_cast<std::uint32_t>(open.size());
        open.push_back(static_cast<std::uint32_t>(f));
    }
    if (open.empty() || pulls.size() < 2) return label;
    double total = 0;
    for (std::size_t f = 0; f < faces; ++f) total += mesh.area_vector2(f).norm() / 2;
    const double side = std::sqrt(total);
    std::vector<std::vector<double>> cost(pulls.size(), std::vector<double>(open.size(), 0));
    std::vector<std::pair<std::size_t, std::size_t>> edges;
    std::vector<double> weights;
    std::vector<std::size_t> start(open.size(), 0);
    const auto drag = std::max(1e-3, std::sin(drag_angle));
    for (std::size_t i = 0; i < open.size(); ++i) {
        const auto f = open[i];
        const Point n = mesh.area_vector2(f) / 2;
        const double area = n.norm();
        double best = std::numeric_limits<double>::infinity();
        for (std::size_t l = 0; l < pulls.size(); ++l) {
            const double slope = area > 0 ? n.dot(pulls[l]) / area : 0;
            double& price = cost[l][i];
            price = free[l][f] ? area * 0.5 * std::clamp(1 - slope / (4 * drag), 0.0, 1.0) : 100 * area;
            if (price < best) {
                best = price;
                start[i] = l;
            }
        }
        for (std::size_t k = 0; k < 3; ++k) {
            const auto g = topology.across[f][k];
            if (g == kNoFace) continue;
            const bool shown = !show.empty() && (show[f] || show[g]);
            const double weight =
                0.05 * side * (shown ? kShowPrice : 1) *
                (mesh.corner(f, static_cast<int>((k + 1) % 3)) - mesh.corner(f, static_cast<int>(k))).norm();
            if (number[g] == kNoFace) {
                for (std::size_t l = 0; l < pulls.size(); ++l) cost[l][i] += l == label[g] ? 0 : weight;
            } else if (number[g] > i) {
                edges.emplace_back(i, number[g]);
                weights.push_back(weight);
            }
        }
    }
    share_out(edges, weights, cost, start);
    for (std::size_t i = 0; i < open.size(); ++i) label[open[i]] = static_cast<std::uint8_t>(start[i]);
    return label;
}

/// Takes the mesh's steps out of a line where the surface about it is gentle; points of creases stay.
void smooth(Line& line, const std::vector<char>& fixed) {
    const bool closed = line.size() > 3 && line.front() == line.back();
    // A step in and a slightly larger one out again keeps circles from shrinking (Taubin 1995).
    for (int pass = 0; pass < 24; ++pass) {
        const double step = pass % 2 == 0 ? 0.5 : -0.505;
        const auto old = line;
        for (std::size_t i = closed ? 0 : 1; i + 1 < line.size(); ++i) {
            if (fixed[i]) continue;
            const auto& before = i == 0 ? old[old.size() - 2] : old[i - 1];
            line[i] = old[i] + step * ((before + old[i + 1]) / 2 - old[i]);
        }
        if (closed) line.back() = line.front();
    }
}

void find_seams(const TriangleMesh& mesh, const Topology& topology, const std::vector<std::uint8_t>& label,
                PieceSet& set) {
    std::vector<std::pair<Point, Point>> segments;
    std::map<std::array<double, 3>, bool> sharp;
    const auto name = [](const Point& p) { return std::array{p.x(), p.y(), p.z()}; };
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        for (int k = 0; k < 3; ++k) {
            const auto g = topology.across[f][static_cast<std::size_t>(k)];
            if (g == kNoFace || g < f || label[f] == label[g]) continue;
            const Point a = mesh.corner(f, k), b = mesh.corner(f, (k + 1) % 3);
            segments.emplace_back(a, b);
            const bool crease = std::abs(fold_at(mesh, topology, f, k)) > radians(25);
            sharp[name(a)] |= crease;
            sharp[name(b)] |= crease;
        }
    }
    set.seams = chained(segments, 1e-9 * std::max(1e-6, bounds_of(mesh).diagonal()));
    std::map<std::array<double, 3>, Point> moved;
    for (auto& line : set.seams) {
        std::vector<char> fixed;
        for (const auto& p : line) fixed.push_back(static_cast<char>(sharp[name(p)]));
        const auto before = line;
        smooth(line, fixed);
        for (std::size_t i = 0; i < line.size(); ++i) moved.emplace(name(before[i]), line[i]);
        set.seam_length += length_of(line);
    }
    // The pieces' edges follow, both sides alike, so that they still meet.
    for (auto& piece : set.pieces) {
        for (auto& p : piece.mesh.points) {
            if (const auto to = moved.find(name(p)); to != moved.end()) p = to->second;
        }
    }
}

Piece judged(TriangleMesh mesh, const Point& direction, const RayMesh& rays, double drag_angle,
             Progress& progress) {
    Piece piece;
    piece.direction = direction;
    piece.mesh = std::move(mesh);
    DraftRules rules;
    rules.drag_angle = drag_angle;
    rules.samples = 10000;
    piece.map = draft(piece.mesh, rays, direction, rules, progress);
    return piece;
}

}  // namespace

std::vector<char> free_along(const TriangleMesh& mesh, const RayMesh& rays, const Point& direction,
                             Progress& progress) {
    const double off = 1e-5 * bounds_of(mesh).diagonal(), noise = -std::sin(kNoise);
    std::vector<char> free(mesh.triangles.size(), 0);
    parallel_shares(free.size(), 4096, [&](std::size_t begin, std::size_t end, unsigned) {
        for (auto f = begin; f < end; ++f) {
            if ((f & 0x3fffU) == 0) progress.check();
            const Point n = mesh.area_vector2(f).normalized();
            free[f] = static_cast<char>(n.dot(direction) >= noise &&
                                        !rays.blocked(mesh.centre(f) + off * (n + direction), direction));
        }
    });
    return free;
}

PieceSet find_pieces(const TriangleMesh& part, const RayMesh& rays, const PieceRules& rules,
                     Progress& progress) {
    PieceSet out;
    progress.report(0.05, "searching for the pulls");
    std::vector<std::uint32_t> parent;
    const auto mesh = fine_enough(part, parent, progress);
    const auto topology = topology_of(mesh);
    const auto pulls = pulls_together(mesh, rays, rules.count, rules.drag_angle, progress);
    std::vector<std::vector<char>> free;
    for (const auto& pull : pulls) free.push_back(free_along(mesh, rays, pull, progress));
    progress.report(0.7, "laying the seams");
    std::vector<char> show(rules.show.empty() ? 0 : parent.size());
    for (std::size_t f = 0; f < show.size(); ++f) show[f] = rules.show[parent[f]];
    std::vector<int> given;
    lay_paint(mesh, rules.painted, show, given);
    for (auto& g : given) {
        if (g < 0) continue;
        const Point& toward = rules.painted[static_cast<std::size_t>(g)].toward;
        g = static_cast<int>(
            std::max_element(pulls.begin(), pulls.end(),
                             [&](const Point& a, const Point& b) { return a.dot(toward) < b.dot(toward); }) -
            pulls.begin());
    }
    auto label = labelled(mesh, topology, free, pulls, rules.drag_angle, show, given);
    // A pull that no face was given to is no piece.
    std::vector<std::vector<std::uint32_t>> faces(pulls.size());
    for (std::size_t f = 0; f < label.size(); ++f) faces[label[f]].push_back(static_cast<std::uint32_t>(f));
    for (std::size_t l = 0; l < pulls.size(); ++l) {
        if (faces[l].empty()) continue;
        for (const auto f : faces[l]) label[f] = static_cast<std::uint8_t>(out.pieces.size());
        out.pieces.push_back(judged(some_faces(mesh, faces[l]), pulls[l], rays, rules.drag_angle, progress));
    }
    find_seams(mesh, topology, label, out);
    progress.report(1, "pieces found");
    return out;
}

PieceSet pieces_by_plane(const TriangleMesh& mesh, const RayMesh& rays, const Point& at, const Point& normal,
                         double drag_angle, Progress& progress) {
    if (!(normal.norm() > 1e-9))
        throw InputError("split", "the plane's normal has no length", "give a direction such as 0, 0, 1");
    const Point n = normal.normalized();
    auto cut = parted(mesh, at, n);
    if (cut.above.empty() || cut.below.empty())
        throw InputError("split", "the plane misses the part", "move it into the part");
    PieceSet out;
    out.seams = std::move(cut.seams);
    out.seam_length = cut.seam_length;
    for (int side = 0; side < 2; ++side) {
        progress.report(0.3 + 0.35 * side, "trying the pulls of the plane's two sides");
        const Point straight = side == 0 ? n : Point(-n);
        auto& half = side == 0 ? cut.above : cut.below;
        auto piece = judged(half, straight, rays, drag_angle, progress);
        if (piece.map.locks > kFreed * piece.map.area) {
            // Another pull may free more; it must lead away from the plane.
            if (const auto pull = pull_beside(half, rays, straight, drag_angle, progress)) {
                auto other = judged(half, *pull, rays, drag_angle, progress);
                if (other.map.locks < piece.map.locks - kFreed * piece.map.area) piece = std::move(other);
            }
        }
        out.pieces.push_back(std::move(piece));
    }
    return out;
}

}  // namespace jig
