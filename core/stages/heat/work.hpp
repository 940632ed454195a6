#pragma once

#include "core/stages/heat/findings.hpp"
#include "core/stages/work.hpp"

namespace jig::heat {

/// The tool's post-cure, and the oven of each pull of prepreg. `room` K.
Work work(double room, const shell::Choices& shell, const part::Choices& part_choices,
          const Resin& part_resin, const Lists<Rate>& shop);

}  // namespace jig::heat
