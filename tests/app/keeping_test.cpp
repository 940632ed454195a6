// Nothing lost: what is kept of unsaved work, who has a file, and what is asked before something goes.
#include <csignal>
#include <filesystem>
#include <QDir>
#include <QFile>
#include <QMessageBox>
#include <QTimer>

#include "app/window/application.hpp"
#include "core/science/mesh/stl.hpp"
#include "tests/app/bench.hpp"
#include "tests/shapes.hpp"

using namespace bench;

namespace {

/// Presses a button of the next message box; the box's text is put into `said`.
void answer(const QString& button, QString* said = nullptr) {
    QTimer::singleShot(50, qApp, [button, said] {
        auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
        if (box == nullptr) return;
        if (said != nullptr) *said = box->text() + " " + box->informativeText();
        for (auto* b : box->buttons()) {
            if (b->text() == button) return QTest::mouseClick(b, Qt::LeftButton);
        }
        box->reject();
    });
}

QStringList kept_in(const QString& folder) {
    return QDir(folder).entryList({"*.jigshell"}, QDir::Files);
}

/// Kept work of a program that is gone: in `folder`, of the demo with so many pulls.
Leftover leave_behind(const QString& folder, int pulls, const QString& origin = {}) {
    auto job = load_job((data_folder() + "/demo/cello-case.json").toStdString());
    job.brief.pulls = pulls;
    {
        Recovery gone(folder);
        gone.keep(job, origin, Stage::shell, [] { return true; });
    }
    for (const auto& left : Recovery::leftovers(folder)) {
        if (load_job(left.file.toStdString()).brief.pulls == pulls) return left;
    }
    FAIL("nothing was kept");
    return {};
}

}  // namespace

TEST_CASE("edits that follow each other without a pause are kept all the same, the newest of them") {
    Bench b;
    auto& document = b.window.document();
    QElapsedTimer clock;
    clock.start();
    int pulls = 100;
    while (clock.elapsed() < 3000) {
        document.edit("set pulls", patch_of("brief", "pulls", ++pulls));
        QTest::qWait(60);
        if (!kept_in(document.recovery()).isEmpty()) break;
    }
    REQUIRE(kept_in(document.recovery()).size() == 1);
    document.autosave_now();
    const auto file = document.recovery() + "/" + kept_in(document.recovery()).front();
    CHECK(load_job(file.toStdString()).brief.pulls == pulls);
    // It is held: nobody is offered the work of a program that lives.
    CHECK(Recovery::leftovers(document.recovery()).isEmpty());
    // Undone to what the file has, nothing is left to keep.
    while (!document.undo_name().isEmpty()) document.undo();
    CHECK(kept_in(document.recovery()).isEmpty());
}

TEST_CASE("kept work is told by job, time and stage, and several are one list") {
    QTemporaryDir folder;
    const auto recovery = folder.path() + "/recovery";
    leave_behind(recovery, 71);
    leave_behind(recovery, 72, folder.path() + "/case.jigshell");
    MainWindow window(load_shop(data_folder().toStdString() + "/library"), recovery);
    window.show();
    REQUIRE(window.offer_leftovers());
    auto* list = window.findChild<QListWidget*>("leftovers");
    REQUIRE(list->count() == 2);
    for (int i = 0; i < 2; ++i) {
        CHECK(list->item(i)->text().contains("Cello travel case"));
        CHECK(list->item(i)->text().contains("at Shell"));
        CHECK(list->item(i)->text().contains(QRegularExpression("\\d\\d:\\d\\d")));
    }
    // Throwing away takes a second press, and only the chosen one goes.
    auto* drop = window.findChild<QPushButton*>("throw-away");
    QTest::mouseClick(drop, Qt::LeftButton);
    CHECK(Recovery::leftovers(recovery).size() == 2);
    QTest::mouseClick(drop, Qt::LeftButton);
    CHECK(Recovery::leftovers(recovery).size() == 1);
    CHECK(list->count() == 1);
    CHECK(list->isVisible());
}

