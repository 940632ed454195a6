// A start that needs no manual: four ways in, files from anywhere, the shop said once, a walk, a handbook.
#include <QClipboard>
#include <QDropEvent>
#include <QMimeData>
#include <QProcess>
#include <QSettings>
#include <QTextBrowser>

#include "app/window/handbook.hpp"
#include "app/window/settings.hpp"
#include "app/window/walk.hpp"
#include "core/science/mesh/stl.hpp"
#include "tests/app/bench.hpp"
#include "tests/shapes.hpp"

using namespace bench;

namespace {

QAbstractButton* start_button(Bench& b, const QString& key) {
    for (auto* button : b.window.findChildren<QAbstractButton*>()) {
        if (button->property("start").toString() == key && button->isVisibleTo(&b.window)) return button;
    }
    FAIL("nothing on the start is " << key.toStdString());
    return nullptr;
}

void drop_on(MainWindow& window, const QStringList& files) {
    QMimeData mime;
    QList<QUrl> urls;
    for (const auto& f : files) urls << QUrl::fromLocalFile(f);
    mime.setUrls(urls);
    QDragEnterEvent enter({200, 200}, Qt::CopyAction, &mime, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&window, &enter);
    CHECK(enter.isAccepted());
    QDropEvent drop({200, 200}, Qt::CopyAction, &mime, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&window, &drop);
}

QString cone(Bench& b) {
    const auto file = b.file("cone.stl");
    write_atomically(write_stl_binary(shapes::frustum(0.3, 0.2, radians(5), 90)), file.toStdString());
    return file;
}

}  // namespace

TEST_CASE("the start shows four ways in, and a card or a key leads to the bench") {
    Bench b;
    b.window.show_start();
    CHECK(b.window.is_at_start());
    for (const char* key : {"own", "drawn", "copy", "demo"}) {
        auto* card = start_button(b, key);
        CHECK(card->height() >= 24);
        CHECK(card->mapTo(&b.window, QPoint(0, card->height())).y() < b.window.height());
    }
    auto* drawn = start_button(b, "drawn");
    drawn->setFocus();
    QTest::keyClick(drawn, Qt::Key_Space);
    b.settle();
    CHECK_FALSE(b.window.is_at_start());
    CHECK(b.window.stage() == Stage::shape);
    CHECK(b.window.document().job().shape.kind == ShapeKind::tray);
    b.window.show_start();
    QTest::mouseClick(start_button(b, "copy"), Qt::LeftButton);
    b.settle();
    CHECK(b.window.document().job().shape.kind == ShapeKind::copied);
    CHECK(b.window.document().job().plug.route == Route::existing);
    b.window.show_start();
    QTest::mouseClick(start_button(b, "radar-dome"), Qt::LeftButton);
    b.settle();
    CHECK(b.window.document().job().brief.job == "Weather-radar dome");
    CHECK(b.window.document().path().isEmpty());
}

TEST_CASE("a key to a stage leads from the start to the bench, with figures") {
    MainWindow window(load_shop(data_folder().toStdString() + "/library"), {});
    window.show_start();
    window.show();
    REQUIRE(QTest::qWaitForWindowExposed(&window));
    QApplication::setActiveWindow(&window);
    QTest::keyClick(&window, Qt::Key_2, Qt::ControlModifier);
    CHECK_FALSE(window.is_at_start());
    CHECK(window.stage() == Stage::shape);
    REQUIRE(window.document().wait_evaluated(60000));
    CHECK(window.document().findings().shape);
    CHECK_FALSE(window.document().unsaved());
}

TEST_CASE("a new job has no stop") {
    Bench b;
    b.window.start_job(fresh_job());
    b.settle();
    REQUIRE(tried(b.window.document()));
    for (const auto& call : b.window.document().findings().calls) {
        INFO(call.headline);
        CHECK(call.severity != Severity::stop);
    }
}

