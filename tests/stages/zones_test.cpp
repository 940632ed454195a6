// Zones of the part: where they lie by areas known in closed form, and sums by hand over what lies there.
#include <fmt/format.h>

#include <catch2/catch.hpp>
#include <cmath>
#include <functional>

#include "core/base/error.hpp"
#include "core/base/units.hpp"
#include "core/job/evaluate.hpp"
#include "core/job/job.hpp"
#include "core/stages/part/kit.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"

using namespace jig;
using fixtures::call;
using fixtures::kLevel;
using fixtures::shop;
using fixtures::worked_out;
using part::Regions;
using part::Zone;

namespace {

constexpr double kLong = 0.8, kWide = 0.5;

/// A plate of kLong × kWide in n × m cells, turned and shifted as `frame` stands; bent to a cylinder of
/// `radius` where that is not nought.
TriangleMesh plate(std::uint32_t n, std::uint32_t m, const Frame& frame, double radius = 0) {
    TriangleMesh out;
    for (std::uint32_t j = 0; j <= m; ++j) {
        for (std::uint32_t i = 0; i <= n; ++i) {
            const double x = kLong * i / n - kLong / 2, y = kWide * j / m - kWide / 2;
            const Point flat =
                radius > 0 ? Point(x, radius * std::sin(y / radius), radius * (std::cos(y / radius) - 1))
                           : Point(x, y, 0);
            out.points.push_back(frame.u * flat.x() + frame.v * flat.y() + frame.w * flat.z());
        }
    }
    for (std::uint32_t j = 0; j < m; ++j) {
        for (std::uint32_t i = 0; i < n; ++i) {
            const auto a = j * (n + 1) + i;
            out.triangles.push_back({a, a + 1, a + n + 2});
            out.triangles.push_back({a, a + n + 2, a + n + 1});
        }
    }
    return out;
}

Regions marked(const std::vector<Zone>& zones, const TriangleMesh& mesh, const Frame& frame = kLevel) {
    part::Draped draped;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) draped.area += mesh.area_vector2(f).norm() / 2;
    draped.face = std::make_shared<const TriangleMesh>(mesh);
    edge::ToolFace tool;
    tool.frame = frame;
    return part::regions({zones}, tool.frame, draped, quiet);
}

Zone rim(double width) {
    Zone z;
    z.name = "rim";
    z.width = width;
    return z;
}

Zone inside(std::vector<part::Spot> line) {
    Zone z;
    z.name = "hatch";
    z.place = ZonePlace::inside;
    z.line = std::move(line);
    return z;
}

Zone band(std::vector<part::Spot> line, double width) {
    auto z = inside(std::move(line));
    z.name = "band";
    z.place = ZonePlace::band;
    z.width = width;
    return z;
}

double of(const Regions& r, std::uint32_t zones) {
    for (const auto& region : r.regions) {
        if (region.zones == zones) return region.area;
    }
    return 0;
}

/// The small job's part as a sandwich whose sums are done by hand below.
Job foam_part() {
    auto job = fixtures::small_job();
    job.part.layers = {{LayerKind::ply, "glass cloth 200 plain", 0, 0},
                       {LayerKind::core, "PVC foam 75, 5 mm", 0, 0},
                       {LayerKind::ply, "glass cloth 200 plain", 0, 0}};
    return job;
}

}  // namespace

