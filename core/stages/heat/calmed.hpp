// Programmes that keep a cure from running too hot.
#pragma once

#include <functional>
#include <optional>

#include "core/stages/heat/cures.hpp"

namespace jig::heat {

/// Whether a cure is as it should be.
using Good = std::function<bool(const CureRun&)>;

/// The run's legs behind one more: a hold, as warm as may be in whole kelvin, until all of it has gelled, by
/// which the cure is `good`. None where its own legs begin no warmer than the room, or no such hold does.
/// Throws as warm().
std::optional<std::vector<Leg>> gelled_first(const CureRun& run, double within, const Good& good,
                                             Progress& progress);

/// The run's legs with none hotter than the hottest, in whole kelvin, at which the cure is `good` and gels;
/// held up to sixteen times as long for that. None where no heat over the room's does. Throws as warm().
std::optional<std::vector<Leg>> held_cooler(const CureRun& run, double within, const Good& good,
                                            Progress& progress);

}  // namespace jig::heat
