// The back as it is cut, and the whole tool on trial.
#include <catch2/catch.hpp>

#include "core/job/schools.hpp"
#include "core/job/trial.hpp"
#include "core/science/nest/cut_sheets.hpp"
#include "core/stages/back/motion.hpp"
#include "core/stages/back/suggest.hpp"
#include "core/stages/back/tipping.hpp"
#include "core/stages/shell/find_stack.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"

using namespace jig;
using namespace fixtures;

namespace {

std::shared_ptr<const back::Trial> tried(const Job& job, const Findings& f,
                                         const back::Trial* coarse = nullptr,
                                         Fineness fineness = Fineness::quick) {
    return try_tool(job, f, shop(), fineness, coarse, quiet);
}

}  // namespace

TEST_CASE("ribs keep off the shell by the joint, stand in one plane and lap half and half") {
    auto job = small_job();
    job.back.pitch = 0.3;
    const auto f = worked_out(job);
    REQUIRE(f.back->crate);
    const auto& crate = *f.back->crate;
    CHECK(f.back->ribs == static_cast<int>(crate.ribs.size()));
    const double clear = f.shell->stack.laminate.thickness + job.back.joint.gap;
    const auto& face = *f.edge->tool;
    const auto topology = topology_of(face.rimmed.mesh);
    double level = -1e9;
    for (const auto& rib : crate.ribs) {
        level = std::max(level, high_corner(rib.outline).y());
        const std::array<double, 1> at{rib.at};
        const auto cut = sections(face.rimmed.mesh, topology, rib.plane, at, quiet).front();
        // No corner of a rib comes nearer to the tool's face than shell and joint.
        double nearest = 1e9;
        for (const auto& line : cut.open_lines) {
            for (std::size_t i = 1; i < line.size(); ++i) {
                for (const auto& loop : rib.outline) {
                    for (const auto& p : loop) {
                        const Point2 d = line[i] - line[i - 1];
                        const double t = std::clamp((p - line[i - 1]).dot(d) / d.squaredNorm(), 0.0, 1.0);
                        nearest = std::min(nearest, (line[i - 1] + t * d - p).norm());
                    }
                }
            }
        }
        CHECK(nearest > clear - 1e-4);
        CHECK(nearest < clear + 5e-3);
    }
    CHECK(level == Approx(face.high.z() + clear + job.back.height).margin(1e-6));
    CHECK(crate.laps > 0);
    // Unlapped, both ways alone have more board than lapped together: each lap takes half of one rib's
    // height.
    job.back.feet.relief = 0;
    const auto level_feet = worked_out(job);
    auto across = job, along = job;
    across.back.along = false;
    along.back.across = false;
    const auto only = [](const Findings& g) { return g.back->crate->area; };
    const auto a = worked_out(across), b = worked_out(along);
    CHECK(a.back->crate->laps == 0);
    CHECK(only(level_feet) < only(a) + only(b));
    // Between feet the ribs are shorter: all along their length but the pads.
    CHECK(only(f) < only(level_feet));
    CHECK(call(a, "one_way") != nullptr);
    const double lap = job.back.clearance + need(shop().boards, job.back.board, "test").thickness;
    const double lost = (only(a) + only(b) - only(level_feet)) / (crate.laps * lap);
    // A crossing takes half of its height out of each of its two ribs: one rib's height in all.
    CHECK(lost > job.back.height);
    CHECK(lost < face.high.z() - face.low.z() + job.back.height);
    CHECK(lost < 2 * job.back.height + 0.5 * (face.high.z() - face.low.z()));
    // Cut pieces nest, and none is lost.
    const auto pieces = back::cut_pieces(crate);
    const auto sheets = lay_onto_sheets(pieces, back::sheet_rules(job.back, shop()), quiet);
    std::size_t laid = sheets.too_large.size();
    for (const auto& s : sheets.sheets) laid += s.pieces.size();
    CHECK(laid == pieces.size());
}

