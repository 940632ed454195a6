// Filling against Darcy's closed forms (docs/methods.md, Flow): line, radial, series, two feeds in turn,
// thickening resin, a wall filled upwards, the ellipse of an anisotropic preform; mass, turning, dry spots
// and gelation.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/base/error.hpp"
#include "core/base/units.hpp"
#include "core/science/flow/fill.hpp"
#include "core/science/mesh/refine.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using shapes::plate;

namespace {

constexpr double kK = 2e-10, kPhi = 0.5, kMu = 0.2, kDrop = 9e4, kDeep = 0.003;

template <class Which>
std::vector<std::uint32_t> where(const TriangleMesh& mesh, const Which& which) {
    std::vector<std::uint32_t> out;
    for (std::uint32_t i = 0; i < mesh.points.size(); ++i) {
        if (which(mesh.points[i])) out.push_back(i);
    }
    return out;
}

FlowLayer plain(double K1 = kK, double K2 = kK) {
    FlowLayer l;
    l.K1 = K1;
    l.K2 = K2;
    l.thickness = kDeep;
    l.porosity = kPhi;
    return l;
}

struct Set {
    TriangleMesh mesh;
    std::vector<FlowLayer> layers{plain()};
    std::vector<Feed> feeds;
    std::vector<Vent> vents;
    std::variant<ThickeningResin, CuringResin> resin = ThickeningResin{kMu, {}};
    FlowRules rules;
    Point zero = Point::UnitX();
    Filling run() {
        return fill(mesh, face_flows(mesh, layers, zero), feeds, vents, Viscosity(resin, 0), rules, quiet);
    }
};

/// A strip that is fed at its left end and vented at its right one.
Set strip(double l, std::uint32_t n) {
    Set out;
    out.mesh = plate(l, l / 4, n, n / 4);
    out.feeds = {{where(out.mesh, [](const Point& p) { return p.x() < 1e-9; }), kDrop, {0.0, {}}, {}}};
    out.vents = {{where(out.mesh, [&](const Point& p) { return p.x() > l - 1e-9; }), 0}};
    return out;
}

double line_time(double x) {
    return kPhi * kMu * x * x / (2 * kK * kDrop);
}

std::uint32_t nearest(const TriangleMesh& mesh, const Point& to) {
    std::uint32_t best = 0;
    for (std::uint32_t i = 0; i < mesh.points.size(); ++i) {
        if ((mesh.points[i] - to).squaredNorm() < (mesh.points[best] - to).squaredNorm()) best = i;
    }
    return best;
}

void balanced(const Filling& f) {
    CHECK(f.taken == Approx(f.held + f.bled).epsilon(1e-9));
}

}  // namespace

TEST_CASE("a strip fills as φμL²/2KΔp, on three meshes, and the front passes places on the way") {
    for (const std::uint32_t n : {20u, 40u, 80u}) {
        auto s = strip(0.8, n);
        s.rules.times = {line_time(0.2), line_time(0.4), 2 * line_time(0.8)};
        const auto f = s.run();
        REQUIRE(f.fill);
        CHECK(*f.fill == Approx(line_time(0.8)).epsilon(n == 80 ? 0.002 : 0.01));
        for (const double x : {0.2, 0.4, 0.6})
            CHECK(*f.arrival[nearest(s.mesh, {x, 0.1, 0})] ==
                  Approx(line_time(x)).epsilon(n == 80 ? 0.01 : 0.06));
        balanced(f);
        CHECK(f.held == Approx(0.8 * 0.2 * kDeep * kPhi * s.rules.density).epsilon(1e-4));
        CHECK(f.filled == Approx(1).epsilon(1e-4));
        REQUIRE(f.front.size() == 3);
        CHECK(f.front[0] == Approx(0.25).margin(1.0 / n));
        CHECK(f.front[1] == Approx(0.5).margin(1.0 / n));
        CHECK(f.front[2] == Approx(1).epsilon(1e-4));
        CHECK(f.dry.empty());
        CHECK(s.mesh.points[*f.last].x() > 0.8 - 1.01 * 0.8 / n);
        CHECK(*f.vents[0] > 0.9 * line_time(0.8));
    }
}

