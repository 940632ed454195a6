#include <QApplication>
#include <QClipboard>

#include "tests/app/bench.hpp"
#include "tests/quiet.hpp"

using namespace bench;

namespace {

void paste(RecordTable* table, const QString& text) {
    QApplication::clipboard()->setText(text);
    QTest::keyClick(table, Qt::Key_V, Qt::ControlModifier);
}

void click_row(RecordTable* table, int row) {
    QTest::mouseClick(table->viewport(), Qt::LeftButton, {},
                      table->visualItemRect(table->item(row, 0)).center());
}

}  // namespace

TEST_CASE("what is pasted out of its range is turned into it or refused, and the job can be opened again") {
    Bench b;
    b.window.show_stage(Stage::part);
    b.settle();
    auto* table = b.visible<RecordTable>("stack-part");
    table->setFocus();
    paste(table, "glass mat 300\t270\nglass mat 300\t-540\n");
    b.settle();
    const auto& layers = b.window.document().job().part.layers;
    REQUIRE(layers.size() > 2);
    CHECK(layers[layers.size() - 2].angle == Approx(radians(-90)));
    CHECK(std::abs(layers.back().angle) == Approx(kPi));
    CHECK(job_from_json(job_to_json(b.window.document().job()), "again") == b.window.document().job());
    // However else a value arrives, what a file could not bring back does not come in.
    auto& document = b.window.document();
    const auto before = document.job();
    auto odd = before;
    odd.part.layers.back().angle = radians(270);
    document.replace("turn", odd);
    CHECK(document.job() == before);
    CHECK(b.message().contains("outside"));
    odd = before;
    odd.back.pitch = std::numeric_limits<double>::quiet_NaN();
    document.drag("pitch", odd);
    CHECK(document.job() == before);
    document.end_drag();
    odd = before;
    odd.brief.pulls = -3;
    document.replace("pulls", odd);
    CHECK(document.job() == before);
}

TEST_CASE("rows are copied as text and pasted back as layers, and unknown ones are told") {
    Bench b;
    b.window.show_stage(Stage::part);
    b.settle();
    auto* table = b.visible<RecordTable>("stack-part");
    const auto before = b.window.document().job().part.layers;
    table->setFocus();
    QTest::keyClick(table, Qt::Key_C, Qt::ControlModifier);
    CHECK(QApplication::clipboard()->text().contains("carbon cloth 200 twill"));
    paste(table, "layer\t°\nglass mat 300\t30\nPVC foam 75, 10 mm\nstraw\t0\n");
    b.settle();
    const auto after = b.window.document().job().part.layers;
    // No row is chosen: they go behind the last.
    REQUIRE(after.size() == before.size() + 2);
    CHECK(after[before.size()].material == "glass mat 300");
    CHECK(after[before.size()].angle == Approx(radians(30)));
    CHECK(after.back().kind == LayerKind::core);
    CHECK(b.message().contains("1 of 3"));
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.window.document().job().part.layers == before);
    table->selectRow(0);
    QTest::keyClick(table, Qt::Key_Delete);
    b.settle();
    CHECK(b.window.document().job().part.layers.size() == before.size() - 1);
}

TEST_CASE("the outline is typed, pasted and kept from falling apart") {
    Bench b;
    b.window.show_stage(Stage::shape);
    b.settle();
    auto* table = b.visible<RecordTable>("outline");
    table->item(0, 0)->setText("-650");
    b.settle();
    CHECK(b.window.document().job().shape.tray.outline[0][0] == Approx(-0.65));
    table->item(0, 0)->setText("left");
    b.settle();
    CHECK(b.message().contains("no length"));
    CHECK(table->item(0, 0)->text() == "-650");
    const auto before = b.window.document().job();
    table->setFocus();
    paste(table, "0\t0\n100\t0\n");
    b.settle();
    CHECK(b.window.document().job() == before);
    CHECK(b.message().contains("3 lines"));
    paste(table, "-300\t-200\n300\t-200\n300\t200\n-300\t200\n");
    b.settle();
    CHECK(b.window.document().job().shape.tray.outline.size() == 4);
    CHECK(b.window.document().findings().complete());
}

