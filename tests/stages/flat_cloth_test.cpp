// How plies lie flat: what shears by its net, what cannot stretched as little as may be; and their kit.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/base/units.hpp"
#include "core/stages/part/flat_cloth.hpp"
#include "core/stages/part/kit.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"
#include "tests/stages/bare_tool.hpp"

using namespace jig;
using fixtures::bare_tool;
using fixtures::kLevel;
using fixtures::shop;
using part::FlatCloth;
using shapes::cap;

namespace {

constexpr double kLong = 0.8, kWide = 0.5;

/// A face as it would be draped, its cloth begun nearest to `seed`.
part::Draped bare(const TriangleMesh& mesh, const Point& seed) {
    part::Draped out;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) out.area += mesh.area_vector2(f).norm() / 2;
    out.face = std::make_shared<const TriangleMesh>(mesh);
    out.seed = seed;
    return out;
}

Point2 size_of(const Loops& loops) {
    return high_corner(loops) - low_corner(loops);
}

/// A gutter: part of a cylinder that lies along x, as wide as kWide when it is laid flat.
TriangleMesh gutter(double radius) {
    return shapes::sheet(40, 30, [&](double s, double t) {
        const double a = kWide * (t - 0.5) / radius;
        return Point(kLong * (s - 0.5), radius * std::sin(a), radius * (1 - std::cos(a)));
    });
}

}  // namespace

TEST_CASE(
    "what does not shear lies flat without stretch where the face can be unrolled, its roll along the ply") {
    for (const bool turned : {false, true}) {
        const Eigen::Matrix3d by = turned ? shapes::odd_rotation() : Eigen::Matrix3d::Identity();
        const Frame frame{by * kLevel.u, by * kLevel.v, by * kLevel.w};
        const auto mesh = shapes::rotated(gutter(0.2), by);
        const auto draped = bare(mesh, Point::Zero());
        const auto along = FlatCloth::stretched(draped, frame, {}, 0, quiet);
        REQUIRE(along);
        CHECK(along->most < 1e-3);
        CHECK(net_area(along->whole) == Approx(kLong * kWide).epsilon(1e-3));
        CHECK(size_of(along->whole).x() == Approx(kLong).epsilon(1e-3));
        CHECK(size_of(along->whole).y() == Approx(kWide).epsilon(1e-3));
        const auto across = FlatCloth::stretched(draped, frame, {}, kPi / 2, quiet);
        REQUIRE(across);
        CHECK(size_of(across->whole).x() == Approx(kWide).epsilon(1e-3));
        // Aslant, its box is that of a turned rectangle.
        const double a = radians(30);
        const auto aslant = FlatCloth::stretched(draped, frame, {}, a, quiet);
        REQUIRE(aslant);
        CHECK(size_of(aslant->whole).x() == Approx(kLong * std::cos(a) + kWide * std::sin(a)).epsilon(2e-3));
        CHECK(net_area(aslant->whole) == Approx(kLong * kWide).epsilon(1e-3));
    }
}

TEST_CASE(
    "cloth by its net and cloth that is stretched lie the same side up, and agree on what can be unrolled") {
    const auto mesh = gutter(0.25);
    auto job = fixtures::small_job();
    job.part.layers = {{LayerKind::ply, "glass cloth 200 plain", radians(20), 0},
                       {LayerKind::ply, "carbon tape 250 unidirectional", radians(20), 0}};
    const auto draped = part::draped(part::cloth_asked(job.part), bare_tool(mesh, kLevel), shop(), quiet);
    REQUIRE_FALSE(draped.nets.empty());
    const auto net = std::find_if(draped.nets.begin(), draped.nets.end(), [](const part::ClothNet& n) {
        return n.carries({-1, 0});
    });
    REQUIRE(net != draped.nets.end());
    const auto sheared = FlatCloth::sheared(*net, draped, kLevel, radians(20));
    const auto stretched = FlatCloth::stretched(draped, kLevel, {}, radians(20), quiet);
    REQUIRE(stretched);
    CHECK(size_of(sheared.whole).x() == Approx(size_of(stretched->whole).x()).epsilon(0.01));
    CHECK(size_of(sheared.whole).y() == Approx(size_of(stretched->whole).y()).epsilon(0.01));
    // Three places that are not in line turn the same way on both.
    const auto way = [&](const FlatCloth& flat) {
        const auto& t = *draped.face;
        const auto a = flat.at(5, t.corner(5, 0)), b = flat.at(5, t.corner(5, 1)),
                   c = flat.at(5, t.corner(5, 2));
        REQUIRE((a && b && c));
        return signed_area({*a, *b, *c});
    };
    CHECK(way(sheared) == Approx(way(*stretched)).epsilon(0.02));
}

TEST_CASE("a cap cannot be laid flat unstretched: its rim is short by what the sphere says") {
    // Along a meridian R·θ, round it 2π·R·sin θ: a flat disc of that radius is too long round by
    // θ/sin θ − 1, and no more than that need be given; at least a third of it must, whoever gives.
    double before = 0;
    for (const double angle : {0.3, 0.6, 0.9}) {
        const double lacks = angle / std::sin(angle) - 1;
        const auto flat =
            FlatCloth::stretched(bare(cap(0.5, angle, 16, 48), Point::Zero()), kLevel, {}, 0, quiet);
        REQUIRE(flat);
        CHECK(flat->most < lacks);
        CHECK(flat->most > lacks / 4);
        CHECK(flat->usual < flat->most);
        CHECK(flat->most > before);
        before = flat->most;
    }
    // As it is turned and scaled, it stretches alike.
    const double angle = 0.6;
    const auto by = shapes::odd_rotation();
    const Frame frame{by * kLevel.u, by * kLevel.v, by * kLevel.w};
    const auto small =
        FlatCloth::stretched(bare(cap(0.5, angle, 16, 48), Point::Zero()), kLevel, {}, 0, quiet);
    const auto large = FlatCloth::stretched(bare(shapes::rotated(cap(5, angle, 16, 48), by), Point::Zero()),
                                            frame, {}, 0, quiet);
    REQUIRE((small && large));
    CHECK(large->most == Approx(small->most).epsilon(0.02));
    CHECK(net_area(large->whole) == Approx(100 * net_area(small->whole)).epsilon(0.01));
}

