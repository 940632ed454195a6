// The infusion in the window: words, hoses dragged and typed, plans compared, the front and its marks.
#include <QApplication>
#include <QClipboard>
#include <QSlider>

#include "app/print/sheets.hpp"
#include "app/stand/scene.hpp"
#include "core/stages/bag/flow.hpp"
#include "tests/app/bench.hpp"

using namespace bench;

namespace {

Bench& at_bag(Bench& b) {
    b.window.show_stage(Stage::bag);
    b.settle();
    REQUIRE(b.window.document().findings().flow);
    return b;
}

const bag::Infusion& infusion(Bench& b) {
    return b.window.document().job().bag.infusion;
}

const bag::Flow& flow(Bench& b) {
    return *b.window.document().findings().flow;
}

Scene scene(Bench& b, double share) {
    View view;
    view.apart = share;
    return scene_of(b.window.document().job(), b.window.document().findings(), Stage::bag, ink(Light::day),
                    {}, view);
}

/// Into a cell by its keys, as a maker types.
void type_into(Bench& b, RecordTable* table, int row, int column, const QString& text) {
    table->setFocus();
    table->setCurrentCell(row, column);
    QTest::keyClick(table, Qt::Key_F2);
    auto* field = table->findChild<QLineEdit*>();
    REQUIRE(field != nullptr);
    field->selectAll();
    QTest::keyClicks(field, text);
    QTest::keyClick(field, Qt::Key_Return);
    // The cell hands its text over when the event is done.
    QTest::qWait(20);
    b.settle();
}

bool says(const Scene& s, const QString& label) {
    return std::any_of(s.labels.begin(), s.labels.end(),
                       [&](const SceneLabel& l) { return l.text.contains(label); });
}

}  // namespace

TEST_CASE("the dome's hoses, front and figures stand in the Bag stage") {
    Bench b("radar-dome");
    at_bag(b);
    CHECK(b.word("/bag/infusion/plan")->text() == "a ring round the rim");
    const auto first = *flow(b).filling.fill;
    CHECK_FALSE(b.figure("fill").isEmpty());
    auto* hoses = b.visible<RecordTable>("hoses");
    REQUIRE(hoses->rowCount() == 2);
    CHECK(hoses->item(0, 2)->text() == "all round");
    CHECK(hoses->item(0, 3)->text().contains("kg"));
    // The slider takes the front from the rim to the top.
    const auto early = scene(b, 0.2), late = scene(b, 1);
    CHECK(early.legend != late.legend);
    CHECK(late.legend.contains("100 % of the face"));
    CHECK(says(late, "full last"));
    CHECK(says(late, "feed 1"));
    // Without the medium the same ring takes far longer.
    b.choose("/bag/infusion/medium", "without a flow medium");
    CHECK_FALSE(infusion(b).medium);
    CHECK(*flow(b).filling.fill > 3 * first);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    b.settle();
    CHECK(*flow(b).filling.fill == Approx(first).epsilon(0.1));
    // Figures come from the fine mesh when it is done.
    REQUIRE(tried(b.window.document()));
    CHECK(flow(b).fine);
}

