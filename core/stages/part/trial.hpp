// What happens to the part under what its maker says it has to carry.
#pragma once

#include "core/base/shared.hpp"
#include "core/stages/edge/flange.hpp"
#include "core/stages/part/choices.hpp"
#include "core/stages/part/draped.hpp"
#include "core/stages/part/inserts.hpp"
#include "core/stages/part/regions.hpp"
#include "core/stages/stage.hpp"

namespace jig::part {

/// All that the trial depends on but the face itself and how cloth lies on it.
struct DutyAsked {
    Duty duty;
    Choices stack;  ///< layers, zones, inserts, resin and way of laying alone
    bool operator==(const DutyAsked&) const = default;
};
DutyAsked duty_asked(const Choices& choices);

/// What gives first as a load grows.
enum class GivesWay { nothing, cracks, fibres, core_shears, wrinkles, crushes, buckles };

struct LoadResult {
    std::string name;
    std::string how;              ///< the load in figures
    double moves = 0;             ///< m, the largest displacement
    double differs = 0;           ///< m that it may be out by; 0 on the coarse mesh, which stands alone
    Point worst = Point::Zero();  ///< where that is; upright
    std::string where;            ///< the same in words
    // Each as a share of what is borne, the factor not counted.
    double cracks = 0;      ///< largest strain of any ply ÷ what the resin bears before it cracks
    double fibres = 0;      ///< largest strain along fibres ÷ what they bear
    double core_shear = 0;  ///< shear stress of a core ÷ its strength
    double wrinkles = 0;    ///< compression of a skin ÷ what wrinkles it
    double crushes = 0;     ///< pressure under a push ÷ what crushes the core
    double buckles = 0;     ///< times the load at which it buckles; 0 where none was found
    double none_below = 0;  ///< times the load up to which no buckling was found, by Sturm's count
    double lifted = 0;      ///< share of its rim's length that comes off what it rests on
    std::vector<std::uint32_t> lies{};  ///< points of its rim that do not; none where all lie
    /// N in all by which a rim that it rests on has to hold it down; 0 where it stays there by itself.
    double lifts = 0;
    double reactions = 0;                ///< N on the supports along the pull
    std::vector<Eigen::Vector3f> field;  ///< m, displacement by point
    /// The largest share, 1 ÷ the buckling factor among them, and what it is of.
    [[nodiscard]] std::pair<double, GivesWay> most() const;
    /// The same of what lets go: first cracks weaken and leak, and are left out.
    [[nodiscard]] std::pair<double, GivesWay> lets_go() const;
    bool operator==(const LoadResult&) const = default;
};

struct Trial {
    std::vector<LoadResult> loads;
    TriangleMesh mesh;                ///< upright: length, width and pull are x, y, z
    std::vector<std::uint32_t> held;  ///< points of it
    struct Patch {
        std::size_t load = 0;
        Point at = Point::Zero(), force = Point::Zero();  ///< upright; N
        bool operator==(const Patch&) const = default;
    };
    std::vector<Patch> pushes;
    std::vector<std::string> notes;
    std::vector<std::string> unjudged;  ///< cores whose shear strength the library has not
    double edge = 0;                    ///< m of its mesh
    double mass = 0;                    ///< kg
    std::size_t freedoms = 0;
    bool fine = false;
    bool operator==(const Trial&) const = default;
};

/// What of the library a trial reads.
using DutyLibrary = Lists<Reinforcement, Resin, SurfaceCoat, Core, Board>;

/// All loads on one mesh; `coarse` gives the error estimate. Faces are of the laminate where their middles
/// lie, cloth as its net lies there. Throws InputError for a part without loads, places without bolts, a part
/// that is not held; Cancelled.
Trial try_out(const DutyAsked& asked, const TriangleMesh& face, const Frame& frame, const Draped& draped,
              const DutyLibrary& shop, const Trial* coarse, Progress& progress);

std::vector<Figure> trial_figures(const Trial& trial, const Duty& duty);
Calls trial_calls(const Trial& trial, const Duty& duty);

/// In words: "its resin cracks".
std::string said(GivesWay way);

}  // namespace jig::part
