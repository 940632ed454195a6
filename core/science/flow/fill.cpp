#include "core/science/flow/fill.hpp"

#include <algorithm>
#include <numbers>

#include "core/base/error.hpp"
#include "core/science/flow/network.hpp"
#include "core/science/flow/pockets.hpp"

namespace jig {
namespace {

/// Of its volume: what a step may leave over or short at a point, which that point carries into the next
/// step, so that nothing is lost.
constexpr double kGood = 1e-3;
/// The same while it is not yet known which points are wet.
constexpr double kRough = 0.05;
/// Of the drive: suction that resin stands before it is held to have run away; solves are no finer.
constexpr double kSuction = 1e-4;
/// Points on either side of the front, and sweeps over them, in a guess of what a step wets.
constexpr int kBand = 6, kSweeps = 8;
/// The same where a time is read off the pressures.
constexpr double kTight = 1e-7;

/// One filling as it goes on, in flow time τ = ∫dt/μ.
class Run {
  public:
    Run(const TriangleMesh& mesh, const std::vector<FaceFlow>& faces, const std::vector<Feed>& feeds,
        const std::vector<Vent>& vents, const Viscosity& viscosity, const FlowRules& rules, Filling& out)
        : mesh_(mesh),
          feeds_(feeds),
          vents_(vents),
          viscosity_(viscosity),
          rules_(rules),
          out_(out),
          net_(network_of(mesh, faces)),
          all_conducts_(net_.conducts),
          pressure_(net_),
          n_(net_.count()),
          state_(n_, FlowState::empty),
          feed_of_(n_, kNone),
          full_(n_, 0),
          p_(n_, 0),
          gain_(n_, 0),
          b_(n_, 0),
          arrives_at_(n_, -1) {
        lowest_ = vents.empty() ? 0 : 1e300;
        for (const auto& v : vents) lowest_ = std::min(lowest_, v.pressure);
        for (std::size_t i = 0; i < n_; ++i) {
            p_[i] = lowest_;
            whole_ += net_.volume[i];
            if (net_.volume[i] <= 0) state_[i] = FlowState::shut;
        }
        for (std::uint32_t v = 0; v < vents.size(); ++v) {
            for (const auto i : vents[v].points) {
                if (state_[i] == FlowState::shut) continue;
                state_[i] = FlowState::vent;
                p_[i] = lowest_;  // they hang together by the air between them
            }
        }
        out.arrival.assign(n_, {});
        out.vents.assign(vents.size(), {});
        out.feeds.assign(feeds.size(), {});
        scale_ = 1;
        for (const auto& f : feeds) scale_ = std::max(scale_, std::abs(f.pressure - lowest_));
        lift_ = rules.density * rules.gravity;
        const auto [low, high] =
            std::minmax_element(mesh.points.begin(), mesh.points.end(),
                                [&](const Point& a, const Point& b) { return lift_.dot(a) < lift_.dot(b); });
        if (low != mesh.points.end()) scale_ += lift_.dot(*high - *low);
        for (std::uint32_t i = 0; i < n_; ++i) {
            for (auto e = net_.start[i]; e < net_.start[i + 1]; ++e)
                cell_head_ = std::max(cell_head_, lift_.dot(mesh.points[net_.to[e]] - mesh.points[i]));
        }
        corners();
    }

