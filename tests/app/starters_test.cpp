// Every kind of shape from its own slip: words, tables, placing, and exports that read back.
#include <QApplication>
#include <QClipboard>

#include "core/science/mesh/measure.hpp"
#include "core/science/mesh/mesh_file.hpp"
#include "core/science/mesh/stl.hpp"
#include "tests/app/bench.hpp"
#include "tests/quiet.hpp"

using namespace bench;

namespace {

void draw(Bench& b, const char* kind) {
    b.window.show_stage(Stage::shape);
    b.window.document().edit("draw it", patch_of("shape", "kind", kind));
    b.settle();
}

Measures exported(Bench& b, const QString& name) {
    CHECK(b.write_out("x-stl", b.file(name)).startsWith("Written"));
    const auto mesh = read_mesh(read_file(b.file(name).toStdString()), name.toStdString(), {}, quiet);
    return measure(mesh, topology_of(mesh));
}

}  // namespace

TEST_CASE("a turned profile is typed, straightened and leaves as STEP that is exact") {
    Bench b;
    draw(b, "turned");
    auto* table = b.visible<RecordTable>("profile");
    QApplication::clipboard()->setText("200\t0\n100\t300\n");
    table->setFocus();
    QTest::keyClick(table, Qt::Key_V, Qt::ControlModifier);
    b.settle();
    REQUIRE(b.window.document().job().shape.turned.profile.size() == 2);
    CHECK(b.figure("height") == "300 mm");
    // A cone's mantle π·(R + r)·s.
    const double mantle = kPi * 0.3 * std::hypot(0.1, 0.3);
    for (const auto* name : {"cone.stl", "cone.obj", "cone.ply"})
        CHECK(exported(b, name).area == Approx(mantle).epsilon(2e-3));
    CHECK(b.write_out("x-step", b.file("cone.step")).startsWith("Written"));
    const auto back =
        read_mesh(read_file(b.file("cone.step").toStdString()), "cone.step", {1.0, 1e-5}, quiet);
    CHECK(measure(back, topology_of(back)).area == Approx(mantle).epsilon(1e-4));
    table->item(0, 0)->setText("-5");
    b.settle();
    // A radius beyond the axis stops the stage with words, and the last good shape stays on the stand.
    bool said = false;
    for (const auto& call : b.window.document().findings().calls)
        said |= call.headline.find("axis") != std::string::npos;
    CHECK(said);
    CHECK(shows_something(b.window.stand().grab().toImage()));
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.window.document().job().shape.turned.profile[0][0] == Approx(0.2));
    table->setCurrentCell(1, 0);
    QTest::keyClick(table, Qt::Key_Delete);
    b.settle();
    CHECK(b.window.document().job().shape.turned.profile.size() == 2);
}

TEST_CASE("a foil follows its words and takes a section of coordinates") {
    Bench b;
    draw(b, "foil");
    CHECK(b.window.findChild<RecordTable*>("section-points")->isVisible() == false);
    b.type("/shape/foil/span", "1000");
    b.type("/shape/foil/chord", "400");
    b.type("/shape/foil/tip_chord", "400");
    CHECK(b.figure("width") != "");
    const auto whole = exported(b, "foil.stl");
    CHECK(whole.closed);
    CHECK(whole.size.maxCoeff() == Approx(1.0).epsilon(1e-6));
    b.choose("/shape/foil/section", "its coordinates below");
    auto* table = b.visible<RecordTable>("section-points");
    // A wedge, from the trailing edge over the top.
    QApplication::clipboard()->setText("1\t0\n0.5\t0.1\n0\t0\n0.5\t-0.1\n0.9\t-0.02\n");
    table->setFocus();
    QTest::keyClick(table, Qt::Key_V, Qt::ControlModifier);
    b.settle();
    REQUIRE(b.window.document().job().shape.foil.points.size() == 5);
    // A rhombus of 1 × 0.2 chords, times the span.
    CHECK(exported(b, "wedge.ply").volume == Approx(0.5 * 0.4 * 0.08 * 1.0).epsilon(0.03));
    table->item(0, 1)->setText("high");
    b.settle();
    CHECK(b.message().contains("no number"));
    CHECK(b.window.document().job().shape.foil.points[0][1] == 0);
}

TEST_CASE("a copied part is drawn by its gauge sections, and its checklist follows its words") {
    Bench b;
    draw(b, "copied");
    CHECK(b.visible<RecordTable>("stations")->rowCount() == 5);
    b.type("/shape/copying/holes", "3");
    const auto open = [&](const char* key) {
        for (const auto& call : b.window.document().findings().calls) {
            if (call.key == key) return true;
        }
        return false;
    };
    CHECK(open("holes"));
    b.choose("/shape/copying/holes_blanked", "blanked flush");
    CHECK_FALSE(open("holes"));
    CHECK(open("returns"));
    b.choose("/shape/copying/returns_added", "added");
    CHECK_FALSE(open("returns"));
    auto* table = b.visible<RecordTable>("stations");
    for (int i = 0; i < 3; ++i) {
        table->setCurrentCell(0, 0);
        QTest::keyClick(table, Qt::Key_Delete);
        b.settle();
    }
    CHECK(b.window.document().job().shape.stations.stations.size() == 2);
    CHECK(open("gauge"));
    QTest::keyClick(table, Qt::Key_Delete);
    b.settle();
    CHECK(b.message().contains("2 lines at least"));
}

TEST_CASE("a shape is put on the bench: side up, mirrored, scaled, and its tool face chosen") {
    Bench b;
    draw(b, "turned");
    const auto size = b.window.document().findings().shape->measures.size;
    b.choose("/shape/place/up", "with its +x side up");
    auto now = b.window.document().findings().shape->measures.size;
    CHECK(now.z() == Approx(size.x()).epsilon(1e-6));
    b.type("/shape/place/scale", "50");
    now = b.window.document().findings().shape->measures.size;
    CHECK(now.z() == Approx(size.x() / 2).epsilon(1e-6));
    const auto facing = [&] { return b.window.document().findings().shape->mesh.area_vector2(40); };
    const Point outwards = facing();
    b.choose("/shape/place/face", "its inside");
    CHECK((facing() + outwards).norm() < 1e-9 * outwards.norm());
    b.choose("/shape/place/mirror", "mirrored left for right");
    CHECK((facing() - Point(-outwards.x(), outwards.y(), -outwards.z())).norm() < 1e-9 * outwards.norm());
    for (int i = 0; i < 4; ++i) b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.window.document().findings().shape->measures.size == size);
}

TEST_CASE("other pulls are drawn where the best one locks something") {
    Bench b;
    draw(b, "stations");
    auto patch = patch_of("shape", "kind", "stations");
    patch["shape"]["stations"]["whole"] = true;
    patch["shape"]["stations"]["facet"] = 0.03;
    b.window.document().edit("draw a whole body", patch);
    b.settle();
    b.window.show_stage(Stage::split);
    b.settle();
    int labels = 0;
    for (const auto& label : b.window.stand().scene().labels) labels += label.text.startsWith("locks ");
    CHECK(labels == 2);
    CHECK(b.figure("pull_2") != "");
    CHECK(b.figure("pull_3") != "");
}
