// Cloth over faces against what is known of them: flat, cylinder and cone are developed without shear; on a
// sphere and a saddle the angle between the threads obeys ω_uv = −K·sin ω (Chebyshev 1878; Servant 1902),
// which is integrated here on a grid of its own (docs/methods.md, Drape).
#include <catch2/catch.hpp>
#include <cmath>

#include "core/base/error.hpp"
#include "core/base/units.hpp"
#include "core/science/drape/net.hpp"
#include "core/science/drape/walk.hpp"
#include "core/science/mesh/outline.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using shapes::area_of;
using shapes::sheet;

namespace {

Drape laid(const TriangleMesh& mesh, const DrapeRules& rules) {
    return drape(mesh, topology_of(mesh), rules, quiet);
}

/// A cap of a sphere of radius R about the top, squared off at `reach` rad along both axes.
TriangleMesh cap(double R, double reach, std::uint32_t n) {
    return sheet(n, n, [&](double u, double v) {
        const double x = std::tan(reach * (2 * u - 1)), y = std::tan(reach * (2 * v - 1));
        return Point(R * Point(x, y, 1).normalized());
    });
}

/// Angle between the threads, rad, at (u, v) from where both first threads cross, by the equation's own grid.
double chebyshev(double u, double v, double K) {
    constexpr int kSteps = 400;
    const double du = u / kSteps, dv = v / kSteps;
    std::vector<double> row(kSteps + 1, kPi / 2);
    for (int j = 0; j < kSteps; ++j) {
        double corner = kPi / 2, left = kPi / 2;
        for (int i = 0; i < kSteps; ++i) {
            const double right = row[static_cast<std::size_t>(i) + 1];
            double next = left + right - corner;
            for (int k = 0; k < 3; ++k)
                next = left + right - corner - du * dv * K * std::sin((left + right + corner + next) / 4);
            row[static_cast<std::size_t>(i)] = left;
            corner = right;
            left = next;
        }
        row[kSteps] = left;
    }
    return row[kSteps];
}

double cell_shear(const Drape& d, int i, int j) {
    for (const auto& cell : d.cells) {
        if (d.nodes[cell.nodes[0]].i == i && d.nodes[cell.nodes[0]].j == j) return cell.shear;
    }
    FAIL("no cell " << i << ", " << j);
    return 0;
}

}  // namespace

TEST_CASE("a flat sheet takes cloth without shear, from any seed at any angle, to scale") {
    const auto flat = sheet(40, 30, [](double u, double v) { return Point(0.8 * u, 0.6 * v, 0.1); });
    for (const auto& seed : {Point(0.4, 0.3, 0.1), Point(0.012, 0.015, 0.1), Point(0.8, 0.6, 0.1)}) {
        for (const double turn : {0.0, 0.3, kPi / 4}) {
            INFO(seed.x() << " " << turn);
            const auto d = laid(flat, {seed, Point(std::cos(turn), std::sin(turn), 0), 0.02, 0.8});
            CHECK(d.most < 1e-6);
            CHECK(d.covered == Approx(0.48).epsilon(1e-9));
            CHECK(d.flat_area == Approx(0.48).epsilon(1e-9));
            CHECK(d.holes.empty());
            CHECK(d.locked == 0);
            const Point2 size = d.flat_high - d.flat_low;
            CHECK(size.x() == Approx(0.8 * std::cos(turn) + 0.6 * std::sin(turn)).epsilon(1e-6));
            CHECK(size.y() == Approx(0.8 * std::sin(turn) + 0.6 * std::cos(turn)).epsilon(1e-6));
        }
    }
}