    void go(Progress& progress) {
        const double end = viscosity_.flow_time(rules_.end);
        std::size_t asked = 0;
        const auto tell = [&] {
            while (asked < rules_.times.size() &&
                   viscosity_.flow_time(rules_.times[asked]) <= flow_ * (1 + 1e-12)) {
                out_.front.push_back(share());
                ++asked;
            }
        };
        moments(0);
        tell();
        for (out_.steps = 0; out_.steps < 200000; ++out_.steps) {
            progress.report(share(), "following the resin");
            trap();
            if (done()) break;
            // Up to the next moment that is known beforehand.
            double limit = end;
            for (std::size_t f = 0; f < feeds_.size(); ++f) {
                for (const auto& m : {std::optional(feeds_[f].open), feeds_[f].shut}) {
                    if (!m || !m->time) continue;
                    const double at = viscosity_.flow_time(*m->time);
                    if (at > flow_ * (1 + 1e-12) && at < limit) limit = at;
                }
            }
            if (asked < rules_.times.size())
                limit = std::min(limit, std::max(viscosity_.flow_time(rules_.times[asked]), flow_));
            // As the front closes it takes up more than its pressures at the start say.
            const double rate = std::max(uptake(), last_rate_);
            double step = rate > 0 ? rules_.share * whole_ / rate : limit - flow_;
            if (flow_ + step > limit - 1e-3 * step) step = limit - flow_;
            if (step <= 0) break;
            const auto saved_full = full_;
            const auto saved_state = state_;
            const auto saved_p = p_;
            bool settled = true;
            const auto again = [&](double shorter) {
                full_ = saved_full;
                state_ = saved_state;
                p_ = saved_p;
                step = shorter;
                settled = settle(step);
            };
            settled = settle(step);
            for (int i = 0; i < 6 && !settled; ++i) again(step / 3);
            for (int i = 0; i < 20; ++i) {
                const double much = gained(saved_full, saved_state) / (rules_.share * whole_);
                if (!(much > 2)) break;
                again(step / std::min(much, 3.0));
            }
            if (const auto sooner = all_full(saved_full, saved_state, step)) {
                again(*sooner);
                // Finely, lest crumbs are left that cost a step each.
                pressure_.solve(state_, b_, step, kTight, p_);
                gains(step);
            }
            // Where nothing moves any more nothing will before the next moment; the last drop is not nothing.
            if (gained(saved_full, saved_state) <=
                    1e-6 * std::min(rules_.share * whole_, room(saved_full, saved_state)) &&
                step < limit - flow_)
                again(limit - flow_);
            // What waits for the front to come opens when it comes, not at the step's end.
            for (int i = 0; i < 6; ++i) {
                const auto wet = first_wet(saved_full, step);
                if (!wet || *wet > 0.98 * step) break;
                again(std::max(*wet, 0.01 * step) * 1.001);
            }
            out_.unsettled += settled ? 0 : 1;
            const double last_gain = gained(saved_full, saved_state);
            take(saved_full, saved_state, step);
            last_p_ = saved_p;
            last_step_ = step;
            last_rate_ = last_gain / step;
            moments(time());
            tell();
            if (flow_ >= end * (1 - 1e-12)) break;
        }
        while (asked++ < rules_.times.size()) out_.front.push_back(share());
        close(end);
    }

  private:
    static constexpr std::uint32_t kNone = 0xffffffffu;

    [[nodiscard]] double time() const { return viscosity_.when(flow_).value_or(rules_.end); }
    [[nodiscard]] double share() const {
        double sum = 0;
        for (std::size_t i = 0; i < n_; ++i) sum += full_[i] * net_.volume[i];
        return std::min(1.0, sum / whole_);  // crumbs lie over as well as short
    }
    [[nodiscard]] bool is_full(std::size_t i) const { return jig::is_full(state_[i], full_[i]); }
    [[nodiscard]] bool done() const {
        for (std::size_t i = 0; i < n_; ++i) {
            if (state_[i] != FlowState::shut && !is_full(i)) return false;
        }
        return true;
    }
    /// m³·Pa per unit of flow time from i to its neighbour on edge e.
    [[nodiscard]] double flow(std::uint32_t i, std::uint32_t e) const {
        const auto j = net_.to[e];
        return net_.conducts[e] * (p_[i] - p_[j] + lift_.dot(mesh_.points[j] - mesh_.points[i]));
    }
    /// Whether resin crosses between two neighbours at all.
    [[nodiscard]] bool crosses(std::uint32_t i, std::uint32_t j) const {
        if (state_[i] == FlowState::shut || state_[j] == FlowState::shut) return false;
        const auto source = [&](std::uint32_t k) {
            return state_[k] == FlowState::wet || state_[k] == FlowState::feed;
        };
        return source(i) || source(j);
    }
    /// What the preform takes up at the pressures of this moment, m³ per unit of flow time: what the front
    /// gets, or what feeds give less what runs off by vents that are full, whichever is more. With falling
    /// resin the front alone may stand still for a step.
    [[nodiscard]] double uptake() const {
        double front = 0, net = 0;
        for (std::uint32_t i = 0; i < n_; ++i) {
            if (state_[i] == FlowState::wet || state_[i] == FlowState::shut) continue;
            double gets = 0;
            for (auto e = net_.start[i]; e < net_.start[i + 1]; ++e) {
                if (crosses(i, net_.to[e])) gets -= flow(i, e);
            }
            if (state_[i] == FlowState::feed || is_full(i))
                net -= gets;
            else
                front += std::max(0.0, gets);
        }
        return std::max(front, net);
    }