TEST_CASE("every kind of back can be built, weighed, bought and tried out") {
    for (std::size_t i = 0; i < Words<BackKind>::all.size(); ++i) {
        auto job = small_job();
        job.back.kind = static_cast<BackKind>(i);
        job.brief.top_temperature = kelvin(60);
        const auto f = worked_out(job);
        INFO(said(job.back.kind));
        REQUIRE(f.back);
        CHECK((f.back->mass > 0) == (job.back.kind != BackKind::none));
        double bought = 0;
        for (const auto& m : f.run->materials) bought += m.stage == Stage::back ? m.cost : 0;
        CHECK((bought > 0) == (job.back.kind != BackKind::none));
        const auto t = tried(job, f);
        // What is solved weighs what the stages say, within what ribs and laps differ.
        CHECK(t->mass == Approx(f.shell->mass + f.back->mass).epsilon(0.08));
        const auto* standing = t->find(LoadCase::standing);
        const auto* turned = t->find(LoadCase::turned);
        REQUIRE(standing != nullptr);
        REQUIRE(turned != nullptr);
        CHECK(standing->reactions == Approx(-t->mass * kGravity).epsilon(1e-6));
        CHECK(turned->reactions == Approx(t->mass * kGravity).epsilon(1e-6));
        CHECK(t->find(LoadCase::leaning)->reactions == Approx(-job.back.lean).epsilon(1e-6));
        CHECK(std::abs(t->find(LoadCase::levering)->reactions) < 1e-3 * job.back.lever);
        CHECK(t->find(LoadCase::surface_bag)->moves == 0);
        for (const auto& r : t->cases) {
            CHECK((r.moves > 0) == (r.kind != LoadCase::surface_bag));
            CHECK(r.error <= 2 * r.moves + 1e-12);
            CHECK_FALSE(r.how.empty());
        }
        const auto with = with_trial(f, job, t);
        CHECK(value_of(with.figures(Stage::back), "case_standing") == standing->moves);
        CHECK(with.figures(Stage::back).size() > f.figures(Stage::back).size());
    }
}

TEST_CASE("a back stiffens, a floating one warps less than a hard one, an envelope bag asks for buckling") {
    auto job = small_job();
    job.brief.top_temperature = kelvin(80);
    job.back.pitch = 0.25;
    job.back.joint.bond = Bond::hard;
    const auto hard = tried(job, worked_out(job));
    job.back.joint.bond = Bond::floating;
    const auto floating = tried(job, worked_out(job));
    CHECK(floating->find(LoadCase::heat)->error < hard->find(LoadCase::heat)->error);
    job.back.kind = BackKind::none;
    job.back.bag = BagKind::envelope;
    const auto bare = tried(job, worked_out(job));
    CHECK(hard->find(LoadCase::leaning)->moves < bare->find(LoadCase::leaning)->moves);
    REQUIRE(bare->find(LoadCase::envelope_bag) != nullptr);
    CHECK(bare->find(LoadCase::envelope_bag)->buckles > 0);
    CHECK(bare->find(LoadCase::surface_bag) == nullptr);
    // Twice the vacuum moves it twice as far and leaves half the margin.
    job.back.vacuum /= 2;
    const auto half = tried(job, worked_out(job));
    CHECK(2 * half->find(LoadCase::envelope_bag)->moves == Approx(bare->find(LoadCase::envelope_bag)->moves));
    CHECK(half->find(LoadCase::envelope_bag)->buckles ==
          Approx(2 * bare->find(LoadCase::envelope_bag)->buckles).epsilon(1e-3));
    const auto calls = back::trial_calls(*bare, job.back, job.brief);
    CHECK(std::any_of(calls.begin(), calls.end(),
                      [](const Call& c) { return c.key == "shape-case_envelope_bag"; }));
}

