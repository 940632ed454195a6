// Edge, Shell and Back in the real window: fittings dragged, doublers painted, schools and stacks compared,
// the tool on trial.
#include <QApplication>
#include <QComboBox>
#include <QMenu>
#include <QSlider>
#include <QTableWidget>

#include "app/charts/charts.hpp"
#include "core/science/mesh/outline_file.hpp"
#include "core/science/mesh/stl.hpp"
#include "core/stages/back/suggest.hpp"
#include "tests/app/bench.hpp"

using namespace bench;

namespace {

void send_away(Bench& b, const char* act) {
    b.window.findChild<QAction*>(QString("act-%1").arg(act))->trigger();
    REQUIRE(b.home());
}

QString write_out(Bench& b, const char* key, const QString& name) {
    for (const auto& what : exports()) {
        if (what.key != std::string(key)) continue;
        REQUIRE(b.window.write_out(what, b.file(name)));
        REQUIRE(b.home());
    }
    return b.file(name);
}

RecordTable* table(Bench& b, const char* name) {
    return b.visible<RecordTable>(name);
}

}  // namespace

TEST_CASE("the tool is tried out behind the window, and a load is shown by choosing it") {
    Bench b;
    b.window.show_stage(Stage::back);
    b.settle();
    REQUIRE(tried(b.window.document()));
    QTest::qWait(50);
    const auto& f = b.window.document().findings();
    REQUIRE(f.trial);
    CHECK(f.trial->fine);
    auto* cases = table(b, "trial");
    REQUIRE(cases->rowCount() == static_cast<int>(f.trial->cases.size()) + 1);
    CHECK(b.window.findChild<QLabel*>("trial-state")->text().contains("out by"));
    // The figures tell it too, with where they come from.
    auto* figure = b.window.findChild<FigureRow*>("figure-row-case_standing");
    REQUIRE(figure != nullptr);
    CHECK(figure->toolTip().contains("finite elements"));
    CHECK(b.window.stand().scene().slider == "apart");
    int leaning = 0;
    for (std::size_t i = 0; i < f.trial->cases.size(); ++i) {
        if (f.trial->cases[i].kind == LoadCase::leaning) leaning = static_cast<int>(i) + 1;
    }
    cases->selectRow(leaning);
    QTest::qWait(30);
    const auto& scene = b.window.stand().scene();
    CHECK(scene.slider == "bend");
    CHECK(scene.legend.contains("leaning"));
    CHECK(scene.corners.size() > 3 * f.trial->mesh.triangles.size());
    // Figures stand on the contour lines.
    CHECK(std::count_if(scene.labels.begin(), scene.labels.end(),
                        [](const SceneLabel& l) { return l.text.contains("mm"); }) >= 2);
    // Drawn bent further when the slider is pushed.
    const auto before = scene.corners;
    b.window.findChild<QSlider*>("apart")->setValue(100);
    QTest::qWait(30);
    double most = 0;
    for (std::size_t i = 0; i < std::min(before.size(), b.window.stand().scene().corners.size()); ++i)
        most = std::max(most,
                        static_cast<double>(std::abs(before[i].z - b.window.stand().scene().corners[i].z)));
    CHECK(most > 1e-3);
    CHECK(shows_something(b.window.stand().grab().toImage()));
    cases->selectRow(0);
    QTest::qWait(30);
    CHECK(b.window.stand().scene().slider == "apart");
    // An edit keeps figures on screen, marked, until the new trial is in.
    b.window.document().edit("pitch", patch_of("back", "pitch", 0.18));
    b.settle();
    CHECK(b.window.findChild<QLabel*>("figure-case_standing") != nullptr);
    REQUIRE(tried(b.window.document()));
    CHECK(b.window.document().findings().trial != nullptr);
    const auto csv = read_file(write_out(b, "x-trial", "trial.csv").toStdString());
    CHECK(csv.find("a person leaning on the rim") != std::string::npos);
}

