#include "core/stages/heat/fastest.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/base/parallel.hpp"
#include "core/stages/heat/standing.hpp"

namespace jig::heat {
namespace {

constexpr double kStep = 5;       ///< K between heats that are tried
constexpr double kRounded = 300;  ///< s that a hold is rounded up to
constexpr int kSearchCells = 25;  ///< of the wall: enough to tell programmes apart, checked in full after
constexpr double kSearchWithin = 0.05;  ///< K

double rounded_up(double seconds) {
    return std::max(kRounded, std::ceil(seconds / kRounded - 1e-9) * kRounded);
}

/// How a programme went whose last hold is open.
enum class Went { well, unfinished, too_hot, over_glass };

class Search {
  public:
    Search(const CureRun& run, const CureBounds& bounds, double longest, Progress& progress)
        : run_(run), b_(bounds), room_(run.wall.start), best_(longest), progress_(progress) {}

    Fastest found() {
        list_heats();
        one_leg();
        two_legs();
        Fastest out;
        out.run = confirmed();
        out.tried = tried_;
        if (!out.run) out.stands = what_stands();
        return out;
    }

  private:
    struct Candidate {
        std::vector<Leg> legs;
        double seconds = 0;
    };

    void list_heats() {
        const int steps = static_cast<int>(std::ceil((b_.air - room_ - 2) / kStep));
        for (int i = 0; i < steps; ++i) heats_.push_back(b_.air - i * kStep);
        heats_.push_back(room_);
        // Where its Tg has to keep ahead, an oven may have to creep.
        const int slower = b_.under_glass ? 7 : 4;
        for (int i = 0; i < slower; ++i) rates_.push_back(b_.climbs / std::pow(2.0, i));
    }

    void one_leg() {
        for (std::size_t i = 0; i < heats_.size(); ++i) {
            progress_.report(0.4 * static_cast<double>(i) / static_cast<double>(heats_.size()),
                             "trying one leg");
            bool hot = false;
            for (const double rate : rates_) {
                const auto went = attempt({{heats_[i], rate, 0}});
                hot = hot || went == Went::too_hot || went == Went::over_glass;
                // Slower is only worth it where faster did harm.
                if (went == Went::well || went == Went::unfinished) break;
                if (heats_[i] <= room_) break;
            }
            if (hot) harms_.push_back(heats_[i]);
        }
    }

    /// First cooler, until it has gelled or its Tg has gone ahead.
    void two_legs() {
        const auto rates = b_.under_glass ? 3 : 2;
        std::size_t done = 0;
        for (const double to : harms_) {
            progress_.report(0.4 + 0.5 * static_cast<double>(done++) / static_cast<double>(harms_.size()),
                             "trying two legs");
            const int cooler = static_cast<int>(std::floor((to - room_) / (2 * kStep) + 1e-9));
            for (int i = 1; i <= cooler; ++i) {
                const double first = to - 2 * i * kStep;
                for (int r = 0; r < rates; ++r) {
                    const double rate = rates_[static_cast<std::size_t>(r)];
                    bool enough = false;
                    for (double stay = 3600; stay <= 16 * 3600 && !enough; stay *= 2)
                        enough = attempt({{first, rate, stay}, {to, rate, 0}}) == Went::well;
                    if (enough) break;
                }
            }
        }
    }

    /// Runs `legs` with the last hold open; keeps them where they are over sooner than what is known.
    Went attempt(std::vector<Leg> legs) {
        Course air = steady(room_);
        double start = 0;
        for (auto& leg : legs) {
            const auto last = air.corners.back();
            start = last.time + std::abs(leg.to - last.T) / leg.rate;
            if (leg.to != last.T) air.corners.push_back({start, leg.to});
            if (&leg != &legs.back()) air.corners.push_back({start + leg.hold, leg.to});
        }
        const double cooling = (legs.back().to - room_) / legs.back().rate, end = best_ - cooling;
        if (start + kRounded >= end) return Went::unfinished;
        air.corners.push_back({end, legs.back().to});
        ++tried_;
        // Closely at first: most holds are a small part of what they might be.
        constexpr int kOnTheWay = 60, kHolding = 160;
        std::vector<double> at;
        for (int i = 0; i < kOnTheWay; ++i) at.push_back(start * i / kOnTheWay);
        const double span = end - start, least = std::min(60.0, span / 2);
        for (int i = 0; i <= kHolding; ++i)
            at.push_back(start + least * std::pow(span / least, static_cast<double>(i) / kHolding));
        const auto h = warmed(air, at);
        auto [went, when] = judged(h, air, start);
        ++how_[static_cast<std::size_t>(went)];
        if (went != Went::well) return went;
        when = reached_between(h, air, start, when);
        // A hold's clock runs from when the slowest place is near.
        double from = 0;
        for (std::size_t i = 0; i < legs.size(); ++i) {
            auto& leg = legs[i];
            from += std::abs(leg.to - (i > 0 ? legs[i - 1].to : room_)) / leg.rate;
            const double until = i + 1 < legs.size() ? from + leg.hold : when,
                         near = near_from(h, from, until, leg.to);
            leg.hold = rounded_up(until - near);
            from = until;
        }
        const double seconds = when + cooling;
        known_.push_back({std::move(legs), seconds});
        best_ = std::min(best_, seconds);
        return Went::well;
    }

