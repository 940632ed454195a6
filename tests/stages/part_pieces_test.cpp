// The part of a mould in pieces: what lies on one of them lies there alone, and its sums do not ask which of
// them is shown. By hand on a ball that a plane parts beside its middle.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/science/mesh/stl.hpp"
#include "core/stages/part/panels.hpp"
#include "core/stages/part/regions.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;
using fixtures::call;
using fixtures::worked_out;

namespace {

constexpr double kRadius = 0.3, kAside = 0.2;  // m: the ball's, and from its middle to the plane

Job of_mesh(const TriangleMesh& mesh) {
    Job job;
    job.shape.kind = ShapeKind::mesh;
    job.shape.file = "own.stl";
    job.shape.unit = FileUnit::mm;
    job.attachments = {{"own.stl", std::make_shared<const std::string>(write_stl_binary(mesh))}};
    return job;
}

/// A ball in two caps of areas 2πR·(R ± aside), the larger or the smaller as it is counted; turned in space.
Job caps(const Point& turned_to = Point::UnitZ()) {
    const Point way = turned_to.normalized();
    auto ball = shapes::sphere(kRadius, 40);
    const auto turn = Eigen::Quaterniond::FromTwoVectors(Point::UnitZ(), way);
    for (auto& p : ball.points) p = turn * p;
    auto job = of_mesh(ball);
    job.split.way = SplitWay::plane;
    const Point at = kAside * way;
    job.split.plane_at = {at.x(), at.y(), at.z()};
    job.split.plane_normal = {way.x(), way.y(), way.z()};
    return job;
}

/// Worked out, with words where a stage stopped.
Findings sound_job(const Job& job) {
    auto out = worked_out(job);
    for (const auto& c : out.calls) {
        if (c.key == "input") FAIL(worded(c.headline) << ": " << worded(c.why));
    }
    return out;
}

part::Zone rim(int piece, double width = 0.06) {
    part::Zone out;
    out.name = "rim";
    out.width = width;
    out.piece = piece;
    out.layers = {{LayerKind::ply, "glass cloth 300 twill", 0, 0}};
    return out;
}

/// m² of a ball within a straight distance of a circle on it, on the side away from the plane it lies in.
/// The circle stands at an angle from the pole on that side; from it inwards by as much as the chord says.
double strip(double from_pole, double width) {
    const double inner = from_pole - 2 * std::asin(width / 2 / kRadius);
    return 2 * kPi * kRadius * kRadius * (std::cos(inner) - std::cos(from_pole));
}

double zoned(const Findings& f, std::size_t zone = 0) {
    return f.part->area_of(zone);
}

/// Which piece is the larger cap, counted from 1.
int larger(const Findings& f) {
    return shapes::area_of(f.split->set.pieces[0].mesh) > shapes::area_of(f.split->set.pieces[1].mesh) ? 1
                                                                                                       : 2;
}

double bought(const Findings& f, const std::string& what) {
    double out = 0;
    for (const auto& m : f.run->materials) out += m.what == what ? m.amount : 0;
    return out;
}

}  // namespace

TEST_CASE("a rim on one cap of a ball is that cap's strip, whichever is shown and however it is turned") {
    for (const Point& way : {Point(0, 0, 1), Point(0.3, -0.7, 0.5)}) {
        auto job = caps(way);
        const auto bare = sound_job(job);
        REQUIRE(bare.split->set.pieces.size() == 2);
        const int large = larger(bare);
        // The plane's circle as it is seen from the pole of either cap.
        const double small_angle = std::acos(kAside / kRadius);
        const double of_small = strip(small_angle, 0.06), of_large = strip(kPi - small_angle, 0.06);
        REQUIRE(of_large > 1.15 * of_small);
        const auto heavier = [&](const Findings& f) { return f.part->mass - bare.part->mass; };
        const auto per_area = [&] {
            auto all = job;
            all.part.layers.push_back({LayerKind::ply, "glass cloth 300 twill", 0, 0});
            const auto f = worked_out(all);
            return (f.part->mass - bare.part->mass) / f.part->area;
        }();
        for (const int piece : {0, 1, 2}) {
            const double wanted = piece == 0 ? of_small + of_large : piece == large ? of_large : of_small;
            job.part.zones = {rim(piece)};
            for (const int shown : {1, 2}) {
                INFO("piece " << piece << ", shown " << shown);
                job.edge.piece = shown;
                const auto f = sound_job(job);
                CHECK(zoned(f) == Approx(wanted).epsilon(0.01));
                CHECK(heavier(f) == Approx(zoned(f) * per_area).epsilon(1e-6));
                CHECK(call(f, "zone_nowhere") == nullptr);
                // On the stand it is drawn where it lies alone.
                CHECK(f.part->marked->borders[0].empty() == (piece != 0 && piece != shown));
            }
        }
    }
}