    /// One step: which points are wet at its end, and at what pressures. False where that does not settle.
    bool settle(double step) {
        net_.conducts = all_conducts_;
        resting_.clear();
        cut_ = false;
        // At the pressures of the last step most of what will be wet is known; beside the front, soon the
        // rest.
        change(step, false);
        if (last_step_ > 0) {
            // Pressures go on as they went: only where solves begin.
            for (std::uint32_t i = 0; i < n_; ++i) {
                if (state_[i] == FlowState::wet && last_p_[i] > lowest_)
                    p_[i] += step / last_step_ * (p_[i] - last_p_[i]);
            }
            change(step, false);
        }
        sweep_front(step);
        for (int round = 0; round < 400; ++round) {
            if (cut_) rest();
            for (std::uint32_t i = 0; i < n_; ++i) {
                if (state_[i] == FlowState::wet) b_[i] = lacks(i, step);
            }
            pressure_.solve(state_, b_, step, kRough, p_);
            if (change(step, round < 60)) {
                if (round < 8) sweep_front(step);
                continue;
            }
            pressure_.solve(state_, b_, step, kGood, p_);
            gains(step);
            const bool held = hold_back();
            if (!change(step, round < 60) && !held) return true;
        }
        return false;
    }

    /// Pa below which a wet point has run dry. Falling resin fills a point within a step and goes on from it
    /// for the rest: the step's mean pressure may then lie under the front's by the head of one cell.
    [[nodiscard]] double least(std::uint32_t i) const {
        double head = 0;
        if (cell_head_ > 0) {
            bool front = false;
            for (auto e = net_.start[i]; e < net_.start[i + 1]; ++e) {
                const auto j = net_.to[e];
                if (state_[j] != FlowState::empty) continue;
                front = true;
                head = std::max(head, lift_.dot(mesh_.points[j] - mesh_.points[i]));
            }
            if (!front) head = cell_head_;
        }
        return lowest_ - kSuction * scale_ - head;
    }

    /// m³ per unit of flow time that a wet point gives more than it gets, for being full at the step's end.
    [[nodiscard]] double lacks(std::uint32_t i, double step) const {
        double out = (full_[i] - 1) * net_.volume[i] / step;
        if (lift_.isZero()) return out;
        for (auto e = net_.start[i]; e < net_.start[i + 1]; ++e) {
            if (state_[net_.to[e]] != FlowState::shut)
                out -= net_.conducts[e] * lift_.dot(mesh_.points[net_.to[e]] - mesh_.points[i]);
        }
        return out;
    }

    /// Settles wet and dry in a band along the front, point by point, while all behind it keeps its pressure:
    /// a guess that spares whole solves, and that they judge.
    void sweep_front(double step) {
        band_.clear();
        depth_.assign(n_, 0);
        for (std::uint32_t i = 0; i < n_; ++i) {
            if (state_[i] != FlowState::wet) continue;
            for (auto e = net_.start[i]; e < net_.start[i + 1]; ++e) {
                if (state_[net_.to[e]] != FlowState::empty) continue;
                band_.push_back(i);
                depth_[i] = 1;
                break;
            }
        }
        for (std::size_t k = 0; k < band_.size(); ++k) {
            const auto i = band_[k];
            if (depth_[i] >= kBand) break;
            for (auto e = net_.start[i]; e < net_.start[i + 1]; ++e) {
                const auto j = net_.to[e];
                if (depth_[j] != 0 || (state_[j] != FlowState::wet && state_[j] != FlowState::empty))
                    continue;
                depth_[j] = static_cast<std::uint8_t>(depth_[i] + 1);
                band_.push_back(j);
            }
        }
        int calm = 0;
        for (int sweep = 0; sweep < kSweeps && calm < 3; ++sweep) {
            bool changed = false;
            for (auto k = band_.size(); k-- > 0;) changed |= relax(band_[k], step);
            for (const auto i : band_) changed |= relax(i, step);
            calm = changed ? 0 : calm + 1;
        }
    }

