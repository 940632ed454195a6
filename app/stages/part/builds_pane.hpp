// The builds that are kept of a part: named, taken away, set side by side.
#pragma once

#include "app/stages/panes.hpp"

namespace jig::app {

Pane* make_builds_pane(Document& document, QWidget* parent);

}  // namespace jig::app
