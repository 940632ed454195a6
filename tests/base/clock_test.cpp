// Moments as they are written, across the changes of the clock. Offsets and changes of Berlin and New York
// are those of the IANA time zone database: Berlin went to summer time on 2026-03-29 01:00 UTC and back on
// 2026-10-25 01:00 UTC, New York back on 2026-11-01 06:00 UTC.
#include <catch2/catch.hpp>
#include <cstdlib>
#include <ctime>
#include <string>

#include "core/base/clock.hpp"

using namespace jig;

namespace {

/// This process' time zone, for a while.
struct InZone {
    std::string before;
    explicit InZone(const char* zone) : before(std::getenv("TZ") == nullptr ? "" : std::getenv("TZ")) {
        setenv("TZ", zone, 1);
        tzset();
    }
    InZone(const InZone&) = delete;
    InZone& operator=(const InZone&) = delete;
    ~InZone() {
        if (before.empty())
            unsetenv("TZ");
        else
            setenv("TZ", before.c_str(), 1);
        tzset();
    }
};

// Zones in POSIX' own words, so that the machine needs no table of them.
constexpr const char* kBerlin = "CET-1CEST,M3.5.0,M10.5.0/3";
constexpr const char* kNewYork = "EST5EDT,M3.2.0,M11.1.0";

double at(const char* text) {
    const auto m = read_moment(text);
    REQUIRE(m);
    return m->at;
}

}  // namespace

TEST_CASE("moments with an offset are the same everywhere") {
    for (const char* zone : {"UTC0", kBerlin, kNewYork}) {
        const InZone in(zone);
        INFO(zone);
        // 2026-01-01 is 20454 days after 1970-01-01: 56 years of 365 days and 14 leap days.
        CHECK(at("2026-01-01T00:00Z") == 20454.0 * 86400);
        CHECK(at("2026-01-01T02:30+02:00") == at("2026-01-01T00:30Z"));
        CHECK(at("2025-12-31T19:30-05:00") == at("2026-01-01T00:30Z"));
        CHECK(at("2026-01-01 05:45+05:45") == at("2026-01-01T00:00Z"));
        // What is written is read back, to the minute.
        for (const char* text : {"2026-03-29T00:59Z", "2026-03-29T01:00Z", "2026-10-25T00:30Z",
                                 "2026-10-25T01:30Z", "2024-02-29T12:00Z"})
            CHECK(at(write_moment(at(text)).c_str()) == at(text));
    }
}

TEST_CASE("without an offset it is this zone's time, the later one where an hour comes twice") {
    const InZone berlin(kBerlin);
    CHECK(at("2026-05-31T14:30") == at("2026-05-31T12:30Z"));
    CHECK(at("2026-01-31T14:30") == at("2026-01-31T13:30Z"));
    CHECK(at("2026-10-25T02:30") == at("2026-10-25T01:30Z"));  // again, not at 00:30 UTC
    CHECK(at("2026-10-25T01:59") == at("2026-10-24T23:59Z"));
    CHECK(at("2026-10-25T03:00") == at("2026-10-25T02:00Z"));
    // 02:30 was leapt over on 29 March: the moment lies within an hour of the leap.
    CHECK(std::abs(at("2026-03-29T02:30") - at("2026-03-29T01:00Z")) <= 3600);
    CHECK(write_moment(at("2026-10-25T00:30Z")) == "2026-10-25T02:30+02:00");
    CHECK(write_moment(at("2026-10-25T01:30Z")) == "2026-10-25T02:30+01:00");
    {
        const InZone york(kNewYork);
        CHECK(at("2026-11-01T01:30") == at("2026-11-01T06:30Z"));
    }
    CHECK(moment_words(at("2026-05-31T12:30Z"), at("2026-06-01T00:00Z")) == "31 May 14:30");
    CHECK(moment_words(at("2025-12-31T12:30Z"), at("2026-06-01T00:00Z")) == "31 December 2025 13:30");
}

TEST_CASE("a day alone ends at its midnight, also on days of 23 and 25 hours") {
    const InZone berlin(kBerlin);
    const auto day = [](const char* text) {
        const auto m = read_moment(text);
        REQUIRE(m);
        CHECK_FALSE(m->timed);
        return m->at;
    };
    CHECK(day("2026-05-31") == at("2026-06-01T00:00"));
    CHECK(day("2026-12-31") == at("2027-01-01T00:00"));
    CHECK(day("2024-02-28") == at("2024-02-29T00:00"));
    CHECK(day("2026-03-29") - day("2026-03-28") == 23 * 3600);
    CHECK(day("2026-10-25") - day("2026-10-24") == 25 * 3600);
    CHECK(read_moment("2026-05-31T14:30")->timed);
}

TEST_CASE("what is no moment is refused") {
    for (const char* text : {"",
                             "2026",
                             "2026-5-31",
                             "2026-02-30",
                             "2025-02-29",
                             "2026-13-01",
                             "2026-00-10",
                             "2026-04-31",
                             "2026-05-00",
                             "31.5.2026",
                             "2026-05-31T",
                             "2026-05-31T24:00",
                             "2026-05-31T12:60",
                             "2026-05-31T1:30",
                             "2026-05-31T12:30+",
                             "2026-05-31T12:30+2",
                             "2026-05-31T12:30+15:00",
                             "2026-05-31T12:30Zx",
                             "2026-05-31 12:30 ",
                             "x026-05-31",
                             "1969-12-31",
                             "2026-05-31T12:3O"}) {
        INFO(text);
        CHECK_FALSE(read_moment(text));
    }
}
