// One sheet after another: head, foot, and a pen that moves down the page.
#pragma once

#include <QPagedPaintDevice>
#include <QPainter>

#include "app/print/sheets.hpp"

namespace jig::app {

/// A cell that is drawn as a box to tick.
inline const QString kBox = QString(QChar(0x2610));

/// Paints in points on a device of 72 dots to the inch, so that fonts and lengths count alike. First run
/// counts the pages, second writes "page x of y".
class SheetPen {
  public:
    SheetPen(QPagedPaintDevice& device, const Job& job, const SheetOptions& options, int pages);
    /// `with` is the height that must follow on the same page.
    void heading(const QString& text, double with = 70);
    void paragraph(const QString& text, double points = 10, bool strong = false, const QColor& colour = {});
    /// Columns with the share of the width that each takes; figures to the right where `right` says so.
    void table(const QStringList& titles, const QList<QStringList>& rows, const std::vector<double>& shares,
               const std::vector<bool>& right);
    /// A rectangle of this height, on a fresh page where it does not fit.
    QRectF room(double height);
    void new_page();
    void space(double points) { y_ += points; }
    [[nodiscard]] int pages() const { return page_; }
    [[nodiscard]] QPainter& painter() { return painter_; }
    [[nodiscard]] const Ink& ink() const { return ink_; }
    [[nodiscard]] double width() const { return body_.width(); }

  private:
    void head_and_foot();
    void need(double height);
    QPagedPaintDevice& device_;
    const Job& job_;
    SheetOptions options_;
    const Ink& ink_;
    QPainter painter_;
    QRectF page_rect_, body_;
    double y_ = 0;
    int page_ = 1, of_;
};

}  // namespace jig::app
