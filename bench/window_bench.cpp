// From the start to the demo's first picture and to its figures, beside the start of an empty window. Each is
// measured on a program of its own, which is this one with a word behind its name:
//   xvfb-run -a build/release/jig-window-bench
#include <benchmark/benchmark.h>

#include <QElapsedTimer>
#include <QEventLoop>
#include <QLabel>
#include <QMainWindow>
#include <QProcess>
#include <QTimer>

#include <cstdio>
#include <map>

#include "app/window/application.hpp"
#include "app/window/main_window.hpp"
#include "app/window/places.hpp"

using namespace jig;
using namespace jig::app;

namespace {

void say(const char* word) {
    std::printf("%s\n", word);
    std::fflush(stdout);
}

/// Runs the event loop as the program does, resting between events.
void wait_until(const std::function<bool()>& done) {
    QEventLoop loop;
    QTimer look;
    QObject::connect(&look, &QTimer::timeout, &loop, [&] {
        if (done()) loop.quit();
    });
    look.start(2);
    loop.exec();
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

/// What a program of ours says, and when: ms since its start.
std::map<QString, double> told_by(const char* word) {
    QProcess process;
    QElapsedTimer clock;
    clock.start();
    process.start(QCoreApplication::applicationFilePath(), {word});
    std::map<QString, double> out;
    while (process.waitForReadyRead(300000)) {
        while (process.canReadLine())
            out[QString::fromUtf8(process.readLine()).trimmed()] =
                static_cast<double>(clock.nsecsElapsed()) / 1e6;
    }
    process.waitForFinished();
    return out;
}

void start(benchmark::State& state) {
    double empty_window = 1e30, picture = 1e30, figures = 1e30;
    for (auto _ : state) {
        empty_window = std::min(empty_window, told_by("--empty").at("picture"));
        const auto demo_job = told_by("--demo");
        picture = std::min(picture, demo_job.at("picture"));
        figures = std::min(figures, demo_job.at("figures"));
    }
    state.counters["empty_ms"] = empty_window;
    state.counters["picture_ms"] = picture;
    state.counters["figures_ms"] = figures;
    state.counters["times_an_empty_window"] = picture / empty_window;
}
BENCHMARK(start)->Unit(benchmark::kMillisecond)->Iterations(5);

}  // namespace

int main(int argc, char** argv) {
    const std::string word = argc > 1 ? argv[1] : "";
    Application application(argc, argv);
    QApplication::setApplicationName("jigshell-bench");
    if (word == "--empty") return empty();
    if (word == "--demo") return demo();
    benchmark::Initialize(&argc, argv);
    benchmark::RunSpecifiedBenchmarks();
    return 0;
}
