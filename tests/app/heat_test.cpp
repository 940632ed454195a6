// Cures as programmes, and the part's cloth, by hand in the window.
#include <QClipboard>

#include "app/charts/chart_view.hpp"
#include "app/charts/charts.hpp"
#include "app/stand/scene.hpp"
#include "tests/app/bench.hpp"

using namespace bench;

namespace {

RecordTable* table_of(Bench& b, const char* name) {
    auto* table = b.window.findChild<RecordTable*>(name);
    REQUIRE(table != nullptr);
    return table;
}

/// Types into a cell as a maker does: a double click, the words, Return.
void type_cell(Bench& b, RecordTable* table, int row, int column, const QString& text) {
    const auto where = table->visualItemRect(table->item(row, column)).center();
    QTest::mouseClick(table->viewport(), Qt::LeftButton, {}, where);
    QTest::mouseDClick(table->viewport(), Qt::LeftButton, {}, where);
    QTest::qWait(20);
    auto* field = table->findChild<QLineEdit*>();
    REQUIRE(field != nullptr);
    field->selectAll();
    QTest::keyClicks(field, text);
    QTest::keyClick(field, Qt::Key_Return);
    QTest::qWait(20);
    b.settle();
}

}  // namespace

TEST_CASE(
    "a programme is typed leg by leg, its charts follow, and its leg taken away gives the usual one back") {
    Bench b;
    b.window.show_stage(Stage::heat);
    b.settle();
    const auto run = [&] { return *b.window.document().findings().heat->cures->find(CureOf::post_cure); };
    const auto usual = run();
    REQUIRE(usual.usual);
    auto* table = table_of(b, "legs-post_cure");
    CHECK_FALSE(table->isVisible());
    auto* more = b.window.findChild<QPushButton*>("add-post_cure");
    REQUIRE(more != nullptr);
    more->setFocus();
    QTest::keyClick(more, Qt::Key_Space);
    b.settle();
    REQUIRE(table->rowCount() == 1);
    // The first leg is what the usual one did.
    CHECK(b.window.document().job().heat.post_cure[0].to == Approx(usual.highest_air));
    CHECK(b.window.document().job().heat.post_cure[0].rate == Approx(10.0 / 3600).epsilon(1e-3));
    type_cell(b, table, 0, 0, "90");
    type_cell(b, table, 0, 1, "15");
    type_cell(b, table, 0, 2, "6 h");
    const auto& leg = b.window.document().job().heat.post_cure[0];
    CHECK(leg.to == Approx(kelvin(90)));
    CHECK(leg.rate == Approx(15.0 / 3600));
    CHECK(leg.hold == Approx(6 * 3600));
    CHECK(run().highest_air == Approx(kelvin(90)));
    CHECK_FALSE(run().usual);
    // What is no heat, no rate and no time is not taken.
    type_cell(b, table, 0, 0, "900");
    CHECK(leg.to == Approx(kelvin(90)));
    type_cell(b, table, 0, 1, "-5");
    CHECK(b.window.document().job().heat.post_cure[0].rate == Approx(15.0 / 3600));
    // Too quick, the shell sags, and the call's fix slows it down.
    type_cell(b, table, 0, 0, "115");
    type_cell(b, table, 0, 1, "300");
    CHECK(b.visible<QLabel>("call-sags") != nullptr);
    b.fix("sags");
    b.settle();
    for (const auto& c : b.window.document().findings().calls) CHECK(c.key != "sags");
    CHECK(b.window.document().job().heat.post_cure[0].rate < 300.0 / 3600);
    // The big charts show all cures beside the sizes; values are read by key and copied.
    int plots = 0;
    for (auto* plot : b.window.findChildren<PlotView*>())
        plots += plot->isVisible() && plot->objectName().startsWith("plot");
    CHECK(plots == 4);
    auto* heat = b.visible<PlotView>("plot-2");
    REQUIRE(heat != nullptr);
    heat->setFocus();
    QTest::keyClick(heat, Qt::Key_Right);
    CHECK(heat->read());
    QTest::keyClick(heat, Qt::Key_C, Qt::ControlModifier);
    CHECK(QApplication::clipboard()->text().contains("Tg"));
    // Undo leads back step by step; the last leg taken away is the usual one.
    table->setFocus();
    table->selectRow(0);
    QTest::keyClick(table, Qt::Key_Delete);
    b.settle();
    CHECK(b.window.document().job().heat.post_cure.empty());
    CHECK(run().usual);
    CHECK(run().seconds == Approx(usual.seconds));
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.window.document().job().heat.post_cure.size() == 1);
}

