// The order in which a shell is laid up.
#pragma once

#include "core/stages/shell/findings.hpp"

namespace jig::shell {

/// Fills `order` and `batches` of findings whose stack, area, corners, working times and day ends are known.
void order_laying(const Choices& choices, const brief::Crew& brief, const Library& shop, Findings& findings);

}  // namespace jig::shell
