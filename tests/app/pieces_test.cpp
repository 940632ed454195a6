// Shape and Split in the real window: starters, files of every format, planes and pieces.
#include <QApplication>
#include <QClipboard>
#include <QSlider>

#include "core/science/mesh/measure.hpp"
#include "core/science/mesh/mesh_file.hpp"
#include "core/science/mesh/step.hpp"
#include "core/science/mesh/stl.hpp"
#include "tests/app/bench.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace bench;

namespace {

/// A whole body of stations, so that it needs two pieces.
void make_whole(Bench& b) {
    auto patch = patch_of("shape", "kind", "stations");
    patch["shape"]["stations"]["whole"] = true;
    patch["shape"]["stations"]["facet"] = 0.03;
    b.window.document().edit("draw a whole body", patch);
    b.settle();
}

}  // namespace

TEST_CASE("stations are chosen, typed, pasted and faired, and the stand follows") {
    Bench b;
    b.window.show_stage(Stage::shape);
    b.settle();
    b.window.document().edit("draw by stations", patch_of("shape", "kind", "stations"));
    b.settle();
    auto* table = b.visible<RecordTable>("stations");
    CHECK(b.window.findChild<RecordTable*>("outline")->isVisible() == false);
    CHECK(b.figure("length").endsWith("300 mm"));
    table->item(0, 1)->setText("260");
    b.settle();
    CHECK(b.window.document().job().shape.stations.stations[0].width == Approx(0.26));
    table->item(0, 3)->setText("99");
    b.settle();
    CHECK(b.window.document().job().shape.stations.stations[0].fullness == Approx(2.4));
    CHECK(b.message().contains("Fullness"));
    QApplication::clipboard()->setText("0\t200\t80\t2\t0\n500\t400\t120\t2\t0\n1000\t200\t80\t2\t0\n");
    table->setFocus();
    QTest::keyClick(table, Qt::Key_V, Qt::ControlModifier);
    b.settle();
    REQUIRE(b.window.document().job().shape.stations.stations.size() == 3);
    CHECK(b.figure("length").endsWith("000 mm"));
    CHECK(b.figure("width") == "400 mm");
    b.key(Qt::Key_Z, Qt::ControlModifier);
    b.settle();
    CHECK(b.window.document().job().shape.stations.stations.size() == 5);
    auto* plot = b.visible<QWidget>("fairness");
    CHECK(shows_something(plot->grab().toImage()));
}

TEST_CASE("a copied part asks what must be settled, and a click settles it") {
    Bench b;
    b.window.show_stage(Stage::shape);
    auto patch = patch_of("shape", "kind", "copied");
    patch["shape"]["copying"]["holes"] = 2;
    b.window.document().edit("copy a part", patch);
    b.settle();
    for (const auto* key : {"holes", "returns", "draft_copied"}) {
        INFO(key);
        b.fix(key);
        b.settle();
    }
    const auto& c = b.window.document().job().shape.copying;
    CHECK((c.holes_blanked && c.returns_added && c.draft_accepted));
    for (const auto& call : b.window.document().findings().calls) CHECK(call.key != "holes");
}

TEST_CASE("files of every format are brought in by content, and what was mended can be left as it came") {
    Bench b;
    const auto ball = shapes::sphere(0.2, 24);
    for (const auto& [name, bytes] :
         {std::pair{"ball.obj", write_obj(ball)}, std::pair{"ball.ply", write_ply(ball)},
          std::pair{"ball.dat", write_stl_binary(ball)},
          std::pair{"cone.step", write_step_turned({{0.2, 0.0}, {0.1, 0.4}})}}) {
        INFO(name);
        const auto path = b.file(name);
        write_atomically(bytes, path.toStdString());
        REQUIRE(b.window.bring_in_mesh(path));
        REQUIRE(b.home());
        b.settle();
        CHECK(b.window.document().job().shape.file == name);
        CHECK(b.figure("height") == "400 mm");
    }
    const auto bad = b.file("bad.step");
    write_atomically("ISO-10303-21;\nbroken", bad.toStdString());
    const auto before = b.window.document().job();
    REQUIRE(b.window.bring_in_mesh(bad));
    REQUIRE(b.home());
    CHECK(b.message().contains("STEP"));
    CHECK(b.window.document().job() == before);
    // A box with one face turned: mended, marked, and left alone on request.
    auto box = shapes::box({0, 0, 0}, {0.3, 0.2, 0.1});
    std::swap(box.triangles[0][1], box.triangles[0][2]);
    const auto turned = b.file("turned.stl");
    write_atomically(write_stl_binary(box), turned.toStdString());
    REQUIRE(b.window.bring_in_mesh(turned));
    REQUIRE(b.home());
    b.settle();
    CHECK(b.window.document().findings().shape->repairs.size() == 1);
    b.fix("repair");
    b.settle();
    CHECK(b.window.document().findings().shape->repairs.empty());
    CHECK_FALSE(b.window.document().job().shape.mend.turn);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.window.document().job().shape.mend.turn);
}

