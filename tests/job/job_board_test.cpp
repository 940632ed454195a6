// The board that a window and a command keep their findings on.
#include <catch2/catch.hpp>
#include <functional>
#include <map>
#include <thread>

#include "core/base/slate.hpp"
#include "core/job/schools.hpp"
#include "core/job/trial.hpp"
#include "core/stages/back/suggest.hpp"
#include "core/stages/shell/find_stack.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"

using namespace jig;
using fixtures::call;
using fixtures::shared_shop;
using fixtures::small_job;

namespace {

Findings on(JobBoard& board, const Job& job, std::shared_ptr<const Shop> shop = shared_shop()) {
    return board.work_out(board.lay(job, std::move(shop)), Depth::stages, quiet);
}

/// A shop with one of its lists changed.
template <class Change>
std::shared_ptr<const Shop> changed(Change&& change) {
    auto out = std::make_shared<Shop>(fixtures::shop());
    change(*out);
    return out;
}

}  // namespace

TEST_CASE("a kept offcut renews what is cut from boards, and nothing that is not") {
    JobBoard board;
    const auto job = small_job();
    const auto before = on(board, job);
    const auto after = on(board, job, changed([](Shop& s) {
                              auto offcut = s.boards.front();
                              offcut.name = "an offcut";
                              offcut.sheet_length = 0.4;
                              s.boards.push_back(offcut);
                          }));
    CHECK(after.brief == before.brief);
    CHECK(after.shape == before.shape);
    CHECK(after.split == before.split);
    CHECK(after.edge == before.edge);
    CHECK(after.shell == before.shell);
    CHECK(after.part == before.part);
    CHECK(after.release == before.release);
    CHECK(after.log == before.log);
    CHECK(after.calls == before.calls);
}

TEST_CASE("a price reaches the ledgers and no laminate") {
    JobBoard board;
    const auto job = small_job();
    const auto before = on(board, job);
    const auto dear = on(board, job, changed([](Shop& s) {
                             for (auto& r : s.rates) {
                                 if (r.name == "labour") r.value *= 2;
                             }
                         }));
    CHECK(dear.shape == before.shape);
    CHECK(dear.split == before.split);
    CHECK(dear.edge == before.edge);
    CHECK(dear.shell == before.shell);
    CHECK(dear.release == before.release);
    CHECK(dear.run != before.run);
    CHECK(dear.run->ledgers[1].labour == Approx(2 * before.run->ledgers[1].labour));
    // The same shop again, read from another place, is the same shop.
    CHECK(on(board, job, changed([](Shop&) {})).run == before.run);
}

TEST_CASE("routes, stacks and pitches are found once, and say what stands in their way") {
    JobBoard board;
    auto job = small_job();
    const auto sheet = board.lay(job, shared_shop());
    const auto routes = board.routes(sheet, quiet);
    CHECK(routes->size() == 8);
    CHECK(board.routes(sheet, quiet) == routes);
    // What is sought of a laminate leaves the plugs as they are.
    const auto stacks = board.seek_stack(sheet, quiet);
    job.shell.seek.mass = 0.5;
    const auto lighter = board.lay(job, shared_shop());
    CHECK(board.routes(lighter, quiet) == routes);
    CHECK(board.seek_stack(lighter, quiet) != stacks);
    CHECK(board.seek_stack(sheet, quiet) == stacks);
    const auto words = [&](const Job& of, auto&& ask) {
        try {
            ask(board.lay(of, shared_shop()));
        } catch (const InputError& e) {
            return e.where() + ": " + e.problem();
        }
        return std::string();
    };
    auto broken = small_job();
    broken.shape.tray.edge_radius = 0.5;
    broken.shape.tray.depth = 1;
    CHECK_THAT(words(broken, [&](const auto& s) { board.routes(s, quiet); }), Catch::Contains("shape"));
    CHECK_THAT(words(broken, [&](const auto& s) { board.seek_pitch(s, quiet); }), Catch::Contains("shape"));
    auto bare = small_job();
    bare.back.kind = BackKind::none;
    CHECK_THAT(words(bare, [&](const auto& s) { board.seek_pitch(s, quiet); }), Catch::Contains("no ribs"));
    auto nameless = small_job();
    nameless.shell.resin = "moonshine";
    CHECK_THAT(words(nameless, [&](const auto& s) { board.seek_stack(s, quiet); }),
               Catch::Contains("moonshine"));
}

