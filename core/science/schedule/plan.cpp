#include "core/science/schedule/plan.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cmath>

#include "core/base/error.hpp"

namespace jig {
namespace {

/// Times nearer than this are one, s.
constexpr double kSame = 1e-6;
/// Bytes that the search may hold.
constexpr std::size_t kMostHeld = 400'000'000;
/// Tasks past which a list's order is not kept link by link.
constexpr std::size_t kMostOrdered = 200;
/// Times the search's seconds that a first plan may take beyond them.
constexpr double kPatience = 20;
constexpr double kMostSlack = 366 * 86400.0;

struct Link {
    std::size_t before = 0, after = 0;
    double least = 0;
    std::optional<double> most;
};

class Search {
  public:
    Search(const PlanRequest& request, Progress& progress)
        : in_(request),
          progress_(progress),
          calendar_(request.calendar, request.start),
          n_(request.tasks.size()),
          until_(std::chrono::steady_clock::now() +
                 std::chrono::duration_cast<std::chrono::steady_clock::duration>(
                     std::chrono::duration<double>(request.seconds))) {
        for (std::size_t j = 0; j < n_; ++j) {
            for (const auto& l : in_.tasks[j].after) {
                const double wait = in_.tasks[l.task].wait;
                given_.push_back(
                    {l.task, j, l.least + wait, l.most ? std::optional(*l.most + wait) : std::nullopt});
            }
        }
        check();
        double work = 0, waits = 0;
        for (const auto& t : in_.tasks) {
            work += t.work;
            waits += t.wait;
        }
        for (const auto& l : given_) waits += std::max(0.0, l.least) + l.most.value_or(0);
        // Everything after everything else, and the longest pause before each.
        horizon_ = calendar_.after_work(in_.start, work) + waits + work +
                   static_cast<double>(n_ + 4) * 7 * 86400.0 +
                   static_cast<double>(request.calendar.holidays.size()) * 86400;
    }

    Plan run() {
        std::vector<double> start(n_, in_.start);
        auto links = given_;
        if (!settle(links, start)) {
            throw InputError("tasks", "their waits can never all be kept: " + stuck(),
                             "widen a max_s, or let the work break off");
        }
        Plan out;
        bound_ = bound(start);
        out.bound = bound_;
        by_list(start);
        most_deep_ = std::clamp<std::size_t>(kMostHeld / (sizeof(double) * 2 * n_), 100, 20000);
        links_ = links;
        branch(start, 0);
        if (!best_) {
            throw InputError("tasks",
                             out_of_time_ ? "no plan was found in the time given" : "no plan keeps all waits",
                             out_of_time_ ? "give it more seconds" : "widen a max_s, or add to a resource");
        }
        out.looked_at = nodes_;
        for (std::size_t i = 0; i < n_; ++i) out.tasks.push_back({(*best_)[i], end(i, (*best_)[i]), {}});
        out.finish = finish(*best_);
        out.proved = (!out_of_time_ && !cut_ && !mixed()) || out.finish <= bound_ + kSame;
        if (out.proved) out.bound = out.finish;
        // As long again for what each may slip by, and no longer.
        const auto looked = std::chrono::steady_clock::now();
        for (std::size_t i = 0; i < n_; ++i) {
            if (std::chrono::duration<double>(std::chrono::steady_clock::now() - looked).count() >
                in_.seconds)
                break;
            out.tasks[i].slack = slack(i, out.finish);
        }
        return out;
    }