TEST_CASE("a hose before a strip is a second resistance in series, as a straight line beside the square") {
    // dV/dt = Δp/μ / (R + x/(K·A)) with V = φ·A·x: t = φ·μ/Δp·(x²/(2K) + R·A·x).
    const double l = 0.8, deep = l / 4 * kDeep;
    const double resists = hose_resists(3, 0.004);
    CHECK(resists == Approx(128 * 3 / (3.14159265358979 * 2.56e-10)));
    CHECK(hose_resists(0, 0.01) == 0);
    const auto time = [&](double x, double R) {
        return kPhi * kMu / kDrop * (x * x / (2 * kK) + R * deep * x);
    };
    for (const double much : {0.0, 0.1, 1.0, 30.0}) {
        const double R = much * l / (kK * deep);
        double before = 1;
        for (const std::uint32_t n : {20u, 40u, 80u}) {
            auto s = strip(l, n);
            s.feeds[0].resists = R;
            const auto f = s.run();
            REQUIRE(f.fill);
            const double off = std::abs(*f.fill / time(l, R) - 1);
            CHECK(off < (n == 80 ? 0.01 : 0.06));
            CHECK(off <= before + 1e-7);
            before = off;
            CHECK(*f.arrival[nearest(s.mesh, {0.4, 0.1, 0})] == Approx(time(0.4, R)).epsilon(0.08));
            balanced(f);
            CHECK(f.unsettled == 0);
            // At the front the hose has all of the pressure to lose, at the end its share of the way.
            CHECK(f.feeds[0].least <= kDrop / (1 + much) * 1.02);
            if (n == 80)
                CHECK(f.pressure[nearest(s.mesh, {0, 0.1, 0})] == Approx(kDrop / (1 + much)).epsilon(0.02));
            // What went in by then is what the front has passed.
            CHECK(f.intake.front().first == 0);
            CHECK(f.intake.back().second == Approx(f.taken));
            for (std::size_t i = 1; i < f.intake.size(); ++i) {
                CHECK(f.intake[i].first >= f.intake[i - 1].first);
                CHECK(f.intake[i].second >= f.intake[i - 1].second);
            }
        }
    }
}

TEST_CASE(
    "hoses share what they lead to: two in one feed's place are half as tight, and turning is nothing") {
    const double l = 0.8, R = 0.5 * l / (kK * l / 4 * kDeep);
    auto one = strip(l, 40);
    one.feeds[0].resists = R;
    const auto whole = one.run();
    // The same end as two feeds, each with twice the hose over half of the width.
    auto two = one;
    two.feeds.clear();
    for (const bool left : {true, false})
        two.feeds.push_back(
            {where(one.mesh, [&](const Point& p) { return p.x() < 1e-9 && (p.y() < 0.099) == left; }),
             kDrop,
             {0.0, {}},
             {},
             2 * R});
    const auto parts = two.run();
    REQUIRE(parts.fill);
    CHECK(*parts.fill == Approx(*whole.fill).epsilon(0.03));
    CHECK(parts.taken == Approx(whole.taken).epsilon(1e-3));
    // A hose that opens when resin has passed it, with a tighter one before it.
    auto late = one;
    late.feeds[0].resists = 10 * R;
    const auto slow = late.run();
    late.feeds.push_back({where(one.mesh, [&](const Point& p) { return std::abs(p.x() - 0.4) < 1e-9; }),
                          kDrop,
                          {{}, Point(0.4, 0.1, 0)},
                          {},
                          R});
    const auto helped = late.run();
    REQUIRE(helped.feeds[1].opened);
    CHECK(*helped.fill < 0.7 * *slow.fill);
    balanced(helped);
    const Eigen::Matrix3d turn =
        (Eigen::AngleAxisd(0.7, Point(1, 2, -1).normalized()) * Eigen::AngleAxisd(2.1, Point::UnitZ()))
            .toRotationMatrix();
    auto turned = late;
    for (auto& p : turned.mesh.points) p = turn * p;
    turned.feeds[1].open.wet = turn * *turned.feeds[1].open.wet;
    turned.zero = turn * turned.zero;
    CHECK(*turned.run().fill == Approx(*helped.fill).epsilon(1e-6));
}

