// The part's zones in the real window: added from the menu, typed, drawn, painted, seen on the stand, undone.
#include <QApplication>
#include <QComboBox>
#include <QMenu>
#include <QTimer>

#include "app/stages/part/zone_row.hpp"
#include "tests/app/bench.hpp"

using namespace bench;

namespace {

/// Opens the menu of zones and goes down to one of them by keys.
void add_zone(Bench& b, int row) {
    QTimer::singleShot(100, [row] {
        auto* menu = QApplication::activePopupWidget();
        if (menu == nullptr) return;
        for (int i = 0; i <= row; ++i) QTest::keyClick(menu, Qt::Key_Down);
        QTest::keyClick(menu, Qt::Key_Return);
    });
    QTest::mouseClick(b.visible<QPushButton>("add-zone"), Qt::LeftButton);
    b.settle();
}

void type_in(Bench& b, const char* field, const QString& text) {
    auto* line = b.visible<QLineEdit>(field);
    line->setFocus();
    line->selectAll();
    QTest::keyClicks(line, text);
    QTest::keyClick(line, Qt::Key_Return);
    b.settle();
}

struct PartBench : Bench {
    PartBench() : Bench("cello-case") {
        window.show_stage(Stage::part);
        settle();
    }
    [[nodiscard]] const std::vector<part::Zone>& zones() { return window.document().job().part.zones; }
    [[nodiscard]] const part::Findings& part() { return *window.document().findings().part; }
};

}  // namespace

TEST_CASE(
    "a zone comes from the menu, is named, widened and laid otherwise by keys, and its figures follow") {
    PartBench b;
    const double before = b.part().mass;
    const auto rows = b.visible<RecordTable>("stack-part")->rowCount();
    add_zone(b, 1);
    REQUIRE(b.zones().size() == 1);
    CHECK(b.zones()[0].place == ZonePlace::rim);
    CHECK(b.part().mass > before);
    auto* which = b.visible<QComboBox>("part-zones");
    CHECK(which->currentText() == "zone rim");
    CHECK(b.visible<RecordTable>("stack-part")->rowCount() == 1);
    CHECK(b.visible<RecordTable>("stack-part")->item(0, 2)->text() != "…");
    type_in(b, "zone-name", "edge of the lid");
    CHECK(b.zones()[0].name == "edge of the lid");
    type_in(b, "zone-width", "80");
    CHECK(b.zones()[0].width == Approx(0.08));
    CHECK(b.visible<QLineEdit>("zone-width")->text().startsWith("80"));
    auto* way = b.visible<QComboBox>("zone-way");
    way->setFocus();
    QTest::keyClick(way, Qt::Key_Down);
    b.settle();
    CHECK(b.zones()[0].way == ZoneWay::for_core);
    CHECK(b.figure("zone_1") != "");
    CHECK(b.figure("zoned") != "");
    const auto& legend = b.window.stand().scene().legend;
    CHECK(legend.contains("zones"));
    bool named = false;
    for (const auto& l : b.window.stand().scene().labels) named = named || l.text.contains("edge of the lid");
    CHECK(named);
    // Another ply in the zone, and none in the common stack.
    b.visible<QPushButton>("add-light-part")->click();
    b.settle();
    CHECK(b.zones()[0].layers.size() == 2);
    which->setFocus();
    QTest::keyClick(which, Qt::Key_Up);
    b.settle();
    CHECK(b.visible<RecordTable>("stack-part")->rowCount() == rows);
    // Back to where it began.
    for (int i = 0; i < 5; ++i) {
        b.window.document().undo();
        b.settle();
    }
    CHECK(b.zones().empty());
    CHECK(b.part().mass == Approx(before));
}

