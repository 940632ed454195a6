// The part's core in the real window: slit and bored by its words, mended by its calls, cut into panels that
// are seen on the stand and written out.
#include <QDir>

#include "app/print/sheets.hpp"
#include "core/stages/part/panels.hpp"
#include "tests/app/bench.hpp"

using namespace bench;

namespace {

struct CoreBench : Bench {
    explicit CoreBench(const QString& demo = "cello-case") : Bench(demo) {
        window.show_stage(Stage::part);
        settle();
    }
    [[nodiscard]] const CoreCut& cut() { return window.document().job().part.layers.at(core()).cut; }
    [[nodiscard]] std::size_t core() {
        const auto& layers = window.document().job().part.layers;
        for (std::size_t i = 0; i < layers.size(); ++i) {
            if (layers[i].kind == LayerKind::core) return i;
        }
        FAIL("no core");
        return 0;
    }
    [[nodiscard]] QString path(const char* field) {
        return QString("/part/layers/%1/cut/%2").arg(core()).arg(field);
    }
    [[nodiscard]] const part::Findings& part() { return *window.document().findings().part; }
};

}  // namespace

TEST_CASE("a core is slit and bored by its words, drinks for it, and one undo takes each back") {
    CoreBench b;
    const double mass = b.part().mass;
    CHECK(b.figure("core_cuts").isEmpty());
    b.choose(b.path("slits"), "slits both ways");
    CHECK(b.cut().slits == Slits::both);
    CHECK_FALSE(b.figure("core_cuts").isEmpty());
    const double slit = b.part().mass;
    CHECK(slit > mass);
    b.type(b.path("slit"), "2");
    CHECK(b.cut().slit == Approx(0.002));
    CHECK(b.part().mass > slit);
    b.type(b.path("slit_pitch"), "0,05 m");
    CHECK(b.cut().slit_pitch == Approx(0.05));
    b.type(b.path("hole"), "3");
    CHECK(b.cut().hole == Approx(0.003));
    b.type(b.path("hole_pitch"), "25 mm");
    CHECK(b.cut().hole_pitch == Approx(0.025));
    // What is no pitch stays in its field and changes nothing.
    QTest::mouseClick(b.word(b.path("hole_pitch")), Qt::LeftButton);
    auto* field = b.editor()->findChild<QLineEdit*>("field");
    REQUIRE(field != nullptr);
    field->selectAll();
    QTest::keyClicks(field, "0");
    QTest::keyClick(field, Qt::Key_Return);
    CHECK(b.cut().hole_pitch == Approx(0.025));
    QTest::keyClick(field, Qt::Key_Escape);
    for (int i = 0; i < 5; ++i) {
        b.window.document().undo();
        b.settle();
    }
    CHECK(b.cut() == CoreCut{});
    CHECK(b.part().mass == Approx(mass));
}

TEST_CASE("where a core does not bend it is hatched and called, and the call's way out bends it") {
    CoreBench b;
    CHECK(b.window.stand().scene().legend.contains("hatched"));
    const double tight = b.part().cores->tight();
    REQUIRE(tight > 0);
    b.fix("core_bends");
    b.settle();
    CHECK((b.cut().slits == Slits::both || b.cut().heated));
    CHECK(b.part().cores->tight() < tight);
    // The core ends before the rim once its note is followed.
    const auto area = b.part().cores->cores.front().area;
    b.fix("core_runs_out");
    b.settle();
    CHECK(b.window.document().job().part.zones.size() == 1);
    CHECK(b.part().cores->cores.front().area < area);
    b.window.document().undo();
    b.settle();
    CHECK(b.window.document().job().part.zones.empty());
}