TEST_CASE("what a part weighs, takes and costs does not ask which piece of its mould is shown") {
    auto job = fixtures::coarse("cello-case-whole", 0.03);
    auto on_front = rim(2), band = rim(1);
    band.name = "handle";
    band.place = ZonePlace::band;
    band.line = {{-0.2, 0}, {0.2, 0.05}};
    band.way = ZoneWay::instead;
    band.width = 0.1;
    auto ring = rim(0, 0.05);
    ring.place = ZonePlace::inserts;
    ring.name = "ring";
    job.part.zones = {on_front, band, ring};
    part::Insert here, there;
    here.piece = 1;
    here.along = 0.1;
    there.piece = 0;
    there.along = -0.15;
    there.pull = 200;
    job.part.inserts = {here, there};
    part::Cut cut;
    cut.piece = 2;
    cut.line = {{0.2, 0}, {0.9, 0.05}};
    job.part.cuts = {cut};
    const auto settled = [&](int shown) {
        job.edge.piece = shown;
        return worked_out(job, Depth::quick);
    };
    const auto one = settled(1), two = settled(2);
    REQUIRE(one.part);
    CHECK(one.part->mass == Approx(two.part->mass).epsilon(1e-6));
    CHECK(one.part->resin_mix == Approx(two.part->resin_mix).epsilon(1e-6));
    CHECK(one.part->potting == Approx(two.part->potting).epsilon(1e-6));
    CHECK(one.part->inserts_set == 3);
    CHECK(two.part->inserts_set == 3);
    CHECK(one.part->cores->cores[0].area == Approx(two.part->cores->cores[0].area).epsilon(1e-6));
    CHECK(one.part->cores->cores[0].tightest == Approx(two.part->cores->cores[0].tightest).epsilon(1e-6));
    for (const std::size_t z : {0, 1, 2}) {
        CHECK(zoned(one, z) > 0);
        CHECK(zoned(one, z) == Approx(zoned(two, z)).epsilon(1e-6));
    }
    CHECK(bought(one, "threaded insert") >= 3);
    REQUIRE(one.run->materials.size() == two.run->materials.size());
    for (std::size_t i = 0; i < one.run->materials.size(); ++i) {
        const auto &a = one.run->materials[i], &b = two.run->materials[i];
        // Of the tool itself only the piece that is shown is backed.
        if (a.stage != Stage::part) continue;
        INFO(a.what);
        CHECK(a.what == b.what);
        CHECK(a.amount == Approx(b.amount).epsilon(1e-6));
    }
    // What the panels take is of both shells.
    REQUIRE(one.core_panels);
    double panels = 0, on_second = 0;
    for (const auto& p : one.core_panels->panels) {
        panels += p.area;
        on_second += p.piece == 2 ? p.area : 0;
    }
    double cores = 0;
    for (const auto& c : one.part->cores->cores) cores += c.area;
    CHECK(panels == Approx(cores).epsilon(0.03));
    CHECK(on_second == Approx(panels / 2).epsilon(0.2));
}

TEST_CASE("an insert is set on its piece alone, and one for each on every one that it lies on") {
    auto job = caps();
    job.part.layers = {{LayerKind::ply, "glass cloth 300 twill", 0, 0},
                       {LayerKind::core, "PVC foam 75, 10 mm", 0, 0},
                       {LayerKind::ply, "glass cloth 300 twill", 0, 0}};
    part::Insert insert;
    insert.size = 0.03;
    insert.bolt = 0.006;
    // Paste round an insert twice as wide as its bolt, through the core.
    const double paste = kPi / 4 * 0.01 * (0.03 * 0.03 - 0.012 * 0.012);
    for (const int piece : {0, 1, 2}) {
        insert.piece = piece;
        job.part.inserts = {insert};
        job.part.zones = {rim(0, 0.05)};
        job.part.zones[0].place = ZonePlace::inserts;
        const int places = piece == 0 ? 2 : 1;
        for (const int shown : {1, 2}) {
            INFO("piece " << piece << ", shown " << shown);
            job.edge.piece = shown;
            const auto f = sound_job(job);
            CHECK(f.part->inserts_set == places);
            CHECK(f.part->potting == Approx(places * paste));
            CHECK(f.part->inserts[0][0].place.elsewhere == (piece != 0 && piece != shown));
            // A cap of a ball by its flat radius: π times the square of the chord to its rim.
            const double reach = kRadius * std::sqrt(2 * (1 - std::sqrt(1 - std::pow(0.05 / kRadius, 2))));
            CHECK(zoned(f) == Approx(places * kPi * reach * reach).epsilon(0.02));
            CHECK(call(f, "insert_nowhere") == nullptr);
        }
    }
}

