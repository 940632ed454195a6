// Everything that leaves the window as a file, as one list: the menu, the palette and the tests read it.
#pragma once

#include <optional>
#include <QPageSize>
#include <QStringList>
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
    std::optional<QPageSize::PageSizeId> tiles = {};  ///< for what is drawn at full size
};

struct Export {
    const char* key;
    Stage of;        ///< the stage whose sheet it is
    QString act;     ///< as the menu says it
    QString filter;  ///< of the file dialog
    QString suffix;
    /// Why it does not fit this job now; empty where it does.
    QString (*why_not)(const Job& job, const Findings& findings);
    /// Whether it writes NAME-1, NAME-2 … in place of NAME.
    bool numbered;
    /// Writes the file and says what was written. Runs behind the window; throws InputError, Cancelled.
    QString (*write)(const Outgoing& out, Progress& progress);
};

[[nodiscard]] const std::vector<Export>& exports();

/// Why the sheets cannot be drawn now; empty where they can.
[[nodiscard]] QString sheets_missing(const Findings& findings);

/// The pages that a file dialog's filter for full-size drawings stands for; none for pages as large as each.
[[nodiscard]] std::optional<QPageSize::PageSizeId> tiles_by(const QString& filter);

/// What stands in the folder already and would be written over; empty where nothing is in the way.
[[nodiscard]] QStringList in_the_way(const Export& what, const QString& path);

}  // namespace jig::app