TEST_CASE("a cylinder is developed, turned and scaled with mesh and seed") {
    for (const double R : {0.2, 2.0}) {
        const auto pipe = sheet(120, 40, [&](double u, double v) {
            const double a = kPi * u;
            return Point(R * std::cos(a), 3 * R * v, R * std::sin(a));
        });
        const Eigen::AngleAxisd spin(1.1, Point(1, 2, 3).normalized());
        for (const double turn : {0.0, 0.5}) {
            DrapeRules rules{Point(0, 1.5 * R, R), Point(std::cos(turn), std::sin(turn), 0), R / 20, 0.8};
            const auto d = laid(pipe, rules);
            CHECK(d.most < radians(0.3));
            CHECK(d.covered == Approx(area_of(pipe)).epsilon(1e-9));
            CHECK(d.flat_area == Approx(kPi * R * 3 * R).epsilon(1e-3));
            if (turn == 0) {
                CHECK((d.flat_high - d.flat_low).x() == Approx(kPi * R).epsilon(1e-3));
                CHECK((d.flat_high - d.flat_low).y() == Approx(3 * R).epsilon(1e-3));
            }
            auto turned = pipe;
            for (auto& p : turned.points) p = spin * p;
            rules.seed = spin * rules.seed;
            rules.warp = spin * rules.warp;
            const auto e = laid(turned, rules);
            CHECK(e.flat_area == Approx(d.flat_area).epsilon(1e-6));
            CHECK(e.covered == Approx(d.covered).epsilon(1e-9));
            CHECK(e.most == Approx(d.most).margin(radians(0.1)));
        }
    }
}

TEST_CASE("cloth that comes round to itself meets along one seam, and lies flat as large as the face") {
    // A tube and a cone's stump, both open at their ends: developed without shear, so that area is area.
    for (const double foot : {1.0, 1.4}) {
        const double R = 0.2, H = 0.5;
        std::vector<std::pair<double, double>> profile;
        for (int i = 0; i <= 45; ++i) profile.emplace_back(R * (foot + (1 - foot) * i / 45), H * i / 45);
        const auto tube = shapes::turned(profile, 120, false, false);
        const Eigen::AngleAxisd spin(0.7, Point(3, -1, 2).normalized());
        for (const double turn : {0.0, 0.3, kPi / 4, kPi / 2}) {
            INFO("foot " << foot << ", turned by " << turn);
            const Point warp(0, std::cos(turn), std::sin(turn));
            const DrapeRules rules{Point(R * (1 + foot) / 2, 0, H / 2), warp, 0.011, 0.8};
            const auto d = laid(tube, rules);
            const double area = area_of(tube);
            CHECK(d.holes.empty());
            CHECK(d.covered == Approx(area).epsilon(1e-9));
            CHECK(d.flat_area == Approx(area).epsilon(2e-3));
            CHECK(d.most < radians(2));
            // From end to end at the least, and no longer than a thread that goes that way, in a mesh's
            // teeth.
            CHECK(d.seam > 0.99 * H);
            const auto outlines = flat_outlines(d, tube);
            REQUIRE(outlines.size() == 1);
            CHECK(std::abs(signed_area(outlines[0])) == Approx(area).epsilon(2e-3));
            if (turn == 0 && foot == 1) {
                CHECK(d.seam < 1.3 * H);
                CHECK((d.flat_high - d.flat_low).y() == Approx(H).epsilon(2e-3));
                CHECK((d.flat_high - d.flat_low).x() == Approx(2 * kPi * R).epsilon(0.03));
            }
            // From a rim, where one way off the seed leads nowhere.
            const auto low = laid(tube, {Point(R * foot, 0, 0), warp, 0.011, 0.8});
            CHECK(low.holes.empty());
            CHECK(low.covered == Approx(area).epsilon(1e-9));
            CHECK(low.flat_area == Approx(area).epsilon(5e-3));
            CHECK(low.seam > 0.99 * H);
            CHECK(low.seam < 2.5 * H);
            auto other = tube;
            for (auto& p : other.points) p = spin * p;
            const auto e = laid(other, {spin * rules.seed, spin * warp, 0.011, 0.8});
            CHECK(e.flat_area == Approx(d.flat_area).epsilon(2e-3));
            CHECK(e.covered == Approx(d.covered).epsilon(1e-9));
        }
    }
    // A sheet that comes round to nothing has no seam.
    const auto flat = sheet(20, 20, [](double u, double v) { return Point(u, v, 0); });
    CHECK(laid(flat, {Point(0.5, 0.5, 0), Point(1, 0, 0), 0.03, 0.8}).seam == 0);
}

