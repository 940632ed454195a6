// The part under its loads: against plates in closed form, sums by hand, and itself turned and zoned.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/base/error.hpp"
#include "core/base/units.hpp"
#include "core/job/evaluate.hpp"
#include "core/science/laminate/plate.hpp"
#include "core/science/laminate/strength.hpp"
#include "core/stages/part/trial.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/science/shell/sheets.hpp"

using namespace jig;
using fixtures::call;
using fixtures::kLevel;
using fixtures::shop;
using part::DutyAsked;
using part::Trial;

namespace {

constexpr double kSide = 0.6;

/// A flat face of `a` × `b` about the middle, outward along the frame's pull.
TriangleMesh face(double a, double b, int n, const Frame& frame = kLevel) {
    TriangleMesh mesh;
    fixtures::sheet(mesh, n, std::max(2, static_cast<int>(std::lround(n * b / a))), [&](double u, double v) {
        return Point(frame.u * (a * (u - 0.5)) + frame.v * (b * (v - 0.5)));
    });
    return mesh;
}

/// No cloth laid, so that angles are those of the stack; zones are found all the same.
part::Draped bare(const TriangleMesh& mesh) {
    part::Draped out;
    out.face = std::make_shared<const TriangleMesh>(mesh);
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) out.area += mesh.area_vector2(f).norm() / 2;
    return out;
}

/// Alike in all directions: three layers of mat, about a core where one is wanted.
DutyAsked mats(const char* core = nullptr) {
    DutyAsked out;
    out.stack.resin = "polyester, general";
    out.stack.how = LayUp::hand;
    const Layer mat{LayerKind::ply, "glass mat 450", 0, 0};
    out.stack.layers = {mat, mat, mat};
    if (core != nullptr) out.stack.layers = {mat, {LayerKind::core, core, 0, 0}, mat};
    out.duty.loads = {{}};
    return out;
}

Laminate laminate_of(const DutyAsked& asked) {
    return sum_stack(asked.stack.layers, need(shop().resins, asked.stack.resin, "test"), asked.stack.how,
                     shop(), "test")
        .laminate;
}

Trial tried(const DutyAsked& asked, const TriangleMesh& mesh, const Frame& frame = kLevel) {
    return part::try_out(asked, mesh, frame, bare(mesh), shop(), nullptr, quiet);
}

}  // namespace

TEST_CASE("a square plate that is held along its rim gives what Navier's series says") {
    auto asked = mats();
    asked.duty.hold = PartHold::pinned;
    asked.duty.loads[0].pressure = 1000;
    const auto l = laminate_of(asked);
    const double exact = navier_plate_middle(1000, kSide, kSide, l.D_free(0, 0), l.shear_stiffness[0]);
    double before = 1;
    for (const int n : {12, 24, 40}) {
        INFO(n);
        const auto t = tried(asked, face(kSide, kSide, n));
        const auto& r = t.loads.at(0);
        const double off = std::abs(r.moves / exact - 1);
        CHECK(off < 0.02);
        CHECK(off < before + 0.002);
        before = off;
        CHECK(r.where == "middle");
        // The supports carry the pressure, upwards.
        CHECK(r.reactions == Approx(1000 * kSide * kSide).epsilon(1e-6));
        CHECK(t.mass == Approx(l.areal_mass * kSide * kSide));
    }
    // Resting it pulls nowhere: its corners come off, and it gives a little more.
    asked.duty.hold = PartHold::rests;
    const auto r = tried(asked, face(kSide, kSide, 40)).loads[0];
    CHECK(r.moves > 1.005 * exact);
    CHECK(r.moves < 1.1 * exact);
    CHECK(r.lifts == 0);
    CHECK(r.lifted > 0.03);
    CHECK(r.lifted < 0.5);
    CHECK(r.reactions == Approx(1000 * kSide * kSide).epsilon(1e-6));
}

