// A part laid in goes, by hand in the window: cells, the usual ways, their programmes, calls, undo.
#include <QClipboard>
#include <QComboBox>

#include "tests/app/bench.hpp"

using namespace bench;

namespace {

constexpr int kThen = 4;

Bench& at_part(Bench& b) {
    b.window.show_stage(Stage::part);
    b.settle();
    return b;
}

/// Opens the menu of the usual ways and goes down to one of them by keys.
void lay(Bench& b, int row) {
    auto* button = b.visible<QPushButton>("goes-part");
    b.window.slip().ensureWidgetVisible(button);
    QTimer::singleShot(50, [row] {
        auto* menu = QApplication::activePopupWidget();
        if (menu == nullptr) return;
        for (int i = 0; i <= row; ++i) QTest::keyClick(menu, Qt::Key_Down);
        QTest::keyClick(menu, Qt::Key_Return);
    });
    QTest::mouseClick(button, Qt::LeftButton);
    b.settle();
}

const std::vector<Layer>& layers(Bench& b) {
    return b.window.document().job().part.layers;
}

int core_row(Bench& b) {
    const auto& all = layers(b);
    for (std::size_t i = 0; i < all.size(); ++i) {
        if (all[i].kind == LayerKind::core) return static_cast<int>(i);
    }
    FAIL("no core");
    return -1;
}

}  // namespace

TEST_CASE("a stack is parted by its menu and by its cells, and each go has its programme") {
    Bench b;
    at_part(b);
    const auto plain = layers(b);
    const auto last = static_cast<int>(plain.size()) - 1;
    CHECK(b.cell("stack-part", 0, kThen) == (plain[0].kind == LayerKind::surface_coat ? "" : "wet"));
    CHECK(b.cell("stack-part", last, kThen).isEmpty());
    lay(b, 1);
    const auto& f = b.window.document().findings();
    REQUIRE(f.part);
    REQUIRE(f.part->goes.size() == 2);
    CHECK(b.figure("goes").contains("2"));
    const int core = core_row(b);
    CHECK(layers(b)[static_cast<std::size_t>(core) - 1].kind == LayerKind::coupling);
    CHECK(b.cell("stack-part", core - 2, kThen) == "hard");
    // Under a bag the foam wants holes; what is offered bores them.
    b.fix("shut_under");
    b.settle();
    CHECK(layers(b)[static_cast<std::size_t>(core)].cut.hole > 0);
    // The core under a bag of its own, by its cell.
    b.choose_in_cell("stack-part", core, kThen, "hard");
    REQUIRE(b.window.document().findings().part->goes.size() == 3);
    CHECK(b.cell("stack-part", core, kThen) == "hard");
    b.window.show_stage(Stage::heat);
    b.settle();
    for (const auto* name : {"add-part_first", "add-part_next", "add-part"}) {
        INFO(name);
        CHECK(b.window.findChild<QPushButton*>(name)->isVisible());
    }
    b.press("add-part_next");
    b.type_cell("legs-part_next", 0, 0, "45");
    CHECK(b.window.document().job().heat.part_next.at(0).to == Approx(kelvin(45)));
    CHECK(b.window.document().findings().heat->cures->find(CureOf::part_next)->highest_air ==
          Approx(kelvin(45)));
    CHECK(b.window.document().job().heat.part.empty());
    // The plan lays three times.
    int laid = 0;
    for (const auto& t : b.window.document().findings().run->tasks)
        laid += t.name.find("lay up the first part, go ") != std::string::npos;
    CHECK(laid == 3);
    // Step by step back to where it began.
    for (int i = 0; i < 5; ++i) {
        b.window.findChild<QAction*>("act-undo")->trigger();
        b.settle();
    }
    CHECK(layers(b) == plain);
    CHECK(b.window.document().findings().part->goes.size() == 1);
    CHECK(b.window.document().findings().heat->cures->find(CureOf::part_first) == nullptr);
}

TEST_CASE(
    "goes are copied with their layers, go back to one at once, and the last layer has no cell for them") {
    Bench b;
    at_part(b);
    lay(b, 2);
    REQUIRE(b.window.document().findings().part->goes.size() == 3);
    const auto parted = layers(b);
    auto* t = b.table("stack-part");
    b.window.slip().ensureWidgetVisible(t);
    t->setFocus();
    t->selectAll();
    QTest::keyClick(t, Qt::Key_C, Qt::ControlModifier);
    const auto text = QApplication::clipboard()->text();
    CHECK(text.contains("hard"));
    lay(b, 0);
    CHECK(b.window.document().findings().part->goes.size() == 1);
    // What was copied brings its goes along.
    t->setFocus();
    t->clearSelection();
    t->setCurrentCell(-1, -1);
    QApplication::clipboard()->setText(text);
    QTest::keyClick(t, Qt::Key_V, Qt::ControlModifier);
    b.settle();
    std::size_t hardening = 0;
    for (const auto& l : layers(b)) hardening += l.hardens;
    CHECK(hardening == 2);
    // Nothing comes after the last layer: there is nothing to choose.
    const int last = static_cast<int>(layers(b).size()) - 1;
    CHECK(b.cell("stack-part", last, kThen).isEmpty());
    t->setFocus();
    t->setCurrentCell(last, kThen);
    QTest::keyClick(t, Qt::Key_F2);
    CHECK(t->findChild<QComboBox*>() == nullptr);
    CHECK(t->findChild<QLineEdit*>() == nullptr);
    // Tab passes it by, and a coat's too.
    t->setCurrentCell(last, 2);
    QTest::keyClick(t, Qt::Key_Tab);
    CHECK_FALSE(t->hasFocus());
}

TEST_CASE("a shell's layer may harden first too, by its button, and the column for it stands only then") {
    Bench b;
    b.window.show_stage(Stage::shell);
    b.settle();
    const auto& shell = b.window.document().job().shell.layers;
    int row = 0;
    while (shell[static_cast<std::size_t>(row)].kind != LayerKind::ply) ++row;
    const auto days = b.window.document().findings().shell->days;
    auto* t = b.table("stack-shell");
    CHECK(t->isColumnHidden(kThen));
    // Tab does not stop where nothing is seen.
    t->setFocus();
    t->setCurrentCell(row, 2);
    QTest::keyClick(t, Qt::Key_Tab);
    CHECK(t->currentRow() == row + 1);
    CHECK(t->currentColumn() == 0);
    // A coat gels by itself.
    t->setCurrentCell(0, 0);
    b.press("harden-shell");
    CHECK(b.message().contains("hardens before that"));
    CHECK(t->isColumnHidden(kThen));
    t->setCurrentCell(row, 0);
    b.press("harden-shell");
    CHECK(shell[static_cast<std::size_t>(row)].hardens);
    CHECK_FALSE(t->isColumnHidden(kThen));
    CHECK(b.cell("stack-shell", row, kThen) == "hard");
    CHECK(b.window.document().findings().shell->days >= days);
    const auto& ends = b.window.document().findings().shell->day_ends;
    CHECK(std::find(ends.begin(), ends.end(), static_cast<std::size_t>(row)) != ends.end());
    b.choose_in_cell("stack-shell", row, kThen, "wet");
    CHECK_FALSE(shell[static_cast<std::size_t>(row)].hardens);
    CHECK(t->isColumnHidden(kThen));
}
