// From the start to the demo's first picture and to its figures, beside the start of an empty window; and for
// how long the window answers to nothing while a body of 300 000 triangles is opened, edited and dragged at.
// Each is measured on a program of its own, which is this one with a word behind its name:
//   xvfb-run -a build/release/jig-window-bench
#include <benchmark/benchmark.h>

#include <QElapsedTimer>
#include <QEventLoop>
#include <QLabel>
#include <QMainWindow>
#include <QOpenGLContext>
#include <QOpenGLFunctions>
#include <QOpenGLWidget>
#include <QProcess>
#include <QSplitter>
#include <QTimer>

#include <atomic>
#include <cmath>
#include <cstdio>
#include <ctime>
#include <map>
#include <thread>

#include "app/document/behind.hpp"
#include "app/window/application.hpp"
#include "app/window/main_window.hpp"
#include "app/window/places.hpp"
#include "core/science/mesh/stl.hpp"

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

/// 3D that does nothing but clear: what any window takes that has it.
class Clear : public QOpenGLWidget {
  public:
    explicit Clear(QWidget* parent) : QOpenGLWidget(parent) {
        QSurfaceFormat format;
        format.setVersion(3, 3);
        format.setProfile(QSurfaceFormat::CoreProfile);
        format.setDepthBufferSize(24);
        format.setSamples(4);
        setFormat(format);
    }
    bool seen = false;

  protected:
    void paintGL() override {
        context()->functions()->glClear(GL_COLOR_BUFFER_BIT);
        seen = true;
    }
};

