// Moulds that are cut or printed themselves, without a plug.
#include <catch2/catch.hpp>
#include <functional>

#include "core/science/mesh/solid.hpp"
#include "core/stages/plug/mould.hpp"
#include "tests/stages/plug_bodies.hpp"

using namespace fixtures;

namespace {

/// A tray 0.8 × 0.6 at its rim, 0.6 × 0.4 at its top, 0.2 deep, with a flange of 0.1 round it, all of it
/// looking out of the plug along +z.
TriangleMesh tray() {
    TriangleMesh m;
    const auto ring = [&](double x, double y, double z) {
        for (const auto& [a, b] : {std::pair{-1, -1}, {1, -1}, {1, 1}, {-1, 1}})
            m.points.emplace_back(a * x / 2, b * y / 2, z);
    };
    ring(1.0, 0.8, 0);
    ring(0.8, 0.6, 0);
    ring(0.6, 0.4, 0.2);
    const auto band = [&](std::uint32_t low, std::uint32_t high) {
        for (std::uint32_t i = 0; i < 4; ++i) {
            const auto j = (i + 1) % 4;
            m.triangles.push_back({low + i, low + j, high + j});
            m.triangles.push_back({low + i, high + j, high + i});
        }
    };
    band(0, 4);
    band(4, 8);
    m.triangles.push_back({8, 9, 10});
    m.triangles.push_back({8, 10, 11});
    return m;
}

// By hand: a prismatoid h/6·(A + 4·M + a), and what is left of the block round it.
constexpr double kRoom = 0.2 / 6 * (0.48 + 4 * 0.35 + 0.24);
double left_of_block(double wall) {
    return 1.0 * 0.8 * (0.2 + wall) - kRoom;
}
const double kSlant = std::hypot(0.2, 0.1);
const double kFace = (0.8 - 0.48) + 2 * (0.7 + 0.5) * kSlant + 0.24;

plug::MouldPiece let(const plug::Choices& c, const TriangleMesh& mesh, const Frame& pull) {
    return plug::let_in(c, "mould", mesh, pull, 1.0, shop(), quiet);
}

Job direct_job() {
    auto job = small_job();
    job.plug.route = Route::direct;
    return job;
}

}  // namespace

TEST_CASE("a tray let into a block leaves what the prismatoid leaves of it, however it is turned") {
    plug::Choices c;
    c.direct.wall = 0.03;
    const double density = need(shop().boards, c.direct.mill.board, "test").density;
    const auto upright = let(c, tray(), frame_across(Point::UnitZ()));
    CHECK(upright.body.volume == Approx(left_of_block(0.03)).epsilon(1e-9));
    CHECK(upright.face == Approx(kFace).epsilon(1e-9));
    CHECK(upright.mass == Approx(density * left_of_block(0.03)).epsilon(1e-9));
    CHECK(upright.body.depth == Approx(0.2));
    for (const Point& axis : {Point(0.3, -0.5, 0.8), Point(-1, 0, 0), Point(0, 0, -1)}) {
        const auto q = Eigen::Quaterniond::FromTwoVectors(Point::UnitZ(), axis.normalized());
        auto mesh = tray();
        for (auto& p : mesh.points) p = q * p + Point(3, -2, 1);
        const auto turned = let(c, mesh, frame_across(axis.normalized()));
        CHECK(turned.body.volume == Approx(left_of_block(0.03)).epsilon(1e-6));
        CHECK(turned.face == Approx(kFace).epsilon(1e-9));
    }
    // Twice as large, its wall too: eight times the volume.
    auto large = tray();
    for (auto& p : large.points) p *= 2;
    c.direct.wall = 0.06;
    CHECK(let(c, large, frame_across(Point::UnitZ())).body.volume ==
          Approx(8 * left_of_block(0.03)).epsilon(1e-9));
}