TEST_CASE("zones cut through triangles: areas are those of the drawing on any mesh, turned or not") {
    const Eigen::AngleAxisd turn(1.1, Point(0.3, -0.5, 0.8).normalized());
    const Frame turned{turn * Point::UnitX(), turn * Point::UnitY(), turn * Point::UnitZ()};
    for (const auto& frame : {kLevel, turned}) {
        for (const auto& [n, m] : {std::pair{2u, 1u}, {7u, 3u}, {40u, 31u}}) {
            INFO(n << " by " << m);
            const auto face = plate(n, m, frame);
            const auto r =
                marked({rim(0.04), inside({{-0.1, -0.05}, {0.1, -0.05}, {0.1, 0.05}, {-0.1, 0.05}}),
                        band({{-0.5, 0}, {0.5, 0}}, 0.06)},
                       face, frame);
            CHECK(r.area == Approx(kLong * kWide));
            CHECK(r.area_of(0) == Approx(kLong * kWide - (kLong - 0.08) * (kWide - 0.08)).epsilon(0.01));
            CHECK(r.area_of(1) == Approx(0.2 * 0.1).epsilon(0.02));
            CHECK(r.area_of(2) == Approx(kLong * 0.06).epsilon(0.01));
            // Where two lie over one another.
            CHECK(of(r, 0b101) == Approx(2 * 0.04 * 0.06).epsilon(0.05));
            CHECK(of(r, 0b110) == Approx(0.2 * 0.06).epsilon(0.03));
            CHECK(of(r, 0b011) == 0);
            double sum = 0;
            for (const auto& region : r.regions) sum += region.area;
            CHECK(sum == Approx(kLong * kWide).epsilon(1e-9));
            REQUIRE(r.middles.size() == 3);
            CHECK(std::abs(r.middles[1]->dot(frame.u)) < 0.1);
            CHECK_FALSE(r.borders[2].empty());
        }
    }
}

TEST_CASE("a rim follows the face, a line is as it is seen, paint lies where it was laid and on that side") {
    const double radius = 0.25;  // bent through 2 rad
    const auto bent = plate(60, 60, kLevel, radius);
    const auto r = marked({rim(0.03)}, bent);
    CHECK(r.area_of(0) == Approx(kLong * kWide - (kLong - 0.06) * (kWide - 0.06)).epsilon(0.01));
    // Seen from above a band along the length is as wide as its share of the cylinder is seen.
    const auto b = marked({band({{-0.5, 0}, {0.5, 0}}, 0.2)}, bent);
    CHECK(b.area_of(0) == Approx(kLong * 2 * radius * std::asin(0.1 / radius)).epsilon(0.005));
    Zone dot;
    dot.place = ZonePlace::painted;
    dot.painted = {{{0.1, 0.05, 0}, {0, 0, 1}, 0.06}};
    CHECK(marked({dot}, plate(9, 7, kLevel)).area_of(0) == Approx(kPi * 0.06 * 0.06).epsilon(0.02));
    dot.painted.front().facing = {0, 0, -1};
    CHECK(marked({dot}, plate(9, 7, kLevel)).area_of(0) == 0);
    // Two touches that lie over one another count once.
    dot.painted = {{{0, 0, 0}, {0, 0, 1}, 0.05}, {{0, 0, 0}, {0, 0, 2}, 0.05}};
    CHECK(marked({dot}, plate(9, 7, kLevel)).area_of(0) == Approx(kPi * 0.05 * 0.05).epsilon(0.02));
}

TEST_CASE("odd zones: wider than the face, thinner than a cell, an outline that folds back, none, too many") {
    const auto face = plate(6, 4, kLevel);
    CHECK(marked({rim(5)}, face).area_of(0) == Approx(kLong * kWide));
    CHECK(marked({rim(0.001)}, face).area_of(0) == Approx(2 * (kLong + kWide) * 0.001).epsilon(0.05));
    // A bow tie holds its two triangles.
    CHECK(marked({inside({{-0.2, -0.1}, {0.2, 0.1}, {0.2, -0.1}, {-0.2, 0.1}})}, face).area_of(0) ==
          Approx(0.04).epsilon(0.05));
    CHECK(marked({inside({{0, 0}, {0.1, 0}})}, face).area_of(0) == 0);
    CHECK(marked({band({}, 0.1)}, face).area_of(0) == 0);
    CHECK(marked({band({{2, 2}, {3, 3}}, 0.1)}, face).area_of(0) == 0);
    const auto none = marked({}, face);
    CHECK(none.regions.empty());
    CHECK_THROWS_AS(marked(std::vector<Zone>(17, rim(0.01)), face), InputError);
}