TEST_CASE("both sides of a thin web take cloth as if the other were not there") {
    // Out and back over an edge with 3 mm between, at threads 10 mm apart.
    const auto web = sheet(80, 20, [](double u, double v) {
        const double s = 0.4 * (2 * u - 1), bend = 0.0015 * kPi / 2;
        if (s < -bend) return Point(s + bend, 0.2 * v, 0.0015);
        if (s > bend) return Point(-(s - bend), 0.2 * v, -0.0015);
        const double a = s / 0.0015;
        return Point(0.0015 * std::cos(a), 0.2 * v, -0.0015 * std::sin(a));
    });
    const auto d = laid(web, {Point(-0.1, 0.1, 0.0015), Point(1, 0, 0), 0.01, 0.8});
    CHECK(d.covered == Approx(area_of(web)).epsilon(1e-6));
    CHECK(d.flat_area == Approx(area_of(web)).epsilon(0.02));
    CHECK(d.seam == 0);
}

TEST_CASE("a channel with sharp folds is developed too, whatever way the cloth crosses them") {
    for (const double fold : {0.5, kPi / 4, kPi / 3, kPi / 2}) {
        for (const double turn : {0.0, 0.4, 0.9}) {
            INFO(fold << " " << turn);
            // Three panels of 0.4 m, the folds at a third and at two.
            const Point up(std::cos(fold), 0, std::sin(fold));
            const auto profile = [&](double along) {
                return Point(std::min(along, 0.4) * Point::UnitX() + std::clamp(along - 0.4, 0.0, 0.4) * up +
                             std::max(along - 0.8, 0.0) * Point::UnitX());
            };
            const auto mesh = sheet(36, 27, [&](double u, double v) {
                return Point(profile(1.2 * u) + 0.9 * v * Point::UnitY());
            });
            DrapeRules rules;
            rules.seed = profile(0.6) + 0.45 * Point::UnitY();
            rules.warp = std::cos(turn) * up + std::sin(turn) * Point::UnitY();
            rules.cell = 0.035;
            const auto d = laid(mesh, rules);
            CHECK(d.covered == Approx(1.2 * 0.9).epsilon(1e-3));
            CHECK(d.holes.empty());
            double off = 0, shear = 0;
            for (const auto& node : d.nodes) {
                if (node.outside) continue;
                // Its place along the unfolded profile, by the panel that it lies on.
                const double along = node.at.z() < 1e-9 ? node.at.x()
                                     : node.at.z() > 0.4 * up.z() - 1e-9
                                         ? 0.8 + node.at.x() - profile(0.8).x()
                                         : 0.4 + node.at.z() / up.z();
                const Point2 is(along - 0.6, node.at.y() - 0.45);
                const Point2 right = rules.cell * (node.i * Point2(std::cos(turn), std::sin(turn)) +
                                                   node.j * Point2(-std::sin(turn), std::cos(turn)));
                off = std::max(off, (is - right).norm());
            }
            for (const auto& cell : d.cells) {
                bool inside = true;
                for (const auto n : cell.nodes) inside = inside && !d.nodes[n].outside;
                if (inside) shear = std::max(shear, cell.shear);
            }
            CHECK(off < 1e-4 * rules.cell);
            CHECK(shear < 1e-4);
            // The pattern is the channel rolled out, turned as the warp was.
            double flat_off = 0;
            for (std::size_t p = 0; p < mesh.points.size(); ++p) {
                const Point2 is(1.2 * static_cast<double>(p % 37) / 36 - 0.6,
                                0.9 * static_cast<double>(p / 37) / 27 - 0.45);
                const Point2 right(std::cos(turn) * is.x() + std::sin(turn) * is.y(),
                                   -std::sin(turn) * is.x() + std::cos(turn) * is.y());
                if (d.points[p].covered) flat_off = std::max(flat_off, (d.points[p].flat - right).norm());
            }
            // Where a fold runs out at a rim, past which no thread leads, a tenth of a cell.
            CHECK(flat_off < 0.1 * rules.cell);
            CHECK(d.flat_area == Approx(1.2 * 0.9).epsilon(2e-3));
        }
    }
}