TEST_CASE("a block is bought and cleared to the size that holds the tray") {
    auto job = direct_job();
    auto& c = job.plug;
    c.direct.mill.allowance = 0.003;
    const auto piece = let(c, tray(), frame_across(Point::UnitZ()));
    const auto plan = plug::plan_of(c, piece, job.shape, job.brief, shop(), quiet);
    const double block = 1.006 * 0.806 * (0.2 + c.direct.wall + 0.003);
    CHECK(plan.block.removed == Approx(block - left_of_block(c.direct.wall)).epsilon(1e-6));
    const auto& stock = need(shop().boards, c.direct.mill.board, "test");
    CHECK(plan.block.layers == static_cast<int>(std::ceil((0.203 + c.direct.wall) / stock.thickness)));
    // Metal is bought by mass, with what the saw takes.
    double bought = 0;
    for (const auto& n : plan.needs) bought += n.what == stock.name ? n.amount : 0;
    CHECK(bought == Approx(1.05 * block * stock.density).epsilon(1e-6));
    // Cheap feeds and dear ones: the machine's hours follow from what is cleared and what is finished.
    const double pace = c.direct.mill.feed * c.direct.mill.rough_deep * c.direct.mill.rough_wide;
    const double roughing = 1.2 * plan.block.removed / pace,
                 finishing = 1.2 * kFace / plan.block.step / c.direct.mill.feed;
    CHECK(plan.block.machine == Approx(roughing + finishing).epsilon(1e-6));
    // Nothing overhangs;
    CHECK(plan.block.reach.undercut == 0);
    // walls rise two in one, so that little more than twice the holder's radius stands beside it.
    CHECK(plan.block.reach.deepest <= 0.06);
    CHECK(plan.block.reach.deepest > 0.03);
    // Sealer, filler and paint are for what has pores.
    for (const auto& n : plan.needs) {
        CHECK(n.what.find("sealer") == std::string::npos);
        CHECK(n.what.find("primer") == std::string::npos);
    }
    c.direct.mill.board = "epoxy board 750, 50 mm";
    const auto board =
        plug::plan_of(c, let(c, tray(), frame_across(Point::UnitZ())), job.shape, job.brief, shop(), quiet);
    CHECK(std::any_of(board.needs.begin(), board.needs.end(),
                      [](const plug::Need& n) { return n.what == "board and print sealer"; }));
    CHECK(plug::face_of(c, shop()) == FaceKind::epoxy_coat);
}

TEST_CASE("the mould as it is cut is deeper by its coats and keeps its foot") {
    plug::Choices c;
    const auto piece = let(c, tray(), frame_across(Point::UnitZ()));
    const double d = 1e-4;
    const auto cut = plug::as_cut(piece, d, 1);
    // To first order every place goes back by d along its own normal; corners are of second order and of the
    // mean of the faces that meet in them.
    CHECK(std::abs(enclosed_volume(cut)) == Approx(piece.body.volume).epsilon(2e-3));
    CHECK(std::abs(enclosed_volume(cut)) < piece.body.volume);
    const auto deeper = plug::as_cut(piece, 2 * d, 1);
    const double once = piece.body.volume - std::abs(enclosed_volume(cut)),
                 twice = piece.body.volume - std::abs(enclosed_volume(deeper));
    CHECK(twice == Approx(2 * once).epsilon(1e-2));
    const double lowest = [&] {
        double low = 1e30;
        for (const auto& p : cut.points) low = std::min(low, piece.body.frame.w.dot(p));
        return low;
    }();
    CHECK(lowest == Approx(piece.body.foot - d).margin(1.1 * d));
    CHECK(std::abs(enclosed_volume(plug::as_cut(piece, 0, 1.01))) ==
          Approx(std::pow(1.01, 3) * (piece.body.volume - 0.8 * c.direct.wall) +
                 std::pow(1.01, 2) * 0.8 * c.direct.wall)
              .epsilon(1e-6));
}