TEST_CASE("a piece that the mould has not is said, and of a mould in one there is nothing to ask") {
    auto job = caps();
    job.part.zones = {rim(3)};
    part::Insert insert;
    insert.piece = 4;
    job.part.inserts = {insert};
    part::Cut cut;
    cut.piece = 5;
    cut.line = {{0, 0}, {0.5, 0}};
    job.part.cuts = {cut};
    const auto f = sound_job(job);
    CHECK(zoned(f) == 0);
    CHECK(f.part->potting == 0);
    REQUIRE(call(f, "zone_nowhere") != nullptr);
    CHECK(call(f, "zone_nowhere")->why.find("piece 3") != std::string::npos);
    REQUIRE(call(f, "insert_nowhere") != nullptr);
    REQUIRE(call(f, "cut_nowhere") != nullptr);
    REQUIRE(call(f, "zone_nowhere")->fix);
    const auto mended = patched(job, call(f, "zone_nowhere")->fix->patch);
    CHECK(mended.part.zones[0].piece == 0);
    CHECK(zoned(worked_out(mended)) > 0);
    // The same job over a mould in one: its only face is whatever was asked for.
    auto one = fixtures::small_job();
    const auto plain = [&] {
        one.part.zones = {rim(0)};
        return zoned(worked_out(one));
    }();
    one.part.zones = {rim(3)};
    one.part.inserts = {insert};
    one.part.cuts = {cut};
    const auto whole = worked_out(one);
    CHECK(zoned(whole) == Approx(plain));
    CHECK_FALSE(whole.part->inserts[0][0].place.beside);
    CHECK(call(whole, "zone_nowhere") == nullptr);
    CHECK(call(whole, "cut_nowhere") == nullptr);
    CHECK(std::any_of(whole.part->draped->cuts.begin(), whole.part->draped->cuts.end(),
                      [](const part::LaidCut& laid) { return laid.length > 0; }));
}

TEST_CASE("cloth on one piece does not know of a cut on the other") {
    auto job = caps();
    const auto bare = sound_job(job);
    part::Cut cut;
    cut.piece = 2;
    cut.line = {{0.05, 0}, {0.5, 0}};
    job.part.cuts = {cut};
    auto f = sound_job(job);
    CHECK(*f.part->draped->face == *bare.part->draped->face);
    REQUIRE(f.part->draped->nets.size() == bare.part->draped->nets.size());
    for (std::size_t i = 0; i < f.part->draped->nets.size(); ++i)
        CHECK(f.part->draped->nets[i].drape == bare.part->draped->nets[i].drape);
    CHECK(call(f, "cut_nowhere") == nullptr);
    job.edge.piece = 2;
    f = worked_out(job);
    REQUIRE_FALSE(f.part->draped->cuts.empty());
    CHECK(f.part->draped->cuts[0].length > 0.1);
}

TEST_CASE("the pieces that are sought for a ring and for a channel are summed alike, whichever is shown") {
    for (const auto& mesh : {shapes::torus(0.3, 0.08, 40), shapes::lipped_channel(0.02, 0.5)}) {
        auto job = of_mesh(mesh);
        job.split.way = SplitWay::search;
        job.split.pieces = 3;
        job.part.zones = {rim(0, 0.03), rim(2, 0.02)};
        part::Insert insert;
        insert.piece = 1;
        job.part.inserts = {insert};
        const auto first = sound_job(job);
        REQUIRE_FALSE(first.split->one_piece());
        double sum = 0;
        for (const auto& r : first.part->regions) sum += r.area;
        CHECK(sum == Approx(first.part->area).epsilon(1e-9));
        for (int shown = 2; shown <= static_cast<int>(first.split->set.pieces.size()); ++shown) {
            INFO("shown " << shown);
            job.edge.piece = shown;
            const auto f = sound_job(job);
            CHECK(f.part->mass == Approx(first.part->mass).epsilon(1e-6));
            CHECK(zoned(f, 0) == Approx(zoned(first, 0)).epsilon(1e-6));
            CHECK(zoned(f, 1) == Approx(zoned(first, 1)).epsilon(1e-6));
            CHECK(f.part->potting == Approx(first.part->potting).epsilon(1e-6));
            CHECK(f.part->inserts_set == 1);
        }
    }
}

TEST_CASE("a core that ends before the rim of one piece runs out on the other, until it ends there too") {
    auto job = caps();
    job.part.layers = part::start().layers;
    REQUIRE(call(sound_job(job), "core_runs_out") != nullptr);
    job.part.zones = {rim(1)};
    job.part.zones[0].way = ZoneWay::for_core;
    job.part.zones[0].layers.clear();
    for (const int shown : {1, 2}) {
        job.edge.piece = shown;
        const auto f = sound_job(job);
        const auto* runs = call(f, "core_runs_out");
        REQUIRE(runs != nullptr);
        REQUIRE(runs->fix);
        CHECK(call(sound_job(patched(job, runs->fix->patch)), "core_runs_out") == nullptr);
    }
    job.part.zones[0].piece = 0;
    CHECK(call(sound_job(job), "core_runs_out") == nullptr);
}
