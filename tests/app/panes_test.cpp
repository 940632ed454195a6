#include <QApplication>
#include <QClipboard>

#include "tests/app/bench.hpp"

using namespace bench;

namespace {

void paste(RecordTable* table, const QString& text) {
    QApplication::clipboard()->setText(text);
    QTest::keyClick(table, Qt::Key_V, Qt::ControlModifier);
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
    Progress quiet;
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
