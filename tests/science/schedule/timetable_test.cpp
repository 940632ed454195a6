#include <catch2/catch.hpp>

#include "core/base/times.hpp"
#include "core/science/schedule/timetable.hpp"

using namespace jig;

namespace {

const Shift kShift{8 * kHour, 8 * kHour};

}  // namespace

TEST_CASE("work runs in shifts and waits run through the night") {
    const auto plan = timetable(
        {{"plug", "glue", 2 * kHour, 1, 12 * kHour, true, 0}, {"plug", "sand", kHour, 1, 0, true, 0}},
        kShift);
    REQUIRE(plan.bookings.size() == 2);
    CHECK(plan.bookings[0].from == 8 * kHour);
    // Glued at 10:00, dry at 22:00: sanding waits for the morning.
    CHECK(plan.bookings[1].from == kDay + 8 * kHour);
    CHECK(plan.days == 2);
}

TEST_CASE("long work is broken at the end of the shift, work that must not break moves to the morning") {
    const auto broken = timetable({{"a", "sand", 10 * kHour, 1, 0, true, 0}}, kShift);
    REQUIRE(broken.bookings.size() == 2);
    CHECK(broken.bookings[0].to == 16 * kHour);
    CHECK(broken.bookings[1].from == kDay + 8 * kHour);
    CHECK(broken.bookings[1].to == kDay + 10 * kHour);
    const auto whole = timetable(
        {{"a", "sand", 5 * kHour, 1, 0, true, 0}, {"a", "lay up", 4 * kHour, 2, 0, false, 0}}, kShift);
    CHECK(whole.bookings[1].from == kDay + 8 * kHour);
}

TEST_CASE("a tacky window keeps tasks together, and one that cannot be kept is told") {
    // 7 h of other work first: coat + wait + lay-up (1 + 1 + 3 h) no longer fit today.
    const std::vector<Task> tasks{{"a", "sand", 4 * kHour, 1, 0, true, 0},
                                  {"shell", "coat", kHour, 1, kHour, false, kHour},
                                  {"shell", "lay up", 3 * kHour, 2, 0, false, 0}};
    const auto plan = timetable(tasks, kShift);
    CHECK(plan.bookings[1].from == kDay + 8 * kHour);
    CHECK(plan.bookings[2].from == kDay + 10 * kHour);
    CHECK(plan.missed.empty());
    const auto late = timetable(
        {{"shell", "coat", kHour, 1, 9 * kHour, false, kHour}, {"shell", "lay up", kHour, 1, 0, false, 0}},
        kShift);
    CHECK(late.missed == std::vector<std::size_t>{0});
}

TEST_CASE("hours booked are the hours asked for, inside the shift, in order") {
    std::vector<Task> tasks;
    for (int i = 0; i < 40; ++i)
        tasks.push_back({"s", "t", (0.3 + 0.37 * (i % 11)) * kHour, 1, (i % 7) * 2.0 * kHour, i % 3 != 0, 0});
    const auto plan = timetable(tasks, kShift);
    std::vector<double> booked(tasks.size(), 0);
    double last = 0;
    for (const auto& b : plan.bookings) {
        booked[b.task] += b.to - b.from;
        CHECK(b.from >= last - 1e-6);
        const double day = std::floor(b.from / kDay) * kDay;
        CHECK(b.from >= day + kShift.start - 1e-6);
        CHECK(b.to <= day + kShift.start + kShift.length + 1e-6);
        last = b.to;
    }
    for (std::size_t i = 0; i < tasks.size(); ++i) CHECK(booked[i] == Approx(tasks[i].work));
    CHECK(clock_words(kDay + 9.5 * kHour) == "day 2, 09:30");
}

TEST_CASE("an odd start is met on every morning") {
    // Day after day added to 30816.001 s rounds to just before the shift.
    for (const double start : {30816.001, 28800.1, 1.0 / 3, 86399.9}) {
        const Shift odd{start, 8 * kHour};
        const auto plan = timetable({{"s", "long", 100 * kHour, 1, 0, true, 0}}, odd);
        REQUIRE(plan.bookings.size() == 13);
        for (std::size_t i = 0; i < plan.bookings.size(); ++i)
            CHECK(plan.bookings[i].from == Approx(start + kDay * static_cast<double>(i)));
    }
}

TEST_CASE("a night shift goes on past midnight, and a clock never says 24:00") {
    const Shift night{22 * kHour, 8 * kHour};
    const auto plan = timetable({{"s", "long", 10 * kHour, 1, 0, true, 0}}, night);
    REQUIRE(plan.bookings.size() == 2);
    CHECK(plan.bookings[0].from == Approx(22 * kHour));
    CHECK(plan.bookings[0].to == Approx(30 * kHour));
    CHECK(plan.bookings[1].from == Approx(46 * kHour));
    // What ends at two in the night is followed at two, not at ten in the evening.
    const auto two =
        timetable({{"s", "a", 4 * kHour, 1, 0, true, 0}, {"s", "b", kHour, 1, 0, true, 0}}, night);
    CHECK(two.bookings[1].from == Approx(26 * kHour));
    CHECK(clock_words(86399) == "day 2, 00:00");
    CHECK(clock_words(86369) == "day 1, 23:59");
}
