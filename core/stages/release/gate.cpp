#include "core/stages/release/gate.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace jig::release {
namespace {

/// No day is longer: the one on which the clock goes back.
constexpr double kLongestDay = 25 * 3600;
/// Clocks on the wall and in the program differ by as much, s.
constexpr double kSlack = 60;
/// Two coats that differ by less run the same way, rad.
constexpr double kSameWay = 0.35;

/// An angle between two ways without a front, 0 to π/2.
double between(double a, double b) {
    const double d = std::fmod(std::abs(a - b), kPi);
    return std::min(d, kPi - d);
}

std::string minutes(double seconds) {
    return quantity(Kind::duration, seconds);
}

/// When each was done: a day without a time ends where the next entry begins, and not after `until`.
std::vector<Event> in_time(std::vector<Event> events, double until, std::vector<std::string>& remarks) {
    std::erase_if(events, [&](const Event& e) {
        const bool later = e.when.timed ? e.when.at > until + kSlack : e.when.at - kLongestDay > until;
        if (later)
            remarks.push_back("An entry of " + moment_words(e.when.at, until) +
                              " lies ahead of this moment and is left out.");
        return later;
    });
    double next = until;
    for (std::size_t i = events.size(); i-- > 0;) {
        auto& when = events[i].when;
        if (!when.timed && when.at > next && when.at - kLongestDay <= next) when.at = next;
        next = std::min(next, when.at);
    }
    double last = 0;
    for (auto& e : events) {
        if (e.when.at < last - kSlack)
            remarks.push_back("An entry of " + moment_words(e.when.at, until) + " stands after one of " +
                              moment_words(last, until) + ": it is read as done later than that.");
        e.when.at = std::max(e.when.at, last);
        last = e.when.at;
    }
    return events;
}

/// One face on its way through the entries.
class Walk {
  public:
    Walk(const ReleaseSystem& system, FaceHistory history) : system_(system) {
        const bool kept = system.kind == ReleaseKind::semi_permanent ? history == FaceHistory::semi_permanent
                          : system.kind == ReleaseKind::wax || system.kind == ReleaseKind::wax_film
                              ? history == FaceHistory::waxed || history == FaceHistory::filmed
                              : false;
        begin(kept && !system.each_pull.empty());
        repaired_ = history == FaceHistory::repaired;
    }

    void take(const Event& e) {
        switch (e.kind) {
            case Event::Kind::coat:
                for (int k = 0; k < e.coats; ++k) coat(e, k == 0);
                break;
            case Event::Kind::pull:
                pull(e);
                break;
            case Event::Kind::repair:
                // What is coated now is the place; what all of the face was due for stays due.
                owed_ = owed_ || (out_.touch_up && done_ < run_.size());
                begin(false);
                repaired_ = true;
                break;
            case Event::Kind::strip:
                out_ = FaceState{};
                repaired_ = owed_ = false;
                begin(false);
                break;
        }
    }

    FaceState result(double now) {
        auto out = out_;
        out.done = static_cast<int>(done_);
        out.of = static_cast<int>(run_.size());
        out.next.assign(run_.begin() + static_cast<std::ptrdiff_t>(std::min(done_, run_.size())), run_.end());
        if (!one_way_.empty() && done_ >= run_.size()) {
            Step across{one_way_, 1, 1, 0, 0, ways_.empty() ? 0 : std::fmod(ways_.front() + kPi / 2, kPi), 0};
            out.next.push_back(across);
            out.faults.push_back("Every coat of " + one_way_ +
                                 " runs one way: what one stripe misses, all miss.");
        }
        if (!out.faults.empty())
            out.standing = Standing::wrong;
        else if (done_ >= run_.size())
            out.standing = now + kSlack < out.next_from ? Standing::curing : Standing::ready;
        else if (repaired_)
            out.standing = Standing::repaired;
        else if (done_ > 0)
            out.standing = Standing::coating;
        return out;
    }

