#include "core/stages/heat/work.hpp"

namespace jig::heat {
namespace {

/// Above this it takes an oven, K over the room.
constexpr double kWarm = 15;

}  // namespace

Work work(double room, const shell::Choices& shell, const part::Choices& part_choices,
          const Resin& part_resin, const Lists<Rate>& shop) {
    Work out;
    const auto rate = [&](const char* name) { return need(shop.rates, name, "shop rates").value; };
    const auto oven = [&](Ledger ledger, Stage stage, double seconds) {
        out.buy(ledger, stage, "oven, hours", Kind::hours, seconds, 0, rate("oven") / 3600,
                "running cost, energy with it");
    };
    if (shell.cure_temperature > room + kWarm) {
        const double ramps = 2 * (shell.cure_temperature - room) / rate("post-cure ramp") * 3600;
        const double whole = ramps + rate("post-cure hold") * 3600;
        oven(Ledger::once, Stage::heat, whole);
        auto& step = out.step(When::cure, Stage::heat,
                              "post-cure, free-standing, in steps to " +
                                  quantity(Kind::temperature, shell.cure_temperature) + ", " +
                                  quantity(Kind::duration, ramps) + " of it up and down",
                              {at_rate(shop, "loading the oven", 1)});
        step.wait = whole;
    }
    if (part_choices.how == LayUp::prepreg) oven(Ledger::each, Stage::part, part_resin.demould_time);
    return out;
}

}  // namespace jig::heat
