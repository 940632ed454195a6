// The gate against forty histories, each answered by hand from the rules of craft.md 8.
#include <catch2/catch.hpp>

#include "core/base/times.hpp"
#include "core/stages/release/gate.hpp"

using namespace jig;

namespace jig::release {

namespace {

/// A Monday morning, and what is counted from it.
const double kStart = read_moment("2026-06-01T08:00Z")->at;

/// Two coats of sealer half an hour apart, then three of release 20 min apart; cured 3 h after the last; good
/// for 5 days; a touch-up of one coat after each of the first two pulls, then after three.
ReleaseSystem semi() {
    ReleaseSystem s;
    s.name = "semi";
    s.kind = ReleaseKind::semi_permanent;
    ReleaseCoat sealer, release;
    sealer.product = "sealer";
    sealer.coats = 2;
    sealer.wait = 30 * kMinute;
    sealer.latest = 8 * kHour;
    sealer.turn = kPi / 2;
    release.product = "release";
    release.coats = 3;
    release.wait = 20 * kMinute;
    release.turn = kPi / 2;
    s.first_use = {sealer, release};
    release.coats = 1;
    s.each_pull = {release};
    s.final_cure = 3 * kHour;
    s.pulls_per_touch_up = 3;
    s.season = 2;
    s.good_for = 5 * kDay;
    return s;
}

/// Wax each pull: two coats an hour apart at first, one after each pull, an hour until it may be laid on.
ReleaseSystem wax() {
    ReleaseSystem s;
    s.name = "wax";
    s.kind = ReleaseKind::wax;
    ReleaseCoat coat;
    coat.product = "paste wax";
    coat.coats = 2;
    coat.wait = kHour;
    s.first_use = {coat};
    coat.coats = 1;
    s.each_pull = {coat};
    s.final_cure = kHour;
    s.pulls_per_touch_up = 1;
    return s;
}

Event coat(double after, std::string product = {}, std::optional<double> way = {}, int coats = 1) {
    return {Event::Kind::coat, {kStart + after, true}, std::move(product), coats, way};
}
Event on_day(double after, int coats) {
    return {Event::Kind::coat, {kStart + after, false}, {}, coats, {}};
}
Event pull(double after) {
    return {Event::Kind::pull, {kStart + after, true}, {}, 0, {}};
}
Event repair(double after) {
    return {Event::Kind::repair, {kStart + after, true}, {}, 0, {}};
}
Event strip(double after) {
    return {Event::Kind::strip, {kStart + after, true}, {}, 0, {}};
}

/// All five coats of semi, done by the clock: the last at 1 h 40 min.
std::vector<Event> coated() {
    return {coat(0), coat(30 * kMinute), coat(kHour), coat(80 * kMinute), coat(100 * kMinute)};
}
std::vector<Event> then(std::vector<Event> first, std::vector<Event> more) {
    first.insert(first.end(), more.begin(), more.end());
    return first;
}

struct History {
    const char* said;
    std::vector<Event> events;
    double asked;  ///< s after the start
    bool go;
    int missing;                     ///< coats that are still to come
    std::optional<double> earliest;  ///< s after the start; none while coats are missing
};

}  // namespace

TEST_CASE("forty histories and what the gate says of each") {
    const double last = 100 * kMinute, cured = last + 3 * kHour, good = last + 5 * kDay;
    const std::vector<History> semi_histories{
        {"nothing noted", {}, kHour, false, 5, {}},
        {"one coat of five", {coat(0)}, kHour, false, 4, {}},
        {"four of five",
         {coat(0), coat(30 * kMinute), coat(kHour), coat(80 * kMinute)},
         5 * kHour,
         false,
         1,
         {}},
        {"all five, asked at once", coated(), last, false, 0, cured},
        {"a minute too early", coated(), cured - 2 * kMinute, false, 0, cured},
        {"cured on the minute", coated(), cured, true, 0, cured},
        {"next day", coated(), kDay, true, 0, cured},
        {"the last day that it keeps", coated(), good - kMinute, true, 0, cured},
        {"it waited too long", coated(), good + kHour, false, 0, cured},
        {"one coat more after waiting too long", then(coated(), {coat(good + kHour)}), good + 5 * kHour, true,
         0, good + 4 * kHour},
        {"seven noted as one line on a day", {on_day(16 * kHour, 5)}, 30 * kHour, true, 0, 19 * kHour},
        {"the same, asked on that day", {on_day(16 * kHour, 5)}, 10 * kHour, false, 0, 13 * kHour},
        {"three lines of a day without times",
         {on_day(16 * kHour, 2), on_day(16 * kHour, 2), on_day(16 * kHour, 1)},
         40 * kHour,
         true,
         0,
         19 * kHour},
        {"a second coat on a wet first does not count",
         {coat(0), coat(10 * kMinute), coat(kHour), coat(90 * kMinute), coat(2 * kHour), coat(150 * kMinute)},
         10 * kHour,
         true,
         0,
         150 * kMinute + 3 * kHour},
        {"and without its repeat one is missing",
         {coat(0), coat(10 * kMinute), coat(kHour), coat(90 * kMinute), coat(2 * kHour)},
         10 * kHour,
         false,
         1,
         {}},
        {"sealer dried past its window: the run begins again",
         {coat(0), coat(30 * kMinute), coat(12 * kHour, "release")},
         13 * kHour,
         false,
         5,
         {}},
        {"release before the sealer does not count", {coat(0, "release")}, 5 * kHour, false, 5, {}},
        {"a third coat of sealer does no harm",
         {coat(0, "sealer"), coat(30 * kMinute, "sealer"), coat(kHour, "sealer"),
          coat(90 * kMinute, "release"), coat(2 * kHour, "release"), coat(150 * kMinute, "release")},
         10 * kHour,
         true,
         0,
         150 * kMinute + 3 * kHour},
        {"wax on it spoils it", {coat(0, "paste wax")}, kHour, false, 5, {}},
        {"wax after all coats spoils it too",
         then(coated(), {coat(kDay, "paste wax")}),
         2 * kDay,
         false,
         0,
         {}},
        {"stripped, it begins anew",
         then(coated(), {coat(kDay, "paste wax"), strip(kDay + kHour)}),
         2 * kDay,
         false,
         5,
         {}},
        {"first pull: the season wants a coat", then(coated(), {pull(kDay)}), kDay + kHour, false, 1, {}},
        {"given, and cured", then(coated(), {pull(kDay), coat(kDay + kHour)}), kDay + 4 * kHour, true, 0,
         kDay + 4 * kHour},
        {"given, not cured", then(coated(), {pull(kDay), coat(kDay + kHour)}), kDay + 2 * kHour, false, 0,
         kDay + 4 * kHour},
        {"third pull after two seasoned ones",
         then(coated(),
              {pull(kDay), coat(kDay + kHour), pull(2 * kDay), coat(2 * kDay + kHour), pull(3 * kDay)}),
         3 * kDay + kHour, true, 0, 3 * kDay},
        {"fifth: three since the last coat",
         then(coated(), {pull(kDay), coat(kDay + kHour), pull(2 * kDay), coat(2 * kDay + kHour),
                         pull(3 * kDay), pull(4 * kDay), pull(5 * kDay)}),
         6 * kDay,
         false,
         1,
         {}},
        {"repaired: all coats on that place",
         then(coated(), {repair(kDay)}),
         kDay + 10 * kHour,
         false,
         5,
         {}},
        {"repaired and half done",
         then(coated(), {repair(kDay), coat(kDay + kHour), coat(kDay + 2 * kHour)}),
         kDay + 10 * kHour,
         false,
         3,
         {}},
        {"repaired and done",
         then(coated(), {repair(kDay), coat(kDay), coat(kDay + kHour), coat(kDay + 2 * kHour),
                         coat(kDay + 3 * kHour), coat(kDay + 4 * kHour)}),
         kDay + 7 * kHour, true, 0, kDay + 7 * kHour},
        {"repaired between touch-ups",
         then(coated(), {pull(kDay), repair(kDay + kHour), coat(kDay + 2 * kHour)}),
         2 * kDay,
         false,
         4,
         {}},
        {"the place is done, but all of the face was due for its touch-up",
         then(coated(), {pull(kDay), repair(kDay + kHour), coat(kDay + 2 * kHour), coat(kDay + 3 * kHour),
                         coat(kDay + 4 * kHour), coat(kDay + 5 * kHour), coat(kDay + 6 * kHour)}),
         2 * kDay,
         false,
         1,
         {}},
        {"and when that is given too",
         then(coated(), {pull(kDay), repair(kDay + kHour), coat(kDay + 2 * kHour), coat(kDay + 3 * kHour),
                         coat(kDay + 4 * kHour), coat(kDay + 5 * kHour), coat(kDay + 6 * kHour),
                         coat(kDay + 7 * kHour)}),
         2 * kDay, true, 0, kDay + 10 * kHour},
        {"a coat noted for tomorrow is not on yet",
         {coat(0), coat(30 * kMinute), coat(kHour), coat(80 * kMinute), coat(kDay)},
         5 * kHour,
         false,
         1,
         {}},
        {"past midnight",
         {coat(15 * kHour), coat(15.5 * kHour), coat(16 * kHour), coat(16.5 * kHour), coat(17 * kHour)},
         20 * kHour,
         true,
         0,
         20 * kHour},
        {"a clock that jumps back: read as later than the line before",
         {coat(0), coat(30 * kMinute), coat(kHour), coat(80 * kMinute), coat(-2 * kDay)},
         80 * kMinute + 2 * kHour,
         false,
         1,
         {}},
        {"the same with a day alone: taken as done by then",
         {coat(0), coat(30 * kMinute), coat(kHour), coat(80 * kMinute), on_day(-8 * kHour, 1)},
         10 * kHour,
         true,
         0,
         80 * kMinute + 3 * kHour},
        {"all coats one way: one across is missing",
         {coat(0, "sealer", 0.0), coat(30 * kMinute, "sealer", kPi / 2), coat(kHour, "release", 0.0),
          coat(80 * kMinute, "release", 0.1), coat(100 * kMinute, "release", kPi - 0.1)},
         10 * kHour,
         false,
         1,
         {}},
        {"one across puts it right",
         {coat(0, "sealer", 0.0), coat(30 * kMinute, "sealer", kPi / 2), coat(kHour, "release", 0.0),
          coat(80 * kMinute, "release", 0.0), coat(100 * kMinute, "release", 0.0),
          coat(2 * kHour, "release", kPi / 2)},
         10 * kHour,
         true,
         0,
         5 * kHour},
        {"sealer one way only",
         {coat(0, "sealer", 0.0), coat(30 * kMinute, "sealer", 0.0), coat(kHour, "release", 0.0),
          coat(80 * kMinute, "release", kPi / 2), coat(100 * kMinute, "release", kPi / 4)},
         10 * kHour,
         true,
         0,
         cured},
    };
    for (const auto& h : semi_histories) {
        INFO(h.said);
        const auto gate = gate_at(semi(), FaceHistory::fresh, h.events, kStart + h.asked);
        CHECK(gate.go == h.go);
        CHECK(static_cast<int>(gate.state.next.size()) == h.missing);
        CHECK(gate.earliest.has_value() == h.earliest.has_value());
        if (gate.earliest && h.earliest) CHECK(*gate.earliest - kStart == Approx(*h.earliest).margin(1));
        if (!gate.go) CHECK_FALSE(gate.reasons.empty());
    }
    const std::vector<History> wax_histories{
        {"waxed twice", {coat(0), coat(kHour)}, 2 * kHour, true, 0, 2 * kHour},
        {"after a pull one coat", {coat(0), coat(kHour), pull(kDay)}, kDay + kHour, false, 1, {}},
        {"given", {coat(0), coat(kHour), pull(kDay), coat(kDay)}, kDay + kHour, true, 0, kDay + kHour},
        {"weeks later wax is still good", {coat(0), coat(kHour)}, 60 * kDay, true, 0, 2 * kHour},
        {"three coats too many",
         {coat(0), coat(kHour), coat(2 * kHour), coat(3 * kHour)},
         4 * kHour,
         true,
         0,
         4 * kHour},
    };
    for (const auto& h : wax_histories) {
        INFO(h.said);
        const auto gate = gate_at(wax(), FaceHistory::fresh, h.events, kStart + h.asked);
        CHECK(gate.go == h.go);
        CHECK(static_cast<int>(gate.state.next.size()) == h.missing);
        if (gate.earliest && h.earliest) CHECK(*gate.earliest - kStart == Approx(*h.earliest).margin(1));
    }
    CHECK(semi_histories.size() + wax_histories.size() >= 40);
}

TEST_CASE("a face that has been under the same system needs its upkeep, not all coats") {
    CHECK(gate_at(semi(), FaceHistory::semi_permanent, {}, kStart).state.next.size() == 1);
    CHECK(gate_at(semi(), FaceHistory::waxed, {}, kStart).state.next.size() == 5);
    CHECK(gate_at(wax(), FaceHistory::waxed, {}, kStart).state.next.size() == 1);
    CHECK(gate_at(wax(), FaceHistory::repaired, {}, kStart).state.standing == Standing::repaired);
}

TEST_CASE("daylight saving takes no hour off a cure and gives none") {
    setenv("TZ", "CET-1CEST,M3.5.0,M10.5.0/3", 1);
    tzset();
    // Waxed at 00:30 on the night of the change: an hour's wait, an hour's cure, by the hour and not by the
    // wall.
    for (const char* day : {"2026-03-29", "2026-10-25"}) {
        const auto at = [&](const char* time) { return *read_moment(std::string(day) + "T" + time); };
        const std::vector<Event> night{{Event::Kind::coat, at("00:30"), {}, 1, {}},
                                       {Event::Kind::coat, at("01:35"), {}, 1, {}}};
        const auto gate = gate_at(wax(), FaceHistory::fresh, night, at("04:00").at);
        CHECK(gate.go);
        CHECK(*gate.earliest == at("01:35").at + 3600);
    }
    const auto second = read_moment("2026-10-25T01:35");
    CHECK(write_moment(second->at + 3600) == "2026-10-25T02:35+02:00");
    unsetenv("TZ");
    tzset();
}

TEST_CASE("two faces keep two clocks") {
    const auto first = gate_at(semi(), FaceHistory::fresh, coated(), kStart + 2 * kHour);
    auto late = coated();
    for (auto& e : late) e.when.at += 6 * kHour;
    const auto second = gate_at(semi(), FaceHistory::fresh, late, kStart + 8 * kHour);
    CHECK(*second.earliest - *first.earliest == Approx(6 * kHour));
    CHECK(*second.latest - *first.latest == Approx(6 * kHour));
}

TEST_CASE(
    "what is asked twice is answered twice alike, and more waiting never shuts a gate before it keeps no "
    "longer") {
    bool was = false;
    for (double t = 0; t < 5 * kDay; t += 17 * kMinute) {
        const auto gate = gate_at(semi(), FaceHistory::fresh, coated(), kStart + t);
        CHECK(gate == gate_at(semi(), FaceHistory::fresh, coated(), kStart + t));
        CHECK_FALSE((was && !gate.go));
        was = gate.go;
    }
    CHECK(was);
    ReleaseSystem none = semi();
    none.first_use.clear();
    CHECK_THROWS_AS(gate_at(none, FaceHistory::fresh, {}, kStart), InputError);
}

}  // namespace jig::release