    /// By which share that wall's air warms more than the programme.
    [[nodiscard]] double off(std::size_t wall) const { return wall == 0 ? 0 : run_.places[wall - 1].off; }

    [[nodiscard]] const Wall& wall(std::size_t w) const {
        return w == 0 ? run_.wall : run_.places[w - 1].wall;
    }

    /// What every wall does, each at the same times.
    [[nodiscard]] std::vector<WallHistory> warmed(const Course& air, std::vector<double> at) {
        WallRules rules;
        rules.end = at.back();
        rules.at = std::move(at);
        rules.cells = kSearchCells;
        rules.tolerance = kSearchWithin;
        std::vector<Wall> walls{run_.wall};
        for (const auto& p : run_.places) walls.push_back(p.wall);
        const auto follow = follows(run_.of);
        std::vector<WallHistory> out(walls.size());
        parallel_shares(walls.size(), 1, [&](std::size_t from, std::size_t to, unsigned) {
            for (auto w = from; w < to; ++w) {
                for (std::size_t i = 0; i < 2; ++i) {
                    if (follow[i]) walls[w].sides[i].air = warmed_more(air, off(w), room_);
                }
                out[w] = warm(walls[w], rules, progress_);
            }
        });
        return out;
    }

    /// The moment more closely: it lies between a time that was asked for and the one before.
    [[nodiscard]] double reached_between(const std::vector<WallHistory>& all, const Course& air, double start,
                                         double when) {
        const auto& times = all.front().times;
        const auto found = std::find(times.begin(), times.end(), when);
        const double before = found == times.begin() ? 0 : *(found - 1);
        if (when - before <= kRounded / 2) return when;
        std::vector<double> at;
        constexpr int kParts = 24;
        for (int i = 0; i <= kParts; ++i) at.push_back(before + (when - before) * i / kParts);
        const auto [went, closer] = judged(warmed(air, std::move(at)), air, start);
        return went == Went::well ? closer : when;
    }

    /// s at which all that reacts has come near `T`, between two moments.
    [[nodiscard]] double near_from(const std::vector<WallHistory>& all, double from, double until,
                                   double T) const {
        const auto& times = all.front().times;
        for (std::size_t t = 0; t < times.size(); ++t) {
            if (times[t] < from || times[t] > until) continue;
            bool near = true;
            for (const auto& h : all) {
                for (const auto& p : h.places) near = near && (p.cure.empty() || T - p.T[t] <= b_.within);
            }
            if (near) return times[t];
        }
        return until;
    }

    /// When all is reached, and whether nothing was harmed until then.
    [[nodiscard]] std::pair<Went, double> judged(const std::vector<WallHistory>& all, const Course& air,
                                                 double from) const {
        double hottest = room_;
        for (const auto& corner : air.corners) hottest = std::max(hottest, corner.T);
        const auto& times = all.front().times;
        for (std::size_t t = 0; t < times.size(); ++t) {
            bool reached = times[t] >= from;
            for (std::size_t w = 0; w < all.size(); ++w) {
                const auto went = judged_at(w, all[w], t, hottest + off(w) * (hottest - room_));
                if (went == Went::too_hot || went == Went::over_glass) return {went, times[t]};
                reached = reached && went == Went::well;
            }
            if (reached) return {Went::well, times[t]};
        }
        return {Went::unfinished, times.empty() ? 0 : times.back()};
    }

