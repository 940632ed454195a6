// The bag in the window: words, film and pleats on the stand, the drop test, the layers in the section.
#include <QClipboard>

#include "app/charts/chart_view.hpp"
#include "app/ribbon/ribbon.hpp"
#include "app/stand/scene.hpp"
#include "tests/app/bench.hpp"

using namespace bench;

namespace {

/// Folds of the film on the stand: short lines of three points that go up and come back.
int folds(Bench& b) {
    const auto& document = b.window.document();
    const auto scene = scene_of(document.job(), document.findings(), Stage::bag, ink(Light::day), {});
    int out = 0;
    for (const auto& line : scene.lines)
        out += line.points.size() == 3 && line.points[1].z() > line.points[0].z() &&
               std::abs(line.points[0].z() - line.points[2].z()) < 0.02;
    return out;
}

/// Whether the slip has that call.
bool says(Bench& b, const QString& key) {
    for (const auto* label : b.window.slip().findChildren<QLabel*>("call-" + key)) {
        if (label->isVisibleTo(&b.window)) return true;
    }
    return false;
}

}  // namespace

TEST_CASE("the bag is planned by its words: film, pleats, pump and drop test") {
    Bench b;
    b.window.show_stage(Stage::bag);
    b.settle();
    const auto bag = [&] { return *b.window.document().findings().bag; };
    const auto first = bag();
    REQUIRE(first.closed);
    CHECK(folds(b) == static_cast<int>(first.film.pleats.size()));
    CHECK(b.figure("pleats") == QString::number(first.film.pleats.size()));
    // More ease is a larger sheet and more to take up.
    b.type("/bag/ease", "20 %");
    CHECK(bag().film.length == Approx(first.film.length * 1.2 / 1.1));
    CHECK(bag().film.slack > first.film.slack);
    CHECK(folds(b) == static_cast<int>(bag().film.pleats.size()));
    b.choose("/bag/film", "release film without holes");
    CHECK(b.visible<QLabel>("call-no_bleed") != nullptr);
    b.fix("no_bleed");
    b.settle();
    CHECK(b.window.document().job().bag.film == ReleaseFilm::perforated);
    // The drop test has words of its own once it has been done.
    CHECK(b.word("/bag/drop/seconds")->text() == "not done yet");
    b.type("/bag/drop/seconds", "10");
    b.type("/bag/drop/from", "20");
    b.type("/bag/drop/to", "90");
    CHECK(bag().tested);
    CHECK(bag().leak_rise == Approx(7000.0 / 600));
    CHECK(b.visible<QLabel>("call-leaks") != nullptr);
    b.type("/bag/drop/to", "35 mbar");
    for (const auto& call : b.window.document().findings().calls) CHECK(call.key != "leaks");
    // A pump of the shop's brings its own figures, and its words take the place of the job's.
    const double reached = bag().reached;
    b.choose("/bag/pump", "dry pump, 8 m³/h");
    CHECK(bag().drawn_by.name == "dry pump, 8 m³/h");
    CHECK(bag().reached > reached);
    for (auto* word : b.window.slip().findChildren<QToolButton*>("word"))
        CHECK((!word->isVisible() || word->property("path") != "/bag/ultimate"));
    b.choose("/bag/pump", "a pump of its own figures");
    CHECK(bag().reached == reached);
    b.type("/bag/altitude", "1500 m");
    CHECK(bag().room == Approx(84556).epsilon(1e-3));
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.word("/bag/altitude")->text() == "at sea level");
}

TEST_CASE("laid open, the stage says that there is no bag, and the stand shows none") {
    Bench b;
    b.window.show_stage(Stage::part);
    b.choose("/part/how", "by hand");
    b.window.show_stage(Stage::bag);
    b.settle();
    CHECK(folds(b) == 0);
    CHECK(b.window.slip().findChildren<QToolButton*>("word").isEmpty());
    CHECK_THAT(card_line(b.window.document().job(), b.window.document().findings(), Stage::bag, {}),
               Catch::Contains("no bag"));
}

TEST_CASE("the section names what lies on the last ply, and its layer leads to the bag") {
    Bench b;
    b.window.show_stage(Stage::bag);
    b.settle();
    const auto has = [&](const QString& text) {
        for (const auto& layer : b.window.ribbon().section().layers) {
            if (layer.name.contains(text)) return layer.stage == Stage::bag;
        }
        return false;
    };
    CHECK(has("perforated film"));
    CHECK(has("breather"));
    b.choose("/bag/film", "no film");
    CHECK_FALSE(has("perforated film"));
    CHECK(has("peel ply"));
}