TEST_CASE("what the shop has is said once and stands in every new job") {
    Bench b;
    b.window.show_start();
    auto* start = b.window.findChild<StartSheet*>();
    QToolButton* people = nullptr;
    for (auto* word : start->findChildren<QToolButton*>("word")) {
        if (word->property("path") == "/brief/people") people = word;
    }
    REQUIRE(people != nullptr);
    QTest::mouseClick(people, Qt::LeftButton);
    auto* field = b.editor()->findChild<QLineEdit*>("field");
    field->selectAll();
    QTest::keyClicks(field, "5");
    QTest::keyClick(field, Qt::Key_Return);
    QTest::qWait(20);
    CHECK(people->text() == "5");
    CHECK(fresh_job().brief.people == 5);
    QTest::mouseClick(start_button(b, "drawn"), Qt::LeftButton);
    CHECK(b.window.document().job().brief.people == 5);
    // A demo is as it was planned.
    b.window.show_start();
    QTest::mouseClick(start_button(b, "demo"), Qt::LeftButton);
    CHECK(b.window.document().job().brief.people == 2);
    QSettings().remove("shop");
    CHECK(fresh_job() == Job{});
}

TEST_CASE("a file dropped anywhere finds its place, several are asked for, strange ones are said") {
    Bench b;
    const auto mesh = cone(b), job = b.file("other.jigshell");
    auto other = b.window.document().job();
    other.brief.job = "Other";
    save_job(other, job.toStdString());
    b.window.show_start();
    drop_on(b.window, {mesh});
    REQUIRE(b.home());
    b.settle();
    CHECK_FALSE(b.window.is_at_start());
    CHECK(b.window.document().job().shape.kind == ShapeKind::mesh);
    CHECK(b.window.document().job().brief.job == Job{}.brief.job);
    b.window.start_job(Job{});
    drop_on(b.window, {mesh, job});
    auto* palette = b.window.findChild<Palette*>();
    REQUIRE(palette != nullptr);
    auto* field = palette->findChild<QLineEdit*>("palette-field");
    QTest::keyClicks(field, "other");
    QTest::keyClick(field, Qt::Key_Return);
    b.settle();
    CHECK(b.window.document().job().brief.job == "Other");
    const auto before = b.window.document().job();
    drop_on(b.window, {b.file("picture.png")});
    CHECK(b.message().contains("not known here"));
    CHECK(b.window.document().job() == before);
}

TEST_CASE("jobs that were saved or opened are offered again, gone ones are not") {
    Bench b;
    QSettings().remove("recent");
    REQUIRE(b.window.save_job(b.file("first.jigshell")));
    REQUIRE(b.window.save_job(b.file("second.jigshell")));
    CHECK(recent_jobs() == QStringList{b.file("second.jigshell"), b.file("first.jigshell")});
    CHECK(last_folder() == b.folder.path());
    QFile::remove(b.file("second.jigshell"));
    b.window.show_start();
    QTest::mouseClick(start_button(b, "recent"), Qt::LeftButton);
    b.settle();
    CHECK(b.window.document().path() == b.file("first.jigshell"));
}

TEST_CASE("a shape named on the command line is a new job, and a bad name is said in the window") {
    Bench b;
    const auto mesh = cone(b);
    for (const auto& named : {mesh, b.file("nowhere.stl")}) {
        QProcess program;
        program.start(JIG_PROGRAM, {named, "--shot", b.file("named.png")});
        REQUIRE(program.waitForFinished(60000));
        CHECK(program.exitCode() == 0);
        CHECK(shows_something(QImage(b.file("named.png"))));
    }
}

TEST_CASE("a typo in the shop's own list starts on the shipped one") {
    Bench b;
    QDir().mkpath(b.file("own"));
    write_atomically("{\"list\": \"rates\",\n \"entries\": [\n  {]\n",
                     b.file("own/rates.json").toStdString());
    std::vector<InputError> left_out;
    const auto shop =
        load_shop(data_folder().toStdString() + "/library", b.file("own").toStdString(), &left_out);
    REQUIRE(left_out.size() == 1);
    CHECK(left_out.front().where().find("rates.json line 3") != std::string::npos);
    CHECK(shop.rates == b.window.document().shop().rates);
    CHECK_THROWS_AS(load_shop(data_folder().toStdString() + "/library", b.file("own").toStdString()),
                    InputError);
    QProcess program;
    program.start(JIG_PROGRAM,
                  {"--demo", "cello-case", "--library", b.file("own"), "--shot", b.file("own.png")});
    REQUIRE(program.waitForFinished(60000));
    CHECK(program.exitCode() == 0);
}

