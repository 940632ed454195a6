#include <algorithm>
#include <limits>

#include "core/science/mesh/measure.hpp"
#include "core/science/mesh/solid.hpp"
#include "core/stages/plug/plan.hpp"

namespace jig::plug {

void measure_across(Body& body) {
    Point2 low = Point2::Constant(std::numeric_limits<double>::infinity()), high = -low;
    body.foot = std::numeric_limits<double>::infinity();
    double top = -body.foot;
    for (const auto& t : body.surface->mesh.triangles) {
        for (const auto i : t) {
            const auto& p = body.surface->mesh.points[i];
            low = low.cwiseMin(body.frame.flat(p));
            high = high.cwiseMax(body.frame.flat(p));
            body.foot = std::min(body.foot, body.frame.w.dot(p));
            top = std::max(top, body.frame.w.dot(p));
        }
    }
    body.depth = top - body.foot;
    body.length = (high - low).maxCoeff();
    body.width = (high - low).minCoeff();
}

std::vector<Body> bodies(const Choices& c, const shape::Findings& shape, const split::Findings& split) {
    std::vector<Body> out;
    if (c.by_piece && !split.one_piece()) {
        for (std::size_t i = 0; i < split.set.pieces.size(); ++i) {
            const auto& piece = split.set.pieces[i];
            Body body;
            body.name = split.facts[i].name;
            auto stood = std::make_shared<split::Stood>();
            stood->mesh = piece.mesh;
            stood->topology = topology_of(stood->mesh);
            body.surface = std::shared_ptr<const split::Stood>(stood);
            body.rays = std::make_shared<const RayMesh>(stood->mesh);
            body.frame = frame_across(piece.direction);
            body.area = piece.map.area;
            const auto m = measure(stood->mesh, stood->topology);
            body.volume = m.volume;
            body.centre = m.centroid;
            measure_across(body);
            out.push_back(std::move(body));
        }
        return out;
    }
    Body body;
    body.name = "plug";
    if (split.stood) {
        body.surface = split.stood;
        body.rays = std::make_shared<const RayMesh>(split.stood->mesh);
    } else {
        // The shape's own surface, kept alive by whoever holds its findings, is shared without a copy where
        // it can be; it is small beside what is worked out on it.
        auto stood = std::make_shared<split::Stood>();
        stood->mesh = shape.mesh;
        stood->topology = shape.topology;
        body.surface = std::shared_ptr<const split::Stood>(std::move(stood));
        body.rays = shape.rays;
    }
    body.frame = split.frame;
    body.area = split.mould_area();
    body.volume = split.parts() * shape.measures.volume;
    body.centre = shape.measures.centroid;
    measure_across(body);
    out.push_back(std::move(body));
    return out;
}

Body as_cut(Body body, double build_up, double scale) {
    auto stood = *body.surface;
    stood.mesh = compensated(stood.mesh, build_up, scale);
    const double foot = body.foot;
    measure_across(body);
    const double below = body.foot - foot;
    body.surface = std::make_shared<const split::Stood>(std::move(stood));
    body.rays = std::make_shared<const RayMesh>(body.surface->mesh);
    measure_across(body);
    body.foot -= below;
    return body;
}

split::Stood solid_of(const Body& body) {
    split::Stood out;
    const auto& surface = *body.surface;
    // Parts side by side are bodies of their own, each with a rim.
    const auto rims = rim_loops(surface.mesh, surface.topology);
    if (rims.size() <= 1) {
        out.mesh = closed_body(surface.mesh, surface.topology, body.frame, body.foot);
    } else {
        // Each connected run of faces is closed by itself.
        const auto n = surface.mesh.triangles.size();
        std::vector<char> seen(n, 0);
        for (std::size_t seed = 0; seed < n; ++seed) {
            if (seen[seed]) continue;
            std::vector<std::uint32_t> run{static_cast<std::uint32_t>(seed)};
            seen[seed] = 1;
            for (std::size_t k = 0; k < run.size(); ++k) {
                for (const auto g : surface.topology.across[run[k]]) {
                    if (g == kNoFace || seen[g]) continue;
                    seen[g] = 1;
                    run.push_back(g);
                }
            }
            const auto part = some_faces(surface.mesh, run);
            const auto closed = closed_body(part, topology_of(part), body.frame, body.foot);
            const auto base = static_cast<std::uint32_t>(out.mesh.points.size());
            out.mesh.points.insert(out.mesh.points.end(), closed.points.begin(), closed.points.end());
            for (const auto& t : closed.triangles)
                out.mesh.triangles.push_back({t[0] + base, t[1] + base, t[2] + base});
        }
    }
    out.topology = topology_of(out.mesh);
    return out;
}

}  // namespace jig::plug
