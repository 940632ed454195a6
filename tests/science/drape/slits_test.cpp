// Cloth that is cut before it is laid: lines cut into a face, and nets on either side of them. A cone cut to
// its tip lies flat, its flanks open by what its angle lacks of a full turn (Gauss and Bonnet); a flat sheet
// does not know that it was cut.
#include <catch2/catch.hpp>
#include <cmath>
#include <set>

#include "core/base/units.hpp"
#include "core/science/drape/net.hpp"
#include "core/science/mesh/bodies.hpp"
#include "core/science/mesh/cut.hpp"
#include "core/science/mesh/outline.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using shapes::area_of;
using shapes::sheet;

namespace {

constexpr double kClose = 1e-4;
const Frame kAbove{Point::UnitX(), Point::UnitY(), Point::UnitZ()};

double length_of_edges(const TriangleMesh& mesh, const std::vector<PointPair>& edges) {
    double out = 0;
    for (const auto& [a, b] : edges) out += (mesh.points[a] - mesh.points[b]).norm();
    return out;
}

double rim_of(const TriangleMesh& mesh) {
    double out = 0;
    for (const auto& loop : rim_loops(mesh, topology_of(mesh))) out += loop_length(mesh, loop);
    return out;
}

std::size_t bodies_of(const TriangleMesh& mesh) {
    std::set<std::uint32_t> out;
    const auto body = body_of_points(mesh);
    for (const auto& t : mesh.triangles) out.insert(body[t[0]]);
    return out.size();
}

struct Cut {
    TriangleMesh mesh;
    Drape drape;
    ClothCuts slits;
};
Cut cut(const TriangleMesh& mesh, const std::vector<SeenLine>& lines, const DrapeRules& rules,
        const Frame& frame = kAbove) {
    auto scores = scored(mesh, frame, lines, 0.02 * rules.cell);
    Cut out{std::move(scores.mesh), {}, {frame, lines, {}}};
    for (const auto& edges : scores.edges)
        out.slits.edges.insert(out.slits.edges.end(), edges.begin(), edges.end());
    out.drape = drape(out.mesh, out.slits, rules, quiet);
    return out;
}

/// Both places on the cloth of a point that lies on a slit.
std::vector<Point2> places_of(const Cut& c, std::uint32_t point) {
    std::vector<Point2> out;
    for (std::size_t f = 0; f < c.mesh.triangles.size(); ++f) {
        const auto at = on_cloth(c.drape, c.mesh, f);
        if (!at) continue;
        for (std::size_t k = 0; k < 3; ++k) {
            if (c.mesh.triangles[f][k] != point) continue;
            const auto& flat = c.drape.points[(*at)[k]].flat;
            if (std::none_of(out.begin(), out.end(),
                             [&](const Point2& p) { return (p - flat).norm() < 1e-9; }))
                out.push_back(flat);
        }
    }
    return out;
}

/// A cap of a sphere of 1 m about the top, `reach` rad to the middle of each side.
TriangleMesh cap(double reach, std::uint32_t n) {
    return sheet(n, n, [&](double u, double v) {
        const double x = std::tan(reach * (2 * u - 1)), y = std::tan(reach * (2 * v - 1));
        return Point(Point(x, y, 1).normalized());
    });
}

/// A cone about z, open below, `half` rad between axis and slant, 1 m of slant; its tip is a point.
TriangleMesh cone(double half, std::uint32_t round, std::uint32_t up) {
    TriangleMesh out;
    out.points.push_back(Point::Zero());
    for (std::uint32_t j = 1; j <= up; ++j) {
        for (std::uint32_t i = 0; i < round; ++i) {
            const double s = static_cast<double>(j) / up, a = 2 * kPi * i / round;
            out.points.push_back(
                s * Point(std::sin(half) * std::cos(a), std::sin(half) * std::sin(a), -std::cos(half)));
        }
    }
    const auto at = [&](std::uint32_t j, std::uint32_t i) { return 1 + (j - 1) * round + i % round; };
    for (std::uint32_t i = 0; i < round; ++i) {
        out.triangles.push_back({0, at(1, i), at(1, i + 1)});
        for (std::uint32_t j = 1; j < up; ++j) {
            out.triangles.push_back({at(j, i), at(j + 1, i), at(j + 1, i + 1)});
            out.triangles.push_back({at(j, i), at(j + 1, i + 1), at(j, i + 1)});
        }
    }
    return out;
}

}  // namespace