TEST_CASE("a pitch is sought by solving, shown as it was tried, taken and undone") {
    Bench b;
    b.window.show_stage(Stage::back);
    b.settle();
    QTest::mouseClick(b.visible<QPushButton>("seek-pitch"), Qt::LeftButton);
    REQUIRE(b.home());
    b.settle();
    REQUIRE(b.window.document().findings().pitches);
    const double pitch = b.window.document().findings().pitches->pitch;
    CHECK(table(b, "pitches")->rowCount() >= 5);
    b.visible<QPushButton>("take-pitch")->click();
    b.settle();
    CHECK(b.window.document().job().back.pitch == pitch);
    CHECK(b.window.document().findings().pitches);
    b.window.document().undo();
    b.settle();
    CHECK(b.window.document().job().back.pitch == 0.22);
    b.window.document().edit("kind", patch_of("back", "kind", "none"));
    b.settle();
    CHECK_FALSE(b.window.document().findings().pitches);
    QTest::mouseClick(b.visible<QPushButton>("seek-pitch"), Qt::LeftButton);
    REQUIRE(b.home());
    CHECK(b.window.findChild<QLabel*>("message")->text().contains("no ribs"));
}

TEST_CASE("every demo is drawn in every stage, and of a mould in pieces the one that is chosen") {
    for (const char* demo : {"cello-case", "cello-case-whole", "radar-dome", "pavilion-petal"}) {
        Bench b(demo);
        for (int i = 0; i < static_cast<int>(kStages.size()); ++i) {
            const auto stage = static_cast<Stage>(i);
            INFO(demo << " " << name_of(stage).key);
            b.window.show_stage(stage);
            QTest::qWait(5);
            CHECK_FALSE(b.window.findChild<QLabel*>("message")->text().contains("what was before"));
            if (!has_chart(stage)) CHECK(b.window.stand().scene().corners.size() > 500);
        }
    }
    Bench b("cello-case-whole");
    b.window.show_stage(Stage::back);
    b.settle();
    const auto middle = [&] {
        const auto& tool = *b.window.document().findings().edge->tool;
        Point sum = Point::Zero();
        for (const auto& p : tool.rimmed.mesh.points) sum += p;
        return Point(sum / static_cast<double>(tool.rimmed.mesh.points.size()));
    };
    const Point one = middle();
    QTest::mouseClick(b.word("/edge/piece"), Qt::LeftButton);
    auto* list = b.editor()->findChild<QListWidget*>();
    REQUIRE(list != nullptr);
    REQUIRE(list->count() == 2);
    list->setCurrentRow(1);
    QTest::keyClick(list, Qt::Key_Return);
    b.settle();
    CHECK(b.window.document().job().edge.piece == 2);
    // The case lies split at its widest line: its halves stand one above, one below.
    CHECK(one.z() * middle().z() < 0);
    REQUIRE(tried(b.window.document()));
    REQUIRE(b.window.document().findings().trial);
    CHECK(b.window.document().findings().trial->find(LoadCase::standing)->moves > 0);
}

TEST_CASE("every back is drawn, and ribs and templates leave as files") {
    Bench b;
    b.window.show_stage(Stage::back);
    b.settle();
    write_out(b, "x-ribs-dxf", "ribs.dxf");
    // Read back, the largest outline is the sheet itself.
    const auto& stock = need(b.window.document().shop().boards, b.window.document().job().back.board, "test");
    CHECK(signed_area(read_outline(read_file(b.file("ribs-1.dxf").toStdString()), "ribs-1.dxf", 0.001)) ==
          Approx(stock.sheet_length * stock.sheet_width).epsilon(1e-3));
    CHECK(text_of_pdf(write_out(b, "x-ribs-pdf", "ribs.pdf")).contains("across 1"));
    CHECK(text_of_pdf(write_out(b, "x-drilling-pdf", "drilling.pdf")).contains("wedge slot"));
    write_out(b, "x-drilling-dxf", "drilling.dxf");
    const auto& outer = b.window.document().findings().edge->outline;
    const Point2 size = high_corner(outer) - low_corner(outer) + Point2::Constant(0.04);
    CHECK(signed_area(read_outline(read_file(b.file("drilling-1.dxf").toStdString()), "drilling-1.dxf",
                                   0.001)) == Approx(size.x() * size.y()).epsilon(1e-3));
    for (const char* kind : {"none", "foam_blocks", "tubes", "frame", "sandwich"}) {
        b.window.document().edit("kind", patch_of("back", "kind", kind));
        b.settle();
        REQUIRE(tried(b.window.document()));
        INFO(kind);
        CHECK_FALSE(b.window.stand().scene().legend.isEmpty());
        CHECK(shows_something(b.window.stand().grab().toImage()));
    }
    for (const auto& what : exports()) {
        if (what.key != std::string("x-ribs-dxf")) continue;
        REQUIRE(b.window.write_out(what, b.file("none.dxf")));
        REQUIRE(b.home());
    }
    CHECK(b.window.findChild<QLabel*>("message")->text().contains("no ribs"));
}