  private:
    void check() const {
        for (std::size_t i = 0; i < n_; ++i) {
            const auto& t = in_.tasks[i];
            const auto where = fmt::format("tasks[{}]", i);
            for (const auto& [name, count] : t.needs) {
                const auto has = in_.resources.find(name);
                if (has == in_.resources.end())
                    throw InputError(where, "\"" + name + "\" is no resource", "name it among the resources");
                if (count > has->second)
                    throw InputError(
                        where,
                        fmt::format("it needs {} of \"{}\" and there are {}", count, name, has->second),
                        "ask for fewer, or have more");
            }
            if (!t.any_time && !t.breakable && t.work > calendar_.longest() + kSame)
                throw InputError(where,
                                 fmt::format("its {:g} s fit into no shift and may not break off", t.work),
                                 "let it be breakable or any_time, or lengthen a shift");
        }
        // Whoever waits for himself, over however many others.
        std::vector<int> state(n_, 0);
        const auto visit = [&](auto&& self, std::size_t i) -> void {
            state[i] = 1;
            for (const auto& l : in_.tasks[i].after) {
                if (state[l.task] == 1)
                    throw InputError(fmt::format("tasks[{}]", i),
                                     "\"" + in_.tasks[i].name + "\" and \"" + in_.tasks[l.task].name +
                                         "\" wait for each other",
                                     "take one of the waits away");
                if (state[l.task] == 0) self(self, l.task);
            }
            state[i] = 2;
        };
        for (std::size_t i = 0; i < n_; ++i) {
            if (state[i] == 0) visit(visit, i);
        }
    }

    [[nodiscard]] double begin(std::size_t i, double t) const {
        const auto& task = in_.tasks[i];
        if (task.any_time || task.work <= 0) return t;
        return task.breakable ? calendar_.open_from(t) : calendar_.room_from(t, task.work);
    }
    [[nodiscard]] double end(std::size_t i, double start) const {
        const auto& task = in_.tasks[i];
        return task.any_time || !task.breakable ? start + task.work : calendar_.after_work(start, task.work);
    }
    /// The earliest start from which it is not done before `t`.
    [[nodiscard]] double begin_to_end(std::size_t i, double t) const {
        const auto& task = in_.tasks[i];
        if (task.any_time || task.work <= 0 || !task.breakable) return begin(i, t - task.work);
        double start = calendar_.open_from(calendar_.before_work(t, task.work));
        // What would be done as the shop closes leaves its last second for when it opens again.
        if (end(i, start) < t - kSame) start = calendar_.open_from(start + 1);
        return start;
    }

    /// Every start as early as it can be; false where that never ends.
    bool settle(const std::vector<Link>& links, std::vector<double>& start) {
        for (std::size_t i = 0; i < n_; ++i) start[i] = begin(i, start[i]);
        for (bool changed = true; changed;) {
            changed = false;
            for (const auto& l : links) {
                const double done = end(l.before, start[l.before]), soonest = done + l.least;
                if (start[l.after] < soonest - kSame) {
                    start[l.after] = begin(l.after, soonest);
                    changed = true;
                }
                if (l.most && start[l.after] > done + *l.most + kSame) {
                    const double later = begin_to_end(l.before, start[l.after] - *l.most);
                    if (later <= start[l.before] + kSame) {
                        worst_ = l;
                        return false;
                    }
                    start[l.before] = later;
                    changed = true;
                }
                if (start[l.after] > horizon_ || start[l.before] > horizon_) {
                    worst_ = l;
                    return false;
                }
            }
        }
        return true;
    }
    /// Whether one task comes before another by some chain of waits.
    [[nodiscard]] bool leads(const std::vector<Link>& links, std::size_t from, std::size_t to) const {
        std::vector<char> seen(n_, 0);
        std::vector<std::size_t> queue{from};
        seen[from] = 1;
        for (std::size_t k = 0; k < queue.size(); ++k) {
            if (queue[k] == to) return true;
            for (const auto& l : links) {
                if (l.before != queue[k] || seen[l.after] != 0) continue;
                seen[l.after] = 1;
                queue.push_back(l.after);
            }
        }
        return false;
    }
    [[nodiscard]] std::string stuck() const {
        return "\"" + in_.tasks[worst_.after].name + "\" after \"" + in_.tasks[worst_.before].name + "\"";
    }

    [[nodiscard]] double finish(const std::vector<double>& start) const {
        double out = in_.start;
        for (std::size_t i = 0; i < n_; ++i) out = std::max(out, end(i, start[i]) + in_.tasks[i].wait);
        return out;
    }

