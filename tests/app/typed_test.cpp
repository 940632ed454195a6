// What is typed into a word: taken, asked about, kept or dropped as the maker means it. Real keys, clicks and
// clipboard.
#include <clocale>

#include <QClipboard>
#include <QSlider>

#include "tests/app/bench.hpp"

using namespace bench;

namespace {

QLineEdit* opened(Bench& b, const QString& path) {
    QTest::mouseClick(b.word(path), Qt::LeftButton);
    auto* field = b.editor()->findChild<QLineEdit*>("field");
    REQUIRE(field != nullptr);
    return field;
}

QString note(Bench& b) {
    return b.editor()->findChild<QLabel*>("note")->text();
}

bool editing(Bench& b) {
    QTest::qWait(20);
    for (auto* w : b.window.findChildren<Editor*>()) {
        if (w->isVisible()) return true;
    }
    return false;
}

/// A click on the window beside the editor, as the system delivers it.
void click_beside(Bench& b) {
    auto& stand = b.window.stand();
    const auto place = stand.mapTo(&b.window, QPoint(30, 30));
    QTest::mouseClick(b.window.windowHandle(), Qt::LeftButton, {}, place);
    b.settle();
}

}  // namespace

TEST_CASE("a typed value is taken when the editor is left by a click, and dropped by Esc alone") {
    Bench b;
    b.window.show_stage(Stage::edge);
    const auto trim = [&] { return b.window.document().job().edge.trim; };
    const double before = trim();
    auto* field = opened(b, "/edge/trim");
    field->selectAll();
    QTest::keyClicks(field, "22");
    click_beside(b);
    CHECK_FALSE(editing(b));
    CHECK(trim() == Approx(0.022));
    CHECK(b.word("/edge/trim")->text() == "22.0 mm");
    field = opened(b, "/edge/trim");
    field->selectAll();
    QTest::keyClicks(field, "31");
    QTest::keyClick(field, Qt::Key_Escape);
    CHECK_FALSE(editing(b));
    CHECK(trim() == Approx(0.022));
    // Opened and left as it was: no step of undo.
    opened(b, "/edge/trim");
    click_beside(b);
    CHECK_FALSE(editing(b));
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(trim() == Approx(before));
}

TEST_CASE("what is out of range, ambiguous or no figure stays in its field with the reason beside it") {
    Bench b;
    b.window.show_stage(Stage::edge);
    const double before = b.window.document().job().edge.trim;
    auto* field = opened(b, "/edge/trim");
    const auto usual = note(b);
    CHECK_THAT(usual.toStdString(), Catch::Contains("usual"));
    struct Wrong {
        const char *typed, *said;
    };
    for (const auto& wrong :
         {Wrong{"5000", "0.3"}, Wrong{"-4", "0"}, Wrong{"1,200", "1.200 or 1200"},
          Wrong{"wide", "not a figure"}, Wrong{"3 parsec", "not a figure"}, Wrong{"", "not a figure"}}) {
        INFO(wrong.typed);
        field->selectAll();
        QTest::keyClick(field, Qt::Key_Delete);
        QTest::keyClicks(field, wrong.typed);
        QTest::keyClick(field, Qt::Key_Return);
        REQUIRE(editing(b));
        CHECK(field->text() == wrong.typed);
        CHECK_THAT(note(b).toStdString(), Catch::Contains(wrong.said));
        CHECK(b.window.document().job().edge.trim == before);
        // A click elsewhere does not lose it either.
        click_beside(b);
        REQUIRE(editing(b));
        CHECK(field->text() == wrong.typed);
    }
    field->selectAll();
    QTest::keyClicks(field, "18");
    QTest::keyClick(field, Qt::Key_Return);
    CHECK_FALSE(editing(b));
    CHECK(b.window.document().job().edge.trim == Approx(0.018));
}