TEST_CASE(
    "a vent is dragged over the stand, moved by keys and typed, and each is a step that can be undone") {
    Bench b("radar-dome");
    at_bag(b);
    auto& stand = b.window.stand();
    stand.frame_all();
    // The vent is the second hose; its mark has the number of its first end.
    const auto from = stand.mark_place(2);
    REQUIRE_FALSE(from.isNull());
    drag(stand, from, QPointF(60, 30));
    b.settle();
    REQUIRE(infusion(b).plan == InfusionPlan::own);
    REQUIRE(infusion(b).ports.size() == 2);
    const auto dragged = infusion(b).ports[1];
    CHECK(std::hypot(dragged.along, dragged.across) > 0.05);
    CHECK(b.window.document().undo_name() == "move a hose");
    // The mark is where the mouse left it.
    CHECK(QLineF(stand.mark_place(2), from + QPointF(60, 30)).length() < 25);
    // By keys: chosen, and along by a step.
    stand.setFocus();
    QTest::keyClick(&stand, Qt::Key_N);
    CHECK(stand.accessibleName().contains("Hose 2 is chosen"));
    QTest::keyClick(&stand, Qt::Key_BracketRight);
    b.settle();
    CHECK(infusion(b).ports[1].along > dragged.along + 1e-4);
    CHECK(infusion(b).ports[1].across == Approx(dragged.across).margin(1e-6));
    QTest::keyClick(&stand, Qt::Key_BraceLeft);
    b.settle();
    CHECK(infusion(b).ports[1].across < dragged.across - 1e-4);
    // Typed, in the maker's unit.
    auto* hoses = b.visible<RecordTable>("hoses");
    type_into(b, hoses, 1, 2, "100; -50");
    CHECK(infusion(b).ports[1].along == Approx(0.1));
    CHECK(infusion(b).ports[1].across == Approx(-0.05));
    type_into(b, hoses, 1, 2, "somewhere");
    CHECK(b.message().contains("along; across"));
    CHECK(infusion(b).ports[1].along == Approx(0.1));
    b.key(Qt::Key_Z, Qt::ControlModifier);
    b.settle();
    CHECK(infusion(b).ports[1].along != Approx(0.1));
    for (int i = 0; i < 3; ++i) b.key(Qt::Key_Z, Qt::ControlModifier);
    b.settle();
    CHECK(infusion(b).plan == InfusionPlan::ring);
}

TEST_CASE("a hose is mirrored across the middle by a press, once, and what is its own mirror is refused") {
    Bench b("radar-dome");
    at_bag(b);
    auto* hoses = b.visible<RecordTable>("hoses");
    b.visible<QPushButton>("add-vent")->click();
    b.settle();
    const auto row = hoses->rowCount() - 1;
    type_into(b, hoses, row, 2, "120; 80");
    const auto count = infusion(b).ports.size();
    hoses->setCurrentCell(row, 0);
    b.press("mirror-hose");
    b.settle();
    REQUIRE(infusion(b).ports.size() == count + 1);
    const auto& twin = infusion(b).ports.back();
    CHECK(twin.use == PortUse::vent);
    CHECK(twin.along == Approx(0.12));
    CHECK(twin.across == Approx(-0.08));
    CHECK(flow(b).ports.size() == count + 1);
    // Its mirror is there now, both ways.
    for (const int which : {row, row + 1}) {
        hoses->setCurrentCell(which, 0);
        b.press("mirror-hose");
        CHECK(b.message().contains("there already"));
    }
    CHECK(infusion(b).ports.size() == count + 1);
    // The ring of the rim is its own mirror.
    hoses->setCurrentCell(0, 0);
    b.press("mirror-hose");
    CHECK(b.message().contains("own mirror"));
    b.key(Qt::Key_Z, Qt::ControlModifier);
    b.settle();
    CHECK(infusion(b).ports.size() == count);
}

