// Shells on places that push and do not pull, against a beam peeled off the ground and against themselves.
#include <catch2/catch.hpp>

#include <algorithm>

#include "core/science/shell/contact.hpp"
#include "tests/quiet.hpp"
#include "tests/science/shell/sheets.hpp"

using namespace jig;
using namespace jig::shell_fe;

namespace {

constexpr double kLength = 2, kWidth = 0.04, kThick = 0.002, kE = 70e9, kDensity = 2700;

/// A strip that lies on both its long edges, turned by `turn` about the pull and carried off to `to`.
struct Strip {
    Model model;
    std::vector<std::uint32_t> edges, end;
    Eigen::Matrix3d turned;
    explicit Strip(double size, double turn = 0, const Point& to = Point::Zero(), int n = 160)
        : turned(Eigen::AngleAxisd(turn, Point::UnitZ())) {
        fixtures::sheet(model.mesh, n, 2, [&](double u, double v) {
            return Point(to + turned * (size * Point(kLength * u, kWidth * v, 0)));
        });
        // Without Poisson's ratio a plate bends as a beam does.
        model.skins = {{fixtures::plate(kE, 0, size * kThick, 0, kDensity), turned * Point::UnitX()}};
        for (int i = 0; i <= n; ++i) {
            for (const int j : {0, 2}) edges.push_back(static_cast<std::uint32_t>(j * (n + 1) + i));
        }
        for (int j = 0; j <= 2; ++j) end.push_back(static_cast<std::uint32_t>(j * (n + 1) + n));
    }
    [[nodiscard]] OnPlaces ground(double up) const {
        const auto three = three_of(model.mesh.points, edges, 1e-4);
        REQUIRE(three);
        return {std::make_shared<const System>(model, *three, quiet), edges, *three, up, quiet};
    }
    /// Its weight onto the ground, and its end pulled off it.
    [[nodiscard]] Loads load(double up, double pull) const {
        Loads out;
        out.gravity = -up * 9.81 * Point::UnitZ();
        for (std::size_t k = 0; k < end.size(); ++k)
            out.nodes.push_back({end[k], up * pull * (k == 1 ? 0.5 : 0.25) * Point::UnitZ()});
        return out;
    }
};

}  // namespace

TEST_CASE("a strip that is pulled up by its end peels off the ground as far as its weight lets it") {
    struct Case {
        double size, turn, up, share;
    };
    for (const auto& c : {Case{1, 0, 1, 0.2}, Case{1, 0, 1, 0.35}, Case{1, 0.7, 1, 0.3},
                          Case{0.1, 2.5, 1, 0.3}, Case{3, 0, -1, 0.3}}) {
        INFO(c.size << " times as large, turned by " << c.turn << ", up " << c.up << ", " << c.share);
        const Strip strip(c.size, c.turn, Point(c.size, -0.3, 0.2));
        const auto ground = strip.ground(c.up);
        const double length = c.size * kLength;
        const double weight = 9.81 * ground.system().mass(), w = weight / length, P = c.share * weight;
        const double EI = kE * c.size * kWidth * std::pow(c.size * kThick, 3) / 12;
        const auto r = ground.settle(ground.system().solve(strip.load(c.up, P)), true);
        REQUIRE(r.stands);
        // Where it leaves the ground nothing turns it: P·a = w·a²/2, and from there it is a beam built in
        // that carries w and P: P·a³/3EI − w·a⁴/8EI = w·a⁴/24EI. The ground pushes w·a − P at that one place.
        const double a = 2 * P / w;
        CHECK(c.up * r.solution.displacement(strip.end[1]).z() ==
              Approx(w * std::pow(a, 4) / (24 * EI)).epsilon(0.02));
        double sum = 0, moment = 0, about = 0;
        const Point along = strip.turned * Point::UnitX();
        for (std::size_t i = 0; i < strip.edges.size(); ++i) {
            const double force = c.up * r.solution.held[i].second.z();
            const double gap = c.up * r.solution.displacement(strip.edges[i]).z();
            CHECK(force >= -1e-6 * weight);
            CHECK(gap >= -1e-9 * c.size);
            CHECK(std::min(force / weight, gap / c.size) < 1e-6);
            const double x = along.dot(strip.model.mesh.points[strip.edges[i]] - strip.model.mesh.points[0]);
            sum += force;
            moment += force * x;
            if (std::abs(x - (length - a)) < 0.03 * length) about += force;
        }
        CHECK(sum == Approx(weight - P).epsilon(1e-6));
        CHECK(moment == Approx(weight * length / 2 - P * length).epsilon(1e-5));
        CHECK(about > w * a - P);
        CHECK(about < w * a - P + 0.06 * length * w);
        CHECK(r.lifted / 2.0 / 160 == Approx(a / length).margin(0.015));
    }
}