    /// One point by its neighbours as they stand; whether it got wet or dry.
    bool relax(std::uint32_t i, double step) {
        const bool was_wet = state_[i] == FlowState::wet;
        if (!was_wet) {
            double gets = 0;
            for (auto e = net_.start[i]; e < net_.start[i + 1]; ++e) {
                if (crosses(i, net_.to[e])) gets -= flow(i, e);
            }
            if (full_[i] + gets * step / net_.volume[i] <= 1 + 1e-9) return false;
            state_[i] = FlowState::wet;
        }
        double sum = 0, drive = lacks(i, step);
        for (auto e = net_.start[i]; e < net_.start[i + 1]; ++e) {
            const auto j = net_.to[e];
            if (state_[j] == FlowState::shut) continue;
            sum += net_.conducts[e];
            drive += net_.conducts[e] * p_[j];
        }
        if (sum <= 0) return !was_wet;
        p_[i] = drive / sum;
        if (p_[i] >= least(i)) return !was_wet;
        p_[i] = lowest_;
        state_[i] = FlowState::empty;
        return was_wet;
    }

    /// Wets what would hold more than it can, dries what would have to suck; false where neither happens.
    bool change(double step, bool may_dry) {
        bool changed = false;
        gains(step);
        for (std::uint32_t i = 0; i < n_; ++i) {
            if (state_[i] == FlowState::empty && full_[i] + gain_[i] / net_.volume[i] > 1 + 1e-9) {
                state_[i] = FlowState::wet;
                changed = true;
            } else if (state_[i] == FlowState::wet && may_dry && p_[i] < least(i)) {
                state_[i] = FlowState::empty;
                p_[i] = lowest_;
                changed = true;
            }
        }
        return changed;
    }

    /// Nobody gives what he has not: where gravity, a feed below the vents or vents of two pressures would
    /// draw resin out of an empty point, the ways by which they do are shut for this step.
    bool hold_back() {
        bool changed = false;
        for (std::uint32_t i = 0; i < n_; ++i) {
            if (state_[i] != FlowState::empty && state_[i] != FlowState::vent) continue;
            if (full_[i] + gain_[i] / net_.volume[i] >= -kGood) continue;
            for (auto e = net_.start[i]; e < net_.start[i + 1]; ++e) {
                const auto j = net_.to[e];
                if (!crosses(i, j) || net_.conducts[e] <= 0 || flow(i, e) <= 0) continue;
                net_.conducts[e] = 0;
                for (auto back = net_.start[j]; back < net_.start[j + 1]; ++back) {
                    if (net_.to[back] == i) net_.conducts[back] = 0;
                }
                changed = true;
            }
        }
        cut_ = cut_ || changed;
        return changed;
    }

    /// Wet points that no way joins to a feed, a vent or the front any more: no pressure is theirs to find,
    /// and they rest for this step.
    void rest() {
        depth_.assign(n_, 0);
        for (std::uint32_t seed = 0; seed < n_; ++seed) {
            if (state_[seed] != FlowState::wet || depth_[seed] != 0) continue;
            band_.assign(1, seed);
            depth_[seed] = 1;
            bool joined = false;
            for (std::size_t k = 0; k < band_.size(); ++k) {
                for (auto e = net_.start[band_[k]]; e < net_.start[band_[k] + 1]; ++e) {
                    const auto j = net_.to[e];
                    if (net_.conducts[e] <= 0 || state_[j] == FlowState::shut) continue;
                    if (state_[j] != FlowState::wet) {
                        joined = true;
                    } else if (depth_[j] == 0) {
                        depth_[j] = 1;
                        band_.push_back(j);
                    }
                }
            }
            if (joined) continue;
            for (const auto i : band_) {
                state_[i] = FlowState::shut;
                p_[i] = lowest_;
            }
            resting_.insert(resting_.end(), band_.begin(), band_.end());
        }
    }

    /// m³ that each point that is not wet takes up in a step.
    void gains(double step) {
        for (std::uint32_t i = 0; i < n_; ++i) {
            gain_[i] = 0;
            if (state_[i] != FlowState::empty && state_[i] != FlowState::vent) continue;
            for (auto e = net_.start[i]; e < net_.start[i + 1]; ++e) {
                if (crosses(i, net_.to[e])) gain_[i] -= flow(i, e) * step;
            }
        }
    }

