// Shape and Split in the real window: starters, files of every format, planes and pieces.
#include <QApplication>
#include <QClipboard>
#include <QSlider>

#include "core/science/mesh/mesh_file.hpp"
#include "core/science/mesh/step.hpp"
#include "core/science/mesh/stl.hpp"
#include "tests/app/bench.hpp"
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

void drag(Stand& stand, const QPointF& from, const QPointF& by) {
    auto* canvas = stand.findChild<QWidget*>("canvas");
    QTest::mousePress(canvas, Qt::LeftButton, {}, from.toPoint());
    for (int i = 1; i <= 5; ++i) {
        const auto at = (from + by * i / 5.0).toPoint();
        QMouseEvent move(QEvent::MouseMove, at, canvas->mapToGlobal(QPointF(at)), Qt::NoButton,
                         Qt::LeftButton, {});
        QApplication::sendEvent(canvas, &move);
        QTest::qWait(5);
    }
    QTest::mouseRelease(canvas, Qt::LeftButton, {}, (from + by).toPoint());
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
    CHECK_FALSE(plot->grab().toImage().isNull());
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
        QTest::mouseClick(b.visible<QPushButton>(QString("fix-") + key), Qt::LeftButton);
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
    QTest::mouseClick(b.visible<QPushButton>("fix-repair"), Qt::LeftButton);
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
    QTest::mouseClick(b.visible<QPushButton>("fix-locks"), Qt::LeftButton);
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
    Progress quiet;
    for (const auto* ending : {"stl", "obj", "ply"}) {
        CHECK(b.write_out("x-pieces", b.file(QString("p.") + ending)).contains("2 pieces"));
        for (int i = 1; i <= 2; ++i) {
            const auto back = read_mesh(
                read_file(b.file(QString("p-%1.%2").arg(i).arg(ending)).toStdString()), ending, {}, quiet);
            CHECK(back.triangles.size() == b.window.document()
                                               .findings()
                                               .split->set.pieces[static_cast<std::size_t>(i - 1)]
                                               .mesh.triangles.size());
        }
    }
    CHECK(b.write_out("x-pieces", b.file("p.xyz")).contains(".stl, .obj or .ply"));
    CHECK(b.write_out("x-boards-dxf", b.file("board.dxf")).contains("1 boards"));
    CHECK(QFile::exists(b.file("board-1.dxf")));
    CHECK(QFile::exists(b.file("board-1.svg")));
    CHECK(b.write_out("x-boards-pdf", b.file("board.pdf")).contains("ritten"));
    QString info;
    const auto text = text_of_pdf(b.file("board.pdf"), &info);
    CHECK(text.contains("parting board 1 of 1"));
    CHECK(text.contains("100 mm"));
    CHECK(b.write_out("x-seams", b.file("seams.step")).contains("ritten"));
    CHECK(read_file(b.file("seams.step").toStdString()).find("ISO-10303-21") == 0);
    CHECK(b.write_out("x-step", b.file("s.step")).contains("turned"));
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