TEST_CASE("a part that rests lies on what pushes: a light one is peeled off, a push beyond its rim tips it") {
    // A push off the face near one end of a strip that its own weight holds down.
    auto asked = mats();
    const auto l = laminate_of(asked);
    const double length = 1.2, width = 0.1, weight = l.areal_mass * length * width * kGravity;
    asked.duty.loads[0].weight = 1;
    asked.duty.loads[0].pushes = {{0.55, 0, -0.3 * weight, 0.02}};
    const auto strip = face(length, width, 96);
    const auto peeled = tried(asked, strip).loads[0];
    CHECK(peeled.lifts == 0);
    CHECK(peeled.lifted > 0.3);
    CHECK(peeled.reactions == Approx(0.7 * weight).epsilon(1e-6));
    // What lies is the other end of it, and nothing between.
    const auto far = [&](std::uint32_t i) { return strip.points[i].x() > 0.3; };
    REQUIRE_FALSE(peeled.lies.empty());
    CHECK(std::none_of(peeled.lies.begin(), peeled.lies.end(), far));
    // By its pull at 5 cm from the end, of a beam peeled over a, 2 e of it behind: P·(a − e) = w·a²/2.
    const double w = weight / length, P = 0.3 * weight, e = 0.05,
                 EI = l.bending.Ex * std::pow(l.thickness, 3) / 12 * width;
    const double a = P / w + std::sqrt(P * P / (w * w) - 2 * P * e / w), b = a - e;
    const double end = P * b * b * b / (3 * EI) + P * b * b / (2 * EI) * e - w * a * a * a * a / (8 * EI);
    CHECK(peeled.moves == Approx(end).epsilon(0.06));
    // Turned in space, the same.
    const Frame askew{Point(0.6, 0.8, 0), Point(-0.8 * 0.8, 0.6 * 0.8, 0.6),
                      Point(0.8 * 0.6, -0.6 * 0.6, 0.8)};
    const auto turned = tried(asked, face(length, width, 96, askew), askew).loads[0];
    CHECK(turned.moves == Approx(peeled.moves).epsilon(1e-4));
    CHECK(turned.lifted == Approx(peeled.lifted).margin(0.02));
    // Pulled up by more than half its weight at its end it tips, and says what would have to hold it.
    asked.duty.loads[0].pushes[0].force = -0.7 * weight;
    const auto tips = tried(asked, strip).loads[0];
    CHECK(tips.lifts > 0.05 * weight);
    CHECK(tips.lifted == 0);
    CHECK(tips.reactions == Approx(0.3 * weight).epsilon(1e-6));
    // A rim that is but a line holds no part: what would have to hold it down is said, of every load.
    asked.duty.loads.push_back(asked.duty.loads[0]);
    asked.duty.loads[1].pushes = {{0.1, 0, -weight, 1e-4}};
    const auto thread = tried(asked, face(length, 8e-4, 60));
    for (const auto& load : thread.loads) {
        CHECK(load.lifts > 0);
        CHECK(load.lifted == 0);
        CHECK(std::isfinite(load.moves));
    }
}

TEST_CASE(
    "what slides on its rim is told from where that lies in the mean, whichever point holds it meanwhile") {
    // A barrel vault whose sides spread: alike to both sides.
    TriangleMesh vault;
    fixtures::sheet(vault, 24, 12, [](double u, double v) {
        const double turn = (u - 0.5) * 2.4;
        return Point(0.3 * std::sin(turn), 0.5 * (v - 0.5), 0.3 * std::cos(turn));
    });
    auto asked = mats();
    asked.duty.loads[0].pressure = 500;
    const auto r = tried(asked, vault).loads[0];
    double left = 0, right = 0;
    for (std::size_t i = 0; i < vault.points.size(); ++i) {
        left = std::min(left, static_cast<double>(r.field[i].x()));
        right = std::max(right, static_cast<double>(r.field[i].x()));
    }
    CHECK(right > 1e-6);
    CHECK(left == Approx(-right).epsilon(0.02));
    // Begun at another point of its rim, the same.
    auto begun = vault;
    std::reverse(begun.points.begin(), begun.points.end());
    const auto last = static_cast<std::uint32_t>(begun.points.size() - 1);
    for (auto& t : begun.triangles) t = {last - t[0], last - t[1], last - t[2]};
    CHECK(tried(asked, begun).loads[0].moves == Approx(r.moves).epsilon(1e-6));
}