TEST_CASE("the run lists every material and its equipment can be typed") {
    Bench b;
    b.window.show_stage(Stage::run);
    b.settle();
    const auto& run = *b.window.document().findings().run;
    auto* materials = b.visible<RecordTable>("materials");
    int lines = 2;  // the headings of the two ledgers shown
    for (const auto& m : run.materials) lines += m.ledger != Ledger::equipment;
    CHECK(materials->rowCount() >= lines);
    // What is to be seen before going on, each with the step that it follows, in the maker's units.
    const auto looks = b.visible<QLabel>("looks")->text();
    CHECK(looks.count("tape comes off clean") >= 3);
    CHECK(looks.indexOf("lay up the shell") < looks.indexOf("take the mould off"));
    auto* equipment = b.visible<RecordTable>("equipment");
    REQUIRE(equipment->rowCount() == 2);
    equipment->item(0, 1)->setText("200");
    b.settle();
    CHECK(b.window.document().job().run.equipment[0].price == 200);
    CHECK(b.figure("equipment") == "¤520");
    equipment->item(0, 1)->setText("dear");
    b.settle();
    CHECK(b.message().contains("no price"));
    CHECK(b.window.document().job().run.equipment[0].price == 200);
}

TEST_CASE("what is pasted goes to the lines that are selected, and in the log it is added") {
    Bench b;
    b.window.show_stage(Stage::shape);
    b.settle();
    auto* table = b.visible<RecordTable>("outline");
    const auto before = b.window.document().job().shape.tray.outline;
    REQUIRE(before.size() > 6);
    click_row(table, 2);
    paste(table, "500\t-150\n505\t-152\n");
    b.settle();
    auto now = b.window.document().job().shape.tray.outline;
    REQUIRE(now.size() == before.size());
    CHECK(now[1] == before[1]);
    CHECK(now[2][0] == Approx(0.5));
    CHECK(now[3][1] == Approx(-0.152));
    CHECK(now[4] == before[4]);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    // Several lines that are selected are replaced by however many come.
    click_row(table, 2);
    for (int i = 0; i < 2; ++i) QTest::keyClick(table, Qt::Key_Down, Qt::ShiftModifier);
    paste(table, "500\t-150\n");
    b.settle();
    now = b.window.document().job().shape.tray.outline;
    CHECK(now.size() == before.size() - 2);
    CHECK(now[3] == before[5]);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.window.document().job().shape.tray.outline == before);
    // Added to the log, whatever is selected there.
    b.window.show_stage(Stage::log);
    b.settle();
    auto* log = b.visible<RecordTable>("log");
    const auto entries = b.window.document().job().log.entries;
    click_row(log, 0);
    paste(log, "from the bench book\t2026-05-31\tpull\t1.55\n");
    b.settle();
    REQUIRE(b.window.document().job().log.entries.size() == entries.size() + 1);
    CHECK(b.window.document().job().log.entries.front() == entries.front());
    CHECK(b.window.document().job().log.entries.back().mass == Approx(1.55));
}

TEST_CASE("fittings that become the maker's own begin where they lie") {
    Bench b;
    b.window.show_stage(Stage::edge);
    b.settle();
    std::size_t count = 0;
    for (const auto& fit : b.window.document().findings().edge->fits) count += fit.number >= 0;
    REQUIRE(count > 4);
    b.choose("/edge/by_rule", "where you have put them");
    CHECK(b.window.document().job().edge.placed.size() == count);
    b.choose("/edge/by_rule", "by the rules");
    CHECK(b.window.document().job().edge.by_rule);
}

TEST_CASE("a list of stations that is empty is a sentence, and its first station is added") {
    Bench b("cello-case-whole");
    auto job = b.window.document().job();
    job.shape.stations.stations.clear();
    b.window.document().replace("an empty list", job);
    b.window.show_stage(Stage::shape);
    b.settle();
    CHECK(b.call_row("input")->isVisible());
    CHECK(b.visible<QWidget>("fairness")->grab().toImage().width() > 0);
    QTest::mouseClick(b.visible<QPushButton>("add-station"), Qt::LeftButton);
    QTest::mouseClick(b.visible<QPushButton>("add-station"), Qt::LeftButton);
    b.settle();
    CHECK(b.window.document().job().shape.stations.stations.size() == 2);
}
