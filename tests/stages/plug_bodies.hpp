// Bodies as the plug's routes take them.
#pragma once

#include <stdexcept>

#include "core/science/mesh/measure.hpp"
#include "tests/job/fixtures.hpp"

namespace fixtures {

using namespace jig;

/// A body as the routes take it, from a mesh whose foot is at z = 0.
inline plug::Body body_of(TriangleMesh mesh) {
    plug::Body body;
    body.name = "plug";
    auto stood = std::make_shared<split::Stood>();
    stood->mesh = std::move(mesh);
    stood->topology = topology_of(stood->mesh);
    body.rays = std::make_shared<const RayMesh>(stood->mesh);
    body.frame = frame_across(Point::UnitZ());
    const auto m = measure(stood->mesh, stood->topology);
    body.area = m.area;
    body.volume = m.volume;
    body.depth = m.size.z();
    body.length = std::max(m.size.x(), m.size.y());
    body.width = std::min(m.size.x(), m.size.y());
    body.surface = std::shared_ptr<const split::Stood>(std::move(stood));
    return body;
}

inline Board board_of(double thickness) {
    Board b;
    b.thickness = thickness;
    b.sheet_length = 2.5;
    b.sheet_width = 1.25;
    return b;
}

inline const plug::Plan& plan(const Findings& f) {
    return f.plug->plans.front();
}

inline Job by(Route route) {
    auto job = small_job();
    job.plug.route = route;
    return job;
}

inline const Figure& sum(const plug::Plan& p, const std::string& key) {
    for (const auto& f : p.sums) {
        if (f.key == key) return f;
    }
    throw std::runtime_error("no sum " + key);
}

}  // namespace fixtures
