// The plug in the real window: routes side by side, each route's slip and stand, and its files.
#include <QApplication>
#include <QTableWidget>

#include "core/science/mesh/measure.hpp"
#include "core/science/mesh/mesh_file.hpp"
#include "core/science/mesh/solid.hpp"
#include "core/science/mesh/stl.hpp"
#include "tests/app/bench.hpp"
#include "tests/quiet.hpp"

using namespace bench;

namespace {

const plug::Plan& plan(Bench& b) {
    return b.window.document().findings().plug->plans.front();
}

void take(Bench& b, const char* route) {
    b.window.document().edit("take a route", patch_of("plug", "route", route));
    b.settle();
}

}  // namespace

TEST_CASE("the routes are set side by side, reasons open on a click, and one is taken") {
    Bench b;
    b.window.show_stage(Stage::plug);
    b.settle();
    QTest::mouseClick(b.visible<QPushButton>("side-by-side"), Qt::LeftButton);
    REQUIRE(b.home());
    auto& sheet = b.window.routes();
    REQUIRE(sheet.isVisible());
    // Eight sums for each of eight routes, in the units on screen.
    const auto sums = sheet.findChildren<QToolButton*>("sum");
    CHECK(sums.size() == 64);
    QToolButton* block_cost = nullptr;
    for (auto* s : sums) {
        if (s->property("route") == "block" && s->property("sum") == "cost") block_cost = s;
    }
    REQUIRE(block_cost != nullptr);
    CHECK(block_cost->text().startsWith("¤"));
    CHECK_FALSE(block_cost->toolTip().isEmpty());
    QTest::mouseClick(block_cost, Qt::LeftButton);
    CHECK(sheet.findChild<QLabel*>("routes-why")->text().contains(block_cost->toolTip()));
    CHECK(shows_something(sheet.grab().toImage()));
    // Nothing to copy here: an existing part cannot be taken, and what is taken already neither.
    CHECK(sheet.findChild<QPushButton*>("take-existing") == nullptr);
    CHECK(sheet.findChild<QPushButton*>("take-slabs") == nullptr);
    auto* not_here = sheet.findChild<QToolButton*>("sum-obstacle");
    REQUIRE(not_here != nullptr);
    not_here->click();
    CHECK(sheet.findChild<QLabel*>("routes-why")->text().contains("drawn here"));
    auto* take_block = sheet.findChild<QPushButton*>("take-block");
    REQUIRE(take_block != nullptr);
    take_block->click();
    b.settle();
    CHECK(b.window.document().job().plug.route == Route::block);
    // The sheet follows by itself.
    REQUIRE(QTest::qWaitFor([&] { return sheet.belongs_to(b.window.document().job()); }, 60000));
    CHECK(sheet.findChild<QPushButton*>("take-slabs") != nullptr);
    QTest::mouseClick(b.visible<QPushButton>("routes-close"), Qt::LeftButton);
    CHECK_FALSE(sheet.isVisible());
    CHECK(b.window.stand().isVisible());
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.window.document().job().plug.route == Route::slabs);
}

TEST_CASE("every route has its own words, its own picture and a place on the card") {
    Bench b;
    b.window.show_stage(Stage::plug);
    for (const char* route :
         {"block", "slabs", "skeleton", "foam", "tiles", "existing", "splash", "direct"}) {
        INFO(route);
        take(b, route);
        CHECK(b.word("/plug/route") != nullptr);
        const auto& scene = b.window.stand().scene();
        CHECK(scene.corners.size() > 100);
        CHECK_FALSE(scene.legend.isEmpty());
        CHECK(b.figure("hours") != "");
        CHECK(b.figure("mass") != "");
        CHECK(b.figure("people") != "");
        CHECK(shows_something(b.window.grab().toImage()));
        const bool apart = b.window.findChild<QSlider*>("apart")->isVisible();
        const bool parts =
            QString(route) == "slabs" || QString(route) == "tiles" || QString(route) == "splash";
        CHECK(apart == parts);
    }
    auto* table = b.visible<RecordTable>("schedule");
    CHECK(table->rowCount() >= 5);
}

TEST_CASE("slabs are bevelled, hollowed and laid along the length from the slip") {
    Bench b;
    b.window.show_stage(Stage::plug);
    b.settle();
    const double solid = plan(b).slabs.stack.volume, steps = plan(b).slabs.to_sand;
    b.choose("/plug/slabs/bevel", "tilted with the wall");
    CHECK(plan(b).slabs.to_sand < 0.5 * steps);
    b.choose("/plug/slabs/hollow", "cut out");
    CHECK(plan(b).slabs.stack.volume < solid);
    b.type("/plug/slabs/wall", "90");
    CHECK(b.window.document().job().plug.slabs.wall == Approx(0.09));
    b.choose("/plug/slabs/way", "along the length");
    CHECK(plan(b).slabs.stack.slabs.size() > 20);
    b.choose("/plug/in_envelope", "inside an envelope bag");
    CHECK(b.figure("crush_safety") != "");
}