TEST_CASE("what nothing lifts lies as it would be held, and what is pulled off altogether does not stand") {
    const Strip strip(1);
    const auto ground = strip.ground(1);
    const double weight = 9.81 * ground.system().mass();
    const auto flat = ground.settle(ground.system().solve(strip.load(1, 0)), true);
    CHECK(flat.stands);
    CHECK(flat.solution.reactions.z() == Approx(weight).epsilon(1e-6));
    // By half its weight it hangs on its other end; by more it tips over that.
    const auto most = ground.settle(ground.system().solve(strip.load(1, 0.49 * weight)), true);
    CHECK(most.stands);
    const auto over = ground.settle(ground.system().solve(strip.load(1, 0.6 * weight)), true);
    CHECK_FALSE(over.stands);
    CHECK(over.lifted == 0);
    const auto off = ground.settle(ground.system().solve(strip.load(1, 1.5 * weight)), true);
    CHECK_FALSE(off.stands);
    CHECK(off.solution.reactions.z() == Approx(-0.5 * weight).epsilon(1e-6));
    CHECK_FALSE(three_of(strip.model.mesh.points, {0, 1, 2, 3, 4}, 1e-6));
    CHECK_FALSE(three_of(strip.model.mesh.points, {0, 160}, 1e-6));
}

TEST_CASE(
    "a plate lifts its corners off a rim that only pushes, as one that is held where it lies and nowhere "
    "else") {
    constexpr double kSide = 0.5, kPressure = 800;
    for (const int n : {16, 30}) {
        Model model;
        fixtures::sheet(model.mesh, n, n, [](double u, double v) { return Point(kSide * u, kSide * v, 0); });
        const auto l = fixtures::plate(10e9, 0.3, 0.004);
        model.skins = {{l, Point::UnitX()}};
        std::vector<std::uint32_t> rim;
        for (std::uint32_t i = 0; i < model.mesh.points.size(); ++i) {
            const auto& p = model.mesh.points[i];
            if (std::min({p.x(), p.y(), kSide - p.x(), kSide - p.y()}) < 1e-9) rim.push_back(i);
        }
        const auto three = three_of(model.mesh.points, rim, 1e-3);
        REQUIRE(three);
        const OnPlaces ground(std::make_shared<const System>(model, *three, quiet), rim, *three, 1, quiet);
        Loads load;
        load.pressure = kPressure;
        const auto r = ground.settle(ground.system().solve(load), true);
        REQUIRE(r.stands);
        CHECK(r.lifted >= 4);
        Support lies{{}, {false, false, true, false, false, false}, {}};
        for (std::size_t i = 0; i < rim.size(); ++i) {
            const double force = r.solution.held[i].second.z();
            CHECK(force >= -1e-6);
            CHECK(r.solution.displacement(rim[i]).z() >= -1e-9);
            if (r.bears[i] != 0) lies.points.push_back(rim[i]);
        }
        // The corners are among those that come off.
        for (const std::uint32_t corner : {0u, static_cast<std::uint32_t>(n)}) {
            const auto at = static_cast<std::size_t>(std::find(rim.begin(), rim.end(), corner) - rim.begin());
            CHECK(r.bears[at] == 0);
        }
        auto supports = *three;
        for (auto& s : supports) s.fix[2] = false;
        supports.push_back(lies);
        const System held(model, supports, quiet);
        const auto again = held.solve(load);
        CHECK((again.freedoms - r.solution.freedoms).norm() < 1e-6 * again.freedoms.norm());
        // It gives a little more than held all round: 0.00406 qa⁴/D (Timoshenko, art. 30).
        const double navier = 0.00406 * kPressure * std::pow(kSide, 4) / l.D_free(0, 0);
        CHECK(r.solution.largest > navier);
        CHECK(r.solution.largest < 1.1 * navier);
    }
}