TEST_CASE("a mould made without a plug takes none of a laminate's stages, and its figures agree") {
    const auto job = direct_job();
    const auto f = worked_out(job);
    REQUIRE(f.plug);
    REQUIRE(f.shell);
    REQUIRE(f.heat);
    REQUIRE(f.run);
    CHECK(call(f, "obstacle") == nullptr);
    CHECK(call(f, "no_laminate") != nullptr);
    CHECK(f.shell->mass == Approx(f.plug->mass));
    CHECK(f.shell->stack.laid.size() == 1);
    CHECK(f.shell->stack.laminate.thickness == Approx(job.plug.direct.wall));
    CHECK(f.shell->resin_mass == 0);
    CHECK(f.shell->order.empty());
    // The wall is as heavy as the whole block on the mean of its face.
    CHECK(f.shell->stack.areal_mass() * plan(f).mould->face == Approx(f.plug->mass));
    CHECK(f.heat->cures->find(CureOf::on_plug) == nullptr);
    CHECK(f.heat->cures->find(CureOf::post_cure) == nullptr);
    CHECK(f.heat->cures->find(CureOf::part) != nullptr);
    for (const auto& face : f.release->faces) {
        CHECK(face.of == release::FaceOf::mould);
        CHECK(face.surface == FaceKind::metal);
    }
    double shell = 0, parting = 0;
    for (const auto& h : f.run->hours) {
        shell += h.stage == Stage::shell ? h.hours : 0;
        parting += h.what.find("flange boards") != std::string::npos ? h.hours : 0;
    }
    CHECK(shell == 0);
    CHECK(parting == 0);
    for (const auto& m : f.run->materials) CHECK(m.stage != Stage::shell);
    double booked = 0;
    for (const auto& h : f.run->hours) booked += h.stage == Stage::plug ? h.hours : 0;
    CHECK(booked == Approx(plan(f).hours()));
    CHECK_FALSE(f.trial);
}

TEST_CASE("the part of a metal mould has the size that metal, gel and cooling leave it") {
    auto job = direct_job();
    job.part.gel_temperature = kelvin(60);
    job.brief.top_temperature = kelvin(60);
    for (const auto* metal : {"aluminium plate, 100 mm", "steel plate, 100 mm"}) {
        job.plug.direct.mill.board = metal;
        const auto f = worked_out(job);
        // By hand: cut at its size, grown to the gel, the part shrinks in cure and on cooling.
        const double alpha = need(shop().boards, metal, "test").alpha, warmed = 60 - (job.heat.room - 273.15);
        const double part = (f.part->stack.laminate.cte[0] + f.part->stack.laminate.cte[1]) / 2;
        const double size = (1 + alpha * warmed) * (1 - f.part->stack.cure.in_plane) * (1 - part * warmed);
        CHECK(f.heat->sizes.tool_room == Approx(0).margin(1e-12));
        CHECK(f.heat->sizes.tool_hot == Approx(alpha * warmed).epsilon(1e-9));
        CHECK(f.heat->part_error == Approx((size - 1) * f.heat->length).epsilon(0.02).margin(2e-6));
        CHECK(f.heat->plug_scale == Approx(1 / size).epsilon(1e-5));
        CHECK(f.heat->Tg == need(shop().boards, metal, "test").top_temperature);
    }
    // Past the tolerance, the mould is cut at the size that brings the part right.
    job.brief.tolerance = 1e-5;
    const auto off = worked_out(job);
    const auto* size = call(off, "size");
    REQUIRE(size);
    REQUIRE(size->fix);
    CHECK(size->fix->label.find("mould") != std::string::npos);
    const auto cut = worked_out(patched(job, size->fix->patch));
    CHECK_FALSE(call(cut, "size"));
    CHECK(std::abs(cut.heat->part_error) < 1e-6);
    job.brief.tolerance = Job().brief.tolerance;
    // A board that softens below what the part cures at is said to.
    job.plug.direct.mill.board = "PU board 700, 50 mm";
    job.part.gel_temperature = job.brief.top_temperature = kelvin(100);
    REQUIRE(call(worked_out(job), "Tg") != nullptr);
    CHECK(call(worked_out(job), "Tg")->severity == Severity::stop);
    CHECK(worded(call(worked_out(job), "Tg")->headline) == "The tool is 20.0 K over what it bears, 80 °C");
}

