// Paper: tiles of full-size drawings, the preview, each stage's own sheet.
#include <QComboBox>
#include <QPrintPreviewWidget>

#include "app/print/full_size.hpp"
#include "app/print/preview.hpp"
#include "core/stages/cautions.hpp"
#include "tests/app/bench.hpp"
#include "tests/quiet.hpp"

using namespace bench;

namespace {

int pages_of(const QString& pdf) {
    QString info;
    text_of_pdf(pdf, &info);
    return info.mid(info.indexOf("Pages:") + 6, 20).trimmed().split('\n').front().toInt();
}

FullSize square(double side) {
    return {{{{0, 0}, {side, 0}, {side, side}, {0, side}}}, "a square"};
}

}  // namespace

TEST_CASE("a drawing is parted over as few pages as cover it, each repeating a strip of its neighbour") {
    bool across = true;
    // A4 shows 194 x 267 mm with its margins and foot; steps are 10 mm less.
    auto t = tiling({190, 260}, QPageSize(QPageSize::A4), across);
    CHECK(t.columns * t.rows == 1);
    CHECK_FALSE(across);
    CHECK(t.seen.width() == Approx(194));
    CHECK(t.seen.height() == Approx(267));
    CHECK(t.step.width() == Approx(184));
    t = tiling({195, 260}, QPageSize(QPageSize::A4), across);
    CHECK(t.columns * t.rows == 2);
    // What is wide and low lies across: 281 mm fit, 280 are asked.
    t = tiling({280, 150}, QPageSize(QPageSize::A4), across);
    CHECK(across);
    CHECK(t.columns * t.rows == 1);
    for (const double wide : {100.0, 194.0, 378.0, 378.5, 1000.0, 2440.0}) {
        for (const double high : {100.0, 267.0, 524.0, 525.0, 1220.0}) {
            INFO(wide << " x " << high);
            t = tiling({wide, high}, QPageSize(QPageSize::Letter), across);
            CHECK((t.columns - 1) * t.step.width() + t.seen.width() >= wide - 1e-9);
            CHECK((t.rows - 1) * t.step.height() + t.seen.height() >= high - 1e-9);
            // One page less would not do.
            if (t.columns > 1) CHECK((t.columns - 2) * t.step.width() + t.seen.width() < wide);
            if (t.rows > 1) CHECK((t.rows - 2) * t.step.height() + t.seen.height() < high);
            CHECK(t.seen.width() - t.step.width() == Approx(kOverlap));
        }
    }
}

TEST_CASE("tiles carry their place, pages without a line are left out, and the bar is 100 mm on each") {
    const QTemporaryDir folder;
    const auto pdf = folder.path() + "/tiles.pdf";
    // 1 m square: 1030 mm with its paper, on A4 six columns by four rows; the middle is empty.
    print_full_size({square(1)}, "square", pdf, QPageSize::A4, quiet);
    bool across = false;
    const auto t = tiling({1030, 1030}, QPageSize(QPageSize::A4), across);
    REQUIRE(t.columns >= 4);
    REQUIRE(t.rows >= 4);
    CHECK(pages_of(pdf) == 2 * t.columns + 2 * t.rows - 4);
    const auto text = text_of_pdf(pdf);
    CHECK(text.contains(QString("row %1 of %1, column %2 of %2").arg(t.rows).arg(t.columns)));
    CHECK(text.count("100 mm: measure before cutting") == pages_of(pdf));
    CHECK(text.contains("a square"));
    // As one page it is as large as the square.
    print_full_size({square(1)}, "square", pdf, {}, quiet);
    CHECK(pages_of(pdf) == 1);
    QString info;
    text_of_pdf(pdf, &info);
    CHECK(info.contains("Page size:"));
    CHECK(std::abs(info.section("Page size:", 1).trimmed().section(' ', 0, 0).toDouble() - 1030 / 25.4 * 72) <
          2);
    // A small piece is one page, turned paper or not; nothing at all is refused in words.
    print_full_size({square(0.05), square(0.15)}, "two", pdf, QPageSize::Letter, quiet);
    CHECK(pages_of(pdf) == 2);
    CHECK_THROWS_AS(print_full_size({}, "none", pdf, QPageSize::A4, quiet), InputError);
    // Stopped half way, what was there stays.
    Progress stopped;
    stopped.stop();
    CHECK_THROWS_AS(print_full_size({square(1)}, "square", pdf, QPageSize::A4, stopped), Cancelled);
    CHECK(pages_of(pdf) == 2);
}

