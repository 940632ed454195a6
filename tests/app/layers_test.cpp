// The bag's layers in the window: the table, darts on the stand, a film of the shop's own, the list as a
// file.
#include "app/stand/scene.hpp"
#include "tests/app/bench.hpp"

using namespace bench;

namespace {

Scene shown(Bench& b, std::optional<std::size_t> layer) {
    View view;
    view.bag_layer = layer;
    const auto& document = b.window.document();
    return scene_of(document.job(), document.findings(), Stage::bag, ink(Light::day), {}, view);
}

/// Angles on the stand: lines of three points that lie level at their ends.
int angles(const Scene& scene) {
    int out = 0;
    for (const auto& line : scene.lines)
        out += line.points.size() == 3 && std::abs(line.points[0].z() - line.points[1].z()) < 1e-9 &&
               std::abs(line.points[2].z() - line.points[1].z()) < 1e-9;
    return out;
}

}  // namespace

TEST_CASE("layers are listed as they are cut, and the chosen one's darts stand on the stand") {
    Bench b;
    b.window.show_stage(Stage::bag);
    b.settle();
    auto* table = b.visible<RecordTable>("bag-layers");
    const auto& layers = b.window.document().findings().bag->layers;
    REQUIRE(table->rowCount() == static_cast<int>(layers.size()));
    REQUIRE(layers.size() == 4);
    CHECK(table->item(0, 0)->text() == "peel ply");
    CHECK(table->item(3, 0)->text() == "bag film");
    CHECK(table->item(3, 2)->text() == "—");
    for (int i = 0; i < 3; ++i) {
        const auto& l = layers[static_cast<std::size_t>(i)];
        CHECK(table->item(i, 2)->text() == QString::number(l.darts.size()));
        CHECK(table->item(i, 0)->toolTip().contains("Covers the face"));
        CHECK(table->item(i, 0)->toolTip().contains("off its roll"));
    }
    // Film stretches less than fleece: more darts.
    REQUIRE(layers[1].name == "perforated film");
    CHECK(layers[1].darts.size() > layers[2].darts.size());
    CHECK(angles(shown(b, {})) == static_cast<int>(layers[1].darts.size()));
    CHECK(angles(shown(b, 2)) == static_cast<int>(layers[2].darts.size()));
    // A click on a row is what the window shows from then on; another stage forgets it.
    CHECK(angles(b.window.stand().scene()) == static_cast<int>(layers[1].darts.size()));
    b.window.slip().ensureWidgetVisible(table);
    QTest::mouseClick(table->viewport(), Qt::LeftButton, {},
                      table->visualItemRect(table->item(2, 0)).center());
    b.settle();
    CHECK(table->currentRow() == 2);
    CHECK(angles(b.window.stand().scene()) ==
          static_cast<int>(b.window.document().findings().bag->layers[2].darts.size()));
    // Without breather its row goes, and a call says what that means.
    b.window.slip().ensureWidgetVisible(b.word("/bag/breather"));
    b.choose("/bag/breather", "with no breather over it");
    CHECK_FALSE(b.window.document().job().bag.breather);
    CHECK(b.visible<RecordTable>("bag-layers")->rowCount() == 3);
    b.fix("no_breather");
    b.settle();
    CHECK(b.visible<RecordTable>("bag-layers")->rowCount() == 4);
}

TEST_CASE("a film of the shop's own is typed, bridges on the stand, and is cut to size again by its call") {
    Bench b;
    b.window.show_stage(Stage::bag);
    b.settle();
    const auto film = b.window.document().findings().bag->film;
    CHECK(b.word("/bag/sheet_length")->text() == "cut to size");
    b.type("/bag/sheet_length", QString("%1 m").arg(film.length, 0, 'f', 4));
    // One side is no sheet yet: nothing has changed, and the other is asked for.
    CHECK(b.window.document().findings().bag->film.length == Approx(film.length));
    CHECK(b.word("/bag/sheet_width")->text() == "a width still to be said");
    b.type("/bag/sheet_width", QString("%1 m").arg(film.width / 1.1 - 0.03, 0, 'f', 4));
    REQUIRE(b.window.document().findings().bag->bridge);
    CHECK(b.visible<QLabel>("call-bridges") != nullptr);
    CHECK_FALSE(b.figure("bridges").isEmpty());
    const auto scene = shown(b, {});
    bool named = false;
    for (const auto& label : scene.labels) named |= label.text.contains("off the face");
    CHECK(named);
    b.fix("bridges");
    b.settle();
    CHECK_FALSE(b.window.document().job().bag.own_sheet());
    CHECK(b.word("/bag/sheet_length")->text() == "cut to size");
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.window.document().job().bag.own_sheet());
}

