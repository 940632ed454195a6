#include "core/stages/heat/work.hpp"

namespace jig::heat {

Work work(double room, const Cures& cures, const OvenUse& oven, const Lists<Rate>& shop) {
    Work out;
    for (const auto& run : cures.runs) {
        if (run.highest_air <= room + kWarm) continue;
        const auto ledger = of_part(run.of) ? Ledger::each : Ledger::once;
        const auto stage = of_part(run.of) ? Stage::part : Stage::heat;
        // What cures in one load shares its hours and its heat.
        const std::string whose =
            std::string(said(run.of)) + (run.times > 1 ? ", each of " + std::to_string(run.times) : "") +
            (oven.tools > 1 ? ", one of " + std::to_string(oven.tools) + " in the load" : "");
        out.buy(ledger, stage, "oven, hours", Kind::hours, run.times * run.seconds / oven.tools, 0,
                shop.rate("oven") / 3600, "running cost: " + whose);
        if (const auto* use = oven.find(run.of))
            out.buy(ledger, stage, "energy", Kind::energy, run.times * use->heat.heater / oven.tools, 0,
                    shop.rate("energy") / 3.6e6, "heat for the oven: " + whose);
        if (run.of != CureOf::post_cure) continue;
        auto& step =
            out.step(When::cure, Stage::heat,
                     "post-cure, free-standing, in steps to " + quantity(Kind::temperature, run.highest_air) +
                         ", " + quantity(Kind::duration, run.seconds) + " from the room and back",
                     {at_rate(shop, "loading the oven", 1)});
        step.wait = run.seconds;
        step.look("before it: sensors are placed, read and marked, the oven's alarm is set")
            .look("before it: it stands or hangs so that nothing bends it, with air all round");
    }
    return out;
}

}  // namespace jig::heat
