// The whole tool on trial against beams that can be worked out by hand, and its loads against statics.
#include <catch2/catch.hpp>

#include "core/job/schools.hpp"
#include "core/job/tables.hpp"
#include "core/job/trial.hpp"
#include "core/science/mesh/stl.hpp"
#include "core/science/shell/system.hpp"
#include "core/stages/back/tipping.hpp"
#include "core/stages/back/tubes.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"
#include "tests/stages/flat_tool.hpp"

using namespace jig;
using namespace fixtures;

namespace {

double tried_leaning(const Job& job) {
    return try_tool(job, worked_out(job), shop(), Fineness::quick, nullptr, quiet)
        ->find(LoadCase::leaning)
        ->moves;
}

}  // namespace

TEST_CASE("a bare strip on four feet at its corners sags as a beam does") {
    FlatTool strip(1.0, 0.08);
    std::vector<double> wrong;
    for (const double edge : {0.04, 0.02, 0.012}) {
        const auto even = back::even_face(strip.face, edge, quiet);
        const auto sag = back::quick_sag(strip.inputs(), even, quiet);
        const auto& l = strip.laminate();
        const double EI = l.bending.Ex * std::pow(l.thickness, 3) / 12 * strip.width;
        const double q = l.areal_mass * kGravity * strip.width;
        wrong.push_back(std::abs(sag.standing / (5 * q / (384 * EI)) - 1));
        // A person on the middle of a long side bends it as PL³/48EI and twists it besides.
        CHECK(sag.leaning > strip.back.lean / (48 * EI));
    }
    CHECK(wrong.back() < 0.03);
}

TEST_CASE("a strip on two hard-bonded ribs sags as the beam that all three make") {
    FlatTool strip(1.2, 0.10);
    strip.back.kind = BackKind::egg_crate;
    strip.back.across = false;
    strip.back.pitch = 5;
    strip.back.height = 0.07;
    strip.back.joint.bond = Bond::hard;
    const auto even = back::even_face(strip.face, 0.016, quiet);
    const auto tool = back::build_tool(strip.inputs(), even, quiet);
    CHECK(std::count(tool.parts.begin(), tool.parts.end(), back::ToolPart::rib) > 50);
    CHECK(tool.feet.size() == 4);
    const auto sag = back::quick_sag(strip.inputs(), even, quiet);
    const auto& l = strip.laminate();
    const auto& board = need(shop().boards, strip.back.board, "test");
    // Plate at the top, ribs from it to the floor, about their common axis.
    const double H = strip.back.height + l.thickness, Ap = l.membrane.Ex * l.thickness * strip.width,
                 Ar = 2 * board.E * board.thickness * H, axis = Ar * H / 2 / (Ap + Ar);
    const double EI = Ap * axis * axis + l.bending.Ex * std::pow(l.thickness, 3) / 12 * strip.width +
                      Ar * (H / 2 - axis) * (H / 2 - axis) + 2 * board.E * board.thickness * H * H * H / 12;
    const double GA = 5.0 / 6 * 2 * board.G.value() * board.thickness * H;
    const double q = (l.areal_mass * strip.width + 2 * board.density * board.thickness * H) * kGravity;
    const double L = strip.length;
    const double beam = 5 * q * std::pow(L, 4) / (384 * EI) + q * L * L / (8 * GA);
    CHECK(sag.standing == Approx(beam).epsilon(0.08));
    // Slid apart, plate and ribs bend each for itself: far more.
    strip.back.joint.bond = Bond::floating;
    CHECK(back::quick_sag(strip.inputs(), even, quiet).standing > 1.1 * sag.standing);
}

TEST_CASE("ribs of both ways have the grain of their board along them") {
    FlatTool plate(0.8, 0.5);
    plate.back.kind = BackKind::egg_crate;
    plate.back.board = "birch plywood 12 mm";
    plate.back.pitch = 0.25;
    const auto& board = need(shop().boards, plate.back.board, "test");
    REQUIRE(board.E_across);
    const auto tool = back::build_tool(plate.inputs(), back::even_face(plate.face, 0.03, quiet), quiet);
    std::array<int, 2> seen{};
    for (std::size_t f = 0; f < tool.parts.size(); ++f) {
        if (tool.parts[f] != back::ToolPart::rib) continue;
        const auto& skin = tool.model.skins[tool.model.skin[f]];
        const Point normal = tool.model.mesh.area_vector2(f).normalized();
        // In the rib's own plane, level, and stiffer along than up.
        CHECK(std::abs(skin.zero.dot(normal)) < 1e-6);
        CHECK(std::abs(skin.zero.z()) < 1e-9);
        CHECK(skin.laminate.A(0, 0) / skin.laminate.A(1, 1) == Approx(board.E / *board.E_across));
        ++seen[std::abs(normal.x()) > 0.5 ? 0 : 1];
    }
    CHECK(seen[0] > 20);
    CHECK(seen[1] > 20);
    // A board without a grain is alike both ways, and a board's own shear stays its own.
    auto even = board;
    even.E_across.reset();
    CHECK(plate_of(even).E1 == plate_of(even).E2);
    CHECK(plate_of(board).G12 == *board.G);
}

