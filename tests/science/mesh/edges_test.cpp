// Geometry at its edges: cavities, bodies that touch, shoulders on slabs, seams at sharp folds, fillets of
// strips, oblique pulls.
#include <catch2/catch.hpp>

#include "core/science/mesh/measure.hpp"
#include "core/science/mesh/nearest.hpp"
#include "core/science/mesh/pieces.hpp"
#include "core/science/mesh/pull.hpp"
#include "core/science/mesh/repair.hpp"
#include "core/science/mesh/slice.hpp"
#include "core/science/mesh/solid.hpp"
#include "core/science/mesh/sweep.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace {

void append(TriangleMesh& to, const TriangleMesh& what) {
    const auto first = static_cast<std::uint32_t>(to.points.size());
    to.points.insert(to.points.end(), what.points.begin(), what.points.end());
    for (auto t : what.triangles) {
        for (auto& i : t) i += first;
        to.triangles.push_back(t);
    }
}

TriangleMesh inside_out(TriangleMesh m) {
    turn_over(m);
    return m;
}

double volume_of(const Repaired& r) {
    return measure(r.mesh, r.topology).volume;
}

/// A profile in (x, z), anticlockwise, drawn out along y.
TriangleMesh drawn_out(const std::vector<Point2>& profile, double length,
                       const std::vector<std::array<std::uint32_t, 4>>& ends) {
    TriangleMesh m;
    const auto n = static_cast<std::uint32_t>(profile.size());
    for (const double y : {0.0, length}) {
        for (const auto& p : profile) m.points.emplace_back(p.x(), y, p.y());
    }
    for (std::uint32_t i = 0; i < n; ++i) shapes::quad(m, i, n + i, n + (i + 1) % n, (i + 1) % n);
    for (const auto& e : ends) {
        shapes::quad(m, e[0], e[1], e[2], e[3]);
        shapes::quad(m, n + e[3], n + e[2], n + e[1], n + e[0]);
    }
    return m;
}

TriangleMesh i_section(double length) {
    const std::vector<Point2> p{{0, 0},     {0.1, 0}, {0.1, 0.02}, {0.06, 0.02}, {0.06, 0.18}, {0.1, 0.18},
                                {0.1, 0.2}, {0, 0.2}, {0, 0.18},   {0.04, 0.18}, {0.04, 0.02}, {0, 0.02}};
    return drawn_out(p, length, {{0, 1, 2, 3}, {0, 3, 10, 11}, {3, 4, 9, 10}, {4, 5, 6, 7}, {4, 7, 8, 9}});
}

double off_the_part(const TriangleMesh& part, const Point& p) {
    double least = 1e30;
    for (std::size_t f = 0; f < part.triangles.size(); ++f)
        least = std::min(
            least,
            (p - nearest_on_triangle(p, part.corner(f, 0), part.corner(f, 1), part.corner(f, 2))).norm());
    return least;
}

}  // namespace

TEST_CASE(
    "a cavity stays hollow and what lies in it solid, whichever way their faces came, turned or scaled") {
    for (const auto& turn : {Eigen::Matrix3d(Eigen::Matrix3d::Identity()), shapes::odd_rotation()}) {
        for (const double scale : {1.0, 1e-3, 40.0}) {
            for (const bool given_right : {true, false}) {
                auto body = shapes::box({0, 0, 0}, {1, 1, 1});
                const auto hole = shapes::box({0.2, 0.2, 0.2}, {0.6, 0.6, 0.6});
                append(body, given_right ? inside_out(hole) : hole);
                append(body, shapes::box({0.4, 0.4, 0.4}, {0.2, 0.2, 0.2}));
                append(body, shapes::box({3, 0, 0}, {1, 1, 1}));
                body = shapes::rotated(body, scale * turn);
                const auto mended = repaired(body, quiet);
                CHECK(mended.topology.closed());
                CHECK(volume_of(mended) ==
                      Approx(scale * scale * scale * (1 - 0.216 + 0.008 + 1)).epsilon(1e-9));
                CHECK(mended.repairs.empty() == given_right);
            }
        }
    }
}

