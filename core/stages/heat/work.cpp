#include "core/stages/heat/work.hpp"

namespace jig::heat {
namespace {

/// Above this it takes an oven, K over the room.
constexpr double kWarm = 15;

}  // namespace

Work work(double room, const Cures& cures, const Lists<Rate>& shop) {
    Work out;
    for (const auto& run : cures.runs) {
        if (run.highest_air <= room + kWarm) continue;
        const bool of_part = run.of == CureOf::part;
        out.buy(of_part ? Ledger::each : Ledger::once, of_part ? Stage::part : Stage::heat, "oven, hours",
                Kind::hours, run.seconds, 0, need(shop.rates, "oven", "shop rates").value / 3600,
                "running cost, energy with it: " + std::string(said(run.of)));
        if (run.of != CureOf::post_cure) continue;
        auto& step =
            out.step(When::cure, Stage::heat,
                     "post-cure, free-standing, in steps to " + quantity(Kind::temperature, run.highest_air) +
                         ", " + quantity(Kind::duration, run.seconds) + " from the room and back",
                     {at_rate(shop, "loading the oven", 1)});
        step.wait = run.seconds;
        step.look("before it: sensors are placed, read and marked, the oven's alarm is set")
            .look("before it: it stands or hangs as Heat says, and nothing bends it");
    }
    return out;
}

}  // namespace jig::heat