  private:
    void begin(bool touch_up) {
        run_ = coats_of(touch_up ? system_.each_pull : system_.first_use, 0);
        done_ = 0;
        ways_.clear();
        one_way_.clear();
        out_.touch_up = touch_up;
        out_.next_until.reset();
        if (!touch_up) out_.standing = Standing::bare;
    }

    [[nodiscard]] bool knows(const std::string& product) const {
        const auto in = [&](const std::vector<ReleaseCoat>& coats) {
            return std::any_of(coats.begin(), coats.end(),
                               [&](const ReleaseCoat& c) { return c.product == product; });
        };
        return in(system_.first_use) || in(system_.each_pull);
    }

    [[nodiscard]] double turn_of(const std::string& product) const {
        for (const auto& c : system_.first_use) {
            if (c.product == product) return c.turn;
        }
        return 0;
    }

    void coat(const Event& e, bool first_of_entry) {
        if (!e.product.empty() && !knows(e.product)) {
            if (first_of_entry)
                out_.faults.push_back(e.product + " does not belong to " + system_.name +
                                      ": strip the face, wash and abrade it.");
            return;
        }
        const bool clocked = e.when.timed && e.coats == 1, comparable = clocked && last_clocked_;
        if (clocked && out_.next_until && done_ > 0 && done_ < run_.size() &&
            e.when.at > *out_.next_until + kSlack) {
            out_.remarks.push_back("The coat of " + run_[done_ - 1].product + " had dried past its window " +
                                   minutes(e.when.at - *out_.next_until) +
                                   " before the next: abraded, the run begins again.");
            const bool was_touch_up = out_.touch_up;
            begin(was_touch_up);
        }
        const bool complete = done_ >= run_.size();
        const auto& wanted = complete ? run_.back() : run_[done_];
        const bool more_of_last = !e.product.empty() && done_ > 0 && run_[done_ - 1].product == e.product &&
                                  wanted.product != e.product;
        if (!complete && !more_of_last && !e.product.empty() && e.product != wanted.product) {
            if (first_of_entry)
                out_.remarks.push_back(e.product + " came before its turn, coat " +
                                       std::to_string(wanted.coat) + " of " + wanted.product +
                                       " was next: it does not count.");
            return;
        }
        if (comparable && first_of_entry && done_ > 0 && e.when.at + kSlack < dry_at_) {
            out_.remarks.push_back("A coat of " + (e.product.empty() ? wanted.product : e.product) +
                                   " came " + minutes(dry_at_ - e.when.at) +
                                   " too early, on one that was wet: it does not count.");
            return;
        }
        const auto product = e.product.empty() ? wanted.product : e.product;
        if (product != last_product_) {
            // What lies under other coats cannot be put right any more.
            if (!one_way_.empty()) out_.remarks.push_back("Every coat of " + one_way_ + " ran one way.");
            one_way_.clear();
            ways_.clear();
        }
        last_product_ = product;
        if (e.way) {
            if (!one_way_.empty() && product == one_way_ && between(*e.way, ways_.front()) > kSameWay)
                one_way_.clear();
            ways_.push_back(*e.way);
        }
        if (!complete && !more_of_last) ++done_;
        const auto& step = run_[std::min(done_ == 0 ? 0 : done_ - 1, run_.size() - 1)];
        out_.unclocked = out_.unclocked || !clocked;
        last_clocked_ = clocked;
        dry_at_ = e.when.at + step.wait;
        out_.next_from = dry_at_;
        out_.next_until = step.latest > 0 ? std::optional(e.when.at + step.latest) : std::nullopt;
        if (done_ < run_.size()) {
            out_.standing = Standing::coating;
        } else {
            out_.next_from = e.when.at + std::max(step.wait, system_.final_cure);
            out_.next_until =
                system_.good_for > 0 ? std::optional(e.when.at + system_.good_for) : std::nullopt;
            if (!repaired_) out_.since_coat = 0;
            repaired_ = false;
            if (owed_) {
                owed_ = false;
                begin(true);
                out_.standing = Standing::worn;
                return;
            }
        }
        // The last of a product: has any of its coats run across the others?
        const bool last = done_ >= run_.size() || run_[done_].product != product;
        if (last && ways_.size() >= 2 && turn_of(product) > kSameWay &&
            std::all_of(ways_.begin(), ways_.end(),
                        [&](double w) { return between(w, ways_.front()) <= kSameWay; }))
            one_way_ = product;
    }

