#include "core/stages/heat/sensors.hpp"

#include <algorithm>

#include "core/stages/heat/oven.hpp"

namespace jig::heat {
namespace {

/// One of a wall's three places a layer.
struct Spot {
    std::string name;  ///< of the wall
    const Wall* wall = nullptr;
    std::size_t place = 0;
    std::optional<std::size_t> of;
    double off = 0;  ///< of its air, see CurePlace
    [[nodiscard]] int end() const { return off < 0 ? -1 : off > 0 ? 1 : 0; }
};

/// "the doubler on the flange, middle of shell, laminate": what a hand finds.
std::string said_of(const Spot& spot, CureOf of) {
    const auto layer = spot.place / 3;
    const auto& layers = spot.wall->layers;
    const auto side = spot.place % 3;
    const bool first = layer == 0, last = layer + 1 == layers.size();
    const auto& name = layers[layer].name;
    std::string at;
    if (side == 1)
        at = "in the middle of " + name;
    else if (side == 0)
        at = first ? "on the bare face of " + name : "between " + layers[layer - 1].name + " and " + name;
    else
        at = last ? "on the " + std::string(of == CureOf::on_plug || lays_part(of) ? "bag side" : "back") +
                        " of " + name
                  : "between " + name + " and " + layers[layer + 1].name;
    return spot.name.empty() ? at : spot.name + ": " + at;
}

/// s until a place is within `within` K of the hottest air; none where it never is.
std::optional<double> near_at(const WallHistory& h, std::size_t place, double air, double within) {
    for (std::size_t t = 0; t < h.times.size(); ++t) {
        if (h.places[place].T[t] >= air - within) return h.times[t];
    }
    return {};
}

}  // namespace

std::vector<Sensor> sensors_of(const CureRun& run, const Choices& c) {
    std::optional<Spot> slowest, hottest;
    double latest = -1, peak = 0;
    const bool warmed = run.highest_air > c.room + c.within;
    const auto look = [&](const Spot& at, const WallHistory& h) {
        for (std::size_t p = 0; p < h.places.size(); ++p) {
            if (h.places[p].cure.empty()) continue;
            auto spot = at;
            spot.place = p;
            const double late = near_at(h, p, run.highest_air, c.within).value_or(1e18);
            if (warmed && late > latest) {
                latest = late;
                slowest = spot;
            }
            const double hot = *std::max_element(h.places[p].T.begin(), h.places[p].T.end());
            if (hot <= peak) continue;
            peak = hot;
            hottest = spot;
        }
    };
    look({"", &run.wall, 0, {}, 0}, run.cured.history);
    for (const auto& p : run.places) look({p.name, &p.wall, 0, p.of, p.off}, p.history);
    std::vector<Sensor> out;
    if (slowest)
        out.push_back({said_of(*slowest, run.of),
                       "the slowest: the hold's clock starts by it",
                       {},
                       slowest->of,
                       slowest->end()});
    if (hottest) {
        const auto alarm = run.hottest_air(hottest->off) + c.runs_past;
        const auto where = said_of(*hottest, run.of);
        if (!out.empty() && out.front().where == where) {
            out.front().for_what = "the slowest and the hottest: the hold starts by it, its alarm is set";
            out.front().alarm = alarm;
        } else {
            out.push_back({where, "the hottest: its alarm is set", alarm, hottest->of, hottest->end()});
        }
    }
    if (warmed && !out.empty()) {
        const auto at = [&](const OvenSpot* spot) {
            return spot == nullptr ? std::string() : ", " + said_of(*spot);
        };
        out.push_back({"the air at the oven's cool end" + at(coolest(c.oven)),
                       "what the slowest lags behind",
                       {},
                       {},
                       -1,
                       true});
        out.push_back({"the air at the oven's warm end" + at(warmest(c.oven)),
                       "that the oven keeps to its programme",
                       run.warmest_air + c.within,
                       {},
                       1,
                       true});
    }
    return out;
}

std::vector<PlaceSum> places_of(const CureRun& run, double within) {
    std::vector<PlaceSum> out;
    run.each([&](const std::string& name, const Wall&, const WallHistory& h) {
        PlaceSum sum;
        sum.name = name;
        sum.peak = h.peak;
        sum.near = 0;
        for (std::size_t p = 0; p < h.places.size(); ++p) {
            if (h.places[p].cure.empty()) continue;
            const auto when = near_at(h, p, run.highest_air, within);
            sum.near = when && sum.near ? std::optional(std::max(*when, *sum.near)) : std::nullopt;
        }
        sum.gels = 0;
        sum.cure = 1;
        for (const auto& gel : h.gels) {
            sum.gels = gel.all && sum.gels ? std::optional(std::max(*gel.all, *sum.gels)) : std::nullopt;
            sum.cure = std::min(sum.cure, gel.cure);
            if (gel.Tg && (!sum.Tg || *gel.Tg < *sum.Tg)) sum.Tg = gel.Tg;
        }
        out.push_back(std::move(sum));
    });
    return out;
}

}  // namespace jig::heat
