// Whether what stands on its feet is tipped over by a push on its rim.
#pragma once

#include <span>

#include "core/science/mesh/outline.hpp"

namespace jig::back {

struct Tips {
    double force = 0;       ///< N straight down on the rim that lifts it off its far feet; infinite for never
    std::size_t where = 0;  ///< which place of the rim
    double ballast = 0;     ///< kg on its middle that hold it against the push asked for
    bool operator==(const Tips&) const = default;
};

/// About each side of the feet's outline the weight turns it back by its distance inside, a push on the rim
/// over by its own outside: P = W·d/D, the least over sides and places. Force 0 where the weight itself lies
/// outside the feet. `push` is what the ballast is to stand.
Tips tips(std::span<const Point2> feet, const Point2& centre, double weight, std::span<const Point2> rim,
          double push);

}  // namespace jig::back