TEST_CASE("a face that cannot be laid flat in one piece is left out and named") {
    const auto closed = shapes::sphere(0.2, 12);
    CHECK_FALSE(FlatCloth::stretched(bare(closed, Point(0, 0, 0.2)), kLevel, {}, 0, quiet));
    auto two = shapes::plate(0.2, 0.2, 4, 4);
    const auto more = shapes::plate(0.2, 0.2, 4, 4);
    const auto first = static_cast<std::uint32_t>(two.points.size());
    for (const auto& p : more.points) two.points.push_back(p + Point(0.5, 0, 0));
    for (const auto& t : more.triangles) two.triangles.push_back({t[0] + first, t[1] + first, t[2] + first});
    CHECK_FALSE(FlatCloth::stretched(bare(two, Point::Zero()), kLevel, {}, 0, quiet));
    // A hole is no hindrance, and is cut out.
    auto holed = shapes::plate(0.4, 0.4, 8, 8);
    std::erase_if(holed.triangles, [&](const auto& t) {
        const Point middle = (holed.points[t[0]] + holed.points[t[1]] + holed.points[t[2]]) / 3;
        return std::abs(middle.x() - 0.2) < 0.05 && std::abs(middle.y() - 0.2) < 0.05;
    });
    const auto flat = FlatCloth::stretched(bare(holed, Point::Zero()), kLevel, {}, 0, quiet);
    REQUIRE(flat);
    CHECK(net_area(flat->whole) == Approx(0.15).epsilon(1e-3));
}

TEST_CASE("mats and tapes are cut with the kit, and what has to give more than it does is to be slit") {
    auto job = fixtures::small_job();
    job.part.layers = {{LayerKind::ply, "glass mat 300", 0, 0},
                       {LayerKind::ply, "carbon tape 250 unidirectional", kPi / 2, 0},
                       {LayerKind::ply, "glass cloth 200 plain", 0, 0}};
    job.part.zones.clear();
    const double trim = 0.02;
    const auto cut = [&](const TriangleMesh& mesh) {
        const auto draped = part::draped(part::cloth_asked(job.part), bare_tool(mesh, kLevel), shop(), quiet);
        return part::kit(job.part, draped, kLevel, shop(), trim, 0.025, quiet);
    };
    const auto flat = cut(gutter(0.25));
    CHECK(flat.left_out.empty());
    CHECK(flat.rolls.size() == 3);
    std::map<std::string, double> area;
    for (const auto& p : flat.pieces) {
        area[p.material] += p.area;
        CHECK(p.stretch < 2e-3);
        CHECK_FALSE(p.torn);
    }
    // Larger all round; where one ply is wider than its roll, its laps come on top.
    const double whole = (kLong + 2 * trim) * (kWide + 2 * trim);
    CHECK(area["glass mat 300"] == Approx(whole).epsilon(0.01));
    CHECK(area["glass cloth 200 plain"] == Approx(whole).epsilon(0.01));
    CHECK(area["carbon tape 250 unidirectional"] >= 0.99 * whole);
    // On a deep cap a tape has to give more than it does, and a mat less than it may.
    const auto deep = cut(cap(0.4, 0.6, 16, 48));
    for (const auto& p : deep.pieces) {
        CAPTURE(p.material, p.stretch);
        const bool woven = p.material == "glass cloth 200 plain";
        CHECK((p.stretch > 0.01) == !woven);
        CHECK(p.torn == (p.material == "carbon tape 250 unidirectional"));
    }
    // Every piece lies inside its roll, and none on another.
    for (const auto& roll : deep.rolls) {
        CHECK(roll.sheets.too_large.empty());
        for (const auto& sheet : roll.sheets.sheets) {
            for (std::size_t i = 0; i < sheet.pieces.size(); ++i) {
                CHECK(low_corner(sheet.pieces[i].loops).minCoeff() > -1e-9);
                CHECK(high_corner(sheet.pieces[i].loops).y() < roll.width + 1e-9);
                for (std::size_t k = i + 1; k < sheet.pieces.size(); ++k)
                    CHECK(std::abs(net_area(shared(sheet.pieces[i].loops, sheet.pieces[k].loops))) < 1e-6);
            }
        }
    }
}

TEST_CASE("a kit follows what it is cut from, and nothing else of the job") {
    const auto job = fixtures::small_job();
    JobBoard board;
    const auto shelf = std::make_shared<const Shop>(shop());
    const auto kit = [&](const Job& of) { return board.kit(board.lay(of, shelf), quiet); };
    const auto first = kit(job);
    REQUIRE_FALSE(first->pieces.empty());
    auto heavier = job;
    heavier.part.pot_loss += 0.1;
    heavier.heat.room += 2;
    CHECK(kit(heavier).get() == first.get());
    auto wider = job;
    wider.part.kit.trim += 0.01;
    const auto second = kit(wider);
    CHECK(second->pieces.front().area > first->pieces.front().area);
    CHECK(kit(job).get() == first.get());
}