TEST_CASE("each way of a zone lays what it says, in the order of the list") {
    auto c = foam_part().part;
    const Layer heavy{LayerKind::ply, "glass cloth 280 twill", 0.5, 0};
    c.zones = {rim(0.05), rim(0.02), rim(0.01)};
    c.zones[0].layers = {heavy};
    const auto names = [&](std::uint32_t zones) {
        std::string out;
        for (const auto& l : part::layers_under(c, zones))
            out += l.kind == LayerKind::core ? 'c' : l.material == heavy.material ? 'h' : 'p';
        return out;
    };
    CHECK(names(0) == "pcp");
    CHECK(names(1) == "pcph");
    c.zones[0].way = ZoneWay::for_core;
    CHECK(names(1) == "php");
    c.zones[1].way = ZoneWay::for_core;  // nothing in its place
    CHECK(names(2) == "pp");
    CHECK(names(3) == "php");
    c.zones[2].way = ZoneWay::instead;
    c.zones[2].layers = {heavy, heavy};
    CHECK(names(7) == "hh");
    CHECK(names(4) == "hh");
    // A core that a later zone brings is taken by the one after it alone.
    c.zones[1].way = ZoneWay::adds;
    c.zones[1].layers = {{LayerKind::core, "PVC foam 75, 5 mm", 0, 0}};
    CHECK(names(3) == "phpc");
}

TEST_CASE("mass, resin, hours and goods of a part with zones are the sums by hand over its regions") {
    auto job = foam_part();
    const auto before = worked_out(job);
    REQUIRE(before.part);
    const auto& common = before.part->stack;
    const double area = before.part->area;
    auto z = rim(0.03);
    z.way = ZoneWay::for_core;
    z.layers = {{LayerKind::ply, "glass cloth 280 twill", kPi / 4, 0}};
    job.part.zones = {z};
    const auto f = worked_out(job);
    REQUIRE(f.part);
    const auto& p = *f.part;
    REQUIRE(p.marked);
    REQUIRE(p.marked->area > 0);
    const double strip = area * p.marked->area_of(0) / p.marked->area;
    CHECK(strip > 0.01 * area);
    CHECK(strip < 0.9 * area);
    // By hand from the plies' own masses: the core goes, the ply comes.
    const auto own = sum_stack(z.layers, p.resin, job.part.how, shop(), "test");
    double core = 0, core_resin = 0;
    for (const auto& l : common.laid) {
        if (l.layer.kind != LayerKind::core) continue;
        core += l.mass();
        core_resin += l.resin;
    }
    REQUIRE(core > 0);
    CHECK(p.mass == Approx(before.part->mass + strip * (own.areal_mass() - core)).epsilon(1e-9));
    CHECK(p.resin_mix ==
          Approx(before.part->resin_mix + strip * (own.mixed - core_resin) * (1 + job.part.waste / 2))
              .epsilon(1e-9));
    const double ply = shop().rate("laying ply"), foam = shop().rate("laying core");
    CHECK(
        p.goes.front().laying - before.part->goes.front().laying ==
        Approx(3600 * strip * (ply - foam) * f.split->parts() / std::max(1, job.brief.people)).epsilon(1e-9));
    const auto bought = [](const Findings& from, const std::string& what) {
        double out = 0;
        for (const auto& m : from.run->materials) {
            if (m.stage == Stage::part && m.what == what) out += m.amount / (1 + m.waste);
        }
        return out;
    };
    CHECK(bought(f, "glass cloth 280 twill") == Approx(strip * f.split->parts()).epsilon(1e-9));
    CHECK(bought(f, "PVC foam 75, 5 mm") ==
          Approx(bought(before, "PVC foam 75, 5 mm") * (1 - strip / area)).epsilon(1e-9));
    CHECK(bought(f, "glass cloth 200 plain") == Approx(bought(before, "glass cloth 200 plain")));
    bool told = false;
    for (const auto& figure : p.figures) told = told || (figure.key == "zone_1" && figure.name == "zone rim");
    CHECK(told);
    // The same zone twice, on top of one another, weighs the second's ply more.
    auto twice = job;
    twice.part.zones.push_back(z);
    twice.part.zones.back().way = ZoneWay::adds;
    CHECK(worked_out(twice).part->mass == Approx(p.mass + strip * own.areal_mass()).epsilon(1e-9));
}

