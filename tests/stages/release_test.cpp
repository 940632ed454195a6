// The faces of a job, their coats and their judgements; the log's entries as each face's record.
#include <catch2/catch.hpp>
#include <set>

#include "core/stages/release/work.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"

using namespace jig;
using fixtures::call;
using fixtures::small_job;
using fixtures::worked_out;

namespace {

const release::Face& face_of(const Findings& f, release::FaceOf of) {
    for (const auto& face : f.release->faces) {
        if (face.of == of) return face;
    }
    FAIL("no such face");
    return f.release->faces.front();
}

}  // namespace

TEST_CASE("no cell of the shipped table is silence, and what is not good names a way out") {
    const auto& shop = fixtures::shop();
    std::set<std::tuple<PairOf, std::string, ReleaseKind>> cells;
    for (const auto& pair : shop.release_pairs) {
        INFO(pair.name);
        CHECK(cells.insert({pair.of, pair.what, pair.system}).second);
        CHECK_FALSE(pair.why.empty());
        CHECK((pair.verdict == Verdict::good) == pair.mend.empty());
        CHECK_FALSE(pair.origin.note.empty());
    }
    std::size_t wanted = 0;
    for (std::size_t k = 0; k < Words<ReleaseKind>::all.size(); ++k) {
        const auto kind = static_cast<ReleaseKind>(k);
        for (std::size_t i = 1; i < Words<FaceKind>::all.size(); ++i, ++wanted)
            CHECK(cells.count({PairOf::surface, std::string(Words<FaceKind>::all[i].file), kind}) == 1);
        for (const auto& w : Words<FaceHistory>::all)
            CHECK((++wanted, cells.count({PairOf::history, std::string(w.file), kind}) == 1));
        for (const auto& w : Words<Family>::all)
            CHECK((++wanted, cells.count({PairOf::resin, std::string(w.file), kind}) == 1));
    }
    CHECK(cells.size() == wanted);
}

TEST_CASE("the dear mistakes are stops in the shipped table, and what every shop does is not") {
    const auto verdict = [](FaceKind s, FaceHistory h, Family r, ReleaseKind k) {
        auto worst = Verdict::good;
        for (const auto& j : release::judged(s, h, r, k, fixtures::shop()))
            worst = std::max(worst, j.verdict);
        return worst;
    };
    using enum FaceHistory;
    CHECK(verdict(FaceKind::epoxy_coat, waxed, Family::epoxy, ReleaseKind::semi_permanent) == Verdict::stop);
    CHECK(verdict(FaceKind::epoxy_coat, filmed, Family::epoxy, ReleaseKind::semi_permanent) == Verdict::stop);
    CHECK(verdict(FaceKind::foam, fresh, Family::epoxy, ReleaseKind::wax) == Verdict::stop);
    CHECK(verdict(FaceKind::wood, fresh, Family::epoxy, ReleaseKind::wax_film) == Verdict::stop);
    CHECK(verdict(FaceKind::foam, fresh, Family::epoxy, ReleaseKind::tape) == Verdict::good);
    CHECK(verdict(FaceKind::top_coat, fresh, Family::polyester, ReleaseKind::wax_film) == Verdict::good);
    CHECK(verdict(FaceKind::epoxy_coat, fresh, Family::epoxy, ReleaseKind::semi_permanent) == Verdict::good);
    CHECK(verdict(FaceKind::gelcoat, waxed, Family::polyester, ReleaseKind::wax) == Verdict::good);
    CHECK(verdict(FaceKind::epoxy_coat, repaired, Family::epoxy, ReleaseKind::semi_permanent) ==
          Verdict::caution);
    // A shop that has emptied its list is told so, not that all is well.
    Shop bare = fixtures::shop();
    bare.release_pairs.clear();
    for (const auto& j : release::judged(FaceKind::metal, fresh, Family::epoxy, ReleaseKind::wax, bare))
        CHECK(j.verdict == Verdict::caution);
}

TEST_CASE("coats lie across each other, and their clock is the sum of work and waits") {
    ReleaseCoat a, b;
    a.product = "a";
    a.coats = 2;
    a.wait = 600;
    a.minutes = 5;
    a.turn = kPi / 2;
    b.product = "b";
    b.coats = 3;
    b.wait = 60;
    b.minutes = 1;
    b.turn = kPi / 2;
    double clock = 0;
    const auto steps = release::coats_of({a, b}, 2, &clock);
    REQUIRE(steps.size() == 5);
    CHECK(steps[1].at == Approx(2 * 5 * 60 + 600));
    CHECK(steps[2].at == Approx(2 * (600 + 600)));
    CHECK(clock == Approx(2 * (600 + 600) + 3 * (120 + 60)));
    CHECK(steps[0].turn == 0);
    CHECK(steps[1].turn == Approx(kPi / 2));
    CHECK(steps[2].turn == 0);
    CHECK(steps[3].turn == Approx(kPi / 2));
    CHECK(steps[4].turn == Approx(3 * kPi / 4));  // aslant to both
}

