#include "batch/read_case.hpp"

#include <algorithm>
#include <cmath>
#include <filesystem>

#include "core/science/mesh/mesh_file.hpp"
#include "core/science/mesh/repair.hpp"
#include "core/science/mesh/stl.hpp"

namespace jig::batch {

double between(const JsonPlace& place, const char* key, double low, double high) {
    const auto one = place.at(key);
    const double value = one.number();
    if (value < low || value > high)
        one.fail(fmt::format("{:g} is outside of {:g} to {:g}", value, low, high), "write it in SI units");
    return value;
}

double between(const JsonPlace& place, const char* key, double low, double high, double otherwise) {
    return place.has(key) ? between(place, key, low, high) : otherwise;
}

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

void known_keys(const JsonPlace& place, std::initializer_list<std::string_view> known) {
    if (!place.raw().is_object()) place.fail("an object is expected here", "write its keys in { }");
    for (const auto& [key, value] : place.raw().items()) {
        if (std::find(known.begin(), known.end(), key) == known.end()) {
            std::string all;
            for (const auto k : known) all += (all.empty() ? "" : ", ") + std::string(k);
            place.fail("\"" + key + "\" is no key of it", "its keys are " + all);
        }
    }
}

void note_unknown(const JsonPlace& place, std::initializer_list<std::string_view> known,
                  const std::string& where, std::vector<std::string>& notes) {
    for (const auto& [key, value] : place.raw().items()) {
        if (std::find(known.begin(), known.end(), key) == known.end())
            notes.push_back(fmt::format("\"{}{}\" is not known here and does nothing", where, key));
    }
}

std::vector<Point> probes_of(const Arguments& a) {
    std::vector<Point> out;
    for (const auto& p : a.every_numbers("probe")) {
        if (p.size() != 3)
            throw InputError("--probe", "3 numbers with commas are needed", "write them as 0,0,0.1");
        out.emplace_back(p[0], p[1], p[2]);
    }
    return out;
}

Json three(const Point& p) {
    return Json::array({p.x(), p.y(), p.z()});
}

Json or_null(const std::optional<double>& value) {
    return value ? Json(*value) : Json();
}

}  // namespace jig::batch