TEST_CASE("a line is cut into a face along edges, which else stays as it is") {
    const auto flat = sheet(9, 7, [](double u, double v) { return Point(u, 0.7 * v, 0.2 * u * u); });
    struct Case {
        std::vector<SeenLine> lines;
        std::vector<double> along;  // length seen
        std::size_t bodies;
    };
    for (const auto& c :
         {Case{{{{0.5, -1}, {0.5, 2}}}, {0.7}, 2}, Case{{{{0.31, 0.22}, {0.31, 0.9}}}, {0.48}, 1},
          Case{{{{0.2, 0.2}, {0.6, 0.2}, {0.6, 0.5}}}, {0.7}, 1},
          Case{{{{0.1, 0.35}, {0.9, 0.35}}, {{0.47, 0.1}, {0.47, 0.6}}}, {0.8, 0.5}, 1},
          Case{{{{-1, 0.31}, {2, 0.31}}, {{0.43, -1}, {0.43, 1}}}, {1, 0.7}, 4},
          Case{{{{3, 3}, {4, 3}}}, {0}, 1}, Case{{{{0.3, 0.3}}}, {0}, 1}, Case{{{}}, {0}, 1}}) {
        const auto s = scored(flat, kAbove, c.lines, kClose);
        CHECK(area_of(s.mesh) == Approx(area_of(flat)).epsilon(1e-12));
        CHECK(topology_of(s.mesh).crowded_edges == 0);
        CHECK(rim_of(s.mesh) == Approx(rim_of(flat)).epsilon(1e-12));
        REQUIRE(s.edges.size() == c.lines.size());
        std::vector<PointPair> all;
        double length = 0;
        for (std::size_t l = 0; l < c.lines.size(); ++l) {
            double seen = 0;
            for (const auto& [a, b] : s.edges[l]) {
                seen += (kAbove.flat(s.mesh.points[a]) - kAbove.flat(s.mesh.points[b])).norm();
                CHECK(s.mesh.points[a] != s.mesh.points[b]);
            }
            CHECK(seen == Approx(c.along[l]).margin(3e-4));
            length += length_of_edges(s.mesh, s.edges[l]);
            all.insert(all.end(), s.edges[l].begin(), s.edges[l].end());
        }
        const auto open = opened(s.mesh, all);
        CHECK(bodies_of(open.mesh) == c.bodies);
        // Each slit has two flanks.
        CHECK(rim_of(open.mesh) == Approx(rim_of(flat) + 2 * length).epsilon(1e-9));
        for (std::size_t i = 0; i < open.origin.size(); ++i)
            CHECK(open.mesh.points[i] == s.mesh.points[open.origin[i]]);
    }
}

TEST_CASE("a line may turn with its face, run through points of it, and over walls that are seen edge on") {
    const auto box = shapes::box(Point::Zero(), {1, 1, 0.5});
    const Eigen::AngleAxisd turn(0.7, Point(1, 2, 3).normalized());
    auto turned = box;
    for (auto& p : turned.points) p = turn * p;
    const Frame frame{turn * kAbove.u, turn * kAbove.v, turn * kAbove.w};
    for (const double x : {0.5, 0.25, 0.123}) {
        const auto low = bounds_of(box).low;
        const SeenLine line{{low.x() + x, low.y() - 1}, {low.x() + x, low.y() + 2}};
        const auto s = scored(turned, frame, {line}, kClose);
        CHECK(area_of(s.mesh) == Approx(area_of(box)).epsilon(1e-12));
        // Round the whole box: top, bottom and both walls.
        CHECK(length_of_edges(s.mesh, s.edges[0]) == Approx(3).epsilon(1e-9));
        CHECK(bodies_of(opened(s.mesh, s.edges[0]).mesh) == 2);
    }
}

