// The part's folds: what each turns by, what it closes by, and how open to build it.
#pragma once

#include "app/stages/panes.hpp"

namespace jig::app {

class Document;

Pane* make_folds_pane(Document& document, QWidget* parent);

}  // namespace jig::app