TEST_CASE("the list of layers leaves as a file and stands on the stage's sheet") {
    Bench b;
    b.window.show_stage(Stage::bag);
    b.settle();
    b.write_out("x-layers", b.file("layers.csv"));
    QFile csv(b.file("layers.csv"));
    REQUIRE(csv.open(QIODevice::ReadOnly));
    const auto text = QString::fromUtf8(csv.readAll());
    CHECK(text.count('\n') == 5);
    CHECK(text.contains("perforated film"));
    // Laid open there is nothing to write.
    for (const auto& what : exports()) {
        if (std::string(what.key) != "x-layers") continue;
        const auto& job = b.window.document().job();
        CHECK(what.why_not(job, b.window.document().findings()).isEmpty());
        b.window.show_stage(Stage::part);
        b.choose("/part/how", "by hand");
        CHECK(what.why_not(b.window.document().job(), b.window.document().findings()).contains("no bag"));
    }
}

TEST_CASE("a squeeze mould's bolts are planned by words, numbered on the stand, and mended by their calls") {
    Bench b;
    b.window.show_stage(Stage::brief);
    b.choose("/brief/process", "a bolted squeeze mould");
    b.window.show_stage(Stage::bag);
    b.settle();
    const auto clamp = [&] { return *b.window.document().findings().bag->clamp; };
    REQUIRE(b.window.document().findings().bag->clamp);
    const auto first = clamp();
    CHECK(b.word("/bag/clamp/torque")->text() == "what that pressure asks for");
    CHECK(b.figure("torque").endsWith("N·m"));
    const auto& scene = b.window.stand().scene();
    std::size_t numbered = 0;
    for (const auto& mark : scene.marks) numbered += mark.caption == QString::number(numbered + 1);
    CHECK(numbered == first.order.size());
    CHECK_FALSE(scene.legend.isEmpty());
    b.choose("/bag/clamp/thread", "dry");
    CHECK(clamp().torque > first.torque);
    CHECK(clamp().pull == Approx(first.pull));
    b.type("/bag/clamp/torque", "0.05 N·m");
    CHECK(clamp().pull < first.pull);
    CHECK(b.visible<QLabel>("call-soft_squeeze") != nullptr);
    b.fix("soft_squeeze");
    b.settle();
    CHECK(clamp().pressed == Approx(b.window.document().job().edge.squeeze));
    // The same word as Edge's: one pressure.
    b.type("/edge/squeeze", "600 mbar");
    CHECK(clamp().pull > first.pull);
    CHECK_THAT(card_line(b.window.document().job(), b.window.document().findings(), Stage::bag, {}),
               Catch::Contains("bolts"));
}

TEST_CASE("of an infused part a chosen layer takes the place of the front, until it is let go") {
    Bench b("radar-dome");
    b.window.show_stage(Stage::bag);
    b.settle();
    CHECK(b.window.stand().scene().legend.contains("resin"));
    auto* table = b.visible<RecordTable>("bag-layers");
    b.window.slip().ensureWidgetVisible(table);
    const auto on = table->visualItemRect(table->item(1, 0)).center();
    QTest::mouseClick(table->viewport(), Qt::LeftButton, {}, on);
    b.settle();
    CHECK(b.window.stand().scene().legend.contains("darts of the perforated film"));
    QTest::mouseClick(table->viewport(), Qt::LeftButton, {}, on);
    b.settle();
    CHECK(b.window.stand().scene().legend.contains("resin"));
    // A layer that is taken away gives the front back as well.
    const auto last = table->visualItemRect(table->item(table->rowCount() - 1, 0)).center();
    QTest::mouseClick(table->viewport(), Qt::LeftButton, {}, last);
    b.settle();
    CHECK_FALSE(b.window.stand().scene().legend.contains("resin after"));
    b.choose("/bag/film", "no film");
    CHECK(b.window.stand().scene().legend.contains("resin after"));
}
