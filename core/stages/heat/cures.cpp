#include "core/stages/heat/cures.hpp"

#include <algorithm>
#include <cmath>

#include "core/stages/heat/standing.hpp"

namespace jig::heat {
namespace {

constexpr double kPatience = 48 * 3600.0;  ///< s that a hold waits for the slowest place
constexpr double kPartRamp = 20.0 / 3600;  ///< K/s up and down with a part in the tool, typical

/// How far a wall lies over its Tg once it has gelled, and when. Standing free it is held up by what had
/// gelled before: what gels meanwhile, between clamps, has only to follow.
std::pair<double, double> over_glass(const Wall& wall, const WallHistory& h, bool free) {
    double most = -1000, when = 0;
    for (const auto& place : h.places) {
        if (place.Tg.empty() || (free && !holds_shape(wall.layers[place.layer]))) continue;
        const auto gel =
            std::find_if(h.gels.begin(), h.gels.end(), [&](const auto& g) { return g.layer == place.layer; });
        if (gel == h.gels.end() || !gel->all) continue;
        for (std::size_t t = 0; t < h.times.size(); ++t) {
            if (h.times[t] < *gel->all || place.T[t] - place.Tg[t] <= most) continue;
            most = place.T[t] - place.Tg[t];
            when = h.times[t];
        }
    }
    return {most, when};
}

/// A cure's walls as the oven takes them: its holds wait for what reacts.
std::vector<InOven> in_oven(const CureWalls& cure) {
    std::vector<InOven> out;
    for (const auto& place : cure.walls) {
        std::vector<std::size_t> watched;
        for (std::size_t l = 0; l < place.wall.layers.size(); ++l) {
            if (place.wall.layers[l].resin) watched.push_back(l);
        }
        out.push_back({place.wall, std::move(watched), place.off});
    }
    return out;
}

/// What a programme does to a cure's walls.
CureRun gone_through(CureWalls cure, const std::vector<InOven>& all, std::vector<Leg> legs, double within,
                     Progress& progress) {
    auto& walls = cure.walls;
    CureRun out;
    out.of = cure.of;
    out.free = cure.free;
    out.legs = std::move(legs);
    auto together = run_programme(all, segments_of(out.legs, walls.front().wall.start, within),
                                  follows(cure.of), kPatience, progress);
    out.wall = std::move(walls.front().wall);
    out.cured = {std::move(together.air), std::move(together.histories.front()), together.waited};
    for (std::size_t i = 1; i < walls.size(); ++i) {
        walls[i].history = std::move(together.histories[i]);
        out.places.push_back(std::move(walls[i]));
    }
    if (together.slowest && *together.slowest > 0) out.slowest = out.places[*together.slowest - 1].name;
    out.seconds = out.cured.air.end();
    for (const auto& corner : out.cured.air.corners) out.highest_air = std::max(out.highest_air, corner.T);
    out.warmest_air = out.highest_air;
    const auto runs_past = [&](const WallHistory& h, double off) {
        const double air = out.hottest_air(off);
        out.warmest_air = std::max(out.warmest_air, air);
        for (const auto& gel : h.gels) out.overshoot = std::max(out.overshoot, gel.peak - air);
    };
    runs_past(out.cured.history, 0);
    for (const auto& p : out.places) runs_past(p.history, p.off);
    out.cure = 1;
    double hottest = 0;
    out.each([&](const std::string& name, const Wall&, const WallHistory& h) {
        for (const auto& gel : h.gels) {
            if (gel.Tg && (!out.Tg || *gel.Tg < *out.Tg)) out.Tg = gel.Tg;
            out.cure = std::min(out.cure, gel.cure);
        }
        if (h.peak > hottest + 0.05) {
            hottest = h.peak;
            out.hottest = name;
        }
    });
    const auto judge = [&](const std::string& name, const Wall& wall, const WallHistory& h) {
        const auto [over, when] = over_glass(wall, h, out.free);
        if (over <= out.over_Tg) return;
        out.over_Tg = over;
        out.over_time = when;
        out.over_where = name;
    };
    judge({}, out.wall, out.cured.history);
    for (const auto& p : out.places) {
        if (!out.free || may_sag(out.of, p.of)) judge(p.name, p.wall, p.history);
    }
    return out;
}

}  // namespace

CureRun run_of(CureWalls cure, std::vector<Leg> legs, bool usual, double within, Progress& progress) {
    const auto all = in_oven(cure);
    const double start = cure.walls.front().wall.start;
    auto out = gone_through(std::move(cure), all, std::move(legs), within, progress);
    out.usual = usual;
    const auto tried = [&](const std::vector<Leg>& with, bool waits) {
        return run_programme(all, segments_of(with, start, within), follows(out.of), waits ? kPatience : 0,
                             progress);
    };
    const auto all_gelled = [](const CuredTogether& c) {
        return std::all_of(c.histories.begin(), c.histories.end(), [](const WallHistory& h) {
            return std::all_of(h.gels.begin(), h.gels.end(),
                               [](const auto& gel) { return gel.all.has_value(); });
        });
    };
    double longest = 0;
    for (const auto& leg : out.legs) longest = std::max(longest, leg.hold);
    for (double times = 2; !out.gelled() && !out.longer && times <= 64 && longest * times <= kLongestHold;
         times *= 2) {
        auto held = out.legs;
        for (auto& leg : held) leg.hold *= times;
        if (all_gelled(tried(held, true))) out.longer = times;
    }
    // Standing free it must hold its own weight: slower, its Tg keeps ahead of the heat.
    if (!out.free || out.over_Tg <= -kStandingMargin) return out;
    const auto under = [&](double rate) {
        auto slower = out.legs;
        for (auto& leg : slower) leg.rate = std::min(leg.rate, rate);
        const auto went = tried(slower, false).histories;
        for (std::size_t w = 0; w < went.size(); ++w) {
            const auto place = w == 0 ? std::nullopt : out.places[w - 1].of;
            if (may_sag(out.of, place) && over_glass(all[w].wall, went[w], true).first > -kStandingMargin)
                return false;
        }
        return true;
    };
    double low = 0.5 / 3600, high = 0;
    for (const auto& leg : out.legs) high = std::max(high, leg.rate);
    if (high <= low || !under(low)) return out;
    for (int i = 0; i < 7; ++i) {
        const double middle = std::sqrt(low * high);
        (under(middle) ? low : high) = middle;
    }
    out.safe_rate = low;
    return out;
}

std::vector<Leg> legs_on_plug(const Conditions& c, const Resin& resin, const Lists<Rate>& shop) {
    // A prepreg has its heat on the plug; what is mixed gels in the room or where the maker says.
    const double wanted = resin.in_cloth ? resin.gel_temperature : c.shell_gel;
    return {{std::max(c.room, wanted), need(shop.rates, "post-cure ramp", "shop rates").value / 3600,
             resin.demould_time}};
}

std::vector<Leg> legs_of_part(const Conditions& c, double gels_at, const Resin& resin) {
    return {{std::max(c.room, gels_at), kPartRamp, resin.demould_time}};
}

OvenEnds ends_of(const Oven& oven, double room) {
    constexpr double kReadWarm = 10;  // K over the room, less of which says nothing of a hot oven
    OvenEnds out;
    if (oven.map.empty()) return out;
    const double by = oven.mapped_at - room;
    if (by < kReadWarm)
        throw InputError("heat",
                         "the oven's map was read at " + quantity(Kind::temperature, oven.mapped_at) +
                             ", hardly warmer than the room",
                         "say what it was set to while it was read, or read it hot");
    for (const auto& spot : oven.map) {
        out.cool = std::min(out.cool, spot.off / by);
        out.warm = std::max(out.warm, spot.off / by);
    }
    return out;
}

std::vector<Segment> segments_of(const std::vector<Leg>& legs, double room, double within) {
    std::vector<Segment> out;
    for (const auto& leg : legs) {
        out.push_back({false, leg.to, leg.rate, 0, {}});
        Segment hold;
        hold.hold = true;
        hold.seconds = leg.hold;
        hold.within = within;
        if (leg.hold > 0) out.push_back(hold);
    }
    // And back to the room, as fast as it last went.
    out.push_back({false, room, legs.empty() ? kPartRamp : legs.back().rate, 0, {}});
    return out;
}

CureRun through(const CureRun& run, std::vector<Leg> legs, double within, Progress& progress) {
    CureWalls cure{run.of, run.free, {{"", run.wall, {}, {}}}};
    for (const auto& p : run.places) cure.walls.push_back({p.name, p.wall, {}, p.of, p.off});
    const auto all = in_oven(cure);
    auto out = gone_through(std::move(cure), all, std::move(legs), within, progress);
    out.usual = false;
    return out;
}

bool CureRun::gelled() const {
    bool out = true;
    each([&](const std::string&, const Wall&, const WallHistory& h) {
        for (const auto& gel : h.gels) out = out && gel.all;
    });
    return out;
}

const CureRun* Cures::find(CureOf of) const {
    for (const auto& run : runs) {
        if (run.of == of) return &run;
    }
    return nullptr;
}

std::optional<double> CureRun::Tg_of(const std::string& layer) const {
    std::optional<double> out;
    each([&](const std::string&, const Wall& w, const WallHistory& h) {
        for (const auto& gel : h.gels) {
            if (w.layers[gel.layer].name == layer && gel.Tg && (!out || *gel.Tg < *out)) out = gel.Tg;
        }
    });
    return out;
}

}  // namespace jig::heat
