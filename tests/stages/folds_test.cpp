#include <catch2/catch.hpp>

#include "core/stages/heat/folds.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/shapes.hpp"

namespace {

using namespace jig;

/// A square trough along x: floor 0.4 m wide, walls 0.2 m high that stand off square by `lean`.
TriangleMesh trough(double lean) {
    const std::vector<Point2> profile{{-0.2 - 0.2 * std::sin(lean), 0.2 * std::cos(lean)},
                                      {-0.2, 0},
                                      {0.2, 0},
                                      {0.2 + 0.2 * std::sin(lean), 0.2 * std::cos(lean)}};
    return shapes::sheet(60, 30, [&](double u, double v) {
        const double at = v * 3;
        const auto k = std::min<std::size_t>(2, static_cast<std::size_t>(at + 1e-9));
        const Point2 q = profile[k] + (at - static_cast<double>(k)) * (profile[k + 1] - profile[k]);
        return Point(u * 1.2, q.x(), q.y());
    });
}

heat::FaceFolds folds_in(TriangleMesh mesh) {
    heat::FaceFolds out;
    out.frame = {Point::UnitX(), Point::UnitY(), Point::UnitZ()};
    FoldRules rules;
    rules.reach = 0.02;
    out.folds = std::make_shared<const std::vector<Fold>>(folds(mesh, topology_of(mesh), rules, quiet));
    for (std::size_t i = 0; i < out.folds->size(); ++i) out.where.emplace_back("here");
    out.face = std::make_shared<const TriangleMesh>(std::move(mesh));
    return out;
}

/// A stack that hardly grows along x and much across it.
part::Findings one_way() {
    part::Findings out;
    out.stack.laminate.cte = {1e-6, 30e-6, 0};
    out.stack.laminate.cte_through = 50e-6;
    out.stack.cure.in_plane = 0.0002;
    out.stack.cure.through = 0.004;
    return out;
}

heat::FoldZones no_zones(const heat::FaceFolds& on) {
    return heat::fold_zones(on, {}, {});
}

GrowthChain gels_at(double T) {
    GrowthChain out;
    out.part_gel = T;
    return out;
}

}  // namespace

TEST_CASE("a fold closes by its own turn, by what the stack does across it") {
    const double lean = 0.15;
    const auto on = folds_in(trough(lean));
    REQUIRE(on.folds->size() == 2);
    part::Choices c;
    const auto laid = one_way();
    // Both folds run along x: across them the stack grows by its second figure. From 373.15 K to 293.15 K
    // (30e-6 − 50e-6)·(−80)/(1 − 50e-6·80) = 1.60643e-3, and (−0.0002 + 0.004)/(1 − 0.004) = 3.81526e-3.
    const auto use = heat::folds_use(on, no_zones(on), gels_at(373.15), c, laid);
    for (std::size_t i = 0; i < 2; ++i) {
        const double turn = kPi / 2 - lean;
        CHECK((*on.folds)[i].turn == Approx(turn).epsilon(0.01));
        CHECK(use.all[i].alpha == Approx(30e-6).epsilon(0.01));
        CHECK(use.all[i].closes == Approx((*on.folds)[i].turn * (1.60643e-3 + 3.81526e-3)).epsilon(2e-3));
        // A tool that turns by `build` makes a part that turns as drawn.
        CHECK(use.all[i].build * (1 + 1.60643e-3 + 3.81526e-3) == Approx((*on.folds)[i].turn).epsilon(1e-5));
        // From rim to rim: the whole wall swings.
        CHECK(use.all[i].swings == Approx(0.2).epsilon(0.05));
        CHECK(use.all[i].moves == Approx(use.all[i].closes * use.all[i].swings).epsilon(1e-12));
    }
    // The cloth turned by a quarter: its stiff way lies across.
    c.drape.turn = kPi / 2;
    CHECK(heat::folds_use(on, no_zones(on), gels_at(373.15), c, laid).all[0].alpha ==
          Approx(1e-6).epsilon(0.02));
    // By an eighth: the mean of both.
    c.drape.turn = kPi / 4;
    CHECK(heat::folds_use(on, no_zones(on), gels_at(373.15), c, laid).all[0].alpha ==
          Approx(15.5e-6).epsilon(0.01));
    // Gelled in the room only its cure is left.
    CHECK(heat::folds_use(on, no_zones(on), gels_at(293.15), c, laid).all[0].closes ==
          Approx((*on.folds)[0].turn * 3.81526e-3).epsilon(1e-4));
}

TEST_CASE("what swings is judged by the brief's tolerance, until the drawing is opened for it") {
    const auto on = folds_in(trough(0));
    const auto use = heat::folds_use(on, no_zones(on), gels_at(373.15), {}, one_way());
    heat::Choices c;
    Calls out;
    // 90° × 5.4217e-3 = 8.516e-3 rad; over 0.2 m that is 1.7 mm.
    heat::fold_calls(c, use, 0.002, out);
    CHECK(out.empty());
    heat::fold_calls(c, use, 0.0015, out);
    REQUIRE(out.size() == 1);
    CHECK(out[0].key == "springs");
    REQUIRE(out[0].fix);
    CHECK(out[0].fix->patch["heat"]["opened"] == true);
    c.opened = true;
    out.clear();
    heat::fold_calls(c, use, 0.0015, out);
    CHECK(out.empty());
    // A face without a fold is said to have none.
    std::vector<Figure> figures;
    const auto plain = folds_in(shapes::plate(1, 1, 40, 40));
    const auto flat = heat::folds_use(plain, no_zones(plain), gels_at(373.15), {}, one_way());
    heat::fold_figures(c, flat, figures);
    REQUIRE(figures.size() == 1);
    CHECK(figures[0].value == 0);
    heat::fold_calls({}, flat, 1e-9, out);
    CHECK(out.empty());
}

