// What the window remembers from day to day, beside the jobs.
#pragma once

#include <optional>
#include <QStringList>

#include "app/theme/ink.hpp"
#include "core/base/units.hpp"
#include "core/stages/stage.hpp"

namespace jig::app {

/// The files that were last open, newest first; those that are gone are left out.
[[nodiscard]] QStringList recent_jobs();
void remember_job(const QString& path);
/// Where file dialogs begin: where the last one ended.
[[nodiscard]] QString last_folder();
void remember_folder(const QString& path);

/// Units, inks and text size of the last time. What the maker never chose follows the system: its locale's
/// units, its dark mode, its own text size.
[[nodiscard]] Wording kept_wording();
void keep_wording(const Wording& wording);
[[nodiscard]] Light kept_light();
void keep_light(Light light);
[[nodiscard]] double kept_text_scale();
void keep_text_scale(double scale);
/// Whether the maker wants the section drawn in a stage; none while it was never said.
[[nodiscard]] std::optional<bool> kept_section(Stage stage);
void keep_section(Stage stage, bool drawn);

}  // namespace jig::app