TEST_CASE("what is no width and no corner stays to be mended, says why, and changes nothing") {
    PartBench b;
    add_zone(b, 2);
    REQUIRE(b.zones().size() == 1);
    const auto kept = b.zones()[0];
    type_in(b, "zone-line", "-100 : 0; 100; 50 : 50");
    CHECK(b.zones()[0] == kept);
    CHECK(b.visible<QLineEdit>("zone-line")->text() == "-100 : 0; 100; 50 : 50");
    CHECK(b.window.findChild<QLabel*>("message")->text().contains("no corner"));
    // Results that come in later leave it standing.
    emit b.window.document().evaluated();
    QTest::qWait(50);
    CHECK(b.visible<QLineEdit>("zone-line")->text() == "-100 : 0; 100; 50 : 50");
    type_in(b, "zone-line", "-100 : 0; 100,5 : 20; 150 : 60");
    REQUIRE(b.zones()[0].line.size() == 3);
    CHECK(b.zones()[0].line[1].along == Approx(0.1005));
    CHECK(b.zones()[0].line[2].across == Approx(0.06));
    // What it shows can be typed back.
    const auto shown = b.visible<QLineEdit>("zone-line")->text();
    const auto line = b.zones()[0].line;
    type_in(b, "zone-line", shown);
    REQUIRE(b.zones()[0].line.size() == 3);
    for (std::size_t i = 0; i < 3; ++i) CHECK(b.zones()[0].line[i].along == Approx(line[i].along));
    // Past a metre, too.
    type_in(b, "zone-line", "-1250 : 0; 1250,5 : 0");
    REQUIRE(b.zones()[0].line.size() == 2);
    CHECK(b.visible<QLineEdit>("zone-line")->text() == "-1250 : 0; 1250.5 : 0");
    // What was refused for one zone does not stand in the next one's field.
    type_in(b, "zone-line", "nowhere");
    b.window.findChild<QAction*>("zone-band")->trigger();
    b.settle();
    REQUIRE(b.zones().size() == 2);
    CHECK_FALSE(b.visible<QLineEdit>("zone-line")->text().contains("nowhere"));
    b.window.document().undo();
    b.settle();
    auto* which = b.visible<QComboBox>("part-zones");
    which->setFocus();
    QTest::keyClick(which, Qt::Key_Down);
    b.settle();
    type_in(b, "zone-width", "wide");
    CHECK(b.zones()[0].width == kept.width);
    CHECK(b.window.findChild<QLabel*>("message")->text().contains("no width"));
    type_in(b, "zone-width", "20000");
    CHECK(b.zones()[0].width == kept.width);
}

TEST_CASE("an outline comes from a drawing, and a drawing without one is refused in words") {
    PartBench b;
    add_zone(b, 3);
    REQUIRE(b.zones().size() == 1);
    REQUIRE(b.zones()[0].place == ZonePlace::inside);
    QFile svg(b.file("hatch.svg"));
    REQUIRE(svg.open(QIODevice::WriteOnly));
    svg.write(
        "<svg xmlns='http://www.w3.org/2000/svg' width='200mm' height='100mm' viewBox='0 0 200 100'>"
        "<path d='M 0 0 L 120 0 L 120 60 L 0 60 Z'/></svg>");
    svg.close();
    auto* row = b.window.findChild<ZoneRow*>();
    REQUIRE(row != nullptr);
    row->take_drawing(b.file("hatch.svg"));
    b.settle();
    CHECK(b.zones()[0].line.size() >= 4);
    REQUIRE(b.part().marked);
    // Seen along the pull; the face leans, so it is at least what the drawing holds.
    CHECK(b.part().marked->area_of(0) >= 0.12 * 0.06 * 0.98);
    const auto kept = b.zones()[0].line;
    QFile bad(b.file("bad.dxf"));
    REQUIRE(bad.open(QIODevice::WriteOnly));
    bad.write("not a drawing");
    bad.close();
    row->take_drawing(b.file("bad.dxf"));
    CHECK(b.zones()[0].line == kept);
    CHECK(b.window.findChild<QLabel*>("message")->text().contains("bad.dxf"));
    b.visible<QPushButton>("zone-away")->click();
    b.settle();
    CHECK(b.zones().empty());
    CHECK_FALSE(b.visible<QPushButton>("zone-away")->isEnabled());
}

