#include "core/science/vacuum/darts.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <numbers>
#include <optional>

namespace jig {
namespace {

/// What a full turn lacks in the angles round each point; 0 on a rim.
std::vector<double> defects(const TriangleMesh& mesh, const Topology& topology) {
    std::vector<double> out(mesh.points.size(), 0);
    std::vector<char> inside(mesh.points.size(), 1), used(mesh.points.size(), 0);
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        const auto& t = mesh.triangles[f];
        for (std::size_t k = 0; k < 3; ++k) {
            const Point &p = mesh.points[t[k]], a = mesh.points[t[(k + 1) % 3]] - p,
                        b = mesh.points[t[(k + 2) % 3]] - p;
            out[t[k]] += std::atan2(a.cross(b).norm(), a.dot(b));
            used[t[k]] = 1;
            if (topology.across[f][k] == kNoFace) inside[t[k]] = inside[t[(k + 1) % 3]] = 0;
        }
    }
    for (std::size_t i = 0; i < out.size(); ++i)
        out[i] = inside[i] != 0 && used[i] != 0 ? 2 * std::numbers::pi - out[i] : 0;
    return out;
}

struct Cell {
    double angle = 0, weight = 0;
    Point sum = Point::Zero();
};

}  // namespace

double taken_by_stretch(double stretch) {
    return 6 * std::numbers::pi * stretch;
}

std::vector<Dart> curved_places(const TriangleMesh& mesh, const Topology& topology, const Frame& frame) {
    Point2 low = Point2::Constant(std::numeric_limits<double>::infinity()), high = -low;
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) {
            low = low.cwiseMin(frame.flat(mesh.points[i]));
            high = high.cwiseMax(frame.flat(mesh.points[i]));
        }
    }
    const double size = (high - low).norm() / 12;
    if (mesh.triangles.empty() || !(size > 0)) return {};
    const auto angles = defects(mesh, topology);
    std::map<std::pair<int, int>, Cell> cells;
    for (std::size_t i = 0; i < angles.size(); ++i) {
        if (std::abs(angles[i]) < 1e-12) continue;
        const Point2 p = (frame.flat(mesh.points[i]) - low) / size;
        auto& cell = cells[{static_cast<int>(std::floor(p.x())), static_cast<int>(std::floor(p.y()))}];
        cell.angle += angles[i];
        cell.weight += std::abs(angles[i]);
        cell.sum += std::abs(angles[i]) * mesh.points[i];
    }
    std::vector<Dart> found;
    constexpr double kLeast = std::numbers::pi / 180;
    while (true) {
        const auto worst = std::max_element(cells.begin(), cells.end(), [](const auto& a, const auto& b) {
            return std::abs(a.second.angle) < std::abs(b.second.angle);
        });
        if (worst == cells.end() || worst->second.angle == 0) break;
        const auto [x, y] = worst->first;
        const bool closes = worst->second.angle > 0;
        Cell all;
        for (int i = x - 1; i <= x + 1; ++i) {
            for (int j = y - 1; j <= y + 1; ++j) {
                const auto beside = cells.find({i, j});
                if (beside == cells.end() || (beside->second.angle > 0) != closes) continue;
                all.angle += beside->second.angle;
                all.weight += beside->second.weight;
                all.sum += beside->second.sum;
                cells.erase(beside);
            }
        }
        found.push_back({all.sum / all.weight, all.angle});
    }
    std::vector<Dart> out;
    for (const auto& place : found) {
        if (std::abs(place.angle) >= kLeast) out.push_back(place);
    }
    // What is small by itself counts with the nearest place of its kind.
    const auto places = out;
    for (const auto& little : found) {
        if (std::abs(little.angle) >= kLeast) continue;
        std::optional<std::size_t> nearest;
        for (std::size_t i = 0; i < places.size(); ++i) {
            if ((places[i].angle > 0) != (little.angle > 0)) continue;
            if (!nearest ||
                (places[i].at - little.at).squaredNorm() < (places[*nearest].at - little.at).squaredNorm())
                nearest = i;
        }
        if (nearest) out[*nearest].angle += little.angle;
    }
    // The mean of a curved place lies beside the face.
    for (auto& dart : out) {
        const Point mean = dart.at;
        double nearest = std::numeric_limits<double>::infinity();
        for (std::size_t i = 0; i < angles.size(); ++i) {
            if (angles[i] == 0 || (mesh.points[i] - mean).squaredNorm() >= nearest) continue;
            nearest = (mesh.points[i] - mean).squaredNorm();
            dart.at = mesh.points[i];
        }
    }
    std::stable_sort(out.begin(), out.end(),
                     [](const Dart& a, const Dart& b) { return std::abs(a.angle) > std::abs(b.angle); });
    return out;
}

std::vector<Dart> darts_of(const std::vector<Dart>& curved, double takes) {
    std::vector<Dart> out;
    for (const bool closes : {true, false}) {
        double left = 0, last = 0;
        for (const auto& c : curved) {
            if ((c.angle > 0) == closes) left += std::abs(c.angle);
        }
        constexpr double kAlike = 0.9;
        for (const auto& c : curved) {
            if ((c.angle > 0) != closes) continue;
            if (left <= takes * (1 + 1e-9) && !(std::abs(c.angle) >= kAlike * last && last > 0)) break;
            out.push_back(c);
            left -= std::abs(c.angle);
            last = std::abs(c.angle);
        }
    }
    return out;
}

}  // namespace jig