TEST_CASE("a disc fed in its middle fills by the radial law") {
    double before = 1e9;
    for (const std::uint32_t n : {10u, 20u, 40u}) {
        const double r0 = 0.02, R = 0.5;
        Set s;
        const std::uint32_t round = 4 * n;
        for (std::uint32_t j = 0; j <= n; ++j) {
            for (std::uint32_t i = 0; i < round; ++i) {
                const double r = r0 * std::pow(R / r0, static_cast<double>(j) / n), a = 2 * kPi * i / round;
                s.mesh.points.emplace_back(r * std::cos(a), r * std::sin(a), 0);
            }
        }
        for (std::uint32_t j = 0; j < n; ++j) {
            for (std::uint32_t i = 0; i < round; ++i) {
                const std::uint32_t a = j * round + i, b = j * round + (i + 1) % round;
                s.mesh.triangles.push_back({a, a + round, b + round});
                s.mesh.triangles.push_back({a, b + round, b});
            }
        }
        s.feeds = {
            {where(s.mesh, [&](const Point& p) { return p.norm() < r0 * 1.01; }), kDrop, {0.0, {}}, {}}};
        s.vents = {{where(s.mesh, [&](const Point& p) { return p.norm() > R * 0.999; }), 0}};
        const auto f = s.run();
        const double known =
            kPhi * kMu * R * R / (4 * kK * kDrop) * (2 * std::log(R / r0) - 1 + r0 * r0 / (R * R));
        REQUIRE(f.fill);
        const double off = std::abs(*f.fill / known - 1);
        CHECK(off < before);
        before = off;
        balanced(f);
    }
    CHECK(before < 0.002);
}

TEST_CASE("when it is full does not hang on how its steps fall") {
    // A solve may leave a crumb over behind the step that just fills it: nobody waits another step for that.
    auto s = strip(0.4, 40);
    s.mesh = refined(s.mesh, 0.0043, quiet).mesh;
    s.feeds[0].points = where(s.mesh, [](const Point& p) { return p.x() < 1e-9; });
    s.vents.clear();
    for (const double steps : {50.0, 77.0, 100.0, 131.0, 233.0}) {
        INFO(steps);
        s.rules.share = 1 / steps;
        const auto f = s.run();
        REQUIRE(f.fill);
        CHECK(*f.fill == Approx(line_time(0.4)).epsilon(1e-4));
        CHECK(f.filled == 1);
        balanced(f);
    }
}

TEST_CASE("resin that falls apart is refused or told in part: no figure is beyond what can be") {
    auto fall = strip(0.8, 40);
    fall.feeds[0].pressure = 0;
    fall.rules.gravity = Point(9.81, 0, 0);
    for (const double steps : {43.0, 60.0, 94.0, 173.4, 304.0}) {
        INFO(steps);
        fall.rules.share = 1 / steps;
        try {
            const auto f = fall.run();
            CHECK(f.filled <= 1);
            CHECK(f.filled > 0);
            CHECK(f.held <= 1.001 * 0.8 * 0.2 * kDeep * kPhi * fall.rules.density);
            balanced(f);
        } catch (const InputError& e) {
            CHECK(e.problem().find("breaks up") != std::string::npos);
        }
    }
}

TEST_CASE("without a vent a face is full when the front has come to its end, not at the end of the run") {
    for (const double size : {0.1, 0.011, 0.006, 0.0043}) {
        INFO(size);
        auto s = strip(0.4, 40);
        s.mesh = refined(s.mesh, size, quiet).mesh;
        s.feeds[0].points = where(s.mesh, [](const Point& p) { return p.x() < 1e-9; });
        s.vents.clear();
        s.rules.end = 1e7;
        const auto f = s.run();
        REQUIRE(f.fill);
        CHECK(*f.fill == Approx(line_time(0.4)).epsilon(0.01));
        CHECK(f.dry.empty());
        balanced(f);
    }
}