TEST_CASE("the fine mesh says how far the coarse one was off, and is near it") {
    for (const auto* name : {"cello-case", "radar-dome"}) {
        const auto job = demo(name);
        const auto f = worked_out(job);
        const auto coarse = tried(job, f);
        const auto fine = tried(job, f, coarse.get(), Fineness::fine);
        CHECK(fine->fine);
        CHECK(fine->freedoms > 3 * coarse->freedoms);
        const auto in = tool_inputs(job, f, shop());
        const auto even = back::even_face(*f.edge->tool, back::edge_for(in.face, in.back, 20000), quiet);
        const auto finest = back::try_out(in, even, job.brief, fine.get(), quiet);
        CHECK(10 * finest.freedoms > 18 * fine->freedoms);
        for (const auto& r : fine->cases) {
            const auto* before = coarse->find(r.kind);
            REQUIRE(before != nullptr);
            CHECK(r.differs < 0.35 * r.moves + 1e-9);
            // A third mesh, half as fine again: what was owned up to is what is left, or more.
            const auto* third = finest.find(r.kind);
            REQUIRE(third != nullptr);
            INFO(said(r.kind));
            // On the dome a foot goes to another crossing as the mesh gets finer, which counts by hundredths
            // of a
            // millimetre under its own weight.
            const double feet = name == std::string("radar-dome") ? 5e-5 : 0;
            CHECK(std::abs(third->moves - r.moves) < r.differs + feet + 1e-9);
        }
    }
}

TEST_CASE("a doubler on the flange stiffens the rim and is weighed where it lies") {
    auto job = small_job();
    const auto plain = worked_out(job);
    const auto before = tried(job, plain);
    job.shell.zones = {shell::fresh_zone(job.shell, ZoneKind::flange),
                       shell::fresh_zone(job.shell, ZoneKind::under_ribs)};
    shell::Zone painted = shell::fresh_zone(job.shell, ZoneKind::painted);
    const auto& mesh = plain.shape->mesh;
    painted.painted = {{{mesh.centre(0).x(), mesh.centre(0).y(), mesh.centre(0).z()}, {0, 0, 1}, 0.1}};
    const Point n = mesh.area_vector2(0).normalized();
    painted.painted.front().facing = {n.x(), n.y(), n.z()};
    job.shell.zones.push_back(painted);
    const auto f = worked_out(job);
    REQUIRE(f.shell->zones.size() == 3);
    double extra = 0;
    for (const auto& z : f.shell->zones) {
        CHECK(z.area > 0);
        CHECK(z.whole.laminate.thickness ==
              Approx(f.shell->stack.laminate.thickness + z.extra.laminate.thickness));
        extra += z.area * z.extra.areal_mass();
    }
    CHECK(f.shell->zones[0].area == Approx(f.edge->area));
    CHECK(f.shell->mass == Approx(plain.shell->mass + extra));
    CHECK(tried(job, f)->find(LoadCase::leaning)->moves < 0.7 * before->find(LoadCase::leaning)->moves);
    double bought = 0;
    for (const auto& m : f.run->materials) bought += m.stage == Stage::shell ? m.cost : 0;
    for (const auto& m : plain.run->materials) bought -= m.stage == Stage::shell ? m.cost : 0;
    CHECK(bought > 0);
}

TEST_CASE("what moves as one, or grows evenly, is not out of shape") {
    std::vector<Point> places, moves;
    std::vector<double> weights;
    const Point shift(0.01, -0.02, 0.005), turn(1e-4, 2e-4, -3e-4);
    for (int i = 0; i < 40; ++i) {
        const Point p(std::sin(i), std::cos(1.7 * i), 0.3 * std::sin(0.4 * i));
        places.push_back(p);
        moves.push_back(shift + turn.cross(p) + 2e-4 * p);
        weights.push_back(1 + 0.5 * std::sin(3.0 * i));
    }
    const auto left = [&](bool growth) {
        const auto motion = back::motion_of(places, moves, weights, growth);
        double most = 0;
        for (std::size_t i = 0; i < places.size(); ++i)
            most = std::max(most, (moves[i] - motion.of(places[i])).norm());
        return most;
    };
    CHECK(left(true) < 1e-9);
    CHECK(left(false) > 1e-4);
    const auto motion = back::motion_of(places, moves, weights, true);
    CHECK(motion.growth == Approx(2e-4).epsilon(1e-4));
    CHECK((motion.turn - turn).norm() < 1e-8);
}