TEST_CASE("readings of a drop test are pasted, drawn with their line, and decide the leak") {
    Bench b;
    b.window.show_stage(Stage::bag);
    b.settle();
    auto* table = b.visible<RecordTable>("drop-readings");
    CHECK(table->rowCount() == 0);
    CHECK_FALSE(b.window.slip().findChild<QWidget*>("drop-plot")->isVisible());
    table->setFocus();
    // Minutes and mbar, as they are written down at the bench.
    QApplication::clipboard()->setText("0\t20\n2\t21\n4\t22\n6\t23\n8\t24\n10\t25\n");
    QTest::keyClick(table, Qt::Key_V, Qt::ControlModifier);
    QTest::qWait(20);
    b.settle();
    const auto& drop = b.window.document().job().bag.drop;
    REQUIRE(drop.readings.size() == 6);
    CHECK(drop.readings.back().seconds == Approx(600));
    CHECK(drop.readings.back().pressure == Approx(2500));
    const auto& bag = *b.window.document().findings().bag;
    REQUIRE(bag.drop);
    CHECK(bag.tested);
    CHECK(bag.drop->rise == Approx(500.0 / 600));
    CHECK(bag.pump.leak == Approx(500.0 / 600 * bag.pump.volume));
    CHECK(b.figure("rise").startsWith("5.00"));
    auto* plot = b.visible<PlotView>("drop-plot");
    CHECK(plot->plot().lines.size() == 3);
    plot->setFocus();
    QTest::keyClick(plot, Qt::Key_End);
    CHECK(plot->accessibleDescription().contains("read 25.0 mbar"));
    CHECK(b.visible<PlotView>("down-plot")->plot().title.contains("as planned"));
    // What cannot be read changes nothing.
    QApplication::clipboard()->setText("12\tmuch\n");
    QTest::keyClick(table, Qt::Key_V, Qt::ControlModifier);
    QTest::qWait(20);
    b.settle();
    CHECK(b.window.document().job().bag.drop.readings.size() == 6);
    CHECK(b.message().contains("pressure"));
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.window.document().job().bag.drop.readings.empty());
}

TEST_CASE("what closes the part is chosen by its word, and film, layers and stand follow") {
    Bench b;
    auto job = b.window.document().job();
    job.back.kind = BackKind::none;
    b.window.document().replace("no back", job);
    b.window.show_stage(Stage::bag);
    b.settle();
    const auto bag = [&] { return *b.window.document().findings().bag; };
    const auto lines = [&] { return b.window.stand().scene().lines.size(); };
    const auto pleated = lines();
    b.choose("/bag/way", "an envelope of film round the whole tool");
    b.settle();
    CHECK(bag().wrap.sheets > 0);
    CHECK(folds(b) == 0);
    CHECK(lines() != pleated);
    CHECK(b.window.stand().scene().legend.contains("round face and back"));
    CHECK(says(b, "tried_otherwise"));
    b.fix("tried_otherwise");
    b.settle();
    CHECK(b.window.document().job().back.bag == BagKind::envelope);
    CHECK_FALSE(says(b, "tried_otherwise"));
    // A tube that is too narrow is stopped, and its way out taken.
    b.choose("/bag/way", "a tube of film round the whole tool");
    b.type("/bag/tube", "200");
    b.settle();
    CHECK(says(b, "tube_narrow"));
    b.fix("tube_narrow");
    b.settle();
    CHECK(b.window.document().job().bag.way == BagWay::envelope);
    b.choose("/bag/way", "a bag that is used again");
    b.settle();
    CHECK(bag().tape == 0);
    const auto* table = b.visible<QTableWidget>("bag-layers");
    REQUIRE(table != nullptr);
    CHECK(table->item(table->rowCount() - 1, 0)->text() == "reusable bag");
    // Back to what it was, by as many steps.
    for (int i = 0; i < 6; ++i) b.key(Qt::Key_Z, Qt::ControlModifier);
    b.settle();
    CHECK(b.window.document().job().bag.way == BagWay::surface);
}

TEST_CASE("a pump that switches by itself and the lines' own test have words and figures") {
    Bench b;
    b.window.show_stage(Stage::bag);
    b.settle();
    b.choose("/bag/switching/switches", "stops and starts by itself");
    b.type("/bag/switching/low", "50 mbar");
    b.type("/bag/switching/high", "80 mbar");
    b.type("/bag/switching/rests", "5");
    b.settle();
    const auto& bag = *b.window.document().findings().bag;
    CHECK(bag.leak_rise == Approx(10));
    CHECK(b.figure("duty").contains("%"));
    b.type("/bag/alone/seconds", "10");
    b.type("/bag/alone/from", "20 mbar");
    b.type("/bag/alone/to", "21 mbar");
    b.settle();
    CHECK(b.figure("alone").contains("%"));
    CHECK(b.window.document().job().bag.alone.to == Approx(2100));
}
