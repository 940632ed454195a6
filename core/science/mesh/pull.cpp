#include "core/science/mesh/pull.hpp"

#include <algorithm>
#include <cmath>
#include <Eigen/Dense>
#include <limits>
#include <unordered_map>

#include "core/base/parallel.hpp"
#include "core/base/units.hpp"

namespace jig {
namespace {

/// Area by direction to about half a degree (rays judge exactly later), so that the angle test of one pull
/// costs the number of directions, not of faces.
struct Facing {
    Point normal;
    double area;
    double foot = 0;  ///< m² of it that lie flat at the shape's own end that way: a foot that may stay open
};

std::vector<Facing> facings(const TriangleMesh& mesh) {
    std::unordered_map<std::uint64_t, Point> sums;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        const Point a = mesh.area_vector2(f) / 2;
        const Point n = a.normalized();
        std::uint64_t key = 0;
        for (int i = 0; i < 3; ++i)
            key = key * 4096 + static_cast<std::uint64_t>(std::lround((n[i] + 1) * 120));
        sums.try_emplace(key, Point::Zero()).first->second += a;
    }
    std::vector<Facing> out;
    out.reserve(sums.size());
    for (const auto& [key, sum] : sums) {
        if (sum.norm() > 0) out.push_back({sum.normalized(), sum.norm()});
    }
    return out;
}

/// Fills `foot` of the largest facings: the area of those faces that lie in the plane of the shape's end.
void find_feet(const TriangleMesh& mesh, std::vector<Facing>& facings) {
    constexpr std::size_t kLargest = 32;
    const auto count = std::min(kLargest, facings.size());
    std::partial_sort(facings.begin(), facings.begin() + static_cast<std::ptrdiff_t>(count), facings.end(),
                      [](const Facing& a, const Facing& b) { return a.area > b.area; });
    const double near = kFootReach * bounds_of(mesh).diagonal();
    parallel_shares(count, 1, [&](std::size_t begin, std::size_t end, unsigned) {
        for (auto i = begin; i < end; ++i) {
            auto& facing = facings[i];
            double far = -std::numeric_limits<double>::infinity();
            for (const auto& t : mesh.triangles) {
                for (const auto k : t) far = std::max(far, facing.normal.dot(mesh.points[k]));
            }
            for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
                const Point twice = mesh.area_vector2(f);
                if (twice.dot(facing.normal) > kFlatFoot * twice.norm() &&
                    far - facing.normal.dot(mesh.centre(f)) < near)
                    facing.foot += twice.norm() / 2;
            }
        }
    });
}

/// Directions that the shape itself suggests: across its largest facings, along the edges between them, the
/// axis about which three of them lean alike (a drafted tower), the way its rims look, and the main axes of
/// its facings (a drafted body of revolution).
std::vector<Point> suggested(const TriangleMesh& mesh, const std::vector<Facing>& facings) {
    std::vector<Point> out;
    const auto both = [&](const Point& p) {
        if (!(p.norm() > 1e-4)) return;
        const Point d = p.normalized();
        for (const auto& known : out) {
            if (std::abs(known.dot(d)) > std::cos(radians(0.05))) return;
        }
        out.push_back(d);
    };
    std::vector<Point> walls;
    for (const auto& f : facings) {
        if (walls.size() >= 10) break;
        const bool known =
            std::any_of(walls.begin(), walls.end(), [&](const Point& w) { return w.dot(f.normal) > 0.9998; });
        if (!known) walls.push_back(f.normal);
    }
    for (const auto& w : walls) both(w);
    Point sum = Point::Zero();
    Eigen::Matrix3d spread = Eigen::Matrix3d::Zero();
    for (const auto& f : facings) {
        sum += f.area * f.normal;
        spread += f.area * f.normal * f.normal.transpose();
    }
    double area = 0;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) area += mesh.area_vector2(f).norm() / 2;
    if (sum.norm() > 1e-3 * area) both(sum);
    const Eigen::Matrix3d axes = Eigen::SelfAdjointEigenSolver<Eigen::Matrix3d>(spread).eigenvectors();
    for (int i = 0; i < 3; ++i) both(axes.col(i));
    for (std::size_t i = 0; i < walls.size(); ++i) {
        for (std::size_t k = i + 1; k < walls.size(); ++k) {
            both(walls[i].cross(walls[k]));
            for (std::size_t j = k + 1; j < walls.size(); ++j)
                both((walls[i] - walls[k]).cross(walls[i] - walls[j]));
        }
    }
    return out;
}

/// Share of the area that a tilted pull must gain over an axis to be worth the trouble of setting it up.
constexpr double kAxisBonus = 0.02;

double cost(double locks, double drags, double depth, double area) {
    // Any real lock outweighs drag: one piece that frees beats a shorter draw that does not.
    const double stuck = locks > 1e-4 * area ? 0.05 * area : 0;
    return locks + stuck + 0.1 * drags + 1e-4 * area * depth / std::sqrt(area);
}

}  // namespace

