#include <fmt/format.h>

#include "core/science/mesh/stl.hpp"
#include "core/stages/shape/findings.hpp"
#include "core/stages/shape/tray.hpp"

namespace jig::shape {

Findings evaluate(const Choices& c, const std::string& bytes, Progress& progress) {
    Findings out;
    Repaired clean;
    if (c.kind == ShapeKind::tray) {
        clean.mesh = tray_mesh(c.tray, progress);
        clean.topology = topology_of(clean.mesh);
    } else {
        if (bytes.empty())
            throw InputError("shape", "no mesh file is attached to the job",
                             "bring in an STL file, or draw a tray");
        clean = repaired(read_stl(bytes, c.file, length_unit(std::string(file_word(c.unit))), progress),
                         progress);
    }
    progress.check();
    out.mesh = std::move(clean.mesh);
    out.topology = std::move(clean.topology);
    out.repairs = std::move(clean.repairs);
    out.measures = measure(out.mesh, out.topology);
    out.rays = std::make_shared<const RayMesh>(out.mesh);
    const auto& m = out.measures;
    const auto n = out.mesh.triangles.size();
    out.figures = {{"length", "length", Kind::length, m.size.x(), "largest x less smallest x"},
                   {"width", "width", Kind::length, m.size.y(), "largest y less smallest y"},
                   {"height", "height", Kind::length, m.size.z(), "largest z less smallest z"},
                   {"area", "area", Kind::area, m.area, fmt::format("sum over {} triangles", n)},
                   {"volume", m.closed ? "volume" : "volume under it", Kind::volume, m.volume,
                    m.closed ? "sum of the signed wedges of all triangles"
                             : "sum of signed wedges, each rim closed by a flat fan"},
                   {"rims", "open rims", Kind::count, static_cast<double>(m.rims),
                    "closed runs of edges that have one face"},
                   {"triangles", "triangles", Kind::count, static_cast<double>(n), "after mending"}};
    if (m.smallest_inside_radius) {
        out.figures.push_back({"inside_radius", "smallest inside radius", Kind::length,
                               *m.smallest_inside_radius,
                               "from the turning of the surface normals; a sharp inside corner counts as 0"});
    }
    return out;
}

}  // namespace jig::shape