TEST_CASE("one click puts the plane at the widest line, and its handle moves it in one step of undo") {
    Bench b;
    make_whole(b);
    b.window.show_stage(Stage::split);
    b.settle();
    b.fix("locks");
    b.settle();
    const auto& doc = b.window.document();
    REQUIRE(doc.job().split.way == SplitWay::plane);
    REQUIRE(doc.findings().split->set.pieces.size() == 2);
    auto& stand = b.window.stand();
    REQUIRE(stand.scene().has_plane);
    CHECK(stand.findChild<QSlider*>("apart")->isVisible());
    const auto at = doc.job().split.plane_at;
    const auto undo = doc.undo_name();
    drag(stand, stand.plane_handle(), {0, -40});
    b.settle();
    const auto& n = doc.job().split.plane_normal;
    const auto& to = doc.job().split.plane_at;
    // Upwards on the screen is along the plane's normal.
    CHECK((to[0] - at[0]) * n[0] + (to[1] - at[1]) * n[1] + (to[2] - at[2]) * n[2] > 0.005);
    CHECK(doc.undo_name() == "drag the split");
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(doc.job().split.plane_at == at);
    CHECK(doc.undo_name() == undo);
}

TEST_CASE("pieces are drawn apart as far as the slider says") {
    Bench b;
    make_whole(b);
    b.window.show_stage(Stage::split);
    auto patch = patch_of("split", "way", "plane");
    b.window.document().edit("split", patch);
    b.settle();
    auto* slider = b.window.stand().findChild<QSlider*>("apart");
    slider->setValue(0);
    const double together = b.window.stand().scene().bounds.size().z();
    slider->setValue(100);
    const double apart = b.window.stand().scene().bounds.size().z();
    CHECK(apart > together + 0.5);
    // A mould in one piece has nothing to pull apart.
    b.window.show_stage(Stage::shape);
    CHECK_FALSE(slider->isVisible());
}

TEST_CASE("pieces, seams and parting boards leave as files that read back") {
    Bench b;
    make_whole(b);
    CHECK(b.write_out("x-pieces", b.file("p.stl")).contains("one piece"));
    CHECK(b.write_out("x-boards-pdf", b.file("b.pdf")).contains("one piece"));
    b.window.document().edit("split", patch_of("split", "way", "plane"));
    b.settle();
    for (const auto* ending : {"stl", "obj", "ply"}) {
        CHECK(b.write_out("x-pieces", b.file(QString("p.") + ending)).contains("2 pieces"));
        for (int i = 1; i <= 2; ++i) {
            const auto back = b.mesh(QString("p-%1.%2").arg(i).arg(ending));
            CHECK(back.triangles.size() == b.window.document()
                                               .findings()
                                               .split->set.pieces[static_cast<std::size_t>(i - 1)]
                                               .mesh.triangles.size());
        }
    }
    CHECK(b.write_out("x-pieces", b.file("p.xyz")).contains(".stl, .obj or .ply"));
    CHECK(b.write_out("x-boards-dxf", b.file("board.dxf")).contains("board-1.dxf"));
    CHECK(QFile::exists(b.file("board-1.dxf")));
    CHECK(QFile::exists(b.file("board-1.svg")));
    CHECK(b.write_out("x-boards-pdf", b.file("board.pdf")).startsWith("Written"));
    QString info;
    const auto text = text_of_pdf(b.file("board.pdf"), &info);
    CHECK(text.contains("parting board 1 of 1"));
    CHECK(text.contains("100 mm"));
    CHECK(b.write_out("x-seams", b.file("seams.step")).startsWith("Written"));
    CHECK(read_file(b.file("seams.step").toStdString()).find("ISO-10303-21") == 0);
    CHECK(b.write_out("x-step", b.file("s.step")).contains("turned"));
    // The board's face in place, with its dowel holes: as much area as is cut, in the plane of the split.
    const auto board = b.window.document().findings().split->boards.front();
    CHECK(b.write_out("x-boards-step", b.file("face.step")).startsWith("Written"));
    const auto face = b.mesh("face.step");
    CHECK(measure(face, topology_of(face)).area == Approx(net_area(split::drilled(board))).epsilon(1e-3));
    for (const auto& p : face.points) CHECK(p.z() == Approx(0).margin(1e-6));
    CHECK(b.write_out("x-boards-mesh", b.file("plate.stl")).contains("1 boards"));
    const auto plate = b.mesh("plate-1.stl");
    CHECK(measure(plate, topology_of(plate)).size.z() == Approx(0.012).margin(1e-6));
    CHECK(b.write_out("x-surfaces", b.file("surface.obj")).contains("1 surfaces"));
    CHECK(QFile::exists(b.file("surface-1.obj")));
    // Searched seams are curved: their boards' edges leave as wires.
    auto search = patch_of("split", "way", "search");
    search["split"]["locating"] = "leaning";
    b.window.document().edit("search", search);
    b.settle();
    CHECK(b.write_out("x-boards-step", b.file("strip.step")).startsWith("Written"));
    CHECK(read_file(b.file("strip.step").toStdString()).find("ISO-10303-21") == 0);
}

