// The sheets as they will come out of the printer, before they do.
#pragma once

#include <QDialog>
#include <QPrinter>

#include "app/print/sheets.hpp"

class QComboBox;
class QLabel;
class QPrintPreviewWidget;
class QPushButton;

namespace jig::app {

class PrintPreview : public QDialog {
    Q_OBJECT
  public:
    /// Shows the sheets of this job as it is now; `stage` is the one that may be printed alone.
    PrintPreview(Job job, Findings findings, Stage stage, const Wording& wording, QWidget* parent);
    [[nodiscard]] int pages() const;
    [[nodiscard]] SheetOptions options() const;

  signals:
    void pdf_wanted(const SheetOptions& options);
    void printed(const QString& words);

  private:
    void renew();
    void turn(int by);
    void send_to_printer();
    Job job_;
    Findings findings_;
    Wording wording_;
    QPrinter printer_;
    QPrintPreviewWidget* sheets_;
    QComboBox *what_, *paper_;
    QLabel* page_;
    QPushButton *before_, *after_;
};

}  // namespace jig::app
