// What can hurt somebody on each route.
#pragma once

#include <string>
#include <vector>

#include "core/stages/plug/choices.hpp"

namespace jig::plug {

/// Sentences for the routes that the choices take, those of every plug last.
std::vector<std::string> hazards(const Choices& choices);

}  // namespace jig::plug
