// The glass transition that a cure leaves behind.
#pragma once

#include <algorithm>

namespace jig {

/// K. A resin vitrifies when its Tg passes its own heat and creeps on a little from there, by `lead` in a
/// cure of hours; past `full` there is nothing left to react. `hottest` K is the highest heat that it has
/// been held at.
inline double glass_after(double full, double lead, double hottest) {
    return std::min(full, hottest + lead);
}

}  // namespace jig