TEST_CASE("a stroke on the part paints a zone, and the other brush takes it off again") {
    PartBench b;
    auto& stand = b.window.stand();
    REQUIRE(stand.scene().brushes.size() == 2);
    const auto take = [&](const QString& brush) {
        for (auto* word : b.window.findChildren<QAbstractButton*>()) {
            if (word->text() == brush && word->isVisible()) QTest::mouseClick(word, Qt::LeftButton);
        }
    };
    auto* canvas = b.window.findChild<QWidget*>("canvas");
    const QPoint middle(canvas->width() / 2, canvas->height() / 2);
    const auto stroke = [&] {
        QTest::mousePress(canvas, Qt::LeftButton, Qt::NoModifier, middle);
        QTest::mouseMove(canvas, middle + QPoint(10, 2));
        QTest::mouseRelease(canvas, Qt::LeftButton, Qt::NoModifier, middle + QPoint(10, 2));
        b.settle();
    };
    take("zone");
    stroke();
    REQUIRE(b.zones().size() == 1);
    CHECK(b.zones()[0].place == ZonePlace::painted);
    const auto painted = b.zones()[0].painted.size();
    REQUIRE(painted > 0);
    CHECK(b.part().marked->area_of(0) > 0);
    take("none here");
    stroke();
    CHECK(b.zones()[0].painted.size() < painted);
}

TEST_CASE("with several painted zones each has its brush, and the other takes all of them off") {
    PartBench b;
    b.window.findChild<QAction*>("zone-painted")->trigger();
    b.settle();
    b.window.findChild<QAction*>("zone-painted")->trigger();
    b.settle();
    REQUIRE(b.zones().size() == 2);
    CHECK(b.zones()[0].name == "patch");
    CHECK(b.zones()[1].name == "patch 2");
    auto& stand = b.window.stand();
    REQUIRE(stand.scene().brushes.size() == 3);
    stand.setFocus();
    const auto lay = [&] {
        QTest::keyClick(&stand, Qt::Key_Space);
        b.settle();
    };
    QTest::keyClick(&stand, Qt::Key_B);
    CHECK(stand.accessibleName().contains("The brush paints patch."));
    lay();
    CHECK(b.zones()[0].painted.size() == 1);
    CHECK(b.zones()[1].painted.empty());
    QTest::keyClick(&stand, Qt::Key_B);
    CHECK(stand.accessibleName().contains("The brush paints patch 2"));
    // Another name leaves it in hand.
    type_in(b, "zone-name", "hinge");
    CHECK(b.zones()[1].name == "hinge");
    stand.setFocus();
    CHECK(stand.accessibleName().contains("The brush paints hinge"));
    lay();
    CHECK(b.zones()[0].painted.size() == 1);
    CHECK(b.zones()[1].painted.size() == 1);
    QTest::keyClick(&stand, Qt::Key_B);
    lay();
    CHECK(b.zones()[0].painted.empty());
    CHECK(b.zones()[1].painted.empty());
    // Its zone taken away, what it painted is painted no more.
    QTest::keyClick(&stand, Qt::Key_B);
    QTest::keyClick(&stand, Qt::Key_B);
    QTest::keyClick(&stand, Qt::Key_B);
    b.visible<QPushButton>("zone-away")->click();
    b.settle();
    CHECK(b.zones().size() == 1);
    CHECK_FALSE(stand.accessibleName().contains("brush"));
}

TEST_CASE("a stroke that would begin a zone too many lays nothing and says so") {
    PartBench b;
    auto job = b.window.document().job();
    job.part.zones.assign(part::kMostZones, part::fresh_zone(job.part, ZonePlace::rim, 0.2));
    b.window.document().replace("many zones", std::move(job));
    b.settle();
    auto& stand = b.window.stand();
    stand.setFocus();
    QTest::keyClick(&stand, Qt::Key_B);
    QTest::keyClick(&stand, Qt::Key_Space);
    b.settle();
    CHECK(b.zones().size() == part::kMostZones);
    CHECK(b.window.findChild<QLabel*>("message")->text().contains("the most there can be"));
}

