// Release in the window: words of each face, the gate, coats noted by a button, loose pieces, the stand's
// state.
#include <QComboBox>
#include <QDateTime>

#include "app/print/sheets.hpp"
#include "tests/app/bench.hpp"

using namespace bench;

namespace {

std::vector<QString> gates(Bench& b) {
    std::vector<QString> out;
    for (auto* label : b.window.slip().findChildren<QLabel*>("gate")) {
        if (label->isVisibleTo(&b.window)) out.push_back(label->text());
    }
    return out;
}

QPushButton* note_for(Bench& b, const QString& face) {
    for (auto* row : b.window.slip().findChildren<QWidget*>("gate-row")) {
        auto* head = row->findChild<QLabel*>("gate");
        auto* button = row->findChild<QPushButton*>("note-coat");
        if (row->isVisibleTo(&b.window) && head->text().contains(">" + face + "<") &&
            button->isVisibleTo(&b.window))
            return button;
    }
    return nullptr;
}

}  // namespace

TEST_CASE("the gate stands in Release and in Log, face by face, and notes the next coat at a click") {
    Bench b;
    auto& document = b.window.document();
    auto job = document.job();
    job.log.entries.clear();
    document.replace("an empty log", std::move(job));
    b.window.show_stage(Stage::release);
    b.settle();
    auto said = gates(b);
    REQUIRE(said.size() == 2);
    CHECK(said[0].contains("plug"));
    CHECK(said[1].contains("mould"));
    CHECK(said[1].contains("bare"));
    CHECK(said[1].contains("no go"));
    auto* note = note_for(b, "mould");
    REQUIRE(note != nullptr);
    CHECK(note->text() == "Note sealer, coat 1 of 2, along");
    QTest::mouseClick(note, Qt::LeftButton);
    b.settle();
    const auto entries = document.job().log.entries;
    REQUIRE(entries.size() == 1);
    CHECK(entries[0].kind == EntryKind::coat);
    CHECK(entries[0].face == "mould");
    CHECK(entries[0].product == "sealer");
    CHECK(entries[0].way == CoatWay::along);
    const auto when = read_moment(entries[0].date);
    REQUIRE(when);
    CHECK(when->timed);
    CHECK(std::abs(when->at - static_cast<double>(QDateTime::currentSecsSinceEpoch())) < 120);
    CHECK(gates(b)[1].contains("1 of 6 coats on"));
    note = note_for(b, "mould");
    REQUIRE(note != nullptr);
    CHECK(note->text() == "Note sealer, coat 2 of 2, across");
    CHECK(QString::fromStdString(
              card_line(document.job(), document.findings(), Stage::release, b.window.wording()))
              .contains("1 of 6 coats on"));
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(document.job().log.entries.empty());
    b.window.show_stage(Stage::log);
    b.settle();
    CHECK(gates(b).size() == 2);
    CHECK(gates(b)[1].contains("bare"));
}

TEST_CASE("each face has its own words, and a wrong pair is said with its way out") {
    Bench b;
    b.window.show_stage(Stage::release);
    b.settle();
    b.choose("/release/mould/history", "waxed before");
    auto found = false;
    for (const auto& c : b.window.document().findings().calls) found = found || c.key == "history_mould";
    CHECK(found);
    b.choose("/release/mould/history", "new");
    b.choose("/release/plug/system", "wax and PVA film");
    for (const auto& face : b.window.document().findings().release->faces)
        CHECK(face.system.name == (face.of == release::FaceOf::plug ? "wax and PVA film" : "semi-permanent"));
    b.choose("/release/plug/system", "the same");
    CHECK(b.window.document().job().release.plug.system.empty());
}

TEST_CASE("a loose piece is added, typed and becomes a face with a gate") {
    Bench b;
    b.window.show_stage(Stage::release);
    b.settle();
    QTest::mouseClick(b.visible<QPushButton>("add-loose"), Qt::LeftButton);
    b.settle();
    CHECK(gates(b).size() == 3);
    auto* table = b.visible<RecordTable>("loose-faces");
    REQUIRE(table->rowCount() == 1);
    table->setCurrentCell(0, 0);
    table->editItem(table->item(0, 0));
    auto* field = table->findChild<QLineEdit*>();
    REQUIRE(field != nullptr);
    field->selectAll();
    QTest::keyClicks(field, "handle core");
    QTest::keyClick(field, Qt::Key_Return);
    QTest::qWait(20);  // the editor closes first
    b.settle();
    CHECK(b.window.document().job().release.loose[0].name == "handle core");
    CHECK(gates(b)[2].contains("handle core"));
    CHECK(note_for(b, "handle core") != nullptr);
}

TEST_CASE("the log's table takes times, faces and ways, and what is wrong stays unsaid in the job") {
    Bench b;
    b.window.show_stage(Stage::log);
    b.settle();
    auto* table = b.visible<RecordTable>("log");
    const auto last = table->rowCount() - 1;
    const auto set = [&](int column, const QString& text) {
        table->item(last, column)->setText(text);
        b.settle();
    };
    set(1, "2026-05-31 14:30");
    const auto when = read_moment(b.window.document().job().log.entries.back().date);
    REQUIRE(when);
    CHECK(when->at == read_moment("2026-05-31T14:30")->at);
    CHECK(table->item(last, 1)->text() == "2026-05-31 14:30");
    set(1, "2026-02-30 14:30");
    CHECK(b.message().contains("no date"));
    CHECK(read_moment(b.window.document().job().log.entries.back().date)->at == when->at);
    set(5, "mould");
    CHECK(b.window.document().job().log.entries.back().face == "mould");
    set(5, "roof");
    CHECK(b.message().contains("none of the faces"));
    CHECK(b.window.document().job().log.entries.back().face == "mould");
    set(8, "bench 3");
    CHECK(b.window.document().job().log.entries.back().who == "bench 3");
}

TEST_CASE("the release sheet has a clock for each face, with its ways and room to sign") {
    Bench b;
    b.settle();
    SheetOptions options;
    options.only = Stage::release;
    print_sheets(b.window.document().job(), b.window.document().findings(), b.file("r.pdf"), options);
    const auto text = text_of_pdf(b.file("r.pdf"));
    CHECK(text.contains("Release clock of plug: semi-permanent"));
    CHECK(text.contains("Release clock of mould: semi-permanent"));
    CHECK(text.contains("across"));
    CHECK(text.contains("signed"));
}

TEST_CASE("the stand shows which way each coat of the plan is laid, each coat once") {
    Bench b;
    b.window.show_stage(Stage::release);
    b.settle();
    const auto said = [&] {
        QStringList out;
        for (const auto& label : b.window.stand().scene().labels) {
            if (label.text.startsWith("coat")) out << label.text;
        }
        out.sort();
        return out;
    };
    const auto plan = b.window.document().findings().release->plan;
    int coats = 0;
    for (const auto& text : said()) coats += static_cast<int>(text.count(',')) + 1;
    CHECK(coats == static_cast<int>(plan.size()));
    CHECK(b.window.stand().scene().legend.contains("which way each coat"));
    // Of wax each coat turns by a right angle, then by half of one.
    b.choose("/release/system", "paste wax");
    CHECK(said().join("; ").toStdString() == "coat 1; coat 2; coat 3; coat 4");
}