TEST_CASE("a pitch that was sought belongs to every pitch and inset of that tool, and to no other tool") {
    JobBoard board;
    auto job = small_job();
    CHECK_FALSE(on(board, job).pitches);
    const auto found = board.seek_pitch(board.lay(job, shared_shop()), quiet);
    CHECK(on(board, job).pitches == found);
    job.back.pitch = found->pitch;
    job.back.feet.inset = found->inset;
    CHECK(on(board, job).pitches == found);
    auto other = job;
    other.back.feet.across += 1;
    CHECK_FALSE(on(board, other).pitches);
    CHECK(on(board, job).pitches == found);
}

TEST_CASE("a name that the library has not is a stop, once, and ends nothing") {
    JobBoard board;
    auto job = small_job();
    job.back.board = "marble";
    const auto f = on(board, job);
    CHECK(f.heat);
    CHECK_FALSE(f.back);
    int stops = 0;
    for (const auto& c : f.calls) stops += c.key == "input" && c.headline.find("marble") != std::string::npos;
    CHECK(stops == 1);
    REQUIRE(call(f, "input") != nullptr);
    CHECK(call(f, "input")->stage == Stage::back);
    // Every name of the job, one after the other.
    using Name = std::function<std::string&(Job&)>;
    const std::vector<Name> names{[](Job& j) -> std::string& { return j.edge.bolt; },
                                  [](Job& j) -> std::string& { return j.edge.dowel; },
                                  [](Job& j) -> std::string& { return j.shell.resin; },
                                  [](Job& j) -> std::string& { return j.shell.layers.back().material; },
                                  [](Job& j) -> std::string& { return j.part.resin; },
                                  [](Job& j) -> std::string& { return j.part.layers.front().material; },
                                  [](Job& j) -> std::string& { return j.release.system; },
                                  [](Job& j) -> std::string& { return j.plug.board; },
                                  [](Job& j) -> std::string& { return j.split.board; },
                                  [](Job& j) -> std::string& { return j.split.dowel; }};
    for (const auto& name : names) {
        auto next = small_job();
        name(next) = "moonshine";
        Findings g;
        CHECK_NOTHROW(g = on(board, next));
        REQUIRE(call(g, "input") != nullptr);
        CHECK_THAT(call(g, "input")->headline, Catch::Contains("moonshine"));
    }
}

TEST_CASE("two jobs lie on one board without knowing of each other") {
    JobBoard board;
    auto tray = small_job(), dome = fixtures::demo("radar-dome");
    const auto a = on(board, tray), b = on(board, dome);
    CHECK(a.shape != b.shape);
    CHECK(on(board, tray).run == a.run);
    CHECK(on(board, dome).run == b.run);
    CHECK(findings_to_json(on(board, tray)) == findings_to_json(fixtures::worked_out(tray)));
}

TEST_CASE("several threads work on one board and find what each would alone") {
    JobBoard board;
    std::vector<Job> jobs;
    for (int i = 0; i < 4; ++i) {
        jobs.push_back(small_job());
        jobs.back().back.pitch = 0.12 + 0.02 * i;
    }
    std::vector<std::string> alone, together(jobs.size());
    for (const auto& job : jobs) alone.push_back(findings_to_json(fixtures::worked_out(job)).dump());
    std::vector<std::thread> threads;
    for (std::size_t i = 0; i < jobs.size(); ++i) {
        threads.emplace_back([&, i] {
            Progress own;
            for (std::size_t round = 0; round < 3; ++round) {
                const auto f = board.work_out(board.lay(jobs[(i + round) % jobs.size()], shared_shop()),
                                              Depth::stages, own);
                if (round == 0) together[i] = findings_to_json(f).dump();
            }
        });
    }
    for (auto& t : threads) t.join();
    CHECK(together == alone);
}