TEST_CASE("a warmed strip with ribs of another material bows as a bimetal, unless they float") {
    FlatTool strip(1.0, 0.10);
    strip.back.kind = BackKind::egg_crate;
    strip.back.across = false;
    strip.back.pitch = 5;
    strip.back.height = 0.06;
    const auto even = back::even_face(strip.face, 0.018, quiet);
    const auto bow = [&](Bond bond) {
        strip.back.joint.bond = bond;
        brief::Choices brief;
        brief.top_temperature = kelvin(70);
        const auto trial = back::try_out(strip.inputs(), even, brief, nullptr, quiet);
        return trial.find(LoadCase::heat)->error;
    };
    const auto& l = strip.laminate();
    const auto& board = need(shop().boards, strip.back.board, "test");
    const double H = strip.back.height + l.thickness, Ap = l.membrane.Ex * l.thickness * strip.width,
                 Ar = 2 * board.E * board.thickness * H;
    const double EI = l.bending.Ex * std::pow(l.thickness, 3) / 12 * strip.width +
                      2 * board.E * board.thickness * H * H * H / 12;
    // Two bars joined: κ = Δα·ΔT·e / (e² + EI·(1/Ap + 1/Ar)), e between their axes (Timoshenko 1925).
    const double e = H / 2, strain = (l.cte[0] - board.alpha) * 50;
    const double kappa = strain * e / (e * e + EI * (1 / Ap + 1 / Ar));
    // Of a parabola the best straight line leaves two thirds of its height at the ends.
    const double left = kappa * strip.length * strip.length / 8 * 2 / 3;
    const double hard = bow(Bond::hard);
    CHECK(hard == Approx(left).epsilon(0.15));
    CHECK(bow(Bond::floating) < 0.6 * hard);
}

TEST_CASE("tubes and squares have the sections of books, and bonds grow stiffer from floating to hard") {
    back::Choices c;
    c.kind = BackKind::tubes;
    c.tubes.size = 0.04;
    c.tubes.wall = 0.002;
    auto s = back::section_of(c);
    CHECK(s.area == Approx(kPi * (0.02 * 0.02 - 0.018 * 0.018)));
    CHECK(s.second == Approx(kPi / 4 * (std::pow(0.02, 4) - std::pow(0.018, 4))));
    CHECK(s.twist == Approx(2 * s.second));
    c.kind = BackKind::frame;
    s = back::section_of(c);
    CHECK(s.area == Approx(0.04 * 0.04 - 0.036 * 0.036));
    CHECK(s.second == Approx((std::pow(0.04, 4) - std::pow(0.036, 4)) / 12));
    // Bredt: 4·Am²/∮ds/t of the middle line.
    CHECK(s.twist == Approx(4 * std::pow(0.038, 4) / (4 * 0.038 / 0.002)));
    // A wall as thick as half the size is a bar.
    c.tubes.wall = 0.1;
    CHECK(back::section_of(c).area == Approx(0.04 * 0.04));
    back::Joint j;
    const auto& resin = need(shop().resins, "epoxy, tooling post-cured", "test");
    const auto bond = [&] { return back::bond_of(j, 0.012, resin, shop()); };
    j.bond = Bond::hard;
    const auto hard = bond();
    j.bond = Bond::soft;
    const auto soft = bond();
    j.bond = Bond::floating;
    const auto floating = bond();
    CHECK(hard.across > soft.across);
    CHECK(hard.sliding > soft.sliding);
    // By hand: E·b/gap of what lies between; tabs are two plies of ±45° cloth either side, stiff in shear.
    const auto& strip = need(shop().bonds, j.strip, "test");
    CHECK(floating.across == Approx(strip.E * 0.012 / j.gap));
    CHECK(hard.sliding == Approx(need(shop().bonds, j.paste, "test").G * 0.012 / j.gap));
    CHECK(soft.across > floating.across);
    CHECK(floating.sliding < 0.1 * soft.sliding);
    // Twice the tab, half of what it carries along.
    j.bond = Bond::soft;
    j.tab *= 2;
    CHECK(bond().sliding == Approx(soft.sliding / 2));
}

