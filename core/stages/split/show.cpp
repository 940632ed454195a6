#include "core/stages/split/show.hpp"

#include <algorithm>
#include <cmath>
#include <map>

namespace jig::split {

std::vector<Painted> painted(const Choices& c) {
    std::vector<Painted> out;
    for (const auto& s : c.painted)
        out.push_back({{{s.at[0], s.at[1], s.at[2]}, {s.facing[0], s.facing[1], s.facing[2]}, s.reach},
                       s.paint,
                       {s.toward[0], s.toward[1], s.toward[2]}});
    return out;
}

std::vector<char> show_faces(const TriangleMesh& mesh, const Point& pull, const Choices& c) {
    std::vector<char> show;
    if (c.show_above > 0) {
        for (std::size_t f = 0; f < mesh.triangles.size(); ++f)
            show.push_back(
                static_cast<char>(mesh.area_vector2(f).normalized().dot(pull) > std::sin(c.show_above)));
    }
    std::vector<int> owner;
    lay_paint(mesh, painted(c), show, owner);
    if (std::find(show.begin(), show.end(), 1) == show.end()) show.clear();
    return show;
}

double length_on_show(const TriangleMesh& mesh, const std::vector<char>& show,
                      const std::vector<Line>& seams) {
    if (show.empty()) return 0;
    TriangleMesh shown;
    shown.points = mesh.points;
    double edge = 0;
    for (std::size_t f = 0; f < show.size(); ++f) {
        if (!show[f]) continue;
        shown.triangles.push_back(mesh.triangles[f]);
        edge = std::max(edge, std::sqrt(mesh.area_vector2(f).norm()));
    }
    // A grid of the shown faces' boxes keeps this near linear.
    const auto box = bounds_of(mesh);
    const double cell = std::max({1e-6, edge, box.diagonal() / 80}), reach = 1e-3 * box.diagonal();
    std::map<std::array<int, 3>, std::vector<std::size_t>> grid;
    const auto place = [&](const Point& p) {
        const Point q = (p - box.low) / cell;
        return std::array{static_cast<int>(std::floor(q.x())), static_cast<int>(std::floor(q.y())),
                          static_cast<int>(std::floor(q.z()))};
    };
    for (std::size_t f = 0; f < shown.triangles.size(); ++f) {
        Point low = shown.corner(f, 0), high = low;
        for (int k = 1; k < 3; ++k) {
            low = low.cwiseMin(shown.corner(f, k));
            high = high.cwiseMax(shown.corner(f, k));
        }
        const auto a = place(low - Point::Constant(reach)), b = place(high + Point::Constant(reach));
        for (int x = a[0]; x <= b[0]; ++x) {
            for (int y = a[1]; y <= b[1]; ++y) {
                for (int z = a[2]; z <= b[2]; ++z) grid[{x, y, z}].push_back(f);
            }
        }
    }
    double sum = 0;
    for (const auto& line : seams) {
        for (std::size_t i = 1; i < line.size(); ++i) {
            const Point middle = (line[i] + line[i - 1]) / 2;
            const auto found = grid.find(place(middle));
            if (found == grid.end()) continue;
            const bool on = std::any_of(found->second.begin(), found->second.end(), [&](std::size_t f) {
                return distance_to_face(shown, f, middle) < reach;
            });
            if (on) sum += (line[i] - line[i - 1]).norm();
        }
    }
    return sum;
}

}  // namespace jig::split
