#include "core/science/mesh/remesh.hpp"

#include <CGAL/Polygon_mesh_processing/detect_features.h>
#include <CGAL/Polygon_mesh_processing/remesh.h>
#include <CGAL/Simple_cartesian.h>
#include <CGAL/Surface_mesh.h>

#include "core/base/error.hpp"

namespace jig {
namespace {

namespace pmp = CGAL::Polygon_mesh_processing;
using Kernel = CGAL::Simple_cartesian<double>;
using Surface = CGAL::Surface_mesh<Kernel::Point_3>;

constexpr int kRounds = 3;
constexpr double kSharp = 35;  // degrees

}  // namespace

Remeshed remeshed(const TriangleMesh& mesh, const std::vector<int>& patch, double edge, Progress& progress) {
    Surface surface;
    surface.reserve(mesh.points.size(), 3 * mesh.triangles.size(), mesh.triangles.size());
    std::vector<Surface::Vertex_index> corners(mesh.points.size());
    for (std::size_t i = 0; i < mesh.points.size(); ++i) {
        const auto& p = mesh.points[i];
        corners[i] = surface.add_vertex({p.x(), p.y(), p.z()});
    }
    auto patches = surface.add_property_map<Surface::Face_index, int>("f:patch", 0).first;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        const auto& t = mesh.triangles[f];
        const auto face = surface.add_face(corners[t[0]], corners[t[1]], corners[t[2]]);
        if (face == Surface::null_face())
            throw InputError("mesh", "its faces do not join into one surface",
                             "bring the file in again and let it be mended");
        patches[face] = patch[f];
    }
    for (const auto v : surface.vertices()) {
        if (surface.is_isolated(v)) surface.remove_vertex(v);
    }
    auto kept = surface.add_property_map<Surface::Edge_index, bool>("e:kept", false).first;
    pmp::detect_sharp_edges(surface, kSharp, kept);
    for (const auto e : surface.edges()) {
        const auto h = surface.halfedge(e);
        if (surface.is_border(e) || patches[surface.face(h)] != patches[surface.face(surface.opposite(h))])
            kept[e] = true;
    }
    for (int round = 0; round < kRounds; ++round) {
        progress.check();
        pmp::isotropic_remeshing(surface.faces(), edge, surface,
                                 pmp::parameters::number_of_iterations(1)
                                     .number_of_relaxation_steps(2)
                                     .edge_is_constrained_map(kept)
                                     .face_patch_map(patches));
    }
    Remeshed out;
    std::vector<std::uint32_t> number(surface.num_vertices() + surface.number_of_removed_vertices(), 0);
    for (const auto v : surface.vertices()) {
        number[v.idx()] = static_cast<std::uint32_t>(out.mesh.points.size());
        const auto& p = surface.point(v);
        out.mesh.points.emplace_back(p.x(), p.y(), p.z());
    }
    for (const auto f : surface.faces()) {
        Triangle t{};
        std::size_t k = 0;
        for (const auto v : surface.vertices_around_face(surface.halfedge(f))) t[k++] = number[v.idx()];
        out.mesh.triangles.push_back(t);
        out.patch.push_back(patches[f]);
    }
    return out;
}

}  // namespace jig