TEST_CASE("a frame's bond counts: hot, a floating one of another metal warps the face less") {
    auto job = small_job();
    job.brief.top_temperature = kelvin(90);
    job.back.kind = BackKind::frame;
    job.back.tubes.metal = Metal::aluminium;
    job.back.tubes.size = 0.08;
    job.back.tubes.wall = 0.005;
    const auto warped = [&](Bond bond) {
        job.back.joint.bond = bond;
        const auto f = worked_out(job);
        return try_tool(job, f, shop(), Fineness::quick, nullptr, quiet)->find(LoadCase::heat)->error;
    };
    CHECK(warped(Bond::floating) < warped(Bond::hard));
    // Twice the travel levels twice the fall.
    const double levels = value_of(worked_out(job).back->figures, "levels");
    CHECK(levels > 0);
    job.back.tubes.travel *= 2;
    CHECK(value_of(worked_out(job).back->figures, "levels") == Approx(2 * levels));
}

TEST_CASE("twice the person bends the rim twice as far, and a squeeze is held by its own bolts") {
    auto job = small_job();
    const double once = tried_leaning(job);
    job.back.lean *= 2;
    CHECK(tried_leaning(job) == Approx(2 * once));
    job.brief.process = Process::squeeze;
    const auto f = worked_out(job);
    const auto t = try_tool(job, f, shop(), Fineness::quick, nullptr, quiet);
    const auto* squeeze = t->find(LoadCase::squeeze);
    REQUIRE(squeeze != nullptr);
    const double force = job.edge.squeeze * f.split->map.projected;
    CHECK(std::abs(squeeze->reactions) < 1e-6 * force);
    CHECK(squeeze->moves > 0);
    // What is shown for it leaves the face's own shift out, so its field is no larger than the face's
    // movement.
    CHECK(squeeze->relative);
    CHECK_FALSE(t->find(LoadCase::leaning)->relative);
    const auto table = trial_table(*t);
    CHECK(std::count(table.begin(), table.end(), '\n') == static_cast<long>(t->cases.size()) + 1);
}

TEST_CASE("the same part laid another way round is the same tool") {
    // A shallow dish, its pull along z, then along x and along -y.
    const auto dish =
        shapes::turned({{0.35, 0}, {0.32, 0.05}, {0.22, 0.10}, {0.08, 0.13}, {0.0, 0.135}}, 72, false, false);
    std::vector<double> leaning, mass;
    const std::vector<std::pair<Eigen::Matrix3d, std::array<double, 3>>> ways{
        {Eigen::Matrix3d::Identity(), {0, 0, 1}},
        {Eigen::AngleAxisd(kPi / 2, Point::UnitY()).toRotationMatrix(), {1, 0, 0}},
        {Eigen::AngleAxisd(kPi / 2, Point::UnitX()).toRotationMatrix(), {0, -1, 0}}};
    for (const auto& [turn, pull] : ways) {
        auto mesh = dish;
        for (auto& p : mesh.points) p = turn * p;
        Job job;
        job.shape.kind = ShapeKind::mesh;
        job.shape.file = "dish.stl";
        job.attachments = {{"dish.stl", std::make_shared<const std::string>(write_stl_binary(mesh))}};
        job.split.mode = PullMode::given;
        job.split.pull = pull;
        job.back.pitch = 0.2;
        const auto f = worked_out(job);
        REQUIRE(f.edge);
        INFO(f.edge->no_tool);
        REQUIRE(f.edge->tool);
        const auto t = try_tool(job, f, shop(), Fineness::quick, nullptr, quiet);
        mass.push_back(t->mass);
        leaning.push_back(t->find(LoadCase::leaning)->moves);
        CHECK(t->find(LoadCase::standing)->reactions == Approx(-t->mass * kGravity).epsilon(1e-6));
    }
    for (std::size_t i = 1; i < ways.size(); ++i) {
        CHECK(mass[i] == Approx(mass[0]).epsilon(0.01));
        // Meshes differ a little with the direction they are laid in.
        CHECK(leaning[i] == Approx(leaning[0]).epsilon(0.08));
    }
}

TEST_CASE("the longer side is the length, whichever way it lies") {
    auto job = small_job();
    for (auto& p : job.shape.tray.outline) p = {0.5 * p[0], p[1]};
    job.back.along = false;
    const auto upright_one = worked_out(job);
    REQUIRE(upright_one.back->crate);
    const auto& face = *upright_one.edge->tool;
    const bool long_u = back::length_is_u(face);
    // The outline was halved along x: its length lies along y.
    CHECK(std::abs((long_u ? face.frame.u : face.frame.v).dot(Point::UnitY())) == Approx(1));
    for (const auto& rib : upright_one.back->crate->ribs) {
        CHECK(rib.name.rfind("across", 0) == 0);
        // Ribs across the length lie in planes that the length pierces.
        CHECK(std::abs(rib.plane.w.dot(long_u ? face.frame.u : face.frame.v)) == Approx(1));
    }
}