TEST_CASE("a route with a plug and back again shows what it showed before") {
    const auto slabs = small_job();
    JobBoard board;
    const auto shop_of = std::make_shared<const Shop>(shop());
    const auto figures = [&](const Job& job) {
        return board.work_out(board.lay(job, shop_of), Depth::stages, quiet).shell->figures;
    };
    const auto before = figures(slabs);
    auto direct = slabs;
    direct.plug.route = Route::direct;
    CHECK(figures(direct) != before);
    CHECK(figures(slabs) == before);
    // The stack stays in the job, and an infused shell is none.
    direct.shell.how = LayUp::infused;
    CHECK_FALSE(infuses(direct, Infused::shell));
    CHECK(job_from_json(job_to_json(direct), "test").shell == direct.shell);
}

TEST_CASE("a printed mould is cut into tiles, weighs what they weigh and stands in its comparison") {
    auto job = direct_job();
    job.plug.direct.way = MouldWay::printed;
    const auto f = worked_out(job);
    REQUIRE(call(f, "obstacle") == nullptr);
    const auto& set = plan(f).tiles;
    REQUIRE_FALSE(set.tiles.empty());
    const auto& printing = job.plug.direct.print;
    const auto& filament = need(shop().filaments, printing.filament, "test");
    double faces = 0, volume = 0;
    for (const auto& tile : set.tiles) {
        volume += tile.volume;
        for (std::size_t t = 0; t < tile.mesh.triangles.size(); ++t)
            faces += tile.mesh.area_vector2(t).norm() / 2;
    }
    const double walls = std::min(volume, faces * printing.wall);
    CHECK(f.plug->mass == Approx(filament.density * (walls + printing.infill * (volume - walls))));
    // As they leave for the printer they are deeper by their coats and scaled, and make up the whole piece.
    const auto& piece = *plan(f).mould;
    double cut = 0;
    const double deeper = plug::cut_deeper(job.plug, shop());
    for (const auto& tile : plug::tiles_as_cut(plan(f), piece.body, job.plug, 0.998, shop(), quiet).tiles)
        cut += std::abs(enclosed_volume(tile.mesh));
    CHECK(deeper > 0);
    CHECK(cut == Approx(std::abs(enclosed_volume(plug::as_cut(piece, deeper, 0.998)))).epsilon(1e-3));
    CHECK(cut < 0.998 * volume);
    CHECK(f.shell->mass == Approx(f.plug->mass));
    CHECK(f.heat->Tg == filament.softens);
    JobBoard board;
    const auto plans = *board.routes(board.lay(job, std::make_shared<const Shop>(shop())), quiet);
    REQUIRE(plans.size() == 8);
    CHECK(plans.back().route == Route::direct);
    CHECK(sum(plans.back(), "hours").value == Approx(plan(f).hours() * 3600));
    CHECK(sum(plans.back(), "moulds").value == 1);
    CHECK(sum(plans.back(), "mass").value == Approx(f.plug->mass));
}

TEST_CASE("each piece of a split mould is a block of its own, closed without parting boards") {
    auto job = fixtures::demo("cello-case-whole");
    job.shape.stations.facet = 0.04;
    job.plug.route = Route::direct;
    const auto f = worked_out(job);
    REQUIRE(f.plug);
    REQUIRE(f.plug->plans.size() == f.split->set.pieces.size());
    REQUIRE(f.plug->plans.size() > 1);
    double mass = 0;
    for (std::size_t i = 0; i < f.plug->plans.size(); ++i) {
        INFO(f.plug->plans[i].obstacle);
        REQUIRE(f.plug->plans[i].mould);
        CHECK(f.plug->plans[i].body == f.split->facts[i].name);
        mass += f.plug->plans[i].mass;
    }
    CHECK(f.plug->mass == Approx(mass));
    double closing = 0, boards = 0;
    for (const auto& h : f.run->hours) {
        closing += h.what.find("closing the mould") != std::string::npos ? h.hours : 0;
        boards += h.what.find("parting boards") != std::string::npos ? h.hours : 0;
    }
    CHECK(closing > 0);
    CHECK(boards == 0);
    CHECK(call(f, "no_boards") != nullptr);
}

