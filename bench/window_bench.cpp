// From the start to the demo's first picture and to its figures, beside the start of an empty window; and the
// longest time for which the window answers nobody while a large mesh is opened, edited and cut. Each is
// measured on a program of its own, which is this one with a word behind its name:
//   xvfb-run -a build/release/jig-window-bench
#include <benchmark/benchmark.h>

#include <QAbstractEventDispatcher>
#include <QElapsedTimer>
#include <QLabel>
#include <QMainWindow>
#include <QProcess>
#include <QTemporaryDir>
#include <QTimer>

#include <cstdio>
#include <map>

#include "app/window/application.hpp"
#include "app/window/main_window.hpp"
#include "app/window/places.hpp"
#include "core/science/mesh/stl.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using namespace jig::app;

namespace {

void say(const char* word, double ms = 0) {
    std::printf("%s %.1f\n", word, ms);
    std::fflush(stdout);
}

void wait_until(const std::function<bool()>& done) {
    while (!done()) QApplication::processEvents(QEventLoop::WaitForMoreEvents, 20);
}

/// Says that it has been painted for the first time.
class Painted : public QObject {
  public:
    bool eventFilter(QObject*, QEvent* event) override {
        seen |= event->type() == QEvent::Paint;
        return false;
    }
    bool seen = false;
};

int empty() {
    QMainWindow window;
    auto* label = new QLabel("nothing", &window);
    window.setCentralWidget(label);
    window.resize(1280, 800);
    Painted painted;
    label->installEventFilter(&painted);
    window.show();
    wait_until([&] { return painted.seen; });
    say("picture");
    return 0;
}

int demo() {
    load_fonts(data_folder() + "/fonts");
    MainWindow window(load_shop(data_folder().toStdString() + "/library"), {});
    Painted painted;
    window.stand().installEventFilter(&painted);
    window.start_job(load_job((data_folder() + "/demo/cello-case.json").toStdString()));
    window.show_stage(Stage::shape);
    window.show();
    // The first picture of the thing itself, not of the bench without it.
    wait_until([&] { return painted.seen && !window.stand().scene().corners.empty(); });
    say("picture");
    window.document().wait_evaluated(60000);
    say("figures");
    return 0;
}

/// The longest stretch between two rests of the event loop.
class Gap : public QObject {
  public:
    Gap() {
        auto* loop = QAbstractEventDispatcher::instance();
        connect(loop, &QAbstractEventDispatcher::awake, this, [this] { clock_.start(); });
        connect(loop, &QAbstractEventDispatcher::aboutToBlock, this, [this] {
            if (clock_.isValid())
                longest_ = std::max(longest_, static_cast<double>(clock_.nsecsElapsed()) / 1e6);
            clock_.invalidate();
        });
    }
    double take() {
        const double out = longest_;
        longest_ = 0;
        return out;
    }

  private:
    QElapsedTimer clock_;
    double longest_ = 0;
};

int gaps() {
    load_fonts(data_folder() + "/fonts");
    QTemporaryDir folder;
    MainWindow window(load_shop(data_folder().toStdString() + "/library"), {});
    window.start_job(Job{});
    window.show();
    window.document().wait_evaluated(60000);
    const auto file = folder.path() + "/ball.stl";
    auto ball = shapes::sphere(0.4, 275);
    write_atomically(write_stl_binary(ball), file.toStdString());
    const auto settled = [&] { return !window.errand().away() && !window.document().stale(); };
    Gap gap;
    window.bring_in_mesh(file);
    wait_until(settled);
    say("open", gap.take());
    window.document().edit("set pulls", patch_of("brief", "pulls", 77));
    wait_until(settled);
    say("edit", gap.take());
    for (int i = 0; i < 10; ++i) {
        auto job = window.document().job();
        job.cut.at = 0.3 + 0.02 * i;
        window.document().drag("drag the cut", job);
        wait_until(settled);
    }
    window.document().end_drag();
    say("cut", gap.take());
    window.show_stage(Stage::split);
    wait_until(settled);
    QTimer::singleShot(200, &window, [&] { say("stage", gap.take()), QApplication::exit(0); });
    return QApplication::exec();
}

struct Told {
    double at;     ///< ms since its start
    double value;  ///< ms that it measured itself
};

/// What a program of ours says, and when.
std::map<QString, Told> told_by(const char* word) {
    QProcess process;
    QElapsedTimer clock;
    clock.start();
    process.start(QCoreApplication::applicationFilePath(), {word});
    std::map<QString, Told> out;
    while (process.waitForReadyRead(300000)) {
        while (process.canReadLine()) {
            const auto line = QString::fromUtf8(process.readLine()).trimmed().split(' ');
            out[line.front()] = {static_cast<double>(clock.nsecsElapsed()) / 1e6, line.back().toDouble()};
        }
    }
    process.waitForFinished();
    return out;
}

void start(benchmark::State& state) {
    double empty_window = 1e30, picture = 1e30, figures = 1e30;
    for (auto _ : state) {
        empty_window = std::min(empty_window, told_by("--empty").at("picture").at);
        const auto demo_job = told_by("--demo");
        picture = std::min(picture, demo_job.at("picture").at);
        figures = std::min(figures, demo_job.at("figures").at);
    }
    state.counters["empty_ms"] = empty_window;
    state.counters["picture_ms"] = picture;
    state.counters["figures_ms"] = figures;
    state.counters["times_an_empty_window"] = picture / empty_window;
}
BENCHMARK(start)->Unit(benchmark::kMillisecond)->Iterations(5);

void longest_gap(benchmark::State& state) {
    std::map<QString, Told> told;
    for (auto _ : state) told = told_by("--gaps");
    for (const auto& [what, when] : told) state.counters[what.toStdString() + "_ms"] = when.value;
}
BENCHMARK(longest_gap)->Unit(benchmark::kMillisecond)->Iterations(1);

}  // namespace

int main(int argc, char** argv) {
    const std::string word = argc > 1 ? argv[1] : "";
    Application application(argc, argv);
    QApplication::setApplicationName("jigshell-bench");
    if (word == "--empty") return empty();
    if (word == "--demo") return demo();
    if (word == "--gaps") return gaps();
    benchmark::Initialize(&argc, argv);
    benchmark::RunSpecifiedBenchmarks();
    return 0;
}
