// The programme of a cure that is over soonest and harms nothing.
#pragma once

#include "core/stages/heat/findings.hpp"

namespace jig::heat {

/// What a programme has to reach, and what it must not do on the way.
struct CureBounds {
    double cure = 0;                    ///< least degree of cure of all that reacts, at the end
    std::optional<double> Tg;           ///< K, the least there
    double air = 400;                   ///< K, the hottest air
    std::string air_by;                 ///< what asks for that, in words
    double plug = 600;                  ///< K that the first layer stands, where it is a plug
    double overshoot = 15;              ///< K that the resin may run past the air
    std::optional<double> under_glass;  ///< K that all stays under its Tg once it has gelled
    double climbs = 0.01;               ///< K/s up and down at most
    double within = 5;                  ///< K, the band in which a hold's clock runs
    bool operator==(const CureBounds&) const = default;
};

struct Fastest {
    std::optional<CureRun>
        run;             ///< worked out in full at all its places; none where no programme keeps the bounds
    int tried = 0;       ///< programmes
    std::string stands;  ///< what stood in the way, where there is none
};

/// Of programmes of one leg or two, on a grid of 5 K of heat and four rates (seven where Tg has to keep
/// ahead), with holds as long as it takes. Longer than `longest` s is not looked at. Throws as warm();
/// Cancelled.
Fastest fastest(const CureRun& run, const CureBounds& bounds, double longest, Progress& progress);

/// CureBounds of a job's cure: no less cured than by the programme that it has, a free-standing shell to the
/// Tg that Brief's heat asks for where its resin can; no hotter than what lies in the oven bears.
CureBounds bounds_of(const CureRun& run, const Choices& choices, const Findings& findings,
                     const Warmed& with);

}  // namespace jig::heat
