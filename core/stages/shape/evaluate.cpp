#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/science/mesh/mesh_file.hpp"
#include "core/science/mesh/slice.hpp"
#include "core/science/mesh/stl.hpp"
#include "core/stages/shape/findings.hpp"
#include "core/stages/shape/place.hpp"
#include "core/stages/shape/starter_meshes.hpp"
#include "core/stages/shape/tray.hpp"

namespace jig::shape {
namespace {

TriangleMesh drawn(const Choices& c, Progress& progress) {
    switch (c.kind) {
        case ShapeKind::stations:
        case ShapeKind::copied:
            return stations_mesh(c.stations, progress);
        case ShapeKind::foil:
            return foil_mesh(c.foil, progress);
        case ShapeKind::turned:
            return turned_mesh(c.turned, progress);
        case ShapeKind::tray:
        case ShapeKind::mesh:
            break;
    }
    return tray_mesh(c.tray, progress);
}

/// Developed length of the longest section across the shape's longest side: what a band laid round it
/// measures.
double girth(const TriangleMesh& mesh, const Topology& topology, Progress& progress) {
    const auto box = bounds_of(mesh);
    const Point axis = box.size().x() >= box.size().y() ? Point::UnitX() : Point::UnitY();
    std::vector<double> at;
    for (int i = 0; i < 9; ++i) at.push_back(axis.dot(box.low) + axis.dot(box.size()) * (0.1 + 0.1 * i));
    double longest = 0;
    for (const auto& cut : sections(mesh, topology, frame_across(axis), at, progress)) {
        double sum = 0;
        for (const auto& loop : cut.loops) sum += perimeter(loop);
        for (const auto& line : cut.open_lines) {
            for (std::size_t i = 1; i < line.size(); ++i) sum += (line[i] - line[i - 1]).norm();
        }
        longest = std::max(longest, sum);
    }
    return longest;
}

/// m² of the largest wall that is flat: neighbouring faces whose normals agree within 0.1°, larger than a
/// hand and standing rather than lying.
double flattest_wall(const TriangleMesh& mesh, const Topology& topology) {
    const double cosine = std::cos(radians(0.1));
    std::vector<Point> normal(mesh.triangles.size());
    for (std::size_t f = 0; f < normal.size(); ++f) normal[f] = mesh.area_vector2(f).normalized();
    std::vector<char> seen(mesh.triangles.size(), 0);
    double largest = 0;
    std::vector<std::uint32_t> patch;
    for (std::size_t seed = 0; seed < seen.size(); ++seed) {
        if (seen[seed] || std::abs(normal[seed].z()) > 0.94) continue;
        patch.assign(1, static_cast<std::uint32_t>(seed));
        seen[seed] = 1;
        double area = 0;
        for (std::size_t k = 0; k < patch.size(); ++k) {
            area += mesh.area_vector2(patch[k]).norm() / 2;
            for (const auto g : topology.across[patch[k]]) {
                if (g == kNoFace || seen[g] || normal[g].dot(normal[seed]) < cosine) continue;
                seen[g] = 1;
                patch.push_back(g);
            }
        }
        largest = std::max(largest, area);
    }
    return largest;
}

}  // namespace

Findings evaluate(const Choices& c, const std::string& bytes, Progress& progress) {
    Findings out;
    Repaired clean;
    TrueRadii radii;
    bool turned = false;
    if (c.kind != ShapeKind::mesh) {
        clean.mesh = drawn(c, progress);
        put_on_bench(clean.mesh, c.place);
        clean.topology = topology_of(clean.mesh);
    } else {
        if (bytes.empty())
            throw InputError("shape", "no mesh file is attached to the job",
                             "bring in a file (Ctrl+I), or draw a shape");
        const ReadRules rules{length_unit(std::string(file_word(c.unit))), c.chord};
        const auto read = read_mesh(bytes, c.file, rules, progress, &radii);
        const double before = turning_volume(read);
        clean = repaired(read, progress, c.mend);
        turned = before * turning_volume(clean.mesh) < 0;
        put_on_bench(clean.mesh, c.place);
        for (auto* list : {&clean.repairs, &clean.left}) {
            for (auto& r : *list) {
                TriangleMesh marks;
                marks.points = std::move(r.places);
                put_on_bench(marks, c.place);
                r.places = std::move(marks.points);
            }
        }
    }
    progress.check();
    out.mesh = std::move(clean.mesh);
    out.topology = std::move(clean.topology);
    out.repairs = std::move(clean.repairs);
    out.left = std::move(clean.left);
    out.measures = measure(out.mesh, out.topology);
    out.bends = bends(out.mesh, out.topology);
    find_inside_radius(out.mesh, out.bends, out.measures);
    // Seen from its other side what was round is hollow.
    const bool inside = c.kind == ShapeKind::mesh && c.place.face == ToolFace::inside;
    const bool from_faces = take_true_radius(radii, turned != inside, c.place.scale, out.measures);
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
    out.flat_wall = flattest_wall(out.mesh, out.topology);
    out.figures.push_back({"girth", "girth", Kind::length, girth(out.mesh, out.topology, progress),
                           "the longest of nine sections across, as a band laid on it"});
    out.figures.push_back({"flat_wall", "largest flat wall", Kind::area, out.flat_wall,
                           "neighbouring standing faces whose normals agree within 0.1°"});
    const Point centre = m.centroid - bounds_of(out.mesh).low;
    out.figures.push_back(
        {"centre", "centre of gravity above the foot", Kind::length, centre.z(),
         fmt::format("of the {}; {} along and {} across from its low corner",
                     m.closed ? "volume" : "volume under it", quantity(Kind::length, centre.x()),
                     quantity(Kind::length, centre.y()))});
    if (by_stations(c.kind)) {
        const auto line = fair(c.stations);
        out.figures.push_back({"humps", "humps in the faired lines", Kind::count,
                               static_cast<double>(line.width.humps() + line.height.humps()),
                               "changes of sign in the bend of width and of height"});
        out.figures.push_back({"stray", "faired away from the stations", Kind::thickness,
                               stray(c.stations, line),
                               "the largest step from a typed width, height or lift to its faired line"});
    }
    if (m.smallest_inside_radius) {
        out.figures.push_back({"inside_radius", "smallest inside radius", Kind::length,
                               *m.smallest_inside_radius,
                               from_faces ? "of the file's own faces"
                                          : "from the turning of the surface normals; a sharp inside corner "
                                            "counts as 0"});
    }
    return out;
}

}  // namespace jig::shape