TEST_CASE("what zones do to the stiffness is told by zone and in sum") {
    auto job = foam_part();
    const auto figure = [](const Findings& f, const std::string& key) -> const Figure* {
        const auto& all = f.part->figures;
        const auto at =
            std::find_if(all.begin(), all.end(), [&](const Figure& one) { return one.key == key; });
        return at == all.end() ? nullptr : &*at;
    };
    CHECK(figure(worked_out(job), "D_zoned") == nullptr);
    auto z = rim(0.03);
    z.way = ZoneWay::for_core;
    job.part.zones = {z};
    const auto f = worked_out(job);
    const double share = f.part->marked->area_of(0) / f.part->marked->area;
    // Both skins close together: E*·t³/12 of a solid plate, since both lie alike.
    const auto& skin = f.part->stack.laid.front().ply;
    const double t = 2 * skin.thickness, nu = skin.material.nu12,
                 thin = skin.material.E1 / (1 - nu * nu) * t * t * t / 12,
                 thick = f.part->stack.laminate.D_free(0, 0);
    const auto* sum = figure(f, "D_zoned");
    REQUIRE(sum != nullptr);
    CHECK(sum->value == Approx(1 / (share / thin + (1 - share) / thick)).epsilon(1e-3));
    CHECK(sum->value < thick);
    // What has no core is solid itself; what has the common one is as stiff against it as that.
    const auto told = [&](const Findings& of) { return figure(of, "zone_1")->reason; };
    CHECK(told(f).ends_with(" by D*11"));
    // A zone of nothing new over all of the face changes nothing in sum.
    auto twice = job;
    twice.part.zones = {inside({{-9, -9}, {9, -9}, {9, 9}, {-9, 9}})};
    twice.part.zones[0].way = ZoneWay::instead;
    twice.part.zones[0].layers = job.part.layers;
    const auto same = worked_out(twice);
    CHECK(figure(same, "D_zoned")->value == Approx(thick).epsilon(1e-9));
    CHECK(told(same).ends_with(fmt::format("{:.3g} times as stiff as solid", same.part->stiffer)));
}

