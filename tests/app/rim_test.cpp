// Hoses, gauge and pleats on the land of the film: dragged, moved by keys, typed, added, given back.
#include <QSlider>

#include "tests/app/bench.hpp"

using namespace bench;

namespace {

/// The number on the stand of the first thing of a kind.
int number_of(Bench& b, RimThing what) {
    const auto& things = b.window.document().findings().bag->rim.things;
    for (std::size_t i = 0; i < things.size(); ++i) {
        if (things[i].what == what) return kRimMarks + static_cast<int>(i);
    }
    FAIL("none of that kind stands on the rim");
    return 0;
}

const std::vector<bag::OnRim>& placed(Bench& b) {
    return b.window.document().job().bag.placed;
}

void go(Bench& b) {
    b.window.show_stage(Stage::bag);
    b.settle();
    b.window.stand().frame_all();
    QTest::qWait(20);
}

}  // namespace

TEST_CASE("a hose is dragged along the land: it alone becomes the maker's, in one step") {
    Bench b;
    go(b);
    auto& stand = b.window.stand();
    const auto before = b.window.document().findings().bag->rim;
    CHECK(placed(b).empty());
    const int hose = number_of(b, RimThing::hose);
    const auto at = stand.mark_place(hose);
    REQUIRE_FALSE(at.isNull());
    drag(stand, at, {60, 25});
    b.settle();
    REQUIRE(placed(b).size() == 1);
    CHECK(placed(b)[0].what == RimThing::hose);
    CHECK(placed(b)[0].at != Approx(before.things[0].at).margin(1e-3));
    // It stands where it was let go, as near as the land comes to the pointer.
    const auto now = stand.mark_place(hose);
    CHECK(QLineF(now, at).length() > 20);
    const auto& rim = b.window.document().findings().bag->rim;
    CHECK(rim.things[0].at == Approx(placed(b)[0].at));
    CHECK(rim.count(RimThing::pleat) == before.count(RimThing::pleat));
    CHECK(b.window.document().undo_name() == "move a hose");
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(placed(b).empty());
    CHECK(b.window.document().undo_name().isEmpty());
}

TEST_CASE("a pleat is moved by keys, and what it takes up goes with what lies nearest to it") {
    Bench b;
    go(b);
    auto& stand = b.window.stand();
    const int pleat = number_of(b, RimThing::pleat);
    const auto pleats = b.window.document().findings().bag->rim.count(RimThing::pleat);
    stand.setFocus();
    // On to the first pleat: hoses and gauge come before it.
    for (int i = 0; i <= pleat - kRimMarks; ++i) QTest::keyClick(&stand, Qt::Key_N);
    for (int i = 0; i < 3; ++i) QTest::keyPress(&stand, Qt::Key_BracketRight);
    QTest::keyRelease(&stand, Qt::Key_BracketRight);
    b.settle();
    REQUIRE(static_cast<int>(placed(b).size()) == pleats);
    CHECK(b.window.document().undo_name() == "move a pleat");
    const auto& film = b.window.document().findings().bag->film;
    double sum = 0;
    for (const auto& p : film.pleats) sum += 2 * p.height;
    CHECK(sum == Approx(film.slack));
    CHECK(static_cast<int>(film.ruled.size()) == pleats);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(placed(b).empty());
}

TEST_CASE("what stands on the rim is added, typed, taken away and given back to the rules") {
    Bench b;
    go(b);
    const auto before = b.window.document().findings().bag->rim;
    CHECK(b.visible<QLabel>("rim-told")->text().contains("1 hose by the rules"));
    b.window.findChild<QAction*>("rim-add-hose")->trigger();
    b.settle();
    CHECK(b.window.document().job().bag.hoses_out() == 2);
    CHECK(b.visible<QLabel>("rim-told")->text().contains("2 hoses where you have put them"));
    // Their number is told by the list now, and is no word of its own.
    for (auto* word : b.window.slip().findChildren<QToolButton*>("word"))
        CHECK((!word->isVisible() || word->property("path") != "/bag/hoses"));
    CHECK(b.table("bag-rim")->rowCount() == 2);
    b.type_cell("bag-rim", 1, 1, "250");
    CHECK(placed(b)[1].at == Approx(0.25 / before.length).epsilon(1e-3));
    b.type_cell("bag-rim", 1, 1, "99 m");
    CHECK(b.message().contains("shorter"));
    CHECK(placed(b)[1].at == Approx(0.25 / before.length).epsilon(1e-3));
    b.table("bag-rim")->setCurrentCell(0, 1);
    b.press("rim-away");
    CHECK(b.window.document().job().bag.hoses_out() == 1);
    b.press("rim-mine");
    CHECK(placed(b).size() == before.things.size());
    b.press("rim-fresh");
    CHECK(placed(b).empty());
    CHECK(b.window.document().findings().bag->rim == before);
}

TEST_CASE("a hose in a pleat is called, flagged on the stand and moved by its way out") {
    Bench b;
    go(b);
    const auto rim = b.window.document().findings().bag->rim;
    double pleat = 0;
    for (const auto& s : rim.things) pleat = s.what == RimThing::pleat ? s.at : pleat;
    b.window.document().edit("put a hose",
                             patch_of("bag", "placed", Json::array({{{"what", "hose"}, {"at", pleat}}})));
    b.settle();
    CHECK(b.call_row("hose_in_pleat")->accessibleName().contains("flag"));
    b.fix("hose_in_pleat");
    b.settle();
    for (const auto& call : b.window.document().findings().calls) CHECK(call.key != "hose_in_pleat");
    CHECK(placed(b)[0].at != Approx(pleat));
}

TEST_CASE("trap and gauge are chosen from the shop's, and a trap's own size is no word any more") {
    Bench b;
    go(b);
    b.choose("/bag/catcher", "steel pot, 10 L");
    CHECK(b.window.document().findings().bag->trap == Approx(0.010));
    for (auto* word : b.window.slip().findChildren<QToolButton*>("word"))
        CHECK((!word->isVisible() || word->property("path") != "/bag/trap"));
    b.choose("/bag/gauge", "dial gauge, against the room");
    CHECK(b.visible<QLabel>("call-gauge_weather") != nullptr);
    CHECK_FALSE(b.figure("told_after").isEmpty());
    b.fix("gauge_weather");
    b.settle();
    CHECK(b.window.document().findings().bag->gauge->absolute);
    b.choose("/bag/catcher", "a trap");
    CHECK(b.word("/bag/trap")->text() == "5.00 L");
}
