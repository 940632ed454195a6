// Stacks that hold a skin to a sag at a mass and in so many days.
#pragma once

#include "core/base/progress.hpp"
#include "core/stages/back/choices.hpp"
#include "core/stages/shell/findings.hpp"

namespace jig::shell {

/// One stack, with what it comes to on this job.
struct Proposal {
    std::vector<Layer> layers;
    double thickness = 0;  ///< m
    double sag = 0;        ///< m of a strip of skin over the rib pitch under own weight and a hand
    double mass = 0;       ///< kg of shell and flange
    double price = 0;      ///< of materials, shell and flange
    int days = 1;          ///< of laying up
    bool fits = false;     ///< within all three limits
    bool operator==(const Proposal&) const = default;
};

struct Found {
    std::vector<Proposal> curve;  ///< none of them is beaten in both mass and sag; lightest first
    std::size_t tried = 0;
    int best = -1;  ///< the lightest that fits; -1 where none does
    bool operator==(const Found&) const = default;
};

/// Searches over plies of the school's own cloths: coats kept as the school has them, then the lightest
/// cloth, then heavier, mirrored about the middle, turned by 45° every other ply. All are symmetric beyond
/// their coats, balanced, and step up from light to heavy. `area` m² of shell and flange; days by the `go` of
/// the stack that there is. Throws InputError for materials that the library has not; Cancelled.
Found find_stacks(const Choices& like, const Seek& wanted, const back::Choices& back, double area,
                  const GoLimit& go, const Library& shop, Progress& progress);

}  // namespace jig::shell
