// A squeeze mould drawn together: pull, torque and pressure by hand, the order of its bolts, what is called.
#include <catch2/catch.hpp>

#include <set>

#include "core/stages/bag/clamp.hpp"
#include "tests/job/fixtures.hpp"

using namespace jig;
using fixtures::call;
using fixtures::worked_out;

namespace {

Job squeezed() {
    auto job = fixtures::small_job();
    job.brief.process = Process::squeeze;
    return job;
}

}  // namespace

TEST_CASE("a squeeze mould is drawn as its pressure asks, and its figures are those of a hand sum") {
    const auto job = squeezed();
    const auto f = worked_out(job);
    REQUIRE(f.bag);
    CHECK_FALSE(f.bag->closed);
    REQUIRE(f.bag->clamp);
    const auto& k = *f.bag->clamp;
    CHECK(k.bolts == f.edge->bolts);
    REQUIRE(k.bolts > 3);
    const double strip = job.edge.seal.stiffness * job.edge.seal.squeeze * f.edge->rim_length;
    CHECK(k.needed * k.bolts == Approx(job.edge.squeeze * f.split->map.projected + strip));
    // M8, oiled: F·(p/2π + µ·d2/(2·cos 30°) + µ·Dk/2), small angles.
    const double hand =
        k.needed * (0.00125 / (2 * kPi) + 0.12 * 0.0071881 / 2 / 0.8660254 + 0.12 * 0.0108 / 2);
    CHECK(k.torque == Approx(hand).epsilon(0.01));
    CHECK(k.pressed == Approx(job.edge.squeeze));
    CHECK(value_of(f.bag->figures, "torque") == Approx(k.torque));
    // The same pull through dry threads.
    CHECK(value_of(f.bag->figures, "clamp_dry") > 1.4 * k.torque);
    CHECK(value_of(f.bag->figures, "clamp_waxed") < k.torque);
    for (const char* key : {"soft_squeeze", "hard_squeeze", "bolt_yields", "no_bolts"})
        CHECK(call(f, key) == nullptr);
    // Nothing of a bag, and a step that closes it.
    for (const auto& m : f.run->materials) CHECK((m.stage != Stage::bag || m.amount == 0));
    bool closes = false;
    for (const auto& t : f.run->tasks) closes |= t.name.find("crosswise") != std::string::npos;
    CHECK(closes);
}

TEST_CASE("a torque of the maker's own presses as it does, dry less than oiled") {
    const auto as_needed = worked_out(squeezed());
    const double torque = as_needed.bag->clamp->torque;
    const auto with = [&](double share, Thread thread) {
        auto job = squeezed();
        job.bag.clamp = {thread, share * torque};
        return worked_out(job);
    };
    const auto same = with(1, Thread::oiled);
    CHECK(same.bag->clamp->pressed == Approx(squeezed().edge.squeeze));
    CHECK(with(1, Thread::dry).bag->clamp->pressed < same.bag->clamp->pressed);
    CHECK(with(1, Thread::waxed).bag->clamp->pressed > same.bag->clamp->pressed);
    const auto soft = with(0.5, Thread::oiled);
    REQUIRE(call(soft, "soft_squeeze") != nullptr);
    REQUIRE(call(soft, "soft_squeeze")->fix);
    auto job = squeezed();
    job.bag.clamp.torque = 0.5 * torque;
    CHECK(call(worked_out(patched(job, call(soft, "soft_squeeze")->fix->patch)), "soft_squeeze") == nullptr);
    CHECK(call(with(4, Thread::oiled), "hard_squeeze") != nullptr);
    const auto torn = with(0, Thread::oiled);
    CHECK(torn.bag->clamp->torque == Approx(torque));
    job.bag.clamp.torque = 200;
    const auto yields = worked_out(job);
    REQUIRE(call(yields, "bolt_yields") != nullptr);
    CHECK(call(yields, "bolt_yields")->severity == Severity::stop);
    // 7/10 of 600 MPa on 36.6 mm²: 15.4 kN.
    CHECK_THAT(worded(call(yields, "bolt_yields")->headline), Catch::Contains("bears 15"));
    // The torque was too much, not the pressure: drawn as that asks, they hold.
    REQUIRE(call(yields, "bolt_yields")->fix);
    const auto eased = worked_out(patched(job, call(yields, "bolt_yields")->fix->patch));
    CHECK(eased.bag->clamp->torque == Approx(torque));
    CHECK(call(eased, "bolt_yields") == nullptr);
}