TEST_CASE("bodies that touch face to face become one; what stands double loses one") {
    auto tower = shapes::box({0, 0, 0}, {1, 1, 1});
    append(tower, shapes::box({0, 0, 1}, {1, 1, 0.5}));
    const auto one = repaired(tower, quiet);
    CHECK(one.topology.closed());
    CHECK(volume_of(one) == Approx(1.5));
    CHECK(measure(one.mesh, one.topology).area == Approx(2 + 4 * 1.5));
    CHECK(one.left.empty());
    // Every face twice, the second time over or turned over: one is enough.
    for (const bool over : {false, true}) {
        auto twice = shapes::box({0, 0, 0}, {1, 1, 1});
        append(twice,
               over ? inside_out(shapes::box({0, 0, 0}, {1, 1, 1})) : shapes::box({0, 0, 0}, {1, 1, 1}));
        const auto once = repaired(twice, quiet);
        CHECK(once.topology.closed());
        CHECK(volume_of(once) == Approx(1));
    }
    // One wall doubled in an otherwise sound box.
    auto doubled = shapes::box({0, 0, 0}, {1, 1, 1});
    doubled.triangles.push_back(doubled.triangles.front());
    CHECK(volume_of(repaired(doubled, quiet)) == Approx(1));
    CHECK(repaired(doubled, quiet).topology.closed());
    // Two boxes along one edge stay two, and the edge is said with its place.
    auto along = shapes::box({0, 0, 0}, {1, 1, 1});
    append(along, shapes::box({1, 1, 0}, {1, 1, 1}));
    const auto edge = repaired(along, quiet);
    CHECK(volume_of(edge) == Approx(2));
    REQUIRE(edge.left.size() == 1);
    CHECK(edge.left[0].what == kCrowded);
    REQUIRE(edge.left[0].places.size() == 1);
    CHECK((edge.left[0].places[0] - Point(1, 1, 0.5)).norm() < 1e-9);
}

TEST_CASE("a watertight body with slivers on its edges stays watertight") {
    // The middle of one edge is a corner of two slivers: the faces on either side do not know it.
    auto box = shapes::box({0, 0, 0}, {1, 1, 1});
    const auto topology = topology_of(box);
    const auto before = measure(box, topology).volume;
    std::size_t f = 0;
    const auto a = box.triangles[f][0], b = box.triangles[f][1], c = box.triangles[f][2];
    const auto m = static_cast<std::uint32_t>(box.points.size());
    box.points.push_back((box.points[a] + box.points[b]) / 2);
    box.triangles[f] = {a, m, c};
    box.triangles.push_back({m, b, c});
    box.triangles.push_back({a, b, m});  // closes the gap without any area
    REQUIRE(topology_of(box).closed());
    const auto mended = repaired(box, quiet);
    CHECK(mended.topology.closed());
    CHECK(volume_of(mended) == Approx(before));
    for (std::size_t k = 0; k < mended.mesh.triangles.size(); ++k)
        CHECK(mended.mesh.area_vector2(k).norm() > 1e-6);
}

TEST_CASE("all points within a millionth of the size are joined, wherever the grid's walls lie") {
    // A box in twelve loose triangles, every corner off by nearly the reach in its own direction.
    const auto box = shapes::box({0.1, 0.2, 0.3}, {1, 1, 1});
    const double reach = 1e-6 * bounds_of(box).diagonal();
    for (int shift = 0; shift < 50; ++shift) {
        TriangleMesh loose;
        int n = 0;
        for (std::size_t f = 0; f < box.triangles.size(); ++f) {
            Triangle t{};
            for (std::size_t k = 0; k < 3; ++k) {
                const double turn = 2.4 * n++;
                t[k] = static_cast<std::uint32_t>(loose.points.size());
                loose.points.push_back(
                    box.corner(f, static_cast<int>(k)) + Point::Constant(shift * 0.37 * reach) +
                    0.24 * reach * Point(std::cos(turn), std::sin(turn), std::cos(3 * turn)));
            }
            loose.triangles.push_back(t);
        }
        const auto mended = repaired(loose, quiet);
        CHECK(mended.mesh.points.size() == 8);
        CHECK(mended.topology.closed());
    }
    // Points that no face uses are no mend.
    auto spare = box;
    spare.points.push_back(spare.points.front());
    CHECK(repaired(spare, quiet).repairs.empty());
}