    /// m³ by which the front has gone on; what solves left over behind it is none of it.
    [[nodiscard]] double gained(const std::vector<double>& before, const std::vector<FlowState>& was) const {
        double sum = 0;
        for (std::size_t i = 0; i < n_; ++i) {
            if (was[i] != FlowState::wet) sum += net_.volume[i] * std::max(0.0, after(i) - before[i]);
        }
        return sum;
    }
    /// m³ that are not filled yet.
    [[nodiscard]] double room(const std::vector<double>& full, const std::vector<FlowState>& states) const {
        double sum = 0;
        for (std::size_t i = 0; i < n_; ++i) {
            if (states[i] == FlowState::empty || states[i] == FlowState::vent)
                sum += net_.volume[i] * std::max(0.0, 1 - full[i]);
        }
        return sum;
    }
    /// How full a point is at the step's end.
    [[nodiscard]] double after(std::size_t i) const {
        if (state_[i] == FlowState::wet) return 1;
        if (state_[i] == FlowState::empty) return full_[i] + gain_[i] / net_.volume[i];
        if (state_[i] == FlowState::vent) return std::min(1.0, full_[i] + gain_[i] / net_.volume[i]);
        return full_[i];
    }

    /// Where a step fills all there is: the shorter one that just does. With every point wet, pressures are
    /// straight in 1/step, and the last point is the one that then comes down to the front's.
    std::optional<double> all_full(const std::vector<double>& before, const std::vector<FlowState>& was,
                                   double step) {
        for (std::size_t i = 0; i < n_; ++i) {
            if (state_[i] != FlowState::shut && after(i) < 1 - 1e-9) return {};
        }
        auto zero = b_;
        for (std::uint32_t i = 0; i < n_; ++i) {
            if (state_[i] == FlowState::wet) zero[i] -= (before[i] - 1) * net_.volume[i] / step;
        }
        pressure_.solve(state_, b_, step, kTight, p_);
        // What a good solve leaves over in a step is far more than the last crumbs: both are read finely.
        gains(step);
        const auto now = p_;
        pressure_.solve(state_, zero, step, kTight, p_);
        double needed = 0, latest = 0;
        for (std::uint32_t i = 0; i < n_; ++i) {
            if (before[i] >= 1 - 1e-9) continue;
            double at = 0;
            if (state_[i] == FlowState::wet) {
                const double drop = (p_[i] - now[i]) * step, room = p_[i] - lowest_;
                if (room > 0) at = drop / room;
            } else if (state_[i] == FlowState::vent) {
                // What flows in is straight in 1/step, too.
                const double given = gain_[i] / step;
                double free = 0;
                for (auto e = net_.start[i]; e < net_.start[i + 1]; ++e) {
                    if (crosses(i, net_.to[e])) free -= flow(i, e);
                }
                if (free > 0) at = ((1 - before[i]) * net_.volume[i] + (free - given) * step) / free;
            }
            needed = std::max(needed, at);
            // What was wet before is not what is wet last.
            if (was[i] != FlowState::wet && at > latest) {
                latest = at;
                out_.last = i;
            }
        }
        p_ = now;
        return needed > 0 && needed < step ? std::optional(needed * (1 + 1e-6)) : std::nullopt;
    }

    /// The share of a point's volume that lies behind it as the resin comes.
    double share_behind(std::uint32_t i) const {
        Point way = Point::Zero();
        for (auto e = net_.start[i]; e < net_.start[i + 1]; ++e) {
            const auto j = net_.to[e];
            if (!crosses(i, j)) continue;
            const double in = -flow(i, e);
            if (in > 0) way += in * (mesh_.points[i] - mesh_.points[j]).normalized();
        }
        double behind = 0, all = 0;
        for (auto k = corner_start_[i]; k < corner_start_[i + 1]; ++k) {
            const double a = mesh_.area_vector2(corner_face_[k]).norm();
            all += a;
            if (way.dot(mesh_.centre(corner_face_[k]) - mesh_.points[i]) <= 0) behind += a;
        }
        return all > 0 ? std::max(behind / all, 0.05) : 0.5;
    }

    /// Flow time into the step at which the front passes a point; none where it does not in this step.
    std::optional<double> passes(std::uint32_t i, const std::vector<double>& before, double step) const {
        const double at = arrives_at_[i] >= 0 ? arrives_at_[i] : share_behind(i), to = after(i);
        if (before[i] >= at || to < at * (1 - 1e-12)) return {};
        return step * std::clamp((at - before[i]) / std::max(to - before[i], 1e-300), 0.0, 1.0);
    }

