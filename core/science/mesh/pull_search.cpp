#include "core/science/mesh/pull_search.hpp"

#include <algorithm>
#include <cmath>
#include <Eigen/Dense>
#include <limits>

#include "core/base/parallel.hpp"
#include "core/base/units.hpp"
#include "core/science/mesh/draft.hpp"

namespace jig {
namespace {

constexpr std::size_t kPicked = 6000;  // faces that the search for pulls looks at
constexpr double kWorthAPiece = 0.06;  // of the area's price that one more piece must save where none locks
constexpr double kDepthPrice = 0.3;    // of the area's price for the deepest draw
constexpr double kDepthEasy = 0.35;    // of that where every wall leans by kEasyDraft or more
const double kEasyDraft = radians(20);
constexpr double kOppositeWorth = 0.05;  // of the area's price: two opposite pulls turn over on one bench
constexpr double kWidestWorth = 0.3;     // of what is seen along the pull: makers part at the widest line
constexpr double kFlatWorth = 0.1;   // of the area's price: they meet in one plane across them, a flat board
constexpr double kSeamPrice = 0.1;   // of the area's price for a seam as long as the root of the area
constexpr double kDragPrice = 0.15;  // of a locked face's price

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
    std::vector<double> steep;  ///< by direction, share of what it reaches that stands steep along it
    std::vector<double> seen;   ///< by direction, what is seen along it as a share of the area
    std::vector<char> flat;  ///< by direction, whether all that looks along it lies above all that looks back
    std::vector<double> seam;  ///< by direction, its outline seen along it as a share of the area's root
};

/// Length round what is seen of a body along each direction, taken as convex (Cauchy: the mean width times
/// π): no seam between two opposite pulls is shorter.
std::vector<double> outlines(const TriangleMesh& mesh, const std::vector<Point>& directions,
                             Progress& progress) {
    constexpr std::size_t kPoints = 4000;
    constexpr int kWidths = 16;
    std::vector<Point> points;
    const auto every = std::max<std::size_t>(1, 3 * mesh.triangles.size() / kPoints);
    for (std::size_t i = 0; i < 3 * mesh.triangles.size(); i += every)
        points.push_back(mesh.corner(i / 3, static_cast<int>(i % 3)));
    std::vector<double> out(directions.size(), 0);
    parallel_shares(directions.size(), 1, [&](std::size_t begin, std::size_t end, unsigned) {
        for (auto d = begin; d < end; ++d) {
            progress.check();
            const auto frame = frame_across(directions[d]);
            for (int k = 0; k < kWidths; ++k) {
                const double turn = kPi * k / kWidths;
                const Point across = std::cos(turn) * frame.u + std::sin(turn) * frame.v;
                double low = std::numeric_limits<double>::infinity(), high = -low;
                for (const auto& p : points) {
                    low = std::min(low, across.dot(p));
                    high = std::max(high, across.dot(p));
                }
                out[d] += (high - low) * kPi / kWidths;
            }
        }
    });
    return out;
}

Reach reach_of(const std::vector<Sample>& samples, const TriangleMesh& mesh, const RayMesh& rays,
               double drag_angle, Progress& progress) {
    Reach out;
    out.directions = directions(samples);
    out.price.resize(out.directions.size());
    for (const auto& p : out.directions) {
        constexpr double kNone = std::numeric_limits<double>::infinity();
        double low = kNone, high = -kNone, lowest_up = kNone, highest_down = -kNone;
        double seen = 0, whole = 0;
        for (const auto& s : samples) {
            const double at = p.dot(s.at), slope = s.normal.dot(p);
            low = std::min(low, at);
            high = std::max(high, at);
            seen += s.area * std::abs(slope) / 2;
            whole += s.area;
            if (slope > std::sin(kDraftNoise)) lowest_up = std::min(lowest_up, at);
            if (slope < -std::sin(kDraftNoise)) highest_down = std::max(highest_down, at);
        }
        out.depth.push_back(high - low);
        out.seen.push_back(whole > 0 ? seen / whole : 0);
        out.flat.push_back(lowest_up > highest_down - 0.02 * (high - low));
    }
    const double longest = std::max(1e-12, *std::max_element(out.depth.begin(), out.depth.end()));
    for (auto& d : out.depth) d /= longest;
    double area = 0;
    for (const auto& s : samples) area += s.area;
    out.seam = outlines(mesh, out.directions, progress);
    for (auto& length : out.seam) length /= std::sqrt(std::max(1e-30, area));
    const double off = 1e-5 * bounds_of(mesh).diagonal(), drag = std::sin(drag_angle);
    const double easy = std::sin(kEasyDraft);
    out.steep.assign(out.directions.size(), 0);
    parallel_shares(out.directions.size(), 1, [&](std::size_t begin, std::size_t end, unsigned) {
        for (auto d = begin; d < end; ++d) {
            progress.check();
            const Point& p = out.directions[d];
            auto& price = out.price[d];
            price.assign(samples.size(), 1.0F);
            double reached = 0, steep = 0;
            for (std::size_t i = 0; i < samples.size(); ++i) {
                const double slope = samples[i].normal.dot(p);
                if (slope < -std::sin(kDraftNoise) ||
                    rays.blocked(samples[i].at + off * (samples[i].normal + p), p))
                    continue;
                price[i] = slope < drag ? static_cast<float>(kDragPrice * (1 - slope / (2 * drag))) : 0.0F;
                reached += samples[i].area;
                steep += samples[i].area * std::clamp(1 - slope / easy, 0.0, 1.0);
            }
            out.steep[d] = reached > 0 ? steep / reached : 1;
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
/// piece's share of the longest extent counts, the less the more its walls lean; so does a long seam, and
/// the widest section speaks for itself; two opposite pulls turn over on one bench, and may meet in a flat
/// board.
double awkward(const std::vector<std::size_t>& set, const Reach& reach, double area) {
    double depth = 0;
    for (const auto d : set) {
        const double hard = kDepthEasy + (1 - kDepthEasy) * reach.steep[d];
        depth += hard * reach.depth[d] / static_cast<double>(set.size());
    }
    double seam = 0, seen = 0;
    for (const auto d : set) {
        seam += reach.seam[d] / static_cast<double>(set.size());
        seen += reach.seen[d] / static_cast<double>(set.size());
    }
    double price = (kDepthPrice * depth + kSeamPrice * seam - kWidestWorth * seen) * area;
    for (std::size_t i = 0; i < set.size(); ++i) {
        for (std::size_t k = i + 1; k < set.size(); ++k) {
            if (reach.directions[set[i]].dot(reach.directions[set[k]]) > -0.9999) continue;
            // Beside a third piece the two meet in no plane alone.
            const bool flat = set.size() == 2 && reach.flat[set[i]];
            return price - (kOppositeWorth + (flat ? kFlatWorth : 0)) * area;
        }
    }
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
    // And those across which a plane parts the body, widest first: many directions treat a body alike, and
    // the flat board must not be left out by chance.
    std::vector<std::pair<double, std::size_t>> flat;
    constexpr std::size_t kRanked = 40, kFlat = 24;
    for (std::size_t i = kRanked; i < ranked.size(); ++i) {
        if (reach.flat[ranked[i].second]) flat.emplace_back(-reach.seen[ranked[i].second], i);
    }
    std::stable_sort(flat.begin(), flat.end());
    auto leaders = std::min<std::size_t>(n, kRanked);
    std::vector<std::pair<double, std::size_t>> moved(ranked.begin(),
                                                      ranked.begin() + static_cast<std::ptrdiff_t>(leaders));
    for (std::size_t i = 0; i < std::min(flat.size(), kFlat); ++i) moved.push_back(ranked[flat[i].second]);
    ranked = std::move(moved);
    leaders = ranked.size();
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
        const bool stuck = unfreed(best, reach, samples) > kFreed * area;
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

}  // namespace

std::vector<Point> pulls_together(const TriangleMesh& mesh, const RayMesh& rays, int count, double drag_angle,
                                  Progress& progress) {
    const auto samples = picked(mesh);
    const auto reach = reach_of(samples, mesh, rays, drag_angle, progress);
    std::vector<Point> out;
    for (const auto d : best_set(reach, samples, count, progress)) out.push_back(reach.directions[d]);
    return out;
}

std::optional<Point> pull_beside(const TriangleMesh& piece, const RayMesh& rays, const Point& straight,
                                 double drag_angle, Progress& progress) {
    const auto samples = picked(piece);
    const auto reach = reach_of(samples, piece, rays, drag_angle, progress);
    std::optional<Point> best;
    double least = std::numeric_limits<double>::infinity();
    for (std::size_t d = 0; d < reach.directions.size(); ++d) {
        if (reach.directions[d].dot(straight) < 0.02) continue;
        const double cost = cost_of({d}, reach, samples);
        if (cost < least) {
            least = cost;
            best = reach.directions[d];
        }
    }
    return best;
}

}  // namespace jig
