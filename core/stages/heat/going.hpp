// What the cures of a life have in common: how each goes, and what it leaves to the next.
#pragma once

#include "core/stages/heat/cures.hpp"

namespace jig::heat {

/// What every cure of a job goes by beside its legs.
struct Going {
    const Conditions& in;
    const OvenEnds& ends;
    const CureLibrary& shop;
    Progress& progress;

    /// By the maker's own legs, or the usual ones where there are none.
    [[nodiscard]] CureRun run(CureWalls cure, const std::vector<Leg>& own,
                              const std::vector<Leg>& usual) const;
    /// One leg: to that heat, as fast as the shop goes, and so long there.
    [[nodiscard]] std::vector<Leg> one_leg(double T, double hold) const;
    /// With the programme's air on both sides.
    [[nodiscard]] Wall standing(std::vector<WallLayer> layers) const;
};

/// What a doubler or a zone, or the common wall, has come to where it was least warm.
const WallHistory& least_of(const CureRun& run, std::optional<std::size_t> of);
/// Layers that were `before` others in a wall, as that wall has left them.
void left_by(const WallHistory& h, std::size_t before, std::vector<WallLayer>& layers);
/// Layers as a cure has left those of their name, where they are least cured.
void left_by_name(const CureRun& run, std::vector<WallLayer>& layers);

/// A stack that lies somewhere instead of the common one.
struct Elsewhere {
    std::string name;
    const StackSum* stack = nullptr;
    const std::vector<std::size_t>* days = nullptr;  ///< of a doubler, see shell::ZoneSum
    std::size_t number = 0;                          ///< in its list
};
/// Those that differ most from `common` in thickness, each name once.
std::vector<Elsewhere> most_different(std::vector<Elsewhere> all, const StackSum& common);

}  // namespace jig::heat