TEST_CASE("the middle of a long plate gives as a strip does, whose soft core shears") {
    // 5qL⁴/384D + qL²/8S with the core's shear at a third of it and more; ends five widths away.
    for (const char* core : {"PVC foam 75, 10 mm", "PVC foam 75, 25 mm"}) {
        INFO(core);
        auto asked = mats(core);
        asked.duty.loads[0].pressure = 1000;
        asked.duty.hold = PartHold::pinned;
        const auto l = laminate_of(asked);
        const double exact = strip_sag_uniform(1000, 0.3, l.D_free(0, 0), l.shear_stiffness[0]);
        CHECK(tried(asked, face(1.5, 0.3, 100)).loads[0].moves == Approx(exact).epsilon(0.02));
    }
}

TEST_CASE("a clamped plate, a push in the middle and its own weight go by Timoshenko's tables") {
    auto asked = mats();
    const auto l = laminate_of(asked);
    const double D = l.D_free(0, 0);
    const auto mesh = face(kSide, kSide, 40);
    // Clamped all round under an even load: 0.00126 qa⁴/D (art. 44).
    asked.duty.hold = PartHold::clamped;
    asked.duty.loads[0].pressure = 700;
    CHECK(tried(asked, mesh).loads[0].moves == Approx(0.00126 * 700 * std::pow(kSide, 4) / D).epsilon(0.02));
    // A force in the middle: 0.0116 Pa²/D at rest (art. 34), 0.0056 clamped (art. 45).
    asked.duty.loads[0] = {};
    asked.duty.loads[0].pushes = {{0, 0, 120, 0.01}};
    CHECK(tried(asked, mesh).loads[0].moves == Approx(0.0056 * 120 * kSide * kSide / D).epsilon(0.03));
    asked.duty.hold = PartHold::pinned;
    const auto pushed = tried(asked, mesh);
    CHECK(pushed.loads[0].moves == Approx(0.0116 * 120 * kSide * kSide / D).epsilon(0.02));
    REQUIRE(pushed.pushes.size() == 1);
    CHECK((pushed.pushes[0].force - Point(0, 0, -120)).norm() < 1e-9);
    // Weight is a pressure of areal mass; three times off the face lifts it by three weights.
    asked.duty.hold = PartHold::rests;
    asked.duty.loads = {{}, {}, {}};
    asked.duty.loads[0].weight = 1;
    asked.duty.loads[1].pressure = l.areal_mass * kGravity;
    asked.duty.loads[2].weight = 3;
    asked.duty.loads[2].way = PartWeight::onto_inside;
    const auto t = tried(asked, mesh);
    CHECK(t.loads[0].moves == Approx(t.loads[1].moves));
    // Flying off it is taken as held down, which gives less than corners that come off.
    CHECK(t.loads[2].moves < 3 * t.loads[0].moves);
    CHECK(t.loads[2].moves > 2.7 * t.loads[0].moves);
    CHECK(t.loads[2].reactions == Approx(-3 * t.mass * kGravity));
    CHECK(t.loads[2].lifts >= 3 * t.mass * kGravity * 0.999);
    CHECK(t.loads[0].buckles == 0);
}

TEST_CASE("strains and the core's shear are those of the plate's moments and forces") {
    // The corners of a square at rest are twisted most: 0.0325 qa² at ν = 0.3 (art. 30), which goes with 1 −
    // ν and so does the stiffness against it; strained more than the middle by a quarter.
    auto solid = mats();
    solid.duty.loads[0].pressure = 900;
    solid.duty.hold = PartHold::pinned;
    const auto l = laminate_of(solid);
    const auto& resin = need(shop().resins, solid.stack.resin, "test");
    const double D = l.D_free(0, 0);
    const double strain = 0.0325 / 0.7 * 900 * kSide * kSide / D * l.thickness / 2;
    const auto r = tried(solid, face(kSide, kSide, 40)).loads[0];
    // A mean over the patch at the corner falls a little short of the corner.
    CHECK(r.cracks < strain / resin.strain_limit);
    CHECK(r.cracks > 0.95 * strain / resin.strain_limit);
    CHECK(r.core_shear == 0);
    CHECK(r.wrinkles == 0);
    CHECK(r.most().second == part::GivesWay::cracks);

    // A panel that is bolted along both ends carries qL/2 there, whatever turns.
    auto cored = mats("PVC foam 75, 10 mm");
    cored.duty.loads[0].pressure = 2000;
    cored.duty.hold = PartHold::places;
    const double span = 0.6, width = 0.12;
    for (int side : {-1, 1}) {
        for (int k = 0; k <= 12; ++k)
            cored.duty.places.push_back({side * span / 2, width * (k / 12.0 - 0.5)});
    }
    const auto shear = shear_shares(std::vector<StackPly>(
        plies_of(sum_stack(cored.stack.layers, resin, cored.stack.how, shop(), "test").laid)))[1]
                           .x();
    const auto bolted = tried(cored, face(span, width, 60)).loads[0];
    const double strength = need(shop().cores, "PVC foam 75, 10 mm", "test").shear_strength;
    REQUIRE(strength > 0);
    // The first and the last bolt of a row carry a little more than their share.
    CHECK(bolted.core_shear < 2000 * span / 2 * shear / strength * 1.15);
    CHECK(bolted.core_shear > 2000 * span / 2 * shear / strength * 0.9);
}

