#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <filesystem>
#include <limits>

#include "batch/verbs.hpp"
#include "core/science/mesh/mesh_file.hpp"
#include "core/science/mesh/nearest_face.hpp"
#include "core/science/mesh/refine.hpp"
#include "core/science/mesh/repair.hpp"
#include "core/science/mesh/stl.hpp"
#include "core/science/shell/system.hpp"

namespace jig::batch {
namespace {

Point point_from(const JsonPlace& place) {
    if (place.size() != 3) place.fail("three numbers are expected here", "write [x, y, z]");
    Point p;
    for (std::size_t i = 0; i < 3; ++i) {
        p[static_cast<Eigen::Index>(i)] = place.item(i).number();
        if (!std::isfinite(p[static_cast<Eigen::Index>(i)]))
            place.fail("a number is not finite", "write plain numbers");
    }
    return p;
}

Bounds box_from(const JsonPlace& place) {
    if (place.size() != 2) place.fail("two corners are expected here", "write [[x0, y0, z0], [x1, y1, z1]]");
    const Point a = point_from(place.item(0)), b = point_from(place.item(1));
    return {a.cwiseMin(b), a.cwiseMax(b)};
}

TriangleMesh mesh_from(const JsonPlace& place, const std::string& unit, const std::string& case_file,
                       Progress& progress) {
    if (place.raw().is_string()) {
        // A file's name is meant from where the case lies.
        const auto file = (std::filesystem::path(case_file).parent_path() / place.text()).string();
        return repaired(read_mesh(read_file(file), file, {length_unit(unit), 0.0005}, progress), progress, {})
            .mesh;
    }
    TriangleMesh mesh;
    const double scale = length_unit(unit);
    const auto points = place.at("points_m"), triangles = place.at("triangles");
    for (std::size_t i = 0; i < points.size(); ++i) mesh.points.push_back(scale * point_from(points.item(i)));
    for (std::size_t i = 0; i < triangles.size(); ++i) {
        const auto t = triangles.item(i);
        if (t.size() != 3) t.fail("three numbers of points are expected here", "write [i, j, k]");
        Triangle corners{};
        for (std::size_t k = 0; k < 3; ++k) {
            const int n = t.item(k).whole();
            if (n < 0 || static_cast<std::size_t>(n) >= mesh.points.size())
                t.fail("there is no point " + std::to_string(n), "points are counted from 0");
            corners[k] = static_cast<std::uint32_t>(n);
        }
        mesh.triangles.push_back(corners);
    }
    if (mesh.empty()) place.fail("it holds no triangle", "list at least one");
    return mesh;
}

shell_fe::Support support_from(const JsonPlace& place) {
    static const std::array<std::string, 6> names{"x", "y", "z", "rx", "ry", "rz"};
    shell_fe::Support s;
    s.within = box_from(place.at("within_m"));
    const auto fix = place.at("fix");
    if (fix.size() == 0) fix.fail("it holds nothing", "name some of x, y, z, rx, ry, rz");
    for (std::size_t i = 0; i < fix.size(); ++i) {
        const auto word = fix.item(i).text();
        const auto found = std::find(names.begin(), names.end(), word);
        if (found == names.end())
            fix.item(i).fail("\"" + word + "\" is not known", "use x, y, z, rx, ry, rz");
        s.fix[static_cast<std::size_t>(found - names.begin())] = true;
    }
    return s;
}

void add_load(const JsonPlace& place, shell_fe::Loads& loads) {
    int kinds = 0;
    if (place.has("pressure_Pa")) {
        ++kinds;
        loads.pressure += place.at("pressure_Pa").number();
    }
    if (place.has("gravity_m_s2")) {
        ++kinds;
        loads.gravity += point_from(place.at("gravity_m_s2"));
    }
    if (place.has("temperature_change_K")) {
        ++kinds;
        loads.warming += place.at("temperature_change_K").number();
    }
    if (place.has("force_N")) {
        ++kinds;
        loads.points.push_back({point_from(place.at("force_N")), point_from(place.at("near_m"))});
    }
    if (place.has("line_force_N_m")) {
        ++kinds;
        loads.lines.push_back({point_from(place.at("line_force_N_m")), box_from(place.at("within_m"))});
    }
    if (kinds == 0)
        place.fail("it is no load",
                   "use pressure_Pa, gravity_m_s2, force_N, line_force_N_m or temperature_change_K");
}

/// Keys that nobody reads are said, since a misspelt load would otherwise be a load left out.
void note_unknown(const JsonPlace& place, std::initializer_list<std::string_view> known,
                  const std::string& where, std::vector<std::string>& notes) {
    for (const auto& [key, value] : place.raw().items()) {
        if (std::find(known.begin(), known.end(), key) == known.end())
            notes.push_back(fmt::format("\"{}{}\" is not known here and does nothing", where, key));
    }
}

/// Displacement and rotation at the place of the surface nearest to a point, between its face's corners.
Json probe(const TriangleMesh& mesh, const NearestFace& nearest, const shell_fe::Solution& u,
           const Point& at) {
    const auto face = nearest.at(at);
    // Shares of the corners from the areas opposite them, kept inside the face.
    const Point n = mesh.area_vector2(face);
    Point share;
    for (int k = 0; k < 3; ++k) {
        const Point &b = mesh.corner(face, (k + 1) % 3), &c = mesh.corner(face, (k + 2) % 3);
        share[k] = std::max(0.0, (c - b).cross(at - b).dot(n) / n.squaredNorm());
    }
    share /= share.sum();
    Point moved = Point::Zero(), turned = Point::Zero();
    for (int k = 0; k < 3; ++k) {
        const auto i = mesh.triangles[face][static_cast<std::size_t>(k)];
        moved += share[k] * u.displacement(i);
        turned += share[k] * u.rotation(i);
    }
    const auto three = [](const Point& p) { return Json::array({p.x(), p.y(), p.z()}); };
    return {{"at_m", three(at)}, {"displacement_m", three(moved)}, {"rotation_rad", three(turned)}};
}

}  // namespace

Json run_stiffness(const Arguments& a, Progress& progress) {
    const auto& path = a.file("the case file");
    const auto json = parse_json(path, read_file(path, 512u << 20));
    const JsonPlace place(json, path);
    const auto shop = load_shop(data_folder() + "/library", a.option("library").value_or(""));
    const auto started = std::chrono::steady_clock::now();
    // Points are given in metres; a file's own unit is millimetres unless the case says otherwise.
    const bool from_file = place.at("mesh").raw().is_string();
    std::string unit = from_file ? "mm" : "m";
    place.read("unit", unit);
    auto mesh = mesh_from(place.at("mesh"), unit, path, progress);
    if (place.has("refine_to_m")) {
        const double longest = place.at("refine_to_m").number();
        if (!(longest > 0))
            place.at("refine_to_m").fail("it is not positive", "give the longest edge in metres");
        mesh = refined(mesh, longest, progress).mesh;
    }
    const double mesh_seconds =
        std::chrono::duration<double>(std::chrono::steady_clock::now() - started).count();
    const auto stack = laminate(read_stack(place.at("stack"), shop));
    Point zero = Point::UnitX();
    if (place.has("zero_direction")) zero = point_from(place.at("zero_direction"));
    std::vector<shell_fe::Support> supports;
    const auto held = place.at("supports");
    for (std::size_t i = 0; i < held.size(); ++i) supports.push_back(support_from(held.item(i)));
    shell_fe::Loads loads;
    const auto put_on = place.at("loads");
    for (std::size_t i = 0; i < put_on.size(); ++i) add_load(put_on.item(i), loads);
    const shell_fe::System system(mesh, stack, zero, supports, progress);
    const auto u = system.solve(loads);
    auto notes = system.notes();
    note_unknown(place,
                 {"mesh", "unit", "refine_to_m", "stack", "zero_direction", "supports", "loads", "probes_m"},
                 "", notes);
    for (std::size_t i = 0; i < held.size(); ++i)
        note_unknown(held.item(i), {"within_m", "fix"}, fmt::format("supports[{}].", i), notes);
    for (std::size_t i = 0; i < put_on.size(); ++i)
        note_unknown(put_on.item(i),
                     {"pressure_Pa", "gravity_m_s2", "temperature_change_K", "force_N", "near_m",
                      "line_force_N_m", "within_m"},
                     fmt::format("loads[{}].", i), notes);
    for (const auto& force : loads.points) {
        double least = std::numeric_limits<double>::infinity();
        for (const auto& t : mesh.triangles) {
            for (const auto i : t) least = std::min(least, (mesh.points[i] - force.near).norm());
        }
        if (least > 0.01 * bounds_of(mesh).diagonal())
            notes.push_back(fmt::format(
                "the force at ({:g}, {:g}, {:g}) m is {:.3g} m from the nearest point, which takes it",
                force.near.x(), force.near.y(), force.near.z(), least));
    }
    Json probes = Json::array();
    if (place.has("probes_m")) {
        const auto list = place.at("probes_m");
        const NearestFace nearest(mesh);
        for (std::size_t i = 0; i < list.size(); ++i)
            probes.push_back(probe(mesh, nearest, u, point_from(list.item(i))));
    }
    const auto seconds = system.seconds();
    return {{"notes", notes},
            {"max_displacement_m", u.largest},
            {"probes", probes},
            {"reactions_N", {u.reactions.x(), u.reactions.y(), u.reactions.z()}},
            {"mass_kg", system.mass()},
            {"degrees_of_freedom", system.freedoms()},
            {"triangles", mesh.triangles.size()},
            {"seconds",
             {{"mesh", mesh_seconds},
              {"assemble", seconds.assemble},
              {"factor", seconds.factor},
              {"solve", seconds.solve}}}};
}

}  // namespace jig::batch