TEST_CASE("hoses are added, changed and taken away; without a feed a stop says so and nothing is lost") {
    Bench b("radar-dome");
    at_bag(b);
    auto* hoses = b.visible<RecordTable>("hoses");
    b.visible<QPushButton>("add-feed")->click();
    b.settle();
    REQUIRE(infusion(b).ports.size() == 3);
    hoses->item(2, 1)->setText("line");
    b.settle();
    CHECK(infusion(b).ports[2].kind == PortKind::line);
    CHECK(infusion(b).ports[2].to_along > infusion(b).ports[2].along);
    // Side lines to both sides, from the same hose; a plan of them by its word.
    b.choose("/bag/infusion/plan", "a fishbone");
    REQUIRE(flow(b).ports.size() == 2);
    CHECK(flow(b).ports[0].ways.size() == 1 + 2 * static_cast<std::size_t>(infusion(b).lines));
    b.key(Qt::Key_Z, Qt::ControlModifier);
    b.settle();
    REQUIRE(infusion(b).ports.size() == 3);
    hoses->item(2, 1)->setText("fishbone");
    b.settle();
    CHECK(infusion(b).ports[2].bones == 2);
    CHECK(hoses->item(2, 2)->text().endsWith("with 2 of 100"));
    type_into(b, hoses, 2, 2, "-100; 0 to 100; 0 with 3 of 150");
    CHECK(infusion(b).ports[2].bones == 3);
    CHECK(infusion(b).ports[2].reach == Approx(0.15));
    CHECK(flow(b).ports[1].ways.size() == 7);
    type_into(b, hoses, 2, 2, "-100; 0 to 100; 0 with many of 150");
    CHECK(b.message().contains("3 of 200"));
    CHECK(infusion(b).ports[2].bones == 3);
    hoses->item(2, 1)->setText("line");
    b.settle();
    CHECK(infusion(b).ports[2].kind == PortKind::line);
    type_into(b, hoses, 2, 5, "1");
    CHECK(infusion(b).ports[2].opens == PortOpens::clock);
    CHECK(infusion(b).ports[2].at == Approx(60));
    CHECK(*flow(b).filling.feeds[1].opened == Approx(60).epsilon(0.02));
    type_into(b, hoses, 2, 5, "1 to 4");
    CHECK(infusion(b).ports[2].shuts == Approx(240));
    CHECK(hoses->item(2, 5)->text() == "1 to 4");
    type_into(b, hoses, 2, 5, "4 to 1");
    CHECK(b.message().contains("5 to 20"));
    CHECK(infusion(b).ports[2].shuts == Approx(240));
    hoses->item(2, 1)->setText("nowhere");
    b.settle();
    CHECK(b.message().contains("none of"));
    // Both feeds away: the stop stands, the plan of days too, and its fix brings a line back.
    for (int left = 2; left > 0; --left) {
        const int row = left == 2 ? 2 : 0;
        hoses->setFocus();
        hoses->setCurrentCell(row, 0);
        QTest::keyClick(hoses, Qt::Key_Delete);
        b.settle();
    }
    REQUIRE(infusion(b).ports.size() == 1);
    CHECK(b.window.document().findings().flow == nullptr);
    CHECK(b.window.document().findings().run != nullptr);
    CHECK(b.visible<QLabel>("call-hoses") != nullptr);
    b.fix("hoses");
    b.settle();
    CHECK(infusion(b).plan == InfusionPlan::spine);
    CHECK(b.window.document().findings().flow != nullptr);
}

