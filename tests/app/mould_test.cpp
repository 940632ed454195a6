// A mould without a plug, chosen and made in the window.
#include <QFile>

#include "app/charts/charts.hpp"
#include "app/stand/scene.hpp"
#include "app/stand/stand.hpp"
#include "core/science/mesh/mesh_file.hpp"
#include "core/science/mesh/solid.hpp"
#include "core/science/mesh/stl.hpp"
#include "tests/app/bench.hpp"
#include "tests/quiet.hpp"

using namespace bench;

namespace {

constexpr const char* kNoPlug = "none: the mould itself is made";

bool on_screen(Bench& b, const QString& name) {
    const auto all = b.window.findChildren<QWidget*>(name);
    return std::any_of(all.begin(), all.end(), [&](QWidget* w) { return w->isVisibleTo(&b.window); });
}

}  // namespace

TEST_CASE("a mould without a plug is taken from the sheet of routes, typed, seen face up and undone") {
    Bench b;
    b.window.show_stage(Stage::plug);
    b.settle();
    QTest::mouseClick(b.visible<QPushButton>("side-by-side"), Qt::LeftButton);
    REQUIRE(b.home());
    auto& sheet = b.window.routes();
    auto* take = sheet.findChild<QPushButton*>("take-direct");
    REQUIRE(take != nullptr);
    // All its columns stand in the sheet's width, to be clicked without scrolling.
    CHECK(take->mapTo(&sheet, QPoint(take->width(), 0)).x() <= sheet.width());
    QTest::mouseClick(take, Qt::LeftButton);
    b.settle();
    CHECK(b.window.document().job().plug.route == Route::direct);
    QTest::mouseClick(b.visible<QPushButton>("routes-close"), Qt::LeftButton);
    b.settle();
    const auto& scene = b.window.stand().scene();
    CHECK(scene.legend.contains("turned over"));
    CHECK(scene.corners.size() > 1000);
    CHECK(shows_something(b.window.grab().toImage()));
    const auto mass = b.window.document().findings().plug->mass;
    b.type("/plug/direct/wall", "50");
    CHECK(b.window.document().job().plug.direct.wall == Approx(0.05));
    CHECK(b.window.document().findings().plug->mass > mass);
    // What it is made of is a word, the cutter's feed a speed in its own unit.
    b.type("/plug/direct/mill/feed", "1.2 m/min");
    CHECK(b.window.document().job().plug.direct.mill.feed == Approx(0.02));
    CHECK(b.word("/plug/direct/mill/feed")->text().contains("20.0 mm/s"));
    b.choose("/plug/direct/mill/board", "steel plate, 100 mm");
    CHECK(b.window.document().findings().heat->Tg ==
          need(b.window.document().shop().boards, "steel plate, 100 mm", "test").top_temperature);
    for (int i = 0; i < 4; ++i) b.key(Qt::Key_Z, Qt::ControlModifier);
    b.settle();
    CHECK(b.window.document().job().plug.route == Route::slabs);
    CHECK(b.window.document().job().plug.direct.wall == Approx(0.03));
}

TEST_CASE("the stages that have nothing to do for a block say so and offer nothing that does nothing") {
    Bench b;
    b.window.show_stage(Stage::plug);
    b.settle();
    b.choose("/plug/route", kNoPlug);
    b.window.show_stage(Stage::shell);
    b.settle();
    CHECK(b.call_row("no_laminate") != nullptr);
    for (const auto* name : {"stack-shell", "lay-order", "schools-beside", "seek-stack"}) {
        INFO(name);
        CHECK_FALSE(on_screen(b, name));
    }
    // Its wall is the same word as in Plug.
    b.type("/plug/direct/wall", "45");
    CHECK(b.figure("thickness").startsWith("45"));
    b.window.show_stage(Stage::release);
    b.settle();
    const auto words = b.window.slip().findChildren<QToolButton*>("word");
    CHECK(std::none_of(words.begin(), words.end(), [](const QToolButton* w) {
        return w->property("path").toString().startsWith("/release/plug") && w->isVisible();
    }));
    b.window.show_stage(Stage::heat);
    b.settle();
    const auto plots = plots_of(b.window.document().job(), b.window.document().findings(), Stage::heat, {});
    REQUIRE_FALSE(plots.empty());
    CHECK(plots.front().x.places.size() == 3);
    CHECK(plots.front().title.contains("from mould to part"));
    CHECK_FALSE(on_screen(b, "add-on_plug"));
    CHECK_FALSE(on_screen(b, "add-post_cure"));
    CHECK(on_screen(b, "add-part"));
    b.window.show_stage(Stage::back);
    b.settle();
    b.fix("block");
    b.settle();
    CHECK(b.window.document().job().back.kind == BackKind::none);
    // Sheets for a laminate are refused in words.
    b.window.findChild<QAction*>("act-schools")->trigger();
    REQUIRE(b.home());
    CHECK(b.message().contains("nothing is laid up"));
    b.window.show_stage(Stage::plug);
    b.settle();
    b.choose("/plug/route", "a stack of slabs");
    b.window.show_stage(Stage::shell);
    b.settle();
    CHECK(on_screen(b, "stack-shell"));
    CHECK(on_screen(b, "seek-stack"));
}

TEST_CASE("the mould leaves as it is cut: closed, scaled and, of board, deeper by its coats") {
    Bench b;
    CHECK(b.write_out("x-mould", b.file("none.stl")).contains("no mould"));
    b.window.document().edit("no plug",
                             Json{{"plug", {{"route", "direct"}}}, {"heat", {{"plug_scale", 0.999}}}});
    b.settle();
    CHECK(b.write_out("x-mould", b.file("metal.stl")).contains("scaled to"));
    const auto volume = [&](const QString& name) { return std::abs(enclosed_volume(b.mesh(name))); };
    const auto drawn = b.window.document().findings().plug->plans.front().mould->body.volume;
    CHECK(volume("metal-1.stl") == Approx(drawn * std::pow(0.999, 3)).epsilon(2e-3));
    b.window.document().edit("board",
                             Json{{"plug", {{"direct", {{"mill", {{"board", "epoxy board 750, 50 mm"}}}}}}}});
    b.settle();
    CHECK(b.write_out("x-mould", b.file("board.stl")).contains("0.60 mm deeper"));
    CHECK(volume("board-1.stl") < volume("metal-1.stl"));
    // A printed one leaves as tiles too.
    b.window.show_stage(Stage::plug);
    b.settle();
    b.choose("/plug/direct/way", "printed");
    CHECK(b.window.findChild<QSlider*>("apart")->isVisible());
    CHECK(b.write_out("x-tiles", b.file("tile.stl")).contains("tiles written"));
    CHECK(QFile::exists(b.file("tile-A1-0.stl")));
}

TEST_CASE("each piece of a split mould is a block on the stand and a file of its own") {
    Bench b("cello-case-whole");
    b.window.show_stage(Stage::plug);
    b.settle();
    b.choose("/plug/route", kNoPlug);
    REQUIRE(b.window.document().findings().plug->plans.size() == 2);
    const auto& scene = b.window.stand().scene();
    // Beside each other: wider than long.
    const Point size = scene.bounds.high - scene.bounds.low;
    CHECK(size.x() > 2 * size.y());
    CHECK(b.write_out("x-mould", b.file("half.stl")).contains("scaled to"));
    CHECK(QFile::exists(b.file("half-1.stl")));
    CHECK(QFile::exists(b.file("half-2.stl")));
}
