// What stands on paper for each stage: its calls, its figures, its tables with boxes to tick, its cautions.
#pragma once

#include "app/print/page.hpp"

namespace jig::app {

/// All stages in working order, the brief with every call first and an empty page of the log last.
void draw_all(SheetPen& pen, const Job& job, const Findings& findings, const Wording& wording);

/// One stage's sheet.
void draw_stage(SheetPen& pen, const Job& job, const Findings& findings, Stage stage, const Wording& wording);

}  // namespace jig::app
