// Cuts in the part's cloth by hand in the window: sought, added, typed, dragged, seen in the kit, undone.
#include "app/stages/part/kit_sheet.hpp"
#include "tests/app/bench.hpp"

using namespace bench;

namespace {

enum Column { kLine, kIn, kStep, kLong };

struct ClothBench : Bench {
    ClothBench() : Bench("cello-case") {
        window.show_stage(Stage::part);
        settle();
    }
    [[nodiscard]] const std::vector<part::Cut>& cuts() { return window.document().job().part.cuts; }
    [[nodiscard]] const part::Draped& draped() { return *window.document().findings().part->draped; }
    [[nodiscard]] double locked() { return draped().worst()->drape.locked; }
};

}  // namespace

TEST_CASE("cuts are sought where cloth locks: in one step, with what they free said, and undone in one") {
    ClothBench b;
    const double before = b.locked();
    REQUIRE(before > 0);
    b.call_row("cloth_locks");
    b.press("seek-cuts");
    REQUIRE(b.home());
    b.settle();
    REQUIRE_FALSE(b.cuts().empty());
    CHECK(b.locked() < before / 2);
    CHECK(b.message().contains("locked in place of"));
    CHECK(b.table("part-cuts")->rowCount() == static_cast<int>(b.cuts().size()));
    for (int row = 0; row < b.table("part-cuts")->rowCount(); ++row)
        CHECK(b.cell("part-cuts", row, kLong) != "beside");
    CHECK(b.figure("cuts") != "");
    CHECK(b.window.stand().scene().legend.contains("cut before it is laid"));
    CHECK_FALSE(b.window.stand().mark_place(kCutMarks).isNull());
    // Once more: nothing is left that is worth a cut.
    const auto found = b.cuts();
    b.press("seek-cuts");
    REQUIRE(b.home());
    b.settle();
    CHECK(b.cuts() == found);
    CHECK(b.window.document().undo_name() == "cut where cloth locks");
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.cuts().empty());
    CHECK(b.locked() == Approx(before));
}

TEST_CASE("a cut is added, typed and taken away by hand, and what cannot be read loses nothing") {
    ClothBench b;
    b.press("add-cut");
    REQUIRE(b.cuts().size() == 1);
    CHECK(b.cell("part-cuts", 0, kIn) == "every");
    b.type_cell("part-cuts", 0, kLine, "0 : -900; 0 : 900");
    CHECK(b.cuts()[0].line == std::vector<part::Spot>{{0, -0.9}, {0, 0.9}});
    CHECK(b.cell("part-cuts", 0, kLine) == "0 : -900; 0 : 900");
    b.type_cell("part-cuts", 0, kStep, "4 cm");
    CHECK(b.cuts()[0].step == Approx(0.04));
    b.choose_in_cell("part-cuts", 0, kIn, "not first");
    CHECK(b.cuts()[0].in == CutIn::behind);
    b.choose_in_cell("part-cuts", 0, kIn, "at 0°");
    CHECK(b.cuts()[0].in == CutIn::angle);
    const auto kept = b.cuts();
    for (const char* wrong : {"0 : 0", "nonsense", "0 : 0; 5", "90000 : 0; 0 : 0"}) {
        b.type_cell("part-cuts", 0, kLine, wrong);
        CAPTURE(wrong);
        CHECK(b.cuts() == kept);
    }
    b.table("part-cuts")->setCurrentCell(0, 0);
    b.press("cut-away");
    CHECK(b.cuts().empty());
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.cuts() == kept);
}

TEST_CASE("a cut is dragged by its ends on the stand, each drag one step") {
    ClothBench b;
    b.press("add-cut");
    auto& stand = b.window.stand();
    stand.frame_all();
    stand.setFocus();
    QTest::keyClick(&stand, Qt::Key_1);
    QTest::qWait(30);
    const auto before = b.cuts();
    const auto at = stand.mark_place(kCutMarks);
    REQUIRE_FALSE(at.isNull());
    drag(stand, at, {-25, 15});
    b.settle();
    REQUIRE(b.cuts().size() == 1);
    CHECK(b.window.document().undo_name() == "move a cut");
    CHECK(b.cuts()[0].line[1] == before[0].line[1]);
    CHECK_FALSE(b.cuts()[0].line[0] == before[0].line[0]);
    CHECK(QLineF(stand.mark_place(kCutMarks), at + QPointF(-25, 15)).length() < 25);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.cuts() == before);
}

TEST_CASE("a seam parts its plies in the kit, and a cut beside the face is named and taken away by a click") {
    ClothBench b;
    b.press("lay-kit");
    REQUIRE(b.home());
    b.settle();
    const auto whole = b.visible<RecordTable>("kit-table")->rowCount();
    b.key(Qt::Key_Escape, Qt::NoModifier);
    b.press("add-cut");
    b.type_cell("part-cuts", 0, kLine, "0 : -2000; 0 : 2000");
    b.press("lay-kit");
    REQUIRE(b.home());
    b.settle();
    CHECK(b.visible<RecordTable>("kit-table")->rowCount() == 2 * whole);
    CHECK(b.visible<QLabel>("kit-said")->text().contains("cut or wider than its roll"));
    b.key(Qt::Key_Escape, Qt::NoModifier);
    b.type_cell("part-cuts", 0, kLine, "4000 : 0; 5000 : 0");
    CHECK(b.cell("part-cuts", 0, kLong) == "beside");
    b.fix("cut_nowhere");
    b.settle();
    CHECK(b.cuts().empty());
}

TEST_CASE("seams by the roll are drawn where plies are wider than it, in one step, and stand on the stand") {
    Bench b("radar-dome");
    b.window.show_stage(Stage::part);
    b.settle();
    const auto& part = [&]() -> const part::Choices& { return b.window.document().job().part; };
    const auto before = part().cuts;
    b.press("seek-seams");
    REQUIRE(b.home());
    b.settle();
    REQUIRE(part().cuts.size() > before.size());
    CHECK(b.message().contains("wider than the roll"));
    CHECK(b.cell("part-cuts", static_cast<int>(before.size()), kIn).startsWith("roll "));
    CHECK(b.cell("part-cuts", static_cast<int>(before.size()), kLong) != "beside");
    CHECK_FALSE(b.window.stand().mark_place(kCutMarks).isNull());
    // Once more: every ply fits now.
    const auto found = part().cuts;
    b.press("seek-seams");
    REQUIRE(b.home());
    CHECK(b.message().contains("in the width that it has"));
    CHECK(part().cuts == found);
    // By hand into which plies it goes, and back.
    b.choose_in_cell("part-cuts", static_cast<int>(before.size()), kIn, "every");
    b.settle();
    CHECK(part().cuts[before.size()].in == CutIn::every);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(part().cuts == found);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(part().cuts == before);
}
