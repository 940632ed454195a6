// A cure's programme drawn by its corners, with a real pointer.
#include "app/charts/chart_view.hpp"
#include "tests/app/bench.hpp"

using namespace bench;

namespace {

/// The chart of the part's cure.
PlotView* part_chart(Bench& b) {
    for (auto* view : b.window.findChildren<PlotView*>()) {
        if (view->isVisibleTo(&b.window) && view->plot().key == "part") return view;
    }
    FAIL("the part's cure has no chart");
    return nullptr;
}

const std::vector<heat::Leg>& legs(Bench& b) {
    return b.window.document().job().heat.part;
}

/// The part's cure of one leg of the maker's own.
void one_leg(Bench& b) {
    b.window.show_stage(Stage::heat);
    b.press("add-part");
    b.type_cell("legs-part", 0, 0, "45");
    b.type_cell("legs-part", 0, 1, "20");
    b.type_cell("legs-part", 0, 2, "8 h");
}

/// Given to the chart itself: a pointer that is moved through the display comes late where that has much to
/// do.
void move_to(PlotView* chart, const QPoint& at, Qt::MouseButtons held = Qt::NoButton) {
    QMouseEvent move(QEvent::MouseMove, at, chart->mapToGlobal(QPointF(at)), Qt::NoButton, held,
                     Qt::NoModifier);
    QApplication::sendEvent(chart, &move);
}

void move_by(PlotView* chart, const QPoint& from, const QPoint& by) {
    for (int i = 1; i <= 5; ++i) {
        move_to(chart, from + by * i / 5, Qt::LeftButton);
        QTest::qWait(10);
    }
}

}  // namespace

TEST_CASE("a corner that is drawn changes its leg, in one step, and figures follow") {
    Bench b;
    one_leg(b);
    auto* chart = part_chart(b);
    REQUIRE(chart->plot().grips.size() == 2);
    const double before = b.window.document().findings().heat->cures->find(CureOf::part)->seconds;
    // The hold's end to the right: it holds for longer.
    const auto end = chart->on_screen(chart->plot().grips[1].at).toPoint();
    move_to(chart, end);
    CHECK(chart->toolTip().contains("how long it holds"));
    QTest::mousePress(chart, Qt::LeftButton, {}, end);
    const auto axis = chart->plot().x;
    const double per_pixel = (axis.high - axis.low) /
                             (chart->on_screen({axis.high, 300}).x() - chart->on_screen({axis.low, 300}).x());
    move_by(chart, end, {40, 0});
    // Meanwhile the axis stays, or the same place of the screen would be another time.
    CHECK(chart->plot().x == axis);
    QTest::mouseRelease(chart, Qt::LeftButton, {}, end + QPoint(40, 0));
    b.settle();
    REQUIRE(legs(b).size() == 1);
    CHECK(legs(b)[0].hold == Approx(8 * 3600 + 40 * per_pixel).margin(300 + per_pixel));
    CHECK(legs(b)[0].to == Approx(318.15));
    CHECK(b.window.document().findings().heat->cures->find(CureOf::part)->seconds > before);
    CHECK(b.cell("legs-part", 0, 2) ==
          QString::fromStdString(show_for_edit(Kind::hours, legs(b)[0].hold, {UnitSystem::metric, "¤"})));
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(legs(b)[0].hold == Approx(8 * 3600));
    // The climb's end up and to the right: hotter, and slower.
    chart = part_chart(b);
    const auto top = chart->on_screen(chart->plot().grips[0].at).toPoint();
    QTest::mousePress(chart, Qt::LeftButton, {}, top);
    move_by(chart, top, {30, -12});
    QTest::mouseRelease(chart, Qt::LeftButton, {}, top + QPoint(30, -12));
    b.settle();
    CHECK(legs(b)[0].to > 318.2);
    CHECK(legs(b)[0].rate < 20.0 / 3600);
    CHECK(legs(b)[0].hold == Approx(8 * 3600));
}

TEST_CASE("Esc gives a programme back that is being drawn, and a click on its corner changes nothing") {
    Bench b;
    one_leg(b);
    const auto was = legs(b);
    auto* chart = part_chart(b);
    const auto end = chart->on_screen(chart->plot().grips[1].at).toPoint();
    QTest::mouseClick(chart, Qt::LeftButton, {}, end);
    b.settle();
    CHECK(legs(b) == was);
    QTest::mousePress(chart, Qt::LeftButton, {}, end);
    move_by(chart, end, {60, 0});
    CHECK(legs(b) != was);
    QTest::keyClick(chart, Qt::Key_Escape);
    CHECK(legs(b) == was);
    QTest::mouseRelease(chart, Qt::LeftButton, {}, end + QPoint(60, 0));
    b.settle();
    CHECK(legs(b) == was);
    // Drawn by less than a step it is as it was, and Esc takes back no step that was there before.
    QTest::mousePress(chart, Qt::LeftButton, {}, end);
    move_to(chart, end + QPoint(0, 0), Qt::LeftButton);
    QTest::keyClick(chart, Qt::Key_Escape);
    b.settle();
    CHECK(legs(b) == was);
    // Out of sight it is let go of.
    QTest::mousePress(chart, Qt::LeftButton, {}, end);
    move_by(chart, end, {60, 0});
    CHECK(legs(b) != was);
    b.window.show_stage(Stage::part);
    b.settle();
    CHECK(legs(b) == was);
    b.window.show_stage(Stage::heat);
    b.settle();
    // Away from its corners the chart is read as ever.
    move_to(chart,
            chart->on_screen({0.3 * chart->plot().x.high, chart->plot().y.high}).toPoint() + QPoint(0, 30));
    CHECK(chart->read());
}

