// What the window keeps and shows between edits.
#include <QProcess>
#include <QTableWidget>

#include "core/job/trial.hpp"
#include "tests/app/bench.hpp"

using namespace bench;

namespace {

/// Runs one of our programs; what it wrote to standard output.
QByteArray said_by(const QString& program, const QStringList& words, int* code = nullptr) {
    QProcess process;
    process.start(program, words);
    REQUIRE(process.waitForFinished(60000));
    if (code != nullptr) *code = process.exitCode();
    return process.readAllStandardOutput();
}

QString folder_of_programs() {
    return QFileInfo(JIG_PROGRAM).absolutePath();
}

}  // namespace

TEST_CASE("what was worked out before an edit is there again the moment it is undone") {
    Bench b;
    auto& document = b.window.document();
    REQUIRE(tried(document));
    const auto before = document.findings();
    b.window.show_stage(Stage::shape);
    b.type("/shape/tray/depth", "150 mm");
    REQUIRE(tried(document));
    CHECK(document.findings().shape != before.shape);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    // Not only equal: the same, the tool on trial with it.
    CHECK(document.findings().shape == before.shape);
    CHECK(document.findings().run == before.run);
    CHECK(document.findings().trial == before.trial);
    CHECK_FALSE(document.findings().trial_is_old);
    CHECK_FALSE(document.trying());
    b.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    CHECK(document.findings().shape != before.shape);
}

TEST_CASE("a job that is opened shows its shape before its figures, an edit does not") {
    Bench b;
    auto& document = b.window.document();
    b.window.show_stage(Stage::shape);
    b.settle();
    int glimpses = 0;
    bool before_figures = false;
    Findings seen;
    QObject::connect(&document, &Document::glimpsed, &b.window, [&](const Findings& f) {
        ++glimpses;
        before_figures = document.stale();
        seen = f;
    });
    b.type("/shape/tray/depth", "150 mm");
    b.settle();
    CHECK(glimpses == 0);
    // A shape that this run has not met yet.
    auto other = document.job();
    other.shape.tray.depth *= 1.01;
    document.start(other, {});
    b.settle();
    CHECK(glimpses == 1);
    CHECK(before_figures);
    REQUIRE(seen.shape);
    CHECK(seen.shape->measures.size == document.findings().shape->measures.size);
    CHECK(seen.calls.empty());
    CHECK_FALSE(seen.split);
    CHECK_FALSE(b.window.stand().scene().corners.empty());
    // One whose shape cannot be made has nothing to show beforehand.
    other.shape.kind = ShapeKind::mesh;
    other.shape.file = "nowhere.stl";
    document.start(other, {});
    b.settle();
    CHECK(glimpses == 1);
}

TEST_CASE("a drag of many steps leaves what was before it within reach of undo") {
    Bench b;
    auto& document = b.window.document();
    const auto before = document.findings().shape;
    const double from = document.job().shape.tray.depth;
    for (int i = 1; i <= 20; ++i) {
        auto job = document.job();
        job.shape.tray.depth = from + 0.001 * i;
        document.drag("deepen", job);
        REQUIRE(document.wait_evaluated(60000));
    }
    document.end_drag();
    b.settle();
    CHECK(document.job().shape.tray.depth == Approx(from + 0.02));
    document.undo();
    b.settle();
    CHECK(document.job().shape.tray.depth == from);
    CHECK(document.findings().shape == before);
    CHECK(document.undo_name().isEmpty());  // the drag was one step
}

TEST_CASE("a tool that cannot stand is said on the slip and on the card, with no older figures") {
    Bench b;
    auto& document = b.window.document();
    b.window.show_stage(Stage::back);
    REQUIRE(tried(document));
    CHECK_FALSE(b.figure("tips").isEmpty());
    document.edit("tubes one way", Json{{"back", {{"kind", "tubes"}, {"across", false}}}});
    REQUIRE(tried(document));
    b.settle();
    CHECK_FALSE(document.findings().trial);
    CHECK(b.figure("tips").isEmpty());
    bool said = false;
    for (const auto* label : b.window.slip().findChildren<QLabel*>())
        said |= label->isVisibleTo(&b.window) && label->text().contains("To mend it");
    CHECK(said);
    bool stop = false;
    for (const auto& c : document.findings().calls)
        stop |= c.stage == Stage::back && c.severity == Severity::stop;
    CHECK(stop);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK_FALSE(b.figure("tips").isEmpty());
}

