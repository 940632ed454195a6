// Calls stand first, worst first, and lead to what causes them.
#include "tests/app/bench.hpp"

using namespace bench;

namespace {

QRect on_slip(Slip& slip, QWidget* w) {
    return {w->mapTo(slip.viewport(), QPoint(0, 0)), w->size()};
}

}  // namespace

TEST_CASE("on every demo and stage each caution and stop is seen without scrolling") {
    for (const char* demo : {"cello-case", "radar-dome", "pavilion-petal", "cello-case-whole"}) {
        Bench b(demo);
        REQUIRE(b.window.document().wait_tried(120000));
        for (std::size_t s = 0; s < kStages.size(); ++s) {
            const auto stage = static_cast<Stage>(s);
            b.window.show_stage(stage);
            QTest::qWait(30);
            auto& slip = b.window.slip();
            int last = -1;
            auto worst = Severity::stop;
            for (const auto& call : b.window.document().findings().calls) {
                if (call.stage != stage || call.severity == Severity::note) continue;
                INFO(demo << " " << kStages[s].key << " " << call.key);
                auto* line = b.visible<QLabel>("call-" + QString::fromStdString(call.key));
                CHECK(slip.viewport()->rect().contains(on_slip(slip, line)));
            }
            // Worst first.
            for (auto* row : slip.findChildren<CallRow*>()) {
                if (!row->isVisibleTo(&b.window)) continue;
                const auto& calls = b.window.document().findings().calls;
                const auto call = std::find_if(calls.begin(), calls.end(), [&](const Call& c) {
                    return c.stage == stage && QString::fromStdString(c.key) == row->key();
                });
                REQUIRE(call != calls.end());
                const int top = on_slip(slip, row).top();
                if (top > last) CHECK(call->severity <= worst);
                last = top;
                worst = call->severity;
            }
        }
    }
}

TEST_CASE("a stage that nothing speaks against says so in one line") {
    Bench b;
    b.window.show_stage(Stage::brief);
    auto job = b.window.document().job();
    job.brief.grade = Grade::structural;
    b.window.document().replace("a plain part", job);
    b.settle();
    b.window.show_stage(Stage::brief);
    CHECK_THAT(b.visible<QLabel>("no-calls")->text().toStdString(), Catch::Contains("Nothing"));
}

TEST_CASE("a call opens and shuts by mouse and keys, says so, and stays as it was left") {
    Bench b;
    b.window.show_stage(Stage::edge);
    b.type("/edge/tape_land", "15");
    b.type("/edge/trim", "2");
    b.settle();
    // The stop is worst and open, the caution is a line.
    auto* stop = b.call_row("tape_land");
    auto* caution = b.call_row("trim");
    CHECK(stop->is_open());
    CHECK_FALSE(caution->is_open());
    CHECK_THAT(caution->accessibleName().toStdString(), Catch::StartsWith("caution: "));
    QTest::mouseClick(b.visible<QLabel>("call-trim"), Qt::LeftButton);
    CHECK(caution->is_open());
    CHECK(caution->hasFocus());
    QTest::keyClick(caution, Qt::Key_Return);
    CHECK_FALSE(caution->is_open());
    QTest::keyClick(caution, Qt::Key_Space);
    CHECK(caution->is_open());
    // It is still open when new findings come, and when the stage is shown again.
    b.type("/edge/grip", "30");
    CHECK(b.call_row("trim")->is_open());
    b.window.show_stage(Stage::brief);
    b.window.show_stage(Stage::edge);
    CHECK(b.call_row("trim")->is_open());
    b.fix("tape_land");
    b.settle();
    CHECK(b.window.document().job().edge.tape_land == Approx(0.03));
}

TEST_CASE("show it opens the word that causes a call, in its own stage") {
    Bench b;
    b.window.show_stage(Stage::edge);
    b.type("/edge/trim", "2");
    QTest::mouseClick(b.visible<QPushButton>("show-trim"), Qt::LeftButton);
    CHECK(b.editor()->findChild<QLineEdit*>("field")->text() == "2");
    QTest::keyClick(b.editor()->findChild<QLineEdit*>("field"), Qt::Key_Escape);
    // Two parts too close: judged in Edge, chosen in Split.
    auto job = b.window.document().job();
    job.split.together = Together::several;
    job.split.parts = 2;
    job.split.between = 0.001;
    job.edge.trim = 0.015;
    b.window.document().replace("two parts", job);
    b.settle();
    if (!b.call_row("between")->is_open())
        QTest::mouseClick(b.visible<QLabel>("call-between"), Qt::LeftButton);
    QTest::mouseClick(b.visible<QPushButton>("show-between"), Qt::LeftButton);
    CHECK(b.window.slip().stage() == Stage::split);
    CHECK(b.editor()->findChild<QLineEdit*>("field")->text() == "1");
}

TEST_CASE("a fix that sets several choices has no one word to show") {
    CHECK(word_of({"one", patch_of("edge", "trim", 0.015)}) == "/edge/trim");
    CHECK(word_of({"deep", Json{{"part", {{"joint", {{"gap", 0.0005}}}}}}}) == "/part/joint/gap");
    CHECK(word_of({"two", Json{{"back", {{"across", true}, {"along", true}}}}}).isEmpty());
    CHECK(word_of({"none", Json::object()}).isEmpty());
}
