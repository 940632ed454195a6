// What the part carries: its loads with what they do to it, and how it is held.
#pragma once

#include "app/stages/panes.hpp"

namespace jig::app {

Pane* make_duty_pane(Document& document, QWidget* parent);

}  // namespace jig::app