TEST_CASE(
    "plans are compared behind the window and one is taken; marks of the real front correct the figures") {
    Bench b("radar-dome");
    at_bag(b);
    b.visible<QPushButton>("seek-hoses")->click();
    QElapsedTimer clock;
    clock.start();
    while (!b.window.document().findings().layouts && clock.elapsed() < 60000) QTest::qWait(50);
    REQUIRE(b.window.document().findings().layouts);
    QTest::qWait(50);
    auto* plans = b.visible<RecordTable>("plans");
    REQUIRE(plans->rowCount() == 8);
    plans->setCurrentCell(1, 0);
    const auto wanted = b.window.document().findings().layouts->tried[1];
    b.visible<QPushButton>("take-plan")->click();
    b.settle();
    CHECK(infusion(b).plan == wanted.plan);
    CHECK(infusion(b).lines == wanted.lines);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    b.settle();
    CHECK(infusion(b).plan == InfusionPlan::ring);
    // Marks pasted from the bench: place, then minutes.
    auto* fronts = b.visible<RecordTable>("fronts");
    fronts->setFocus();
    QApplication::clipboard()->setText("300; 0\t4\n-300; 0\t4\n0; 300\t4\n");
    QTest::keyClick(fronts, Qt::Key_V, Qt::ControlModifier);
    QTest::qWait(20);
    b.settle();
    REQUIRE(infusion(b).seen.size() == 3);
    CHECK(infusion(b).seen[0].after == Approx(240));
    CHECK(fronts->rowCount() == 3);
    REQUIRE(flow(b).fit);
    CHECK(flow(b).fit->lets < 1);
    CHECK(b.visible<QLabel>("call-fronts_differ") != nullptr);
    const auto before = *flow(b).filling.fill;
    b.fix("fronts_differ");
    b.settle();
    // Followed with it, the marks say the same again.
    CHECK(infusion(b).lets == Approx(flow(b).fit->lets).epsilon(0.03));
    CHECK(*flow(b).filling.fill > before);
    CHECK(says(scene(b, 1), "seen at"));
    // Kept, it is the library's, and the job no longer says it a second time.
    const auto after = *flow(b).filling.fill;
    const double lets = infusion(b).lets;
    const auto cloth = b.window.document().job().part.layers.front().material;
    const double K = need(b.window.document().shop().reinforcements, cloth, "test").K_along;
    // A price that was typed into the list beside the window, and that nobody has read yet.
    auto typed = b.window.document().shop();
    for (auto& r : typed.reinforcements) r.price = r.name == cloth ? 123.0 : r.price;
    QDir().mkpath(own_library());
    write_atomically(write_list(typed, "reinforcements"),
                     (own_library() + "/reinforcements.json").toStdString());
    b.visible<QPushButton>("keep-measured")->click();
    b.settle();
    CHECK(b.window.findChild<QLabel*>("message")->text().contains("measured here"));
    CHECK(need(b.window.document().shop().reinforcements, cloth, "test").price == 123.0);
    CHECK(infusion(b).lets == 1);
    CHECK(*flow(b).filling.fill == Approx(after).epsilon(1e-3));
    const auto own = load_shop(data_folder().toStdString() + "/library", own_library().toStdString());
    CHECK(need(own.reinforcements, cloth, "test").K_along == Approx(lets * K));
    CHECK(need(own.reinforcements, cloth, "test").origin_of("K_along_m2").kind == OriginKind::measured);
    // Once more there is nothing to keep.
    b.visible<QPushButton>("keep-measured")->click();
    CHECK(b.window.findChild<QLabel*>("message")->text().contains("library's own"));
    QFile::remove(own_library() + "/reinforcements.json");
    QFile::remove(own_library() + "/consumables.json");
}

TEST_CASE("pots follow what is mixed at once, and the plies' thickness is shown in place of the front") {
    Bench b("radar-dome");
    at_bag(b);
    auto* pots = b.visible<RecordTable>("pots");
    REQUIRE(pots->rowCount() == 1);
    CHECK(pots->item(0, 0)->text().contains("kg"));
    CHECK(pots->item(0, 2)->text().startsWith("−"));
    b.type("/bag/infusion/pot", "0.6 kg");
    CHECK(infusion(b).pot == Approx(0.6));
    CHECK(pots->rowCount() == static_cast<int>(flow(b).pots.size()));
    CHECK(pots->rowCount() >= 3);
    CHECK(b.visible<QLabel>("call-pots") != nullptr);
    b.fix("pots");
    b.settle();
    CHECK(pots->rowCount() == 1);
    // A thin hose slows it, and the way out is a wider one.
    const auto before = *flow(b).filling.fill;
    b.type("/bag/infusion/bore", "4 mm");
    CHECK(*flow(b).filling.fill > 1.5 * before);
    b.fix("thin_hose");
    b.settle();
    CHECK(infusion(b).bore > 0.006);
    CHECK(flow(b).choked < 0.2 * flow(b).drive);
    // In place of the front, both moments on one scale.
    REQUIRE(flow(b).thickness);
    b.press("show-thickness");
    auto& stand = b.window.stand();
    CHECK(stand.scene().legend.contains("plies thicker"));
    View view;
    view.thickness = true;
    const auto seen = [&](double share) {
        view.apart = share;
        return scene_of(b.window.document().job(), b.window.document().findings(), Stage::bag,
                        ink(Light::day), {}, view);
    };
    CHECK(seen(0).legend.contains("as it is full"));
    CHECK(seen(1).legend.contains("as it gels"));
    CHECK(says(seen(0), "+10 %"));
    CHECK_FALSE(says(seen(1), "+10 %"));
    b.press("show-thickness");
    CHECK(stand.scene().legend.contains("resin after"));
}

