// The shop's library in the window: figures typed, kept in the shop's own folder, followed by the job, taken
// back.
#include <QComboBox>

#include "app/window/shop_sheet.hpp"
#include "tests/app/bench.hpp"

using namespace bench;

namespace {

struct Shopping : Bench {
    QString own = folder.path() + "/own";
    Shopping() {
        take_library(own);
        window.findChild<QAction*>("act-library")->trigger();
        settle();
        REQUIRE(window.shop_sheet() != nullptr);
        REQUIRE(window.shop_sheet()->isVisible());
    }
    ~Shopping() { take_library({}); }
    Shopping(const Shopping&) = delete;
    Shopping& operator=(const Shopping&) = delete;

    void go_to(const QString& list, const QString& entry) {
        auto* lists = visible<QComboBox>("shop-list");
        lists->setFocus();
        for (int i = 0; i < lists->count() && lists->currentData().toString() != list; ++i)
            QTest::keyClick(lists, i == 0 ? Qt::Key_Home : Qt::Key_Down);
        REQUIRE(lists->currentData().toString() == list);
        auto* sought = visible<QLineEdit>("shop-sought");
        sought->setFocus();
        sought->selectAll();
        QTest::keyClicks(sought, entry);
        auto* entries = visible<QListWidget>("shop-entries");
        REQUIRE(entries->count() > 0);
        entries->setFocus();
        QTest::keyClick(entries, Qt::Key_Home);
        for (int i = 0; i < entries->count(); ++i) {
            if (entries->currentItem()->data(Qt::UserRole).toString() == entry) break;
            QTest::keyClick(entries, Qt::Key_Down);
        }
        CHECK(entries->currentItem()->data(Qt::UserRole).toString() == entry);
    }
    int row(const QString& name) {
        auto* t = table("shop-figures");
        for (int r = 0; r < t->rowCount(); ++r) {
            if (t->item(r, 0)->text() == name) return r;
        }
        FAIL("no figure " << name.toStdString());
        return 0;
    }
    QString value(const QString& name) { return cell("shop-figures", row(name), 1); }
    void type_value(const QString& name, const QString& text) {
        type_cell("shop-figures", row(name), 1, text);
    }
    void click(const char* name) {
        auto* button = visible<QPushButton>(name);
        window.shop_sheet()->ensureWidgetVisible(button);
        REQUIRE(button->isEnabled());
        QTest::mouseClick(button, Qt::LeftButton);
        settle();
    }
    [[nodiscard]] const Shop& shop() { return window.document().shop(); }
};

}  // namespace

TEST_CASE(
    "a figure of the library is typed in the maker's units, kept as the shop's own, and the job follows") {
    Shopping s;
    const double cost = s.window.document().findings().run->ledgers[0].total();
    s.go_to("rates", "labour");
    CHECK(s.value("value") == "42");
    s.type_value("value", "84");
    CHECK(need(s.shop().rates, "labour", "t").value == 84);
    CHECK(s.window.document().findings().run->ledgers[0].total() > 1.2 * cost);
    CHECK(s.message().contains("Kept"));
    // It says now that it is no typical figure any more, and is marked in the list.
    CHECK(s.cell("shop-figures", s.row("value"), 2) == "from the data sheet");
    CHECK(s.visible<QListWidget>("shop-entries")->currentItem()->text().contains("ours"));
    // Only that entry is in the shop's own file, and a later start reads it.
    const auto file = parse_json("own", read_file((s.own + "/rates.json").toStdString()));
    REQUIRE(file.at("entries").size() == 1);
    CHECK(need(shop_on_disk().rates, "labour", "t").value == 84);
    // Pressures, in words and units as everywhere; out of range stays as it was and says the range.
    s.go_to("pumps", "air ejector");
    s.type_value("least pressure on its shut inlet", "0,2 bar");
    CHECK(need(s.shop().pumps, "air ejector", "t").ultimate == Approx(20000));
    s.type_value("least pressure on its shut inlet", "5 bar");
    CHECK(s.message().contains("outside"));
    CHECK(need(s.shop().pumps, "air ejector", "t").ultimate == Approx(20000));
    s.type_value("hoses that it takes", "two");
    CHECK(s.message().contains("is no"));
    // Each is taken back by itself, the last first.
    s.click("shop-back");
    CHECK(need(s.shop().pumps, "air ejector", "t").ultimate == Approx(10000));
    CHECK_FALSE(QFile::exists(s.own + "/pumps.json"));
    s.click("shop-back");
    CHECK(need(s.shop().rates, "labour", "t").value == 42);
    CHECK(s.window.document().findings().run->ledgers[0].total() == Approx(cost));
    s.click("shop-close");
    CHECK_FALSE(s.window.shop_sheet()->isVisible());
    CHECK(s.window.stand().isVisible());
}