TEST_CASE("a cone without its tip comes out as its development") {
    // Half angle 30°: rolled out it is a sector of π, its radii the slant lengths.
    const double near = 0.2, far = 0.6;
    const auto cone = sheet(160, 40, [&](double u, double v) {
        const double a = kPi * (u - 0.5) * 1.2, s = near + (far - near) * v, r = s / 2;
        return Point(r * std::sin(a), r * std::cos(a), -s * std::cos(kPi / 6));
    });
    const auto d = laid(cone, {Point(0, 0.2, -0.4 * std::cos(kPi / 6)), Point(1, 0, 0), 0.01, 0.8});
    CHECK(d.most < radians(0.6));
    CHECK(d.covered == Approx(area_of(cone)).epsilon(1e-9));
    const double opening = 0.6 * kPi;  // of the sector: 1.2 · π · sin 30°
    CHECK(d.flat_area == Approx(opening / 2 * (far * far - near * near)).epsilon(1e-3));
    // Its longest chord, corner to corner of the outer arc.
    const Point2 a = d.points[40 * 161].flat, b = d.points[40 * 161 + 160].flat;
    CHECK((a - b).norm() == Approx(2 * far * std::sin(opening / 2)).epsilon(2e-3));
}

TEST_CASE("on a sphere the threads close as Chebyshev's equation has it, the closer the finer") {
    const double R = 0.4;
    double before = 1e9;
    for (const int n : {8, 16, 32}) {
        const double cell = R * 0.96 / n;
        const auto d = laid(cap(R, 1.1, static_cast<std::uint32_t>(6 * n + 30)),
                            {Point(0, 0, R), Point(1, 0, 0), cell, 0.8});
        double worst = 0;
        for (const auto& [p, q] :
             {std::pair{0.25, 0.25}, {0.5, 0.25}, {0.5, 0.5}, {0.75, 0.5}, {0.75, 0.75}}) {
            const int i = static_cast<int>(p * n), j = static_cast<int>(q * n);
            const double known = kPi / 2 - chebyshev((i + 0.5) * cell, (j + 0.5) * cell, 1 / (R * R));
            const double off = cell_shear(d, i, j) - std::abs(known);
            INFO(n << " " << i << " " << j << " " << degrees(known) << " " << degrees(cell_shear(d, i, j)));
            CHECK(std::abs(off) < radians(n > 20 ? 0.3 : 1.5));
            worst = std::max(worst, std::abs(off));
        }
        CHECK(worst < before);
        before = worst;
    }
}

TEST_CASE("on a saddle they open the other way by as much") {
    const double R = 1.0;
    const auto saddle = sheet(240, 240, [&](double u, double v) {
        const double x = 0.5 * (2 * u - 1), y = 0.5 * (2 * v - 1);
        return Point(x, y, (x * x - y * y) / (2 * R));
    });
    const double cell = 0.01;
    const auto d = laid(saddle, {Point(0, 0, 0), Point(1, 0, 0), cell, 0.8});
    CHECK(d.covered == Approx(area_of(saddle)).epsilon(1e-9));
    for (const int k : {8, 16, 24}) {
        const double u = (k + 0.5) * cell;
        // Curvature falls off as 1 ÷ (1 + r²/R²)²: that of the middle of the way.
        const double r2 = u * u / 2, K = -1 / std::pow(1 + r2, 2);
        const double known = std::abs(kPi / 2 - chebyshev(u, u, K));
        INFO(k << " " << degrees(known));
        CHECK(cell_shear(d, k, k) == Approx(known).epsilon(0.04).margin(radians(0.05)));
        CHECK(cell_shear(d, -1 - k, k) == Approx(cell_shear(d, k, k)).epsilon(0.05).margin(radians(0.1)));
    }
}

TEST_CASE("what the cloth does is known at any place, and its threads are unit tangents") {
    const double R = 0.4;
    const auto dome = cap(R, 0.9, 60);
    const auto d = laid(dome, {Point(0, 0, R), Point(1, 1, 0), 0.02, radians(12)});
    CHECK(d.covered == Approx(area_of(dome)).epsilon(1e-9));
    CHECK(d.flat_area > d.covered);
    CHECK(d.locked > 0);
    CHECK(d.locked < d.covered / 2);
    CHECK(d.most > radians(12));
    int looked = 0;
    for (std::size_t f = 0; f < dome.triangles.size(); f += 97) {
        const auto warp = warp_on(d, dome, f);
        REQUIRE(warp);
        CHECK(warp->norm() == Approx(1));
        CHECK(std::abs(warp->dot(dome.area_vector2(f).normalized())) < 1e-9);
        const auto shear = shear_at(d, dome, f, dome.centre(f));
        REQUIRE(shear);
        CHECK(*shear <= d.most + 1e-9);
        ++looked;
    }
    CHECK(looked > 50);
    // Its pattern's outline holds the area that the cells have.
    const auto outlines = flat_outlines(d, dome);
    REQUIRE(outlines.size() == 1);
    double area = 0;
    for (std::size_t i = 0; i < outlines[0].size(); ++i) {
        const Point2 &p = outlines[0][i], &q = outlines[0][(i + 1) % outlines[0].size()];
        area += (p.x() * q.y() - p.y() * q.x()) / 2;
    }
    CHECK(std::abs(area) == Approx(d.flat_area).epsilon(1e-6));
}

