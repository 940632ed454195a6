#include <algorithm>

#include "batch/filling.hpp"
#include "batch/read_case.hpp"
#include "batch/read_cure.hpp"
#include "batch/verbs.hpp"
#include "core/base/units.hpp"
#include "core/science/flow/fill.hpp"
#include "core/science/mesh/nearest_face.hpp"
#include "core/science/mesh/refine.hpp"
#include "core/science/mesh/stl.hpp"
#include "core/shop/cure.hpp"

namespace jig::batch {
namespace {

/// Fewer faces than this are too coarse to follow a front over.
constexpr std::size_t kFewFaces = 3000;

FlowLayer layer_from(const JsonPlace& place) {
    known_keys(place, {"K_m2", "angle_deg", "thickness_m", "porosity", "within_m", "name"});
    FlowLayer out;
    const auto K = place.at("K_m2");
    if (K.size() < 2 || K.size() > 3) K.fail("two or three numbers are expected here", "write [K1, K2, Kz]");
    const auto one = [&](std::size_t i) {
        const double value = K.item(i).number();
        if (!(value > 0) || value > 1) K.item(i).fail("it is no permeability", "write m² above 0");
        return value;
    };
    out.K1 = one(0);
    out.K2 = one(1);
    out.Kz = K.size() > 2 ? one(2) : std::min(out.K1, out.K2);
    out.angle = radians(between(place, "angle_deg", -1e4, 1e4, 0));
    out.thickness = between(place, "thickness_m", 1e-7, 10);
    out.porosity = between(place, "porosity", 1e-4, 1);
    if (place.has("within_m")) out.within = box_from(place.at("within_m"));
    return out;
}

FlowMoment moment_from(const JsonPlace& place) {
    known_keys(place, {"at_s", "when_wet_m"});
    FlowMoment out;
    if (place.has("when_wet_m")) {
        if (place.has("at_s")) place.fail("both a time and a place are given", "keep one of them");
        out.wet = point_from(place.at("when_wet_m"));
    } else {
        out.time = between(place, "at_s", 0, kLongest);
    }
    return out;
}

std::vector<std::uint32_t> points_in(const TriangleMesh& mesh, const JsonPlace& place) {
    const auto box = box_from(place.at("within_m"));
    std::vector<char> used(mesh.points.size(), 0);
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) used[i] = 1;
    }
    std::vector<std::uint32_t> out;
    for (std::uint32_t i = 0; i < mesh.points.size(); ++i) {
        const Point& p = mesh.points[i];
        if (used[i] != 0 && (p - box.low).minCoeff() >= 0 && (box.high - p).minCoeff() >= 0) out.push_back(i);
    }
    if (out.empty()) place.at("within_m").fail("no point of the mesh lies in it", "move or widen it");
    return out;
}

Viscosity viscosity_from(const JsonPlace& place, const Shop& shop) {
    if (place.raw().is_number()) {
        if (!(place.number() > 0)) place.fail("it does not flow", "write Pa·s above 0");
        return {ThickeningResin{place.number(), {}}, 0};
    }
    if (place.has("resin")) {
        known_keys(place, {"resin", "T_K", "mixed_s"});
        const auto* resin = find(shop.resins, place.at("resin").text());
        if (resin == nullptr)
            place.at("resin").fail("the shop library has no such resin",
                                   "use a name from data/library, or give mu0_Pas and tau_s");
        return {flowing(*resin, between(place, "T_K", 200, 600)), -between(place, "mixed_s", 0, kLongest, 0)};
    }
    known_keys(place, {"mu0_Pas", "tau_s"});
    ThickeningResin out{between(place, "mu0_Pas", 1e-6, 1e6), {}};
    if (place.has("tau_s")) out.tau = between(place, "tau_s", 1e-3, kLongest);
    return {out, 0};
}

}  // namespace