TEST_CASE("a part is the same whichever way its frame stands, and twice the load does twice as much") {
    auto asked = mats("PVC foam 75, 5 mm");
    asked.duty.loads[0].pressure = 800;
    asked.duty.loads[0].pushes = {{0.103, -0.047, 90, 0.06}};
    asked.stack.layers.push_back({LayerKind::ply, "glass tape 430 unidirectional", 0.5, 0});
    const auto one = tried(asked, face(0.7, 0.4, 28)).loads[0];
    const Eigen::AngleAxisd turn(2.1, Point(0.6, -0.2, 0.5).normalized());
    const Frame turned{turn * Point::UnitX(), turn * Point::UnitY(), turn * Point::UnitZ()};
    const auto other = tried(asked, face(0.7, 0.4, 28, turned), turned).loads[0];
    CHECK(other.moves == Approx(one.moves).epsilon(1e-6));
    CHECK(other.cracks == Approx(one.cracks).epsilon(1e-6));
    CHECK(other.wrinkles == Approx(one.wrinkles).epsilon(1e-6));
    CHECK((other.worst - one.worst).norm() < 1e-9);
    auto twice = asked;
    twice.duty.loads[0].pressure *= 2;
    twice.duty.loads[0].pushes[0].force *= 2;
    const auto double_ = tried(twice, face(0.7, 0.4, 28)).loads[0];
    CHECK(double_.moves == Approx(2 * one.moves));
    CHECK(double_.fibres == Approx(2 * one.fibres));
    // Cloth laid on turned by a quarter: stack and loads turned back do the same.
    auto quarter = asked;
    quarter.stack.drape.turn = kPi / 2;
    for (auto& layer : quarter.stack.layers) layer.angle -= kPi / 2;
    CHECK(tried(quarter, face(0.7, 0.4, 28)).loads[0].moves == Approx(one.moves).epsilon(1e-6));
}

TEST_CASE("a zone that covers all is a part of its layers; a half is stiffer, and stands flush at the tool") {
    auto plain = mats();
    plain.duty.loads[0].pressure = 500;
    auto thick = plain;
    thick.stack.layers.insert(thick.stack.layers.end(), 3, thick.stack.layers.front());
    part::Zone all;
    all.place = ZonePlace::inside;
    all.layers.assign(3, plain.stack.layers.front());
    all.line = {{-1, -1}, {1, -1}, {1, 1}, {-1, 1}};
    auto zoned = plain;
    zoned.stack.zones = {all};
    const auto mesh = face(kSide, kSide, 30);
    const auto by_zone = tried(zoned, mesh).loads[0], by_layers = tried(thick, mesh).loads[0];
    // Its plane of reference is another, its bending is not.
    CHECK(by_zone.moves == Approx(by_layers.moves).epsilon(2e-3));
    CHECK(by_zone.cracks == Approx(by_layers.cracks).epsilon(5e-3));
    CHECK(tried(zoned, mesh).mass == Approx(tried(thick, mesh).mass));
    zoned.stack.zones[0].line = {{-1, -1}, {0, -1}, {0, 1}, {-1, 1}};
    const auto half = tried(zoned, mesh);
    CHECK(half.loads[0].moves < tried(plain, mesh).loads[0].moves);
    CHECK(half.loads[0].moves > by_layers.moves);
    CHECK(half.mass == Approx((tried(plain, mesh).mass + tried(thick, mesh).mass) / 2));
    CHECK(half.loads[0].worst.x() > 0);
}