TEST_CASE("each zone's plies are cut as it lies, and the common ones where a zone leaves them") {
    const auto mesh = plate(32, 20, kLevel);
    edge::ToolFace tool;
    tool.frame = kLevel;
    tool.rimmed.mesh = mesh;
    tool.rimmed.patch.assign(mesh.triangles.size(), 0);
    auto job = foam_part();
    auto patch = inside({{-0.1, -0.1}, {0.1, -0.1}, {0.1, 0.05}, {-0.1, 0.05}});
    patch.layers = {job.part.layers.front()};
    auto edges = rim(0.06);
    edges.layers = {job.part.layers.front()};
    edges.layers[0].angle = kPi / 4;
    const double trim = 0.02, whole = (kLong + 2 * trim) * (kWide + 2 * trim),
                 ring = kLong * kWide - (kLong - 0.12) * (kWide - 0.12);
    const auto cut = [&](ZoneWay way) {
        patch.way = way;
        job.part.zones = {edges, patch};
        const auto draped = part::draped(part::cloth_asked(job.part), tool, shop(), quiet);
        return part::kit(job.part, draped, kLevel, shop(), trim, 0.025, quiet);
    };
    const auto area = [](const part::Kit& kit, const part::Source& of) {
        double sum = 0;
        for (const auto& p : kit.pieces) sum += p.of == of ? p.area : 0;
        return sum;
    };
    const auto added = cut(ZoneWay::adds);
    CHECK(area(added, {-1, 0}) == Approx(whole).epsilon(2e-3));
    CHECK(area(added, {-1, 2}) == Approx(whole).epsilon(2e-3));
    // A patch well inside is not trimmed; the rim's ply is, along the rim alone.
    CHECK(area(added, {1, 0}) == Approx(0.2 * 0.15).epsilon(0.01));
    CHECK(area(added, {0, 0}) == Approx(ring + whole - kLong * kWide).epsilon(0.01));
    bool named = false;
    for (const auto& p : added.pieces) named = named || p.name == "hatch 1";
    CHECK(named);
    // Instead of the stack: its plies, and the rim's before it in the list, are cut out there.
    const auto instead = cut(ZoneWay::instead);
    CHECK(area(instead, {-1, 0}) == Approx(whole - 0.2 * 0.15).epsilon(3e-3));
    CHECK(area(instead, {1, 0}) == Approx(0.2 * 0.15).epsilon(0.01));
    // Every piece lies inside its roll.
    for (const auto& roll : instead.rolls) {
        CHECK(roll.sheets.too_large.empty());
        for (const auto& sheet : roll.sheets.sheets) {
            for (const auto& piece : sheet.pieces) {
                CHECK(low_corner(piece.loops).y() > -1e-9);
                CHECK(high_corner(piece.loops).y() < roll.width + 1e-9);
            }
        }
    }
    // Two zones of one name still name each piece once.
    patch.name = edges.name;
    const auto twice = cut(ZoneWay::adds);
    std::vector<std::string> names;
    for (const auto& p : twice.pieces) names.push_back(p.name);
    std::sort(names.begin(), names.end());
    CHECK(std::adjacent_find(names.begin(), names.end()) == names.end());
    // Out of everywhere: a zone that lies nowhere has no piece.
    for (auto& s : patch.line) s.along += 9;
    CHECK(area(cut(ZoneWay::adds), {1, 0}) == 0);
}

TEST_CASE("a joint meets the rim's own stack, however many zones lie there and whatever lies over them") {
    auto job = foam_part();
    job.part.joint.kind = JointKind::joggle;
    const double gap = job.part.joint.gap;
    const auto skins = [](const std::vector<Layer>& layers, const Findings& f, const Job& of) {
        double out = 0;
        for (const auto& l : sum_stack(layers, f.part->resin, of.part.how, shop(), "test").laid)
            out += l.layer.kind == LayerKind::core ? 0 : l.ply.thickness;
        return out;
    };
    const Layer heavy{LayerKind::ply, "glass cloth 280 twill", 0, 0};
    const auto plain = worked_out(job);
    CHECK(plain.part->joint.step == Approx(skins(job.part.layers, plain, job) + gap));
    job.part.zones = {rim(0.02), rim(0.04), band({{-9, 0}, {9, 0}}, 9)};
    job.part.zones[0].layers = {heavy};
    job.part.zones[1].way = ZoneWay::for_core;
    job.part.zones[1].layers = {heavy, heavy};
    job.part.zones[2].layers = {heavy};
    const auto f = worked_out(job);
    REQUIRE(f.part);
    CHECK(f.part->joint.step ==
          Approx(skins({job.part.layers[0], heavy, heavy, job.part.layers[2], heavy}, f, job) + gap));
}