TEST_CASE("the real front is marked where the stand shows it, dragged, and fitted with the race of the rim") {
    Bench b("radar-dome");
    at_bag(b);
    auto* slider = b.window.stand().findChild<QSlider*>();
    REQUIRE(slider != nullptr);
    slider->setFocus();
    QTest::keyClick(slider, Qt::Key_Home);
    for (int i = 0; i < 4; ++i) QTest::keyClick(slider, Qt::Key_PageUp);
    b.settle();
    b.press("add-mark");
    REQUIRE(infusion(b).seen.size() == 1);
    const auto first = infusion(b).seen[0];
    CHECK(first.after > 1);
    CHECK(first.after < *flow(b).filling.fill);
    // It lies on the planned front, so nothing differs yet.
    REQUIRE(flow(b).fit);
    CHECK(flow(b).fit->lets == Approx(1).epsilon(0.15));
    auto& stand = b.window.stand();
    stand.frame_all();
    const auto from = stand.mark_place(kSeenMarks);
    REQUIRE_FALSE(from.isNull());
    drag(stand, from, QPointF(25, 10));
    b.settle();
    CHECK(std::hypot(infusion(b).seen[0].along - first.along, infusion(b).seen[0].across - first.across) >
          0.01);
    CHECK(infusion(b).seen[0].after == first.after);
    CHECK(infusion(b).plan == InfusionPlan::ring);
    CHECK(b.window.document().undo_name() == "move a mark of the front");
    // One mark is too few for a race: said, and nothing lost.
    b.visible<QPushButton>("fit-race")->click();
    QElapsedTimer clock;
    clock.start();
    while (!b.message().contains("three marks") && clock.elapsed() < 60000) QTest::qWait(50);
    CHECK(b.message().contains("three marks"));
    CHECK(infusion(b).seen.size() == 1);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    b.settle();
    CHECK(infusion(b).seen.empty());
    // Marks of a rim that races, made from the followed front: 30 times along the rim.
    auto job = b.window.document().job();
    job.bag.infusion.race = 30;
    auto board = b.window.document().board();
    const auto racing =
        board->work_out(board->lay(job, b.window.document().shared_shop()), Depth::stages, quiet).flow;
    REQUIRE(racing);
    const bag::FlowGround ground(*racing->face, racing->frame);
    QString marks;
    const double rim = ground.half().x();
    for (const double r : {0.98, 0.8, 0.55, 0.3, 0.1}) {
        for (const double turn : {0.2, 1.4, 2.9}) {
            const Point2 at = r * rim * Point2(std::cos(turn), std::sin(turn));
            const auto& when = racing->filling.arrival[ground.nearest(at)];
            if (!when || !(*when > 0)) continue;
            marks += QString("%1; %2\t%3 s\n").arg(1000 * at.x()).arg(1000 * at.y()).arg(*when);
        }
    }
    auto* fronts = b.visible<RecordTable>("fronts");
    fronts->setFocus();
    QApplication::clipboard()->setText(marks);
    QTest::keyClick(fronts, Qt::Key_V, Qt::ControlModifier);
    QTest::qWait(20);
    b.settle();
    REQUIRE(infusion(b).seen.size() >= 9);
    b.visible<QPushButton>("fit-race")->click();
    clock.restart();
    // Some twenty fillings behind the window, on a machine that does other work too.
    while (!b.window.document().findings().race && clock.elapsed() < 400000) QTest::qWait(50);
    REQUIRE(b.window.document().findings().race);
    const auto& found = *b.window.document().findings().race;
    CHECK(found.fit.off <= found.off_before);
}