TEST_CASE("litres count what is sprayed past the face, tape its laps") {
    auto job = small_job();
    job.release.system = "wax and PVA film";
    auto f = worked_out(job);
    // By hand from the shipped list: wax 4 coats at 60 m²/L; mist 2 at 25 with 35 % past it; wet 2 at 10 with
    // 25 %.
    const double area = f.release->area;
    CHECK(f.release->litres == Approx(3 * area / 60 + 2 * area / 25 / 0.65 + 2 * area / 10 / 0.75));
    job.release.system = "release tape";
    f = worked_out(job);
    const auto& mould = face_of(f, release::FaceOf::mould);
    CHECK(mould.strips == Approx(area / (0.100 - 0.003)));
    double bought = 0;
    for (const auto& goods : release::work(*f.release, fixtures::shop()).goods) {
        if (goods.what.find("release tape, first use") != std::string::npos) {
            CHECK(goods.kind == Kind::length);
            bought += goods.amount;
        }
    }
    double strips = 0;
    for (const auto& face : f.release->faces) strips += face.strips;
    CHECK(bought == Approx(strips));
}

TEST_CASE("faces are what the job builds: plugs, boards, pieces, and what the maker adds") {
    auto f = worked_out(small_job());
    REQUIRE(f.release->faces.size() == 2);
    CHECK(f.release->faces[0].name == "plug");
    CHECK(f.release->faces[0].surface == FaceKind::top_coat);
    CHECK(f.release->faces[1].name == "mould");
    CHECK(f.release->faces[1].surface == FaceKind::epoxy_coat);
    CHECK(f.release->faces[1].area == Approx(f.release->area));
    auto job = small_job();
    job.shell.layers.front().material = "polyester tooling gelcoat";
    job.release.loose = {{"core of the handle", FaceKind::metal, FaceHistory::waxed, "paste wax", 0.2}};
    f = worked_out(job);
    CHECK(face_of(f, release::FaceOf::mould).surface == FaceKind::gelcoat);
    const auto& loose = face_of(f, release::FaceOf::loose);
    CHECK(loose.area == 0.2);
    CHECK(loose.system.name == "paste wax");
    // Its own words outrank what is built.
    job.release.mould.surface = FaceKind::metal;
    CHECK(face_of(worked_out(job), release::FaceOf::mould).surface == FaceKind::metal);

    const auto whole = worked_out(fixtures::demo("cello-case-whole"));
    std::set<std::string> names;
    double mould = 0;
    for (const auto& face : whole.release->faces) {
        CHECK(names.insert(face.name).second);
        if (face.of == release::FaceOf::mould) mould += face.area;
        if (face.of == release::FaceOf::boards) {
            CHECK(face.surface == FaceKind::wood);
            CHECK(face.system.kind == ReleaseKind::tape);
        }
    }
    CHECK(names.size() >= 4);
    CHECK(mould == Approx(whole.release->area));
    CHECK(whole.release->seam > 3);
    // Wax in a hollow of 3 mm on both sides of the line: (1 - π/4) r² each.
    CHECK(whole.release->seam_fill == Approx((1 - kPi / 4) * 9e-6 * 2 * whole.release->seam * 920));
}

TEST_CASE("each call about a pair offers what puts it right") {
    auto job = small_job();
    job.release.plug.surface = FaceKind::wood;
    auto f = worked_out(job);
    REQUIRE(call(f, "surface_plug") != nullptr);
    REQUIRE(call(f, "surface_plug")->fix);
    auto mended = patched(job, call(f, "surface_plug")->fix->patch);
    CHECK(call(worked_out(mended), "surface_plug") == nullptr);
    CHECK(mended.release.system == job.release.system);
    job = small_job();
    job.release.mould.history = FaceHistory::waxed;
    f = worked_out(job);
    REQUIRE(call(f, "history_mould") != nullptr);
    mended = patched(job, call(f, "history_mould")->fix->patch);
    CHECK(mended.release.mould.history == FaceHistory::sanded);
    CHECK(call(worked_out(mended), "history_mould") == nullptr);
}