TEST_CASE("a zone that lies nowhere is named with its way out, one that leaves nothing stops the part") {
    auto job = foam_part();
    job.part.zones = {inside({{3, 3}, {4, 3}, {4, 4}})};
    job.part.zones[0].layers = job.part.layers;
    const auto f = worked_out(job);
    const auto* nowhere = call(f, "zone_nowhere");
    REQUIRE(nowhere != nullptr);
    CHECK(nowhere->headline.find("hatch") != std::string::npos);
    REQUIRE(nowhere->fix);
    CHECK(call(worked_out(patched(job, nowhere->fix->patch)), "zone_nowhere") == nullptr);
    auto bare = foam_part();
    bare.part.zones = {rim(0.05)};
    bare.part.zones[0].way = ZoneWay::instead;
    const auto stopped = worked_out(bare);
    CHECK_FALSE(stopped.part);
    bool said = false;
    for (const auto& c : stopped.calls)
        said = said || c.why.find("rim") != std::string::npos || c.headline.find("rim") != std::string::npos;
    CHECK(said);
    // Resin is held by what zones lay: so much more as the rim's own ply holds.
    auto wet = foam_part();
    wet.part.how = LayUp::infused;
    wet.part.resin = "epoxy, infusion";
    for (auto& l : wet.part.layers) l.cut.hole = 0.003;
    const auto plain = worked_out(wet);
    wet.part.zones = {rim(0.03)};
    wet.part.zones[0].layers = {wet.part.layers.front()};
    const auto zoned = worked_out(wet);
    REQUIRE(plain.flow);
    REQUIRE(zoned.flow->filling.fill);
    const auto laid = lay_up(wet.part.layers, zoned.part->resin, wet.part.how, PlyLists(shop()), "part");
    const double holds = (1 - laid[0].fibre_volume) * laid[0].ply.thickness * zoned.part->marked->area_of(0) *
                         zoned.part->resin.matrix.density;
    CHECK(zoned.flow->filling.held - plain.flow->filling.held == Approx(holds).epsilon(0.08));
    // Honeycomb crushes in a zone as it does anywhere.
    auto crushed = foam_part();
    crushed.part.zones = {rim(0.05)};
    crushed.part.zones[0].layers = {{LayerKind::core, "no such core", 0, 0}};
    CHECK_FALSE(worked_out(crushed).part);
}

TEST_CASE("a zone that is changed reaches all that reads it, and what does not read it is kept") {
    auto job = foam_part();
    job.part.zones = {rim(0.03), band({{-0.1, 0}, {0.1, 0.05}}, 0.04)};
    job.part.zones[0].way = ZoneWay::for_core;
    job.part.zones[1].layers = {job.part.layers.front()};
    JobBoard board(3);
    board.work_out(board.lay(job, fixtures::shared_shop()), Depth::stages, quiet);
    const std::vector<std::function<void(part::Choices&)>> changes{
        [](auto& c) { c.zones[0].width = 0.05; },
        [](auto& c) { c.zones[0].way = ZoneWay::adds; },
        [](auto& c) { c.zones[0].name = "edge"; },
        [](auto& c) { c.zones[1].line[1].across = -0.04; },
        [](auto& c) { c.zones[1].place = ZonePlace::rim; },
        [](auto& c) { c.zones[1].layers.front().material = "glass cloth 280 twill"; },
        [](auto& c) { c.zones[1].layers.front().angle = 0.4; },
        [](auto& c) {
            c.zones[0].painted = {{{0, 0, 0}, {0, 0, 1}, 0.1}};
        },
        [](auto& c) { std::swap(c.zones[0], c.zones[1]); },
        [](auto& c) { c.zones.pop_back(); },
        [](auto& c) { c.layers.pop_back(); }};
    for (std::size_t i = 0; i < changes.size(); ++i) {
        INFO("change " << i);
        auto next = job;
        changes[i](next.part);
        const auto kept =
            board.work_out(board.lay(next, fixtures::shared_shop(), true), Depth::stages, quiet);
        const auto fresh = worked_out(next);
        CHECK(findings_to_json(kept) == findings_to_json(fresh));
        // A zone's layers and name leave its place where it is.
        if (i == 1 || i == 2 || i == 5 || i == 6) CHECK(*kept.part->marked == *fresh.part->marked);
    }
}

TEST_CASE("a job with zones comes back from its file as it was") {
    auto job = foam_part();
    job.part.zones = {rim(0.03), band({{0, 0}, {0.1, 0.05}}, 0.04)};
    job.part.zones[0].painted = {{{1, 2, 3}, {0, 1, 0}, 0.02}};
    job.part.zones[1].layers = job.part.layers;
    CHECK(job_from_json(job_to_json(job), "job").part == job.part);
}