TEST_CASE("hoses and front go out as files for the bench") {
    Bench b("radar-dome");
    at_bag(b);
    b.write_out("x-hoses", b.file("hoses.csv"));
    QFile table(b.file("hoses.csv"));
    REQUIRE(table.open(QIODevice::ReadOnly));
    const auto text = QString::fromUtf8(table.readAll());
    CHECK(text.startsWith("hose,"));
    CHECK(text.contains("vent 1"));
    b.write_out("x-front-dxf", b.file("front.dxf"));
    CHECK(QFile::exists(b.file("front-1.dxf")));
    CHECK(QFile::exists(b.file("front-1.svg")));
    b.write_out("x-front-pdf", b.file("front.pdf"));
    CHECK(text_of_pdf(b.file("front.pdf")).contains("feed 1"));
    SheetOptions options;
    options.only = Stage::bag;
    print_sheets(b.window.document().job(), b.window.document().findings(), b.file("bag.pdf"), options);
    const auto sheet = text_of_pdf(b.file("bag.pdf"));
    CHECK(sheet.contains("Hoses, from the middle of the face"));
    CHECK(sheet.contains("at once"));
    CHECK(sheet.contains("drop test passed"));
}

TEST_CASE("a part that is not infused has no hoses, and its bag's tables stay") {
    Bench b;
    b.window.show_stage(Stage::bag);
    b.settle();
    CHECK(b.window.document().findings().flow == nullptr);
    CHECK_FALSE(b.window.findChild<RecordTable*>("hoses")->isVisible());
    CHECK(b.visible<QPushButton>("add-reading") != nullptr);
    b.window.show_stage(Stage::part);
    b.choose("/part/how", "infused");
    b.window.show_stage(Stage::bag);
    b.settle();
    CHECK(b.window.findChild<RecordTable*>("hoses")->isVisible());
}

TEST_CASE(
    "part and shell are both infused: one word says whose hoses are shown and typed, and both are called") {
    Bench b;
    b.window.show_stage(Stage::shell);
    b.choose("/shell/how", "infused");
    b.choose("/shell/resin", "epoxy, infusion");
    b.window.show_stage(Stage::bag);
    b.settle();
    // Of the shell alone, whatever the part is.
    REQUIRE(b.window.document().findings().flow);
    CHECK(flow(b).of == Infused::shell);
    CHECK(b.figure("shell_fill").size() > 0);
    b.choose("/bag/shell_infusion/plan", "one end of the rim");
    CHECK(b.window.document().job().bag.shell_infusion.plan == InfusionPlan::end);
    CHECK(infusion(b).plan == bag::Infusion{}.plan);
    const auto alone = *flow(b).filling.fill;
    b.window.show_stage(Stage::part);
    b.choose("/part/how", "infused");
    b.window.show_stage(Stage::bag);
    b.settle();
    CHECK(flow(b).of == Infused::part);
    CHECK(b.word("/bag/infusion/plan") != nullptr);
    CHECK(b.figure("shell_fill").size() > 0);
    b.choose("/bag/shows", "the shell on its plug");
    CHECK(flow(b).of == Infused::shell);
    CHECK(*flow(b).filling.fill == Approx(alone));
    // A hose that is added is the shell's; undone, the part is shown again.
    QTest::mouseClick(b.visible<QPushButton>("add-vent"), Qt::LeftButton);
    b.settle();
    type_into(b, b.visible<RecordTable>("hoses"), 2, 2, "50; 20");
    const auto own = b.window.document().job().bag.shell_infusion;
    CHECK(own.plan == InfusionPlan::own);
    REQUIRE(own.ports.size() == 3);
    CHECK(own.ports[2].along == Approx(0.05));
    CHECK(infusion(b).ports.empty());
    b.key(Qt::Key_Z, Qt::ControlModifier);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    b.settle();
    CHECK(flow(b).of == Infused::part);
    // By the palette's act there and back, and over the flange on the stand.
    b.window.findChild<QAction*>("act-other-infusion")->trigger();
    b.settle();
    CHECK(flow(b).of == Infused::shell);
    const auto shell = scene(b, 1);
    CHECK(says(shell, "full last"));
    b.window.findChild<QAction*>("act-other-infusion")->trigger();
    b.settle();
    CHECK(flow(b).of == Infused::part);
    CHECK(scene(b, 1).corners.size() > 0);
}
