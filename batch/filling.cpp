#include "batch/filling.hpp"

#include "batch/read_case.hpp"

namespace jig::batch {
Json filling_json(const TriangleMesh& mesh, const Filling& f) {
    Json dry = Json::array(), given = Json::array(), wet = Json::array();
    for (const auto& d : f.dry) dry.push_back({{"at_m", three(d.at)}, {"area_m2", d.area}});
    for (const auto& g : f.feeds)
        given.push_back({{"opened_s", or_null(g.opened)},
                         {"shut_s", or_null(g.shut)},
                         {"kg", g.mass},
                         {"least_Pa", g.opened ? Json(g.least) : Json()}});
    for (const auto& v : f.vents) wet.push_back(or_null(v));
    return {{"fill_s", or_null(f.fill)},
            {"filled", f.filled},
            {"last_m", f.last ? three(mesh.points[*f.last]) : Json()},
            {"dry", std::move(dry)},
            {"resin_kg", f.taken},
            {"held_kg", f.held},
            {"bled_kg", f.bled},
            {"feeds", std::move(given)},
            {"vents_wet_s", std::move(wet)},
            {"gelled_s", or_null(f.gelled)},
            {"points", mesh.points.size()},
            {"steps", f.steps},
            {"unsettled", f.unsettled}};
}

Json arrival_at(const TriangleMesh& mesh, const NearestFace& nearest, const Filling& f, const Point& at) {
    const auto face = nearest.at(at);
    const Point share = corner_shares(mesh, face, at);
    double time = 0;
    for (int k = 0; k < 3; ++k) {
        if (share[k] < 1e-9) continue;
        const auto& one = f.arrival[mesh.triangles[face][static_cast<std::size_t>(k)]];
        if (!one) return {};
        time += share[k] * *one;
    }
    return time;
}

double pressure_at(const TriangleMesh& mesh, const NearestFace& nearest, const Filling& f, const Point& at) {
    const auto face = nearest.at(at);
    const Point share = corner_shares(mesh, face, at);
    double out = 0;
    for (int k = 0; k < 3; ++k)
        out += share[k] * f.pressure[mesh.triangles[face][static_cast<std::size_t>(k)]];
    return out;
}

}  // namespace jig::batch
