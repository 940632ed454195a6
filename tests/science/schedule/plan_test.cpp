// Plans by hand, and random small ones against trying every start there is.
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/base/error.hpp"
#include "core/base/times.hpp"
#include "core/science/schedule/plan.hpp"
#include "tests/quiet.hpp"

using namespace jig;

namespace {

PlanTask task(const char* name, double hours, std::vector<PlanLink> after = {}) {
    PlanTask t;
    t.name = name;
    t.work = hours * kHour;
    t.needs = {{"people", 1}};
    t.after = std::move(after);
    return t;
}

/// Monday, 1 March 2027, eight to four on weekdays, one person.
PlanRequest week(std::vector<PlanTask> tasks) {
    PlanRequest r;
    r.start = read_wall_time("2027-03-01T08:00", "test");
    r.resources = {{"people", 1}};
    r.tasks = std::move(tasks);
    return r;
}

Plan planned(const PlanRequest& r) {
    return plan(r, quiet);
}

std::string from(const Plan& p, std::size_t i) {
    return write_wall_time(p.tasks[i].from);
}
std::string to(const Plan& p, std::size_t i) {
    return write_wall_time(p.tasks[i].to);
}

/// Whether a set of starts, in whole hours, keeps every rule of a request; work is not broken.
bool keeps(const PlanRequest& r, const std::vector<int>& start, int day_hours) {
    for (std::size_t i = 0; i < start.size(); ++i) {
        const int work = static_cast<int>(r.tasks[i].work / kHour);
        if (!r.tasks[i].any_time && work > 0 &&
            (start[i] % 24 >= day_hours || start[i] % 24 + work > day_hours))
            return false;
        for (const auto& l : r.tasks[i].after) {
            const double done = start[l.task] + (r.tasks[l.task].work + r.tasks[l.task].wait) / kHour;
            if (start[i] < done + l.least / kHour - 1e-9) return false;
            if (l.most && start[i] > done + *l.most / kHour + 1e-9) return false;
        }
    }
    for (const auto& [name, count] : r.resources) {
        for (int hour = 0; hour < 80; ++hour) {
            int busy = 0;
            for (std::size_t i = 0; i < start.size(); ++i) {
                const auto needs = r.tasks[i].needs.find(name);
                if (needs != r.tasks[i].needs.end() && hour >= start[i] &&
                    hour < start[i] + r.tasks[i].work / kHour)
                    busy += needs->second;
            }
            if (busy > count) return false;
        }
    }
    return true;
}

/// The least finish in hours by trying every start below `limit`; none where no plan is.
std::optional<double> by_trying(const PlanRequest& r, int limit, int day_hours) {
    std::optional<double> best;
    std::vector<int> start(r.tasks.size(), 0);
    for (;;) {
        double finish = 0;
        for (std::size_t i = 0; i < start.size(); ++i)
            finish = std::max(finish, start[i] + (r.tasks[i].work + r.tasks[i].wait) / kHour);
        if ((!best || finish < *best) && keeps(r, start, day_hours)) best = finish;
        std::size_t i = 0;
        while (i < start.size() && ++start[i] == limit) start[i++] = 0;
        if (i == start.size()) return best;
    }
}

std::string refused(const PlanRequest& r) {
    try {
        planned(r);
    } catch (const InputError& e) {
        return e.what();
    }
    return {};
}

}  // namespace