TEST_CASE("washers that sink, or bolts that yield under the pressure itself, are mended by more bolts") {
    auto job = squeezed();
    // What the washers' plates bear: 40 MPa under each.
    const auto few = worked_out(job);
    const double bears = bag::kWasherBears * few.bag->clamp->bolt.washer_area();
    const double strip = few.bag->clamp->strip, face = few.bag->clamp->face;
    const auto pressed = [&](double pull) { return (pull * few.bag->clamp->bolts - strip) / face; };
    for (const double times : {1.2, 4.0}) {
        job.edge.squeeze = pressed(times * bears);
        const auto f = worked_out(job);
        INFO(times);
        if (f.bag->clamp->needed > bag::kBoltBears * f.bag->clamp->bolt.stress_area())
            REQUIRE(call(f, "bolt_yields") != nullptr);
        else
            REQUIRE(call(f, "washer_sinks") != nullptr);
        const auto* said =
            call(f, "bolt_yields") != nullptr ? call(f, "bolt_yields") : call(f, "washer_sinks");
        REQUIRE(said->fix);
        const auto mended = patched(job, said->fix->patch);
        CHECK(mended.edge.bolt_pitch < job.edge.bolt_pitch);
        const auto after = worked_out(mended);
        CHECK(after.bag->clamp->bolts > f.bag->clamp->bolts);
        CHECK(call(after, said->key) == nullptr);
        CHECK(after.bag->clamp->pressed == Approx(job.edge.squeeze));
    }
    // Where no pitch is close enough, nothing is offered.
    job.edge.squeeze = pressed(60 * bears);
    const auto hopeless = worked_out(job);
    REQUIRE(call(hopeless, "bolt_yields") != nullptr);
    CHECK_FALSE(call(hopeless, "bolt_yields")->fix);
}

TEST_CASE("bolts are numbered crosswise, from the middle of a long side, each once") {
    const auto f = worked_out(squeezed());
    const auto& order = f.bag->clamp->order;
    std::set<int> numbers;
    for (const auto& b : order) {
        CHECK(b.kind == Fitting::bolt);
        numbers.insert(b.number);
    }
    CHECK(numbers.size() == order.size());
    CHECK(static_cast<int>(order.size()) == f.edge->count(Fitting::bolt));
    Point2 middle(0, 0);
    for (const auto& b : order) middle += b.place / static_cast<double>(order.size());
    double nearest = 1e9;
    for (const auto& b : order) nearest = std::min(nearest, (b.place - middle).norm());
    CHECK((order.front().place - middle).norm() == Approx(nearest));
    // The second lies across the middle from the first.
    CHECK((order[0].place - middle).dot(order[1].place - middle) < 0);
}

TEST_CASE("a squeeze mould without a bolt is a stop, and the rules lay them") {
    auto job = squeezed();
    job.edge.by_rule = false;
    job.edge.placed.clear();
    const auto f = worked_out(job);
    const auto* c = call(f, "no_bolts");
    REQUIRE(c != nullptr);
    CHECK(c->severity == Severity::stop);
    CHECK(f.bag->clamp->order.empty());
    CHECK(f.bag->clamp->torque == 0);
    REQUIRE(c->fix);
    CHECK(call(worked_out(patched(job, c->fix->patch)), "no_bolts") == nullptr);
    // Other processes have bolts or not, and no clamp.
    CHECK_FALSE(worked_out(fixtures::small_job()).bag->clamp);
}

TEST_CASE("a mould in halves counts the bolts of all its seams") {
    auto job = fixtures::demo("cello-case-whole");
    job.brief.process = Process::squeeze;
    const auto f = worked_out(job);
    REQUIRE(f.bag);
    REQUIRE(f.bag->clamp);
    CHECK(f.bag->clamp->bolts == f.edge->bolts);
    CHECK(f.bag->clamp->pressed == Approx(job.edge.squeeze));
    CHECK(f.bag->clamp->order.size() <= static_cast<std::size_t>(f.bag->clamp->bolts));
}
