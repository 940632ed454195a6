// The part's folds by hand in the window: listed, shown on the part, and said to be opened.
#include "tests/app/bench.hpp"

using namespace bench;

namespace {

int hatched(const Scene& s, Pattern pattern) {
    return static_cast<int>(std::count_if(s.corners.begin(), s.corners.end(), [&](const Corner& c) {
        return static_cast<int>(c.pattern) == static_cast<int>(pattern);
    }));
}

}  // namespace

TEST_CASE("folds are listed with what they close by, and stand on the part when asked for") {
    Bench b;
    b.window.show_stage(Stage::heat);
    b.settle();
    const auto& heat = *b.window.document().findings().heat;
    const auto& folds = *heat.folds.on.folds;
    REQUIRE(folds.size() >= 2);
    auto* table = b.table("folds");
    REQUIRE(table->rowCount() == static_cast<int>(folds.size()));
    for (int row = 0; row < table->rowCount(); ++row) {
        const auto i = static_cast<std::size_t>(row);
        CHECK(table->item(row, 0)->text() == QString::fromStdString(heat.folds.on.where[i]));
        // What is to be built and what it then closes by make up what is drawn.
        const auto build = table->item(row, 3)->text().chopped(1).toDouble();
        const auto closes = degrees(heat.folds.all[i].closes);
        CHECK(build * (1 + closes / degrees(folds[i].turn)) == Approx(degrees(folds[i].turn)).margin(0.006));
        CHECK(table->item(row, 0)->toolTip().contains("along it"));
    }
    CHECK_FALSE(b.window.stand().isVisible());
    b.press("show-folds");
    CHECK(b.window.stand().isVisible());
    CHECK(b.window.document().job().heat.stands == OnStand::folds);
    const auto& scene = b.window.stand().scene();
    CHECK(scene.legend.contains("folds"));
    CHECK(scene.labels.size() >= folds.size());
    CHECK(hatched(scene, Pattern::crosses) == 3 * static_cast<int>(folds[*heat.folds.worst()].faces.size()));
    CHECK(hatched(scene, Pattern::hatch) > 0);
    CHECK(shows_something(b.window.stand().grab().toImage()));
    // Thermocouples again, by a word; undo is one step each.
    b.choose("/heat/stands", "the thermocouples");
    CHECK(b.window.stand().scene().legend.contains("thermocouples"));
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.window.document().job().heat.stands == OnStand::folds);
    CHECK(b.window.stand().scene().legend.contains("folds"));
    // A programme's own button brings them back too.
    b.press("flags-part");
    CHECK(b.window.document().job().heat.stands == OnStand::thermocouples);
}

TEST_CASE("a fold that closes past the tolerance is called, and silent once the drawing is opened for it") {
    Bench b;
    b.window.show_stage(Stage::brief);
    b.type("/brief/tolerance", "0.1 mm");
    b.window.show_stage(Stage::heat);
    b.settle();
    const auto called = [&] {
        const auto& calls = b.window.document().findings().calls;
        return std::any_of(calls.begin(), calls.end(), [](const Call& c) { return c.key == "springs"; });
    };
    CHECK(called());
    b.choose("/heat/opened", "opened in the drawing already");
    CHECK(b.window.document().job().heat.opened);
    CHECK_FALSE(called());
    // It is not opened twice: what is drawn is what is built.
    const auto& folds = *b.window.document().findings().heat->folds.on.folds;
    CHECK(b.cell("folds", 0, 3) == QString::number(degrees(folds[0].turn), 'f', 2) + "°");
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(called());
}