TEST_CASE("what lies amid a vent fills from the vent's edge, and nothing of it is lost or waited for") {
    // A disc fed at its rim and drawn at its middle: t(r) = φμ/KΔp·(r²/2·ln(r/R) + (R² − r²)/4), by Darcy
    // inwards from R; what the vent covers then fills at the rate at which the front came.
    const double R = 0.3;
    const auto law = [&](double r) {
        return kPhi * kMu / (kK * kDrop) * ((r > 0 ? r * r / 2 * std::log(r / R) : 0) + (R * R - r * r) / 4);
    };
    for (const double vent : {0.01, 0.03, 0.06}) {
        INFO(vent);
        std::vector<std::pair<double, double>> rings{{1e-4, 0}};
        for (int k = 1; k <= 60; ++k) rings.emplace_back(R * k / 60, 0);
        Set s;
        s.mesh = shapes::turned(rings, 48, false, true);
        s.mesh.triangles.clear();
        for (const auto& t : shapes::turned(rings, 48, true, false).triangles) s.mesh.triangles.push_back(t);
        s.feeds = {
            {where(s.mesh, [&](const Point& p) { return p.norm() > R - 1e-9; }), kDrop, {0.0, {}}, {}}};
        s.vents = {{where(s.mesh, [&](const Point& p) { return p.norm() < vent + 1e-9; }), 0}};
        REQUIRE(s.vents[0].points.size() > 48);
        const auto f = s.run();
        REQUIRE(f.fill);
        CHECK(f.dry.empty());
        CHECK(f.filled == Approx(1).epsilon(1e-4));
        CHECK(*f.vents[0] == Approx(law(vent)).epsilon(0.02));
        CHECK(*f.fill > law(vent));
        CHECK(*f.fill < 1.04 * law(0));
        CHECK(f.held == Approx(kPi * R * R * kDeep * kPhi * s.rules.density).epsilon(0.01));
        balanced(f);
        for (const auto& at : f.arrival) REQUIRE(at.has_value());
    }
    // One that is all of one end: behind its edge at x the strip fills at the rate at which resin comes
    // there, x²/2 + x·(L − x) of φμ/KΔp in all. Also on a mesh whose halves are cut again, so that some
    // neighbours over a right angle exchange nothing.
    auto s = strip(0.4, 40);
    const auto cut_again = refined(s.mesh, 0.006, quiet).mesh;
    for (const TriangleMesh* mesh : {&std::as_const(s.mesh), &cut_again}) {
        for (const double x : {0.3, 0.2, 0.05}) {
            INFO(mesh->points.size() << " points, " << x);
            auto one = s;
            one.mesh = *mesh;
            one.feeds[0].points = where(*mesh, [](const Point& p) { return p.x() < 1e-9; });
            one.vents = {{where(*mesh, [&](const Point& p) { return p.x() > x - 1e-9; }), 0}};
            const auto end = one.run();
            REQUIRE(end.fill);
            CHECK(*end.vents[0] == Approx(line_time(x)).epsilon(x < 0.1 ? 0.1 : 0.02));
            const double behind = kPhi * kMu / (kK * kDrop) * x * (0.4 - x);
            CHECK(*end.fill == Approx(line_time(x) + behind).epsilon(0.03));
            balanced(end);
        }
    }
    // And one that a feed lies in the midst of.
    s.vents = {{where(s.mesh, [](const Point& p) { return p.x() > 0.3 - 1e-9; }), 0}};
    s.feeds = {{{nearest(s.mesh, {0.36, 0.05, 0})}, kDrop, {0.0, {}}, {}}};
    const auto amid = s.run();
    CHECK(amid.feeds[0].mass > 0);
    balanced(amid);
}

