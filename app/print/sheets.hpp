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

/// One page a slab at full size with its number, the pull's x and y marks and a 100 mm check bar; the page is
/// as large as the slab. Throws InputError.
void print_slabs(const Findings& findings, const QString& path, const Wording& wording);

/// The section at the cut as SVG. Throws InputError.
void write_section_svg(const Job& job, const Findings& findings, Stage stage, const QString& path,
                       const Wording& wording);

}  // namespace jig::app