    std::optional<double> first_wet(const std::vector<double>& before, double step) const {
        std::optional<double> out;
        for (std::size_t f = 0; f < feeds_.size(); ++f) {
            for (const auto* m : {&feeds_[f].open, feeds_[f].shut ? &*feeds_[f].shut : nullptr}) {
                if (m == nullptr || !m->wet ||
                    (m == &feeds_[f].open ? out_.feeds[f].opened : out_.feeds[f].shut))
                    continue;
                const auto at = passes(nearest(*m->wet), before, step);
                if (at && (!out || *at < *out)) out = at;
            }
        }
        return out;
    }

    [[nodiscard]] std::uint32_t nearest(const Point& to) const {
        std::uint32_t best = 0;
        double distance = 1e300;
        for (std::uint32_t i = 0; i < n_; ++i) {
            const double d = (mesh_.points[i] - to).squaredNorm();
            if (net_.volume[i] > 0 && d < distance) {
                distance = d;
                best = i;
            }
        }
        return best;
    }

    void take(const std::vector<double>& before, const std::vector<FlowState>& was, double step) {
        for (std::uint32_t i = 0; i < n_; ++i) {
            if (out_.arrival[i] || state_[i] == FlowState::shut || after(i) <= 0) continue;
            if (const auto at = passes(i, before, step)) out_.arrival[i] = viscosity_.when(flow_ + *at);
            if (arrives_at_[i] < 0) arrives_at_[i] = share_behind(i);
        }
        for (std::uint32_t i = 0; i < n_; ++i) {
            if (state_[i] == FlowState::feed) {
                double given = 0;
                for (auto e = net_.start[i]; e < net_.start[i + 1]; ++e) {
                    if (crosses(i, net_.to[e]) && feed_of_[net_.to[e]] != feed_of_[i]) given += flow(i, e);
                }
                out_.feeds[feed_of_[i]].mass += rules_.density * given * step;
            }
            if (state_[i] == FlowState::vent)
                out_.bled += rules_.density * std::max(0.0, gain_[i] - (1 - full_[i]) * net_.volume[i]);
        }
        for (std::uint32_t i = 0; i < n_; ++i) {
            if (state_[i] != FlowState::wet) {
                full_[i] = after(i);
                continue;
            }
            double out = 0;
            for (auto e = net_.start[i]; e < net_.start[i + 1]; ++e) {
                if (crosses(i, net_.to[e])) out += flow(i, e);
            }
            full_[i] -= out * step / net_.volume[i];
        }
        for (const auto i : resting_) state_[i] = was[i];
        resting_.clear();
        flow_ += step;
        for (std::size_t v = 0; v < vents_.size(); ++v) {
            if (out_.vents[v]) continue;
            for (const auto i : vents_[v].points) {
                const auto& at = out_.arrival[i];
                if (at && (!out_.vents[v] || *at < *out_.vents[v])) out_.vents[v] = at;
            }
        }
    }

    /// Opens and shuts what is due.
    void moments(double now) {
        for (std::uint32_t f = 0; f < feeds_.size(); ++f) {
            auto& given = out_.feeds[f];
            const auto due = [&](const FlowMoment& m) {
                if (m.time) return *m.time <= now * (1 + 1e-9) + 1e-12;
                return m.wet && out_.arrival[nearest(*m.wet)].has_value();
            };
            if (!given.opened && due(feeds_[f].open)) {
                given.opened = now;
                for (const auto i : feeds_[f].points) {
                    if (state_[i] == FlowState::shut) continue;
                    state_[i] = FlowState::feed;
                    feed_of_[i] = f;
                    p_[i] = feeds_[f].pressure;
                    given.mass += rules_.density * (1 - full_[i]) * net_.volume[i];
                    full_[i] = 1;
                    if (!out_.arrival[i]) out_.arrival[i] = now;
                }
            }
            if (given.opened && !given.shut && feeds_[f].shut && due(*feeds_[f].shut)) {
                given.shut = now;
                for (const auto i : feeds_[f].points) {
                    if (state_[i] == FlowState::feed && feed_of_[i] == f) {
                        state_[i] = FlowState::wet;
                        feed_of_[i] = kNone;
                    }
                }
            }
        }
    }