TEST_CASE("where the medium stops short, two resistances stand in series") {
    // K·h tenfold over the first half: behind it t = φμ/(K·Δp)·(x²/2 + x·L1·K/K1) more, x from the change on.
    auto s = strip(1.0, 100);
    FlowLayer medium = plain(9 * kK, 9 * kK);
    medium.porosity = 1e-6;
    medium.within = Bounds{{-1, -1, -1}, {0.5, 1, 1}};
    s.layers.push_back(medium);
    const auto f = s.run();
    const double first = kPhi * kMu * 0.25 / (2 * 10 * kK * kDrop);
    const auto more = [&](double x) { return kPhi * kMu / (kK * kDrop) * (x * x / 2 + x * 0.5 / 10); };
    CHECK(*f.arrival[nearest(s.mesh, {0.5, 0.12, 0})] == Approx(first).epsilon(0.05));
    CHECK(*f.arrival[nearest(s.mesh, {0.75, 0.12, 0})] == Approx(first + more(0.25)).epsilon(0.01));
    CHECK(*f.fill == Approx(first + more(0.5)).epsilon(0.01));
}

TEST_CASE("a second feed opens in turn: by the clock, and when the front has come") {
    // Fed afresh at half its length with the first one shut, the second half fills like a strip of its own.
    for (const bool by_front : {false, true}) {
        auto s = strip(1.0, 80);
        const double half = line_time(0.5);
        Feed second;
        second.points = where(s.mesh, [](const Point& p) { return std::abs(p.x() - 0.5) < 1e-9; });
        second.pressure = kDrop;
        const FlowMoment moment = by_front ? FlowMoment{{}, Point(0.5, 0.1, 0)} : FlowMoment{half, {}};
        second.open = moment;
        s.feeds[0].shut = moment;
        s.feeds.push_back(second);
        const auto f = s.run();
        INFO(by_front);
        REQUIRE(f.feeds[1].opened);
        CHECK(*f.feeds[1].opened == Approx(half).epsilon(0.01));
        CHECK(*f.feeds[0].shut == Approx(*f.feeds[1].opened));
        CHECK(*f.fill == Approx(2 * half).epsilon(0.015));
        balanced(f);
        CHECK(f.feeds[0].mass == Approx(f.feeds[1].mass).epsilon(0.03));
    }
}

TEST_CASE("resin that thickens comes as far as L² = 2KΔpτ/φμ0·(1 − e^(−t/τ)) and no further") {
    auto s = strip(1.0, 80);
    const double tau = 1500;
    s.resin = ThickeningResin{kMu, tau};
    const double reach = std::sqrt(2 * kK * kDrop * tau / (kPhi * kMu));
    REQUIRE(reach < 0.9);
    s.rules.end = 40 * tau;
    const auto f = s.run();
    CHECK_FALSE(f.fill);
    CHECK(f.filled == Approx(reach).epsilon(0.01));
    for (const double x : {0.3, 0.5}) {
        const double known = -tau * std::log(1 - x * x / (reach * reach));
        CHECK(*f.arrival[nearest(s.mesh, {x, 0.1, 0})] == Approx(known).epsilon(0.02));
    }
    CHECK_FALSE(f.arrival[nearest(s.mesh, {0.98, 0.1, 0})]);
    balanced(f);
}

TEST_CASE("a wall filled upwards slows as gravity says, and one too tall never fills") {
    const double rho = 1100, g = 9.81, fall = rho * g;
    auto s = strip(1.0, 80);
    s.feeds[0].pressure = 2e4;
    s.rules.density = rho;
    s.rules.gravity = Point(-g, 0, 0);
    const auto f = s.run();
    const double p = 2e4;
    const auto known = [&](double x) {
        return kPhi * kMu / (kK * fall) * (-x - p / fall * std::log(1 - fall * x / p));
    };
    REQUIRE(f.fill);
    CHECK(*f.fill == Approx(known(1)).epsilon(0.01));
    CHECK(*f.arrival[nearest(s.mesh, {0.5, 0.1, 0})] == Approx(known(0.5)).epsilon(0.01));
    balanced(f);
    s.feeds[0].pressure = 6e3;
    s.rules.end = 1e6;
    const auto stuck = s.run();
    CHECK_FALSE(stuck.fill);
    CHECK(stuck.filled == Approx(6e3 / fall).epsilon(0.03));
}