TEST_CASE("the first walk stands beside real controls and can be left and taken again") {
    Bench b;
    b.window.begin_walk();
    auto* walk = b.window.findChild<Walk*>();
    REQUIRE(walk != nullptr);
    std::set<QString> notes;
    for (int i = 0; i < 10; ++i) {
        QTest::qWait(30);
        notes.insert(walk->findChild<QLabel*>("walk-text")->text());
        CHECK(b.window.rect().contains(walk->geometry()));
        QTest::keyClick(walk->findChild<QPushButton*>("walk-next"), Qt::Key_Space);
        b.settle();
    }
    CHECK(notes.size() == 10);
    QTest::qWait(20);
    CHECK(b.window.findChild<Walk*>() == nullptr);
    b.window.begin_walk();
    QTest::qWait(20);
    QTest::mouseClick(b.visible<QPushButton>("walk-leave"), Qt::LeftButton);
    QTest::qWait(20);
    CHECK(b.window.findChild<Walk*>() == nullptr);
}

TEST_CASE("the handbook stays, is searched, and lists every key that works") {
    Bench b;
    b.window.show_stage(Stage::bag);
    b.key(Qt::Key_F1, Qt::NoModifier);
    auto* handbook = b.window.findChild<Handbook*>();
    REQUIRE(handbook != nullptr);
    auto* page = handbook->findChild<QTextBrowser*>("handbook-page");
    CHECK(page->toPlainText().startsWith("Bag"));
    b.window.show_stage(Stage::heat);
    b.key(Qt::Key_F1, Qt::NoModifier);
    CHECK(b.window.findChildren<Handbook*>().size() == 1);
    CHECK(page->toPlainText().startsWith("Heat"));
    // The worked example is a table of the demo's figures, and nothing of what is said to the tests.
    CHECK(page->toPlainText().contains("An example"));
    CHECK(page->toPlainText().contains("part against drawing"));
    CHECK_FALSE(page->toPlainText().contains("figures cello"));
    auto* field = handbook->findChild<QLineEdit*>("handbook-search");
    QTest::keyClicks(field, "drop test");
    auto* list = handbook->findChild<QListWidget*>("handbook-contents");
    REQUIRE(list->count() > 0);
    list->setCurrentRow(0);
    CHECK(page->toPlainText().contains("drop test", Qt::CaseInsensitive));
    // The page of keys is made from the window's own list.
    b.key(Qt::Key_F1, Qt::ShiftModifier);
    const auto keys = page->toPlainText();
    for (auto* action : b.window.findChildren<QAction*>()) {
        for (const auto& key : action->shortcuts()) {
            INFO(action->text().toStdString());
            CHECK(keys.contains(key.toString(QKeySequence::NativeText)));
        }
    }
    for (const auto& own : own_keys()) CHECK(keys.contains(own.does));
    QTest::keyClick(handbook, Qt::Key_Escape);
    CHECK_FALSE(handbook->isVisible());
    // Every stage has its page, and the words of the trade theirs.
    for (std::size_t s = 0; s < kStages.size(); ++s)
        CHECK(QFile::exists(handbook_folder() + "/" + kStages[s].key + ".md"));
    for (const char* word :
         {"plug", "flange", "draft", "gelcoat", "peel ply", "breather", "post-cure", "spring-in"}) {
        QFile glossary(handbook_folder() + "/glossary.md");
        REQUIRE(glossary.open(QIODevice::ReadOnly));
        CHECK(QString::fromUtf8(glossary.readAll()).contains(QString("**%1**").arg(word)));
    }
}
