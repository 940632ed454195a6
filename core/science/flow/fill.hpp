// Resin through a porous surface: which place is wet when, and what stays dry (docs/methods.md, Flow).
#pragma once

#include <optional>
#include <vector>

#include "core/base/progress.hpp"
#include "core/science/flow/preform.hpp"
#include "core/science/flow/viscosity.hpp"

namespace jig {

/// When something happens: at a time, or when the front has come to a place.
struct FlowMoment {
    std::optional<double> time;  ///< s
    std::optional<Point> wet;
    bool operator==(const FlowMoment&) const = default;
};

struct Feed {
    std::vector<std::uint32_t> points;  ///< of the mesh
    double pressure = 101325;           ///< Pa absolute, of what its hose draws from
    FlowMoment open{0.0, {}};
    std::optional<FlowMoment> shut;
    double resists = 0;  ///< 1/m³: its hose takes μ·resists·flow off the pressure
    bool operator==(const Feed&) const = default;
};

/// Of a round hose, for `resists`: 128·L/(π·d⁴) (Hagen 1839, Poiseuille 1840). m; 0 for no hose.
double hose_resists(double length, double bore);

struct Vent {
    std::vector<std::uint32_t> points;
    double pressure = 0;  ///< Pa absolute
    bool operator==(const Vent&) const = default;
};

struct FlowRules {
    double end = 1e6;               ///< s
    std::vector<double> times;      ///< s at which the share filled is asked for
    double density = 1100;          ///< kg/m³ of the resin
    Point gravity = Point::Zero();  ///< m/s²
    double share = 1.0 / 120;       ///< of the volume that one step fills
};

/// A place that resin shuts off while it has no vent.
struct DrySpot {
    Point at = Point::Zero();
    double area = 0;  ///< m²
    bool operator==(const DrySpot&) const = default;
};

struct Filling {
    std::optional<double> fill;                  ///< s until all is wet; none where it never is
    double filled = 0;                           ///< share of the pore volume, at the end
    std::vector<std::optional<double>> arrival;  ///< s, of each point of the mesh
    std::optional<std::uint32_t> last;           ///< point that was wet last
    std::vector<DrySpot> dry;                    ///< largest first
    double taken = 0;                            ///< kg that went in
    double held = 0;                             ///< kg that the preform holds
    double bled = 0;                             ///< kg that left by the vents
    struct Given {
        std::optional<double> opened, shut;  ///< s
        double mass = 0;                     ///< kg
        double least = 0;                    ///< Pa, the least that its hose let through to it
        bool operator==(const Given&) const = default;
    };
    std::vector<Given> feeds;
    std::vector<std::optional<double>> vents;  ///< s at which resin reaches each vent
    std::vector<double> front;                 ///< share filled at the times asked for
    /// What had gone in by then: s and kg, rising, from the first feed's opening to the end.
    std::vector<std::pair<double, double>> intake;
    std::vector<double> pressure;  ///< Pa at each point at the end
    std::optional<double> gelled;  ///< s, where the resin gelled before the end
    int steps = 0;
    /// Steps whose wet points would not settle: what follows them is worth so much less.
    int unsettled = 0;
    bool operator==(const Filling&) const = default;
};

/// Darcy by control volumes on linear triangles; each step is one linear complementarity problem (wet, or dry
/// at the vents' pressure), so that the filling is exact in time however long the steps (Elliott 1980).
/// `faces` one for each triangle. Without any vent the whole face is taken as emptied before. Throws
/// InputError where no feed has a point, a place holds nothing, or falling resin breaks up; Cancelled.
Filling fill(const TriangleMesh& mesh, const std::vector<FaceFlow>& faces, const std::vector<Feed>& feeds,
             const std::vector<Vent>& vents, const Viscosity& viscosity, const FlowRules& rules,
             Progress& progress);

}  // namespace jig
