// The kit on its rolls, in the window.
#include "app/stages/part/roll_view.hpp"
#include "app/window/exports.hpp"
#include "tests/app/bench.hpp"

using namespace bench;

namespace {

/// Lays the kit by its key and waits for it.
KitSheet& laid(Bench& b) {
    b.window.show_stage(Stage::part);
    b.settle();
    b.key(Qt::Key_K, Qt::ControlModifier | Qt::ShiftModifier);
    REQUIRE(b.home());
    b.settle();
    REQUIRE(b.window.kit_sheet().isVisible());
    return b.window.kit_sheet();
}

RollView* first_roll(Bench& b) {
    const auto rolls = b.window.kit_sheet().findChildren<RollView*>();
    REQUIRE_FALSE(rolls.isEmpty());
    return rolls.front();
}

}  // namespace

TEST_CASE(
    "the kit is laid by its key: rolls are drawn, and a piece is named on its roll and in the table alike") {
    Bench b;
    auto& sheet = laid(b);
    CHECK(b.message().contains("laid"));
    auto* table = b.visible<RecordTable>("kit-table");
    REQUIRE(table != nullptr);
    const auto kit = b.window.document().board()->kit(
        b.window.document().board()->lay(b.window.document().job(), b.window.document().shared_shop()),
        quiet);
    CHECK(table->rowCount() == static_cast<int>(kit->pieces.size()));
    CHECK(sheet.findChildren<RollView*>().size() == static_cast<int>(kit->rolls.size()));
    auto* roll = first_roll(b);
    CHECK(shows_something(roll->grab().toImage()));
    // A click on a piece, where its name stands.
    const auto name = table->item(0, 0)->text();
    RollView* its = nullptr;
    for (auto* r : sheet.findChildren<RollView*>()) {
        if (r->place_of(name)) its = r;
    }
    REQUIRE(its != nullptr);
    sheet.ensureWidgetVisible(its);
    QTest::mouseClick(its, Qt::LeftButton, {}, its->place_of(name)->toPoint());
    CHECK(sheet.chosen() == name);
    CHECK(its->chosen() == name);
    CHECK(table->currentRow() == 0);
    // The arrows walk the pieces of a roll, and round.
    its->setFocus();
    QTest::keyClick(its, Qt::Key_Left);
    const auto other = sheet.chosen();
    QTest::keyClick(its, Qt::Key_Right);
    CHECK(sheet.chosen() == name);
    CHECK_FALSE(other.isEmpty());
    // The table chooses too.
    table->setFocus();
    table->setCurrentCell(table->rowCount() - 1, 0);
    CHECK(sheet.chosen() == table->item(table->rowCount() - 1, 0)->text());
    QTest::mouseClick(b.visible<QPushButton>("kit-close"), Qt::LeftButton);
    CHECK_FALSE(sheet.isVisible());
}

TEST_CASE(
    "a kit says when the part has changed, and is laid anew; what is not cut from does not make it old") {
    Bench b;
    auto& sheet = laid(b);
    const auto first = b.visible<RecordTable>("kit-table")->item(0, 4)->text();
    b.type("/part/target_mass", "3");
    CHECK_FALSE(sheet.is_old());
    b.type("/part/kit/trim", "60 mm");
    CHECK(sheet.is_old());
    REQUIRE(b.visible<QLabel>("kit-old") != nullptr);
    QTest::mouseClick(b.visible<QPushButton>("kit-renew"), Qt::LeftButton);
    REQUIRE(b.home());
    b.settle();
    CHECK_FALSE(sheet.is_old());
    CHECK(b.visible<RecordTable>("kit-table")->item(0, 4)->text() != first);
    const auto trim = QString::fromStdString(show(Kind::length, 0.06, b.window.wording()));
    CHECK(b.visible<QLabel>("kit-said")->text().contains("cut " + trim));
    // In inches, all of it.
    b.window.findChild<QAction*>("act-units")->trigger();
    b.settle();
    CHECK(b.visible<QLabel>("kit-said")->text().contains(" in"));
    CHECK_FALSE(b.visible<QLabel>("kit-said")->text().contains(" mm"));
}

TEST_CASE("a mat is in the kit, told how far it stretches") {
    Bench b;
    auto job = b.window.document().job();
    // No net is laid for it: it is cut and written out all the same.
    job.part.layers = {{LayerKind::ply, "glass mat 300", 0, 0}};
    b.window.document().replace("a mat", std::move(job));
    b.settle();
    laid(b);
    auto* table = b.visible<RecordTable>("kit-table");
    bool mat = false;
    for (int r = 0; r < table->rowCount(); ++r)
        mat =
            mat || (table->item(r, 1)->text() == "glass mat 300" && table->item(r, 5)->text().contains("%"));
    CHECK(mat);
    CHECK(b.visible<QLabel>("kit-said")->text().contains("glass mat 300 does not shear"));
    for (const auto& out : exports()) {
        if (out.key == std::string("x-kit"))
            CHECK(out.why_not(b.window.document().job(), b.window.document().findings()).isEmpty());
    }
}
