#include "core/stages/heat/sensors.hpp"

#include <algorithm>

namespace jig::heat {
namespace {

/// One of a wall's three places a layer.
struct Spot {
    std::string name;  ///< of the wall
    const Wall* wall = nullptr;
    std::size_t place = 0;
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
        at = last ? "on the " + std::string(of == CureOf::post_cure ? "back" : "bag side") + " of " + name
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
    run.each([&](const std::string& name, const Wall& wall, const WallHistory& h) {
        for (std::size_t p = 0; p < h.places.size(); ++p) {
            if (h.places[p].cure.empty()) continue;
            const auto when = near_at(h, p, run.highest_air, c.within);
            const double late = when.value_or(1e18);
            if (warmed && late > latest) {
                latest = late;
                slowest = Spot{name, &wall, p};
            }
            const double hot = *std::max_element(h.places[p].T.begin(), h.places[p].T.end());
            if (hot <= peak) continue;
            peak = hot;
            hottest = Spot{name, &wall, p};
        }
    });
    std::vector<Sensor> out;
    const auto alarm = run.highest_air + c.runs_past;
    if (slowest) out.push_back({said_of(*slowest, run.of), "the slowest: the hold's clock starts by it", {}});
    if (hottest) {
        const auto where = said_of(*hottest, run.of);
        if (!out.empty() && out.front().where == where) {
            out.front().for_what = "the slowest and the hottest: the hold starts by it, its alarm is set";
            out.front().alarm = alarm;
        } else {
            out.push_back({where, "the hottest: its alarm is set", alarm});
        }
    }
    if (warmed && !out.empty()) {
        out.push_back({"the air at the oven's cool end", "what the slowest lags behind", {}});
        out.push_back({"the air at the oven's warm end", "that the oven keeps to its programme",
                       run.highest_air + c.within});
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