TEST_CASE("the soonest programme is looked for behind the window, taken as one step, and undone") {
    Bench b;
    b.window.show_stage(Stage::heat);
    b.settle();
    const auto run = [&] { return *b.window.document().findings().heat->cures->find(CureOf::post_cure); };
    const auto usual = run();
    b.type("/heat/climbs", "60");
    CHECK(b.window.document().job().heat.climbs == Approx(60.0 / 3600));
    auto* fast = b.window.findChild<QPushButton*>("fast-post_cure");
    REQUIRE(fast != nullptr);
    b.window.slip().ensureWidgetVisible(fast);
    QTest::mouseClick(fast, Qt::LeftButton);
    CHECK(b.window.errand().away());
    REQUIRE(b.home());
    b.settle();
    CHECK(b.message().contains("in place of"));
    const auto found = run();
    CHECK_FALSE(found.usual);
    CHECK(found.seconds < usual.seconds);
    CHECK(found.over_Tg <= -heat::kStandingMargin + 0.2);
    for (const auto& c : b.window.document().findings().calls) CHECK(c.key != "sags");
    CHECK(table_of(b, "legs-post_cure")->rowCount() == static_cast<int>(found.legs.size()));
    // Again: nothing is sooner.
    QTest::mouseClick(fast, Qt::LeftButton);
    REQUIRE(b.home());
    b.settle();
    CHECK(b.message().contains("as fast as any"));
    CHECK(run().seconds == Approx(found.seconds));
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(run().usual);
    // Edited meanwhile, what comes home is not laid over the edit.
    QTest::mouseClick(fast, Qt::LeftButton);
    REQUIRE(b.window.errand().away());
    b.type("/heat/Tg_margin", "20");
    REQUIRE(b.home());
    b.settle();
    CHECK(b.window.document().job().heat.post_cure.empty());
}

TEST_CASE("the part's cloth is started elsewhere and turned by its words, and seen on the stand") {
    Bench b;
    b.window.show_stage(Stage::part);
    b.settle();
    const auto draped = [&] { return *b.window.document().findings().part->draped; };
    const auto first = draped();
    REQUIRE(first.worst() != nullptr);
    const auto scene = [&] {
        return scene_of(b.window.document().job(), b.window.document().findings(), Stage::part,
                        ink(Light::day), {});
    };
    CHECK(scene().lines.size() > 25);
    CHECK(scene().legend.contains("every third thread"));
    b.type("/part/drape/along", "150");
    CHECK(b.window.document().job().part.drape.along == Approx(0.15));
    CHECK((draped().seed - first.seed).norm() > 0.1);
    b.type("/part/drape/turn", "45");
    CHECK(draped().nets[0].drape.most != first.nets[0].drape.most);
    CHECK(b.visible<QLabel>("call-cloth_locks") != nullptr);
    b.type("/part/drape/across", "2 in");
    CHECK(b.window.document().job().part.drape.across == Approx(0.0508));
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.window.document().job().part.drape.across == 0);
}

TEST_CASE(
    "how hot a lay-up runs by its thickness is drawn with this one on it, and follows what it may come to") {
    Bench b;
    b.window.show_stage(Stage::heat);
    b.settle();
    const auto& document = b.window.document();
    const auto& go = document.findings().heat->shell_go;
    auto* chart = b.window.findChild<PlotView*>("go-on_plug");
    auto* said = b.window.findChild<QLabel*>("go-said-on_plug");
    REQUIRE(chart != nullptr);
    REQUIRE(said != nullptr);
    CHECK(chart->isVisibleTo(&b.window));
    // A shell standing free has been laid before.
    CHECK_FALSE(b.window.findChild<PlotView*>("go-post_cure")->isVisibleTo(&b.window));
    const auto may = [&] {
        for (const auto& line : chart->plot().lines) {
            if (line.name == "limit") return line.points.front().y();
        }
        return 0.0;
    };
    CHECK(may() == Approx(go.air + 30));
    REQUIRE(chart->plot().notes.size() == 1);
    CHECK(chart->plot().notes[0].at.x() == Approx(go.laid));
    CHECK(said->text().contains(QString::fromStdString(show(Kind::temperature, go.whole.peak, {}))));
    // Less is allowed: the dashed line comes down, the shell takes more days.
    const int days = document.findings().shell->days;
    b.type("/heat/runs_past", "5");
    CHECK(document.job().heat.runs_past == Approx(5));
    CHECK(may() == Approx(document.findings().heat->shell_go.air + 5));
    CHECK(document.findings().shell->days >= days);
    CHECK(document.findings().shell->go.most < go.most.value_or(1));
    // A quick polyester on the same plug: in several goes, and Shell says why.
    auto job = document.job();
    job.shell.resin = "polyester, general";
    b.window.document().replace("polyester", job);
    b.settle();
    CHECK(said->text().contains("is the most in one go"));
    b.window.show_stage(Stage::shell);
    b.settle();
    CHECK(b.call_row("too_much")->isVisible());
    CHECK(document.findings().shell->days > days);
}