TEST_CASE("slabs leave as sheets, an assembly sheet and a stack; tiles and the plug as meshes") {
    Bench b;
    b.window.document().edit("larger sheets", patch_of("plug", "board", "PU foam 35, 50 mm"));
    b.settle();
    CHECK(b.write_out("x-slabs-dxf", b.file("cut.dxf")).contains("sheets written"));
    CHECK(b.write_out("x-sheets-pdf", b.file("sheets.pdf")).startsWith("Written"));
    QString info;
    CHECK(text_of_pdf(b.file("sheets.pdf"), &info).contains("sheet 1 of"));
    // Two metres of sheet and a margin, in points.
    const auto wide = info.mid(info.indexOf("Page size:") + 10).trimmed().split(' ').front().toDouble();
    CHECK(wide == Approx((2000 + 30) / 25.4 * 72).epsilon(2e-3));
    CHECK(b.write_out("x-assembly", b.file("assembly.pdf")).startsWith("Written"));
    const auto words = text_of_pdf(b.file("assembly.pdf"));
    CHECK(words.contains("Assembly of the plug"));
    CHECK(words.contains("slab 4 of 4"));
    CHECK(b.write_out("x-stack", b.file("stack.stl")).startsWith("Written"));
    const auto stack = b.mesh("stack.stl");
    CHECK(enclosed_volume(stack) == Approx(plan(b).slabs.stack.volume).epsilon(1e-4));
    CHECK(b.write_out("x-tiles", b.file("t.stl")).contains("tiles first"));
    CHECK(b.write_out("x-templates", b.file("t.dxf")).contains("only a skeleton"));
    CHECK(b.write_out("x-plug", b.file("plug.obj")).contains("scaled to"));
    const auto cut = b.mesh("plug.obj");
    const double scale = b.window.document().job().heat.plug_scale;
    CHECK(scale == 1);  // nobody has chosen another, whatever Heat would like
    const double length = measure(cut, topology_of(cut)).size.x(),
                 drawn = b.window.document().findings().shape->measures.size.x();
    CHECK(length == Approx(scale * (drawn - 2 * 0.0006)).epsilon(1e-3));
    take(b, "tiles");
    CHECK(b.write_out("x-tiles", b.file("tile.ply")).contains("tiles written"));
    CHECK(QFile::exists(b.file("tile-A1-0.ply")));
    CHECK(b.write_out("x-slabs-dxf", b.file("none.dxf")).contains("no flat pieces"));
    take(b, "skeleton");
    CHECK(b.write_out("x-templates", b.file("gauge.dxf")).contains("sheets written"));
    CHECK(b.write_out("x-slabs-pdf", b.file("ribs.pdf")).startsWith("Written"));
    CHECK(text_of_pdf(b.file("ribs.pdf")).contains("station 1"));
}

TEST_CASE("pieces take routes of their own from the slip") {
    Bench b("cello-case-whole");
    b.window.show_stage(Stage::plug);
    b.settle();
    b.choose("/plug/by_piece", "plugs of their own");
    b.choose("/plug/piece_routes/1", "a skeleton, filled");
    const auto& plans = b.window.document().findings().plug->plans;
    REQUIRE(plans.size() == 2);
    CHECK(plans[0].route == Route::slabs);
    CHECK(plans[1].route == Route::skeleton);
    CHECK(b.window.stand().scene().corners.size() > 1000);
    CHECK(shows_something(b.window.grab().toImage()));
}

TEST_CASE("offcuts of the plug's sheets are kept as stock that a job can be cut from") {
    Bench b;
    b.window.findChild<QAction*>("act-keep-offcuts")->trigger();
    REQUIRE(b.home());
    CHECK(b.window.findChild<QLabel*>("message")->text().contains("offcuts kept"));
    b.settle();
    const auto& stock = need(b.window.document().shop().boards, b.window.document().job().plug.board, "test");
    const auto name = "offcut 1 of " + stock.name;
    const auto* left = jig::find(b.window.document().shop().boards, name);
    REQUIRE(left != nullptr);
    CHECK(left->price == 0);
    CHECK(left->thickness == stock.thickness);
    CHECK(left->sheet_length * left->sheet_width < stock.sheet_length * stock.sheet_width);
    b.window.document().edit("take it", patch_of("plug", "board", name));
    b.settle();
    CHECK(b.window.document().findings().plug != nullptr);
    // Kept for good: a shop that is read again has it too.
    CHECK(jig::find(load_shop(data_folder().toStdString() + "/library", own_library().toStdString()).boards,
                    name) != nullptr);
    take(b, "block");
    b.window.findChild<QAction*>("act-keep-offcuts")->trigger();
    REQUIRE(b.home());
    CHECK(b.window.findChild<QLabel*>("message")->text().contains("no offcut"));
    QFile::remove(own_library() + "/boards.json");
}

TEST_CASE("what is kept goes into the library that the program was begun with") {
    Bench b;
    take_library(b.file("lists"));
    b.window.findChild<QAction*>("act-keep-offcuts")->trigger();
    REQUIRE(b.home());
    take_library({});
    CHECK(QFile::exists(b.file("lists") + "/boards.json"));
    CHECK_FALSE(QFile::exists(own_library() + "/boards.json"));
}
