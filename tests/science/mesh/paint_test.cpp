#include "core/science/mesh/paint.hpp"

#include <catch2/catch.hpp>

#include "core/science/mesh/triangulate.hpp"
#include "tests/shapes.hpp"

using namespace jig;

TEST_CASE("the distance to a face is to its inside, its edge or its corner, whichever is nearest") {
    TriangleMesh m;
    m.points = {{0, 0, 0}, {1, 0, 0}, {0, 1, 0}};
    m.triangles = {{0, 1, 2}};
    CHECK(distance_to_face(m, 0, {0.2, 0.2, 0.7}) == Approx(0.7));
    CHECK(distance_to_face(m, 0, {0.5, -0.3, 0.4}) == Approx(0.5));
    CHECK(distance_to_face(m, 0, {-0.3, -0.4, 0}) == Approx(0.5));
    CHECK(distance_to_face(m, 0, {1, 1, 0}) == Approx(std::sqrt(0.5)));
    CHECK(distance_to_face(m, 0, {1.3, 0, -0.4}) == Approx(0.5));
}

TEST_CASE("a dab reaches the faces round it and not those behind") {
    const auto ball = shapes::sphere(0.3, 60);
    Dab dab{{0.3, 0, 0}, {1, 0, 0}, 0.1};
    double area = 0;
    for (const auto f : faces_under(ball, dab)) {
        area += ball.area_vector2(f).norm() / 2;
        CHECK((ball.centre(f) - dab.at).norm() <= 0.1 + 1e-9);
    }
    // A cap cut out of a sphere by a ball of radius r about one of its points has the area π·r².
    CHECK(area == Approx(kPi * 0.01).epsilon(0.05));
    // A thin plate: the other side lies within reach and looks away.
    const auto plate = shapes::box({0, 0, 0}, {1, 1, 0.001});
    const auto under = faces_under(plate, {{0.5, 0.4, 0.001}, {0, 0, 1}, 0.2});
    REQUIRE_FALSE(under.empty());
    for (const auto f : under) CHECK(plate.area_vector2(f).z() > 0);
    // On a face much larger than the dab, the face that it lies on counts alone.
    CHECK(faces_under(plate, {{0.9, 0.05, 0.001}, {0, 0, 1}, 0.01}).size() == 1);
}

TEST_CASE("later paint lies over earlier, and plain paint takes all away") {
    const auto ball = shapes::sphere(0.3, 30);
    const Dab here{{0.3, 0, 0}, {1, 0, 0}, 0.1};
    std::vector<char> show;
    std::vector<int> owner;
    lay_paint(ball, {}, show, owner);
    CHECK(show.empty());
    CHECK(owner.size() == ball.triangles.size());
    lay_paint(ball, {{here, Paint::show, Point::UnitZ()}, {here, Paint::given, {0, 0, 1}}}, show, owner);
    const auto shown = std::count(show.begin(), show.end(), 1);
    CHECK(shown > 4);
    CHECK(std::count(owner.begin(), owner.end(), 1) == shown);
    CHECK(std::count(owner.begin(), owner.end(), -1) ==
          static_cast<std::ptrdiff_t>(ball.triangles.size()) - shown);
    lay_paint(ball, {{here, Paint::plain, Point::UnitZ()}}, show, owner);
    CHECK(std::count(show.begin(), show.end(), 1) == 0);
    CHECK(std::count(owner.begin(), owner.end(), -1) == static_cast<std::ptrdiff_t>(ball.triangles.size()));
}

TEST_CASE("outlines with holes and islands are filled where they are solid") {
    const Loop outer{{0, 0}, {1, 0}, {1, 1}, {0, 1}}, hole{{0.2, 0.2}, {0.2, 0.8}, {0.8, 0.8}, {0.8, 0.2}},
        island{{0.4, 0.4}, {0.6, 0.4}, {0.6, 0.6}, {0.4, 0.6}};
    for (const double spacing : {0.5, 0.05}) {
        const auto flat = filled(Loops{outer, hole, island}, spacing);
        double area = 0;
        for (const auto& t : flat.triangles)
            area += signed_area({flat.points[t[0]], flat.points[t[1]], flat.points[t[2]]});
        CHECK(area == Approx(1 - 0.36 + 0.04));
    }
    CHECK(filled(Loops{outer, hole}, 0.05).points.size() > 100);
    CHECK_THROWS_WITH(filled(Loops{outer, {{0.5, 0.5}, {1.5, 0.5}, {1.5, 0.7}}}, 0.1),
                      Catch::Contains("crosses itself or another"));
}