std::vector<PullCandidate> best_pulls(const TriangleMesh& mesh, const RayMesh& rays, const DraftRules& rules,
                                      std::size_t top, Progress& progress) {
    auto faces = facings(mesh);
    find_feet(mesh, faces);
    const double drag = std::sin(rules.drag_angle), noise = -std::sin(radians(0.01));
    double area = 0;
    for (const auto& f : faces) area += f.area;
    const auto by_angle = [&](const Point& p) {
        double locks = 0, drags = 0;
        for (const auto& f : faces) {
            const double slope = f.normal.dot(p);
            if (slope < noise)
                locks += f.area - (rules.foot_open && slope < -kFlatFoot ? f.foot : 0);
            else if (slope < drag)
                drags += f.area;
        }
        return cost(locks, drags, 0, area);
    };
    struct Try {
        double cost;
        bool axis;
        Point p;
    };
    std::vector<Try> tries;
    for (int i = 0; i < 3; ++i) {
        for (const double s : {1.0, -1.0}) {
            const Point p = s * Point::Unit(i);
            tries.push_back({0, true, p});
        }
    }
    for (const auto& p : suggested(mesh, faces)) {
        tries.push_back({0, false, p});
        tries.push_back({0, false, -p});
    }
    constexpr int kSpread = 400;
    for (int i = 0; i < kSpread; ++i) {
        const double z = 1 - (2 * i + 1.0) / kSpread, turn = i * kPi * (3 - std::sqrt(5.0));
        const double r = std::sqrt(1 - z * z);
        const Point p(r * std::cos(turn), r * std::sin(turn), z);
        tries.push_back({0, false, p});
    }
    parallel_shares(tries.size(), 16, [&](std::size_t begin, std::size_t end, unsigned) {
        for (auto i = begin; i < end; ++i) tries[i].cost = by_angle(tries[i].p);
    });
    // Refine the best by angle: small turns that lower the cost, halving the step.
    std::stable_sort(tries.begin(), tries.end(), [](const Try& a, const Try& b) { return a.cost < b.cost; });
    const auto leaders = std::min<std::size_t>(tries.size(), 24);
    progress.report(0.3, "searching for the pull");
    parallel_shares(leaders, 1, [&](std::size_t begin, std::size_t end, unsigned) {
        for (auto i = begin; i < end; ++i) {
            progress.check();
            auto& t = tries[i];
            if (t.axis) continue;
            for (double step = radians(6); step > radians(0.05); step /= 2) {
                const auto frame = frame_across(t.p);
                for (int k = 0; k < 8; ++k) {
                    const double a = k * kPi / 4;
                    const Point p =
                        (t.p + step * (std::cos(a) * frame.u + std::sin(a) * frame.v)).normalized();
                    const double c = by_angle(p);
                    if (c < t.cost - 1e-9 * area) {
                        t.cost = c;
                        t.p = p;
                    }
                }
            }
        }
    });
    std::vector<std::pair<double, PullCandidate>> judged;
    std::vector<Try> chosen(tries.begin(), tries.begin() + static_cast<std::ptrdiff_t>(leaders));
    for (std::size_t i = leaders; i < tries.size(); ++i) {
        if (tries[i].axis) chosen.push_back(tries[i]);
    }
    std::stable_sort(chosen.begin(), chosen.end(), [&](const Try& a, const Try& b) {
        return a.cost - (a.axis ? kAxisBonus * area : 0) < b.cost - (b.axis ? kAxisBonus * area : 0);
    });
    auto quick = rules;
    quick.samples = std::min(rules.samples, 8000.0);
    Progress silent;
    std::vector<Point> seen;
    for (const auto& t : chosen) {
        const bool near = std::any_of(seen.begin(), seen.end(),
                                      [&](const Point& p) { return p.dot(t.p) > std::cos(radians(15)); });
        if (near || (seen.size() >= std::max<std::size_t>(12, top))) continue;
        // Rays can only add locks to what the angles say: what is already worse than the last wanted is done
        // with.
        if (judged.size() >= top) {
            std::vector<double> costs;
            for (const auto& [score, candidate] : judged) costs.push_back(score);
            std::nth_element(costs.begin(), costs.begin() + static_cast<std::ptrdiff_t>(top) - 1,
                             costs.end());
            if (t.cost - (t.axis ? kAxisBonus * area : 0) > costs[top - 1]) continue;
        }
        progress.report(0.5 + 0.5 * static_cast<double>(seen.size()) / 12, "trying the pull");
        seen.push_back(t.p);
        const auto map = draft(mesh, rays, t.p, quick, silent);
        judged.emplace_back(cost(map.locks, map.drags, map.depth, area) - (t.axis ? kAxisBonus * area : 0),
                            PullCandidate{t.p, map.locks, map.drags, map.open, map.depth});
    }
    std::stable_sort(judged.begin(), judged.end(),
                     [](const auto& a, const auto& b) { return a.first < b.first; });
    std::vector<PullCandidate> out;
    for (const auto& [score, candidate] : judged) {
        if (out.size() < top) out.push_back(candidate);
    }
    return out;
}

}  // namespace jig
