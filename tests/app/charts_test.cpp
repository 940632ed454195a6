// Charts as values, and in the window: read by pointer and keys, copied, saved; the calendar's rows.
#include <QApplication>
#include <QClipboard>
#include <QImage>
#include <QMimeData>
#include <QScrollBar>

#include "app/charts/chart_view.hpp"
#include "core/science/mesh/stl.hpp"
#include "tests/app/bench.hpp"
#include "tests/quiet.hpp"

using namespace bench;

namespace {

/// How many pixels of a picture differ from its ground.
int painted(const QImage& picture, const QColor& ground) {
    int count = 0;
    for (int y = 0; y < picture.height(); y += 2) {
        for (int x = 0; x < picture.width(); x += 2)
            count += std::abs(picture.pixelColor(x, y).lightness() - ground.lightness()) > 10;
    }
    return count;
}

QImage sheet(const Ink& k, const std::function<void(QPainter&, const QRectF&)>& paint) {
    QImage picture(700, 500, QImage::Format_RGB32);
    picture.fill(k.paper);
    QPainter p(&picture);
    paint(p, {20, 20, 660, 460});
    return picture;
}

Plot slope() {
    return {"A slope",
            {"along", Kind::length, 0, 0.1, {}},
            {"rise", Kind::thickness, 0, 0.001, {}},
            {{"a", {{0, 0}, {0.1, 0.001}}, Tone::petrol, false, false},
             {"b", {{0.05, 0.0005}, {0.1, 0}}, Tone::ink, true, true}},
            {},
            {},
            {}};
}

}  // namespace

TEST_CASE("ticks are round in the unit that is read, and stay within the axis") {
    const Wording inches{UnitSystem::imperial, "$"};
    // 100 mm are 3.937 in: whole inches, where millimetres go by twenties.
    const Axis axis{"along", Kind::length, 0, 0.1, {}};
    const auto metric = ticks_of(axis, 5, {}), imperial = ticks_of(axis, 5, inches);
    REQUIRE(metric.size() == 6);
    for (std::size_t i = 0; i < metric.size(); ++i)
        CHECK(metric[i] == Approx(0.02 * static_cast<double>(i)).margin(1e-9));
    REQUIRE(imperial.size() == 4);
    for (std::size_t i = 0; i < imperial.size(); ++i)
        CHECK(imperial[i] == Approx(0.0254 * static_cast<double>(i)).margin(1e-6));
    // Kelvins are no round degrees, and 0 °F is none of them.
    const Axis warm{"at", Kind::temperature, kelvin(-3), kelvin(47), {}};
    const auto celsius_ticks = ticks_of(warm, 5, {}), fahrenheit = ticks_of(warm, 5, inches);
    REQUIRE(celsius_ticks.size() == 5);
    CHECK(celsius_ticks[0] == Approx(kelvin(0)).margin(1e-3));
    CHECK(celsius_ticks[4] == Approx(kelvin(40)).margin(1e-3));
    for (const double t : fahrenheit) {
        const double f = celsius(t) * 1.8 + 32;
        CHECK(std::abs(f / 20 - std::round(f / 20)) < 1e-3);
    }
    // Counts go by whole numbers, an axis without length has no ticks, names have one each.
    CHECK(ticks_of({"n", Kind::count, 1, 3, {}}, 8, {}) == std::vector<double>{1, 2, 3});
    CHECK(ticks_of({"n", Kind::count, 0.5, 6.5, {}}, 12, {}) == std::vector<double>{1, 2, 3, 4, 5, 6});
    CHECK(ticks_of({"n", Kind::count, 2, 2, {}}, 8, {}).empty());
    CHECK(ticks_of({"n", Kind::count, 0, 0, {"x", "y", "z"}}, 1, {}).size() == 3);
}

TEST_CASE("a line is read between its points and nowhere else") {
    const auto plot = slope();
    CHECK(value_at(plot.lines[0], 0.025) == Approx(0.00025));
    CHECK(value_at(plot.lines[0], 0) == Approx(0).margin(1e-15));
    CHECK(value_at(plot.lines[0], 0.1) == Approx(0.001));
    CHECK_FALSE(value_at(plot.lines[0], 0.1001));
    CHECK_FALSE(value_at(plot.lines[1], 0.049));
    CHECK(value_at(plot.lines[1], 0.075) == Approx(0.00025));
    CHECK_FALSE(value_at({"none", {}, Tone::ink, false, false}, 0));
    // Two points at one place: a step. The first is read there.
    CHECK(value_at({"step", {{0, 1}, {1, 1}, {1, 5}, {2, 5}}, Tone::ink, false, false}, 1) == Approx(1));
    CHECK(stops_of(plot) == std::vector<double>{0, 0.05, 0.1});
    const auto said = reading_of(plot, 0.05, {});
    CHECK(said.startsWith("along 50"));
    CHECK(said.contains("a 0.50 mm"));
    CHECK(said.contains("b 0.50 mm"));
    CHECK_FALSE(reading_of(plot, 0, {}).contains("b "));
}