TEST_CASE("an outline is brought in from a drawing, a bad one changes nothing") {
    Bench b;
    const auto good = b.file("oval.svg"), bad = b.file("open.svg");
    write_atomically("<svg xmlns='http://www.w3.org/2000/svg'><ellipse rx='250' ry='150'/></svg>",
                     good.toStdString());
    write_atomically("<svg xmlns='http://www.w3.org/2000/svg'><path d='M0 0L9 9'/></svg>", bad.toStdString());
    const auto before = b.window.document().job();
    REQUIRE(b.window.bring_in_outline(bad));
    REQUIRE(b.home());
    CHECK(b.message().contains("no closed outline"));
    CHECK(b.window.document().job() == before);
    REQUIRE(b.window.bring_in_outline(good));
    REQUIRE(b.home());
    b.settle();
    CHECK(b.message().contains("points"));
    const auto size = b.window.document().findings().shape->measures.size;
    CHECK(size.x() == Approx(0.5).margin(0.001));
    CHECK(size.y() == Approx(0.3).margin(0.001));
}

TEST_CASE("what has been looked at is kept with the job, without asking to be saved") {
    Bench b;
    b.window.show_stage(Stage::heat);
    CHECK_FALSE(b.window.document().unsaved());
    REQUIRE(b.window.save_job(b.file("j.jigshell")));
    const auto kept = load_job(b.file("j.jigshell").toStdString());
    CHECK(std::find(kept.looked_at.begin(), kept.looked_at.end(), "heat") != kept.looked_at.end());
    CHECK(std::find(kept.looked_at.begin(), kept.looked_at.end(), "run") == kept.looked_at.end());
    Bench fresh;
    REQUIRE(fresh.window.open_job(b.file("j.jigshell")));
    CHECK(fresh.window.document().looked_at().count(Stage::heat) == 1);
    CHECK(fresh.window.document().looked_at().count(Stage::run) == 0);
}

TEST_CASE("a piece is named in its sentence and called so everywhere") {
    Bench b("cello-case-whole");
    b.window.show_stage(Stage::split);
    b.settle();
    REQUIRE(b.window.document().findings().split->facts.size() == 2);
    b.word("/split/names/0");
    b.window.document().edit("name piece", [] {
        auto patch = patch_of("split", "names", Json::array({"lower shell", "upper shell"}));
        return patch;
    }());
    b.settle();
    CHECK(b.window.document().findings().split->facts[0].name == "lower shell");
    bool drawn = false;
    for (const auto& label : b.window.stand().scene().labels) drawn |= label.text == "lower shell";
    CHECK(drawn);
}

