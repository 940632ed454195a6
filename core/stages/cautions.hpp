// What can hurt someone at each stage. Shown beside the work, on the sheets and in the report.
#pragma once

#include "core/stages/stage.hpp"

namespace jig {

/// Short sentences for one stage; empty where the stage is only planning.
const std::vector<std::string>& cautions_of(Stage stage);

/// The one that stands under every sheet.
inline constexpr const char* kDeferral =
    "The supplier's data sheet, local codes and licensed practice come first. Figures here are estimates.";

}  // namespace jig
