#include "core/science/mesh/pieces.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <numeric>
#include <unordered_map>

#include "core/base/parallel.hpp"
#include "core/base/units.hpp"
#include "core/science/mesh/draft.hpp"
#include "core/science/mesh/nearest.hpp"
#include "core/science/mesh/pull_search.hpp"
#include "core/science/mesh/refine.hpp"
#include "core/science/mesh/seam_cut.hpp"

namespace jig {
namespace {

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

/// Where a point of a seam may go so that it stays on the part: nowhere, along the two edges of a fold that
/// the seam crosses, or over the faces round it.
struct Leeway {
    std::vector<std::uint32_t> faces;  ///< all that meet at the point
    std::vector<Point> along;          ///< far ends of the fold's two edges
    bool fixed = false;
};

/// The points between differently labelled faces with their leeway.
std::unordered_map<std::uint32_t, Leeway> leeway_of(const TriangleMesh& mesh, const Topology& topology,
                                                    const std::vector<std::uint8_t>& label) {
    const double crease = radians(8);
    std::unordered_map<std::uint32_t, Leeway> out;
    const auto seam = [&](std::size_t f, std::size_t k) {
        const auto g = topology.across[f][k];
        return g != kNoFace && label[f] != label[g];
    };
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        for (std::size_t k = 0; k < 3; ++k) {
            if (!seam(f, k)) continue;
            out[mesh.triangles[f][k]];
            out[mesh.triangles[f][(k + 1) % 3]];
        }
    }
    struct Folds {
        std::map<std::uint32_t, bool> ends;  // far end of each fold, and whether the seam runs along it
        bool rim = false;
    };
    std::unordered_map<std::uint32_t, Folds> folds;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        for (std::size_t k = 0; k < 3; ++k) {
            const auto a = mesh.triangles[f][k], b = mesh.triangles[f][(k + 1) % 3];
            if (const auto at = out.find(a); at != out.end())
                at->second.faces.push_back(static_cast<std::uint32_t>(f));
            for (const auto& [here, there] : {std::pair(a, b), std::pair(b, a)}) {
                if (!out.contains(here)) continue;
                if (topology.across[f][k] == kNoFace) folds[here].rim = true;
                if (std::abs(fold_at(mesh, topology, f, static_cast<int>(k))) > crease)
                    folds[here].ends[there] |= seam(f, k);
            }
        }
    }
    for (auto& [point, leeway] : out) {
        const auto at = folds.find(point);
        if (at == folds.end()) continue;
        const auto& [ends, rim] = at->second;
        // Corners stay, and so does a seam that runs along a fold.
        leeway.fixed = rim || (!ends.empty() && ends.size() != 2) ||
                       std::any_of(ends.begin(), ends.end(), [](const auto& e) { return e.second; });
        for (const auto& [end, along] : ends) leeway.along.push_back(mesh.points[end]);
    }
    return out;
}

Point kept_on(const TriangleMesh& mesh, const Leeway& leeway, const Point& own, const Point& wanted) {
    Point best = own;
    double least = std::numeric_limits<double>::infinity();
    const auto take = [&](const Point& p) {
        if ((p - wanted).squaredNorm() >= least) return;
        least = (p - wanted).squaredNorm();
        best = p;
    };
    if (!leeway.along.empty()) {
        // Not to the fold's next point: the faces beside it would lose their area.
        for (const auto& end : leeway.along) take(nearest_on_edge(wanted, own, own + 0.9 * (end - own)));
        return best;
    }
    for (const auto f : leeway.faces)
        take(nearest_on_triangle(wanted, mesh.corner(f, 0), mesh.corner(f, 1), mesh.corner(f, 2)));
    return best;
}

/// Takes the mesh's steps out of the seams by moving their points over the faces round each: where the
/// surface is gentle a seam becomes smooth, where it folds the seam crosses the fold on the fold. No face
/// turns over.
std::unordered_map<std::uint32_t, Point> smoothed(const TriangleMesh& mesh,
                                                  const std::vector<std::vector<std::uint32_t>>& lines,
                                                  const std::unordered_map<std::uint32_t, Leeway>& leeway) {
    std::unordered_map<std::uint32_t, Point> at;
    for (const auto& [point, own] : leeway) at[point] = mesh.points[point];
    // A point through which several lines pass would be pulled from several sides.
    std::unordered_map<std::uint32_t, int> passes;
    for (const auto& line : lines) {
        const bool closed = line.front() == line.back();
        for (std::size_t i = closed ? 1 : 0; i < line.size(); ++i) passes[line[i]] += 1;
        if (!closed) passes[line.front()] = passes[line.back()] = 2;
    }
    // A step in and a slightly larger one out again keeps circles from shrinking (Taubin 1995).
    for (int pass = 0; pass < 24; ++pass) {
        const double step = pass % 2 == 0 ? 0.5 : -0.505;
        const auto old = at;
        for (const auto& line : lines) {
            const bool closed = line.size() > 3 && line.front() == line.back();
            for (std::size_t i = closed ? 0 : 1; i + 1 < line.size(); ++i) {
                const auto point = line[i];
                const auto& own = leeway.at(point);
                if (own.fixed || passes[point] > 1) continue;
                const Point &before = old.at(i == 0 ? line[line.size() - 2] : line[i - 1]),
                            &here = old.at(point), &after = old.at(line[i + 1]);
                at[point] =
                    kept_on(mesh, own, mesh.points[point], here + step * ((before + after) / 2 - here));
            }
        }
    }
    // A face that would turn over or vanish keeps its corners; its neighbours are asked again.
    for (bool sound = false; !sound;) {
        sound = true;
        for (const auto& [point, own] : leeway) {
            if (at[point] == mesh.points[point]) continue;
            for (const auto f : own.faces) {
                std::array<Point, 3> p;
                for (std::size_t k = 0; k < 3; ++k) {
                    const auto moved = at.find(mesh.triangles[f][k]);
                    p[k] = moved == at.end() ? mesh.points[mesh.triangles[f][k]] : moved->second;
                }
                const Point now = (p[1] - p[0]).cross(p[2] - p[0]), was = mesh.area_vector2(f);
                if (now.dot(was) > 0.02 * was.squaredNorm() && now.dot(was) > 0.97 * now.norm() * was.norm())
                    continue;
                at[point] = mesh.points[point];
                sound = false;
                break;
            }
        }
    }
    return at;
}