TEST_CASE("a mesh of the maker's own is read once, and again only where its bytes differ") {
    JobBoard board;
    auto job = small_job();
    const auto text = [](double height) {
        // A tetrahedron as text.
        const std::array<std::array<double, 3>, 4> p{{{0, 0, 0}, {100, 0, 0}, {0, 100, 0}, {20, 20, height}}};
        std::string out = "solid t\n";
        for (const auto& t :
             {std::array{0, 2, 1}, std::array{0, 1, 3}, std::array{1, 2, 3}, std::array{2, 0, 3}}) {
            out += "facet normal 0 0 0\nouter loop\n";
            for (const int i : t) {
                out += "vertex";
                for (const double v : p[static_cast<std::size_t>(i)]) out += " " + std::to_string(v);
                out += "\n";
            }
            out += "endloop\nendfacet\n";
        }
        return std::make_shared<const std::string>(out + "endsolid t\n");
    };
    job.shape.kind = ShapeKind::mesh;
    job.shape.file = "t.stl";
    job.attachments = {{"t.stl", text(60)}};
    const auto first = on(board, job);
    REQUIRE(first.shape);
    CHECK(first.shape->measures.volume == Approx(0.1 * 0.1 / 2 * 0.06 / 3));
    job.attachments = {{"t.stl", text(60)}};  // other bytes in memory, the same in the file
    CHECK(on(board, job).shape == first.shape);
    job.attachments = {{"t.stl", text(90)}};
    CHECK(on(board, job).shape->measures.volume == Approx(0.1 * 0.1 / 2 * 0.09 / 3));
    // What is attached besides is read by nobody.
    job.attachments = {{"t.stl", text(60)}, {"notes.txt", text(1)}};
    CHECK(on(board, job).shape == first.shape);
}

TEST_CASE("a shape that is worked out anew and is as before renews nothing after it") {
    JobBoard board(2);
    auto job = small_job();
    const auto before = on(board, job);
    // A tray does not read a foil's thickness: its shape is worked out again, and is the same.
    job.shape.foil.thickness *= 1.2;
    std::vector<Ran> ran;
    const auto after = board.work_out(board.lay(job, shared_shop()), Depth::stages, quiet, 1, &ran);
    CHECK(after.shape == before.shape);
    CHECK(after.split == before.split);
    CHECK(after.run == before.run);
    CHECK(ran.size() <= 2);
}

TEST_CASE("the trial among the findings is the finest there is, and what it says stands once") {
    JobBoard board;
    const auto job = small_job();
    const auto sheet = board.lay(job, shared_shop());
    const auto quick = board.work_out(sheet, Depth::quick, quiet);
    REQUIRE(quick.trial);
    CHECK_FALSE(quick.trial->fine);
    const auto fine = board.work_out(sheet, Depth::fine, quiet);
    REQUIRE(fine.trial);
    CHECK(fine.trial->fine);
    // Whoever asks for less gets what is known already.
    CHECK(board.work_out(sheet, Depth::stages, quiet).trial == fine.trial);
    std::map<std::string, int> keys;
    for (const auto& figure : fine.figures(Stage::back)) ++keys[figure.key];
    for (const auto& [key, count] : keys) {
        INFO(key);
        CHECK(count == 1);
    }
    CHECK(keys.count("tips") == 1);
    CHECK(findings_to_json(fine) == findings_to_json(evaluate(job, fixtures::shop(), quiet)));
    // An old trial keeps its figures on screen, says so, and warns of nothing.
    const auto stages = fixtures::worked_out(job);
    const auto old = with_trial(stages, job, fine.trial, true);
    CHECK(old.trial_is_old);
    CHECK(old.calls == stages.calls);
    for (const auto& figure : old.figures(Stage::back)) {
        if (figure.key == "tips") CHECK_THAT(figure.reason, Catch::Contains("before the last change"));
    }
}

TEST_CASE("schools on a board are what each school comes to alone") {
    JobBoard board;
    const auto job = small_job();
    const auto plans = schools_side_by_side(board, job, shared_shop(), quiet);
    REQUIRE(plans.size() == 7);
    for (const auto& plan : plans) {
        if (!plan.obstacle.empty()) continue;
        auto tried = job;
        tried.shell = plan.shell;
        const auto f = fixtures::worked_out(tried);
        INFO(file_word(plan.school));
        CHECK(value_of(plan.sums, "mass") == f.shell->mass);
        CHECK(value_of(plan.sums, "cost") == f.run->ledgers[1].total());
        CHECK(value_of(plan.sums, "days") == f.run->plan.days);
    }
    Progress stop;
    stop.stop();
    CHECK_THROWS_AS(schools_side_by_side(board, job, shared_shop(), stop), Cancelled);
}
