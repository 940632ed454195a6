// How parts join each other, or a part's halves: steps, laps, beads.
#pragma once

#include "core/base/fields.hpp"

namespace jig {

enum class JointKind { none, butt, joggle, returned, bead };
template <>
struct Words<JointKind> {
    static constexpr std::array all{Word{"none", "no joint"}, Word{"butt", "a butt with a strip inside"},
                                    Word{"joggle", "a joggle lap"}, Word{"returned", "a returned flange"},
                                    Word{"bead", "a bead of adhesive on a lap"}};
};

namespace part {

struct Joint {
    JointKind kind = JointKind::none;
    double length = 0;  ///< m; 0 for the seams' length, or the rim's where the mould is one piece
    double lap = 20;    ///< thicknesses that it overlaps by
    std::string adhesive = "structural adhesive, room temperature";  ///< in the library's bonds
    double gap = 0.0005;                                             ///< m of adhesive
    double tape = 0.00013;          ///< m that one layer of the shop's tape is thick
    double squeeze_out = 0.3;       ///< share of the adhesive that leaves the joint
    std::optional<double> density;  ///< kg/m³ of adhesive as weighed here; none for the library's
    static void fields(auto& c, auto&& v) {
        v("kind", c.kind);
        v("length", c.length, 0.0, 1000.0);
        v("lap", c.lap, 0.0, 200.0);
        v("adhesive", c.adhesive);
        v("gap", c.gap, 0.0, 0.02);
        v("tape", c.tape, 1e-5, 0.005);
        v("squeeze_out", c.squeeze_out, 0.0, 3.0);
        v("density", c.density, 500.0, 3000.0);
    }
    bool operator==(const Joint&) const = default;
};

struct JointFigures {
    double length = 0, lap = 0;  ///< m
    double flange_area = 0;      ///< m² of returned flange, on this part alone
    double step = 0;             ///< m that the joggle is deep: the mate's thickness and the gap
    int tape_layers = 0;         ///< of the shop's tape that build it on the mould
    double tape_length = 0;      ///< m of tape a lap wide, all layers
    double bead = 0;             ///< m, diameter of the bead to lay
    double adhesive = 0;         ///< kg, squeeze-out counted
    bool operator==(const JointFigures&) const = default;
};

/// Where a lap should lie, in thicknesses, typical: under the first it peels, the second is ample.
inline constexpr double kShortLap = 10, kAmpleLap = 20;
/// m; a thinner gap starves, a thicker one weakens, typical.
inline constexpr double kTightGap = 0.0002, kWideGap = 0.001;

/// `thickness` m of the mating laminate at its edge, where a core has ended, `along` m of the line that it
/// follows where no length is given, `density` kg/m³ of its adhesive. A butt strip lies a lap to each side. A
/// bead of diameter d fills a lap by π/4·d² = lap × gap.
JointFigures join(const Joint& joint, double thickness, double along, double density);

}  // namespace part
}  // namespace jig