TEST_CASE("a block that fills all is a core of its board; in the middle of a strip it shears no more") {
    // The same board in the core's place, by a library of its own.
    auto own = shop();
    auto core = need(own.cores, "PVC foam 75, 25 mm", "test");
    const auto& board = need(own.boards, "PU board 700, 50 mm", "test");
    core.name = "board";
    core.E = board.E;
    core.E_in_plane.reset();
    core.nu = 0.3;
    core.G = board.E / 2.6;
    core.uptake = 0;
    core.density = board.density;
    own.cores.push_back(core);
    auto foam = mats("PVC foam 75, 25 mm"), solid = mats("board");
    for (auto* asked : {&foam, &solid}) {
        asked->duty.loads[0].pushes = {{0, 0, 200, 0.02}};
        asked->duty.hold = PartHold::places;
        for (int side : {-1, 1}) {
            for (int k = 0; k <= 4; ++k) asked->duty.places.push_back({side * 0.4, 0.04 * (k / 4.0 - 0.5)});
        }
    }
    const auto strip = face(0.8, 0.04, 160);
    const auto with = [&](double size, double along = 0) {
        auto asked = foam;
        part::Insert insert;
        insert.kind = InsertKind::block;
        insert.size = size;
        insert.along = along;
        asked.stack.inserts = {insert};
        return tried(asked, strip);
    };
    const auto try_own = [&](const DutyAsked& asked) {
        return part::try_out(asked, strip, kLevel, bare(strip), own, nullptr, quiet);
    };
    const auto bare_foam = tried(foam, strip), whole = with(1.0), board_strip = try_own(solid);
    CHECK(whole.loads[0].moves == Approx(board_strip.loads[0].moves).epsilon(1e-6));
    CHECK(whole.mass == Approx(board_strip.mass).epsilon(1e-6));
    CHECK(whole.loads[0].core_shear == 0);
    // In the middle alone: of a beam on two bolts, w = ∫ M·m/D + ∫ V·v/S, M = P x/2, m = x/2, v = 1/2, each
    // part of it with the D, free to curve across, and S that lie there; a disc is as long as its share of
    // the strip's width.
    const double P = 200 / 0.04, L = 0.8, R = 0.1;
    const auto soft = laminate_of(foam);
    const auto hard = sum_stack(solid.stack.layers, need(own.resins, solid.stack.resin, "test"),
                                solid.stack.how, own, "test")
                          .laminate;
    const double half = L / 2,
                 a = half -
                     (kPi * R * R - 2 * (R * R * std::acos(0.02 / R) - 0.02 * std::sqrt(R * R - 0.0004))) /
                         0.04 / 2;
    const double bends = P / 2 *
                         (std::pow(a, 3) / 3 * soft.D_free.inverse()(0, 0) +
                          (std::pow(half, 3) - std::pow(a, 3)) / 3 * hard.D_free.inverse()(0, 0));
    const double shears = P / 2 * (a / soft.shear_stiffness[0] + (half - a) / hard.shear_stiffness[0]);
    const auto middle = with(2 * R);
    CHECK(middle.loads[0].moves == Approx(bends + shears).epsilon(0.03));
    CHECK(middle.loads[0].moves < 0.97 * bare_foam.loads[0].moves);
    CHECK(middle.loads[0].moves > 1.03 * whole.loads[0].moves);
    // The foam beside it carries what it carried.
    CHECK(middle.loads[0].core_shear == Approx(bare_foam.loads[0].core_shear).epsilon(0.05));
    // It weighs as much as it is large, though it lies across the mesh as it will.
    const double heavier = (board.density - need(own.cores, "PVC foam 75, 25 mm", "test").density) * 0.025;
    for (double along : {0.0, 0.0137, 0.1}) {
        const double covers = 0.03 * 0.03 * kPi / 4;
        CHECK(with(0.03, along).mass - bare_foam.mass ==
              Approx(covers * heavier).epsilon(0.12));  // resin in the core's cells, steps of a sixteenth
    }
    // Beside the face it is nothing.
    CHECK(with(0.1, 3).loads[0].moves == bare_foam.loads[0].moves);
}

