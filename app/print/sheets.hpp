// Job sheets on paper.
#pragma once

#include <optional>
#include <QPageSize>

#include "app/theme/ink.hpp"
#include "core/job/evaluate.hpp"

class QPagedPaintDevice;

namespace jig::app {

struct SheetOptions {
    QPageSize::PageSizeId page = QPageSize::A4;
    Wording wording;
    std::optional<Stage> only = {};  ///< one stage's sheet; none for all of them
};

/// Sheets are laid out in points: printers and PDF writers are set to so many dots an inch.
constexpr int kSheetDots = 72;
constexpr double kSheetMargin = 16;  ///< mm

/// Draws the sheets on a device of kSheetDots with kSheetMargin all round: a printer, a preview, a PDF.
/// Throws InputError where the job has no complete findings.
void draw_sheets(QPagedPaintDevice& device, const Job& job, const Findings& findings,
                 const SheetOptions& options);

/// The same as a PDF. Throws InputError where the file cannot be written, too.
void print_sheets(const Job& job, const Findings& findings, const QString& path, const SheetOptions& options);

/// A picture of every piece in its order, with where it lies and how it is marked. Throws InputError.
void print_assembly(const Job& job, const std::vector<CutPiece>& pieces, const plug::Findings& plug,
                    const QString& path, const SheetOptions& options);

/// The section at the cut as SVG. Throws InputError.
void write_section_svg(const Job& job, const Findings& findings, Stage stage, const QString& path,
                       const Wording& wording);

/// A stage's charts under each other as SVG. Throws InputError where it has none.
void write_charts_svg(const Job& job, const Findings& findings, Stage stage, const QString& path,
                      const Wording& wording);

}  // namespace jig::app