    /// What resin has shut off and no vent draws on stays dry, but for a pocket no larger than the mesh sees.
    void trap() {
        if (vents_.empty()) return;
        const double small = 2 * whole_ / static_cast<double>(n_);
        for (const auto& pocket : shut_pockets(mesh_, net_, state_, full_)) {
            if (pocket.points.size() < 3 && pocket.room < small) continue;
            for (const auto i : pocket.points) state_[i] = FlowState::shut;
            out_.dry.push_back({pocket.at, pocket.area});
        }
    }

    void close(double end) {
        // What solves left over at single points is no air.
        out_.filled = out_.dry.empty() && done() ? 1 : share();
        double held = 0;
        for (std::size_t i = 0; i < n_; ++i) held += full_[i] * net_.volume[i];
        out_.held = rules_.density * held;
        for (const auto& f : out_.feeds) out_.taken += f.mass;
        if (out_.dry.empty() && done()) out_.fill = viscosity_.when(flow_);
        if (!out_.fill && viscosity_.gels() && flow_ >= end * (1 - 1e-9) && *viscosity_.gels() <= rules_.end)
            out_.gelled = viscosity_.gels();
        std::sort(out_.dry.begin(), out_.dry.end(),
                  [](const DrySpot& a, const DrySpot& b) { return a.area > b.area; });
        double latest = -1;
        if (!out_.fill || !out_.last) {
            for (std::uint32_t i = 0; i < n_; ++i) {
                if (out_.arrival[i] && *out_.arrival[i] > latest) {
                    latest = *out_.arrival[i];
                    out_.last = i;
                }
            }
        }
        out_.pressure = p_;
    }

    /// Faces round each point.
    void corners() {
        corner_start_.assign(n_ + 1, 0);
        for (const auto& t : mesh_.triangles) {
            for (const auto i : t) ++corner_start_[i + 1];
        }
        for (std::size_t i = 0; i < n_; ++i) corner_start_[i + 1] += corner_start_[i];
        corner_face_.resize(corner_start_.back());
        auto next = corner_start_;
        for (std::uint32_t f = 0; f < mesh_.triangles.size(); ++f) {
            for (const auto i : mesh_.triangles[f]) corner_face_[next[i]++] = f;
        }
    }

    const TriangleMesh& mesh_;
    const std::vector<Feed>& feeds_;
    const std::vector<Vent>& vents_;
    const Viscosity& viscosity_;
    const FlowRules& rules_;
    Filling& out_;
    FlowNetwork net_;
    std::vector<double> all_conducts_;  ///< while gravity shuts some of them for a step
    FlowPressure pressure_;
    std::size_t n_;
    std::vector<FlowState> state_;
    std::vector<std::uint32_t> feed_of_;
    std::vector<double> full_, p_, gain_, b_, arrives_at_;
    std::vector<double> last_p_;  ///< pressures a step ago
    double last_step_ = 0, last_rate_ = 0;
    std::vector<std::uint32_t> band_;  ///< points along the front, and how far each lies from it
    std::vector<std::uint8_t> depth_;
    std::vector<std::uint32_t> resting_;  ///< wet points that stand still for a step
    bool cut_ = false;                    ///< whether ways are shut for this step
    std::vector<std::uint32_t> corner_start_, corner_face_;
    Point lift_ = Point::Zero();
    double lowest_ = 0, whole_ = 0, scale_ = 1, flow_ = 0;
    double cell_head_ = 0;  ///< Pa, the most between two neighbours
};

}  // namespace

Filling fill(const TriangleMesh& mesh, const std::vector<FaceFlow>& faces, const std::vector<Feed>& feeds,
             const std::vector<Vent>& vents, const Viscosity& viscosity, const FlowRules& rules,
             Progress& progress) {
    for (std::size_t f = 0; f < faces.size(); ++f) {
        if (mesh.area_vector2(f).norm() > 0 && (faces[f].holds <= 0 || faces[f].conducts.trace() <= 0))
            throw InputError("layers", "a face of the mesh has no layer that resin could run in",
                             "let one layer cover all of it");
    }
    if (std::none_of(feeds.begin(), feeds.end(), [](const Feed& f) { return !f.points.empty(); }))
        throw InputError("feeds", "no feed has a point of the mesh", "move or widen a feed's box");
    Filling out;
    Run run(mesh, faces, feeds, vents, viscosity, rules, out);
    run.go(progress);
    return out;
}

}  // namespace jig
