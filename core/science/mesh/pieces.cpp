#include "core/science/mesh/pieces.hpp"

#include <algorithm>
#include <cmath>
#include <Eigen/Dense>
#include <limits>
#include <map>
#include <numeric>

#include "core/base/parallel.hpp"
#include "core/base/units.hpp"
#include "core/science/mesh/refine.hpp"
#include "core/science/mesh/seam_cut.hpp"
#include "core/science/mesh/slice.hpp"

namespace jig {
namespace {

const double kNoise = radians(0.01);
constexpr std::size_t kPicked = 6000;    // faces that the search for pulls looks at
constexpr double kFree = 0.002;          // of the area may stay locked and still count as freed
constexpr double kWorthAPiece = 0.06;    // of the area's price that one more piece must save where none locks
constexpr double kDepthPrice = 0.3;      // of the area's price for the deepest draw
constexpr double kOppositeWorth = 0.05;  // of the area's price: two opposite pulls meet in one plane
constexpr double kShowPrice = 8;         // times dearer is a seam on show surface
constexpr double kDragPrice = 0.15;      // of a locked face's price

struct Sample {
    Point at, normal;
    double area;
};

/// Places picked evenly by area, each standing for the area between it and the last one.
std::vector<Sample> picked(const TriangleMesh& mesh) {
    double total = 0;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) total += mesh.area_vector2(f).norm() / 2;
    const double step = total / static_cast<double>(kPicked);
    std::vector<Sample> out;
    double run = 0, taken = 0;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        const Point twice = mesh.area_vector2(f);
        run += twice.norm() / 2;
        if (run - taken < 0.5 * step || twice.norm() == 0) continue;
        out.push_back({mesh.centre(f), twice.normalized(), run - taken});
        taken = run;
    }
    return out;
}

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

/// Directions worth trying. Those that follow from the shape turn with it; the even spread is carried by the
/// shape's main axes, so it turns with it too.
std::vector<Point> directions(const std::vector<Sample>& samples) {
    std::vector<Point> out;
    const auto add = [&](const Point& p) {
        if (!(p.norm() > 1e-6)) return;
        const Point d = p.normalized();
        for (const auto& known : out) {
            if (known.dot(d) > std::cos(radians(0.3))) return;
        }
        out.push_back(d);
    };
    const auto both = [&](const Point& p) {
        add(p);
        add(-p);
    };
    for (int i = 2; i >= 0; --i) both(Point::Unit(i));
    // The largest facings: normals that agree within a degree.
    std::vector<std::pair<Point, double>> facings;
    for (const auto& s : samples) {
        auto same = std::find_if(facings.begin(), facings.end(), [&](const auto& f) {
            return f.first.normalized().dot(s.normal) > std::cos(radians(1));
        });
        if (same == facings.end()) {
            if (facings.size() > 400) continue;
            facings.emplace_back(Point::Zero(), 0.0);
            same = facings.end() - 1;
        }
        same->first += s.area * s.normal;
        same->second += s.area;
    }
    std::stable_sort(facings.begin(), facings.end(),
                     [](const auto& a, const auto& b) { return a.second > b.second; });
    if (facings.size() > 8) facings.resize(8);
    for (const auto& f : facings) both(f.first);
    for (std::size_t i = 0; i < facings.size(); ++i) {
        for (std::size_t k = i + 1; k < facings.size(); ++k)
            both(facings[i].first.normalized().cross(facings[k].first.normalized()));
    }
    Eigen::Matrix3d spread = Eigen::Matrix3d::Zero();
    Point middle = Point::Zero();
    double area = 0;
    for (const auto& s : samples) {
        middle += s.area * s.at;
        area += s.area;
    }
    middle /= area;
    for (const auto& s : samples) spread += s.area * (s.at - middle) * (s.at - middle).transpose();
    const Eigen::Matrix3d axes = Eigen::SelfAdjointEigenSolver<Eigen::Matrix3d>(spread).eigenvectors();
    for (int i = 0; i < 3; ++i) both(axes.col(i));
    constexpr int kSpread = 120;
    for (int i = 0; i < kSpread; ++i) {
        const double z = 1 - (2 * i + 1.0) / kSpread, turn = i * kPi * (3 - std::sqrt(5.0)),
                     r = std::sqrt(1 - z * z);
        add(axes * Point(r * std::cos(turn), r * std::sin(turn), z));
    }
    return out;
}

/// What each direction would leave unfreed and dragging, by picked face.
struct Reach {
    std::vector<Point> directions;
    std::vector<std::vector<float>>
        price;                  ///< by direction and sample: 0 slides, up to kDragPrice drags, 1 locks
    std::vector<double> depth;  ///< by direction, extent along it as a share of the longest
};