TEST_CASE("odd faces end without a crash, and what cloth does not reach is named") {
    // A closed ball: it wraps round and stops.
    const auto ball = sheet(48, 24, [](double u, double v) {
        const double a = 2 * kPi * u, b = kPi * (v - 0.5) * 0.999;
        return Point(0.3 * std::cos(b) * std::cos(a), 0.3 * std::cos(b) * std::sin(a), 0.3 * std::sin(b));
    });
    const auto round = laid(ball, {Point(0.3, 0, 0), Point(0, 1, 0), 0.02, 0.8});
    CHECK(round.covered > 0.3 * area_of(ball));
    CHECK(round.covered <= area_of(ball) * (1 + 1e-9));
    // Two islands: the other one is a hole.
    auto two = sheet(10, 10, [](double u, double v) { return Point(0.2 * u, 0.2 * v, 0); });
    const auto more = sheet(10, 10, [](double u, double v) { return Point(1 + 0.2 * u, 0.2 * v, 0); });
    const auto shift = static_cast<std::uint32_t>(two.points.size());
    two.points.insert(two.points.end(), more.points.begin(), more.points.end());
    for (const auto& t : more.triangles) two.triangles.push_back({t[0] + shift, t[1] + shift, t[2] + shift});
    const auto half = laid(two, {Point(0.1, 0.1, 0), Point(1, 0, 0), 0.01, 0.8});
    CHECK(half.covered == Approx(0.04).epsilon(1e-9));
    REQUIRE(half.holes.size() == 1);
    CHECK(half.holes[0].x() > 1);
    // A band that is joined after half a turn has one side only: the net ends all the same, and soon.
    auto band = sheet(60, 8, [](double u, double v) {
        const double a = 2 * kPi * u, h = 0.3 * (v - 0.5), r = 0.5 + h * std::cos(a / 2);
        return Point(r * std::cos(a), r * std::sin(a), h * std::sin(a / 2));
    });
    const double cell = std::sqrt(area_of(band)) / 42;
    for (const bool joined : {false, true}) {
        for (auto& t : band.triangles) {
            for (auto& i : t) i = joined && i % 61 == 60 ? (8 - i / 61) * 61 : i;
        }
        for (const double turn : {0.0, 0.7, kPi / 2}) {
            const Point warp(0, std::cos(turn), std::sin(turn));
            const auto once = laid(band, {Point(0.5, 0, 0), warp, cell, 0.8});
            CHECK(once.covered > 0.4 * area_of(band));
            CHECK(once.nodes.size() < 20000);
        }
    }
    // A fold of a right angle, a strip thinner than a cell, one triangle, and a face of no area among others.
    const auto fold = sheet(40, 20, [](double u, double v) {
        const double s = 0.4 * u - 0.2;
        return s < 0 ? Point(s, 0.2 * v, 0) : Point(0, 0.2 * v, s);
    });
    CHECK(laid(fold, {Point(-0.1, 0.1, 0), Point(1, 0, 0), 0.01, 0.8}).covered ==
          Approx(area_of(fold)).epsilon(1e-6));
    const auto strip = sheet(100, 1, [](double u, double v) { return Point(u, 0.004 * v, 0); });
    CHECK(laid(strip, {Point(0.5, 0.002, 0), Point(1, 0, 0), 0.01, 0.8}).covered > 0);
    TriangleMesh one{{Point(0, 0, 0), Point(0.1, 0, 0), Point(0, 0.1, 0)}, {{0, 1, 2}, {0, 1, 1}}};
    CHECK(laid(one, {Point(0.02, 0.02, 0), Point(1, 0, 0), 0.01, 0.8}).covered == Approx(0.005));
    CHECK_THROWS_AS(laid(one, {Point(0, 0, 0), Point(0, 0, 1), 0.01, 0.8}), InputError);
    CHECK_THROWS_AS(laid(one, {Point(0, 0, 0), Point(0, 0, 0), 0.01, 0.8}), InputError);
}

