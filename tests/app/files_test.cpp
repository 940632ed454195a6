#include <csignal>
#include <QDir>
#include <QFile>
#include <QProcess>

#include "core/science/mesh/stl.hpp"
#include "tests/app/bench.hpp"
#include "tests/app/crash.hpp"
#include "tests/quiet.hpp"

using namespace bench;

int crash::work_until_killed() {
    const auto folder = qEnvironmentVariable(kFolder);
    MainWindow window(load_shop(data_folder().toStdString() + "/library"), folder + "/recovery");
    if (!window.open_job(folder + "/work.jigshell")) return 1;
    window.show();
    window.document().edit("set pulls", patch_of("brief", "pulls", 77));
    while (QDir(folder + "/recovery").entryList({"*.jigshell"}).isEmpty()) QTest::qWait(20);
    std::puts("edited");
    std::fflush(stdout);
    return QApplication::exec();
}

TEST_CASE("the sheets carry the figures that are on screen, in both paper sizes") {
    Bench b;
    b.window.show_stage(Stage::shell);
    b.settle();
    const auto thickness = b.figure("thickness"), mass = b.figure("mass");
    for (const auto& [page, size] : {std::pair{"print-a4", "595"}, std::pair{"print-letter", "612"}}) {
        const auto pdf = b.file("sheets.pdf");
        REQUIRE(b.write_out(page, pdf).startsWith("Printed"));
        QString info;
        const auto text = text_of_pdf(pdf, &info);
        CHECK(text.contains(thickness));
        CHECK(text.contains(mass));
        CHECK(info.contains(size));
        for (const char* part :
             {"Brief", "Section at the cut", "Release clock", "Materials", "Day plan", "Take care",
              "page 1 of ", "Cello travel case", "data sheet", "Epoxy and amine"}) {
            INFO(part);
            CHECK(text.contains(part));
        }
        const auto pages = info.mid(info.indexOf("Pages:") + 6, 20).trimmed().split('\n').front().toInt();
        CHECK(pages > 2);
        CHECK(text.contains(QString("page %1 of %1").arg(pages)));
    }
    CHECK(b.write_out("print-a4", "/nowhere/at/all.pdf").contains("cannot be written"));
}

TEST_CASE("every export writes its file") {
    Bench b;
    b.window.show_stage(Stage::plug);
    b.settle();
    CHECK(b.write_out("x-materials", b.file("m.csv")).contains("ritten"));
    CHECK(QString::fromStdString(read_file(b.file("m.csv").toStdString())).contains("XPS foam"));
    CHECK(b.write_out("x-days", b.file("d.csv")).contains("ritten"));
    CHECK(b.write_out("x-section", b.file("s.svg")).contains("ritten"));
    CHECK(QString::fromStdString(read_file(b.file("s.svg").toStdString())).contains("<svg"));
    CHECK(b.write_out("x-stl", b.file("s.stl")).contains("ritten"));
    CHECK(read_stl(read_file(b.file("s.stl").toStdString()), "s", 1e-3, quiet).triangles.size() ==
          b.window.document().findings().shape->mesh.triangles.size());
    CHECK(b.write_out("x-slabs-pdf", b.file("slabs.pdf")).contains("ritten"));
    QString info;
    const auto text = text_of_pdf(b.file("slabs.pdf"), &info);
    CHECK(text.contains("slab 1 of 4"));
    CHECK(text.contains("100 mm"));
    // Full size: the first page is as wide as the largest slab and its margin, in points.
    const auto& slab = b.window.document().findings().plug->plans.front().slabs.stack.slabs.front();
    const double points =
        ((high_corner(slab.outline) - low_corner(slab.outline)).x() * 1000 + 30) / 25.4 * 72;
    const auto size = info.mid(info.indexOf("Page size:") + 10).trimmed().split(' ').front().toDouble();
    CHECK(size == Approx(points).epsilon(2e-3));
    CHECK(b.write_out("x-slabs-dxf", b.file("cut.dxf")).contains("ritten"));
    CHECK(QFile::exists(b.file("cut-1.dxf")));
    CHECK(QFile::exists(b.file("cut-1.svg")));
    CHECK(b.write_out("x-materials", "/nowhere/at/all.csv").contains("cannot be written"));
}

