// The order in which a shell is laid up: corners first, light to heavy, pots of resin, breaks.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/stages/pots.hpp"
#include "core/stages/shell/lay_order.hpp"

namespace jig::shell {

void order_laying(const Choices& c, const brief::Crew& brief, const Library& shop, Findings& f) {
    const double people = std::max(1, brief.people);
    // Neither is wetted as it is laid.
    const bool prepreg = c.how == LayUp::prepreg, infused = c.how == LayUp::infused;
    double clock = 0;
    int plies = 0;
    Pots pots(f.working.pot, c.batch);
    const auto work = [&](const char* rate, double amount) {
        return shop.rate(rate) * amount * 3600 / people;
    };
    const auto add = [&](LayStep::Kind kind, std::string what, double seconds, double resin,
                         std::string note = {}) {
        LayStep step{kind, std::move(what), clock, resin, 0, 0, std::move(note)};
        // What is left of one ply's pot goes onto the next, as long as it is fresh.
        if (resin > 0 && !prepreg && kind != LayStep::Kind::fill)
            step.batches = pots.lay(resin, seconds);
        else
            pots.wait(seconds);
        f.batches = pots.count();
        clock += seconds;
        f.order.push_back(std::move(step));
        return &f.order.back();
    };
    double dry = 0;  // kg of resin for what is laid and not filled
    const auto fill_it = [&] {
        if (infused && dry > 0)
            add(LayStep::Kind::fill, "bag it, draw it down, let the resin in", work("setting up bag", 1), dry,
                "hoses, opening times and pots: see Bag");
        dry = 0;
    };
    const auto end_day = [&](bool wanted) {
        fill_it();
        const double night = std::max(0.0, 86400 - brief.shift);
        pots.wait(night);
        add(LayStep::Kind::day_end, "stop for the day, peel ply on", 0, 0,
            wanted ? std::string("you have it harden before the next")
                   : "more than " + quantity(Kind::thickness, f.go.most) + " at once: " + f.go.why);
        if (night > f.resin.recoat_window)
            add(LayStep::Kind::abrade, "abrade before going on", work("sanding structural", f.area) / 4, 0,
                "the resin's recoat window of " + quantity(Kind::duration, f.resin.recoat_window) +
                    " is over by then");
        clock = 0;
    };
    const double shape_area = f.area;
    bool filled = f.corners.length < kWorthFilling;
    for (std::size_t i = 0; i < c.layers.size(); ++i) {
        const auto& layer = c.layers[i];
        const auto& laid = f.stack.laid[i];
        const double resin = laid.resin * shape_area * (1 + c.waste);
        if (layer.kind == LayerKind::surface_coat) {
            const auto& coat = need(shop.surface_coats, layer.material, "shell");
            for (int p = 1; p <= coat.passes; ++p) {
                add(LayStep::Kind::coat, fmt::format("{}, pass {} of {}", coat.name, p, coat.passes),
                    work("coating", shape_area), 0,
                    "the next goes on when this one is tacky: within " +
                        quantity(Kind::duration, coat.window) + " after " +
                        quantity(Kind::duration, coat.between_passes));
                clock += coat.between_passes;
                pots.wait(coat.between_passes);
            }
            continue;
        }
        if (!filled) {
            filled = true;
            add(LayStep::Kind::filler,
                "fill the corners with " + quantity(Kind::volume, f.corners.filler) + " of thickened resin",
                shop.hours("filling corners", f.corners.length) * 3600 / people, f.corners.filler * 1150);
        }
        if (layer.kind == LayerKind::coupling) {
            // Brushed on, whatever fills the rest.
            add(LayStep::Kind::coat, "coupling coat on the tacky surface coat", work("coating", shape_area),
                resin);
            continue;
        }
        if (infused) dry += resin;
        const bool core = layer.kind == LayerKind::core;
        const double seconds = work(core ? "laying core" : "laying ply", shape_area);
        if (!core && !infused) f.slowest_ply = std::max(f.slowest_ply, seconds);
        auto* step = add(core ? LayStep::Kind::core : LayStep::Kind::ply,
                         core ? laid.name : fmt::format("{} at {:.0f}°", laid.name, layer.angle * 180 / kPi),
                         seconds, infused ? 0 : resin);
        if (!core) {
            const auto* cloth = find(shop.reinforcements, layer.material);
            const double roll = cloth != nullptr ? cloth->roll_width : 1.2;
            // Overlaps walk across the roll, so that none comes to lie on the one below.
            step->offset = std::fmod(plies * c.stagger, std::max(c.stagger, roll / 2));
            ++plies;
        }
        if (prepreg && !core && plies % c.debulk == 0 && i + 1 < c.layers.size())
            add(LayStep::Kind::debulk, "debulk under a bag", work("debulk", 1), 0);
        if (std::find(f.day_ends.begin(), f.day_ends.end(), i) != f.day_ends.end())
            end_day(ends_go(c.layers, i));
    }
    // Doublers go on last, those that the last day cannot take on days of their own.
    for (std::size_t more = 0;; ++more) {
        bool any = false, later = false;
        double seconds = 0, resin = 0;
        std::string what;
        for (const auto& z : f.zones) {
            const auto from = more == 0 ? 0 : more <= z.days.size() ? z.days[more - 1] : z.extra.laid.size();
            const auto to = more < z.days.size() ? z.days[more] : z.extra.laid.size();
            later = later || more < z.days.size();
            if (from >= to) continue;
            any = true;
            for (auto i = from; i < to; ++i) resin += z.extra.laid[i].resin * z.area * (1 + c.waste);
            seconds += work("laying ply", z.area * static_cast<double>(to - from));
            what += fmt::format("{}{} {} {}", what.empty() ? "doublers: " : ", ", to - from,
                                to - from == 1 ? "ply" : "plies", z.name);
        }
        if (infused) dry += resin;
        if (any) add(LayStep::Kind::ply, what, seconds, infused ? 0 : resin);
        if (!later) break;
        end_day(false);
    }
    fill_it();
}

}  // namespace jig::shell