    /// No sooner than each resource has had the time for what wants it, nothing of which begins before
    /// `start`.
    [[nodiscard]] double bound(const std::vector<double>& start) const {
        double out = finish(start);
        for (const auto& [name, count] : in_.resources) {
            std::vector<std::size_t> users;
            bool by_day = true;
            for (std::size_t i = 0; i < n_; ++i) {
                const auto needs = in_.tasks[i].needs.find(name);
                if (needs == in_.tasks[i].needs.end() || needs->second <= 0) continue;
                users.push_back(i);
                by_day = by_day && !in_.tasks[i].any_time;
            }
            std::sort(users.begin(), users.end(), [&](auto a, auto b) { return start[a] > start[b]; });
            // Of what begins last, then of ever more: all of it fits in after the first of it begins, and the
            // least wait behind it is still to come.
            double load = 0, wait = 1e300;
            for (const auto i : users) {
                load += in_.tasks[i].work * in_.tasks[i].needs.at(name) / count;
                wait = std::min(wait, in_.tasks[i].wait);
                out = std::max(out, (by_day ? calendar_.after_work(start[i], load) : start[i] + load) + wait);
            }
        }
        return out;
    }

    /// Whether what pauses and what runs on at night want one thing: then who is first is not all there is.
    [[nodiscard]] bool mixed() const {
        for (const auto& [name, count] : in_.resources) {
            bool pauses = false, runs = false;
            for (const auto& t : in_.tasks) {
                if (!t.needs.contains(name)) continue;
                pauses = pauses || (!t.any_time && t.breakable);
                runs = runs || t.any_time;
            }
            if (pauses && runs) return true;
        }
        return false;
    }

    /// Tasks that together want too much of something at one moment, the earliest such; few of them.
    [[nodiscard]] std::vector<std::size_t> conflict(const std::vector<double>& start) const {
        std::vector<std::size_t> order(n_);
        for (std::size_t i = 0; i < n_; ++i) order[i] = i;
        std::sort(order.begin(), order.end(), [&](auto a, auto b) { return start[a] < start[b]; });
        std::vector<std::size_t> out;
        double when = 1e300;
        for (const auto& resource : in_.resources) {
            const auto& name = resource.first;
            const int count = resource.second;
            std::vector<std::size_t> busy;
            for (const auto i : order) {
                if (start[i] >= when) break;
                const auto& task = in_.tasks[i];
                if (!task.needs.contains(name) || task.needs.at(name) <= 0 || task.work <= 0) continue;
                std::erase_if(busy, [&](std::size_t b) { return end(b, start[b]) <= start[i] + kSame; });
                busy.push_back(i);
                int sum = 0;
                for (const auto b : busy) sum += in_.tasks[b].needs.at(name);
                if (sum <= count) continue;
                // Only as many as it takes, the greediest first, and the one that comes last.
                std::sort(busy.begin(), busy.end() - 1, [&](std::size_t a, std::size_t b) {
                    return in_.tasks[a].needs.at(name) > in_.tasks[b].needs.at(name);
                });
                int taken = task.needs.at(name);
                out = {i};
                for (const auto b : busy) {
                    if (taken > count) break;
                    if (b == i) continue;
                    taken += in_.tasks[b].needs.at(name);
                    out.push_back(b);
                }
                when = start[i];
                break;
            }
        }
        return out;
    }

    void take(const std::vector<double>& start, const std::vector<Link>& links) {
        if (best_ && finish(start) >= finish(*best_) - kSame) return;
        best_ = start;
        best_links_ = links;
    }