TEST_CASE("panels are cut behind, drawn and named on the stand, and written sheet by sheet") {
    CoreBench b("pavilion-petal");
    // They come when they come: before that there is nothing to write.
    for (const auto& what : exports()) {
        if (QString(what.key) == "x-core")
            CHECK_FALSE(what.why_not(b.window.document().job(), Findings()).isEmpty());
    }
    REQUIRE(tried(b.window.document()));
    b.settle();
    const auto& found = b.window.document().findings().core_panels;
    REQUIRE(found);
    CHECK(b.figure("core_panels") == QString::number(found->panels.size()));
    CHECK(b.window.stand().scene().legend.contains("joints between panels"));
    bool named = false;
    for (const auto& l : b.window.stand().scene().labels) named = named || l.text == "C1.1";
    CHECK(named);
    CHECK(b.write_out("x-core", b.file("core.dxf")).contains("panels are written"));
    const auto written = QDir(b.folder.path()).entryList({"core-*"});
    CHECK(written.size() == 2 * static_cast<int>(found->stocks.front().sheets.sheets.size()));
    for (const auto& name : written) CHECK(QFileInfo(b.file(name)).size() > 500);
    b.write_out("x-core-pdf", b.file("core.pdf"));
    QString pages;
    text_of_pdf(b.file("core.pdf"), &pages);
    CHECK(pages.contains("Pages:"));
}

TEST_CASE(
    "an insert is added, typed, dragged on the stand and followed by the zone round it; undo takes each "
    "back") {
    CoreBench b;
    const auto inserts = [&]() -> const std::vector<part::Insert>& {
        return b.window.document().job().part.inserts;
    };
    b.press("add-insert");
    REQUIRE(inserts().size() == 1);
    b.type_cell("part-inserts", 0, 0, "handle");
    b.type_cell("part-inserts-set", 0, 2, "40");
    b.type_cell("part-inserts-loads", 0, 0, "250 N");
    CHECK(inserts()[0].name == "handle");
    CHECK(inserts()[0].size == Approx(0.04));
    CHECK(inserts()[0].pull == Approx(250));
    // The cell takes what was typed once its editor has gone.
    b.settle();
    CHECK(b.cell("part-inserts-loads", 0, 2).endsWith("×"));
    CHECK_FALSE(b.figure("insert_holds").isEmpty());
    CHECK(b.cell("part-inserts-set", 0, 0) == "potted");
    const auto heavier = b.figure("inserts_mass");
    b.choose_in_cell("part-inserts-set", 0, 0, "steel plate, 100 mm");
    CHECK(inserts()[0].kind == InsertKind::block);
    CHECK(inserts()[0].block == "steel plate, 100 mm");
    CHECK(b.cell("part-inserts-set", 0, 0) == "steel plate, 100 mm");
    CHECK(b.figure("inserts_mass") != heavier);
    SheetOptions only_part;
    only_part.only = Stage::part;
    print_sheets(b.window.document().job(), b.window.document().findings(), b.file("part.pdf"), only_part);
    const auto sheet = run_together(text_of_pdf(b.file("part.pdf")));
    CHECK(sheet.contains(run_together("Where bolts go")));
    CHECK(sheet.contains("blockofsteelplate"));
    b.choose_in_cell("part-inserts-set", 0, 0, "potted");
    CHECK(inserts()[0].kind == InsertKind::potted);
    // What is no width changes nothing and is said.
    b.type_cell("part-inserts-set", 0, 2, "wide");
    CHECK(inserts()[0].size == Approx(0.04));
    b.type_cell("part-inserts-set", 0, 2, "40");
    // Dragged by its mark.
    auto& stand = b.window.stand();
    const auto from = stand.mark_place(0);
    REQUIRE_FALSE(from.isNull());
    const QPointF by(30, 12);
    drag(stand, from, by);
    b.settle();
    const auto dragged = inserts()[0];
    CHECK(std::hypot(dragged.along, dragged.across) > 0.005);
    CHECK(QLineF(stand.mark_place(0), from + by).length() < 12);
    // One drag, one step.
    b.window.document().undo();
    b.settle();
    CHECK(inserts()[0].along == 0);
    CHECK(inserts()[0].across == 0);
    // By keys: chosen by its name, and along by a step.
    stand.setFocus();
    QTest::keyClick(&stand, Qt::Key_N);
    CHECK(stand.accessibleName().contains("handle is chosen"));
    QTest::keyClick(&stand, Qt::Key_BracketRight);
    b.settle();
    CHECK(inserts()[0].along > 0);
    b.write_out("x-inserts", b.file("holes.dxf"));
    CHECK(QDir(b.folder.path()).entryList({"holes-*"}).size() == 2);
}
