// Everything that leaves the window as a file, as one list: the menu, the palette and the tests read it.
#pragma once

#include <QString>
#include <vector>

#include "core/job/evaluate.hpp"

namespace jig::app {

/// What an export is made from.
struct Outgoing {
    const Job& job;
    const Findings& findings;
    const Shop& shop;
    Stage stage;  ///< the one on screen
    Wording wording;
    QString path;
};

struct Export {
    const char* key;
    QString act;     ///< as the menu says it
    QString filter;  ///< of the file dialog
    QString suffix;
    /// Writes the file and says what was written. Runs behind the window; throws InputError, Cancelled.
    QString (*write)(const Outgoing& out, Progress& progress);
};

[[nodiscard]] const std::vector<Export>& exports();

}  // namespace jig::app
