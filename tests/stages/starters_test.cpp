// Shapes drawn without CAD, against sizes known in closed form, and how they are put on the bench.
#include <catch2/catch.hpp>

#include "core/stages/shape/place.hpp"
#include "core/stages/shape/starter_meshes.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace jig::shape {
using fixtures::call;
using fixtures::worked_out;

namespace {

Measures made_up(const TriangleMesh& mesh) {
    const auto t = topology_of(mesh);
    CHECK(t.turned_edges == 0);
    CHECK(t.crowded_edges == 0);
    return measure(mesh, t);
}

double signed_volume(const TriangleMesh& m) {
    double six = 0;
    for (std::size_t f = 0; f < m.triangles.size(); ++f)
        six += m.corner(f, 0).dot(m.corner(f, 1).cross(m.corner(f, 2)));
    return six / 6;
}

}  // namespace

TEST_CASE("a fair curve goes through its points, or to their straight line") {
    const std::vector<double> x{0, 1, 2.5, 3, 4.2}, y{1, 3, -1, 2, 2.5};
    const FairCurve through(x, y, 0);
    for (std::size_t i = 0; i < x.size(); ++i) CHECK(through.at(x[i]) == Approx(y[i]));
    CHECK(through.bend(0) == Approx(0).margin(1e-12));
    CHECK(through.humps() >= 2);
    // The line of least squares, worked by hand from the sums.
    double n = 5, sx = 0, sy = 0, sxx = 0, sxy = 0;
    for (std::size_t i = 0; i < x.size(); ++i) {
        sx += x[i];
        sy += y[i];
        sxx += x[i] * x[i];
        sxy += x[i] * y[i];
    }
    const double b = (n * sxy - sx * sy) / (n * sxx - sx * sx), a = (sy - b * sx) / n;
    const FairCurve stiff(x, y, 1e7);
    for (const double at : {0.0, 1.7, 4.2}) CHECK(stiff.at(at) == Approx(a + b * at).epsilon(1e-3));
    // A parabola bends the same way everywhere and has no humps.
    CHECK(FairCurve({0, 1, 2, 3, 4}, {0, 1, 4, 9, 16}, 0).humps() == 0);
}

TEST_CASE("stations of one ellipse make its cylinder") {
    Stations s;
    s.stations = {{0, 0.4, 0.15, 2, 0}, {0.5, 0.4, 0.15, 2, 0}, {1, 0.4, 0.15, 2, 0}};
    s.whole = true;
    s.facet = 0.004;
    const auto whole = made_up(stations_mesh(s, quiet));
    CHECK(whole.closed);
    CHECK(whole.volume == Approx(kPi * 0.2 * 0.15).epsilon(2e-3));
    CHECK(signed_volume(stations_mesh(s, quiet)) > 0);
    s.whole = false;
    const auto half = made_up(stations_mesh(s, quiet));
    CHECK_FALSE(half.closed);
    CHECK(half.rims == 1);
    CHECK(half.size.z() == Approx(0.15).epsilon(1e-3));
    CHECK(half.volume == Approx(kPi * 0.2 * 0.15 / 2).epsilon(5e-3));
}

TEST_CASE("a gauge's line is taken as it is, one half is mirrored, and its sizes follow") {
    Station s;
    s.at = 0.4;
    // A roof: half of it, from the middle line out, 20 mm above the bench.
    s.points = {{0, 0.17}, {0.1, 0.12}, {0.2, 0.02}};
    size_by_points(s);
    CHECK(s.width == Approx(0.4));
    CHECK(s.height == Approx(0.15));
    CHECK(s.lift == Approx(0.02));
    const auto outline = station_outline(s, 5);
    REQUIRE(outline.size() == 5);
    CHECK(outline.front().x() == Approx(0.2));
    CHECK(outline.back().x() == Approx(-0.2));
    CHECK(outline[2].y() == Approx(0.15));
    // The same line typed from outside in, and whole from left to right, is the same section.
    const auto half = s;
    s.points = {{0.2, 0.02}, {0.1, 0.12}, {0, 0.17}};
    for (std::size_t i = 0; i < 5; ++i) CHECK((station_outline(s, 5)[i] - outline[i]).norm() < 1e-12);
    s.points = {{-0.2, 0.02}, {-0.1, 0.12}, {0, 0.17}, {0.1, 0.12}, {0.2, 0.02}};
    for (std::size_t i = 0; i < 5; ++i) CHECK((station_outline(s, 5)[i] - outline[i]).norm() < 1e-12);
    // A typed width stretches it.
    s.width = 0.8;
    CHECK(station_outline(s, 5).front().x() == Approx(0.4));
    s.points.resize(2);
    CHECK_THROWS_WITH(station_outline(s, 5), Catch::Contains("fewer than three points"));
    s.points = {{0, 0.1}, {0, 0.1}, {0, 0.1}};
    CHECK_THROWS_WITH(station_outline(s, 5), Catch::Contains("no width or no height"));
}

