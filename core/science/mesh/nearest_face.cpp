#include "core/science/mesh/nearest_face.hpp"

#include <CGAL/AABB_traits.h>
#include <CGAL/AABB_tree.h>
#include <CGAL/AABB_triangle_primitive.h>
#include <CGAL/Simple_cartesian.h>

#include <vector>

#include "core/science/mesh/nearest.hpp"

namespace jig {

namespace {

using Kernel = CGAL::Simple_cartesian<double>;
using Faces = std::vector<Kernel::Triangle_3>;
using Primitive = CGAL::AABB_triangle_primitive<Kernel, Faces::const_iterator>;
using Tree = CGAL::AABB_tree<CGAL::AABB_traits<Kernel, Primitive>>;

Kernel::Point_3 place(const Point& p) {
    return {p.x(), p.y(), p.z()};
}

}  // namespace

struct NearestFace::Inside {
    Faces faces;
    std::vector<std::size_t> number;  // by triangle, its face: those without area are left out
    Tree tree;
};

NearestFace::NearestFace(const TriangleMesh& mesh) : inside_(std::make_unique<Inside>()) {
    auto& in = *inside_;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        if (!(mesh.area_vector2(f).norm() > 0)) continue;
        in.faces.emplace_back(place(mesh.corner(f, 0)), place(mesh.corner(f, 1)), place(mesh.corner(f, 2)));
        in.number.push_back(f);
    }
    in.tree.rebuild(in.faces.cbegin(), in.faces.cend());
    in.tree.accelerate_distance_queries();
}

NearestFace::~NearestFace() = default;

std::size_t NearestFace::at(const Point& p) const {
    const auto found = inside_->tree.closest_point_and_primitive(place(p));
    return inside_->number[static_cast<std::size_t>(found.second - inside_->faces.cbegin())];
}

std::size_t nearest_face(const TriangleMesh& mesh, const Point& p) {
    std::size_t out = 0;
    double least = 1e300;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        if (!(mesh.area_vector2(f).norm() > 0)) continue;
        const Point at = nearest_on_triangle(p, mesh.corner(f, 0), mesh.corner(f, 1), mesh.corner(f, 2));
        const double away = (at - p).squaredNorm();
        if (away >= least) continue;
        least = away;
        out = f;
    }
    return out;
}

Point corner_shares(const TriangleMesh& mesh, std::size_t face, const Point& p) {
    // From the areas opposite them.
    const Point n = mesh.area_vector2(face);
    Point share;
    for (int k = 0; k < 3; ++k) {
        const Point &b = mesh.corner(face, (k + 1) % 3), &c = mesh.corner(face, (k + 2) % 3);
        share[k] = std::max(0.0, (c - b).cross(p - b).dot(n) / n.squaredNorm());
    }
    return share / share.sum();
}

}  // namespace jig