Reach reach_of(const std::vector<Sample>& samples, const TriangleMesh& mesh, const RayMesh& rays,
               double drag_angle, Progress& progress) {
    Reach out;
    out.directions = directions(samples);
    out.price.resize(out.directions.size());
    for (const auto& p : out.directions) {
        double low = std::numeric_limits<double>::infinity(), high = -low;
        for (const auto& s : samples) {
            low = std::min(low, p.dot(s.at));
            high = std::max(high, p.dot(s.at));
        }
        out.depth.push_back(high - low);
    }
    const double longest = std::max(1e-12, *std::max_element(out.depth.begin(), out.depth.end()));
    for (auto& d : out.depth) d /= longest;
    const double off = 1e-5 * bounds_of(mesh).diagonal(), drag = std::sin(drag_angle);
    parallel_shares(out.directions.size(), 1, [&](std::size_t begin, std::size_t end, unsigned) {
        for (auto d = begin; d < end; ++d) {
            progress.check();
            const Point& p = out.directions[d];
            auto& price = out.price[d];
            price.assign(samples.size(), 1.0F);
            for (std::size_t i = 0; i < samples.size(); ++i) {
                const double slope = samples[i].normal.dot(p);
                if (slope < -std::sin(kNoise) ||
                    rays.blocked(samples[i].at + off * (samples[i].normal + p), p))
                    continue;
                price[i] = slope < drag ? static_cast<float>(kDragPrice * (1 - slope / (2 * drag))) : 0.0F;
            }
        }
    });
    return out;
}

/// Cost of a set of pulls on the picked faces: each goes to whichever treats it best.
double cost_of(const std::vector<std::size_t>& set, const Reach& reach, const std::vector<Sample>& samples) {
    double sum = 0;
    for (std::size_t i = 0; i < samples.size(); ++i) {
        float best = 1;
        for (const auto d : set) best = std::min(best, reach.price[d][i]);
        sum += samples[i].area * static_cast<double>(best);
    }
    return sum;
}

double unfreed(const std::vector<std::size_t>& set, const Reach& reach, const std::vector<Sample>& samples) {
    double sum = 0;
    for (std::size_t i = 0; i < samples.size(); ++i) {
        const bool freed =
            std::any_of(set.begin(), set.end(), [&](std::size_t d) { return reach.price[d][i] < 1; });
        if (!freed) sum += samples[i].area;
    }
    return sum;
}

/// What a set of pulls costs beside its faces: a deep draw is hard to reach and heavy to pull, so each
/// piece's share of the longest extent counts; two opposite pulls meet in one plane and turn over on one
/// bench.
double awkward(const std::vector<std::size_t>& set, const Reach& reach, double area) {
    double depth = 0;
    for (const auto d : set) depth += reach.depth[d] / static_cast<double>(set.size());
    double price = kDepthPrice * depth * area;
    if (set.size() > 1 && reach.directions[set[0]].dot(reach.directions[set[1]]) < -0.9999)
        price -= kOppositeWorth * area;
    return price;
}

std::vector<std::size_t> best_set(const Reach& reach, const std::vector<Sample>& samples, int count,
                                  Progress& progress) {
    double area = 0;
    for (const auto& s : samples) area += s.area;
    const auto n = reach.directions.size();
    std::vector<std::size_t> best;
    double least = std::numeric_limits<double>::infinity();
    const auto take = [&](std::vector<std::size_t> set) {
        const double cost = cost_of(set, reach, samples) + awkward(set, reach, area);
        if (cost < least - 1e-9 * area) {
            least = cost;
            best = std::move(set);
        }
    };
    if (count == 1) {
        for (std::size_t a = 0; a < n; ++a) take({a});
        return best;
    }
    // All pairs among the directions that treat most of the part well or are opposite to each other.
    std::vector<std::pair<double, std::size_t>> ranked;
    for (std::size_t a = 0; a < n; ++a) ranked.emplace_back(cost_of({a}, reach, samples), a);
    std::stable_sort(ranked.begin(), ranked.end());
    const auto leaders = std::min<std::size_t>(n, 40);
    for (std::size_t i = 0; i < leaders; ++i) {
        progress.check();
        for (std::size_t k = 0; k < leaders; ++k) {
            if (i < k) take({ranked[i].second, ranked[k].second});
        }
        for (std::size_t b = 0; b < n; ++b) {
            if (reach.directions[b].dot(reach.directions[ranked[i].second]) < -0.9999)
                take({ranked[i].second, b});
        }
    }
    for (int size = 3; size <= count; ++size) {
        const auto base = best;
        const double so_far = least;
        const bool stuck = unfreed(best, reach, samples) > kFree * area;
        least = std::numeric_limits<double>::infinity();
        for (std::size_t d = 0; d < n; ++d) {
            progress.check();
            auto set = base;
            set.push_back(d);
            take(std::move(set));
        }
        // Swaps of one pull for another, until none helps.
        for (bool better = true; better;) {
            const double before = least;
            const auto from = best;
            for (std::size_t k = 0; k < from.size(); ++k) {
                progress.check();
                for (std::size_t d = 0; d < n; ++d) {
                    auto set = from;
                    set[k] = d;
                    take(std::move(set));
                }
            }
            better = least < before - 1e-6 * area;
        }
        if (!stuck && least > so_far - kWorthAPiece * area) return base;
    }
    return best;
}