TEST_CASE("a chain runs on over nights and the weekend as it is reckoned by hand") {
    // 6 h on Monday; 4 h break off at four and go on on Tuesday till ten; a cure of 20 h; 3 h that may not
    // break: Wednesday six o'clock is shut, so from eight; then 30 h to Tuesday noon over the weekend.
    auto cured = task("lay", 4, {{0, 0, {}}});
    cured.wait = 20 * kHour;
    auto whole = task("pull", 3, {{1, 0, {}}});
    whole.breakable = false;
    const auto p = planned(week({task("sand", 6), cured, whole, task("trim", 30, {{2, 0, {}}})}));
    CHECK(from(p, 0) == "2027-03-01T08:00");
    CHECK(to(p, 0) == "2027-03-01T14:00");
    CHECK(to(p, 1) == "2027-03-02T10:00");
    CHECK(from(p, 2) == "2027-03-03T08:00");
    CHECK(to(p, 2) == "2027-03-03T11:00");
    CHECK(to(p, 3) == "2027-03-09T09:00");
    CHECK(p.proved);
    CHECK(p.bound == p.finish);
    // Two hours of work are over before the cure's end meets the morning: two at once, or over the night.
    CHECK(*p.tasks[0].slack == Approx(2 * kHour).margin(2));
    CHECK(*p.tasks[1].slack == Approx(18 * kHour).margin(2));
    CHECK(p.tasks[2].slack == 0);
    CHECK(p.tasks[3].slack == 0);
}

TEST_CASE("what may not break waits for a shift that holds it, and two people work side by side") {
    auto whole = task("spray", 5);
    whole.breakable = false;
    auto r = week({task("mask", 4), whole});
    r.tasks[1].after = {{0, 0, {}}};
    CHECK(from(planned(r), 1) == "2027-03-02T08:00");
    // Four tasks of 4 h by one take two days, by two one; needing both at once they are one after another.
    auto four = week({task("a", 4), task("b", 4), task("c", 4), task("d", 4)});
    CHECK(write_wall_time(planned(four).finish) == "2027-03-02T16:00");
    four.resources["people"] = 2;
    CHECK(write_wall_time(planned(four).finish) == "2027-03-01T16:00");
    for (auto& t : four.tasks) t.needs["people"] = 2;
    CHECK(write_wall_time(planned(four).finish) == "2027-03-02T16:00");
    // Slack: a short one beside a long one.
    auto beside = week({task("long", 6), task("short", 2)});
    beside.resources["people"] = 2;
    const auto p = planned(beside);
    CHECK(p.tasks[0].slack == 0);
    CHECK(*p.tasks[1].slack == Approx(4 * kHour).margin(2));
}

TEST_CASE("a window makes what comes before it wait") {
    // The coat must be followed within an hour, and who follows is busy till noon.
    auto coat = task("coat", 1);
    coat.needs = {{"booth", 1}};
    auto r = week({coat, task("other", 4), task("lay", 2, {{0, 0, kHour}, {1, 0, {}}})});
    r.resources["booth"] = 1;
    const auto p = planned(r);
    CHECK(from(p, 2) == "2027-03-01T12:00");
    CHECK(from(p, 0) == "2027-03-01T10:00");
    // Over a night: 7 h first, then a coat of 1 h and within 30 min two hours that may not break.
    auto night = week({task("first", 7), task("coat", 1, {{0, 0, {}}}), task("lay", 2, {{1, 0, 1800.0}})});
    night.tasks[2].breakable = false;
    const auto q = planned(night);
    CHECK(from(q, 2) >= "2027-03-02T08:00");
    CHECK(q.tasks[2].from - q.tasks[1].to <= 1800 + 1e-6);
    CHECK(q.tasks[2].from >= q.tasks[1].to);
    // Less than the least wait is no window.
    auto never = week({task("a", 1), task("b", 1, {{0, 2 * kHour, 3 * kHour}}), task("c", 6, {{0, 0, {}}}),
                       task("d", 1, {{2, 0, {}}})});
    never.tasks[1].after.push_back({3, 0, {}});
    CHECK(refused(never).find("max_s") != std::string::npos);
}