TEST_CASE("a chart's table carries its units and a row for each stop, empty where a line is not") {
    const auto rows = text_of(slope(), {}).split('\n');
    REQUIRE(rows.size() == 5);  // the last is the line's end
    CHECK(rows[0] == "along, mm\ta, mm\tb, mm");
    CHECK(rows[1] == "0\t0\t");
    CHECK(rows[2] == "50\t0.5\t0.5");
    CHECK(rows[3] == "100\t1\t0");
    const auto inches = text_of(slope(), {UnitSystem::imperial, "$"}).split('\n');
    CHECK(inches[0].startsWith("along, in\t"));
    CHECK(inches[3].startsWith("3.93701\t"));
}

TEST_CASE("every chart is painted in both inks, with something on it, also where there is nothing to draw") {
    const auto job = load_job((data_folder() + "/demo/cello-case.json").toStdString());
    const auto f = evaluate(job, load_shop(data_folder().toStdString() + "/library"), quiet, Depth::stages);
    REQUIRE(f.complete());
    for (const auto light : {Light::day, Light::night}) {
        const auto& k = ink(light);
        const auto rows = day_rows(*f.run, {});
        CHECK(painted(sheet(k, [&](QPainter& p,
                                   const QRectF& r) { paint_days(p, r, rows, f.run->plan.days, k, 20); }),
                      k.paper) > 400);
        for (const auto stage : {Stage::run, Stage::heat, Stage::log}) {
            const auto plots = plots_of(job, f, stage, {});
            // Sizes, heat and degree of each of three cures, and two of them by thickness.
            REQUIRE(plots.size() == (stage == Stage::heat ? 9 : 1));
            for (const auto& plot : plots) {
                INFO(plot.title.toStdString());
                const auto picture =
                    sheet(k, [&](QPainter& p, const QRectF& r) { paint_plot(p, r, plot, k, {}); });
                CHECK(painted(picture, k.paper) > 300);
                // Nothing is painted outside of the sheet it was given.
                for (int x = 0; x < picture.width(); x += 5) {
                    CHECK(picture.pixelColor(x, 8) == k.paper);
                    CHECK(picture.pixelColor(x, 494) == k.paper);
                }
            }
        }
        CHECK(painted(
                  sheet(k, [&](QPainter& p, const QRectF& r) { paint_plot(p, r, mass_plot({}, 3), k, {}); }),
                  k.paper) > 30);
    }
    CHECK(has_chart(Stage::run));
    CHECK_FALSE(has_chart(Stage::shell));
    CHECK(plots_of(job, f, Stage::shell, {}).empty());
    CHECK(plots_of(job, Findings{}, Stage::run, {}).empty());
}

TEST_CASE("the charts say what the findings say") {
    const auto job = load_job((data_folder() + "/demo/cello-case.json").toStdString());
    const auto f = evaluate(job, load_shop(data_folder().toStdString() + "/library"), quiet, Depth::stages);
    const auto cost = cost_plot(*f.run, {});
    for (const int n : {1, 7, f.run->made})
        CHECK(value_at(cost.lines[0], n) ==
              Approx(f.run->ledgers[0].total() + f.run->ledgers[1].total() / n));
    CHECK(value_at(cost.lines[1], 9) == Approx(f.run->ledgers[0].total()));
    const auto sizes = growth_plot(*f.heat, false, 0.001, {});
    CHECK(value_at(sizes.lines[0], 4) == Approx(f.heat->sizes.part_room * f.heat->length));
    CHECK(sizes.bands[0].high == 0.001);
    CHECK(sizes.y.high > std::abs(*value_at(sizes.lines[0], 3)));
    log::Choices log;
    log.entries = {{"2026-03-01", EntryKind::pull, 3.1, 2, ""},
                   {"2026-03-02", EntryKind::pull, 0, 2, ""},
                   {"2026-03-03", EntryKind::pull, 3.3, 2, ""}};
    const auto masses = mass_plot(log, 3);
    REQUIRE(masses.lines.size() == 2);
    CHECK(masses.lines[0].points == std::vector<QPointF>{{1, 3.1}, {3, 3.3}});
    CHECK(value_at(masses.lines[1], 2) == Approx(3));
    CHECK(masses.y.low < 3);
    CHECK(masses.y.high > 3.3);
}