TEST_CASE("figures are typed as makers write them, and what is shown is pasted back") {
    Bench b;
    b.window.show_stage(Stage::edge);
    const auto trim = [&] { return b.window.document().job().edge.trim; };
    for (const auto& [text, metres] : std::vector<std::pair<const char*, double>>{{"12,5", 0.0125},
                                                                                  {"1/2\"", 0.0127},
                                                                                  {"3/4 in", 0.01905},
                                                                                  {"1 1/2 in", 0.0381},
                                                                                  {"1-1/2\"", 0.0381},
                                                                                  {"500 thou", 0.0127},
                                                                                  {"2e1", 0.02},
                                                                                  {"2.2 cm", 0.022}}) {
        INFO(text);
        b.type("/edge/trim", text);
        CHECK(trim() == Approx(metres));
    }
    b.window.show_stage(Stage::brief);
    const auto router = b.word("/brief/router_x")->text();
    CHECK(router.contains(QChar(0x202f)));
    b.type("/brief/router_x", "1 750,5 mm");
    CHECK(b.window.document().job().brief.router_x == Approx(1.7505));
    QApplication::clipboard()->setText(router);
    auto* field = opened(b, "/brief/router_x");
    field->selectAll();
    QTest::keyClick(field, Qt::Key_V, Qt::ControlModifier);
    QTest::keyClick(field, Qt::Key_Return);
    b.settle();
    CHECK(b.word("/brief/router_x")->text() == router);
}

TEST_CASE("a word for nothing reads as such, and 0 types it") {
    Bench b;
    b.window.show_stage(Stage::part);
    b.type("/part/target_mass", "1.4 kg");
    CHECK(b.word("/part/target_mass")->text() == "1.40 kg");
    b.type("/part/target_mass", "0");
    CHECK(b.word("/part/target_mass")->text() == "whatever comes");
}

TEST_CASE("text is taken by a click beside it too") {
    Bench b;
    b.window.show_stage(Stage::brief);
    auto* field = opened(b, "/brief/customer");
    field->selectAll();
    QTest::keyClicks(field, "Harbour School");
    click_beside(b);
    CHECK_FALSE(editing(b));
    CHECK(b.window.document().job().brief.customer == "Harbour School");
    field = opened(b, "/brief/customer");
    QTest::keyClicks(field, "nobody");
    QTest::keyClick(field, Qt::Key_Escape);
    CHECK(b.window.document().job().brief.customer == "Harbour School");
}

namespace {

RecordTable* part_table(Bench& b) {
    b.window.show_stage(Stage::part);
    b.settle();
    return b.visible<RecordTable>("stack-part");
}

/// The field that is open in a table.
QLineEdit* cell_editor(RecordTable* table) {
    for (auto* field : table->findChildren<QLineEdit*>()) {
        if (field->isVisible()) return field;
    }
    return nullptr;
}

void open_cell(RecordTable* table, int row, int column) {
    const auto place = table->visualItemRect(table->item(row, column)).center();
    QTest::mouseClick(table->viewport(), Qt::LeftButton, {}, place);
    QTest::mouseDClick(table->viewport(), Qt::LeftButton, {}, place);
    REQUIRE(cell_editor(table) != nullptr);
}

}  // namespace

TEST_CASE("results that arrive while a cell is typed into leave it alone, and Tab goes on to the next") {
    Bench b;
    auto* table = part_table(b);
    constexpr int kAngle = 1, kThickness = 2;
    open_cell(table, 1, kAngle);
    auto* field = cell_editor(table);
    field->selectAll();
    QTest::keyClicks(field, "30");
    QTest::keyClick(field, Qt::Key_Tab);
    // The next cell is open at once; its value is half typed when the first one's results come.
    REQUIRE(table->currentColumn() == kThickness);
    field = cell_editor(table);
    REQUIRE(field != nullptr);
    field->selectAll();
    QTest::keyClicks(field, "0.4");
    b.settle();
    QTest::qWait(300);
    field = cell_editor(table);
    REQUIRE(field != nullptr);
    CHECK(field->text() == "0.4");
    QTest::keyClicks(field, "5");
    QTest::keyClick(field, Qt::Key_Return);
    QTest::qWait(30);  // a table takes what was typed when it comes back to its events
    b.settle();
    const auto& layer = b.window.document().job().part.layers[1];
    CHECK(layer.angle == Approx(radians(30)));
    CHECK(layer.thickness == Approx(0.00045));
    CHECK(table->item(1, kThickness)->text() == "0.45");
}

TEST_CASE("a cell that cannot be taken goes back to what the job says") {
    Bench b;
    auto* table = part_table(b);
    const auto before = table->item(1, 2)->text();
    open_cell(table, 1, 2);
    auto* field = cell_editor(table);
    field->selectAll();
    QTest::keyClicks(field, "thick");
    QTest::keyClick(field, Qt::Key_Return);
    b.settle();
    CHECK(table->item(1, 2)->text() == before);
    CHECK_THAT(b.message().toStdString(), Catch::Contains("thick"));
}