TEST_CASE("a job is saved and opened, a bad one leaves the bench as it is") {
    Bench b;
    b.window.document().edit("set pulls", patch_of("brief", "pulls", 99));
    CHECK(b.window.document().unsaved());
    REQUIRE(b.window.save_job(b.file("a.jigshell")));
    CHECK_FALSE(b.window.document().unsaved());
    const auto saved = b.window.document().job();
    b.window.document().edit("set pulls", patch_of("brief", "pulls", 3));
    REQUIRE(b.window.open_job(b.file("a.jigshell")));
    CHECK(b.window.document().job() == saved);
    QFile bad(b.file("bad.jigshell"));
    REQUIRE(bad.open(QIODevice::WriteOnly));
    bad.write("PK\x03\x04 nonsense");
    bad.close();
    CHECK_FALSE(b.window.open_job(b.file("bad.jigshell")));
    CHECK(b.message().contains("has not been touched"));
    CHECK(b.window.document().job() == saved);
    CHECK_FALSE(b.window.save_job("/nowhere/at/all.jigshell"));
}

TEST_CASE("after a kill -9 in the middle of work the next start offers what was there") {
    QTemporaryDir folder;
    auto job = load_job((data_folder() + "/demo/cello-case.json").toStdString());
    save_job(job, (folder.path() + "/work.jigshell").toStdString());
    QProcess worker;
    auto environment = QProcessEnvironment::systemEnvironment();
    environment.insert(crash::kFolder, folder.path());
    worker.setProcessEnvironment(environment);
    worker.start(QCoreApplication::applicationFilePath(), QStringList());
    REQUIRE(worker.waitForStarted());
    REQUIRE(worker.waitForReadyRead(30000));
    CHECK(worker.readLine().trimmed() == "edited");
    // While it lives its work is nobody else's.
    CHECK(Recovery::leftovers(folder.path() + "/recovery").isEmpty());
    ::kill(static_cast<pid_t>(worker.processId()), SIGKILL);
    REQUIRE(worker.waitForFinished());
    CHECK(worker.exitStatus() == QProcess::CrashExit);

    MainWindow window(load_shop(data_folder().toStdString() + "/library"), folder.path() + "/recovery");
    window.document().start(Job{}, {});
    window.show();
    REQUIRE(window.offer_leftovers());
    auto* take = window.findChild<QPushButton*>("take-up");
    REQUIRE(take != nullptr);
    QTest::mouseClick(take, Qt::LeftButton);
    REQUIRE(window.document().wait_evaluated(20000));
    job.brief.pulls = 77;
    CHECK(window.document().job() == job);
    CHECK(window.document().path() == folder.path() + "/work.jigshell");
    CHECK(window.document().unsaved());
    // The file itself is still the last good one, and undo goes back to it.
    CHECK(load_job((folder.path() + "/work.jigshell").toStdString()).brief.pulls == 60);
    window.document().undo();
    CHECK(window.document().job().brief.pulls == 60);
    window.document().forget_autosave();
    CHECK(Recovery::leftovers(folder.path() + "/recovery").isEmpty());
}

TEST_CASE("without OpenGL the stand is drawn plainly and says so") {
    QProcess program;
    QTemporaryDir folder;
    auto environment = QProcessEnvironment::systemEnvironment();
    environment.insert("JIGSHELL_NO_OPENGL", "1");
    program.setProcessEnvironment(environment);
    program.start(JIG_PROGRAM,
                  {"--demo", "cello-case", "--stage", "shape", "--shot", folder.path() + "/plain.png"});
    REQUIRE(program.waitForFinished(60000));
    CHECK(program.exitCode() == 0);
    const QImage shot(folder.path() + "/plain.png");
    REQUIRE_FALSE(shot.isNull());
    // The middle of the stand is not bare paper: the thing is there.
    int painted = 0;
    for (int x = 400; x < 700; x += 10)
        painted += std::abs(shot.pixelColor(x, 330).lightness() - ink(Light::day).paper.lightness()) > 12;
    CHECK(painted > 5);
}

TEST_CASE("a newer edit overtakes an older run and figures are marked while they are renewed") {
    Bench b;
    auto& d = b.window.document();
    for (int i = 1; i <= 20; ++i)
        d.edit(QString("set depth %1").arg(i), Json{{"shape", {{"tray", {{"depth", 0.10 + 0.002 * i}}}}}});
    CHECK(d.stale());
    b.settle();
    CHECK(d.findings().shape->measures.size.z() == Approx(0.14 + d.job().shape.tray.crown).epsilon(0.01));
    d.undo();
    b.settle();
    CHECK(d.findings().shape->measures.size.z() == Approx(0.138 + d.job().shape.tray.crown).epsilon(0.01));
}