TEST_CASE("fittings are dragged along the rim, added, typed and laid by the rules again") {
    Bench b;
    b.window.document().edit("process", patch_of("brief", "process", "squeeze"));
    b.window.show_stage(Stage::edge);
    b.settle();
    auto& stand = b.window.stand();
    stand.frame_all();
    const auto at = stand.mark_place(0);
    REQUIRE_FALSE(at.isNull());
    auto* canvas = b.window.findChild<QWidget*>("canvas");
    const auto was = b.window.document().findings().edge->fits[0].at;
    QTest::mousePress(canvas, Qt::LeftButton, Qt::NoModifier, at.toPoint());
    QTest::mouseMove(canvas, (at + QPointF(-40, 25)).toPoint());
    QTest::mouseMove(canvas, (at + QPointF(-60, 40)).toPoint());
    QTest::mouseRelease(canvas, Qt::LeftButton, Qt::NoModifier, (at + QPointF(-60, 40)).toPoint());
    b.settle();
    const auto& job = b.window.document().job();
    CHECK_FALSE(job.edge.by_rule);
    REQUIRE_FALSE(job.edge.placed.empty());
    CHECK(job.edge.placed[0].at != Approx(was).margin(1e-4));
    CHECK(job.edge.placed[0].at == Approx(edge::snapped(b.window.document().findings().edge->fitting_line,
                                                        job.edge.placed[0].at, job.edge.bolt_pitch)));
    // One drag is one step.
    const auto fits = job.edge.placed.size();
    auto* fittings = table(b, "fittings");
    CHECK(fittings->rowCount() == static_cast<int>(fits));
    b.window.findChild<QAction*>("add-bush")->trigger();
    b.settle();
    CHECK(b.window.document().job().edge.placed.size() == fits + 1);
    CHECK(b.window.document().findings().edge->count(Fitting::bush) == 1);
    emit fittings->typed(0, 1, "300");
    b.settle();
    CHECK(b.window.document().job().edge.placed[0].at ==
          Approx(0.3 / perimeter(b.window.document().findings().edge->fitting_line)).epsilon(1e-3));
    emit fittings->typed(0, 1, "a long way");
    CHECK(b.window.findChild<QLabel*>("message")->text().contains("no length"));
    fittings->selectRow(0);
    b.visible<QPushButton>("fitting-away")->click();
    b.settle();
    CHECK(b.window.document().job().edge.placed.size() == fits);
    b.visible<QPushButton>("fittings-fresh")->click();
    b.settle();
    CHECK(b.window.document().job().edge.by_rule);
    // Undone step by step back to the rules.
    for (int i = 0; i < 6 && b.window.document().undo_name() != "process"; ++i) b.window.document().undo();
    CHECK(b.window.document().job().edge.by_rule);
}

