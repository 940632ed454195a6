// Pieces, seams and the way out, on bodies whose answer is known.
#include <catch2/catch.hpp>

#include "core/science/mesh/measure.hpp"
#include "core/science/mesh/pieces.hpp"
#include "core/science/mesh/sweep.hpp"
#include "core/science/mesh/widest.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace {

PieceSet found(const TriangleMesh& mesh, int count) {
    PieceRules rules;
    rules.count = count;
    return find_pieces(mesh, RayMesh(mesh), rules, quiet);
}

double area_of(const PieceSet& set) {
    double sum = 0;
    for (const auto& p : set.pieces) sum += p.map.area;
    return sum;
}

/// Whether a point lies inside a closed body: a ray in an odd direction crosses it an odd number of times.
bool inside(const TriangleMesh& m, const Point& p) {
    const Point way = Point(0.31, 0.57, 0.76).normalized();
    int crossings = 0;
    for (std::size_t f = 0; f < m.triangles.size(); ++f) {
        const Point a = m.corner(f, 0), e1 = m.corner(f, 1) - a, e2 = m.corner(f, 2) - a, h = way.cross(e2);
        const double det = e1.dot(h);
        if (std::abs(det) < 1e-15) continue;
        const Point s = p - a;
        const double u = s.dot(h) / det, v = way.dot(s.cross(e1)) / det;
        if (u >= 0 && v >= 0 && u + v <= 1 && e2.dot(s.cross(e1)) / det > 0) ++crossings;
    }
    return crossings % 2 == 1;
}

/// Brute force: steps along the way, all of both bodies' corners and middles in the other body.
bool collides(const TriangleMesh& moving, const TriangleMesh& fixed, const Point& way, double far) {
    const auto hits = [](const TriangleMesh& a, const TriangleMesh& b, const Point& shift) {
        for (std::size_t f = 0; f < a.triangles.size(); ++f) {
            const Point n = 1e-3 * a.area_vector2(f).normalized();
            if (inside(b, a.centre(f) - n + shift)) return true;
        }
        return false;
    };
    for (int i = 0; i <= 60; ++i) {
        const Point shift = way * far * i / 60;
        if (hits(moving, fixed, shift) || hits(fixed, moving, -shift)) return true;
    }
    return false;
}

}  // namespace

TEST_CASE("a plane parts a sphere into its caps, and its seam is their circle") {
    const auto ball = shapes::sphere(0.5, 120);
    const double h = 0.2, r = std::sqrt(0.25 - h * h);
    const auto cut = parted(ball, {0, 0, h}, {0, 0, 2});
    REQUIRE(cut.seams.size() == 1);
    CHECK(cut.seams.front().front() == cut.seams.front().back());
    CHECK(cut.seam_length == Approx(2 * kPi * r).epsilon(1e-3));
    const auto cap = measure(cut.above, topology_of(cut.above)),
               rest = measure(cut.below, topology_of(cut.below));
    CHECK(cap.area == Approx(2 * kPi * 0.5 * (0.5 - h)).epsilon(2e-3));
    CHECK(rest.area == Approx(2 * kPi * 0.5 * (0.5 + h)).epsilon(2e-3));
    CHECK(cap.rims == 1);
    CHECK(topology_of(cut.above).turned_edges == 0);
    // Nothing is lost, whatever the plane.
    for (const Point& n : {Point(1, 2, 3), Point(-1, 0.2, 0), Point(0, 0, 1)}) {
        const auto any = parted(ball, {0.01, -0.02, 0.03}, n);
        CHECK(measure(any.above, topology_of(any.above)).area +
                  measure(any.below, topology_of(any.below)).area ==
              Approx(measure(ball, topology_of(ball)).area).epsilon(1e-9));
    }
}

TEST_CASE("the zero-draft line of a sphere is a great circle, of a box its edges, turned or not") {
    const auto turn = shapes::odd_rotation();
    const auto ball = shapes::sphere(0.5, 90);
    for (const Point& pull : {Point(Point::UnitZ()), Point(Point(1, 1, 0.3).normalized())}) {
        const auto lines = zero_draft_lines(ball, topology_of(ball), pull);
        double length = 0;
        for (const auto& l : lines) {
            length += length_of(l);
            for (const auto& p : l) CHECK(std::abs(p.dot(pull)) < 0.005);
        }
        CHECK(length == Approx(kPi).epsilon(2e-3));
    }
    const auto round = shapes::rotated(ball, turn);
    double turned = 0;
    for (const auto& l : zero_draft_lines(round, topology_of(round), turn * Point::UnitZ()))
        turned += length_of(l);
    CHECK(turned == Approx(kPi).epsilon(2e-3));
    // Along an odd pull a box changes sign along six of its edges.
    const auto box = shapes::box({0, 0, 0}, {1, 2, 3});
    double edges = 0;
    for (const auto& l : zero_draft_lines(box, topology_of(box), Point(1, 1, 1).normalized()))
        edges += length_of(l);
    CHECK(edges == Approx(2 * (1 + 2 + 3)));
}