TEST_CASE("work that is open is not thrown away by taking up a leftover, which stays until it is saved") {
    Bench b;
    const auto recovery = b.window.document().recovery();
    const auto left = leave_behind(recovery, 88);
    b.window.document().edit("set pulls", patch_of("brief", "pulls", 99));
    REQUIRE(b.window.offer_leftovers());
    auto* take = b.window.findChild<QPushButton*>("take-up");
    answer("Stay here");
    QTest::mouseClick(take, Qt::LeftButton);
    CHECK(b.window.document().job().brief.pulls == 99);
    CHECK(QFile::exists(left.file));
    answer("Throw them away");
    QTest::mouseClick(take, Qt::LeftButton);
    b.settle();
    CHECK(b.window.document().job().brief.pulls == 88);
    CHECK(b.window.document().unsaved());
    CHECK(b.window.stage() == Stage::shell);
    CHECK(QFile::exists(left.file));
    // While it is on the bench nobody else is offered it.
    CHECK(Recovery::leftovers(recovery).isEmpty());
    REQUIRE(b.window.save_job(b.file("taken.jigshell")));
    CHECK_FALSE(QFile::exists(left.file));
}

TEST_CASE("the second window on a file says who has it and works on a copy") {
    Bench first;
    const auto file = first.file("shared.jigshell");
    REQUIRE(first.window.save_job(file));
    Bench second;
    REQUIRE(second.window.open_job(file));
    CHECK(second.message().contains("open elsewhere"));
    CHECK(second.message().contains(QSysInfo::machineHostName()));
    CHECK(second.window.document().path().isEmpty());
    // Neither by the same name nor by another for it does the copy come over the first one's work.
    CHECK_FALSE(second.window.save_job(file));
    const auto link = first.file("link.jigshell");
    REQUIRE(QFile::link(file, link));
    CHECK_FALSE(second.window.save_job(link));
    CHECK(second.message().contains("another name"));
    CHECK(second.window.save_job(second.file("own.jigshell")));
    // Once the first has another job, its file is free.
    first.window.start_job(Job{});
    REQUIRE(second.window.open_job(file));
    CHECK(second.window.document().path() == file);
}

TEST_CASE("a file that something else has changed is asked for before it is written over") {
    Bench b;
    const auto file = b.file("case.jigshell");
    REQUIRE(b.window.save_job(file));
    auto other = b.window.document().job();
    other.brief.pulls = 5;
    QTest::qWait(20);
    save_job(other, file.toStdString());
    b.window.document().edit("set pulls", patch_of("brief", "pulls", 6));
    QString said;
    answer("Stay here", &said);
    CHECK_FALSE(b.window.save_job(file));
    CHECK(said.contains("changed by something else"));
    CHECK(load_job(file.toStdString()).brief.pulls == 5);
    CHECK(b.window.document().unsaved());
    answer("Write over it");
    CHECK(b.window.save_job(file));
    CHECK(load_job(file.toStdString()).brief.pulls == 6);
    // Its own saving is no change by somebody else.
    b.window.document().edit("set pulls", patch_of("brief", "pulls", 7));
    CHECK(b.window.save_job(file));
}

TEST_CASE("a read-only file is left alone, and a link stays a link") {
    Bench b;
    const auto file = b.file("real.jigshell"), link = b.file("link.jigshell");
    save_job(b.window.document().job(), file.toStdString());
    REQUIRE(QFile::link(file, link));
    REQUIRE(b.window.open_job(link));
    b.window.document().edit("set pulls", patch_of("brief", "pulls", 6));
    REQUIRE(b.window.save_job(link));
    CHECK(QFileInfo(link).isSymLink());
    CHECK(load_job(file.toStdString()).brief.pulls == 6);
    QFile::setPermissions(file, QFile::ReadOwner | QFile::ReadUser);
    b.window.document().edit("set pulls", patch_of("brief", "pulls", 7));
    CHECK_FALSE(b.window.save_job(link));
    CHECK(b.message().contains("read-only"));
    CHECK(load_job(file.toStdString()).brief.pulls == 6);
    CHECK(b.window.document().unsaved());
    QFile::setPermissions(file, QFile::ReadOwner | QFile::WriteOwner);
}