TEST_CASE("doublers are added, edited as stacks of their own, painted on the stand and taken away") {
    Bench b;
    b.window.show_stage(Stage::shell);
    b.settle();
    b.window.document().edit("bare", patch_of("shell", "zones", Json::array()));
    b.settle();
    const double before = b.window.document().findings().shell->mass;
    b.window.findChild<QAction*>("doubler-flange")->trigger();
    b.settle();
    REQUIRE(b.window.document().job().shell.zones.size() == 1);
    CHECK(b.window.document().findings().shell->mass > before);
    auto* zones = b.visible<QComboBox>("zones");
    CHECK(zones->count() == 2);
    CHECK(zones->currentIndex() == 1);
    CHECK(table(b, "stack-shell")->rowCount() == 2);
    b.visible<QPushButton>("add-light-shell")->click();
    b.settle();
    CHECK(b.window.document().job().shell.zones[0].layers.size() == 3);
    CHECK(b.window.findChild<QLabel*>("figure-zone_1") != nullptr);
    // Painted: the brush in hand, a stroke on the shell.
    auto& stand = b.window.stand();
    REQUIRE(stand.scene().brushes.size() == 2);
    for (auto* word : b.window.findChildren<QAbstractButton*>()) {
        if (word->text() == "doubler" && word->isVisible()) word->click();
    }
    auto* canvas = b.window.findChild<QWidget*>("canvas");
    const QPoint middle(canvas->width() / 2, canvas->height() / 2 - 20);
    QTest::mousePress(canvas, Qt::LeftButton, Qt::NoModifier, middle);
    QTest::mouseMove(canvas, middle + QPoint(12, 4));
    QTest::mouseRelease(canvas, Qt::LeftButton, Qt::NoModifier, middle + QPoint(12, 4));
    b.settle();
    const auto& job = b.window.document().job();
    REQUIRE(job.shell.zones.size() == 2);
    CHECK(job.shell.zones[1].kind == ZoneKind::painted);
    CHECK_FALSE(job.shell.zones[1].painted.empty());
    CHECK(b.window.document().findings().shell->zones[1].area > 0);
    CHECK(stand.scene().legend.contains("doubled"));
    // The brush goes on with the doubler that its first stroke began; another has its own.
    REQUIRE(stand.scene().brushes.size() == 2);
    CHECK(stand.scene().brushes[0].zone == 1u);
    b.window.findChild<QAction*>("doubler-painted")->trigger();
    b.settle();
    REQUIRE(stand.scene().brushes.size() == 3);
    CHECK(stand.scene().brushes[1].name == "doubler 3");
    CHECK(zones->itemText(3) == "doubler 3, where it is painted");
    stand.setFocus();
    QTest::keyClick(&stand, Qt::Key_Space);
    b.settle();
    CHECK(b.window.document().job().shell.zones[2].painted.empty());
    QTest::keyClick(&stand, Qt::Key_B);
    QTest::keyClick(&stand, Qt::Key_Space);
    b.settle();
    CHECK(b.window.document().job().shell.zones[2].painted.size() == 1);
    b.visible<QPushButton>("doubler-away")->click();
    b.settle();
    zones->setCurrentIndex(1);
    emit zones->activated(1);
    b.visible<QPushButton>("doubler-away")->click();
    b.settle();
    CHECK(b.window.document().job().shell.zones.size() == 1);
    CHECK(table(b, "lay-order")->rowCount() > 5);
}

TEST_CASE("a build is typed in the shop's units, ply by ply or as a total, and undone") {
    Bench b;
    b.window.show_stage(Stage::shell);
    b.settle();
    const auto& document = b.window.document();
    const auto before = document.job().shell.layers;
    auto* units = b.visible<QLineEdit>("build-in-units");
    REQUIRE(units->text() == "1 + 1.9 + 2.9 + 7 × 5.7 + 2.9 + 1.9 + 1");
    const auto type = [&](const QString& text) {
        units->setFocus();
        units->selectAll();
        QTest::keyClicks(units, text);
        QTest::keyClick(units, Qt::Key_Return);
        b.settle();
    };
    type("1 + 2 + 3 x 6 + 2 + 1");
    const auto& layers = document.job().shell.layers;
    REQUIRE(layers.size() == 9);
    CHECK(layers[4].material == "glass cloth 600 twill");
    CHECK(table(b, "stack-shell")->rowCount() == 9);
    CHECK(table(b, "stack-shell")->item(4, 5)->text() == "5.7");
    CHECK(b.window.findChild<QLabel*>("counted-in-units")->text() == "= 23");  // (2·105 + 2·200 + 3·600)/105
    // A total reads ply by ply once it is laid.
    type("40");
    CHECK(units->text().contains("×"));
    CHECK(std::abs(document.findings().shell->units - 40) <= 0.5);
    // What is no build stays to be mended, says why, and changes nothing.
    const auto kept = document.job().shell.layers;
    type("13 + 1");
    CHECK(document.job().shell.layers == kept);
    CHECK(units->text() == "13 + 1");
    CHECK(b.window.findChild<QLabel*>("message")->text().contains("13 units"));
    // Results that come in later leave it standing too.
    emit b.window.document().evaluated();
    QTest::qWait(50);
    CHECK(units->text() == "13 + 1");
    b.window.findChild<QAction*>("act-undo")->trigger();
    b.settle();
    b.window.findChild<QAction*>("act-undo")->trigger();
    b.settle();
    CHECK(document.job().shell.layers == before);
    // A doubler counts for itself.
    b.window.findChild<QAction*>("doubler-corners")->trigger();
    b.settle();
    CHECK(units->text() == "2 × 5.7");
    type("3 x 6");
    CHECK(document.job().shell.zones.back().layers.size() == 3);
    CHECK(document.job().shell.layers == before);
}

