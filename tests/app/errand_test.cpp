// Work behind the window: it comes home with words, it tells where it is, it stops, and it is waited for.
#include <QSignalSpy>

#include <atomic>

#include "core/science/mesh/stl.hpp"
#include "tests/app/bench.hpp"
#include "tests/shapes.hpp"

using namespace bench;

TEST_CASE("an errand brings its work home on the interface thread") {
    Errand errand;
    QSignalSpy back(&errand, &Errand::back);
    std::atomic<bool> behind{false};
    bool here = false;
    REQUIRE(errand.send([&](Progress&) {
        behind = QThread::currentThread() != qApp->thread();
        return [&] {
            here = QThread::currentThread() == qApp->thread();
            return QString("three slabs");
        };
    }));
    CHECK(errand.away());
    REQUIRE(back.wait(5000));
    CHECK(behind);
    CHECK(here);
    CHECK_FALSE(errand.away());
    CHECK(back.front().front().toString() == "three slabs");
}

TEST_CASE("only one errand is on its way, and it tells how far it is until it is stopped") {
    Errand errand;
    QSignalSpy back(&errand, &Errand::back), told(&errand, &Errand::progressed);
    REQUIRE(errand.send([](Progress& progress) -> Errand::Homecoming {
        for (int i = 0;; ++i) {
            progress.report(0.5, "going round");
            std::this_thread::sleep_for(std::chrono::milliseconds(2));
        }
    }));
    CHECK_FALSE(errand.send([](Progress&) { return [] { return QString(); }; }));
    REQUIRE(told.wait(5000));
    CHECK(told.front()[0].toDouble() == 0.5);
    CHECK(told.front()[1].toString() == "going round");
    CHECK(back.empty());
    errand.stop();
    REQUIRE(back.wait(5000));
    CHECK(back.front().front().toString().contains("Stopped"));
    CHECK(errand.send([](Progress&) { return [] { return QString(); }; }));
}

TEST_CASE("an errand that fails says where, what and how to mend it") {
    Errand errand;
    QSignalSpy back(&errand, &Errand::back);
    errand.send([](Progress&) -> Errand::Homecoming {
        throw InputError("line 3", "a number is missing", "write one");
    });
    REQUIRE(back.wait(5000));
    CHECK(back.front().front().toString() == "line 3: a number is missing. To mend it: write one.");
}

TEST_CASE("an errand is waited for when its window goes") {
    std::atomic<bool> ended{false};
    {
        Errand errand;
        errand.send([&](Progress& progress) -> Errand::Homecoming {
            while (!progress.stopped()) std::this_thread::sleep_for(std::chrono::milliseconds(1));
            std::this_thread::sleep_for(std::chrono::milliseconds(20));
            ended = true;
            return [] { return QString(); };
        });
    }
    CHECK(ended);
}

TEST_CASE("a long read shows progress and Stop leaves the job as it was") {
    Bench b;
    const auto big = b.file("big.stl");
    write_atomically(write_stl_binary(shapes::sphere(0.3, 500)), big.toStdString());
    const auto before = b.window.document().job();
    REQUIRE(b.window.bring_in_mesh(big));
    auto* stop = b.window.findChild<QPushButton*>("stop");
    CHECK(stop->isVisible());
    QTest::mouseClick(stop, Qt::LeftButton);
    REQUIRE(b.home());
    CHECK(b.message().contains("Stopped"));
    CHECK_FALSE(stop->isVisible());
    CHECK(b.window.document().job() == before);
    // A second thing while one is on its way is refused, not queued.
    REQUIRE(b.window.bring_in_mesh(big));
    CHECK_FALSE(b.window.bring_in_mesh(big));
    CHECK(b.message().contains("already"));
    REQUIRE(b.home());
    CHECK(b.window.document().job().shape.kind == ShapeKind::mesh);
}

TEST_CASE("an export belongs to the job as it is, even while its figures are on their way") {
    Bench b;
    b.window.document().edit("set pulls", patch_of("brief", "job", "Second revision"));
    REQUIRE(b.window.document().stale());
    CHECK(b.write_out("x-section", b.file("s.svg")).contains("ritten"));
    CHECK(read_file(b.file("s.svg").toStdString()).find("Second revision") != std::string::npos);
}

TEST_CASE("an errand that stumbles on coming home leaves the way free for the next") {
    Errand errand;
    QStringList said;
    QObject::connect(&errand, &Errand::back, [&](const QString& words) { said << words; });
    REQUIRE(errand.send([](Progress&) -> Errand::Homecoming {
        return []() -> QString { throw InputError("at home", "the door is shut", "open it"); };
    }));
    REQUIRE(QTest::qWaitFor([&] { return !errand.away(); }, 5000));
    REQUIRE(errand.send([](Progress&) -> Errand::Homecoming {
        return []() -> QString { throw std::runtime_error("it broke"); };
    }));
    REQUIRE(QTest::qWaitFor([&] { return !errand.away(); }, 5000));
    REQUIRE(said.size() == 2);
    CHECK(said.front().contains("the door is shut"));
    CHECK(said.back().contains("it broke"));
}
