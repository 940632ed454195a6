// Corners of a line on the part's face as they are typed: "along : across", one after the other.
#pragma once

#include <optional>
#include <QString>
#include <vector>

#include "core/base/units.hpp"
#include "core/stages/part/zone.hpp"

namespace jig::app {

/// In the unit that lengths are shown in, which is not said.
QString corners_text(const std::vector<part::Spot>& corners, const Wording& wording);
/// None where it cannot be read: `why` then says which corner.
std::optional<std::vector<part::Spot>> read_corners(const QString& text, const Wording& wording,
                                                    QString& why);

}  // namespace jig::app
