// The oven's map, as a thermometer read it, and what its ends come to.
#pragma once

#include "app/stages/panes.hpp"

namespace jig::app {

class Document;

Pane* make_oven_pane(Document& document, QWidget* parent);

}  // namespace jig::app