TEST_CASE("moving the cut is nothing to be saved, and undo goes to the stage that it changes") {
    Bench b;
    REQUIRE(b.window.save_job(b.file("a.jigshell")));
    b.window.show_stage(Stage::shell);
    b.settle();
    auto& stand = b.window.stand();
    stand.setFocus();
    QTest::keyClick(&stand, Qt::Key_Comma);
    QTest::keyClick(&stand, Qt::Key_Comma);
    b.settle();
    CHECK(b.window.document().job().cut.at != 0.5);
    CHECK_FALSE(b.window.document().unsaved());
    // Each key that is let go ends its drag.
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.window.document().job().cut.at == Approx(0.48));
    b.window.show_stage(Stage::brief);
    b.type("/brief/pulls", "61");
    b.window.show_stage(Stage::heat);
    b.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(b.window.stage() == Stage::brief);
    CHECK(b.window.document().job().brief.pulls == 60);
}

TEST_CASE("what comes home to another job is let go") {
    Bench b;
    const auto file = b.file("cone.stl");
    write_atomically(write_stl_binary(shapes::frustum(0.3, 0.2, radians(5), 90)), file.toStdString());
    REQUIRE(b.window.bring_in_mesh(file));
    b.window.start_job(Job{});
    REQUIRE(b.home());
    CHECK(b.window.document().job() == Job{});
    CHECK(b.message().contains("let go"));
}

TEST_CASE("nothing that is thrown inside an event takes the window down") {
    struct Thrower : QWidget {
        void paintEvent(QPaintEvent*) override { throw std::runtime_error("the brush broke"); }
    };
    auto* application = dynamic_cast<Application*>(qApp);
    REQUIRE(application != nullptr);
    QStringList failures;
    application->on_failure([&](const QString& words) { failures << words; });
    Thrower thrower;
    thrower.show();
    CHECK(QTest::qWaitFor([&] { return !failures.isEmpty(); }, 5000));
    QTimer::singleShot(0, &thrower, [] { throw InputError("here", "it is wrong", "mend it"); });
    CHECK(QTest::qWaitFor([&] { return failures.size() > 1; }, 5000));
    application->on_failure([](const QString& words) { qFatal("inside an event: %s", qPrintable(words)); });
    CHECK(failures.front() == "the brush broke");
    CHECK(failures.back().contains("mend it"));
}

TEST_CASE("numbered exports ask by the names that they really write, and say where they went") {
    Bench b;
    const Export* slabs = nullptr;
    for (const auto& what : exports()) {
        if (what.key == std::string("x-slabs-dxf")) slabs = &what;
    }
    REQUIRE(slabs != nullptr);
    CHECK(in_the_way(*slabs, b.file("cut.dxf")).isEmpty());
    const auto said = b.write_out("x-slabs-dxf", b.file("cut.dxf"));
    CHECK(said.contains("cut-1.dxf"));
    CHECK(said.contains(b.folder.path()));
    const auto there = in_the_way(*slabs, b.file("cut.dxf"));
    CHECK(there.contains("cut-1.dxf"));
    CHECK(there.contains("cut-1.svg"));
    CHECK(in_the_way(*slabs, b.file("cu.dxf")).isEmpty());
    // A sheet that cannot be written leaves the last good one.
    CHECK(b.write_out("print-a4", b.file("sheets.pdf")).startsWith("Printed"));
    const auto good = read_file(b.file("sheets.pdf").toStdString());
    QFile::setPermissions(b.file("sheets.pdf"), QFile::ReadOwner);
    CHECK(b.write_out("print-a4", b.file("sheets.pdf")).contains("read-only"));
    CHECK(read_file(b.file("sheets.pdf").toStdString()) == good);
}

TEST_CASE("an export that does not fit the job says why and asks for no file") {
    Bench b;
    int fits = 0;
    for (const auto& what : exports()) {
        const auto why = what.why_not(b.window.document().job(), b.window.document().findings());
        INFO(what.key);
        if (why.isEmpty()) {
            ++fits;
            continue;
        }
        b.window.findChild<QAction*>(QString("act-%1").arg(what.key))->setEnabled(true);
        b.window.findChild<QAction*>(QString("act-%1").arg(what.key))->trigger();
        CHECK(b.message().contains(why));
        CHECK(QApplication::activeModalWidget() == nullptr);
    }
    CHECK(fits > 12);
    CHECK(fits < static_cast<int>(exports().size()));
}
