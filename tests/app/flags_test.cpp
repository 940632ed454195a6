// Calls that have a place stand on the stand as numbered flags, and each finds the other.
#include "app/stand/stand.hpp"
#include "tests/app/bench.hpp"

using namespace bench;

namespace {

/// A film that is a little short for the case, so that it bridges.
void shorten(Bench& b) {
    b.window.show_stage(Stage::bag);
    b.settle();
    const auto film = b.window.document().findings().bag->film;
    b.type("/bag/sheet_length", QString::number(950 * film.along, 'f', 0));
    b.type("/bag/sheet_width", QString::number(1000 * film.width, 'f', 0));
    b.settle();
}

const Call* with_place(Bench& b, Stage stage) {
    for (const auto* call : worst_first(b.window.document().findings().calls, stage)) {
        if (call->at) return call;
    }
    return nullptr;
}

void press(Stand& stand, const QPointF& at) {
    QTest::mouseClick(stand.findChild<QWidget*>("canvas"), Qt::LeftButton, {}, at.toPoint());
}

}  // namespace

TEST_CASE("a call with a place has a flag, with the number that its line has") {
    Bench b;
    shorten(b);
    const auto* call = with_place(b, Stage::bag);
    REQUIRE(call != nullptr);
    const auto key = QString::fromStdString(call->key);
    auto& stand = b.window.stand();
    REQUIRE(stand.scene().flags.size() == 1);
    CHECK(stand.scene().flags[0].key == key);
    CHECK(stand.scene().flags[0].number == 1);
    // It stands at the place, in the stand's own axes.
    const auto& u = stand.scene().upright;
    const Point shown = stand.scene().flags[0].at;
    CHECK((u.u * shown.x() + u.v * shown.y() + u.w * shown.z() - *call->at).norm() < 1e-9);
    CHECK(b.call_row(key)->accessibleName().contains("flag 1"));
    // Calls that are about no place say no number.
    for (const auto* row : b.window.slip().findChildren<CallRow*>())
        CHECK(row->accessibleName().contains("flag") == (row->key() == key));

    // The flag opens its line.
    if (b.call_row(key)->is_open()) b.call_row(key)->toggle();
    REQUIRE(stand.flag_place(key));
    press(stand, *stand.flag_place(key));
    CHECK(b.call_row(key)->is_open());
    CHECK(b.call_row(key)->hasFocus());
    // Beside it the stand is turned as ever.
    const double yaw = stand.camera().yaw;
    drag(stand, *stand.flag_place(key) + QPointF(80, 60), {40, 0});
    CHECK(stand.camera().yaw != yaw);
    // With the film cut to size it goes.
    b.fix(key);
    b.settle();
    CHECK(stand.scene().flags.empty());
    CHECK_FALSE(stand.flag_place(key));
}

TEST_CASE("show it turns the stand until the place is seen") {
    Bench b;
    shorten(b);
    const auto* call = with_place(b, Stage::bag);
    REQUIRE(call != nullptr);
    const auto key = QString::fromStdString(call->key);
    const Point at = *call->at;
    auto& stand = b.window.stand();
    const QPointF middle(stand.width() / 2.0, stand.height() * 0.2);
    // Low down and from one side after another, until a wall stands before it.
    drag(stand, middle, {0, -200});
    for (int i = 0; i < 14 && stand.sees(at); ++i) drag(stand, middle, {55, 0});
    REQUIRE_FALSE(stand.sees(at));
    if (!b.call_row(key)->is_open()) b.call_row(key)->toggle();
    QTest::mouseClick(b.visible<QPushButton>("show-" + key), Qt::LeftButton);
    CHECK(stand.sees(at));
    // Where it is seen already, nothing turns.
    const double yaw = stand.camera().yaw, pitch = stand.camera().pitch;
    QTest::mouseClick(b.visible<QPushButton>("show-" + key), Qt::LeftButton);
    CHECK(stand.camera().yaw == yaw);
    CHECK(stand.camera().pitch == pitch);
}

TEST_CASE("flags of one place stand over each other, and a stage without the face has none") {
    Bench b;
    auto job = b.window.document().job();
    // Two inserts in one place, at the rim: crowded and too near the edge.
    job.part.inserts.resize(2);
    job.part.inserts[0].name = "hinge";
    job.part.inserts[1].name = "latch";
    const double half = b.window.document().findings().shape->measures.size.maxCoeff() / 2;
    for (auto& insert : job.part.inserts) insert.along = half - 0.0005;
    b.window.document().replace("two inserts", job);
    b.window.show_stage(Stage::part);
    b.settle();
    auto& stand = b.window.stand();
    REQUIRE(stand.flag_place("insert_crowded"));
    REQUIRE(stand.flag_place("insert_edge"));
    const auto one = *stand.flag_place("insert_crowded"), other = *stand.flag_place("insert_edge");
    CHECK((std::abs(one.y() - other.y()) > 14 || std::abs(one.x() - other.x()) > 17));
    press(stand, other);
    CHECK(b.call_row("insert_edge")->is_open());
    b.window.show_stage(Stage::brief);
    b.settle();
    CHECK(stand.scene().flags.empty());
}