TEST_CASE("a new entry is made like another, chosen by the job, and struck again") {
    Shopping s;
    s.go_to("gauges", "digital gauge, absolute");
    auto* name = s.visible<QLineEdit>("shop-name");
    name->setFocus();
    QTest::keyClicks(name, "the old one by the door");
    s.click("shop-copy");
    REQUIRE(find(s.shop().gauges, "the old one by the door") != nullptr);
    CHECK(s.visible<QListWidget>("shop-entries")->currentItem()->text().contains("the old one"));
    s.type_value("least step that is read", "5 mbar");
    CHECK(need(s.shop().gauges, "the old one by the door", "t").step == Approx(500));
    // One name is not given twice.
    name->setFocus();
    QTest::keyClicks(name, "capsule gauge, absolute");
    s.click("shop-copy");
    CHECK(s.message().contains("already"));
    s.click("shop-close");
    s.window.show_stage(Stage::bag);
    s.settle();
    s.choose("/bag/gauge", "the old one by the door");
    CHECK(s.window.document().findings().bag->gauge->step == Approx(500));
    s.window.findChild<QAction*>("act-library")->trigger();
    s.settle();
    s.go_to("gauges", "the old one by the door");
    s.click("shop-give-up");
    CHECK(find(s.shop().gauges, "the old one by the door") == nullptr);
    // The job that used it says so, and is not worked out with another.
    CHECK_FALSE(s.window.document().findings().bag);
    s.click("shop-back");
    CHECK(s.window.document().findings().bag);
}

TEST_CASE("a resin's data sheet is typed line by line, fitted, drawn, and Heat goes by it") {
    Shopping s;
    const QString resin = QString::fromStdString(s.window.document().job().part.resin);
    const auto before = s.window.document().findings().heat;
    REQUIRE(before);
    s.go_to("resins", resin);
    auto* plot = s.visible<PlotView>("shop-gel-plot");
    CHECK(s.visible<QLabel>("shop-fit")->text().contains("typical"));
    const auto lines = plot->plot().lines.size();
    s.table("shop-figures")->setCurrentCell(s.row("its cure, by the data sheet: gel time"), 1);
    s.click("shop-more");
    s.type_value("gel time 1: at", "60 °C");
    s.type_value("gel time 1: after", "4 min");
    const auto& sheet = need(s.shop().resins, resin.toStdString(), "t").cures;
    REQUIRE(sheet.gels.size() == 1);
    CHECK(sheet.gels[0].T == Approx(333.15));
    CHECK(sheet.gels[0].time == Approx(240));
    CHECK(s.visible<QLabel>("shop-fit")->text().contains("Fitted"));
    CHECK(plot->plot().lines.size() > lines);
    CHECK(s.visible<PlotView>("shop-glass-plot")->plot().lines.size() == 1);
    REQUIRE(s.window.document().findings().heat);
    CHECK_FALSE(*s.window.document().findings().heat == *before);
    // What contradicts itself is kept, said, and mended.
    s.table("shop-figures")->setCurrentCell(s.row("its cure, by the data sheet: gel time"), 1);
    s.click("shop-more");
    s.type_value("gel time 2: at", "70 °C");
    s.type_value("gel time 2: after", "2 h");
    CHECK(s.visible<QLabel>("shop-fit")->text().contains("gels later"));
    s.table("shop-figures")->setCurrentCell(s.row("gel time 2: at"), 1);
    s.click("shop-away");
    CHECK(need(s.shop().resins, resin.toStdString(), "t").cures.gels.size() == 1);
    CHECK(s.visible<QLabel>("shop-fit")->text().contains("Fitted"));
}