TEST_CASE("schools are set side by side with reasons, one is taken and undone") {
    Bench b;
    b.window.show_stage(Stage::shell);
    b.settle();
    send_away(b, "schools");
    auto& sheet = b.window.shell_sheet();
    REQUIRE(sheet.isVisible());
    const auto sums = sheet.findChildren<QToolButton*>("sum");
    CHECK(sums.size() == 70);
    QTest::mouseClick(sums.front(), Qt::LeftButton);
    CHECK(sheet.findChild<QLabel*>("sums-why")->text().contains(sums.front()->toolTip()));
    CHECK(sheet.findChild<QPushButton*>("take-glass_epoxy") == nullptr);
    // A word that changes the shell makes the sheet old; it says so, and is worked out anew on demand.
    CHECK(sheet.findChild<QLabel*>("shell-sheet-old") == nullptr);
    b.type("/shell/waste", "22");
    CHECK(sheet.is_old());
    REQUIRE(b.visible<QLabel>("shell-sheet-old")->text().contains("changed"));
    QTest::mouseClick(b.visible<QPushButton>("shell-sheet-renew"), Qt::LeftButton);
    REQUIRE(b.home());
    CHECK_FALSE(sheet.is_old());
    CHECK(sheet.isVisible());
    sheet.findChild<QPushButton*>("take-carbon_epoxy")->click();
    b.settle();
    CHECK(b.window.document().job().shell.school == School::carbon_epoxy);
    CHECK_FALSE(sheet.isVisible());
    b.window.document().undo();
    b.settle();
    CHECK(b.window.document().job().shell.school == School::glass_epoxy);
}

TEST_CASE("a stack is sought, chosen on its curve, taken and undone") {
    Bench b;
    b.window.show_stage(Stage::shell);
    b.settle();
    const auto old = b.window.document().job().shell.layers;
    QTest::mouseClick(b.visible<QPushButton>("seek-stack"), Qt::LeftButton);
    REQUIRE(b.home());
    auto& sheet = b.window.shell_sheet();
    REQUIRE(sheet.isVisible());
    REQUIRE(sheet.found().curve.size() > 3);
    CHECK(sheet.findChild<QLabel*>("stacks-told")->text().contains("keep to your limits"));
    // The stiffest, at the curve's right end.
    auto* curve = sheet.findChild<QWidget*>("curve");
    QTest::mouseClick(curve, Qt::LeftButton, Qt::NoModifier,
                      QPoint(curve->width() - 14, curve->height() - 26));
    QTest::qWait(50);
    CHECK(sheet.findChild<RecordTable*>("stack-found")->rowCount() ==
          static_cast<int>(sheet.found().curve.back().layers.size()));
    sheet.findChild<QPushButton*>("take-stack")->click();
    b.settle();
    CHECK(b.window.document().job().shell.layers == sheet.found().curve.back().layers);
    b.window.document().undo();
    b.settle();
    CHECK(b.window.document().job().shell.layers == old);
}