    /// A plan to begin with: one task after another, what has most behind it first, as early as what lies
    /// already lets it. Where a window is missed, what it counts from begins later and all is laid again.
    void by_list(const std::vector<double>& soonest) {
        std::vector<double> behind(n_, -1);
        const auto tail = [&](auto&& self, std::size_t i) -> double {
            if (behind[i] >= 0) return behind[i];
            double most = 0;
            for (const auto& l : given_) {
                if (l.before == i) most = std::max(most, l.least + self(self, l.after));
            }
            return behind[i] = in_.tasks[i].work + std::max(most, in_.tasks[i].wait);
        };
        for (std::size_t i = 0; i < n_; ++i) tail(tail, i);
        // By what is behind each, by when it could begin, and by how long it takes.
        for (int rule = 0; rule < 3 && (rule == 0 || !late()); ++rule) {
            auto release = soonest;
            // A first plan may take longer: without one there is nothing to answer.
            for (int turn = 0; turn < 60 && (best_ ? !late() : !late_by(kPatience)); ++turn) {
                std::vector<double> start(n_, -1);
                if (!lay_by(rule, behind, release, start)) continue;
                take(start, in_order(start));
                break;
            }
        }
    }

    /// The links given, and who goes first of two that one thing has no room for at once.
    [[nodiscard]] std::vector<Link> in_order(const std::vector<double>& start) const {
        auto out = given_;
        for (std::size_t a = 0; a < n_; ++a) {
            for (std::size_t b = 0; b < n_; ++b) {
                if (a == b || end(a, start[a]) > start[b] + kSame || n_ > kMostOrdered) continue;
                const bool apart =
                    std::any_of(in_.tasks[a].needs.begin(), in_.tasks[a].needs.end(), [&](const auto& wants) {
                        const auto other = in_.tasks[b].needs.find(wants.first);
                        return other != in_.tasks[b].needs.end() &&
                               wants.second + other->second > in_.resources.at(wants.first);
                    });
                if (apart) out.push_back({a, b, 0, {}});
            }
        }
        return out;
    }

    /// One pass of it; false, and a later release, where a window was missed.
    bool lay_by(int rule, const std::vector<double>& behind, std::vector<double>& release,
                std::vector<double>& start) const {
        std::vector<int> open(n_, 0);
        for (const auto& l : given_) ++open[l.after];
        std::vector<double> done(n_, 0), shuts(n_, 1e300);
        std::vector<std::size_t> ready;
        for (std::size_t i = 0; i < n_; ++i) {
            if (open[i] == 0) ready.push_back(i);
        }
        while (!ready.empty()) {
            // Whose window is open goes first, then by the rule.
            const auto key = [&](std::size_t i) {
                const double by[] = {-behind[i], release[i], -in_.tasks[i].work};
                return std::tuple(shuts[i], by[rule], i);
            };
            const auto first = std::min_element(
                ready.begin(), ready.end(), [&](std::size_t l, std::size_t r) { return key(l) < key(r); });
            const auto i = *first;
            ready.erase(first);
            double from = release[i];
            for (const auto& l : given_) {
                if (l.after == i) from = std::max(from, done[l.before] + l.least);
            }
            start[i] = earliest(i, from, start, done);
            if (start[i] > horizon_) return false;
            done[i] = end(i, start[i]);
            for (const auto& l : given_) {
                if (l.before == i && l.most) shuts[l.after] = std::min(shuts[l.after], done[i] + *l.most);
            }
            for (const auto& l : given_) {
                if (l.after != i || !l.most) continue;
                if (start[i] <= done[l.before] + *l.most + kSame) continue;
                release[l.before] =
                    std::max(release[l.before] + 1, begin_to_end(l.before, start[i] - *l.most));
                return false;
            }
            for (const auto& l : given_) {
                if (l.before == i && --open[l.after] == 0) ready.push_back(l.after);
            }
        }
        return true;
    }

    /// The first moment from `t` on at which what lies already leaves enough of everything until it is done.
    [[nodiscard]] double earliest(std::size_t i, double t, const std::vector<double>& start,
                                  const std::vector<double>& done) const {
        for (t = begin(i, t);;) {
            const double until = end(i, t);
            double next = 1e300;
            for (const auto& [name, wanted] : in_.tasks[i].needs) {
                if (wanted <= 0 || until <= t) continue;
                std::vector<std::pair<double, int>> changes{{t, wanted}};
                double ends = 1e300;
                for (std::size_t k = 0; k < n_; ++k) {
                    if (start[k] < 0 || done[k] <= t + kSame || start[k] >= until - kSame ||
                        in_.tasks[k].work <= 0)
                        continue;
                    const auto needs = in_.tasks[k].needs.find(name);
                    if (needs == in_.tasks[k].needs.end()) continue;
                    const double to = done[k];
                    changes.emplace_back(std::max(t, start[k]), needs->second);
                    changes.emplace_back(to, -needs->second);
                    ends = std::min(ends, to);
                }
                std::sort(changes.begin(), changes.end());
                int sum = 0;
                bool full = false;
                for (const auto& [when, change] : changes) {
                    sum += change;
                    full = full || sum > in_.resources.at(name);
                }
                if (full) next = std::min(next, ends);
            }
            if (next > 1e299) return t;
            t = begin(i, next);
        }
    }