TEST_CASE(
    "coats and adhesives have data sheets like a resin's, and what sets by nothing of its own has no gel "
    "time") {
    Shopping s;
    s.go_to("surface_coats", "epoxy surface coat");
    CHECK(s.visible<QLabel>("shop-fit")->text().contains("typical"));
    s.table("shop-figures")->setCurrentCell(s.row("its cure, by the data sheet: gel time"), 1);
    s.click("shop-more");
    s.type_value("gel time 1: at", "60 °C");
    s.type_value("gel time 1: after", "3 min");
    CHECK(need(s.shop().surface_coats, "epoxy surface coat", "t").cures.gels.size() == 1);
    CHECK(s.visible<QLabel>("shop-fit")->text().contains("Fitted"));
    s.go_to("bonds", "structural adhesive, warm cure");
    auto* plot = s.visible<PlotView>("shop-gel-plot");
    REQUIRE(plot != nullptr);
    CHECK(s.visible<QLabel>("shop-fit")->text().contains("typical"));
    CHECK_FALSE(plot->plot().lines.empty());
    s.go_to("bonds", "rubber cord");
    CHECK_FALSE(plot->isVisible());
}

TEST_CASE("a typo in the shop's own files is said, and what was typed there is not written over") {
    Shopping s;
    QDir().mkpath(s.own);
    QFile file(s.own + "/pumps.json");
    REQUIRE(file.open(QIODevice::WriteOnly));
    file.write("{\"entries\": [{\"name\": \"mine\", \"ports\": 3,}]}");
    file.close();
    s.go_to("pumps", "air ejector");
    s.type_value("hoses that it takes", "2");
    CHECK(s.message().contains("pumps.json"));
    REQUIRE(file.open(QIODevice::ReadOnly));
    CHECK(file.readAll().contains("mine"));
    CHECK(need(s.shop().pumps, "air ejector", "t").ports == 1);
}

TEST_CASE("a change is not taken back over what something else has written since") {
    Shopping s;
    s.go_to("pumps", "air ejector");
    s.type_value("hoses that it takes", "2");
    QFile file(s.own + "/pumps.json");
    REQUIRE(file.open(QIODevice::WriteOnly | QIODevice::Truncate));
    file.write("{\"entries\": [{\"name\": \"air ejector\", \"ports\": 7}]}");
    file.close();
    s.click("shop-back");
    CHECK(s.message().contains("Something else"));
    CHECK(need(shop_on_disk().pumps, "air ejector", "t").ports == 7);
    s.click("shop-again");
    CHECK(s.value("hoses that it takes") == "7");
}

TEST_CASE("no list of the library shows a cell that is cut, nor a name in a file's spelling") {
    Shopping s;
    auto* lists = s.visible<QComboBox>("shop-list");
    for (int i = 0; i < lists->count(); ++i) {
        lists->setCurrentIndex(i);
        auto* t = s.table("shop-figures");
        INFO(lists->currentText().toStdString());
        CHECK(t->rowCount() > 0);
        for (int r = 0; r < t->rowCount(); ++r) {
            CHECK_FALSE(t->item(r, 0)->text().contains('_'));
            if (t->item(r, 1)->text().size() > 30) continue;  // sentences are read in full on hover
            CHECK(t->fontMetrics().horizontalAdvance(t->item(r, 1)->text()) < t->columnWidth(1) + 2);
        }
    }
}

TEST_CASE("no key stands for two acts") {
    Bench b;
    std::map<QString, QString> taken;
    int keys = 0;
    for (const auto* action : b.window.findChildren<QAction*>()) {
        if (!action->objectName().startsWith("act-")) continue;
        for (const auto& key : action->shortcuts()) {
            const auto [at, fresh] = taken.emplace(key.toString(), action->objectName());
            INFO(key.toString().toStdString() << " of " << at->second.toStdString());
            CHECK((fresh || at->second == action->objectName()));
            ++keys;
        }
    }
    CHECK(keys > 30);
    // The library's own.
    QApplication::setActiveWindow(&b.window);
    b.key(Qt::Key_L, Qt::ControlModifier | Qt::ShiftModifier);
    REQUIRE(b.window.shop_sheet() != nullptr);
    CHECK(b.window.shop_sheet()->isVisible());
}
