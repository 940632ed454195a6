// Job files of older versions, brought up to this one.
#pragma once

#include "core/base/json.hpp"

namespace jig {

/// The job of `version` (1 up to one less than this program's) as this version would have written it. A step
/// touches only what it moves: keys of a wrong type are left for the reader to name.
Json brought_up(Json job, int version);

}  // namespace jig
