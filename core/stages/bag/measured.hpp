// What a job's fronts make of the shop's own materials.
#pragma once

#include <string>
#include <vector>

#include "core/shop/shop.hpp"
#include "core/stages/bag/infusion.hpp"
#include "core/stages/part/choices.hpp"

namespace jig::bag {

/// One material of the library whose permeability is now the shop's own.
struct Measured {
    std::string name;
    double before = 0, after = 0;  ///< m², along it
    bool operator==(const Measured&) const = default;
};

/// Lets every cloth of the part (or of a shell as one), and the medium where the infusion lays one, pass as
/// much in `shop` as the job takes them to (`lets`): fronts tell all layers together, so all go by the same
/// factor. A core's slits and holes are told by their sizes and stay as those say. The job is then to go back
/// to `lets` of 1. `origin` stands with the figures that changed. Throws InputError where nothing would
/// change, or a figure would leave what the library bears.
std::vector<Measured> keep_measured(Shop& shop, const Infusion& infusion, const part::Choices& part,
                                    const Origin& origin);

/// The lists of the library that it may change.
inline constexpr std::array kMeasuredLists{"reinforcements", "consumables"};

}  // namespace jig::bag
