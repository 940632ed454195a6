// What a front at the bench makes of the shop's own materials.
#include <catch2/catch.hpp>

#include "core/base/error.hpp"
#include "core/stages/bag/flow.hpp"
#include "core/stages/bag/measured.hpp"
#include "tests/job/fixtures.hpp"

using namespace jig;
using fixtures::worked_out;

namespace {

const Origin kBench{OriginKind::measured, "2026-05", "fronts of a test"};

/// The dome of the demos, whose front came so much later or sooner than the library has it.
Job marked(double lets) {
    auto job = fixtures::demo("radar-dome");
    job.bag.infusion.lets = lets;
    return job;
}

std::string why_not(const Job& job, Shop& shop) {
    try {
        bag::keep_measured(shop, job.bag.infusion, job.part, kBench);
    } catch (const InputError& e) {
        return e.problem();
    }
    return {};
}

}  // namespace

TEST_CASE("a library that keeps what the front showed fills as the job did that was taken to it") {
    for (const double lets : {0.4, 2.5}) {
        INFO(lets);
        const auto job = marked(lets);
        auto shop = fixtures::shop();
        const auto kept = bag::keep_measured(shop, job.bag.infusion, job.part, kBench);
        REQUIRE(kept.size() >= 2);
        for (const auto& m : kept) CHECK(m.after == Approx(lets * m.before).epsilon(1e-12));
        CHECK(kept.back().name == "flow medium");
        // What it names, in all of its directions and nothing else; figures by hand.
        for (const auto& was : fixtures::shop().reinforcements) {
            const auto& now = need(shop.reinforcements, was.name, "test");
            const bool named = std::any_of(kept.begin(), kept.end(),
                                           [&](const bag::Measured& m) { return m.name == was.name; });
            CHECK(now.K_along == Approx(named ? lets * was.K_along : was.K_along).epsilon(1e-12));
            CHECK(now.K_across == Approx(named ? lets * was.K_across : was.K_across).epsilon(1e-12));
            CHECK(now.K_through == Approx(named ? lets * was.K_through : was.K_through).epsilon(1e-12));
            CHECK((now.origin_of("K_along_m2") == kBench) == named);
            CHECK(now.origin_of("price_m2") == was.origin_of("price_m2"));
            CHECK(now.price == was.price);
        }
        // The same resin's way, whichever of the two the figure stands in.
        auto plain = job;
        plain.bag.infusion.lets = 1;
        const auto there = evaluate(plain, shop, quiet, Depth::stages);
        const auto here = worked_out(job);
        REQUIRE(here.flow);
        REQUIRE(there.flow);
        REQUIRE(here.flow->filling.fill);
        REQUIRE(there.flow->filling.fill);
        CHECK(*there.flow->filling.fill == Approx(*here.flow->filling.fill).epsilon(1e-6));
    }
}

TEST_CASE("what a front cannot say of the library is refused, and nothing is changed by half") {
    auto shop = fixtures::shop();
    CHECK(why_not(marked(1), shop).find("library's own") != std::string::npos);
    auto open = marked(0.5);
    open.part.how = LayUp::hand;
    CHECK(why_not(open, shop).find("neither the part nor the shell is infused") != std::string::npos);
    auto odd = marked(0.5);
    odd.part.layers.front().material = "moonlight cloth";
    odd.part.layers.front().kind = LayerKind::ply;
    CHECK(why_not(odd, shop).find("moonlight") != std::string::npos);
    auto bare = marked(0.5);
    bare.part.layers.clear();
    bare.part.zones.clear();
    CHECK(why_not(bare, shop).find("no cloth") != std::string::npos);
    // Again and again, until no preform lets so little through.
    const auto tight = marked(0.01);
    for (int i = 0; i < 3; ++i) {
        const auto before = shop;
        if (const auto said = why_not(tight, shop); !said.empty()) {
            CHECK(said.find("no preform") != std::string::npos);
            CHECK(shop == before);
            return;
        }
    }
    FAIL("a millionth of the typical figure was taken");
}

TEST_CASE("without a medium the front tells of the cloth alone, zones' cloth too") {
    auto job = marked(0.5);
    job.bag.infusion.medium = false;
    part::Zone zone;
    Layer ply;
    ply.kind = LayerKind::ply;
    for (const auto& cloth : fixtures::shop().reinforcements) {
        const auto& layers = job.part.layers;
        if (std::none_of(layers.begin(), layers.end(),
                         [&](const Layer& l) { return l.material == cloth.name; }))
            ply.material = cloth.name;
    }
    zone.layers = {ply};
    job.part.zones = {zone};
    auto shop = fixtures::shop();
    const auto kept = bag::keep_measured(shop, job.bag.infusion, job.part, kBench);
    CHECK(std::any_of(kept.begin(), kept.end(),
                      [&](const bag::Measured& m) { return m.name == ply.material; }));
    CHECK(shop.consumables == fixtures::shop().consumables);
}