TEST_CASE("fed at a point, an uneven preform wets an ellipse of √(K1/K2), turned with its layers") {
    for (const double turn : {0.0, 0.5}) {
        Set s;
        s.mesh = plate(1, 1, 90, 90);
        s.layers = {plain(4 * kK, kK)};
        s.layers[0].angle = turn;
        s.feeds = {{where(s.mesh, [](const Point& p) { return (p - Point(0.5, 0.5, 0)).norm() < 0.02; }),
                    kDrop,
                    {0.0, {}},
                    {}}};
        s.rules.end = 250;
        const auto f = s.run();
        const Point along(std::cos(turn), std::sin(turn), 0), across(-std::sin(turn), std::cos(turn), 0);
        double far = 0, wide = 0;
        for (std::uint32_t i = 0; i < s.mesh.points.size(); ++i) {
            if (!f.arrival[i]) continue;
            const Point p = s.mesh.points[i] - Point(0.5, 0.5, 0);
            far = std::max(far, std::abs(p.dot(along)));
            wide = std::max(wide, std::abs(p.dot(across)));
        }
        INFO(turn << " " << far << " " << wide);
        CHECK(far < 0.49);
        CHECK(far / wide == Approx(2).epsilon(0.08));
        balanced(f);
    }
}

TEST_CASE("turning mesh and layers together changes nothing") {
    auto s = strip(0.6, 24);
    s.layers = {plain(3 * kK, kK)};
    s.layers[0].angle = 0.4;
    const auto f = s.run();
    const Eigen::AngleAxisd spin(0.9, Point(2, -1, 1).normalized());
    for (auto& p : s.mesh.points) p = spin * p;
    s.zero = spin * s.zero;
    const auto g = s.run();
    CHECK(*g.fill == Approx(*f.fill).epsilon(1e-6));
    CHECK(g.taken == Approx(f.taken).epsilon(1e-6));
}

TEST_CASE("a pocket that resin shuts off is named with its place and size") {
    // A U lying on its side: the vent is in the lower arm alone, so the upper arm is shut off with its air.
    Set s;
    s.mesh = plate(1, 0.5, 60, 30);
    std::erase_if(s.mesh.triangles, [&](const Triangle& t) {
        const Point c = (s.mesh.points[t[0]] + s.mesh.points[t[1]] + s.mesh.points[t[2]]) / 3;
        return c.x() > 0.3 && c.y() > 0.2 && c.y() < 0.3;
    });
    s.feeds = {{where(s.mesh, [](const Point& p) { return p.x() < 1e-9; }), kDrop, {0.0, {}}, {}}};
    s.vents = {{where(s.mesh, [](const Point& p) { return p.x() > 1 - 1e-9 && p.y() < 0.2 + 1e-9; }), 0}};
    const auto f = s.run();
    CHECK_FALSE(f.fill);
    REQUIRE(f.dry.size() == 1);
    CHECK(f.dry[0].area == Approx(0.7 * 0.2).epsilon(0.12));
    CHECK(f.dry[0].at.x() > 0.4);
    CHECK(f.dry[0].at.y() > 0.3 - 1e-9);
    CHECK(f.filled < 0.8);
    balanced(f);
    // With a vent of its own it fills.
    s.vents.push_back(
        {where(s.mesh, [](const Point& p) { return p.x() > 1 - 1e-9 && p.y() > 0.3 - 1e-9; }), 0});
    const auto whole = s.run();
    CHECK(whole.fill);
    CHECK(whole.dry.empty());
}