    void pull(const Event& e) {
        ++out_.pulls;
        ++out_.since_coat;
        if (done_ < run_.size()) return;  // pulled against the gate; what is missing stays missing
        const int interval = out_.pulls <= system_.season ? 1 : std::max(1, system_.pulls_per_touch_up);
        if (out_.since_coat >= interval) {
            begin(!system_.each_pull.empty());
            out_.standing = Standing::worn;
        }
        out_.next_from = e.when.at;
        out_.next_until.reset();
    }

    const ReleaseSystem& system_;
    FaceState out_;
    std::vector<Step> run_;
    std::size_t done_ = 0;
    std::vector<double> ways_;
    std::string one_way_, last_product_;
    double dry_at_ = 0;
    bool last_clocked_ = false, repaired_ = false, owed_ = false;
};

}  // namespace

FaceState state_after(const ReleaseSystem& system, FaceHistory history, const std::vector<Event>& events,
                      double until) {
    if (system.first_use.empty())
        throw InputError("release system", system.name + " has no coat of first use",
                         "give it one in the shop's list");
    std::vector<std::string> remarks;
    Walk walk(system, history);
    for (const auto& e : in_time(events, until, remarks)) walk.take(e);
    auto out = walk.result(until);
    out.remarks.insert(out.remarks.begin(), remarks.begin(), remarks.end());
    return out;
}

Gate gate_at(const ReleaseSystem& system, FaceHistory history, const std::vector<Event>& events, double now) {
    Gate out;
    out.state = state_after(system, history, events, now);
    const auto& s = out.state;
    out.reasons = s.faults;
    if (!s.next.empty()) {
        const auto& next = s.next.front();
        const auto left = s.next.size();
        const std::string what = s.standing == Standing::repaired ? "on the repaired place"
                                 : s.touch_up                     ? "of the touch-up"
                                                                  : "of the first use";
        out.reasons.push_back(fmt::format("{} {} {} to come, next {}.", left, left == 1 ? "coat" : "coats",
                                          what, next.product));
        if (s.done > 0 && s.next_from > now + kSlack)
            out.reasons.push_back("The next coat may come from " + moment_words(s.next_from, now) + ".");
        if (s.done > 0 && s.next_until)
            out.reasons.push_back((*s.next_until < now ? "The last coat has dried past its window since "
                                                       : "The next coat has to come by ") +
                                  moment_words(*s.next_until, now) +
                                  (*s.next_until < now ? ": abrade and begin again." : "."));
    } else if (s.faults.empty()) {
        out.earliest = s.next_from;
        out.latest = s.next_until;
        if (s.next_from > now + kSlack) {
            out.reasons.push_back("The last coat has cured at " + moment_words(s.next_from, now) + ".");
        } else if (s.next_until && *s.next_until < now - kSlack) {
            out.reasons.push_back("It has waited since " + moment_words(*s.next_until, now) +
                                  ": wipe it and lay one coat more.");
        } else {
            out.go = true;
        }
    }
    if (s.unclocked && !out.go && s.standing == Standing::curing)
        out.reasons.push_back(
            "A coat was noted without its time: it is taken as laid at the end of what is known.");
    return out;
}

std::string words_of(const FaceState& s) {
    switch (s.standing) {
        case Standing::bare:
            return "bare";
        case Standing::coating:
            return fmt::format("{} of {} coats on", s.done, s.of);
        case Standing::curing:
            return "curing";
        case Standing::ready:
            return "ready";
        case Standing::worn:
            return "touch-up due";
        case Standing::repaired:
            return s.done > 0 ? fmt::format("repaired, {} of {} coats on", s.done, s.of)
                              : "repaired, bare there";
        case Standing::wrong:
            return "wrong";
    }
    return {};
}

}  // namespace jig::release