    [[nodiscard]] bool late() {
        out_of_time_ = out_of_time_ || late_by(0);
        return out_of_time_;
    }
    [[nodiscard]] bool late_by(double times) const {
        return std::chrono::steady_clock::now() >
               until_ + std::chrono::duration_cast<std::chrono::steady_clock::duration>(
                            std::chrono::duration<double>(times * in_.seconds));
    }

    void branch(const std::vector<double>& start, std::size_t deep) {
        if (late()) return;
        if (deep > most_deep_) {
            cut_ = true;
            return;
        }
        if (++nodes_ % 64 == 0) progress_.check();
        const auto fight = conflict(start);
        if (fight.empty()) {
            take(start, links_);
            return;
        }
        struct Way {
            Link link;
            std::vector<double> start;
            double finish = 0, sum = 0;
        };
        std::vector<Way> ways;
        for (const auto i : fight) {
            for (const auto j : fight) {
                if (i == j || leads(links_, j, i)) continue;
                Way way{{i, j, 0, {}}, start, 0, 0};
                links_.push_back(way.link);
                const bool settled = settle(links_, way.start);
                links_.pop_back();
                if (!settled) continue;
                way.finish = bound(way.start);
                if (best_ && way.finish >= finish(*best_) - kSame) continue;
                for (const double s : way.start) way.sum += s;
                ways.push_back(std::move(way));
            }
        }
        std::sort(ways.begin(), ways.end(), [](const Way& a, const Way& b) {
            return std::tie(a.finish, a.sum) < std::tie(b.finish, b.sum);
        });
        for (auto& way : ways) {
            // Nothing better comes of it.
            if (best_ && way.finish >= finish(*best_) - kSame) continue;
            if (best_ && finish(*best_) <= bound_ + kSame) return;
            links_.push_back(way.link);
            branch(way.start, deep + 1);
            links_.pop_back();
            way.start = {};
        }
    }

    /// By halving: how much later a task may begin, the others moving as they must.
    double slack(std::size_t i, double finished) {
        const auto fits = [&](double later) {
            auto start = *best_;
            start[i] = begin(i, start[i] + later);
            return settle(best_links_, start) && finish(start) <= finished + kSame && conflict(start).empty();
        };
        double low = 0, high = std::min(kMostSlack, std::max(0.0, finished - (*best_)[i]));
        if (fits(high)) return high;
        for (int k = 0; k < 40 && high - low > 0.5; ++k) {
            const double middle = (low + high) / 2;
            (fits(middle) ? low : high) = middle;
        }
        // It begins where it then would, not in a closed hour.
        return std::round(begin(i, (*best_)[i] + low) - (*best_)[i]);
    }

    const PlanRequest& in_;
    Progress& progress_;
    Calendar calendar_;
    std::size_t n_;
    std::chrono::steady_clock::time_point until_;
    std::vector<Link> given_, links_, best_links_;
    std::optional<std::vector<double>> best_;
    Link worst_;
    double horizon_ = 0, bound_ = 0;
    int nodes_ = 0;
    std::size_t most_deep_ = 0;
    bool out_of_time_ = false, cut_ = false;
};

}  // namespace

Plan plan(const PlanRequest& request, Progress& progress) {
    if (request.tasks.empty())
        throw InputError("tasks", "there is nothing to plan", "name at least one task");
    return Search(request, progress).run();
}

}  // namespace jig