/// The same with OpenGL in it.
int empty_3d() {
    QMainWindow window;
    auto* clear = new Clear(&window);
    window.setCentralWidget(clear);
    window.resize(1280, 800);
    window.show();
    wait_until([&] { return clear->seen; });
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

/// A closed, bumpy dome on a flat foot, of about 300 000 triangles.
TriangleMesh large_body() {
    constexpr int kSide = 274;
    TriangleMesh mesh;
    const auto number = [](int layer, int i, int k) {
        return static_cast<std::uint32_t>((layer * (kSide + 1) + i) * (kSide + 1) + k);
    };
    for (int layer = 0; layer < 2; ++layer) {
        for (int i = 0; i <= kSide; ++i) {
            for (int k = 0; k <= kSide; ++k) {
                const double x = 2.0 * i / kSide - 1, y = 2.0 * k / kSide - 1;
                const double dome = (1 - x * x * x * x) * (1 - y * y * y * y);
                const double z = 0.02 + 0.18 * dome + 0.002 * std::sin(9 * x) * std::cos(7 * y) * dome;
                mesh.points.emplace_back(0.6 * x, 0.4 * y, layer == 0 ? z : 0);
            }
        }
    }
    const auto quad = [&](std::uint32_t a, std::uint32_t b, std::uint32_t c, std::uint32_t d) {
        mesh.triangles.push_back({a, b, c});
        mesh.triangles.push_back({a, c, d});
    };
    for (int i = 0; i < kSide; ++i) {
        for (int k = 0; k < kSide; ++k) {
            quad(number(0, i, k), number(0, i + 1, k), number(0, i + 1, k + 1), number(0, i, k + 1));
            quad(number(1, i, k), number(1, i, k + 1), number(1, i + 1, k + 1), number(1, i + 1, k));
        }
        quad(number(1, i, 0), number(1, i + 1, 0), number(0, i + 1, 0), number(0, i, 0));
        quad(number(1, i + 1, kSide), number(1, i, kSide), number(0, i, kSide), number(0, i + 1, kSide));
        quad(number(1, 0, i + 1), number(1, 0, i), number(0, 0, i), number(0, 0, i + 1));
        quad(number(1, kSide, i), number(1, kSide, i + 1), number(0, kSide, i + 1), number(0, kSide, i));
    }
    return mesh;
}

/// ms that this thread has reckoned, without what it has waited for the graphics' own threads.
double reckoned() {
    timespec t{};
    clock_gettime(CLOCK_THREAD_CPUTIME_ID, &t);
    return 1e3 * static_cast<double>(t.tv_sec) + 1e-6 * static_cast<double>(t.tv_nsec);
}

/// Runs the event loop for a while, and says the longest time for which it did not come round, and the most
/// that it reckoned meanwhile.
void watch(const char* word, int ms, const std::function<void(int step)>& act) {
    QEventLoop loop;
    QTimer pulse, acting;
    QElapsedTimer whole, last;
    double longest = 0, most = 0, before = reckoned();
    pulse.setTimerType(Qt::PreciseTimer);
    QObject::connect(&pulse, &QTimer::timeout, &loop, [&] {
        longest = std::max(longest, static_cast<double>(last.nsecsElapsed()) / 1e6);
        last.restart();
        most = std::max(most, reckoned() - before);
        before = reckoned();
        if (whole.elapsed() > ms) loop.quit();
    });
    int step = 0;
    QObject::connect(&acting, &QTimer::timeout, &loop, [&] {
        if (step < 20) act(step++);
    });
    whole.start();
    last.start();
    pulse.start(1);
    acting.start(60);
    loop.exec();
    std::printf("%s %.1f\n%s_own %.1f\n", word, longest, word, most);
    std::fflush(stdout);
}

/// How long a window with 3D and one label stands still while the label's words change and as many threads
/// as there are cores reckon behind it: the graphics' own share of what ours does.
void bare() {
    QMainWindow window;
    auto* both = new QSplitter(&window);
    auto* clear = new Clear(both);
    auto* label = new QLabel("nothing", both);
    label->setMinimumWidth(360);
    window.setCentralWidget(both);
    window.resize(1280, 800);
    window.show();
    wait_until([&] { return clear->seen; });
    clear->setUpdatesEnabled(false);
    std::atomic<bool> done = false;
    std::vector<std::thread> busy;
    for (unsigned t = 0; t < std::max(1u, std::thread::hardware_concurrency()); ++t)
        busy.emplace_back([&done] {
            go_behind();
            while (!done) {
            }
        });
    watch("bare", 3000, [&](int step) { label->setText(QString::number(step)); });
    done = true;
    for (auto& thread : busy) thread.join();
}

int large() {
    bare();
    load_fonts(data_folder() + "/fonts");
    MainWindow window(load_shop(data_folder().toStdString() + "/library"), {});
    window.resize(1280, 800);
    window.show();
    wait_until([&] { return window.isVisible(); });
    Job job;
    job.shape.kind = ShapeKind::mesh;
    job.shape.file = "dome.stl";
    job.attachments = {{"dome.stl", std::make_shared<const std::string>(write_stl_binary(large_body()))}};
    job.split.way = SplitWay::plane;
    const auto settle = [&] { wait_until([&] { return !window.document().trying(); }); };
    // What another stage takes to be laid out is told by `stages`, not by the drag that comes after it.
    const auto go_to = [&](Stage stage) {
        window.show_stage(stage);
        QApplication::processEvents();
    };
    // Apart from what the graphics take for a frame, which `frame` says: without a card's own that is most of
    // all.
    auto* canvas = window.stand().findChild<QOpenGLWidget*>();
    if (canvas != nullptr) canvas->setUpdatesEnabled(false);
    watch("open", 9000, [&](int step) {
        if (step == 0) window.start_job(job);
        if (step == 1) window.show_stage(Stage::shape);
    });
    settle();
    watch("stages", 4000, [&](int step) { window.show_stage(static_cast<Stage>(step % 13)); });
    settle();
    watch("edit", 9000, [&](int step) {
        if (step % 5 != 0) return;
        auto next = window.document().job();
        next.edge.trim += 1e-4;
        window.document().replace("wider rim", std::move(next));
    });
    settle();
    go_to(Stage::shell);
    watch("cut", 6000, [&](int step) { emit window.stand().cut_dragged(0.3 + 0.02 * step); });
    emit window.stand().cut_let_go();
    settle();
    go_to(Stage::split);
    watch("plane", 12000, [&](int step) { emit window.stand().plane_dragged(0.3 + 0.02 * step); });
    emit window.stand().plane_let_go();
    settle();
    go_to(Stage::edge);
    watch("fitting", 9000, [&](int step) { emit window.stand().mark_dragged(0, 0.1 + 0.01 * step); });
    emit window.stand().mark_let_go();
    settle();
    if (canvas != nullptr) {
        canvas->setUpdatesEnabled(true);
        canvas->repaint();
        QElapsedTimer clock;
        clock.start();
        canvas->grabFramebuffer();
        std::printf("frame %.1f\n", static_cast<double>(clock.nsecsElapsed()) / 1e6);
    }
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
    double empty_window = 1e30, empty_in_3d = 1e30, picture = 1e30, figures = 1e30;
    for (auto _ : state) {
        empty_window = std::min(empty_window, told_by("--empty").at("picture"));
        empty_in_3d = std::min(empty_in_3d, told_by("--empty-3d").at("picture"));
        const auto demo_job = told_by("--demo");
        picture = std::min(picture, demo_job.at("picture"));
        figures = std::min(figures, demo_job.at("figures"));
    }
    state.counters["empty_ms"] = empty_window;
    state.counters["picture_ms"] = picture;
    state.counters["figures_ms"] = figures;
    state.counters["times_an_empty_window"] = picture / empty_window;
    state.counters["times_an_empty_3d_window"] = picture / empty_in_3d;
}
BENCHMARK(start)->Unit(benchmark::kMillisecond)->Iterations(5);

/// ms for which the event loop did not come round at the longest, with a large body in hand, and the most
/// that the interface reckoned in one go (`_own_ms`); `bare_ms` is what a window does that only has 3D in it.
void longest_gap(benchmark::State& state) {
    for (auto _ : state) {
        QProcess process;
        process.start(QCoreApplication::applicationFilePath(), {"--large"});
        if (!process.waitForFinished(600000) || process.exitCode() != 0)
            state.SkipWithError("the window did not come to its end");
        for (const auto& line : process.readAllStandardOutput().split('\n')) {
            const auto words = line.split(' ');
            if (words.size() == 2) state.counters[words[0].toStdString() + "_ms"] = words[1].toDouble();
        }
    }
}
BENCHMARK(longest_gap)->Unit(benchmark::kMillisecond)->Iterations(1);

}  // namespace

int main(int argc, char** argv) {
    const std::string word = argc > 1 ? argv[1] : "";
    Application application(argc, argv);
    QApplication::setApplicationName("jigshell-bench");
    if (word == "--empty") return empty();
    if (word == "--empty-3d") return empty_3d();
    if (word == "--demo") return demo();
    if (word == "--large") return large();
    benchmark::Initialize(&argc, argv);
    benchmark::RunSpecifiedBenchmarks();
    return 0;
}