void find_seams(const TriangleMesh& mesh, const Topology& topology, const std::vector<std::uint8_t>& label,
                PieceSet& set) {
    std::vector<std::pair<Point, Point>> segments;
    std::map<std::array<double, 3>, std::uint32_t> number;
    const auto name = [](const Point& p) { return std::array{p.x(), p.y(), p.z()}; };
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        for (std::size_t k = 0; k < 3; ++k) {
            const auto g = topology.across[f][k];
            if (g == kNoFace || g < f || label[f] == label[g]) continue;
            const auto a = mesh.triangles[f][k], b = mesh.triangles[f][(k + 1) % 3];
            segments.emplace_back(mesh.points[a], mesh.points[b]);
            number[name(mesh.points[a])] = a;
            number[name(mesh.points[b])] = b;
        }
    }
    set.seams = chained(segments, 1e-9 * std::max(1e-6, bounds_of(mesh).diagonal()));
    std::vector<std::vector<std::uint32_t>> lines;
    for (const auto& line : set.seams) {
        auto& numbers = lines.emplace_back();
        for (const auto& p : line) numbers.push_back(number.at(name(p)));
    }
    const auto moved = smoothed(mesh, lines, leeway_of(mesh, topology, label));
    for (std::size_t l = 0; l < lines.size(); ++l) {
        for (std::size_t i = 0; i < lines[l].size(); ++i) set.seams[l][i] = moved.at(lines[l][i]);
        set.seam_length += length_of(set.seams[l]);
    }
    // The pieces' edges follow, both sides alike, so that they still meet.
    for (auto& piece : set.pieces) {
        for (auto& p : piece.mesh.points) {
            if (const auto at = number.find(name(p)); at != number.end()) p = moved.at(at->second);
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

/// Where two opposite pulls part a body and a plane across them does as well, the plane is what a maker
/// wants: a flat board. Taken where it locks no more and is no longer than the seam; the seam's own mean
/// height, since along straight walls any height will do.
void flattened(const TriangleMesh& part, const RayMesh& rays, double drag_angle, PieceSet& set,
               Progress& progress) {
    if (set.pieces.size() != 2 || set.seams.empty()) return;
    const Point along = set.pieces[0].direction;
    if (along.dot(set.pieces[1].direction) > -0.9999) return;
    double moment = 0;
    for (const auto& line : set.seams) {
        for (std::size_t i = 1; i < line.size(); ++i)
            moment += along.dot(line[i] + line[i - 1]) / 2 * (line[i] - line[i - 1]).norm();
    }
    if (!(set.seam_length > 0)) return;
    const double height = moment / set.seam_length;
    auto cut = parted(part, along * height, along, kFileSnap);
    if (cut.above.empty() || cut.below.empty() || cut.seam_length > 1.002 * set.seam_length) return;
    PieceSet flat;
    flat.pieces.push_back(judged(std::move(cut.above), along, rays, drag_angle, progress));
    flat.pieces.push_back(judged(std::move(cut.below), -along, rays, drag_angle, progress));
    if (flat.locks() > set.locks() + 1e-4 * set.pieces[0].map.area) return;
    flat.seams = std::move(cut.seams);
    flat.seam_length = cut.seam_length;
    set = std::move(flat);
}

}  // namespace

std::vector<char> free_along(const TriangleMesh& mesh, const RayMesh& rays, const Point& direction,
                             Progress& progress) {
    const double off = 1e-5 * bounds_of(mesh).diagonal(), noise = -std::sin(kDraftNoise);
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
    if (rules.show.empty() && rules.painted.empty()) flattened(part, rays, rules.drag_angle, out, progress);
    progress.report(1, "pieces found");
    return out;
}

PieceSet pieces_by_plane(const TriangleMesh& mesh, const RayMesh& rays, const Point& at, const Point& normal,
                         double drag_angle, Progress& progress) {
    if (!(normal.norm() > 1e-9))
        throw InputError("split", "the plane's normal has no length", "give a direction such as 0, 0, 1");
    const Point n = normal.normalized();
    auto cut = parted(mesh, at, n, kFileSnap);
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