TEST_CASE("a zone is painted and taken off by keys alone, a stroke of them is one step") {
    PartBench b;
    auto& stand = b.window.stand();
    stand.setFocus();
    // With no brush in hand the arrows turn the thing, and Space lays nothing.
    const auto before = stand.handle();
    QTest::keyClick(&stand, Qt::Key_Space);
    CHECK(b.zones().empty());
    QTest::keyClick(&stand, Qt::Key_B);
    CHECK(stand.accessibleName().contains("The brush paints zone"));
    const auto stroke = [&](int steps) {
        QTest::keyPress(&stand, Qt::Key_Space);
        for (int i = 0; i < steps; ++i) QTest::keyClick(&stand, Qt::Key_Right);
        // While it is laid nothing of the job has changed, and the thing is not turned under it.
        QTest::keyClick(&stand, Qt::Key_Left, Qt::ShiftModifier);
        QTest::keyRelease(&stand, Qt::Key_Space);
        b.settle();
    };
    stroke(12);
    CHECK(stand.handle() == before);
    REQUIRE(b.zones().size() == 1);
    const auto long_one = b.zones()[0].painted.size();
    CHECK(long_one > 2);
    const double reach = b.zones()[0].painted[0].reach;
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.zones().empty());
    // A wider brush, and a touch alone, where the stroke began.
    stand.setFocus();
    for (int i = 0; i < 12; ++i) QTest::keyClick(&stand, Qt::Key_Left);
    for (int i = 0; i < 4; ++i) QTest::keyClick(&stand, Qt::Key_BracketRight);
    stroke(0);
    REQUIRE(b.zones().size() == 1);
    REQUIRE(b.zones()[0].painted.size() == 1);
    CHECK(b.zones()[0].painted[0].reach == Approx(1.4 * reach));
    const auto first = b.zones()[0].painted[0];
    // Led on, it is laid elsewhere.
    for (int i = 0; i < 6; ++i) QTest::keyClick(&stand, Qt::Key_Up);
    stroke(0);
    REQUIRE(b.zones()[0].painted.size() == 2);
    CHECK((b.zones()[0].painted[1].dab().at - first.dab().at).norm() > 0.01);
    // What Esc puts away in the middle of a stroke is not laid.
    QTest::keyPress(&stand, Qt::Key_Space);
    QTest::keyClick(&stand, Qt::Key_Escape);
    QTest::keyRelease(&stand, Qt::Key_Space);
    b.settle();
    CHECK(b.zones()[0].painted.size() == 2);
    CHECK_FALSE(stand.accessibleName().contains("brush"));
    // The second brush takes off what lies under it: the last of the two.
    QTest::keyClick(&stand, Qt::Key_B);
    QTest::keyClick(&stand, Qt::Key_B);
    CHECK(stand.accessibleName().contains("The brush paints none here"));
    stroke(0);
    CHECK(b.zones()[0].painted.size() < 2);
    // After the last brush the thing is turned again.
    QTest::keyClick(&stand, Qt::Key_B);
    CHECK_FALSE(stand.accessibleName().contains("brush"));
}

TEST_CASE("Esc in the middle of a stroke by hand lays nothing either") {
    PartBench b;
    auto& stand = b.window.stand();
    stand.setFocus();
    QTest::keyClick(&stand, Qt::Key_B);
    auto* canvas = b.window.findChild<QWidget*>("canvas");
    const QPoint middle(canvas->width() / 2, canvas->height() / 2);
    QTest::mousePress(canvas, Qt::LeftButton, Qt::NoModifier, middle);
    QTest::keyClick(&stand, Qt::Key_Escape);
    QTest::mouseMove(canvas, middle + QPoint(30, 2));
    QTest::mouseRelease(canvas, Qt::LeftButton, Qt::NoModifier, middle + QPoint(30, 2));
    b.settle();
    CHECK(b.zones().empty());
}