TEST_CASE("a sphere needs two pieces that part at a great circle") {
    for (const auto& turn : {Eigen::Matrix3d(Eigen::Matrix3d::Identity()), shapes::odd_rotation()}) {
        const auto ball = shapes::rotated(shapes::sphere(0.5, 60), turn);
        const auto set = found(ball, 4);
        CHECK(set.pieces.size() == 2);
        CHECK(set.locks() < 2e-3 * kPi);
        CHECK(set.seam_length == Approx(kPi).epsilon(0.05));
        CHECK(set.pieces[0].direction.dot(set.pieces[1].direction) == Approx(-1).margin(1e-6));
        CHECK(area_of(set) == Approx(measure(ball, topology_of(ball)).area));
        CHECK(set.pieces[0].map.area == Approx(kPi / 2).epsilon(0.03));
    }
    const auto one = found(shapes::sphere(0.5, 40), 1);
    CHECK(one.pieces.size() == 1);
    CHECK(one.locks() == Approx(kPi / 2).epsilon(0.05));
}

TEST_CASE("a torus comes off in two pieces along its axis, seams round the outside and the hole") {
    for (const auto& turn : {Eigen::Matrix3d(Eigen::Matrix3d::Identity()), shapes::odd_rotation()}) {
        const auto ring = shapes::rotated(shapes::torus(0.3, 0.1, 72), turn);
        const auto set = found(ring, 4);
        REQUIRE(set.pieces.size() == 2);
        CHECK(std::abs(set.pieces[0].direction.dot(turn * Point::UnitZ())) == Approx(1).margin(1e-4));
        CHECK(set.locks() < 2e-3 * area_of(set));
        CHECK(set.seams.size() == 2);
        CHECK(set.seam_length == Approx(2 * kPi * (0.4 + 0.2)).epsilon(0.02));
    }
}

TEST_CASE("an undercut channel wants a loose piece that leaves along it") {
    const auto turn = shapes::odd_rotation();
    const auto channel = shapes::lipped_channel(0.3, 4);
    // Straight up and down, floor and roof of the slot (1.2 each) and what stands under the lips lock.
    const auto straight = pieces_by_plane(channel, RayMesh(channel), {0, 0, 1.5}, {0, 0, 1}, 0.0175, quiet);
    CHECK(straight.locks() > 2.3);
    const auto set = found(channel, 3);
    CHECK(set.locks() < 2e-3 * area_of(set));
    // What forms the slot leaves along the channel (y).
    const auto along = [&](const PieceSet& s, const Point& y) {
        return std::any_of(s.pieces.begin(), s.pieces.end(),
                           [&](const Piece& p) { return std::abs(p.direction.dot(y)) > 0.999; });
    };
    CHECK(along(set, Point::UnitY()));
    const auto turned = found(shapes::rotated(channel, turn), 3);
    CHECK(turned.pieces.size() == set.pieces.size());
    CHECK(along(turned, turn * Point::UnitY()));
    CHECK(turned.locks() < 2e-3 * area_of(set));
    CHECK(turned.seam_length == Approx(set.seam_length).epsilon(0.02));
}

TEST_CASE("a seam keeps off show surface where it may") {
    // A straight cylinder's wall drags both ways: the seam may lie at any height.
    const auto mesh = shapes::turned({{0.4, 0}, {0.4, 0.1}, {0.4, 0.2}, {0.4, 0.3}, {0.4, 0.4}}, 60);
    PieceRules rules;
    rules.count = 2;
    for (const bool low : {true, false}) {
        rules.show.assign(mesh.triangles.size(), 0);
        for (std::size_t f = 0; f < mesh.triangles.size(); ++f)
            rules.show[f] = (mesh.centre(f).z() < 0.21) == low ? 1 : 0;
        const auto set = find_pieces(mesh, RayMesh(mesh), rules, quiet);
        REQUIRE(set.pieces.size() == 2);
        REQUIRE_FALSE(set.seams.empty());
        for (const auto& p : set.seams.front()) CHECK((p.z() > 0.19) == low);
    }
}

TEST_CASE("the plane belongs at the widest line") {
    const auto barrel = shapes::turned({{0.2, 0}, {0.3, 0.25}, {0.22, 0.5}}, 80);
    CHECK(widest_height(barrel, topology_of(barrel), Point::UnitZ(), quiet) == Approx(0.25).margin(0.002));
    const auto set = pieces_by_plane(barrel, RayMesh(barrel), {0, 0, 0.25}, {0, 0, 1}, 0.0175, quiet);
    REQUIRE(set.pieces.size() == 2);
    CHECK(set.locks() < 1e-3 * area_of(set));
    CHECK(set.seam_length == Approx(2 * kPi * 0.3).epsilon(2e-3));
    CHECK_THROWS_WITH(pieces_by_plane(barrel, RayMesh(barrel), {0, 0, 5}, {0, 0, 1}, 0.0175, quiet),
                      Catch::Contains("misses"));
    CHECK_THROWS_AS(pieces_by_plane(barrel, RayMesh(barrel), {0, 0, 0.2}, {0, 0, 0}, 0.0175, quiet),
                    InputError);
}