TEST_CASE("the folds of a job's face follow its shape, and its heat what they close by") {
    auto job = fixtures::demo("pavilion-petal");
    const auto found = fixtures::worked_out(job);
    REQUIRE(found.heat);
    const auto& use = found.heat->folds;
    REQUIRE(use.on.folds);
    REQUIRE(use.all.size() == use.on.folds->size());
    REQUIRE(use.all.size() >= 3);
    // Its rim goes all round, and no fold of it swings further than it is long.
    const auto size = found.shape->measures.size;
    CHECK((*use.on.folds)[0].length > size.x() + size.y());
    for (const auto& fold : *use.on.folds) CHECK(fold.flank < size.norm());
    CHECK(value_of(found.heat->figures, "folds") == static_cast<double>(use.all.size()));
    // A dish without a rim of its own has none.
    const auto dome = fixtures::worked_out(fixtures::demo("radar-dome"));
    CHECK(value_of(dome.heat->figures, "folds") == 0);
    // Gelled hotter each closes further; where it lies stays.
    job.part.gel_temperature += 40;
    const auto hot = fixtures::worked_out(job);
    REQUIRE(hot.heat->folds.all.size() == use.all.size());
    for (std::size_t i = 0; i < use.all.size(); ++i) {
        CHECK(hot.heat->folds.all[i].closes != Approx(use.all[i].closes).epsilon(0.01));
        CHECK((*hot.heat->folds.on.folds)[i].turn == (*use.on.folds)[i].turn);
    }
}

TEST_CASE("a fold under zones closes by what their stacks do, by their shares of it") {
    const Eigen::AngleAxisd about(0.8, Point(1, -2, 0.5).normalized());
    for (const bool turned : {false, true}) {
        auto mesh = trough(0);
        auto on = folds_in(mesh);
        if (turned) {
            for (auto& p : mesh.points) p = about * p;
            on = folds_in(mesh);
            on.frame = {about * Point::UnitX(), about * Point::UnitY(), about * Point::UnitZ()};
        }
        REQUIRE(on.folds->size() == 2);
        part::Draped bare;
        bare.face = std::make_shared<const TriangleMesh>(mesh);
        // Of the trough's length one half, and of that the wall to one side once more.
        const auto over = [](double from, double to, double low, double high) {
            part::Zone z;
            z.place = ZonePlace::inside;
            z.line = {{from, low}, {to, low}, {to, high}, {from, high}};
            return z;
        };
        const auto zones = heat::fold_zones(on, {{over(-0.6, 0, -0.5, 0.5), over(-0.6, 0, 0.05, 0.5)}}, bare);
        REQUIRE(zones.of.size() == 2);
        auto laid = one_way();
        auto stiff = laid.stack;
        stiff.laminate.cte_through = 40e-6;
        stiff.cure.through = 0.001;
        laid.regions = {{0b00, 1, laid.stack, {}}, {0b01, 1, stiff, {}}};
        const auto use = heat::folds_use(on, zones, gels_at(373.15), {}, laid);
        const auto none = heat::folds_use(on, no_zones(on), gels_at(373.15), {}, laid);
        // (30e-6 − 40e-6)·(−80)/(1 − 40e-6·80) = 0.802568e-3, and (−0.0002 + 0.001)/(1 − 0.001) =
        // 0.800801e-3; without zones 5.42169e-3, as above.
        for (std::size_t i = 0; i < 2; ++i) {
            const auto& fold = (*on.folds)[i];
            const bool beside = on.frame.v.dot(fold.at) > 0;
            double all = 0;
            for (const auto& share : zones.of[i]) {
                all += share.share;
                const bool zoned = share.zones == (beside ? 0b11U : 0b01U);
                CHECK((zoned || share.zones == 0));
                // Whole faces of the strip count, by their middles.
                CHECK(share.share == Approx(0.5).epsilon(0.06));
            }
            CHECK(all == Approx(1));
            CHECK(use.all[i].zoned == Approx(0.5).epsilon(0.06));
            CHECK(none.all[i].zoned == 0);
            CHECK(none.all[i].closes == Approx(fold.turn * 5.42169e-3).epsilon(2e-3));
            // Where both lie the job has no stack of its own here: the common one stands in.
            const double half = beside ? 5.42169e-3 : 0.802568e-3 + 0.800801e-3;
            CHECK(use.all[i].closes == Approx(fold.turn * (5.42169e-3 + half) / 2).epsilon(0.03));
            CHECK(use.all[i].alpha == Approx(30e-6).epsilon(0.01));
        }
        // All of it in one zone.
        const auto whole = heat::fold_zones(on, {{over(-9, 9, -9, 9)}}, bare);
        const auto closes = heat::folds_use(on, whole, gels_at(373.15), {}, laid).all[0];
        CHECK(closes.zoned == Approx(1));
        CHECK(closes.closes == Approx((*on.folds)[0].turn * (0.802568e-3 + 0.800801e-3)).epsilon(2e-3));
    }
    // Without a face there is nothing to share.
    CHECK(heat::fold_zones({}, {{part::Zone{}}}, {}).of.empty());
}