    /// One wall at one of its times, in air of its own of `hottest` K at most.
    [[nodiscard]] Went judged_at(std::size_t w, const WallHistory& h, std::size_t t, double hottest) const {
        const auto gelled = [&](std::size_t layer) {
            for (const auto& g : h.gels) {
                if (g.layer == layer) return g.all && *g.all <= h.times[t];
            }
            return false;
        };
        const bool sags = may_sag(run_.of, w == 0 ? std::nullopt : run_.places[w - 1].of);
        bool reached = true;
        for (const auto& p : h.places) {
            if (lies_on_plug(run_.of) && p.layer == 0 && p.T[t] > b_.plug) return Went::too_hot;
            if (p.cure.empty()) continue;
            if (p.T[t] > hottest + b_.overshoot) return Went::too_hot;
            const bool set = gelled(p.layer);
            if (b_.under_glass && set && sags && holds_shape(wall(w).layers[p.layer]) && !p.Tg.empty() &&
                p.T[t] > p.Tg[t] - *b_.under_glass)
                return Went::over_glass;
            reached = reached && set && p.cure[t] >= b_.cure && (!b_.Tg || p.Tg.empty() || p.Tg[t] >= *b_.Tg);
        }
        return reached ? Went::well : Went::unfinished;
    }

    [[nodiscard]] bool keeps(const CureRun& r) const {
        bool gelled = true;
        double plug = 0;
        r.each([&](const std::string&, const Wall&, const WallHistory& h) {
            for (const auto& g : h.gels) gelled = gelled && g.all.has_value();
            if (lies_on_plug(r.of)) plug = std::max(plug, h.hottest.front().T);
        });
        return gelled && r.cured.waited && r.cure >= b_.cure - 1e-3 &&
               (!b_.Tg || !r.Tg || *r.Tg >= *b_.Tg - 0.1) && r.overshoot <= b_.overshoot + 0.2 &&
               plug <= b_.plug + 0.2 && (!b_.under_glass || r.over_Tg <= -*b_.under_glass + 0.2);
    }

    /// The soonest that also keeps the bounds when it is worked out in full.
    std::optional<CureRun> confirmed() {
        std::stable_sort(known_.begin(), known_.end(),
                         [](const Candidate& a, const Candidate& b) { return a.seconds < b.seconds; });
        constexpr std::size_t kChecked = 10, kEnough = 3;
        std::optional<CureRun> out;
        std::size_t kept = 0;
        for (std::size_t i = 0; i < std::min(kChecked, known_.size()) && kept < kEnough; ++i) {
            progress_.report(0.9 + 0.1 * static_cast<double>(i) / kChecked, "checking the soonest in full");
            auto run = shortest(known_[i].legs);
            if (!run) continue;
            ++kept;
            if (!out || run->seconds < out->seconds) out = std::move(run);
        }
        return out;
    }

    /// The last hold as short as may be: it goes on curing while it cools, and needs that less.
    [[nodiscard]] std::optional<CureRun> shortest(std::vector<Leg> legs) {
        const auto with = [&](double hold) -> std::optional<CureRun> {
            legs.back().hold = hold;
            auto run = through(run_, legs, b_.within, progress_);
            return keeps(run) ? std::optional(std::move(run)) : std::nullopt;
        };
        double long_enough = legs.back().hold, too_short = 0;
        auto out = with(long_enough);
        for (int longer = 0; longer < 3 && !out; ++longer) {
            too_short = long_enough;
            out = with(long_enough = rounded_up(1.08 * long_enough));
        }
        while (out && long_enough - too_short > kRounded * 1.01) {
            const double middle = rounded_up((long_enough + too_short) / 2);
            if (middle >= long_enough) break;
            auto run = with(middle);
            (run ? long_enough : too_short) = middle;
            if (run) out = std::move(run);
        }
        return out;
    }

    [[nodiscard]] std::string what_stands() const {
        const auto of = [&](Went w) { return how_[static_cast<std::size_t>(w)]; };
        const std::string hot = of(Went::over_glass) > of(Went::too_hot)
                                    ? "come too near their Tg on the way, at every rate that was tried"
                                    : "run too hot on the way";
        if (of(Went::unfinished) == 0) return "all heats that cure it " + hot;
        const std::string up_to = "up to " + quantity(Kind::temperature, b_.air) + " (" + b_.air_by + ")";
        if (of(Went::too_hot) + of(Went::over_glass) == 0)
            return "no heat " + up_to + " cures it far enough in time";
        return "of heats " + up_to + " some do not cure it far enough in time, and others " + hot;
    }

    const CureRun& run_;
    const CureBounds& b_;
    double room_, best_;
    Progress& progress_;
    std::vector<double> heats_, rates_, harms_;
    std::vector<Candidate> known_;
    std::array<int, 4> how_{};
    int tried_ = 0;
};

}  // namespace

Fastest fastest(const CureRun& run, const CureBounds& bounds, double longest, Progress& progress) {
    return Search(run, bounds, longest, progress).found();
}

}  // namespace jig::heat
