// Infusion in tests: strips whose fronts are known in closed form, and a small job that is infused.
#pragma once

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "core/job/job.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"
#include "tests/stages/one_sheet.hpp"

namespace fixtures::resin {

using namespace jig;
using bag::Flow;
using bag::FlowAsked;
using bag::Port;

inline constexpr double kK = 1e-10, kPhi = 0.5, kDeep = 0.003, kMu = 0.25, kDrop = 9e4;
inline const Frame kFlat{Point::UnitX(), Point::UnitY(), Point::UnitZ()};

/// A flat strip along x, its middle at the origin, in even triangles.
inline Shared<TriangleMesh> strip(double length, double width, std::uint32_t n) {
    const auto rows = std::max(2u, static_cast<std::uint32_t>(std::lround(n * width / length)));
    auto m = shapes::plate(length, width, n, rows);
    for (auto& p : m.points) p -= Point(length / 2, width / 2, 0);
    return std::make_shared<const TriangleMesh>(std::move(m));
}

inline Port at_end(PortUse use, double at) {
    Port p;
    p.use = use;
    p.kind = PortKind::rim;
    p.along = at - 1e-4;
    p.to_along = at + 1e-4;
    return p;
}

/// One sheet of cloth without a medium, fed at one end of a strip a metre long and drawn at the other.
inline FlowAsked plain(double length = 1) {
    auto a = one_sheet(kK, kPhi, kDeep, kDrop);
    a.infusion.ports = {at_end(PortUse::feed, -length / 2), at_end(PortUse::vent, length / 2)};
    return a;
}

inline Flow follow(const FlowAsked& asked, const Shared<TriangleMesh>& face, const Frame& frame = kFlat,
                   const part::Draped& draped = {}) {
    auto out = bag::flow(asked, face, frame, draped, true, quiet);
    INFO(out.fault);
    REQUIRE(out.runs);
    return out;
}

inline double line_time(double x, double K = kK) {
    return kPhi * kMu * x * x / (2 * K * kDrop);
}

/// Holes of that bore in every core of the common stack.
inline void bore(Job& job, double hole) {
    for (auto& l : job.part.layers) l.cut.hole = hole;
}

inline Job infused() {
    auto job = small_job();
    job.part.how = LayUp::infused;
    job.part.resin = "epoxy, infusion";
    job.part.pot_loss = 1;
    bore(job, 0.003);
    return job;
}

}  // namespace fixtures::resin