TEST_CASE("what slides past is told from what clashes, as brute force tells it") {
    const auto fixed = shapes::box({0, 0, 0}, {1, 1, 1});
    struct Case {
        Point low, way;
        double area;
    };
    for (const auto& c : {Case{{0, 0, -2}, {0, 0, 1}, 1}, Case{{0.5, 0.5, -2}, {0, 0, 1}, 0.25},
                          Case{{1, 0, -2}, {0, 0, 1}, 0}, Case{{0, 0, -2}, {0, 0, -1}, 0},
                          Case{{0.9, 0, -2}, {0, 0, 1}, 0.1}, Case{{-0.5, 0, 1}, {1, 0, 0}, 0}}) {
        const auto moving = shapes::box(c.low, {1, 1, 1});
        const auto clash = slide_out(moving, fixed, c.way, 20000, quiet);
        INFO(c.low.transpose() << " along " << c.way.transpose());
        CHECK(clash.area == Approx(c.area).margin(0.01));
        CHECK((clash.area > 0.01) == collides(moving, fixed, c.way, 5));
        if (c.area > 0) CHECK(clash.travel == Approx(1).margin(2e-3));
    }
    // A small body against a large one, and the other way about: the middle of a face is not where they meet.
    const auto pin = shapes::box({0.4, 0.4, 3}, {0.1, 0.1, 0.1});
    CHECK(slide_out(fixed, pin, {0, 0, 1}, 20000, quiet).area == Approx(0.01).epsilon(0.15));
    CHECK(collides(fixed, pin, {0, 0, 1}, 5));
}

TEST_CASE("halves of a torus come off freely, and not towards each other") {
    const auto ring = shapes::torus(0.3, 0.1, 48);
    const auto set = found(ring, 2);
    for (const auto& w : ways_out(set, RayMesh(ring), 0.01, quiet)) {
        CHECK(w.turn > 0);
        CHECK(w.blocked_by < 0);
    }
    // Two halves of a ring's mould pulled towards each other instead of apart.
    auto wrong = set;
    for (auto& p : wrong.pieces) p.direction = -p.direction;
    for (const auto& w : ways_out(wrong, RayMesh(ring), 0.01, quiet)) {
        CHECK(w.turn == 0);
        CHECK(w.blocked_by >= 0);
    }
}

TEST_CASE("a piece that another stands over waits for it, and two that need each other gone are both held") {
    const auto plate = [](double z, const Point& way) {
        Piece p;
        p.mesh.points = {{0, 0, z}, {1, 0, z}, {1, 1, z}, {0, 1, z}};
        p.mesh.triangles = {{0, 1, 2}, {0, 2, 3}};
        p.direction = way;
        p.map.area = 1;
        return p;
    };
    const RayMesh far(shapes::box({50, 50, 50}, {1, 1, 1}));
    PieceSet set;
    set.pieces = {plate(0, Point::UnitZ()), plate(1, Point::UnitX())};
    auto ways = ways_out(set, far, 0.02, quiet);
    CHECK(ways[1].turn == 1);
    CHECK(ways[0].turn == 2);
    CHECK(ways[0].blocked_by < 0);
    set.pieces[1].direction = -Point::UnitZ();
    ways = ways_out(set, far, 0.02, quiet);
    for (std::size_t i = 0; i < 2; ++i) {
        CHECK(ways[i].turn == 0);
        CHECK(ways[i].blocked_by == static_cast<int>(1 - i));
        CHECK(ways[i].clash == Approx(1).epsilon(0.05));
        // From the lower shell's outside at 0.02 to the plate at 1.
        CHECK(ways[i].travel == Approx(0.98).margin(0.005));
    }
}

TEST_CASE("a piece as a body is closed, as thick as asked, and thinner where something is near") {
    const auto ball = shapes::sphere(0.5, 60);
    const auto half = parted(ball, {0, 0, 0}, {0, 0, 1}).above;
    const auto body = thickened(half, RayMesh(ball), 0.02);
    const auto topology = topology_of(body);
    CHECK(topology.closed());
    CHECK(topology.turned_edges == 0);
    // Along its edge only faces on one side lend their normals, which tilts the rim a little.
    CHECK(measure(body, topology).volume ==
          Approx(2.0 / 3 * kPi * (0.52 * 0.52 * 0.52 - 0.5 * 0.5 * 0.5)).epsilon(0.03));
    // Another body 0.03 above leaves a third of that gap.
    TriangleMesh both = ball;
    const auto lid = shapes::box({-1, -1, 0.53}, {2, 2, 0.1});
    for (const auto& t : lid.triangles)
        both.triangles.push_back({t[0] + static_cast<std::uint32_t>(ball.points.size()),
                                  t[1] + static_cast<std::uint32_t>(ball.points.size()),
                                  t[2] + static_cast<std::uint32_t>(ball.points.size())});
    both.points.insert(both.points.end(), lid.points.begin(), lid.points.end());
    CHECK(bounds_of(thickened(half, RayMesh(both), 0.02)).high.z() == Approx(0.51).margin(0.001));
}
