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
        REQUIRE(tried(b.window.document()));
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

TEST_CASE("a fix of many words goes on in the next line, and the slip stays as wide as it is") {
    for (const double size : {1.0, 1.5}) {
        Bench b("radar-dome");
        b.window.set_text(size);
        b.window.show_stage(Stage::bag);
        b.window.document().edit("round the tool", {{"bag", {{"way", "envelope"}}},
                                                    {"back", {{"kind", "egg_crate"}, {"bag", "envelope"}}}});
        b.settle();
        auto* fix = b.visible<QPushButton>("fix-drawn_in");
        auto* show = b.visible<QPushButton>("show-drawn_in");
        QTest::qWait(30);
        const auto room = b.window.slip().viewport()->rect();
        INFO(size << " " << fix->text().toStdString());
        for (auto* button : {fix, show}) {
            const QRect at(button->mapTo(b.window.slip().viewport(), QPoint()), button->size());
            CHECK(at.left() >= room.left());
            CHECK(at.right() <= room.right());
        }
        const auto words = fix->fontMetrics().boundingRect(QRect(0, 0, fix->width() - 22, 10000),
                                                           Qt::AlignCenter | Qt::TextWordWrap, fix->text());
        CHECK(words.height() <= fix->height());
        CHECK_FALSE(fix->geometry().intersects(show->geometry()));
        QTest::mouseClick(fix, Qt::LeftButton);
        b.settle();
        CHECK(b.window.document().job().bag.way == BagWay::surface);
    }
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

TEST_CASE("the figures that matter most stand large under the verdict, and each opens its reasoning") {
    Bench b;
    REQUIRE(tried(b.window.document()));
    for (std::size_t s = 0; s < kStages.size(); ++s) {
        const auto stage = static_cast<Stage>(s);
        b.window.show_stage(stage);
        QTest::qWait(30);
        auto& slip = b.window.slip();
        const auto& figures = b.window.document().findings().figures(stage);
        int large = 0;
        for (const auto& f : figures) {
            INFO(kStages[s].key << " " << f.key);
            auto* row = b.visible<FigureRow>("figure-row-" + QString::fromStdString(f.key));
            if (row->width() < slip.width() / 2 && slip.viewport()->rect().contains(on_slip(slip, row)))
                ++large;
            CHECK(row->height() >= 24);
            CHECK_FALSE(row->is_open());
        }
        CHECK(large >= 2);
        CHECK(large <= 3);
    }
    b.window.show_stage(Stage::shell);
    QTest::qWait(20);
    auto* row = b.visible<FigureRow>("figure-row-mass");
    row->setFocus();
    QTest::keyClick(row, Qt::Key_Return);
    auto* reason = b.visible<QLabel>("reason-mass");
    const auto& figures = b.window.document().findings().figures(Stage::shell);
    const auto mass =
        std::find_if(figures.begin(), figures.end(), [](const Figure& f) { return f.key == "mass"; });
    CHECK(reason->text().contains(QString::fromStdString(worded(mass->reason, {})).toHtmlEscaped()));
    CHECK(reason->textInteractionFlags().testFlag(Qt::TextSelectableByKeyboard));
    CHECK(row->accessibleName().contains("open"));
    // It stays open while newer figures come.
    b.window.document().edit("deeper", Json{{"shape", {{"tray", {{"depth", 0.15}}}}}});
    b.window.document().edit("set pulls", patch_of("brief", "pulls", 61));
    b.settle();
    CHECK(b.visible<FigureRow>("figure-row-mass")->is_open());
    QTest::mouseClick(b.visible<FigureRow>("figure-row-mass"), Qt::LeftButton);
    CHECK_FALSE(b.visible<FigureRow>("figure-row-mass")->is_open());
}

TEST_CASE("the head lists all calls, worst first, and a key goes to one") {
    Bench b("radar-dome");
    REQUIRE(tried(b.window.document()));
    b.window.show_stage(Stage::brief);
    b.key(Qt::Key_F8, Qt::NoModifier);
    auto* palette = b.window.findChild<Palette*>();
    REQUIRE(palette != nullptr);
    auto* list = palette->findChild<QListWidget*>("palette-list");
    const auto& calls = b.window.document().findings().calls;
    REQUIRE(list->count() == static_cast<int>(calls.size()));
    const auto rank = [](const QString& text) {
        return text.contains("· stop of") ? 2 : text.contains("· caution of") ? 1 : 0;
    };
    for (int i = 1; i < list->count(); ++i)
        CHECK(rank(list->item(i)->text()) <= rank(list->item(i - 1)->text()));
    const auto first = list->item(0)->text();
    QTest::keyClick(palette->findChild<QLineEdit*>("palette-field"), Qt::Key_Return);
    QTest::qWait(30);
    auto* row = qobject_cast<CallRow*>(QApplication::focusWidget());
    REQUIRE(row != nullptr);
    CHECK(row->is_open());
    CHECK(first.contains(row->accessibleName().section(": ", 1).section("; its reason", 0, 0)));
}

TEST_CASE("a stage is settled by key and by click, and opens again when its figures change") {
    Bench b;
    auto& document = b.window.document();
    REQUIRE(tried(document));
    auto& card = b.window.job_card();
    b.window.show_stage(Stage::shell);
    CHECK(card.mark_of(Stage::shell) == "looked at");
    CHECK(card.mark_of(Stage::bag) == "not looked at");
    card.setFocus();
    QTest::keyClick(&card, Qt::Key_Space);
    CHECK(card.mark_of(Stage::shell) == "settled");
    CHECK(card.accessibleName().contains("settled"));
    CHECK(document.unsaved());
    REQUIRE(b.window.save_job(b.file("settled.jigshell")));
    CHECK_FALSE(document.unsaved());
    // The first click goes there, one on the mark of where one is settles it.
    const auto mark = card.row(Stage::bag).topLeft() + QPoint(16, 20);
    QTest::mouseClick(&card, Qt::LeftButton, {}, mark);
    CHECK(card.mark_of(Stage::bag) == "looked at");
    QTest::mouseClick(&card, Qt::LeftButton, {}, mark);
    CHECK(card.mark_of(Stage::bag) == "settled");
    // What leaves its figures as they are leaves the tick; what changes them opens it.
    b.window.show_stage(Stage::brief);
    b.type("/brief/customer", "The quay's orchestra");
    REQUIRE(tried(document));
    CHECK(document.settled().count(Stage::shell) == 1);
    document.edit("deeper", Json{{"shape", {{"tray", {{"depth", 0.15}}}}}});
    REQUIRE(tried(document));
    CHECK(document.settled().count(Stage::shell) == 0);
    // The file keeps the tick.
    REQUIRE(b.window.open_job(b.file("settled.jigshell")));
    b.settle();
    CHECK(document.settled().count(Stage::shell) == 1);
    CHECK(document.settled().count(Stage::bag) == 0);
}

TEST_CASE("cautions that have been read fold to a line that opens again") {
    Bench b;
    b.window.show_stage(Stage::shell);
    b.settle();
    auto* done = b.visible<QPushButton>("have-read");
    b.window.slip().ensureWidgetVisible(done);
    QTest::mouseClick(done, Qt::LeftButton);
    CHECK(b.visible<QPushButton>("take-care")->text().contains("read"));
    b.window.show_stage(Stage::part);
    b.window.show_stage(Stage::shell);
    auto* title = b.visible<QPushButton>("take-care");
    CHECK(title->text().contains("read"));
    QTest::mouseClick(title, Qt::LeftButton);
    bool deferral = false;
    for (const auto* label : b.window.slip().findChildren<QLabel*>())
        deferral |= label->isVisibleTo(&b.window) && label->text().contains("data sheet");
    CHECK(deferral);
}