TEST_CASE("more doublers than can be told apart are refused, not dropped") {
    auto job = small_job();
    job.shell.zones.assign(shell::kMostZones, shell::fresh_zone(job.shell, ZoneKind::flange));
    CHECK(worked_out(job).shell != nullptr);
    job.shell.zones.push_back(job.shell.zones.front());
    const auto f = worked_out(job);
    CHECK(f.shell == nullptr);
    const auto* stop = call(f, "input");
    REQUIRE(stop != nullptr);
    CHECK(stop->headline.find("doublers") != std::string::npos);
}

TEST_CASE("a school whose tool cannot be solved shows no figure for it, and says why") {
    auto job = small_job();
    job.back.kind = BackKind::tubes;
    job.back.across = false;  // no crossing bears the tool
    JobBoard board;
    const auto plans = schools_side_by_side(board, job, fixtures::shared_shop(), quiet);
    for (const auto& p : plans) {
        CHECK_FALSE(p.untried.empty());
        CHECK(p.obstacle.empty());
        for (const auto& s : p.sums) CHECK(s.key != "leaning");
    }
}

TEST_CASE("a push outside the feet tips a tool as a seesaw does") {
    // Feet a metre by half a metre, 200 N in the middle: over the long side the arm is 0.25 m, and 0.1 m past
    // it 500 N balance; over the short side 0.5 m against 0.3 m want 333 N.
    const std::vector<Point2> feet{{-0.5, -0.25}, {0.5, -0.25}, {0.5, 0.25}, {-0.5, 0.25}};
    const std::vector<Point2> rim{{0, 0.35}, {0.8, 0}, {0, 0}, {0.4, -0.2}};
    auto t = back::tips(feet, {0, 0}, 200, rim, 1000);
    CHECK(t.force == Approx(200 * 0.5 / 0.3));
    CHECK(t.where == 1);
    // So loaded in the middle it stands 1000 N: (1000·0.3/0.5 − 200)/g.
    CHECK(t.ballast == Approx((1000 * 0.3 / 0.5 - 200) / kGravity));
    CHECK(back::tips(feet, {0, 0}, 200 + t.ballast * kGravity, rim, 1000).force == Approx(1000));
    // A weight nearer one side is tipped sooner over it.
    CHECK(back::tips(feet, {0, 0.15}, 200, rim, 1000).force == Approx(200 * 0.1 / 0.1));
    // Within the feet nothing tips it, outside them it falls by itself. A foot inside the outline does
    // nothing.
    CHECK(std::isinf(back::tips(feet, {0, 0}, 200, std::vector<Point2>{{0, 0}, {0.5, 0.25}}, 1000).force));
    CHECK(back::tips(feet, {0.6, 0}, 200, rim, 1000).force == 0);
    auto more = feet;
    more.insert(more.begin(), {0.1, 0.1});
    more.push_back({0, 0.25});
    CHECK(back::tips(more, {0, 0}, 200, rim, 1000).force == Approx(200 * 0.5 / 0.3));
}

TEST_CASE("a light tool on feet far inside its rim is tipped by a person, and says with what to load it") {
    auto job = small_job();
    job.back.feet.inset = 0.3;
    job.back.pitch = 0.08;
    const auto tried = [&] {
        const auto f = worked_out(job);
        return try_tool(job, f, shop(), Fineness::quick, nullptr, quiet);
    };
    const auto narrow = tried();
    REQUIRE(narrow->tips.force > 0);
    REQUIRE(narrow->tips.force < job.back.lean);
    const auto calls = back::trial_calls(*narrow, job.back, job.brief);
    const auto tips = std::find_if(calls.begin(), calls.end(), [](const Call& c) { return c.key == "tips"; });
    REQUIRE(tips != calls.end());
    REQUIRE(tips->fix);
    CHECK(worded(tips->why).find("kg") != std::string::npos);
    job = patched(job, tips->fix->patch);
    CHECK(tried()->tips.force > narrow->tips.force);
    // A triangle of 3 kg and a bar of 3 kg, about their common middle.
    shell_fe::Model two;
    two.mesh.points = {{0, 0, 0}, {1, 0, 0}, {0, 1, 0}, {3, 0, 0}, {3, 0, 2}};
    two.mesh.triangles = {{0, 1, 2}};
    two.skins.push_back({});
    two.skins[0].laminate.areal_mass = 6;
    two.bars.push_back({3, 4});
    two.bars[0].mass = 1.5;
    const auto w = shell_fe::weigh(two);
    CHECK(w.mass == Approx(3 + 3));
    CHECK((w.centre - Point((1.0 / 3 + 3) / 2, 1.0 / 6, 0.5)).norm() < 1e-12);
}