Json run_infuse(const Arguments& a, Progress& progress) {
    const auto& path = a.file("the case");
    const auto bytes = read_file(path, 512u << 20);
    // A job is zipped where it carries meshes, and names itself.
    if (bytes.compare(0, 2, "PK") == 0 || bytes.find("\"jigshell job\"") != std::string::npos)
        return infuse_job(a, progress);
    for (const char* name : {"layouts", "race", "quick", "out", "probe"}) {
        if (a.option(name))
            throw InputError(std::string("--") + name, "a case has none of it",
                             "leave it out, or name a job instead");
    }
    const auto json = parse_json(path, bytes);
    const JsonPlace place(json, path);
    known_keys(place, {"mesh", "unit", "refine_to_m", "layers", "zero_direction", "viscosity_Pas",
                       "density_kg_m3", "gravity_m_s2", "feeds", "vents", "probes_m", "times_s", "end_s"});
    const auto shop = load_shop(data_folder() + "/library", a.option("library").value_or(""));
    std::string unit = place.at("mesh").raw().is_string() ? "mm" : "m";
    place.read("unit", unit);
    auto mesh = mesh_from(place.at("mesh"), unit, path, progress);
    double area = 0;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) area += mesh.area_vector2(f).norm() / 2;
    if (place.has("refine_to_m"))
        mesh = refined(mesh, between(place, "refine_to_m", 1e-6, 1e6), progress).mesh;
    else if (mesh.triangles.size() < kFewFaces)
        mesh = refined(mesh, 1.6 * std::sqrt(area / static_cast<double>(kFewFaces)), progress).mesh;
    Point zero = Point::UnitX();
    if (place.has("zero_direction")) zero = point_from(place.at("zero_direction"));
    if (zero.norm() <= 0)
        place.at("zero_direction").fail("it has no length", "give a direction such as 1, 0, 0");
    std::vector<FlowLayer> layers;
    const auto laid = place.at("layers");
    for (std::size_t i = 0; i < laid.size(); ++i) layers.push_back(layer_from(laid.item(i)));
    std::vector<Feed> feeds;
    const auto fed = place.at("feeds");
    for (std::size_t i = 0; i < fed.size(); ++i) {
        const auto one = fed.item(i);
        known_keys(one, {"within_m", "pressure_Pa", "open", "shut", "hose", "name"});
        Feed feed;
        feed.points = points_in(mesh, one);
        feed.pressure = between(one, "pressure_Pa", 0, 1e8);
        if (one.has("open")) feed.open = moment_from(one.at("open"));
        if (one.has("shut") && !one.at("shut").raw().is_null()) feed.shut = moment_from(one.at("shut"));
        if (one.has("hose")) {
            const auto hose = one.at("hose");
            known_keys(hose, {"length_m", "bore_m"});
            feed.resists = hose_resists(between(hose, "length_m", 0, 1e3), between(hose, "bore_m", 1e-4, 1));
        }
        feeds.push_back(std::move(feed));
    }
    if (feeds.empty()) fed.fail("there is no feed", "give one at least");
    std::vector<Vent> vents;
    if (place.has("vents")) {
        const auto list = place.at("vents");
        for (std::size_t i = 0; i < list.size(); ++i) {
            known_keys(list.item(i), {"within_m", "pressure_Pa", "name"});
            vents.push_back({points_in(mesh, list.item(i)), between(list.item(i), "pressure_Pa", 0, 1e8, 0)});
        }
    }
    FlowRules rules;
    rules.end = between(place, "end_s", 1e-6, kLongest, 1e7);
    rules.density = between(place, "density_kg_m3", 1, 1e5, rules.density);
    if (place.has("gravity_m_s2")) rules.gravity = point_from(place.at("gravity_m_s2"));
    std::vector<std::size_t> order;
    std::vector<double> times;
    if (place.has("times_s")) {
        const auto list = place.at("times_s");
        for (std::size_t i = 0; i < list.size(); ++i) {
            times.push_back(list.item(i).number());
            if (times.back() < 0)
                list.item(i).fail("it lies before the start", "write seconds from the start on");
            order.push_back(i);
        }
        std::sort(order.begin(), order.end(),
                  [&](std::size_t x, std::size_t y) { return times[x] < times[y]; });
        for (const auto i : order) rules.times.push_back(times[i]);
    }
    const auto f = fill(mesh, face_flows(mesh, layers, zero), feeds, vents,
                        viscosity_from(place.at("viscosity_Pas"), shop), rules, progress);
    auto out = filling_json(mesh, f);
    out["arrivals_s"] = out["pressures_Pa"] = Json::array();
    if (place.has("probes_m")) {
        const NearestFace nearest(mesh);
        const auto list = place.at("probes_m");
        for (std::size_t i = 0; i < list.size(); ++i) {
            const Point at = point_from(list.item(i));
            out["arrivals_s"].push_back(arrival_at(mesh, nearest, f, at));
            out["pressures_Pa"].push_back(pressure_at(mesh, nearest, f, at));
        }
    }
    std::vector<double> front(times.size());
    for (std::size_t k = 0; k < order.size(); ++k) front[order[k]] = f.front[k];
    out["front"] = front;
    // A medium on a tight preform runs ahead of what lies under it.
    if (layers.size() > 1) {
        const auto medium = std::max_element(
            layers.begin(), layers.end(), [](const FlowLayer& x, const FlowLayer& y) { return x.K1 < y.K1; });
        FlowLayer below;
        double resists = 0;
        below.thickness = below.porosity = 0;
        for (const auto& l : layers) {
            if (&l == &*medium) continue;
            below.porosity += l.porosity * l.thickness;
            below.thickness += l.thickness;
            resists += l.thickness / l.Kz;
        }
        below.porosity /= below.thickness;
        below.Kz = below.thickness / resists;
        out["lag_m"] = lag_under(*medium, below).length;
    }
    return out;
}

}  // namespace jig::batch