TEST_CASE("a seed on a rim, past it or over a hole starts the cloth on the face beside it") {
    // A dome with a round hole at its top and a wavy foot.
    const auto dome = sheet(96, 30, [](double u, double v) {
        const double a = 2 * kPi * u, b = 1.4 * v;
        const double r = 0.5 * std::cos(b) * (1 + 0.02 * std::sin(9 * a));
        return Point(r * std::cos(a), r * std::sin(a), 0.5 * std::sin(b));
    });
    const double top = 0.5 * std::sin(1.4), hole = 0.5 * std::cos(1.4);
    for (const auto& seed : {Point(0, 0, top), Point(-hole, 0, top), Point(0, hole, top), Point(0.3, 0.1, 2),
                             Point(0.5, 0, 0), Point(0.8, 0.1, -0.2)}) {
        INFO(seed.transpose());
        const auto d = laid(dome, {seed, Point(1, 0.2, 0.3), 0.015, 0.8});
        CHECK(d.covered > 0.9 * area_of(dome));
        CHECK_FALSE(d.nodes.front().outside);
    }
}

TEST_CASE("a seed in a notch of a rim, from which every thread leads off, starts further in") {
    // A plate with a hole in steps, as its squares were cut away: seeds all round it, threads at any angle.
    auto plate = sheet(30, 20, [](double u, double v) { return Point(0.3 * u, 0.15 * v, 0); });
    TriangleMesh holed;
    holed.points = plate.points;
    for (const auto& t : plate.triangles) {
        const Point c = (plate.points[t[0]] + plate.points[t[1]] + plate.points[t[2]]) / 3;
        if ((c - Point(0.15, 0.075, 0)).norm() > 0.03) holed.triangles.push_back(t);
    }
    for (int k = 0; k < 16; ++k) {
        const double a = 2 * kPi * k / 16;
        const Point seed(0.15 + 0.02 * std::cos(a), 0.075 + 0.02 * std::sin(a), 0);
        for (const double turn : {0.0, kPi / 8, kPi / 4, 1.0}) {
            INFO("seed at " << degrees(a) << ", turned by " << degrees(turn));
            const auto d = laid(holed, {seed, Point(std::cos(turn), std::sin(turn), 0), 0.005, 0.8});
            CHECK(d.covered > 0.99 * area_of(holed));
            CHECK(d.flat_area == Approx(d.covered).epsilon(1e-3));
            CHECK(d.most < radians(0.1));
        }
    }
    // The seed of a strip narrower than two cells stays where it is.
    const auto strip = sheet(100, 1, [](double u, double v) { return Point(u, 0.004 * v, 0); });
    CHECK(laid(strip, {Point(0, 0, 0), Point(1, 1, 0), 0.01, 0.8}).covered >= 0);
}

TEST_CASE("walking straight goes round a cylinder by its helix and comes off at its rim") {
    const double R = 0.5;
    const auto pipe = sheet(400, 10, [&](double u, double v) {
        const double a = 2 * u;
        return Point(R * std::cos(a), v, R * std::sin(a));
    });
    const auto topology = topology_of(pipe);
    const MeshWalk walk(pipe, topology);
    const auto from = walk.nearest(Point(R, 0.2, 0), 0);
    Point way(0, 0.6, 0.8);
    const auto to = walk.straight(from, way, 0.5);
    // 0.4 round it and 0.3 along it.
    CHECK((to.at - Point(R * std::cos(0.8), 0.5, R * std::sin(0.8))).norm() < 2e-4);
    CHECK_FALSE(to.outside);
    way = Point(0, 1, 0);
    const auto off = walk.straight(from, way, 2);
    CHECK(off.outside);
    CHECK(off.at.y() == Approx(2.2));
    // The place next to a point in the air, walked to from far away.
    const auto near = walk.nearest(Point(0.6 * std::cos(1.5), 0.7, 0.6 * std::sin(1.5)), 3);
    CHECK((near.at - Point(R * std::cos(1.5), 0.7, R * std::sin(1.5))).norm() < 2e-4);
    CHECK(std::abs(walk.normal(near).dot(Point(std::cos(1.5), 0, std::sin(1.5)))) > 0.9999);
}
