// Where the part's cloth starts and which way its warp runs, drawn by hand on the stand.
#include "core/stages/bag/ports.hpp"
#include "tests/app/bench.hpp"

using namespace bench;

namespace {

const part::DrapeStart& start_of(Bench& b) {
    return b.window.document().job().part.drape;
}

const part::Draped& draped(Bench& b) {
    return *b.window.document().findings().part->draped;
}

}  // namespace

TEST_CASE("cloth starts where its square is dropped, in one step, and lies from there") {
    Bench b;
    b.window.show_stage(Stage::part);
    b.settle();
    auto& stand = b.window.stand();
    stand.frame_all();
    const auto at = stand.mark_place(kClothMarks);
    REQUIRE_FALSE(at.isNull());
    const Point before = draped(b).seed;
    CHECK(start_of(b) == part::DrapeStart{});
    drag(stand, at, {70, 20});
    b.settle();
    CHECK(Point2(start_of(b).along, start_of(b).across).norm() > 0.02);
    CHECK((draped(b).seed - before).norm() > 0.02);
    // It lies under the pointer, as near as a point of the face does.
    const auto dropped = at + QPointF(70, 20);
    CHECK(QLineF(stand.mark_place(kClothMarks), dropped).length() < 25);
    const auto& tool = *b.window.document().findings().edge->tool;
    const bag::FlowGround ground(*draped(b).face, tool.frame);
    CHECK((ground.seen(draped(b).seed) - Point2(start_of(b).along, start_of(b).across)).norm() <
          1.5 * draped(b).cell);
    CHECK(b.window.document().undo_name() == "move where the cloth starts");
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(start_of(b) == part::DrapeStart{});
    CHECK((draped(b).seed - before).norm() < 1e-12);
}

TEST_CASE("the warp runs where its ring is drawn, and turns onto the bias by an act") {
    Bench b;
    b.window.show_stage(Stage::part);
    b.settle();
    auto& stand = b.window.stand();
    stand.frame_all();
    // From above, so that a way on the screen is a way over the face.
    stand.setFocus();
    QTest::keyClick(&stand, Qt::Key_1);
    QTest::qWait(30);
    const auto seed = stand.mark_place(kClothMarks), warp = stand.mark_place(kClothMarks + 1);
    REQUIRE_FALSE(warp.isNull());
    drag(stand, warp, {0, -45});
    b.settle();
    const double turned = start_of(b).turn;
    CHECK(std::abs(turned) > radians(3));
    CHECK(std::abs(turned) <= kPi / 2 + 1e-9);
    // The line from square to ring went with it, by about the angle between the two ways on the screen.
    const QLineF was(seed, warp), now(seed, warp + QPointF(0, -45));
    const double swung = std::abs(std::remainder(radians(was.angleTo(now)), kPi));
    CHECK(std::abs(turned) == Approx(swung).margin(radians(6)));
    CHECK(draped(b).worst() != nullptr);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(start_of(b).turn == 0);
    auto* bias = b.window.findChild<QAction*>("act-bias");
    REQUIRE(bias != nullptr);
    bias->trigger();
    b.settle();
    CHECK(start_of(b).turn == Approx(kPi / 4));
    for (int i = 0; i < 3; ++i) bias->trigger();
    b.settle();
    CHECK(start_of(b).turn == Approx(0).margin(1e-9));
}

TEST_CASE("where a mark lies over another the one on top is taken, else the nearer one") {
    Bench b;
    b.window.show_stage(Stage::part);
    b.settle();
    auto job = b.window.document().job();
    job.part.inserts = {part::Insert{}};
    b.window.document().replace("an insert where the cloth starts", std::move(job));
    b.settle();
    auto& stand = b.window.stand();
    stand.frame_all();
    REQUIRE(QLineF(stand.mark_place(0), stand.mark_place(kClothMarks)).length() < 3);
    drag(stand, stand.mark_place(0), {50, 15});
    b.settle();
    CHECK(b.window.document().undo_name() == "move an insert");
    CHECK(start_of(b) == part::DrapeStart{});
    // With the insert away the square is there to be taken.
    drag(stand, stand.mark_place(kClothMarks), {-40, -10});
    b.settle();
    CHECK(b.window.document().undo_name() == "move where the cloth starts");
}
