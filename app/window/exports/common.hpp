// What the writers of all stages share, and the lists that they come to.
#pragma once

#include "app/window/exports.hpp"
#include "core/science/nest/cut_sheets.hpp"

namespace jig::app {

[[nodiscard]] std::vector<Export> exports_of_shape();
[[nodiscard]] std::vector<Export> exports_of_split();
[[nodiscard]] std::vector<Export> exports_of_plug();
[[nodiscard]] std::vector<Export> exports_of_tool();
[[nodiscard]] std::vector<Export> exports_of_part();
[[nodiscard]] std::vector<Export> exports_of_bag();
[[nodiscard]] std::vector<Export> exports_of_run();

/// A file dialog's filters for what is drawn at full size; tiles_by reads the chosen one.
inline constexpr const char* kFullSize =
    "PDF, a page as large as each (*.pdf);;PDF in tiles of A4 (*.pdf);;PDF in tiles of Letter (*.pdf)";

[[nodiscard]] QString written(const QString& path);

/// The findings of a stage. Throws InputError where there are none.
template <class Found>
const Found& needed(const std::shared_ptr<const Found>& found, const char* stage) {
    if (!found)
        throw InputError(stage, "this stage has no figures to export",
                         "mend the stops on the job card first");
    return *found;
}

/// Why there is nothing of the shape to write.
[[nodiscard]] QString shape_there(const Job& job, const Findings& findings);

/// Where numbered files went: the folder and the first and last name.
[[nodiscard]] QString went_to(const QString& path, std::size_t count, const QString& ending);

/// "NAME-1", "NAME-2" beside each other in the folder of `path`, without its ending.
[[nodiscard]] QString numbered(const QString& path, std::size_t i);

/// Each sheet as DXF and SVG.
void write_sheets(const SheetSet& sheets, const QString& path, Progress& progress);

/// How many sheets, how well used, and what is left of them.
[[nodiscard]] QString said_of(const SheetSet& sheets, const Outgoing& out);

/// Numbered meshes in the format of `path`'s ending; says what was written.
QString write_meshes(const std::vector<TriangleMesh>& meshes, const char* what, const QString& path,
                     Progress& progress);

}  // namespace jig::app