TEST_CASE("entries without a face are about all of the mould's, others about their own") {
    auto job = small_job();
    job.log.entries = {{"2026-06-01T08:00Z", EntryKind::coat, 0, 1, "", "plug", "sealer"},
                       {"2026-06-01T09:00Z", EntryKind::coat, 0, 1, "", "", "sealer"},
                       {"2026-06-01T10:00Z", EntryKind::repair, 0, 2, "", "mould"},
                       {"2026-06-01T11:00Z", EntryKind::note, 0, 3, ""}};
    const auto f = worked_out(job);
    REQUIRE(f.log->faces.size() == 2);
    const auto& plug = f.log->faces[0];
    const auto& mould = f.log->faces[1];
    REQUIRE(plug.events.size() == 1);
    CHECK(plug.events[0].product == "sealer");
    REQUIRE(mould.events.size() == 3);
    CHECK(mould.events[0].kind == release::Event::Kind::coat);
    CHECK(mould.events[1].kind == release::Event::Kind::repair);
    CHECK(mould.events[2].coats == 2);
    CHECK(f.log->strangers.empty());
    CHECK_FALSE(mould.gate(read_moment("2026-06-02T10:00Z")->at).go);
}

TEST_CASE("a pull against the gate is said once, unless its reason was kept") {
    auto job = small_job();
    job.log.entries = {{"2026-06-01T08:00Z", EntryKind::care, 0, 7, ""},
                       {"2026-06-01T09:00Z", EntryKind::pull, 0, 0, ""},
                       {"2026-06-02T09:00Z", EntryKind::pull, 0, 0, ""}};
    // Seven coats in one line at eight cannot have cured by nine; the next day a touch-up was due.
    auto f = worked_out(job);
    REQUIRE(f.log->forced.size() == 1);
    CHECK(f.log->forced[0].pull == 2);
    job.log.entries[0].coats = 3;
    f = worked_out(job);
    REQUIRE(f.log->forced.size() == 2);
    CHECK(f.log->forced[0].pull == 1);
    REQUIRE(call(f, "against_gate") != nullptr);
    job.log.entries[1].reason = "a trial";
    job.log.entries[2].reason = "another";
    f = worked_out(job);
    CHECK(f.log->forced.empty());
    CHECK(call(f, "against_gate") == nullptr);
}

TEST_CASE("a loose piece that is renamed on a board is known by its new name") {
    JobBoard board;
    auto job = small_job();
    job.release.loose = {{"loose piece 1", FaceKind::metal, FaceHistory::fresh, "", 0.05}};
    CHECK(board.work_out(board.lay(job, fixtures::shared_shop()), Depth::stages, quiet)
              .release->faces.back()
              .name == "loose piece 1");
    job.release.loose[0].name = "handle core";
    const auto f = board.work_out(board.lay(job, fixtures::shared_shop()), Depth::stages, quiet);
    CHECK(f.release->faces.back().name == "handle core");
    CHECK(f.log->faces.back().name == "handle core");
}

TEST_CASE("lines left open between pieces are called, their fix closes and buys; rims kept clear are said") {
    auto job = fixtures::demo("cello-case-whole");
    auto f = worked_out(job);
    CHECK(call(f, "seam_open") == nullptr);
    CHECK(call(f, "rims_clear") == nullptr);
    job.release.seam = SeamFill::none;
    job.release.rims_released = false;
    f = worked_out(job);
    CHECK(f.release->seam_fill == 0);
    CHECK(call(f, "rims_clear") != nullptr);
    REQUIRE(call(f, "seam_open") != nullptr);
    REQUIRE(call(f, "seam_open")->fix);
    const auto mended = worked_out(patched(job, call(f, "seam_open")->fix->patch));
    CHECK(call(mended, "seam_open") == nullptr);
    CHECK(mended.release->seam_fill > 0);
    // Raw plywood under wax: the boards' own fix changes theirs and nobody else's.
    job.release.boards.system = "paste wax";
    f = worked_out(job);
    REQUIRE(call(f, "surface_boards") != nullptr);
    REQUIRE(call(f, "surface_boards")->fix);
    const auto boards = patched(job, call(f, "surface_boards")->fix->patch);
    CHECK(call(worked_out(boards), "surface_boards") == nullptr);
    CHECK(boards.release.mould == job.release.mould);
    CHECK(boards.release.system == job.release.system);
}