TEST_CASE("a shoulder on a slab's face belongs to the slab that fills it, in every fit, attitude and unit") {
    // Discs of radius 4, 3 and 1.6 units, each two slabs high.
    const auto steps = shapes::turned({{4, 0}, {4, 2}, {3, 2}, {3, 4}, {1.6, 4}, {1.6, 6}}, 64);
    const double disc = 32 * std::sin(2 * kPi / 64);  // area of a 64-gon of radius 1
    const auto odd = shapes::odd_rotation();
    for (const auto& turn : {Eigen::Matrix3d(Eigen::Matrix3d::Identity()), odd}) {
        for (const double unit : {1.0, 0.001, 0.0254, 0.05}) {
            auto body = shapes::rotated(steps, unit * turn);
            for (auto& p : body.points) {
                p += Point(3, -2, 5) * unit;
                p = p.cast<float>().cast<double>();  // as a file keeps it
            }
            for (const auto fit : {SlabFit::oversize, SlabFit::undersize, SlabFit::middle}) {
                const auto stack = slabs(body, topology_of(body), turn * Point::UnitZ(), unit, quiet, fit);
                REQUIRE(stack.slabs.size() == 6);
                for (std::size_t s = 0; s < 6; ++s) {
                    const double r = s < 2 ? 4 : s < 4 ? 3 : 1.6;
                    CHECK(stack.slabs[s].area == Approx(disc * r * r * unit * unit).epsilon(1e-3));
                }
                CHECK(stack.volume == Approx(measure(body, topology_of(body)).volume).epsilon(1e-3));
            }
        }
    }
}

TEST_CASE("seams lie on the part and cross its folds on the fold; pieces come off") {
    const auto odd = shapes::odd_rotation();
    struct Body {
        const char* name;
        TriangleMesh mesh;
    };
    const std::vector<Body> bodies{
        {"flanged shaft",
         shapes::turned({{0.06, 0}, {0.06, 0.04}, {0.025, 0.04}, {0.025, 0.4}, {0.06, 0.4}, {0.06, 0.44}},
                        32)},
        {"I-section", i_section(0.8)},
        {"drum", shapes::turned({{0.15, 0}, {0.15, 0.5}}, 24)}};
    for (const auto& [name, mesh] : bodies) {
        for (const auto& turn : {Eigen::Matrix3d(Eigen::Matrix3d::Identity()), odd}) {
            INFO(name);
            const auto part = shapes::rotated(mesh, turn);
            PieceRules rules;
            const RayMesh rays(part);
            const auto set = find_pieces(part, rays, rules, quiet);
            REQUIRE(set.pieces.size() == 2);
            CHECK(set.locks() < 2e-3 * measure(part, topology_of(part)).area);
            double worst = 0;
            for (const auto& line : set.seams) {
                for (std::size_t i = 0; i < line.size(); ++i) {
                    worst = std::max(worst, off_the_part(part, line[i]));
                    if (i > 0) worst = std::max(worst, off_the_part(part, (line[i] + line[i - 1]) / 2));
                }
            }
            CHECK(worst < 1e-6);
            for (const auto& piece : set.pieces) {
                for (std::size_t i = 0; i < piece.mesh.points.size(); i += 7)
                    CHECK(off_the_part(part, piece.mesh.points[i]) < 1e-6);
            }
            for (const auto& way : ways_out(set, rays, 0.004, quiet)) CHECK(way.turn > 0);
        }
    }
}

TEST_CASE("a box splits flat at its largest section, a double cone at its equator") {
    const auto odd = shapes::odd_rotation();
    for (const auto& turn : {Eigen::Matrix3d(Eigen::Matrix3d::Identity()), odd}) {
        const auto box = shapes::rotated(shapes::box({0, 0, 0}, {0.4, 0.3, 0.2}), turn);
        const auto flat = find_pieces(box, RayMesh(box), {}, quiet);
        REQUIRE(flat.pieces.size() == 2);
        CHECK(std::abs(flat.pieces[0].direction.dot(turn * Point::UnitZ())) == Approx(1).epsilon(1e-6));
        CHECK(flat.seam_length == Approx(1.4).epsilon(1e-6));
        for (const double tall : {0.1, 0.2}) {
            const auto cone =
                shapes::rotated(shapes::turned({{0.02, -tall}, {0.15, 0}, {0.02, tall}}, 48), turn);
            const auto set = find_pieces(cone, RayMesh(cone), {}, quiet);
            REQUIRE(set.pieces.size() == 2);
            CHECK(std::abs(set.pieces[0].direction.dot(turn * Point::UnitZ())) == Approx(1).epsilon(1e-6));
            CHECK(set.seam_length == Approx(48 * 2 * 0.15 * std::sin(kPi / 48)).epsilon(1e-3));
            CHECK(set.seams.size() == 1);
            CHECK(set.pieces[0].map.area == Approx(set.pieces[1].map.area).epsilon(1e-3));
        }
    }
}

