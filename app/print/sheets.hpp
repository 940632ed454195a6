// Job sheets on paper, and cut templates at full size.
#pragma once

#include <QPageSize>

#include "app/theme/ink.hpp"
#include "core/job/evaluate.hpp"

namespace jig::app {

struct SheetOptions {
    QPageSize::PageSizeId page = QPageSize::A4;
    Wording wording;
};

/// Brief, section, stack, release clock, materials, days, cautions as a PDF. Throws InputError where the file
/// cannot be written or the job has no complete findings.
void print_sheets(const Job& job, const Findings& findings, const QString& path, const SheetOptions& options);

/// One outline to cut by, with what is written under it.
struct FullSize {
    Loops outline;
    QString words;
    std::vector<Loop> engraved = {};  ///< open lines on its face
    std::vector<std::pair<Point2, QString>> labels = {};
};
std::vector<FullSize> pieces_at_full_size(const std::vector<CutPiece>& pieces, const Wording& wording);
std::vector<FullSize> boards_at_full_size(const std::vector<split::Board>& boards, const Wording& wording);

/// One page each at full size, with the axes' origin and a 100 mm check bar; the page is as large as the
/// outline. Throws InputError where there is none or the file cannot be written.
void print_full_size(const std::vector<FullSize>& outlines, const QString& title, const QString& path,
                     Progress& progress);

/// A picture of every piece in its order, with where it lies and how it is marked. Throws InputError.
void print_assembly(const Job& job, const std::vector<CutPiece>& pieces, const plug::Findings& plug,
                    const QString& path, const SheetOptions& options);

/// The section at the cut as SVG. Throws InputError.
void write_section_svg(const Job& job, const Findings& findings, Stage stage, const QString& path,
                       const Wording& wording);

}  // namespace jig::app