TEST_CASE(
    "nobody gives what he has not: a feed below the vents, vents of two pressures, a wall drained from "
    "above") {
    auto s = strip(0.8, 24);
    s.vents[0].pressure = 2 * kDrop;
    s.rules.end = 1e5;
    const auto none = s.run();
    CHECK_FALSE(none.fill);
    // What lies in the feed's own points and no more.
    CHECK(none.filled < 0.03);
    CHECK(none.held >= 0);
    for (const auto& a : none.arrival) CHECK((!a || *a == 0));
    balanced(none);
    // Vents of two pressures: it fills, and draws as the lower one.
    auto two = strip(0.8, 24);
    two.vents.push_back(
        {where(two.mesh, [](const Point& p) { return p.x() > 0.8 - 1e-9 && p.y() > 0.1; }), 0.4 * kDrop});
    std::erase_if(two.vents[0].points, [&](std::uint32_t i) { return two.mesh.points[i].y() > 0.1; });
    const auto f = two.run();
    REQUIRE(f.fill);
    CHECK(*f.fill >= line_time(0.8) * 0.99);
    CHECK(*f.fill < line_time(0.8) / 0.6);
    CHECK(f.unsettled == 0);
    balanced(f);
    // Fed at the top without pressure, it falls at Kρg/φμ and leaves nothing hanging below zero.
    auto fall = strip(0.8, 40);
    fall.feeds[0].pressure = 0;
    fall.rules.gravity = Point(9.81, 0, 0);
    const auto g = fall.run();
    REQUIRE(g.fill);
    CHECK(*g.fill == Approx(kPhi * kMu * 0.8 / (kK * fall.rules.density * 9.81)).epsilon(0.03));
    balanced(g);
}

TEST_CASE("resin that falls as it is driven follows its law on meshes of any shape, and none is lost") {
    // dx/dt = K/φμ·(p/x + ρg), so t = φμ/Kρg·(x − p/ρg·ln(1 + ρgx/p)).
    for (const double drive : {3e2, 3e3, 9e4}) {
        for (const auto& [n, m] : {std::pair{13u, 2u}, {13u, 8u}, {24u, 6u}, {24u, 11u}, {40u, 6u}}) {
            INFO(drive << " Pa, " << n << " by " << m);
            Set s;
            s.mesh = plate(0.8, 0.2, n, m);
            s.feeds = {{where(s.mesh, [](const Point& p) { return p.x() < 1e-9; }), drive, {0.0, {}}, {}}};
            s.vents = {{where(s.mesh, [](const Point& p) { return p.x() > 0.8 - 1e-9; }), 0}};
            s.rules.gravity = Point(9.81, 0, 0);
            s.rules.end = 1e6;
            const auto f = s.run();
            REQUIRE(f.fill);
            const double weight = s.rules.density * 9.81;
            CHECK(*f.fill == Approx(kPhi * kMu / (kK * weight) *
                                    (0.8 - drive / weight * std::log(1 + weight * 0.8 / drive)))
                                 .epsilon(0.025));
            CHECK(f.filled == Approx(1).epsilon(1e-6));
            CHECK(f.bled < 1e-3 * f.held);
            balanced(f);
        }
    }
}

TEST_CASE("an island that no feed reaches ends the run at once, and stays empty") {
    auto s = strip(0.8, 24);
    auto island = plate(0.2, 0.2, 6, 6);
    const auto shift = static_cast<std::uint32_t>(s.mesh.points.size());
    for (auto& p : island.points) s.mesh.points.push_back(p + Point(2, 0, 0));
    for (const auto& t : island.triangles)
        s.mesh.triangles.push_back({t[0] + shift, t[1] + shift, t[2] + shift});
    s.vents.push_back({{shift}, 0});
    s.rules.end = 1e9;
    const auto f = s.run();
    CHECK_FALSE(f.fill);
    CHECK(f.steps < 250);
    CHECK(f.filled == Approx(0.16 / 0.2).epsilon(1e-3));
    CHECK_FALSE(f.arrival[shift]);
}