TEST_CASE("a pitch and feet are found by solving, the widest that holds") {
    auto job = small_job();
    job.shell.zones = {shell::fresh_zone(job.shell, ZoneKind::flange)};
    job.back.rim_limit = 0.006;
    const auto f = worked_out(job);
    const auto found = back::suggest(tool_inputs(job, f, shop()), quiet);
    REQUIRE(found.pitches.size() >= 5);
    for (std::size_t i = 1; i < found.pitches.size(); ++i)
        CHECK(found.pitches[i].value < found.pitches[i - 1].value);
    // Closer ribs hold the rim better, by and large.
    CHECK(found.pitches.back().sag.leaning < found.pitches.front().sag.leaning);
    for (const auto& p : found.pitches) {
        const bool holds = p.sag.standing <= job.back.limit && p.sag.leaning <= job.back.rim_limit;
        if (found.holds && p.value > found.pitch) CHECK_FALSE(holds);
        if (found.holds && p.value == found.pitch) CHECK(holds);
    }
    for (const auto& i : found.insets)
        CHECK(i.sag.standing >=
              std::min_element(found.insets.begin(), found.insets.end(), [](auto& a, auto& b) {
                  return a.sag.standing < b.sag.standing;
              })->sag.standing);
    job.back.kind = BackKind::none;
    CHECK_THROWS_AS(back::suggest(tool_inputs(job, worked_out(job), shop()), quiet), InputError);
}

TEST_CASE("stacks that are sought are mirrored, balanced, step up, and none on the curve is beaten") {
    const auto job = small_job();
    const auto f = worked_out(job);
    for (const auto school : {School::glass_epoxy, School::mat_polyester, School::carbon_epoxy}) {
        const auto like = shell::start_from(school);
        const auto found =
            shell::find_stacks(like, job.shell.seek, job.back, f.shell->area, f.shell->go, shop(), quiet);
        REQUIRE(found.curve.size() > 3);
        CHECK(found.tried > 50);
        for (std::size_t i = 0; i < found.curve.size(); ++i) {
            const auto& p = found.curve[i];
            if (i > 0) {
                CHECK(p.mass >= found.curve[i - 1].mass);
                CHECK(p.sag < found.curve[i - 1].sag);
            }
            const auto sum =
                sum_stack(p.layers, need(shop().resins, like.resin, "test"), like.how, shop(), "test");
            CHECK(sum.areal_mass() * f.shell->area == Approx(p.mass));
            CHECK(sum.laminate.balanced);
            std::vector<double> weights;
            for (const auto& l : sum.laid) {
                if (l.layer.kind == LayerKind::ply && l.layer.material != "glass tissue 30")
                    weights.push_back(l.fibre);
            }
            for (std::size_t k = 0; k < weights.size(); ++k) {
                CHECK(weights[k] == Approx(weights[weights.size() - 1 - k]));
                if (k > 0 && k < weights.size() / 2) CHECK(weights[k] >= weights[k - 1]);
            }
            const bool fits =
                p.sag <= job.shell.seek.sag && p.mass <= job.shell.seek.mass && p.days <= job.shell.seek.days;
            CHECK(p.fits == fits);
            if (found.best >= 0 && static_cast<int>(i) < found.best) CHECK_FALSE(p.fits);
        }
    }
    shell::Choices none;
    none.layers = {{LayerKind::core, "PVC foam 75, 10 mm", 0, 0}};
    CHECK_THROWS_AS(shell::find_stacks(none, {}, job.back, 1, {}, shop(), quiet), InputError);
}