TEST_CASE("fillets and bores of long strips have their own radius, beside creases and turned") {
    const auto odd = shapes::odd_rotation();
    for (const int strips : {3, 6, 12, 24}) {
        // An L whose inside corner is rounded by r in so many flat strips from end to end.
        const double r = 0.008;
        std::vector<Point2> p{{0, 0}, {0.1, 0}, {0.1, 0.02}};
        for (int k = 0; k <= strips; ++k) {
            const double a = kPi / 2 * k / strips;
            p.emplace_back(0.02 + r - r * std::sin(a), 0.02 + r - r * std::cos(a));
        }
        p.emplace_back(0.02, 0.1);
        p.emplace_back(0, 0.1);
        // The ends are left open: a tube of walls, whose strips all touch the rim.
        const auto bar = shapes::rotated(drawn_out(p, 0.3, {}), odd);
        const auto topology = topology_of(bar);
        Measures m;
        find_inside_radius(bar, bends(bar, topology), m);
        REQUIRE(m.smallest_inside_radius.has_value());
        CHECK(*m.smallest_inside_radius == Approx(r).epsilon(0.03));
    }
    for (const int around : {16, 32, 64}) {
        // A ring: the bore's strips run from crease to crease.
        std::vector<std::pair<double, double>> profile{
            {0.012, 0}, {0.05, 0}, {0.05, 0.06}, {0.012, 0.06}, {0.012, 0}};
        auto ring = shapes::turned(profile, around, false, false);
        const auto mended = repaired(ring, quiet);
        Measures m;
        find_inside_radius(mended.mesh, bends(mended.mesh, mended.topology), m);
        REQUIRE(m.smallest_inside_radius.has_value());
        CHECK(*m.smallest_inside_radius == Approx(0.012).epsilon(0.02));
        const auto tight =
            tight_corners(mended.mesh, mended.topology, bends(mended.mesh, mended.topology), 0.02, true);
        // A bore of 12 mm all round, 60 mm long, counted in quarter turns.
        CHECK(tight.length == Approx(4 * 0.06).epsilon(0.1));
    }
    // A convex body has none.
    const auto box = shapes::box({0, 0, 0}, {1, 1, 1});
    Measures m;
    find_inside_radius(box, bends(box, topology_of(box)), m);
    CHECK_FALSE(m.smallest_inside_radius.has_value());
}

TEST_CASE("a part drafted along an oblique axis is found along it, closed or open") {
    const Point axes[] = {Point(0.3, -0.5, 0.8).normalized(), Point(-0.62, 0.41, 0.2).normalized(),
                          Point(0.05, 0.03, 1).normalized()};
    for (const auto& axis : axes) {
        const auto frame = frame_across(axis);
        Eigen::Matrix3d turn;
        turn << frame.u, frame.v, frame.w;
        for (const double draft : {1.5, 3.0}) {
            auto tower = shapes::box({-0.1, -0.08, 0}, {0.2, 0.16, 0.3});
            for (auto& p : tower.points) {
                const double shrink = p.z() * std::tan(radians(draft));
                p.x() -= std::copysign(shrink, p.x());
                p.y() -= std::copysign(shrink, p.y());
            }
            for (const auto& body : {shapes::frustum(0.1, 0.3, radians(draft)), tower}) {
                const auto part = shapes::rotated(body, turn);
                DraftRules rules;
                rules.foot_open = true;
                rules.drag_angle = radians(1);
                const auto best = best_pulls(part, RayMesh(part), rules, 1, quiet);
                REQUIRE(best.size() == 1);
                CHECK(best[0].direction.dot(axis) > std::cos(radians(draft - 0.5)));
                CHECK(best[0].locks < 1e-9);
                CHECK(best[0].drags < 0.02);
                // Without its foot, as a surface.
                auto open = part;
                std::erase_if(open.triangles, [&](const Triangle& t) {
                    return (open.points[t[1]] - open.points[t[0]])
                               .cross(open.points[t[2]] - open.points[t[0]])
                               .normalized()
                               .dot(axis) < -0.99;
                });
                const auto seen = best_pulls(open, RayMesh(open), rules, 1, quiet);
                CHECK(seen[0].direction.dot(axis) > std::cos(radians(draft + 1)));
                CHECK(seen[0].locks < 1e-9);
            }
        }
    }
}
