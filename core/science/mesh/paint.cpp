#include "core/science/mesh/paint.hpp"

#include <algorithm>
#include <cmath>

namespace jig {
namespace {

double distance_to_edge(const Point& p, const Point& a, const Point& b) {
    const Point ab = b - a;
    const double length2 = ab.squaredNorm();
    const double t = length2 > 0 ? std::clamp((p - a).dot(ab) / length2, 0.0, 1.0) : 0.0;
    return (p - a - t * ab).norm();
}

}  // namespace

double distance_to_face(const TriangleMesh& mesh, std::size_t face, const Point& p) {
    const Point &a = mesh.corner(face, 0), &b = mesh.corner(face, 1), &c = mesh.corner(face, 2);
    const Point n = mesh.area_vector2(face);
    const double length = n.norm();
    if (length > 0) {
        // Inside the face's prism the plane is nearest.
        const auto left = [&](const Point& from, const Point& to) {
            return n.dot((to - from).cross(p - from)) >= 0;
        };
        if (left(a, b) && left(b, c) && left(c, a)) return std::abs(n.dot(p - a)) / length;
    }
    return std::min({distance_to_edge(p, a, b), distance_to_edge(p, b, c), distance_to_edge(p, c, a)});
}

std::vector<std::uint32_t> faces_under(const TriangleMesh& mesh, const Dab& dab) {
    std::vector<std::uint32_t> out;
    const Point facing = dab.facing.normalized();
    const double near2 = dab.reach * dab.reach;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        // A face is looked at closely only where its own size lets it come that near.
        const Point middle = mesh.centre(f);
        const double d2 = (middle - dab.at).squaredNorm();
        if (d2 > near2) {
            double size2 = 0;
            for (int k = 0; k < 3; ++k) size2 = std::max(size2, (mesh.corner(f, k) - middle).squaredNorm());
            if (d2 > 4 * size2 || distance_to_face(mesh, f, dab.at) > 0.1 * dab.reach) continue;
        }
        const Point n = mesh.area_vector2(f);
        if (n.dot(facing) > 0.26 * n.norm()) out.push_back(static_cast<std::uint32_t>(f));
    }
    return out;
}

void lay_paint(const TriangleMesh& mesh, const std::vector<Painted>& strokes, std::vector<char>& show,
               std::vector<int>& owner) {
    owner.assign(mesh.triangles.size(), -1);
    if (!strokes.empty()) show.resize(mesh.triangles.size(), 0);
    for (std::size_t i = 0; i < strokes.size(); ++i) {
        const auto& stroke = strokes[i];
        for (const auto f : faces_under(mesh, stroke.dab)) {
            if (stroke.paint == Paint::given) {
                owner[f] = static_cast<int>(i);
            } else {
                show[f] = stroke.paint == Paint::show;
                if (stroke.paint == Paint::plain) owner[f] = -1;
            }
        }
    }
}

}  // namespace jig