TEST_CASE("the seven schools are worked out for the same job and say the same things of it") {
    const auto job = small_job();
    const auto f = worked_out(job);
    JobBoard board;
    const auto plans = schools_side_by_side(board, job, fixtures::shared_shop(), quiet);
    REQUIRE(plans.size() == 7);
    for (const auto& p : plans) {
        INFO(said(p.school));
        CHECK(p.obstacle.empty());
        CHECK(p.sums.size() == 10);
        for (const auto& s : p.sums) CHECK_FALSE(s.reason.empty());
    }
    const auto sum = [&](School s, const char* key) {
        return value_of(plans[static_cast<std::size_t>(s)].sums, key);
    };
    // What everybody in the trade knows.
    CHECK(sum(School::mat_polyester, "cost") < sum(School::carbon_epoxy, "cost"));
    CHECK(sum(School::mineral_glass, "mass") > 2 * sum(School::glass_epoxy, "mass"));
    CHECK(sum(School::tooling_prepreg, "heat") > sum(School::glass_epoxy, "heat"));
    CHECK(std::abs(sum(School::carbon_epoxy, "mismatch")) < std::abs(sum(School::mat_polyester, "mismatch")));
    CHECK(sum(School::sandwich, "stiffness") > sum(School::glass_epoxy, "stiffness"));
    // The job's own school is its own stack.
    CHECK(sum(job.shell.school, "mass") == Approx(f.shell->mass));
}

TEST_CASE("laying up goes corners first, in pots that can be used up, with overlaps walking on") {
    auto job = small_job();
    job.shell.batch = 0.4;
    // A stepped drum: the step's foot is a corner that cloth bridges.
    job.shape.kind = ShapeKind::turned;
    job.shape.turned.smooth = false;
    job.shape.turned.profile = {{0.4, 0.0}, {0.39, 0.1}, {0.2, 0.11}, {0.19, 0.2}, {0.0, 0.2}};
    job.shell.zones = {shell::fresh_zone(job.shell, ZoneKind::corners)};
    const auto f = worked_out(job);
    REQUIRE(f.shell->corners.length > 0.5);
    REQUIRE(f.shell->zones.size() == 1);
    CHECK(f.shell->zones[0].area == Approx(f.shell->corners.length * job.shell.zones[0].width));
    const auto& order = f.shell->order;
    using Kind = shell::LayStep::Kind;
    const auto first_ply =
        std::find_if(order.begin(), order.end(), [](const auto& s) { return s.kind == Kind::ply; });
    const auto filler =
        std::find_if(order.begin(), order.end(), [](const auto& s) { return s.kind == Kind::filler; });
    REQUIRE(filler != order.end());
    CHECK(filler < first_ply);
    double last = -1, wetted = 0;
    int pots = 0;
    for (const auto& s : order) {
        pots += s.batches;
        wetted += s.resin;
        CHECK(pots * job.shell.batch >= wetted - 1e-9);
        if (s.kind != Kind::ply) continue;
        CHECK(s.offset != last);
        last = s.offset;
    }
    CHECK(pots == f.shell->batches);
    job.shell = shell::start_from(School::tooling_prepreg);
    job.shell.debulk = 3;
    const auto pre = worked_out(job);
    CHECK(std::count_if(pre.shell->order.begin(), pre.shell->order.end(),
                        [](const auto& s) { return s.kind == Kind::debulk; }) == 3);
    CHECK(pre.shell->batches == 0);
    // Polyester past its day limit stops overnight; plaster's window is over by morning.
    job.shell = shell::start_from(School::mineral_glass);
    job.shell.layers.insert(job.shell.layers.end(), 60, {LayerKind::ply, "glass woven roving 600", 0, 0});
    const auto plaster = worked_out(job);
    CHECK(std::any_of(plaster.shell->order.begin(), plaster.shell->order.end(),
                      [](const auto& s) { return s.kind == Kind::abrade; }));
}
