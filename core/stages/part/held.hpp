// What holds a part on trial: bolts, or the rim that it is clamped by, stands or rests on.
#pragma once

#include "core/base/progress.hpp"
#include "core/science/shell/system.hpp"
#include "core/stages/part/choices.hpp"

namespace jig::part {

/// `mesh` is the face upright. Of a part that rests on its rim the rim comes first, then two of its points,
/// which keep it from wandering and strain nothing. Throws InputError for bolts without places, and for a
/// face without a rim.
std::vector<shell_fe::Support> held_by(const Duty& duty, const TriangleMesh& mesh, const TriangleMesh& face,
                                       const Frame& frame, std::vector<std::string>& notes);

/// A load of a part that rests on its rim.
struct OnRim {
    double lifted = 0;                 ///< share of the rim that comes off
    double held_down = 0;              ///< N in all; 0 where it stays there by itself
    std::vector<std::uint32_t> bears;  ///< points of the rim that do; none where all may
    std::vector<std::uint32_t> lies;   ///< and those that hang clear by next to nothing; none where all do
};

/// What each load does where the rim only pushes and slides, in place of `solved`, in which it also pulls.
/// `supports` are those of held_by(). Throws Cancelled.
std::vector<OnRim> rested(const shell_fe::System& system, const std::vector<shell_fe::Support>& supports,
                          const std::vector<shell_fe::Loads>& loads, std::vector<shell_fe::Solution>& solved,
                          Progress& progress);

}  // namespace jig::part
