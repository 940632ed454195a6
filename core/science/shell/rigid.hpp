// Whether supports hold a structure against moving as a whole.
#pragma once

#include <optional>
#include <string>

#include "core/science/shell/model.hpp"

namespace jig::shell_fe {

/// A rigid motion that the held freedoms (six a point, nonzero where held) leave to one of the parts that
/// hang together by faces, bars or ties, in words; nothing where each part is held in all six. Exact in the
/// rank of what is held, whatever the stiffness.
std::optional<std::string> free_motion(const Model& model, const std::vector<char>& held);

}  // namespace jig::shell_fe