/// Labels of all faces: what only one pull frees is settled, the rest is shared out by minimum cut.
std::vector<std::uint8_t> labelled(const TriangleMesh& mesh, const Topology& topology,
                                   const std::vector<std::vector<char>>& free,
                                   const std::vector<Point>& pulls, double drag_angle,
                                   const std::vector<char>& show) {
    const auto faces = mesh.triangles.size();
    std::vector<std::uint8_t> label(faces, 0);
    std::vector<std::uint32_t> number(faces, kNoFace);
    std::vector<std::uint32_t> open;
    for (std::size_t f = 0; f < faces; ++f) {
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
    const auto samples = picked(mesh);
    const auto reach = reach_of(samples, mesh, rays, rules.drag_angle, progress);
    progress.report(0.4, "searching for the pulls");
    const auto set = best_set(reach, samples, rules.count, progress);
    std::vector<Point> pulls;
    std::vector<std::vector<char>> free;
    for (const auto d : set) {
        pulls.push_back(reach.directions[d]);
        free.push_back(free_along(mesh, rays, pulls.back(), progress));
    }
    progress.report(0.7, "laying the seams");
    std::vector<char> show(rules.show.empty() ? 0 : parent.size());
    for (std::size_t f = 0; f < show.size(); ++f) show[f] = rules.show[parent[f]];
    auto label = labelled(mesh, topology, free, pulls, rules.drag_angle, show);
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
        if (piece.map.locks > kFree * piece.map.area) {
            // Another pull may free more; it must lead away from the plane.
            const auto samples = picked(half);
            auto reach = reach_of(samples, mesh, rays, drag_angle, progress);
            std::size_t best = reach.directions.size();
            double least = std::numeric_limits<double>::infinity();
            for (std::size_t d = 0; d < reach.directions.size(); ++d) {
                if (reach.directions[d].dot(straight) < 0.02) continue;
                const double cost = cost_of({d}, reach, samples);
                if (cost < least) {
                    least = cost;
                    best = d;
                }
            }
            if (best < reach.directions.size()) {
                auto other = judged(half, reach.directions[best], rays, drag_angle, progress);
                if (other.map.locks < piece.map.locks - kFree * piece.map.area) piece = std::move(other);
            }
        }
        out.pieces.push_back(std::move(piece));
    }
    return out;
}

double widest_height(const TriangleMesh& mesh, const Topology& topology, const Point& axis,
                     Progress& progress) {
    const auto frame = frame_across(axis);
    double low = std::numeric_limits<double>::infinity(), high = -low;
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) {
            low = std::min(low, frame.w.dot(mesh.points[i]));
            high = std::max(high, frame.w.dot(mesh.points[i]));
        }
    }
    // Largest area inside the outline; of equal ones the middle. A second look closes in on it.
    double best = (low + high) / 2, reach = (high - low) / 2;
    for (int pass = 0; pass < 3; ++pass) {
        std::vector<double> heights;
        constexpr int kLooks = 41;
        for (int i = 0; i < kLooks; ++i) {
            const double h = best + reach * (2.0 * (i + 0.5) / kLooks - 1);
            if (h > low && h < high) heights.push_back(h);
        }
        double largest = 0, sum = 0, count = 0;
        for (const auto& cut : sections(mesh, topology, frame, heights, progress)) {
            double area = 0;
            for (const auto& loop : cut.loops) area += std::max(0.0, signed_area(loop));
            for (const auto& line : cut.open_lines) area += std::abs(signed_area(line));
            if (area > largest * (1 + 1e-6)) {
                largest = area;
                sum = count = 0;
            }
            if (area >= largest * (1 - 1e-6)) {
                sum += cut.height;
                ++count;
            }
        }
        if (count > 0) best = sum / count;
        reach /= 10;
    }
    return best;
}

}  // namespace jig
