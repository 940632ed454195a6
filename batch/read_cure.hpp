// Resins that cure, as cases write them.
#pragma once

#include "core/base/json.hpp"
#include "core/science/heat/kinetics.hpp"
#include "core/shop/shop.hpp"

namespace jig::batch {

/// By a name of the shop library, or by its constants. Throws InputError.
Kinetics kinetics_from(const JsonPlace& place, const Shop& shop);
Json to_json(const Kinetics& kinetics);

}  // namespace jig::batch