TEST_CASE("measured sections make the body that they were measured on") {
    // A roof's section all along: a prism of half the width times the height.
    Stations s;
    s.facet = 0.02;
    s.stations.clear();
    for (const double at : {0.0, 0.5, 1.0}) {
        Station station;
        station.at = at;
        station.points = {{-0.2, 0}, {0, 0.15}, {0.2, 0}};
        size_by_points(station);
        s.stations.push_back(station);
    }
    CHECK(made_up(stations_mesh(s, quiet)).volume == Approx(0.5 * 0.4 * 0.15).epsilon(1e-3));
    s.whole = true;
    const auto whole = made_up(stations_mesh(s, quiet));
    CHECK(whole.closed);
    CHECK(whole.volume == Approx(0.4 * 0.15).epsilon(1e-3));
    // Between a measured and a drawn section the body goes over from one to the other.
    s.whole = false;
    s.stations[1].points.clear();
    s.stations[1].fullness = 2;
    const double mixed = made_up(stations_mesh(s, quiet)).volume;
    CHECK(mixed > 0.5 * 0.4 * 0.15);
    CHECK(mixed < kPi / 4 * 0.4 * 0.15);
    // Measured points of an ellipse give the drawn ellipse, up to the chords between 25 points.
    Stations drawn;
    drawn.facet = 0.02;
    drawn.stations = {{0, 0.4, 0.15, 2, 0}, {0.5, 0.4, 0.15, 2, 0}, {1, 0.4, 0.15, 2, 0}};
    auto typed = drawn;
    for (auto& station : typed.stations) {
        for (const auto& p : station_outline(station, 25)) station.points.push_back({p.x(), p.y()});
    }
    CHECK(made_up(stations_mesh(typed, quiet)).volume ==
          Approx(made_up(stations_mesh(drawn, quiet)).volume).epsilon(0.01));
}

TEST_CASE("a hump in the stations shows as one and stiffness takes it out") {
    Stations s;
    s.stations.clear();
    for (int i = 0; i <= 6; ++i) s.stations.push_back({0.2 * i, 0.4 + (i % 2) * 0.01, 0.1, 2.5, 0});
    CHECK(fair(s).width.humps() >= 4);
    s.stiffness = 0.7;
    const auto stiff = fair(s);
    CHECK(stray(s, stiff) > 0.003);
    CHECK(stray(s, stiff) < 0.02);
    Job job;
    job.shape.kind = ShapeKind::stations;
    job.shape.stations = s;
    job.shape.stations.stiffness = 0;
    REQUIRE(call(worked_out(job), "humps") != nullptr);
    s.stations = {{0, 0.2, 0.1, 2, 0}, {0, 0.2, 0.1, 2, 0}};
    CHECK_THROWS_WITH(fair(s), Catch::Contains("two stations stand at"));
    s.stations.resize(1);
    CHECK_THROWS_AS(fair(s), InputError);
}

TEST_CASE("the foil's section is as thick as it says, where it says") {
    Foil f;
    f.camber = 0;
    f.thickness = 0.12;
    const auto section = foil_section(f, 0, 400);
    double top = 0, at = 0;
    for (const auto& p : section) {
        if (p.y() > top) {
            top = p.y();
            at = p.x();
        }
    }
    // The thickness form peaks at 30 % of the chord with half the thickness (Abbott & von Doenhoff).
    CHECK(top == Approx(0.06).epsilon(2e-3));
    CHECK(at == Approx(0.30).margin(0.01));
    // Its area is 0.685·t·c², from integrating the four terms.
    CHECK(signed_area(section) ==
          Approx(0.12 * 5 * 2 * (0.2969 * 2 / 3 - 0.1260 / 2 - 0.3516 / 3 + 0.2843 / 4 - 0.1036 / 5))
              .epsilon(2e-3));
    f.camber = 0.04;
    double highest = 0, lowest = 0;
    for (const auto& p : foil_section(f, 0, 400)) {
        highest = std::max(highest, p.y());
        lowest = std::min(lowest, p.y());
    }
    CHECK((highest + lowest) / 2 > 0.01);
}