TEST_CASE("what stands in the way of a block is said, and pieces are not mixed") {
    auto job = direct_job();
    job.brief.router_x = 0;
    REQUIRE(call(worked_out(job), "obstacle") != nullptr);
    job = direct_job();
    job.plug.direct.mill.board = "unobtainium";
    const auto missing = worked_out(job);
    CHECK_FALSE(missing.plug);
    REQUIRE(call(missing, "input") != nullptr);
    CHECK(call(missing, "input")->stage == Stage::plug);
    job = fixtures::demo("cello-case-whole");
    job.shape.stations.facet = 0.04;
    job.plug.by_piece = true;
    job.plug.piece_routes = {Route::slabs, Route::direct};
    REQUIRE(call(worked_out(job), "obstacle") != nullptr);
}

TEST_CASE("calls of a mould that is made itself, each with a fix that mends it") {
    auto job = direct_job();
    job.brief.pulls = 5000;
    job.plug.direct.mill.feed = 0.2;
    job.plug.direct.mill.rough_deep = 0.02;
    job.plug.direct.mill.stick_out = 0.01;
    const auto f = worked_out(job);
    CHECK(call(f, "life") != nullptr);
    for (const auto* key : {"pace", "deep_block"}) {
        INFO(key);
        const auto* said = call(f, key);
        REQUIRE(said != nullptr);
        REQUIRE(said->fix);
        const auto mended = worked_out(patched(job, said->fix->patch));
        CHECK(call(mended, key) == nullptr);
    }
    // Board cut at a metal's pace is a note, not a caution.
    job = direct_job();
    job.plug.direct.mill.board = "PU board 700, 50 mm";
    job.plug.direct.mill.rough_deep = 0.0005;
    job.plug.direct.mill.rough_wide = 0.004;
    REQUIRE(call(worked_out(job), "pace") != nullptr);
    CHECK(call(worked_out(job), "pace")->severity == Severity::note);
}

TEST_CASE("what was kept of a mould without a plug is what it comes to when worked out afresh") {
    auto job = direct_job();
    JobBoard board;
    const auto kept = [&] {
        return board.work_out(board.lay(job, fixtures::shared_shop()), Depth::stages, quiet);
    };
    kept();
    const std::vector<std::function<void()>> edits{
        [&] { job.edge.grip += 0.01; },
        [&] { job.plug.direct.wall += 0.005; },
        [&] { job.shape.tray.depth *= 1.2; },
        [&] { job.heat.room += 3; },
        [&] { job.shell.resin = "polyester, general"; },
        [&] { job.plug.direct.mill.board = "epoxy board 750, 50 mm"; },
        [&] { job.plug.direct.way = MouldWay::printed; },
        [&] { job.part.gel_temperature += 10; },
        [&] { job.plug.route = Route::block; },
        [&] { job.plug.route = Route::direct; }};
    for (std::size_t i = 0; i < edits.size(); ++i) {
        INFO("edit " << i);
        edits[i]();
        const auto a = kept(), b = worked_out(job);
        for (const auto stage :
             {Stage::plug, Stage::shell, Stage::back, Stage::release, Stage::heat, Stage::run}) {
            INFO(name_of(stage).said);
            CHECK(a.figures(stage) == b.figures(stage));
        }
        REQUIRE(a.calls.size() == b.calls.size());
        for (std::size_t k = 0; k < a.calls.size(); ++k) CHECK(a.calls[k].headline == b.calls[k].headline);
    }
}