TEST_CASE(
    "of a mould in pieces a zone, an insert and a cut say on which they lie; of one in one nothing asks") {
    Bench b("cello-case-whole");
    b.window.show_stage(Stage::part);
    b.settle();
    const auto& job = [&]() -> const Job& { return b.window.document().job(); };
    const auto part = [&]() -> const part::Findings& { return *b.window.document().findings().part; };
    const double plain = part().mass;
    // The rim of each shell, then of the front one alone.
    add_zone(b, 1);
    auto* piece = b.visible<QComboBox>("zone-piece");
    REQUIRE(piece->count() == 3);
    CHECK(piece->itemText(2) == "front shell");
    CHECK(piece->currentIndex() == 0);
    const double both = part().mass - plain;
    piece->setFocus();
    QTest::keyClick(piece, Qt::Key_Down);
    QTest::keyClick(piece, Qt::Key_Down);
    b.settle();
    CHECK(job().part.zones[0].piece == 2);
    CHECK(part().mass - plain == Approx(both / 2).epsilon(0.05));
    // The stand shows the other shell, on which it does not lie; its sums stand.
    const auto drawn = [&] {
        for (const auto& l : b.window.stand().scene().labels) {
            if (l.text.startsWith("rim:")) return true;
        }
        return false;
    };
    CHECK_FALSE(drawn());
    const double front = part().mass;
    b.window.document().edit("show the other shell", patch_of("edge", "piece", 2));
    b.settle();
    CHECK(drawn());
    CHECK(part().mass == Approx(front).epsilon(1e-6));
    // A line that is added now is for the shell that is shown.
    add_zone(b, 2);
    CHECK(job().part.zones[1].piece == 2);
    CHECK(b.visible<QComboBox>("zone-piece")->currentText() == "front shell");
    // Paint lies where it is laid.
    add_zone(b, 0);
    CHECK_FALSE(b.window.findChild<QComboBox*>("zone-piece")->isVisible());
    b.press("add-insert");
    b.settle();
    REQUIRE(job().part.inserts.size() == 1);
    CHECK(job().part.inserts[0].piece == 2);
    const auto marks = [&] {
        int out = 0;
        for (const auto& m : b.window.stand().scene().marks) out += m.caption.startsWith("insert");
        return out;
    };
    CHECK(marks() == 1);
    CHECK(b.cell("part-inserts", 0, 3) == "front shell");
    b.choose_in_cell("part-inserts", 0, 3, "back shell");
    b.settle();
    CHECK(job().part.inserts[0].piece == 1);
    CHECK(marks() == 0);
    CHECK(part().inserts_set == 1);
    // The next one is set where it is seen, not beside one that is not.
    b.press("add-insert");
    b.settle();
    REQUIRE(job().part.inserts.size() == 2);
    CHECK(job().part.inserts[1].piece == 2);
    CHECK(marks() == 1);
    b.window.document().undo();
    b.settle();
    b.press("add-cut");
    b.settle();
    REQUIRE(job().part.cuts.size() == 1);
    CHECK(job().part.cuts[0].piece == 2);
    CHECK(b.cell("part-cuts", 0, 3) != "—");
    b.choose_in_cell("part-cuts", 0, 4, "back shell");
    b.settle();
    CHECK(job().part.cuts[0].piece == 1);
    CHECK(b.cell("part-cuts", 0, 3) == "—");
    for (int i = 0; i < 2; ++i) {
        b.window.document().undo();
        b.settle();
    }
    CHECK(job().part.cuts.empty());
    // In one piece again there is nothing to choose.
    b.window.document().edit("in one", patch_of("split", "way", "one"));
    b.settle();
    auto* inserts = b.window.findChild<RecordTable*>("part-inserts");
    CHECK_FALSE(inserts->isColumnHidden(3));
    b.choose_in_cell("part-inserts", 0, 3, "each");
    b.settle();
    CHECK(job().part.inserts[0].piece == 0);
    CHECK(inserts->isColumnHidden(3));
}