TEST_CASE("a push on an insert stands on its body, one that is wider than it on the core") {
    auto asked = mats("PVC foam 75, 25 mm");
    asked.duty.loads[0].pushes = {{0.05, 0.02, 400, 0.03}};
    asked.duty.hold = PartHold::clamped;
    const auto mesh = face(kSide, kSide, 24);
    const double foam = need(shop().cores, "PVC foam 75, 25 mm", "test").crush,
                 pressure = 400 / (kPi / 4 * 0.03 * 0.03);
    CHECK(tried(asked, mesh).loads[0].crushes == Approx(pressure / foam));
    part::Insert potted;
    potted.along = 0.05;
    potted.across = 0.02;
    potted.size = 0.03;
    asked.stack.inserts = {potted};
    CHECK(tried(asked, mesh).loads[0].crushes == Approx(pressure / part::body_of(potted, shop()).crush));
    asked.duty.loads[0].pushes[0].along += 0.004;
    CHECK(tried(asked, mesh).loads[0].crushes == Approx(pressure / foam));
    // Not even where its middle lies on faces that are all insert.
    const auto fine = face(kSide, kSide, 60);
    auto& push = asked.duty.loads[0].pushes[0];
    push = {0.05, 0.02, 400, 0.12};
    asked.stack.inserts[0].size = 0.1;
    const double spread = 400 / (kPi / 4 * 0.12 * 0.12);
    CHECK(tried(asked, fine).loads[0].crushes == Approx(spread / foam));
    push.size = 0.1;
    CHECK(tried(asked, fine).loads[0].crushes < 0.1 * spread / foam);
    // Plain laminate is crushed nowhere.
    asked.stack.layers = mats().stack.layers;
    CHECK(tried(asked, mesh).loads[0].crushes == 0);
}

TEST_CASE("cloth that is laid over a flat face is the stack itself, and a turned start turns it") {
    auto asked = mats();
    const auto mesh = face(0.7, 0.4, 28);
    asked.stack.layers.push_back({LayerKind::ply, "carbon cloth 200 twill", 30 * kPi / 180, 0});
    asked.stack.layers.push_back({LayerKind::ply, "carbon tape 250 unidirectional", -20 * kPi / 180, 0});
    asked.stack.layers.push_back({LayerKind::ply, "glass biaxial 450", 99 * kPi / 180, 0});
    asked.duty.loads[0].pressure = 600;
    edge::ToolFace tool;
    tool.frame = kLevel;
    tool.rimmed.mesh = mesh;
    tool.rimmed.patch.assign(mesh.triangles.size(), 0);
    const auto laid = [&] {
        const auto cloth = part::draped(part::cloth_asked(asked.stack), tool, shop(), quiet);
        REQUIRE(cloth.nets.size() >= 2);
        return part::try_out(asked, mesh, kLevel, cloth, shop(), nullptr, quiet).loads[0];
    };
    const auto plain = tried(asked, mesh).loads[0], draped = laid();
    CHECK(draped.moves == Approx(plain.moves).epsilon(1e-6));
    CHECK(draped.fibres == Approx(plain.fibres).epsilon(1e-4));
    // By steps of 2°: the start turned by 14° turns all of it.
    asked.stack.drape.turn = 14 * kPi / 180;
    const auto turned = laid();
    CHECK(turned.moves == Approx(tried(asked, mesh).loads[0].moves).epsilon(1e-6));
    CHECK(std::abs(turned.moves / plain.moves - 1) > 1e-3);
}

TEST_CASE("a core whose strength nobody knows is named, not passed over") {
    auto asked = mats("PVC foam 75, 10 mm");
    asked.duty.loads[0].pressure = 1000;
    const auto mesh = face(kSide, kSide, 10);
    CHECK(tried(asked, mesh).unjudged.empty());
    auto own = shop();
    for (auto& core : own.cores) core.shear_strength = 0;
    const auto t = part::try_out(asked, mesh, kLevel, bare(mesh), own, nullptr, quiet);
    CHECK(t.unjudged == std::vector<std::string>{"PVC foam 75, 10 mm"});
    const auto calls = part::trial_calls(t, asked.duty);
    CHECK(std::any_of(calls.begin(), calls.end(), [](const Call& c) {
        return c.severity == Severity::caution && c.headline.find("PVC foam 75, 10 mm") != std::string::npos;
    }));
}