TEST_CASE("a foil without taper holds its section's area times its span") {
    Foil f;
    f.camber = 0;
    f.edge = 0.003;
    f.chord = f.tip_chord = 0.4;
    f.span = 1.2;
    f.sweep = 0.3;
    f.facet = 0.005;
    const auto mesh = foil_mesh(f, quiet);
    const auto m = made_up(mesh);
    CHECK(m.closed);
    CHECK(signed_volume(mesh) > 0);
    CHECK(m.volume == Approx(signed_area(foil_section(f, 0.003 / 0.4, 162)) * 0.16 * 1.2).epsilon(1e-3));
    f.caps = false;
    CHECK(made_up(foil_mesh(f, quiet)).rims == 2);
    f.section = FoilSection::points;
    CHECK_THROWS_WITH(foil_mesh(f, quiet), Catch::Contains("fewer than five"));
    f.points = {{1, 0}, {0.5, 0.1}, {0, 0}, {0.5, -0.1}, {1, 0}};
    f.caps = true;
    CHECK(made_up(foil_mesh(f, quiet)).volume == Approx(0.1 * 0.16 * 1.2).epsilon(2e-2));
}

TEST_CASE("a turned profile is its cone, and a smooth one its dome") {
    Turned t;
    t.smooth = false;
    t.profile = {{0.3, 0}, {0.0, 0.4}};
    t.facet = 0.004;
    const auto cone = turned_mesh(t, quiet);
    const auto m = made_up(cone);
    CHECK(m.rims == 1);
    CHECK(m.area == Approx(kPi * 0.3 * 0.5).epsilon(1e-3));
    CHECK(m.volume == Approx(kPi * 0.09 * 0.4 / 3).epsilon(1e-3));
    // Outside is outside whichever way the profile is typed.
    std::reverse(t.profile.begin(), t.profile.end());
    CHECK(turned_mesh(t, quiet).area_vector2(0).z() > 0);
    t.smooth = true;
    t.profile.clear();
    for (int i = 0; i <= 12; ++i)
        t.profile.push_back({0.3 * std::cos(kPi / 2 * i / 12), 0.3 * std::sin(kPi / 2 * i / 12)});
    CHECK(made_up(turned_mesh(t, quiet)).area == Approx(2 * kPi * 0.09).epsilon(2e-3));
    t.profile = {{0, 0}, {0, 1}};
    CHECK_THROWS_WITH(turned_mesh(t, quiet), Catch::Contains("lies on the axis"));
    t.profile = {{-0.1, 0}, {0, 1}};
    CHECK_THROWS_AS(turned_mesh(t, quiet), InputError);
}

TEST_CASE("the bench turns, mirrors and scales, and faces keep looking outwards") {
    for (std::size_t i = 0; i < Words<Upwards>::all.size(); ++i) {
        Placing place;
        place.up = static_cast<Upwards>(i);
        auto m = shapes::box({0, 0, 0}, {1, 2, 3});
        put_on_bench(m, place);
        INFO(said(place.up));
        CHECK(signed_volume(m) == Approx(6));
        const double tall[] = {3, 3, 1, 1, 2, 2};
        CHECK(bounds_of(m).size().z() == Approx(tall[i]));
    }
    Placing place;
    place.mirror = true;
    place.scale = 2;
    auto m = shapes::box({0, 0, 0}, {1, 2, 3});
    put_on_bench(m, place);
    CHECK(signed_volume(m) == Approx(48));
    CHECK(bounds_of(m).low.y() == Approx(-4));
    place.face = ToolFace::inside;
    m = shapes::box({0, 0, 0}, {1, 2, 3});
    put_on_bench(m, place);
    CHECK(signed_volume(m) == Approx(-48));
}

TEST_CASE("every starter goes through all thirteen stages") {
    for (const auto kind : {ShapeKind::stations, ShapeKind::foil, ShapeKind::turned}) {
        Job job;
        job.shape.kind = kind;
        job.shape.stations.facet = job.shape.foil.facet = job.shape.turned.facet = 0.03;
        const auto f = worked_out(job);
        INFO(said(kind));
        CHECK(f.complete());
        CHECK(value_of(f.figures(Stage::shape), "girth") > 0.1);
    }
}

TEST_CASE("doors and flat walls are judged") {
    auto job = fixtures::small_job();
    job.brief.door_width = 0.1;
    job.brief.door_height = 0.3;
    CHECK(call(worked_out(job), "door")->severity == Severity::stop);
    job.brief.door_width = 0;
    CHECK(call(worked_out(job), "door") == nullptr);
    CHECK(call(worked_out(job), "flat_wall") == nullptr);
    job.shape.kind = ShapeKind::turned;
    job.shape.turned.smooth = false;
    job.shape.turned.profile = {{0.5, 0}, {0.49, 0.3}, {0, 0.3}};
    CHECK(call(worked_out(job), "flat_wall") == nullptr);  // the top lies, and the wall is round
}

}  // namespace jig::shape
