#include "core/science/mesh/paint.hpp"

#include <algorithm>
#include <cmath>

#include "core/science/mesh/nearest.hpp"

namespace jig {

double distance_to_face(const TriangleMesh& mesh, std::size_t face, const Point& p) {
    return (p - nearest_on_triangle(p, mesh.corner(face, 0), mesh.corner(face, 1), mesh.corner(face, 2)))
        .norm();
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