TEST_CASE("nights cross midnight, holidays are shut, ovens run on, and a shop may never close") {
    auto r = week({task("a", 5), task("b", 5, {{0, 0, {}}})});
    r.calendar.shifts = {{22 * kHour, 6 * kHour}};
    const auto p = planned(r);
    CHECK(from(p, 0) == "2027-03-01T22:00");
    CHECK(to(p, 0) == "2027-03-02T03:00");
    CHECK(to(p, 1) == "2027-03-03T00:00");  // three hours to six, and two more the next night
    // Friday's night goes on into Saturday, and Saturday has none of its own.
    auto friday = r;
    friday.start = read_wall_time("2027-03-05T22:00", "test");
    CHECK(to(planned(friday), 1) == "2027-03-09T00:00");
    auto holiday = week({task("a", 10)});
    holiday.calendar.holidays.insert(static_cast<long>(read_wall_time("2027-03-02", "test") / 86400));
    CHECK(to(planned(holiday), 0) == "2027-03-03T10:00");
    auto oven = task("cure", 20);
    oven.needs = {{"oven", 1}};
    oven.any_time = true;
    auto cured = week({oven, oven});
    cured.tasks[1].name = "cure two";
    cured.resources["oven"] = 1;
    CHECK(write_wall_time(planned(cured).finish) == "2027-03-03T00:00");
    auto always = week({task("a", 100), task("b", 100)});
    always.calendar.days = {1, 2, 3, 4, 5, 6, 7};
    always.calendar.shifts = {{0, 86400}};
    CHECK(planned(always).finish - always.start == Approx(200 * kHour));
    // From the middle of a closed night the first stretch counts.
    auto early = week({task("a", 1)});
    early.start = read_wall_time("2027-02-27T03:20", "test");
    CHECK(from(planned(early), 0) == "2027-03-01T08:00");
}

TEST_CASE("random small plans are no longer than the best of all starts, and kept") {
    std::mt19937 random(7);
    const auto pick = [&](int low, int high) { return std::uniform_int_distribution(low, high)(random); };
    int solved = 0, none = 0, windows = 0;
    for (int run = 0; run < 120; ++run) {
        const bool shifts = run % 2 == 1;
        PlanRequest r;
        r.start = 0;
        r.calendar.days = {1, 2, 3, 4, 5, 6, 7};
        const int day = shifts ? 6 : 24;
        r.calendar.shifts = {{0, day * kHour}};
        r.resources = {{"people", pick(1, 2)}, {"oven", 1}};
        for (int i = 0; i < 4; ++i) {
            PlanTask t;
            t.name = std::string(1, static_cast<char>('a' + i));
            t.work = pick(1, 3) * kHour;
            t.breakable = false;
            t.any_time = pick(0, 4) == 0;
            t.wait = pick(0, 2) == 0 ? kHour * pick(1, 3) : 0;
            if (pick(0, 3) != 0) t.needs["people"] = pick(1, r.resources["people"]);
            if (pick(0, 2) == 0) t.needs["oven"] = 1;
            for (int k = 0; k < i; ++k) {
                if (pick(0, 3) != 0) continue;
                PlanLink l{static_cast<std::size_t>(k), kHour * pick(0, 2), {}};
                if (pick(0, 2) == 0) {
                    l.most = l.least + kHour * pick(0, 2);
                    ++windows;
                }
                t.after.push_back(l);
            }
            r.tasks.push_back(std::move(t));
        }
        INFO("run " << run);
        const auto want = by_trying(r, shifts ? 31 : 17, day);
        Plan got;
        try {
            got = planned(r);
        } catch (const InputError&) {
            CHECK_FALSE(want);
            ++none;
            continue;
        }
        std::vector<int> start;
        for (const auto& t : got.tasks) {
            CHECK(std::fmod(t.from, kHour) == Approx(0).margin(1e-3));
            start.push_back(static_cast<int>(std::lround(t.from / kHour)));
        }
        CHECK(keeps(r, start, day));
        CHECK(got.proved);
        CHECK(got.bound <= got.finish + 1e-6);
        if (want) CHECK(got.finish / kHour == Approx(*want));
        ++solved;
    }
    CHECK(solved > 90);
    CHECK(windows > 20);
    INFO(none);
}

