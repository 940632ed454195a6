#include "app/print/preview.hpp"

#include <algorithm>
#include <QAction>
#include <QBoxLayout>
#include <QComboBox>
#include <QLabel>
#include <QPrintDialog>
#include <QPrintPreviewWidget>
#include <QPushButton>

namespace jig::app {

PrintPreview::PrintPreview(Job job, Findings findings, Stage stage, const Wording& wording, QWidget* parent)
    : QDialog(parent), job_(std::move(job)), findings_(std::move(findings)), wording_(wording) {
    setObjectName("preview");
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle("Sheets of " + QString::fromStdString(job_.brief.job));
    resize(900, 760);
    auto* column = new QVBoxLayout(this);
    auto* row = new QHBoxLayout;
    column->addLayout(row);
    const auto box = [&](const char* name, const QString& said) {
        auto* b = new QComboBox(this);
        b->setObjectName(name);
        b->setAccessibleName(said);
        b->setToolTip(said);
        row->addWidget(b);
        return b;
    };
    const auto button = [&](const char* name, const QString& text, const QString& tip) {
        auto* b = new QPushButton(text, this);
        b->setObjectName(name);
        b->setToolTip(tip);
        b->setAutoDefault(false);
        row->addWidget(b);
        return b;
    };
    what_ = box("preview-what", "Which sheets");
    what_->addItem("All sheets", -1);
    what_->addItem(QString("%1 alone").arg(name_of(stage).said), static_cast<int>(stage));
    what_->insertSeparator(2);
    for (std::size_t s = 0; s < kStages.size(); ++s)
        what_->addItem(QString("%1 alone").arg(kStages[s].said), static_cast<int>(s));
    paper_ = box("preview-paper", "Paper");
    paper_->addItem("A4", QPageSize::A4);
    paper_->addItem("Letter", QPageSize::Letter);
    if (wording.system == UnitSystem::imperial) paper_->setCurrentIndex(1);
    row->addStretch(1);
    before_ = button("preview-before", "Page before", "Page Up");
    page_ = new QLabel(this);
    page_->setObjectName("preview-page");
    row->addWidget(page_);
    after_ = button("preview-after", "Page after", "Page Down");
    auto* farther = button("preview-farther", "Farther", "Ctrl+Minus");
    auto* closer = button("preview-closer", "Closer", "Ctrl+Plus");
    row->addStretch(1);
    auto* pdf = button("preview-pdf", "Write a PDF…", "The same sheets as a file");
    auto* print = button("preview-print", "Print…", "Choose a printer");
    printer_.setResolution(kSheetDots);
    printer_.setDocName(QString::fromStdString(job_.brief.job));
    sheets_ = new QPrintPreviewWidget(&printer_, this);
    sheets_->setAccessibleName("The sheets");
    column->addWidget(sheets_, 1);
    connect(sheets_, &QPrintPreviewWidget::paintRequested, this, [this](QPrinter* printer) {
        auto now = options();
        now.page = printer->pageLayout().pageSize().id();
        draw_sheets(*printer, job_, findings_, now);
    });
    connect(sheets_, &QPrintPreviewWidget::previewChanged, this, [this] { turn(0); });
    connect(what_, &QComboBox::currentIndexChanged, this, &PrintPreview::renew);
    connect(paper_, &QComboBox::currentIndexChanged, this, &PrintPreview::renew);
    connect(before_, &QPushButton::clicked, this, [this] { turn(-1); });
    connect(after_, &QPushButton::clicked, this, [this] { turn(1); });
    connect(closer, &QPushButton::clicked, this, [this] { sheets_->zoomIn(1.25); });
    connect(farther, &QPushButton::clicked, this, [this] { sheets_->zoomOut(1.25); });
    connect(pdf, &QPushButton::clicked, this, [this] { emit pdf_wanted(options()); });
    connect(print, &QPushButton::clicked, this, &PrintPreview::send_to_printer);
    const auto key = [&](const QKeySequence& keys, QPushButton* does) {
        auto* action = new QAction(this);
        action->setShortcut(keys);
        connect(action, &QAction::triggered, does, &QPushButton::click);
        addAction(action);
    };
    key(Qt::Key_PageUp, before_);
    key(Qt::Key_PageDown, after_);
    key(QKeySequence::ZoomIn, closer);
    key(QKeySequence::ZoomOut, farther);
    key(QKeySequence::Print, print);
    renew();
}

int PrintPreview::pages() const {
    return sheets_->pageCount();
}

SheetOptions PrintPreview::options() const {
    SheetOptions out;
    out.page = static_cast<QPageSize::PageSizeId>(paper_->currentData().toInt());
    out.wording = wording_;
    if (const int stage = what_->currentData().toInt(); stage >= 0) out.only = static_cast<Stage>(stage);
    return out;
}

void PrintPreview::renew() {
    printer_.setPageSize(QPageSize(options().page));
    printer_.setPageMargins(QMarginsF(kSheetMargin, kSheetMargin, kSheetMargin, kSheetMargin),
                            QPageLayout::Millimeter);
    sheets_->updatePreview();
    sheets_->setCurrentPage(1);
    sheets_->fitInView();
    turn(0);
}

void PrintPreview::turn(int by) {
    const int all = std::max(1, sheets_->pageCount()), now = std::clamp(sheets_->currentPage() + by, 1, all);
    if (by != 0) sheets_->setCurrentPage(now);
    page_->setText(QString("page %1 of %2").arg(now).arg(all));
    before_->setEnabled(now > 1);
    after_->setEnabled(now < all);
}

void PrintPreview::send_to_printer() {
    QPrintDialog dialog(&printer_, this);
    if (dialog.exec() != QDialog::Accepted) return;
    sheets_->print();
    emit printed(printer_.outputFileName().isEmpty() ? "Sent to " + printer_.printerName()
                                                     : "Printed: " + printer_.outputFileName());
}

}  // namespace jig::app
