// Cuts in the part's cloth.
#pragma once

#include "app/stages/panes.hpp"

namespace jig::app {

Pane* make_cuts_pane(Document& document, QWidget* parent);

}  // namespace jig::app