TEST_CASE("an edit that the tool does not feel keeps its trial, and one that it feels marks it") {
    Bench b;
    auto& document = b.window.document();
    REQUIRE(tried(document));
    const auto trial = document.findings().trial;
    REQUIRE(trial);
    b.window.show_stage(Stage::brief);
    b.type("/brief/pulls", "61");
    CHECK(document.job().brief.pulls == 61);
    CHECK(document.findings().trial == trial);
    CHECK_FALSE(document.findings().trial_is_old);
    // Its sheets are laid out all the same where they are others: nobody waits for a trial that is known.
    REQUIRE(document.findings().plug_sheets);
    const auto sheets = document.findings().plug_sheets;
    document.edit("kerf", Json{{"plug", {{"slabs", {{"kerf", 0.006}}}}}});
    REQUIRE(tried(document));
    CHECK(document.findings().trial == trial);
    REQUIRE(document.findings().plug_sheets);
    CHECK(document.findings().plug_sheets != sheets);
    document.edit("pitch", patch_of("back", "pitch", 0.12));
    REQUIRE(document.wait_evaluated(60000));
    if (document.trying()) {
        CHECK(document.findings().trial == trial);
        CHECK(document.findings().trial_is_old);
    }
    REQUIRE(tried(document));
    CHECK(document.findings().trial != trial);
    CHECK_FALSE(document.findings().trial_is_old);
}

TEST_CASE("another job shows nothing of the last one's tool") {
    Bench b;
    auto& document = b.window.document();
    REQUIRE(tried(document));
    const auto trial = document.findings().trial;
    document.start(load_job((data_folder() + "/demo/radar-dome.json").toStdString()), {});
    REQUIRE(document.wait_evaluated(60000));
    CHECK(document.findings().trial != trial);
    CHECK_FALSE(document.findings().trial_is_old);
    REQUIRE(tried(document));
    REQUIRE(document.findings().trial);
    CHECK(document.findings().trial != trial);
}

TEST_CASE("an export belongs to the job as it is, though its figures are still on their way") {
    Bench b;
    auto& document = b.window.document();
    document.edit("pulls", patch_of("brief", "pulls", 333));
    CHECK(document.stale());
    CHECK(b.write_out("print-a4", b.file("now.pdf")).startsWith("Printed"));
    CHECK(text_of_pdf(b.file("now.pdf")).contains("333"));
}

TEST_CASE("a changed shop renews what reads it and leaves the rest") {
    Bench b;
    auto& document = b.window.document();
    const auto before = document.findings();
    auto shop = document.shop();
    for (auto& r : shop.rates) {
        if (r.name == "labour") r.value *= 2;
    }
    document.set_shop(shop);
    b.settle();
    CHECK(document.findings().shape == before.shape);
    CHECK(document.findings().split == before.split);
    CHECK(document.findings().shell == before.shell);
    CHECK(document.findings().run->ledgers[1].labour == Approx(2 * before.run->ledgers[1].labour));
}

TEST_CASE("check, report, sheets and window say the same of a job") {
    Bench b("radar-dome");
    auto& document = b.window.document();
    REQUIRE(tried(document));
    const auto job = b.file("dome.jigshell");
    document.save(job);
    const auto batch = folder_of_programs() + "/jigshell-batch";
    const auto report =
        Json::parse(said_by(batch, {"report", job, "--pdf", b.file("dome.pdf")}).toStdString());
    auto here = findings_to_json(document.findings());
    CHECK(report["calls"] == here["calls"]);
    for (const char* stage : {"brief", "split", "plug", "edge", "shell", "back", "heat", "part"}) {
        INFO(stage);
        CHECK(report[stage] == here[stage]);
    }
    int code = -1;
    const auto check = Json::parse(said_by(batch, {"check", job}, &code).toStdString());
    CHECK(code == 0);
    CHECK(check["calls"] == here["calls"]);
    const auto text = text_of_pdf(b.file("dome.pdf"));
    CHECK(text.contains(QString::fromStdString(show(Kind::force, document.findings().trial->tips.force))));
}

TEST_CASE("the sheets that the headless command prints know the shop's own lists") {
    Bench b;
    const auto job = b.file("case.jigshell");
    b.window.document().save(job);
    QDir().mkpath(b.file("own"));
    auto shop = b.window.document().shop();
    for (auto& r : shop.rates) {
        if (r.name == "labour") r.value = 99;
    }
    write_atomically(write_list(shop, "rates"), b.file("own/rates.json").toStdString());
    const auto batch = folder_of_programs() + "/jigshell-batch";
    said_by(batch, {"report", job, "--library", b.file("own"), "--pdf", b.file("own.pdf")});
    CHECK(text_of_pdf(b.file("own.pdf")).contains("99 an hour"));
    said_by(batch, {"report", job, "--pdf", b.file("plain.pdf")});
    CHECK_FALSE(text_of_pdf(b.file("plain.pdf")).contains("99 an hour"));
    int code = 0;
    said_by(batch, {"report", job, "--pdf", "/nowhere/at/all.pdf"}, &code);
    CHECK(code == 2);
}