TEST_CASE("the usual programme becomes the maker's own when it is drawn") {
    Bench b;
    b.window.show_stage(Stage::heat);
    b.settle();
    REQUIRE(legs(b).empty());
    auto* chart = part_chart(b);
    REQUIRE(!chart->plot().grips.empty());
    const auto at = chart->on_screen(chart->plot().grips.back().at).toPoint();
    QTest::mousePress(chart, Qt::LeftButton, {}, at);
    move_by(chart, at, {-40, 0});
    QTest::mouseRelease(chart, Qt::LeftButton, {}, at + QPoint(-40, 0));
    b.settle();
    CHECK_FALSE(legs(b).empty());
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(legs(b).empty());
}

TEST_CASE("a corner is chosen and drawn by keys, a key that is held is one step, and Esc gives it back") {
    Bench b;
    one_leg(b);
    auto* chart = part_chart(b);
    chart->setFocus();
    // Without a corner chosen the arrows read.
    QTest::keyClick(chart, Qt::Key_Right);
    CHECK(chart->read());
    // The climb's end first, then the hold's.
    QTest::keyClick(chart, Qt::Key_N);
    CHECK_FALSE(chart->read());
    CHECK(chart->accessibleDescription().contains("how hot and how fast"));
    QTest::keyClick(chart, Qt::Key_N);
    CHECK(chart->accessibleDescription().contains("how long it holds"));
    QTest::keyPress(chart, Qt::Key_Right);
    QTest::keyPress(chart, Qt::Key_Right);
    QTest::keyPress(chart, Qt::Key_Right);
    CHECK(chart->accessibleDescription().contains("h"));
    QTest::keyRelease(chart, Qt::Key_Right);
    b.settle();
    CHECK(legs(b)[0].hold == Approx(8 * 3600 + 3 * 300));
    QTest::keyClick(chart, Qt::Key_Up);
    b.settle();
    CHECK(legs(b)[0].to == Approx(319.15));
    QTest::keyClick(chart, Qt::Key_Left, Qt::ShiftModifier);
    b.settle();
    CHECK(legs(b)[0].hold == Approx(8 * 3600 - 7 * 300));
    b.key(Qt::Key_Z, Qt::ControlModifier);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(legs(b)[0].to == Approx(318.15));
    CHECK(legs(b)[0].hold == Approx(8 * 3600 + 3 * 300));
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(legs(b)[0].hold == Approx(8 * 3600));
    // Held, and given back.
    chart->setFocus();
    const auto was = legs(b);
    QTest::keyPress(chart, Qt::Key_Down);
    CHECK(legs(b) != was);
    QTest::keyClick(chart, Qt::Key_Escape);
    QTest::keyRelease(chart, Qt::Key_Down);
    b.settle();
    CHECK(legs(b) == was);
    // Left in the middle, it stays as it was drawn, one step.
    QTest::keyPress(chart, Qt::Key_Down);
    b.visible<RecordTable>("legs-part")->setFocus();
    b.settle();
    CHECK(legs(b)[0].to == Approx(317.15));
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(legs(b) == was);
    // Another corner chosen while a key is down begins where it is itself.
    chart->setFocus();
    QTest::keyPress(chart, Qt::Key_Right);
    QTest::keyClick(chart, Qt::Key_N);
    QTest::keyClick(chart, Qt::Key_Up);
    b.settle();
    CHECK(legs(b)[0].to == Approx(319.15));
    CHECK(legs(b)[0].hold == Approx(8 * 3600 + 300));
    b.key(Qt::Key_Z, Qt::ControlModifier);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(legs(b) == was);
    // Esc once more, and the arrows read again.
    chart->setFocus();
    QTest::keyClick(chart, Qt::Key_Escape);
    QTest::keyClick(chart, Qt::Key_Right);
    CHECK(chart->read());
    CHECK(legs(b) == was);
}

TEST_CASE("what runs too hot is held cooler first by a click, in one step") {
    Bench b;
    auto job = b.window.document().job();
    Layer ply;
    for (const auto& l : job.part.layers) {
        if (l.kind == LayerKind::ply) ply = l;
    }
    ply.material = "glass cloth 600 twill";
    job.part.layers.assign(26, ply);
    b.window.document().replace("a thick part", std::move(job));
    one_leg(b);
    b.type_cell("legs-part", 0, 0, "60");
    b.type_cell("legs-part", 0, 1, "70");
    const auto before = legs(b);
    const auto called = [&] {
        b.settle();
        const auto& calls = b.window.document().findings().calls;
        return std::any_of(calls.begin(), calls.end(), [](const Call& c) { return c.key == "runs_hot"; });
    };
    REQUIRE(called());
    b.fix("runs_hot");
    CHECK_FALSE(called());
    REQUIRE(legs(b).size() == 2);
    CHECK(legs(b)[1] == before[0]);
    auto* table = b.visible<QTableWidget>("legs-part");
    REQUIRE(table->rowCount() == 2);
    CHECK(table->item(0, 0)->text().toDouble() == Approx(legs(b)[0].to - 273.15));
    b.window.document().undo();
    CHECK(legs(b) == before);
}
