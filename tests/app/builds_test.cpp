// Builds of the part in the window: kept, named, set side by side, taken, and matched in another cloth.
#include <QComboBox>

#include "core/stages/part/as_stiff.hpp"
#include "tests/app/bench.hpp"

using namespace bench;

namespace {

struct BuildsBench : Bench {
    explicit BuildsBench(const QString& demo = "cello-case") : Bench(demo) {
        window.show_stage(Stage::part);
        settle();
    }
    [[nodiscard]] const part::Choices& part() { return window.document().job().part; }
    /// Sends for the builds by their button and waits for them.
    BuildsSheet& side_by_side() {
        press("set-builds");
        REQUIRE(home());
        auto& sheet = window.builds_sheet();
        REQUIRE(sheet.isVisible());
        return sheet;
    }
    QString sum(const char* column, const char* sum) {
        for (auto* figure : window.builds_sheet().findChildren<QToolButton*>("sum")) {
            if (figure->property("column").toString() == column && figure->property("sum").toString() == sum)
                return figure->text();
        }
        return {};
    }
    /// Chooses from a list by keys, as its words begin.
    void pick(const char* name, const QString& text) {
        auto* list = visible<QComboBox>(name);
        window.builds_sheet().ensureWidgetVisible(list);
        list->setFocus();
        const int wanted = list->findText(text);
        REQUIRE(wanted >= 0);
        while (list->currentIndex() < wanted) QTest::keyClick(list, Qt::Key_Down);
        while (list->currentIndex() > wanted) QTest::keyClick(list, Qt::Key_Up);
        QTest::qWait(20);
    }
};

}  // namespace

TEST_CASE("a build is kept, named, and kept apart from one of its name; undo takes it back") {
    BuildsBench b;
    b.press("keep-build");
    REQUIRE(b.part().builds.size() == 1);
    CHECK(b.cell("builds", 0, 0) == "build A");
    CHECK(b.cell("builds", 0, 1).contains("(as it is now)"));
    CHECK(b.cell("builds", 0, 1).contains("4 plies and PVC foam 75, 5 mm"));
    b.type_cell("builds", 0, 0, "carbon on foam");
    CHECK(b.part().builds[0].name == "carbon on foam");
    b.press("keep-build");
    REQUIRE(b.part().builds.size() == 2);
    b.type_cell("builds", 1, 0, "carbon on foam");
    CHECK(b.part().builds[1].name == "build A");
    CHECK(b.message().contains("kept already"));
    b.type_cell("builds", 1, 0, "");
    CHECK(b.part().builds[1].name == "build A");
    // The stack goes on; what is kept does not.
    b.choose("/part/how", "by hand");
    CHECK_FALSE(b.cell("builds", 0, 1).contains("(as it is now)"));
    CHECK(b.part().builds[0].how == LayUp::bagged);
    b.window.document().undo();
    b.window.document().undo();
    b.settle();
    CHECK(b.part().builds.size() == 1);
    for (std::size_t i = 1; i < part::kMostBuilds; ++i) b.press("keep-build");
    b.press("keep-build");
    CHECK(b.part().builds.size() == part::kMostBuilds);
    CHECK(b.message().contains("take one away"));
}

TEST_CASE("builds are set side by side with reasons, told when old, one is taken and undone") {
    BuildsBench b("pavilion-petal");
    REQUIRE(b.table("builds")->rowCount() == 3);
    const auto mass = b.figure("mass");
    CHECK(mass.endsWith("kg"));
    auto& sheet = b.side_by_side();
    // Three builds, eleven sums.
    const auto sums = sheet.findChildren<QToolButton*>("sum");
    CHECK(sums.size() == 33);
    CHECK(b.sum("1", "mass") == mass);
    CHECK(b.sum("2", "gives").endsWith("mm"));
    QTest::mouseClick(sums.front(), Qt::LeftButton);
    CHECK(sheet.findChild<QLabel*>("sums-why")->text().contains(sums.front()->toolTip()));
    // The lightest is strong, and the one that is made now cannot be taken again.
    for (auto* figure : sums) {
        if (figure->property("sum").toString() == "mass")
            CHECK(figure->font().bold() == (figure->property("column").toString() == "2"));
    }
    CHECK(sheet.findChild<QPushButton*>("take-1") == nullptr);
    CHECK_FALSE(sheet.is_old());
    b.type("/part/waste", "25");
    CHECK(sheet.is_old());
    QTest::mouseClick(b.visible<QPushButton>("builds-renew"), Qt::LeftButton);
    REQUIRE(b.home());
    CHECK_FALSE(sheet.is_old());
    const auto before = b.part();
    auto* take = b.visible<QPushButton>("take-2");
    sheet.ensureWidgetVisible(take);
    QTest::mouseClick(take, Qt::LeftButton);
    b.settle();
    CHECK(part::is_made_as(b.part(), before.builds[1]));
    CHECK(b.part().duty == before.duty);
    CHECK_FALSE(sheet.isVisible());
    CHECK(b.cell("builds", 1, 1).contains("(as it is now)"));
    b.window.document().undo();
    b.settle();
    CHECK(b.part() == before);
    // By its key from anywhere, and back to the stand.
    b.window.show_stage(Stage::heat);
    b.settle();
    b.key(Qt::Key_B, Qt::ControlModifier | Qt::ShiftModifier);
    REQUIRE(b.home());
    REQUIRE(sheet.isVisible());
    QTest::mouseClick(b.visible<QPushButton>("builds-close"), Qt::LeftButton);
    CHECK_FALSE(sheet.isVisible());
}

TEST_CASE("another cloth that is as stiff is found by keys, and kept as a build") {
    BuildsBench b("pavilion-petal");
    b.side_by_side();
    b.pick("stiff-as", "solid glass");
    b.pick("stiff-in", "carbon cloth 200 twill");
    const auto found = part::as_stiff(b.part().builds[2], "carbon cloth 200 twill",
                                      load_shop(data_folder().toStdString() + "/library"));
    const auto told = b.visible<QLabel>("stiff-told")->text();
    CHECK(told.startsWith(QString::number(found.plies) + " plies: "));
    CHECK(told.contains("N·m"));
    b.press("stiff-keep");
    REQUIRE(b.part().builds.size() == 4);
    CHECK(b.part().builds[3].name == "as stiff as solid glass");
    CHECK(b.part().builds[3].layers == found.build.layers);
    CHECK(b.window.builds_sheet().is_old());
    // Another cloth, another count.
    b.pick("stiff-in", "glass mat 450");
    CHECK(b.visible<QLabel>("stiff-told")->text() != told);
    CHECK(b.visible<QPushButton>("stiff-keep")->isEnabled());
}

TEST_CASE("a part that stands alone is told how to set another beside it") {
    BuildsBench b("radar-dome");
    CHECK_FALSE(b.window.findChild<RecordTable*>("builds")->isVisible());
    auto& sheet = b.side_by_side();
    CHECK(b.visible<QLabel>("builds-alone")->text().contains("keep it"));
    CHECK(b.sum("1", "gives").isEmpty());
    // Inches and pounds are the window's, not the sheet's own.
    b.window.set_wording({UnitSystem::imperial, "$"});
    CHECK(b.sum("1", "mass").endsWith("lb"));
    CHECK(sheet.isVisible());
}