TEST_CASE("Tab walks the cells that can be typed into and leaves the table at its end") {
    Bench b;
    auto* table = part_table(b);
    const int last = table->rowCount() - 1;
    table->setFocus();
    table->setCurrentCell(last, 1);
    QTest::keyClick(table, Qt::Key_Tab);
    CHECK(table->currentRow() == last);
    CHECK(table->currentColumn() == 2);
    QTest::keyClick(table, Qt::Key_Tab);
    // The mass is worked out: there is nothing more to type.
    CHECK_FALSE(table->hasFocus());
}

TEST_CASE("three plies added in a moment are three steps, one word moved on and on is one") {
    Bench b;
    part_table(b);
    const auto layers = [&] { return b.window.document().job().part.layers.size(); };
    const auto before = layers();
    for (int i = 0; i < 3; ++i) QTest::mouseClick(b.visible<QPushButton>("add-light-part"), Qt::LeftButton);
    REQUIRE(layers() == before + 3);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(layers() == before + 2);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(layers() == before);
    b.window.show_stage(Stage::edge);
    const double trim = b.window.document().job().edge.trim;
    QTest::mouseClick(b.word("/edge/trim"), Qt::LeftButton);
    auto* slider = b.editor()->findChild<QSlider*>("slider");
    slider->setFocus();
    for (int i = 0; i < 6; ++i) QTest::keyClick(slider, Qt::Key_Right);
    QTest::keyClick(slider, Qt::Key_Escape);
    CHECK(b.window.document().job().edge.trim != trim);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.window.document().job().edge.trim == trim);
}

TEST_CASE("layers are pasted behind the one that is chosen") {
    Bench b;
    auto* table = part_table(b);
    QApplication::clipboard()->setText("glass cloth 80 plain\t45\n");
    table->setFocus();
    table->setCurrentCell(0, 0);
    QTest::keyClick(table, Qt::Key_V, Qt::ControlModifier);
    b.settle();
    const auto& layers = b.window.document().job().part.layers;
    CHECK(layers[1].material == "glass cloth 80 plain");
    CHECK(layers[1].angle == Approx(radians(45)));
}

TEST_CASE("figures in tables and words do not depend on the locale") {
    const QLocale before;
    const std::string c_before = std::setlocale(LC_ALL, nullptr);
    QLocale::setDefault(QLocale(QLocale::German, QLocale::Germany));
    // Where the machine has it, C's own numbers go by commas too.
    std::setlocale(LC_ALL, "de_DE.UTF-8");
    {
        Bench b;
        auto* table = part_table(b);
        for (int row = 0; row < table->rowCount(); ++row) {
            INFO(row);
            CHECK(table->item(row, 2)->text() != "0.00");
            CHECK_FALSE(table->item(row, 2)->text().contains(','));
        }
        b.type("/part/gel_temperature", "24,5");
        CHECK(b.window.document().job().part.gel_temperature == Approx(kelvin(24.5)));
        b.window.show_stage(Stage::edge);
        b.type("/edge/trim", "12.5");
        CHECK(b.window.document().job().edge.trim == Approx(0.0125));
        CHECK(b.word("/edge/trim")->text() == "12.5 mm");
    }
    QLocale::setDefault(before);
    std::setlocale(LC_ALL, c_before.c_str());
}

TEST_CASE("a drawing's numbers are read with a point, whatever the system's language writes") {
    // tools/hard runs this under a locale that writes 1,5 for 1.5.
    Bench b;
    write_atomically(
        "<svg xmlns='http://www.w3.org/2000/svg' width='400mm' height='300mm' viewBox='0 0 400 300'>"
        "<rect x='10.5' y='10.5' width='300.5' height='200.25'/></svg>",
        b.file("plate.svg").toStdString());
    REQUIRE(b.window.bring_in_outline(b.file("plate.svg")));
    REQUIRE(b.home());
    b.settle();
    double low = 1e30, high = -1e30;
    for (const auto& p : b.window.document().job().shape.tray.outline) {
        low = std::min(low, p[0]);
        high = std::max(high, p[0]);
    }
    CHECK(high - low == Approx(0.3005).margin(0.001));
}