TEST_CASE("show surface and pieces are painted on the stand, undone as one stroke and washed off") {
    Bench b;
    make_whole(b);
    b.window.document().edit("split", patch_of("split", "way", "search"));
    b.settle();
    b.window.show_stage(Stage::split);
    b.settle();
    auto& stand = b.window.stand();
    const auto brush = [&](const QString& name) {
        for (auto* button : stand.findChildren<QToolButton*>("brush")) {
            if (button->isVisible() && button->text().startsWith(name)) return button;
        }
        return static_cast<QToolButton*>(nullptr);
    };
    REQUIRE(brush("show surface") != nullptr);
    CHECK_FALSE(stand.findChild<QSlider*>("brush-width")->isVisible());
    QTest::mouseClick(brush("show surface"), Qt::LeftButton);
    CHECK(stand.findChild<QSlider*>("brush-width")->isVisible());
    stand.findChild<QSlider*>("apart")->setValue(0);
    b.settle();
    const auto yaw = stand.camera().yaw;
    const QPointF middle(stand.width() / 2.0, stand.height() / 2.0);
    REQUIRE(touched(stand.scene(), stand.camera(), stand.size(), middle));
    drag(stand, middle - QPointF(60, 0), {120, 0});
    b.settle();
    CHECK(stand.camera().yaw == yaw);
    const auto strokes = b.window.document().job().split.painted.size();
    CHECK(strokes >= 2);
    const auto& split = *b.window.document().findings().split;
    CHECK(std::count(split.show.begin(), split.show.end(), 1) > 0);
    CHECK(b.figure("seam_on_show") != "");
    CHECK(shows_something(stand.grab().toImage()));
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.window.document().job().split.painted.empty());
    // The second piece takes what is given to it.
    const auto name = QString::fromStdString(b.window.document().findings().split->facts[1].name);
    REQUIRE(brush("give to " + name) != nullptr);
    QTest::mouseClick(brush("give to " + name), Qt::LeftButton);
    drag(stand, middle, {10, 0});
    b.settle();
    REQUIRE_FALSE(b.window.document().job().split.painted.empty());
    CHECK(b.window.document().job().split.painted.front().paint == Paint::given);
    b.window.findChild<QAction*>("act-unpaint")->trigger();
    b.settle();
    CHECK(b.window.document().job().split.painted.empty());
    // Escape puts the brush away, and the stand turns again; beside the part nothing is painted.
    QTest::mouseClick(brush("plain"), Qt::LeftButton);
    drag(stand, {3.0, stand.height() - 40.0}, {10, 0});
    b.settle();
    CHECK(b.window.document().job().split.painted.empty());
    stand.setFocus();
    QTest::keyClick(&stand, Qt::Key_Escape);
    drag(stand, middle, {40, 0});
    CHECK(stand.camera().yaw != yaw);
}

TEST_CASE("a station's section is typed by points, pasted from a gauge, and drawn by fullness again") {
    Bench b;
    b.window.show_stage(Stage::shape);
    b.window.document().edit("draw by stations", patch_of("shape", "kind", "stations"));
    b.settle();
    auto* table = b.visible<RecordTable>("stations");
    table->setCurrentCell(2, 0);
    auto* button = b.visible<QPushButton>("gauge-button");
    CHECK(b.window.findChild<RecordTable*>("gauge")->isVisible() == false);
    const auto width = b.figure("width");
    QTest::mouseClick(button, Qt::LeftButton);
    b.settle();
    auto* points = b.visible<RecordTable>("gauge");
    CHECK(points->rowCount() == 9);
    CHECK(table->item(2, 3)->text() == "9 points");
    CHECK(b.figure("width") == width);
    points->setFocus();
    QApplication::clipboard()->setText("0\t160\n150\t150\n260\t60\n270\t0\n");
    QTest::keyClick(points, Qt::Key_V, Qt::ControlModifier);
    b.settle();
    const auto& station = b.window.document().job().shape.stations.stations[2];
    CHECK(station.width == Approx(0.54));
    CHECK(station.height == Approx(0.16));
    CHECK(station.lift == Approx(0).margin(1e-9));
    CHECK(table->item(2, 1)->text() == "540");
    points->item(0, 1)->setText("x");
    b.settle();
    CHECK(b.message().contains("no length"));
    table->setCurrentCell(0, 0);
    CHECK(points->isVisible() == false);
    table->setCurrentCell(2, 0);
    CHECK(points->isVisible());
    table->item(2, 3)->setText("2.2");
    b.settle();
    CHECK(b.window.document().job().shape.stations.stations[2].points.empty());
    CHECK(points->isVisible() == false);
}

TEST_CASE("several parts are laid into one mould from the slip, and every stage shows them") {
    Bench b;
    b.window.show_stage(Stage::split);
    b.settle();
    const auto alone = b.window.stand().scene().corners.size();
    b.choose("/split/together", "lies beside its mirror image");
    CHECK(b.figure("parts") == "2");
    // The sheet that gives the scale is two triangles and lies there once.
    CHECK(b.window.stand().scene().corners.size() == 2 * alone - 6);
    b.type("/split/between", "80");
    CHECK(b.window.document().job().split.between == Approx(0.08));
    for (const auto stage : {Stage::plug, Stage::edge, Stage::shell, Stage::back, Stage::release}) {
        b.window.show_stage(stage);
        const auto size = b.window.stand().scene().bounds.size();
        CHECK(std::max(size.x(), size.y()) > 0.5);
        CHECK(b.window.stand().scene().shadow.empty() == false);
    }
    b.window.show_stage(Stage::split);
    b.settle();
    b.choose("/split/together", "lies beside others of its kind");
    b.type("/split/parts", "3");
    CHECK(b.figure("parts") == "3");
    CHECK(b.figure("bags_saved") == QString::number(2 * b.window.document().job().brief.pulls));
}
