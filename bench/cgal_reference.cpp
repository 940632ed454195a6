#include "bench/reference.hpp"

#include <CGAL/AABB_face_graph_triangle_primitive.h>
#include <CGAL/AABB_halfedge_graph_segment_primitive.h>
#include <CGAL/AABB_traits.h>
#include <CGAL/AABB_tree.h>
#include <CGAL/Exact_predicates_inexact_constructions_kernel.h>
#include <CGAL/IO/STL.h>
#include <CGAL/Polygon_mesh_slicer.h>
#include <CGAL/Surface_mesh.h>

namespace bench {
namespace {

using Kernel = CGAL::Exact_predicates_inexact_constructions_kernel;
using Mesh = CGAL::Surface_mesh<Kernel::Point_3>;
using Primitive = CGAL::AABB_halfedge_graph_segment_primitive<Mesh>;
using Tree = CGAL::AABB_tree<CGAL::AABB_traits<Kernel, Primitive>>;

}  // namespace

std::size_t cgal_read_stl(const std::string& path) {
    std::vector<Kernel::Point_3> points;
    std::vector<std::vector<std::size_t>> triangles;
    CGAL::IO::read_STL(path, points, triangles);
    return triangles.size();
}

struct CgalSlicer::Inside {
    Mesh mesh;
    Tree tree;
    std::unique_ptr<CGAL::Polygon_mesh_slicer<Mesh, Kernel>> slicer;
};

CgalSlicer::CgalSlicer(const jig::TriangleMesh& mesh) : inside_(std::make_unique<Inside>()) {
    std::vector<Mesh::Vertex_index> v;
    for (const auto& p : mesh.points) v.push_back(inside_->mesh.add_vertex({p.x(), p.y(), p.z()}));
    for (const auto& t : mesh.triangles) inside_->mesh.add_face(v[t[0]], v[t[1]], v[t[2]]);
    inside_->tree.insert(edges(inside_->mesh).first, edges(inside_->mesh).second, inside_->mesh);
    inside_->tree.build();
    inside_->slicer = std::make_unique<CGAL::Polygon_mesh_slicer<Mesh, Kernel>>(inside_->mesh, inside_->tree);
}

CgalSlicer::~CgalSlicer() = default;

std::size_t CgalSlicer::cut(double height) {
    std::vector<std::vector<Kernel::Point_3>> lines;
    (*inside_->slicer)(Kernel::Plane_3(0, 0, 1, -height), std::back_inserter(lines));
    std::size_t n = 0;
    for (const auto& l : lines) n += l.size();
    return n;
}

}  // namespace bench