TEST_CASE("a flat sheet does not know that it was cut") {
    const auto flat = sheet(24, 20, [](double u, double v) { return Point(u, 0.8 * v, 0); });
    const DrapeRules rules{{0.3, 0.3, 0}, Point(1, 0.4, 0), 0.03, 0.8};
    for (const auto& lines : {std::vector<SeenLine>{{{0.6, 0.4}, {0.6, 1}}},
                              {{{0.2, 0.5}, {0.7, 0.52}}},
                              {{{0.5, 0.5}, {0.8, 0.5}, {0.8, 0.2}}}}) {
        const auto c = cut(flat, lines, rules);
        CHECK(c.drape.covered == Approx(0.8).epsilon(1e-9));
        CHECK(c.drape.flat_area == Approx(0.8).epsilon(1e-6));
        CHECK(c.drape.most < 1e-6);
        CHECK(c.drape.holes.empty());
        for (const auto& [a, b] : c.slits.edges) CHECK(places_of(c, a).size() == 1);
    }
    // Begun on the cut itself, along it or across it, as if beside it.
    for (const double turn : {0.0, 0.4, kPi / 2}) {
        const DrapeRules on{{0.61, 0.4, 0}, Point(std::cos(turn), std::sin(turn), 0), 0.03, 0.8};
        for (const auto& line : {SeenLine{{0.61, -1}, {0.61, 2}}, SeenLine{{0.61, 0.2}, {0.61, 2}}}) {
            const auto c = cut(flat, {line}, on);
            CHECK(c.drape.covered == Approx(0.8).epsilon(1e-9));
            CHECK(c.drape.flat_area == Approx(0.8).epsilon(1e-6));
            CHECK(c.drape.most < 1e-6);
        }
    }
    // Parted, each piece lies by itself, far enough from the other.
    const auto parted = cut(flat, {{{0.61, -1}, {0.61, 2}}}, rules);
    CHECK(parted.drape.covered == Approx(0.8).epsilon(1e-9));
    CHECK(parted.drape.flat_area == Approx(0.8).epsilon(1e-6));
    const auto islands_of = islands(united(flat_outlines(parted.drape, parted.mesh)));
    REQUIRE(islands_of.size() == 2);
    CHECK(net_area(islands_of[0]) == Approx(0.61 * 0.8).epsilon(1e-6));
    CHECK(low_corner(islands_of[1]).x() - high_corner(islands_of[0]).x() ==
          Approx(kPiecesApart).epsilon(1e-6));
}

TEST_CASE("a cone cut to its tip lies flat, and its flanks open by what its angle lacks of a turn") {
    for (const double half : {radians(40), radians(55), radians(75)}) {
        for (const double turn : {0.0, 1.1}) {
            auto mesh = cone(half, 72, 24);
            const Eigen::AngleAxisd by(turn, Point(2, -1, 0.5).normalized());
            for (auto& p : mesh.points) p = by * p;
            const Frame frame{by * kAbove.u, by * kAbove.v, by * kAbove.w};
            const double slant = 0.6;
            const DrapeRules rules{by * (slant * Point(-std::sin(half), 0, -std::cos(half))),
                                   by * Point::UnitY(), 0.02, 0.8};
            // From the tip, a point of the mesh, off past the rim.
            const auto c = cut(mesh, {{{0, 0}, {2, 0.013}}}, rules, frame);
            INFO(degrees(half) << " turned " << turn);
            CHECK(c.drape.covered > 0.999 * area_of(mesh));
            CHECK(c.drape.flat_area == Approx(area_of(mesh)).epsilon(0.003));
            CHECK(c.drape.locked < 0.01 * area_of(mesh));
            const double lacks = 2 * kPi * (1 - std::sin(half));
            std::size_t met = 0;
            for (const auto& [a, b] : c.slits.edges) {
                const double s = c.mesh.points[b].norm();
                if (s < 0.3) continue;
                const auto both = places_of(c, b);
                REQUIRE(both.size() == 2);
                ++met;
                // To two thousandths of the way round.
                CHECK((both[0] - both[1]).norm() ==
                      Approx(2 * s * std::sin(lacks / 2)).margin(0.002 * 2 * kPi * s));
            }
            CHECK(met > 10);
        }
    }
}

TEST_CASE("a dart frees a dome: what was locked at its corners lies without a fold") {
    const auto dome = cap(radians(50), 60);
    const double area = area_of(dome);
    const DrapeRules rules{{0, 0, 1}, Point::UnitX(), 0.025, radians(18)};
    const auto whole = drape(dome, topology_of(dome), rules, quiet);
    REQUIRE(whole.locked > 0.05 * area);
    std::vector<SeenLine> darts;
    for (const auto& way : {Point2(1, 1), Point2(-1, 1), Point2(-1, -1), Point2(1, -1)})
        darts.push_back({0.25 * way, 2 * way});
    const auto c = cut(dome, darts, rules);
    CHECK(c.drape.covered > 0.999 * area);
    CHECK(c.drape.holes.empty());
    CHECK(c.drape.locked < 0.1 * whole.locked);
    CHECK(c.drape.most < whole.most);
    CHECK(c.drape.flat_area == Approx(area).epsilon(0.01).margin(0));
    // Cloth that is left over is cut away: flanks stand apart on it, all four alike, the further out the
    // more.
    const auto scores = scored(dome, kAbove, darts, 0.02 * rules.cell);
    std::vector<double> at_rim;
    for (std::size_t d = 0; d < darts.size(); ++d) {
        double most = 0;
        for (const auto& [a, b] : scores.edges[d]) {
            for (const auto p : {a, b}) {
                const auto both = places_of(c, p);
                if (both.size() == 2) most = std::max(most, (both[0] - both[1]).norm());
            }
        }
        at_rim.push_back(most);
    }
    for (const double m : at_rim) {
        CHECK(m > 0.02);
        CHECK(m == Approx(at_rim[0]).epsilon(0.03));
    }
    // Nothing lies twice on the cloth.
    const double laid = net_area(united(flat_outlines(c.drape, c.mesh)));
    CHECK(laid == Approx(c.drape.flat_area).epsilon(0.002));
}