TEST_CASE("a row of the calendar holds a task's stretches, and its wait follows the last") {
    run::Findings run;
    run.tasks = {{"plug", "sand, grit 120", 1, 1, 0, true, 0},
                 {"plug", "sand, grit 240", 1, 2, 3600, true, 0},
                 {"shell", "lay the plies", 1, 1, 7200, true, 0}};
    run.plan.bookings = {{0, 28800, 30000}, {1, 30000, 32000}, {2, 32000, 57600}, {2, 115200, 120000}};
    run.plan.days = 2;
    const auto rows = day_rows(run, {});
    REQUIRE(rows.size() == 2);
    CHECK(rows[0].name == "sand");
    CHECK(rows[0].people == 2);
    REQUIRE(rows[0].bars.size() == 2);
    CHECK(rows[0].bars[0].wait == 0);
    CHECK(rows[0].bars[1].wait == 3600);
    CHECK(rows[1].stage == Stage::shell);
    REQUIRE(rows[1].bars.size() == 2);
    CHECK(rows[1].bars[0].wait == 0);
    CHECK(rows[1].bars[1].wait == 7200);
    const auto words = words_of(rows[1], {});
    CHECK(words.contains("day 1, 08:53"));
    CHECK(words.contains("day 2, 09:20"));
    const auto table = text_of(rows, {}).split('\n');
    REQUIRE(table.size() == 6);
    CHECK(table[0].split('\t').size() == 6);
    CHECK(table[4].startsWith("lay the plies\tday 2, 08:00\tday 2, 09:20\t"));
}

TEST_CASE("the calendar is legible, scrolls, and its arrows walk it into view") {
    Bench b("cello-case-whole");
    b.window.show_stage(Stage::run);
    b.settle();
    auto* days = b.visible<DaysView>("days");
    REQUIRE(days->rows().size() > 15);
    CHECK(days->line() >= 20);
    CHECK(days->verticalScrollBar()->maximum() > 0);
    days->setFocus();
    QTest::keyClick(days, Qt::Key_End);
    CHECK(days->lit() == static_cast<int>(days->rows().size()) - 1);
    CHECK(days->verticalScrollBar()->value() == days->verticalScrollBar()->maximum());
    CHECK(days->accessibleDescription().startsWith(days->rows().back().name));
    QTest::keyClick(days, Qt::Key_Home);
    CHECK(days->verticalScrollBar()->value() == 0);
    QTest::keyClick(days, Qt::Key_C, Qt::ControlModifier);
    const auto copied = QApplication::clipboard()->text().split('\n', Qt::SkipEmptyParts);
    CHECK(static_cast<std::size_t>(copied.size()) ==
          1 + b.window.document().findings().run->plan.bookings.size());
    const auto stage = days->rows()[0].stage;
    QTest::keyClick(days, Qt::Key_Return);
    CHECK(b.window.stage() == stage);
}

TEST_CASE("a chart is read by the arrows and under the pointer, and copies as text and picture") {
    Bench b;
    b.window.show_stage(Stage::run);
    b.settle();
    auto* plot = b.visible<PlotView>("plot");
    plot->setFocus();
    CHECK_FALSE(plot->read());
    QTest::keyClick(plot, Qt::Key_Right);
    CHECK(plot->read() == Approx(1));
    QTest::keyClick(plot, Qt::Key_Right, Qt::ShiftModifier);
    CHECK(plot->read() == Approx(11));
    const auto& run = *b.window.document().findings().run;
    CHECK(plot->accessibleDescription().contains(
        QString::fromStdString(show(Kind::money, run.cost_per_part(11), b.window.wording()))));
    QTest::keyClick(plot, Qt::Key_End);
    CHECK(*plot->read() == plot->plot().x.high);
    QTest::keyClick(plot, Qt::Key_Escape);
    CHECK_FALSE(plot->read());
    QTest::mouseMove(plot, QPoint(plot->width() / 2, plot->height() / 2));
    REQUIRE(plot->read());
    CHECK(std::abs(*plot->read() - plot->plot().x.high / 2) < 0.15 * plot->plot().x.high);
    QTest::keyClick(plot, Qt::Key_C, Qt::ControlModifier);
    const auto* copied = QApplication::clipboard()->mimeData();
    CHECK(copied->text().startsWith("parts made\t"));
    CHECK(copied->text().count('\n') == static_cast<int>(stops_of(plot->plot()).size()) + 1);
    CHECK(copied->hasImage());
    // Another chart is not read where this one was.
    b.window.show_stage(Stage::heat);
    b.settle();
    CHECK_FALSE(plot->read());
    QTest::keyClick(plot, Qt::Key_Right);
    CHECK(plot->accessibleDescription().startsWith("plug in the room"));
}

TEST_CASE("the charts are saved as pictures with their words") {
    Bench b;
    CHECK(b.write_out("x-chart-run", b.file("run.svg")).startsWith("Written"));
    const auto run = QString::fromStdString(read_file(b.file("run.svg").toStdString()));
    CHECK(run.contains("Cost of one part"));
    CHECK(run.contains("<svg"));
    CHECK(b.write_out("x-chart-heat", b.file("heat.svg")).startsWith("Written"));
    CHECK(QString::fromStdString(read_file(b.file("heat.svg").toStdString())).contains("tolerance"));
    CHECK(b.write_out("x-chart-log", b.file("log.svg")).startsWith("Written"));
    CHECK(b.write_out("x-chart-run", "/nowhere/at/all.svg").contains("cannot be written"));
}
