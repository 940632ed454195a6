// Outlines to cut and drill by, at full size: on pages as large as they are, or in tiles of a usual page.
#pragma once

#include <optional>
#include <QPageSize>
#include <QSizeF>

#include "core/base/progress.hpp"
#include "core/base/units.hpp"
#include "core/science/nest/cut_sheets.hpp"
#include "core/stages/split/board.hpp"

namespace jig::app {

/// One outline to cut by, with what is written under it.
struct FullSize {
    Loops outline;
    QString words;
    std::vector<Loop> engraved = {};  ///< open lines on its face
    std::vector<std::pair<Point2, QString>> labels = {};
};
std::vector<FullSize> pieces_at_full_size(const std::vector<CutPiece>& pieces, const Wording& wording);
std::vector<FullSize> boards_at_full_size(const std::vector<split::Board>& boards, const Wording& wording);

/// How a drawing is parted over pages: neighbours repeat a strip of kOverlap, in which both carry the same
/// crosses.
struct Tiling {
    int columns = 1, rows = 1;
    QSizeF step;  ///< mm from one page's corner to the next one's, on the drawing
    QSizeF seen;  ///< mm of the drawing on a page
};
constexpr double kOverlap = 10;  ///< mm

/// The pages for a drawing of this size in mm, laid upright or across, whichever needs fewer.
Tiling tiling(const QSizeF& drawing, const QPageSize& page, bool& across);

/// Each outline at full size with the axes' origin and a 100 mm check bar: on a page as large as it is, or
/// with `tiles` on pages of that size with overlap, crosses and their place among the others; pages on which
/// nothing lies are left out. Throws InputError where there is none or the file cannot be written, Cancelled.
void print_full_size(const std::vector<FullSize>& outlines, const QString& title, const QString& path,
                     std::optional<QPageSize::PageSizeId> tiles, Progress& progress);

}  // namespace jig::app
