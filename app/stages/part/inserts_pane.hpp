// Where bolts go: the part's inserts as a table.
#pragma once

#include "app/stages/panes.hpp"

namespace jig::app {

Pane* make_inserts_pane(Document& document, QWidget* parent);

}  // namespace jig::app