TEST_CASE("what cannot be tried is said, and what lies beside the face is noted") {
    auto asked = mats();
    asked.duty.hold = PartHold::places;
    const auto mesh = face(kSide, kSide, 10);
    const auto problem = [&] {
        try {
            tried(asked, mesh);
        } catch (const InputError& e) {
            return std::string(e.problem());
        }
        return std::string();
    };
    CHECK(problem().find("none is given") != std::string::npos);
    asked.duty.places = {{0, 0}};
    CHECK(problem().find("on trial") != std::string::npos);
    asked.duty.places = {{-0.3, -0.3}, {0.3, -0.3}, {0, 5}};
    asked.duty.loads[0].pushes = {{9, 9, 50, 0.05}};
    const auto t = tried(asked, mesh);
    CHECK(t.notes.size() == 2);
    CHECK(t.loads[0].moves > 0);
    asked.duty.loads.assign(part::kMostLoads + 1, {});
    CHECK(problem().find("loads") != std::string::npos);
    asked.duty.loads.assign(1, {});
    // Nothing acts: nothing moves, and nothing is used up.
    const auto idle = tried(asked, mesh).loads[0];
    CHECK(idle.moves == 0);
    CHECK(idle.most() == std::pair{0.0, part::GivesWay::nothing});
}

TEST_CASE("a job's part is tried among its findings, judged, and left alone where nothing is asked") {
    auto job = fixtures::small_job();
    // Edits of one job, so that its tool is tried out once.
    JobBoard board;
    const auto found = [&](Depth depth) {
        return board.work_out(board.lay(job, fixtures::shared_shop()), depth, quiet);
    };
    CHECK_FALSE(found(Depth::quick).part_trial);
    part::PartLoad load;
    load.name = "a crate on it";
    load.pressure = 3000;
    job.part.duty.loads = {load};
    const auto f = found(Depth::fine);
    REQUIRE(f.part_trial);
    CHECK(f.part_trial->fine);
    const auto& r = f.part_trial->loads.at(0);
    CHECK(r.differs > 0);
    CHECK(r.differs < 0.2 * r.moves);
    CHECK(value_of(f.part->figures, "part_gives") == r.moves);
    CHECK(value_of(f.part->figures, "part_holds") == Approx(1 / r.most().first));
    CHECK(call(f, "part_soft_1") == nullptr);
    // Limits that it does not keep.
    job.part.duty.gives = r.moves / 2;
    job.part.duty.factor = std::min(100.0, 1.5 / r.most().first);
    auto strict = found(Depth::fine);
    CHECK(call(strict, "part_soft_1") != nullptr);
    REQUIRE(call(strict, "part_weak_1") != nullptr);
    CHECK(call(strict, "part_weak_1")->severity == Severity::caution);
    // Past its first cracks it is weak; past what its fibres, core or skins bear it lets go.
    const double pressure = job.part.duty.loads[0].pressure;
    job.part.duty.loads[0].pressure = pressure * 1.5 / r.lets_go().first;
    const auto broken = found(Depth::fine);
    REQUIRE(call(broken, "part_weak_1") != nullptr);
    CHECK(call(broken, "part_weak_1")->severity == Severity::stop);
    // Blown off the face it lifts where it only rests.
    job.part.duty.loads[0].pressure = -3000;
    CHECK(call(found(Depth::quick), "part_lifts_1") != nullptr);
    const auto lifted = found(Depth::quick);
    REQUIRE(call(lifted, "part_lifts_1")->fix);
    job = patched(job, call(lifted, "part_lifts_1")->fix->patch);
    CHECK(job.part.duty.hold == PartHold::pinned);
    CHECK(call(found(Depth::quick), "part_lifts_1") == nullptr);
    // A part whose material is missing says that once.
    job.part.layers[0].material = "moonlight";
    const auto missing = found(Depth::quick);
    CHECK(std::count_if(missing.calls.begin(), missing.calls.end(),
                        [](const Call& c) { return c.stage == Stage::part && c.key == "input"; }) == 1);
}