TEST_CASE("full-size exports are tiled by the dialog's filter") {
    CHECK_FALSE(tiles_by("PDF, a page as large as each (*.pdf)"));
    CHECK(tiles_by("PDF in tiles of A4 (*.pdf)") == QPageSize::A4);
    CHECK(tiles_by("PDF in tiles of Letter (*.pdf)") == QPageSize::Letter);
    Bench b;
    for (const auto& what : exports()) {
        if (QString(what.key) != "x-slabs-pdf") continue;
        CHECK(what.filter.split(";;").size() == 3);
        for (const auto& filter : what.filter.split(";;")) CHECK(filter.endsWith("(*.pdf)"));
        REQUIRE(b.window.write_out(what, b.file("tiles.pdf"), QPageSize::A4));
        REQUIRE(b.home());
        REQUIRE(b.message().startsWith("Written"));
    }
    CHECK(b.write_out("x-slabs-pdf", b.file("whole.pdf")).startsWith("Written"));
    CHECK(pages_of(b.file("tiles.pdf")) > pages_of(b.file("whole.pdf")));
    CHECK(text_of_pdf(b.file("tiles.pdf")).contains("row 1 of"));
}

TEST_CASE("every stage has a sheet of its own with its calls, its cautions and boxes, in both papers") {
    Bench b;
    b.settle();
    const auto& job = b.window.document().job();
    const auto& f = b.window.document().findings();
    for (std::size_t s = 0; s < kStages.size(); ++s) {
        const auto stage = static_cast<Stage>(s);
        INFO(kStages[s].said);
        const auto pdf = b.file("stage.pdf");
        SheetOptions options;
        options.page = s % 2 == 0 ? QPageSize::A4 : QPageSize::Letter;
        options.only = stage;
        print_sheets(job, f, pdf, options);
        const auto text = text_of_pdf(pdf);
        CHECK(text.contains(kStages[s].said));
        CHECK(text.contains(QDate::currentDate().toString(Qt::ISODate)));
        CHECK(text.contains(QString("page %1 of %1").arg(pages_of(pdf))));
        for (const auto& figure : f.figures(stage)) {
            INFO(figure.name);
            // A narrow column breaks at a figure's own blanks.
            CHECK(run_together(text).contains(
                run_together(QString::fromStdString(show(figure.kind, figure.value))).left(4)));
        }
        if (!cautions_for(job, stage).empty()) CHECK(text.contains("Take care"));
        // Each look has a box in the day plan.
        if (stage == Stage::run) CHECK(text.count("ticked") >= 2);
    }
}

TEST_CASE("Heat's sheet lists every fold with what to build it at and room for the first part") {
    Bench b;
    const auto& f = b.window.document().findings();
    REQUIRE(f.heat);
    const auto& use = f.heat->folds;
    REQUIRE(use.all.size() >= 2);
    SheetOptions options;
    options.only = Stage::heat;
    const auto pdf = b.file("heat.pdf");
    print_sheets(b.window.document().job(), f, pdf, options);
    const auto text = run_together(text_of_pdf(pdf));
    CHECK(text.contains(run_together("Folds, as the part closes")));
    CHECK(text.contains(run_together("first part")));
    for (std::size_t i = 0; i < use.all.size(); ++i) {
        INFO(i);
        CHECK(text.contains(QString::number(degrees(use.all[i].build), 'f', 2)));
    }
}

TEST_CASE("the preview shows the pages that the printer gets, turned by keys") {
    Bench b;
    b.window.show_stage(Stage::release);
    b.settle();
    b.key(Qt::Key_P, Qt::ControlModifier);
    REQUIRE(b.home());
    auto* preview = b.window.findChild<PrintPreview*>("preview");
    REQUIRE(preview != nullptr);
    REQUIRE(QTest::qWaitForWindowExposed(preview));
    const auto label = [&] { return preview->findChild<QLabel*>("preview-page")->text(); };
    const int all = preview->pages();
    REQUIRE(all > 3);
    CHECK(label() == QString("page 1 of %1").arg(all));
    QApplication::setActiveWindow(preview);
    QTest::keyClick(preview, Qt::Key_PageDown);
    CHECK(label() == QString("page 2 of %1").arg(all));
    QTest::keyClick(preview, Qt::Key_PageUp);
    QTest::keyClick(preview, Qt::Key_PageUp);
    CHECK(label() == QString("page 1 of %1").arg(all));
    CHECK(shows_something(preview->grab().toImage()));
    // As many pages as the PDF of the same paper.
    const auto pdf = b.file("all.pdf");
    CHECK(b.write_out("print-a4", pdf).startsWith("Printed"));
    CHECK(pages_of(pdf) == all);
    // One stage alone is the next entry of the list.
    auto* what = preview->findChild<QComboBox*>("preview-what");
    what->setFocus();
    QTest::keyClick(what, Qt::Key_Down);
    CHECK(what->currentText() == "Release alone");
    CHECK(preview->pages() < all);
    CHECK(preview->options().only == Stage::release);
    QTest::keyClick(preview, Qt::Key_Escape);
    QTest::qWait(30);
    CHECK(b.window.findChild<PrintPreview*>("preview") == nullptr);
}

TEST_CASE("without figures there is no preview, and why is said") {
    Bench b;
    auto job = b.window.document().job();
    job.shape.kind = ShapeKind::mesh;
    job.shape.file = "gone.stl";
    b.window.document().replace("lose the mesh", std::move(job));
    b.settle();
    b.key(Qt::Key_P, Qt::ControlModifier);
    CHECK(b.window.findChild<PrintPreview*>("preview") == nullptr);
}
