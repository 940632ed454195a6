#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <filesystem>
#include <limits>

#include "batch/read_case.hpp"
#include "batch/verbs.hpp"
#include "core/science/mesh/mesh_file.hpp"
#include "core/science/mesh/nearest_face.hpp"
#include "core/science/mesh/refine.hpp"
#include "core/science/mesh/repair.hpp"
#include "core/science/mesh/stl.hpp"
#include "core/science/shell/system.hpp"

namespace jig::batch {
namespace {

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

/// Displacement and rotation at the place of the surface nearest to a point, between its face's corners.
Json probe(const TriangleMesh& mesh, const NearestFace& nearest, const shell_fe::Solution& u,
           const Point& at) {
    const auto face = nearest.at(at);
    const Point share = corner_shares(mesh, face, at);
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