TEST_CASE("a cut lets a saddle open: its cloth would have to lie twice there") {
    const auto saddle = sheet(50, 50, [](double u, double v) {
        const double x = 2 * u - 1, y = 2 * v - 1;
        return Point(x, y, 0.6 * (x * x - y * y));
    });
    const DrapeRules rules{{0, 0, 0}, Point::UnitX(), 0.05, radians(30)};
    const auto whole = drape(saddle, topology_of(saddle), rules, quiet);
    const auto c =
        cut(saddle,
            {{{0.3, 0.3}, {2, 2}}, {{-0.3, 0.3}, {-2, 2}}, {{-0.3, -0.3}, {-2, -2}}, {{0.3, -0.3}, {2, -2}}},
            rules);
    CHECK(c.drape.covered > 0.995 * area_of(saddle));
    CHECK(c.drape.locked < 0.5 * whole.locked);
    CHECK(net_area(united(flat_outlines(c.drape, c.mesh))) < 0.99 * c.drape.flat_area);
}

TEST_CASE("pieces that a cut parts begin each in its middle, and lie with less shear than the whole") {
    const auto dome = cap(radians(45), 60);
    const double area = area_of(dome);
    const DrapeRules rules{{-0.4, 0, 0.9}, Point::UnitX(), 0.03, radians(30)};
    const auto whole = drape(dome, topology_of(dome), rules, quiet);
    const auto c = cut(dome, {{{0, -2}, {0, 2}}}, rules);
    CHECK(c.drape.covered > 0.999 * area);
    CHECK(c.drape.flat_area == Approx(area).epsilon(0.01));
    CHECK(c.drape.most < 0.8 * whole.most);
    CHECK(islands(united(flat_outlines(c.drape, c.mesh))).size() == 2);
    // Threads are known on every face, one of a piece as well as one of the other.
    for (std::size_t f = 0; f < c.mesh.triangles.size(); f += 7) {
        const auto threads = threads_on(c.drape, c.mesh, f);
        REQUIRE(threads);
        CHECK(threads->warp.norm() == Approx(1));
    }
}

TEST_CASE("odd cuts end without a crash, and leave no more bare than they must") {
    const auto dome = cap(radians(40), 40);
    const DrapeRules rules{{0, 0, 1}, Point::UnitX(), 0.03, radians(30)};
    for (const auto& lines :
         {std::vector<SeenLine>{{{0, 0}, {2, 0}}},  // from the seed itself, along a thread
          {{{-2, 0}, {2, 0}}},                      // through it
          {{{0.2, 0.2}, {0.21, 0.2}}},              // shorter than a cell
          {{{0.3, -0.3}, {0.3, 0.3}, {-0.3, 0.3}, {-0.3, -0.3}, {0.3, -0.3}}},  // round it, closed
          {{{0.1, 0.1}, {2, 2}}, {{0.12, 0.1}, {2, 1.9}}},                      // a sliver between two
          {{{0.3, 0.3}, {0.3, 0.3}}},                                           // no length
          {{{-0.4, -0.4}, {0.4, 0.4}}, {{-0.4, 0.4}, {0.4, -0.4}}}}) {          // a cross in the middle
        const auto c = cut(dome, lines, rules);
        CAPTURE(lines.size(), lines[0].size(), lines[0].back().transpose());
        CHECK(c.drape.covered > 0.95 * area_of(dome));
        CHECK(c.drape.points.size() >= c.mesh.points.size());
        for (const auto& p : c.drape.points) CHECK(std::isfinite(p.flat.norm()));
    }
}
