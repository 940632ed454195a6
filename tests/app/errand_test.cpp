// Work that is sent away and tells how far it is.
#include <QElapsedTimer>
#include <QTimer>

#include "app/window/errand.hpp"
#include "tests/app/bench.hpp"

using namespace bench;

TEST_CASE("work that tells its way without a pause leaves the window its clocks and keys") {
    Errand errand;
    int told = 0, ticks = 0;
    QObject::connect(&errand, &Errand::progressed, &errand, [&](double, const QString& words) {
        ++told;
        CHECK(words == "counting");
        // As long as a window without a card's own graphics takes to paint a line.
        QTest::qSleep(8);
    });
    QTimer clock;
    QObject::connect(&clock, &QTimer::timeout, &errand, [&] { ++ticks; });
    REQUIRE(errand.send([](Progress& progress) -> Errand::Homecoming {
        QElapsedTimer whole;
        whole.start();
        while (whole.elapsed() < 1500) progress.report(0.5, "counting");
        return [] { return QString("counted"); };
    }));
    clock.start(5);
    REQUIRE(QTest::qWaitFor([&] { return !errand.away(); }, 20000));
    // Told at once and then now and again; the clock went on all the while.
    CHECK(told >= 2);
    CHECK(told <= 30);
    CHECK(ticks > 40);
}