TEST_CASE("a large plan comes back in its time with its gap to the bound") {
    std::mt19937 random(3);
    PlanRequest r = week({});
    r.resources = {{"people", 3}, {"oven", 1}};
    r.seconds = 0.3;
    for (int i = 0; i < 60; ++i) {
        auto t = task("", 1 + static_cast<double>(random() % 5));
        t.name = "t" + std::to_string(i);
        t.needs["people"] = 1 + static_cast<int>(random() % 2);
        if (random() % 4 == 0) t.needs["oven"] = 1;
        if (i > 4 && random() % 2 == 0) t.after.push_back({static_cast<std::size_t>(random() % 5), 0, {}});
        r.tasks.push_back(t);
    }
    const auto p = planned(r);
    CHECK(p.tasks.size() == 60);
    CHECK(p.bound <= p.finish);
    CHECK(p.finish - p.bound < 0.5 * (p.finish - r.start));
    // Nobody is asked for twice at once.
    for (const auto& a : p.tasks) {
        int people = 0;
        for (std::size_t k = 0; k < 60; ++k) {
            if (p.tasks[k].from <= a.from && a.from < p.tasks[k].to - 1e-6)
                people += r.tasks[k].needs.at("people");
        }
        CHECK(people <= 3);
    }
}

TEST_CASE(
    "hundreds of tasks with windows for one person are in order within the time, near what is possible") {
    std::mt19937 random(5);
    PlanRequest r = week({});
    r.seconds = 0.5;
    for (unsigned i = 0; i < 250; ++i) {
        auto t = task("", 1 + static_cast<double>(random() % 5));
        t.name = "t" + std::to_string(i);
        t.breakable = random() % 3 != 0;
        if (i > 0 && random() % 3 == 0) {
            PlanLink l{random() % i, 0, {}};
            if (random() % 5 == 0) l.most = 100 * kHour;
            t.after.push_back(l);
        }
        r.tasks.push_back(std::move(t));
    }
    const auto p = planned(r);
    CHECK(p.finish - p.bound < 0.05 * (p.finish - r.start));
    std::vector<std::size_t> order(r.tasks.size());
    for (std::size_t i = 0; i < order.size(); ++i) order[i] = i;
    std::sort(order.begin(), order.end(), [&](auto a, auto b) { return p.tasks[a].from < p.tasks[b].from; });
    for (std::size_t k = 1; k < order.size(); ++k)
        CHECK(p.tasks[order[k]].from >= p.tasks[order[k - 1]].to - 1e-6);
    for (std::size_t i = 0; i < order.size(); ++i) {
        for (const auto& l : r.tasks[i].after) {
            CHECK(p.tasks[i].from >= p.tasks[l.task].to - 1e-6);
            if (l.most) CHECK(p.tasks[i].from <= p.tasks[l.task].to + *l.most + 1e-6);
        }
    }
}

TEST_CASE("what can never be done is refused with the task that is to blame") {
    auto whole = task("whole", 9);
    whole.breakable = false;
    CHECK(refused(week({whole})).find("tasks[0]") != std::string::npos);
    auto two = task("two", 1);
    two.needs["people"] = 2;
    CHECK(refused(week({two})).find("there are 1") != std::string::npos);
    auto crane = task("crane", 1);
    crane.needs["crane"] = 1;
    CHECK(refused(week({crane})).find("no resource") != std::string::npos);
    CHECK(refused(week({task("a", 1, {{1, 0, {}}}), task("b", 1, {{0, 0, {}}})})).find("each other") !=
          std::string::npos);
    CHECK_FALSE(refused(week({})).empty());
    CHECK_THROWS_AS(read_wall_time("2027-02-29T08:00", "x"), InputError);
    CHECK_THROWS_AS(read_wall_time("yesterday", "x"), InputError);
    CHECK(write_wall_time(read_wall_time("2028-02-29T23:59:30", "x")) == "2028-02-29T23:59:30");
}