TEST_CASE("resin that cures stops where it gels") {
    CuringResin r;
    r.kinetics.A1 = 1e-3;
    r.kinetics.n = 1;
    r.kinetics.gel = 0.5;
    r.mu = kMu;
    r.energy = 0;
    const Viscosity v(r, 0);
    // First order: gel at ln 2 ÷ k.
    REQUIRE(v.gels());
    CHECK(*v.gels() == Approx(std::log(2) / 1e-3).epsilon(1e-3));
    CHECK(v.at(0) == Approx(kMu).epsilon(1e-2));
    CHECK(v.at(400) > v.at(100));
    CHECK(std::isinf(v.at(1000)));
    // Older at the start, it has so much less.
    CHECK(*Viscosity(r, -200).gels() == Approx(*v.gels() - 200).epsilon(1e-3));
    for (const double t : {50.0, 300.0, 600.0}) CHECK(*v.when(v.flow_time(t)) == Approx(t).epsilon(1e-3));
    // ∫dt/μ by a sum of its own.
    double sum = 0;
    for (int i = 0; i < 6000; ++i) {
        const double a = 1 - std::exp(-1e-3 * (i + 0.5) / 10);
        sum += 0.1 / (kMu * std::pow(0.5 / (0.5 - a), 1.5 + a));
    }
    CHECK(v.flow_time(600) == Approx(sum).epsilon(2e-3));
    auto s = strip(1.0, 40);
    s.resin = r;
    s.rules.end = 1e5;
    const auto f = s.run();
    CHECK_FALSE(f.fill);
    REQUIRE(f.gelled);
    CHECK(*f.gelled == Approx(std::log(2) / 1e-3).epsilon(1e-3));
    const double reach = std::sqrt(2 * kK * kDrop * v.flow_time(1e5) / kPhi);
    CHECK(f.filled == Approx(reach).epsilon(0.03));
}

TEST_CASE("what cannot be filled is refused, and stopping stops") {
    auto s = strip(0.5, 8);
    s.layers[0].within = Bounds{{0, 0, -1}, {0.2, 1, 1}};
    CHECK_THROWS_AS(s.run(), InputError);
    s = strip(0.5, 8);
    s.feeds[0].points.clear();
    CHECK_THROWS_AS(s.run(), InputError);
    s = strip(0.5, 8);
    Progress stopped;
    stopped.stop();
    CHECK_THROWS_AS(fill(s.mesh, face_flows(s.mesh, s.layers, s.zero), s.feeds, s.vents,
                         Viscosity(s.resin, 0), s.rules, stopped),
                    Cancelled);
}

TEST_CASE("the front under a medium lags as a solved cross-section has it") {
    // Medium on top of a tight preform, seen from the side: the plane of the mesh is the section, its own
    // layer the medium in the upper strip and the preform below, where resin goes up and down by Kz alone.
    FlowLayer medium, preform;
    medium.K1 = 2e-9;
    medium.thickness = 0.001;
    medium.porosity = 0.8;
    preform.Kz = 1e-12;
    preform.thickness = 0.004;
    preform.porosity = 0.5;
    const double lag = lag_under(medium, preform).length;
    Set s;
    s.mesh = plate(0.6, 0.005, 240, 20);
    FlowLayer top = plain(medium.K1, medium.K1), below = plain(1e-16, preform.Kz);
    top.thickness = below.thickness = 1;
    top.porosity = medium.porosity;
    below.porosity = preform.porosity;
    top.within = Bounds{{-1, 0.004, -1}, {1, 1, 1}};
    below.within = Bounds{{-1, -1, -1}, {1, 0.004, 1}};
    s.layers = {top, below};
    s.feeds = {{where(s.mesh, [](const Point& p) { return p.x() < 1e-9; }), kDrop, {0.0, {}}, {}}};
    s.rules.end = 400;
    const auto f = s.run();
    // Where the front is in the medium, and where at the foot of the preform, in the end.
    double ahead = 0, behind = 0;
    for (std::uint32_t i = 0; i < s.mesh.points.size(); ++i) {
        if (!f.arrival[i]) continue;
        if (s.mesh.points[i].y() > 0.0045) ahead = std::max(ahead, s.mesh.points[i].x());
        if (s.mesh.points[i].y() < 0.0001) behind = std::max(behind, s.mesh.points[i].x());
    }
    INFO(lag << " against " << ahead - behind);
    REQUIRE(ahead < 0.55);
    CHECK(lag == Approx(ahead - behind).epsilon(0.3));
}
