// What the resin's own pressure leaves of a preform that gives (docs/methods.md, Flow).
#pragma once

#include "core/base/progress.hpp"
#include "core/science/flow/preform.hpp"

namespace jig {

/// Room and resin share the bag's load: cloth bears what the resin does not, and is as thick as
/// (load / full load)^−gives lets it be (Robitaille and Gauvin 1998, V_f = a·p^b).
struct SettleRules {
    double room = 101325, vacuum = 0;  ///< Pa absolute; the load is full where resin is at the vacuum
    double least = 3000;               ///< Pa that cloth bears at least: bag, medium and its own spring
    double density = 1100;             ///< kg/m³ of the resin
    Point gravity = Point::Zero();     ///< m/s²
    double flow_time = 0;              ///< ∫dt/μ, 1/Pa, for which resin goes on to move
};

/// How many times as thick as under its full load a ply is where resin has `pressure` Pa.
double thickened(double gives, double pressure, const SettleRules& rules);

struct SettledPlies {
    std::vector<double> pressure;     ///< Pa of each point's resin at the end
    std::vector<double> thick_begin;  ///< times as thick as under full load, at each point when it is full
    std::vector<double> thick;        ///< and at the end; 1 where nothing gives or no resin came
    double over = 0;                  ///< m³ of resin that lie in it for its being thicker, when it is full
    double drawn = 0;                 ///< m³ of those that the vents draw off till the end
    bool operator==(const SettledPlies&) const = default;
};

/// The preform is full with the resin's pressures at `start`, its feeds are shut, and at `vents` the vacuum
/// is held; without vents nothing leaves, and pressures even out. Storage by the law above, Darcy between
/// points, stepped implicitly with Newton's way. `wet` says which points resin came to. Cost: some forty
/// sparse factorisations of the points. Throws Cancelled.
SettledPlies settle(const TriangleMesh& mesh, const std::vector<FaceFlow>& faces, std::vector<double> start,
                    const std::vector<char>& wet, const std::vector<std::uint32_t>& vents,
                    const SettleRules& rules, Progress& progress);

}  // namespace jig
