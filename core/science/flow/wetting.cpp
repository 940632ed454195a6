#include "core/science/flow/wetting.hpp"

#include <algorithm>

namespace jig {
namespace {

/// Of its volume: what a step may leave over or short at a point, which that point carries into the next
/// step, so that nothing is lost.
constexpr double kGood = 1e-3;
/// The same while it is not yet known which points are wet.
constexpr double kRough = 0.05;
/// Of its volume, what a point may come to owe before a step counts as unsettled.
constexpr double kLent = 10 * kGood;
/// Of the drive: suction that resin stands before it is held to have run away; solves are no finer.
constexpr double kSuction = 1e-4;
/// Points on either side of the front, and sweeps over them, in a guess of what a step wets.
constexpr int kBand = 6, kSweeps = 8;
/// The same where a time is read off the pressures.
constexpr double kTight = 1e-7;

}  // namespace

Wetting::Wetting(const TriangleMesh& mesh, const std::vector<FaceFlow>& faces, const std::vector<Feed>& feeds,
                 const std::vector<Vent>& vents, const FlowRules& rules)
    : net(network_of(mesh, faces)),
      state(net.count(), FlowState::empty),
      full(net.count(), 0),
      p(net.count(), 0),
      gain(net.count(), 0),
      own(net.count(), 1),
      mesh_(mesh),
      all_conducts_(net.conducts),
      pressure_(net),
      b_(net.count(), 0),
      lift_(rules.density * rules.gravity) {
    lowest_ = vents.empty() ? 0 : 1e300;
    for (const auto& v : vents) lowest_ = std::min(lowest_, v.pressure);
    for (std::uint32_t i = 0; i < count(); ++i) {
        p[i] = lowest_;
        whole += net.volume[i];
        if (net.volume[i] <= 0) state[i] = FlowState::shut;
    }
    // Vents hang together by the air between them: all are at the lowest.
    for (const auto& vent : vents) {
        for (const auto i : vent.points) {
            if (state[i] != FlowState::shut) state[i] = FlowState::vent;
        }
    }
    flood(feeds);
    for (const auto& f : feeds) scale_ = std::max(scale_, std::abs(f.pressure - lowest_));
    const auto [low, high] =
        std::minmax_element(mesh.points.begin(), mesh.points.end(),
                            [&](const Point& a, const Point& b) { return lift_.dot(a) < lift_.dot(b); });
    if (low != mesh.points.end()) scale_ += lift_.dot(*high - *low);
    for (std::uint32_t i = 0; i < count(); ++i) {
        for (auto e = net.start[i]; e < net.start[i + 1]; ++e)
            cell_head_ = std::max(cell_head_, lift_.dot(mesh.points[net.to[e]] - mesh.points[i]));
    }
}

/// What lies amid a vent, with vents all round, has no way by which resin could press into it: it fills by
/// what runs over from the vent's edge. Its pores are counted there.
void Wetting::flood(const std::vector<Feed>& feeds) {
    std::vector<char> fed(count(), 0);
    for (const auto& f : feeds) {
        for (const auto i : f.points) fed[i] = 1;
    }
    // Points over the diagonal of a right angle are neighbours between which nothing flows.
    const auto joined = [&](std::uint32_t i, std::uint32_t e) {
        double most = 0;
        for (auto k = net.start[i]; k < net.start[i + 1]; ++k) most = std::max(most, net.conducts[k]);
        return net.conducts[e] > 1e-9 * most;
    };
    std::vector<char> within(count(), 0);
    for (std::uint32_t i = 0; i < count(); ++i) {
        within[i] = state[i] == FlowState::vent && fed[i] == 0;
        for (auto e = net.start[i]; e < net.start[i + 1] && within[i] != 0; ++e) {
            const auto j = net.to[e];
            within[i] =
                state[j] == FlowState::shut || (state[j] == FlowState::vent && fed[j] == 0) || !joined(i, e);
        }
    }
    const auto pores = net.volume;
    for (std::uint32_t seed = 0; seed < count(); ++seed) {
        if (within[seed] != 1) continue;
        std::vector<std::uint32_t> inner{seed}, edge;
        within[seed] = 2;
        double inside = 0, around = 0;
        for (std::size_t k = 0; k < inner.size(); ++k) {
            inside += pores[inner[k]];
            for (auto e = net.start[inner[k]]; e < net.start[inner[k] + 1]; ++e) {
                const auto j = net.to[e];
                if (within[j] == 1) {
                    within[j] = 2;
                    inner.push_back(j);
                } else if (within[j] == 0 && state[j] == FlowState::vent &&
                           std::find(edge.begin(), edge.end(), j) == edge.end()) {
                    edge.push_back(j);
                    around += pores[j];
                }
            }
        }
        // A face that is all vent has no edge, and nothing runs over.
        if (edge.empty()) continue;
        for (const auto i : edge) {
            net.volume[i] += inside * pores[i] / around;
            own[i] = pores[i] / net.volume[i];
        }
        for (const auto i : inner) {
            state[i] = FlowState::shut;
            amid.emplace_back(i, *std::min_element(edge.begin(), edge.end(), [&](auto a, auto b) {
                                  return (mesh_.points[a] - mesh_.points[i]).squaredNorm() <
                                         (mesh_.points[b] - mesh_.points[i]).squaredNorm();
                              }));
        }
    }
}

bool Wetting::step(const Moment& moment, double step) {
    full = moment.full;
    p = moment.p;
    state = moment.state;
    return settle(step);
}

void Wetting::finely(double step) {
    pressure_.solve(state, b_, step, kTight, p);
    gains(step);
}

bool Wetting::done() const {
    for (std::uint32_t i = 0; i < count(); ++i) {
        if (state[i] != FlowState::shut && !is_full(i)) return false;
    }
    return true;
}

double Wetting::share() const {
    double sum = 0;
    for (std::uint32_t i = 0; i < count(); ++i) sum += full[i] * net.volume[i];
    return std::min(1.0, sum / whole);
}

double Wetting::uptake() const {
    double front = 0, kept = 0;
    for (std::uint32_t i = 0; i < count(); ++i) {
        if (state[i] == FlowState::wet || state[i] == FlowState::shut) continue;
        double gets = 0;
        for (auto e = net.start[i]; e < net.start[i + 1]; ++e) {
            if (crosses(i, net.to[e])) gets -= flow(i, e);
        }
        if (state[i] == FlowState::feed || is_full(i))
            kept -= gets;
        else
            front += std::max(0.0, gets);
    }
    return std::max(front, kept);
}

/// One step: which points are wet at its end, and at what pressures. False where that does not settle.
bool Wetting::settle(double step) {
    net.conducts = all_conducts_;
    resting_.clear();
    cut_ = false;
    // At the pressures of the last step most of what will be wet is known; beside the front, soon the
    // rest.
    change(step, false);
    if (last_step_ > 0) {
        // Pressures go on as they went: only where solves begin.
        for (std::uint32_t i = 0; i < count(); ++i) {
            if (state[i] == FlowState::wet && last_p_[i] > lowest_)
                p[i] += step / last_step_ * (p[i] - last_p_[i]);
        }
        change(step, false);
    }
    sweep_front(step);
    for (int round = 0; round < 400; ++round) {
        if (cut_) rest();
        for (std::uint32_t i = 0; i < count(); ++i) {
            if (state[i] == FlowState::wet) b_[i] = lacks(i, step);
        }
        pressure_.solve(state, b_, step, kRough, p);
        if (change(step, round < 60)) {
            if (round < 8) sweep_front(step);
            continue;
        }
        pressure_.go_on(step, kGood, p);
        gains(step);
        const bool held = hold_back();
        if (!change(step, round < 60) && !held) return sound();
    }
    return false;
}

/// Whether nobody gave more than he had after all.
bool Wetting::sound() const {
    for (std::uint32_t i = 0; i < count(); ++i) {
        if ((state[i] == FlowState::empty || state[i] == FlowState::vent) &&
            !(full[i] + gain[i] / net.volume[i] >= -kLent))
            return false;
    }
    return true;
}

/// Pa below which a wet point has run dry. Falling resin fills a point within a step and goes on from it
/// for the rest: the step's mean pressure may then lie under the front's by the head of one cell.
double Wetting::least(std::uint32_t i) const {
    double head = 0;
    if (cell_head_ > 0) {
        bool front = false;
        for (auto e = net.start[i]; e < net.start[i + 1]; ++e) {
            const auto j = net.to[e];
            if (state[j] != FlowState::empty) continue;
            front = true;
            head = std::max(head, lift_.dot(mesh_.points[j] - mesh_.points[i]));
        }
        if (!front) head = cell_head_;
    }
    return lowest_ - kSuction * scale_ - head;
}

/// m³ per unit of flow time that a wet point gives more than it gets, for being full at the step's end.
double Wetting::lacks(std::uint32_t i, double step) const {
    double out = (full[i] - 1) * net.volume[i] / step;
    if (lift_.isZero()) return out;
    for (auto e = net.start[i]; e < net.start[i + 1]; ++e) {
        if (state[net.to[e]] != FlowState::shut)
            out -= net.conducts[e] * lift_.dot(mesh_.points[net.to[e]] - mesh_.points[i]);
    }
    return out;
}

/// Settles wet and dry in a band along the front, point by point, while all behind it keeps its pressure:
/// a guess that spares whole solves, and that they judge.
void Wetting::sweep_front(double step) {
    band_.clear();
    depth_.assign(count(), 0);
    for (std::uint32_t i = 0; i < count(); ++i) {
        if (state[i] != FlowState::wet) continue;
        for (auto e = net.start[i]; e < net.start[i + 1]; ++e) {
            if (state[net.to[e]] != FlowState::empty) continue;
            band_.push_back(i);
            depth_[i] = 1;
            break;
        }
    }
    for (std::size_t k = 0; k < band_.size(); ++k) {
        const auto i = band_[k];
        if (depth_[i] >= kBand) break;
        for (auto e = net.start[i]; e < net.start[i + 1]; ++e) {
            const auto j = net.to[e];
            if (depth_[j] != 0 || (state[j] != FlowState::wet && state[j] != FlowState::empty)) continue;
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
bool Wetting::relax(std::uint32_t i, double step) {
    const bool was_wet = state[i] == FlowState::wet;
    if (!was_wet) {
        double gets = 0;
        for (auto e = net.start[i]; e < net.start[i + 1]; ++e) {
            if (crosses(i, net.to[e])) gets -= flow(i, e);
        }
        if (full[i] + gets * step / net.volume[i] <= 1 + 1e-9) return false;
        state[i] = FlowState::wet;
    }
    double sum = 0, drive = lacks(i, step);
    for (auto e = net.start[i]; e < net.start[i + 1]; ++e) {
        const auto j = net.to[e];
        if (state[j] == FlowState::shut) continue;
        sum += net.conducts[e];
        drive += net.conducts[e] * p[j];
    }
    if (sum <= 0) return !was_wet;
    p[i] = drive / sum;
    if (p[i] >= least(i)) return !was_wet;
    p[i] = lowest_;
    state[i] = FlowState::empty;
    return was_wet;
}

/// Wets what would hold more than it can, dries what would have to suck; false where neither happens.
bool Wetting::change(double step, bool may_dry) {
    bool changed = false;
    gains(step);
    for (std::uint32_t i = 0; i < count(); ++i) {
        if (state[i] == FlowState::empty && full[i] + gain[i] / net.volume[i] > 1 + 1e-9) {
            state[i] = FlowState::wet;
            changed = true;
        } else if (state[i] == FlowState::wet && may_dry && p[i] < least(i)) {
            state[i] = FlowState::empty;
            p[i] = lowest_;
            changed = true;
        }
    }
    return changed;
}

/// Nobody gives what he has not: where gravity, a feed below the vents or vents of two pressures would
/// draw resin out of an empty point, the ways by which they do are shut for this step.
bool Wetting::hold_back() {
    bool changed = false;
    for (std::uint32_t i = 0; i < count(); ++i) {
        if (state[i] != FlowState::empty && state[i] != FlowState::vent) continue;
        if (full[i] + gain[i] / net.volume[i] >= -kGood) continue;
        for (auto e = net.start[i]; e < net.start[i + 1]; ++e) {
            const auto j = net.to[e];
            if (!crosses(i, j) || net.conducts[e] <= 0 || flow(i, e) <= 0) continue;
            net.conducts[e] = 0;
            for (auto back = net.start[j]; back < net.start[j + 1]; ++back) {
                if (net.to[back] == i) net.conducts[back] = 0;
            }
            changed = true;
        }
    }
    cut_ = cut_ || changed;
    return changed;
}

/// Wet points that no way joins to a feed, a vent or the front any more: no pressure is theirs to find,
/// and they rest for this step.
void Wetting::rest() {
    depth_.assign(count(), 0);
    for (std::uint32_t seed = 0; seed < count(); ++seed) {
        if (state[seed] != FlowState::wet || depth_[seed] != 0) continue;
        band_.assign(1, seed);
        depth_[seed] = 1;
        bool joined = false;
        for (std::size_t k = 0; k < band_.size(); ++k) {
            for (auto e = net.start[band_[k]]; e < net.start[band_[k] + 1]; ++e) {
                const auto j = net.to[e];
                if (net.conducts[e] <= 0 || state[j] == FlowState::shut) continue;
                if (state[j] != FlowState::wet) {
                    joined = true;
                } else if (depth_[j] == 0) {
                    depth_[j] = 1;
                    band_.push_back(j);
                }
            }
        }
        if (joined) continue;
        for (const auto i : band_) {
            state[i] = FlowState::shut;
            p[i] = lowest_;
        }
        resting_.insert(resting_.end(), band_.begin(), band_.end());
    }
}

/// m³ that each point that is not wet takes up in a step.
void Wetting::gains(double step) {
    for (std::uint32_t i = 0; i < count(); ++i) {
        gain[i] = 0;
        if (state[i] != FlowState::empty && state[i] != FlowState::vent) continue;
        for (auto e = net.start[i]; e < net.start[i + 1]; ++e) {
            if (crosses(i, net.to[e])) gain[i] -= flow(i, e) * step;
        }
    }
}

double Wetting::gained(const Moment& before) const {
    double sum = 0;
    for (std::uint32_t i = 0; i < count(); ++i) {
        if (before.state[i] != FlowState::wet)
            sum += net.volume[i] * std::max(0.0, after(i) - before.full[i]);
    }
    return sum;
}

double Wetting::room(const Moment& at) const {
    double sum = 0;
    for (std::uint32_t i = 0; i < count(); ++i) {
        if (at.state[i] == FlowState::empty || at.state[i] == FlowState::vent)
            sum += net.volume[i] * std::max(0.0, 1 - at.full[i]);
    }
    return sum;
}

double Wetting::after(std::size_t i) const {
    if (state[i] == FlowState::wet) return 1;
    if (state[i] == FlowState::empty) return full[i] + gain[i] / net.volume[i];
    if (state[i] == FlowState::vent) return std::min(1.0, full[i] + gain[i] / net.volume[i]);
    return full[i];
}

/// With every point wet, pressures are straight in 1/step, and the last point is the one that then comes down
/// to the front's.
Wetting::Full Wetting::just_full(const Moment& before, double step) {
    for (std::size_t i = 0; i < count(); ++i) {
        if (state[i] != FlowState::shut && after(i) < 1 - 1e-9) return {};
    }
    Full out;
    auto zero = b_;
    for (std::uint32_t i = 0; i < count(); ++i) {
        if (state[i] == FlowState::wet) zero[i] -= (before.full[i] - 1) * net.volume[i] / step;
    }
    // What a good solve leaves over in a step is far more than the last crumbs: both are read finely.
    finely(step);
    const auto now = p;
    pressure_.solve(state, zero, step, kTight, p);
    double needed = 0, latest = 0;
    for (std::uint32_t i = 0; i < count(); ++i) {
        if (before.full[i] >= 1 - 1e-9) continue;
        double at = 0;
        if (state[i] == FlowState::wet) {
            const double drop = (p[i] - now[i]) * step, room = p[i] - lowest_;
            if (room > 0) at = drop / room;
        } else if (state[i] == FlowState::vent) {
            // What flows in is straight in 1/step, too.
            const double given = gain[i] / step;
            double free = 0;
            for (auto e = net.start[i]; e < net.start[i + 1]; ++e) {
                if (crosses(i, net.to[e])) free -= flow(i, e);
            }
            if (free > 0) at = ((1 - before.full[i]) * net.volume[i] + (free - given) * step) / free;
        }
        needed = std::max(needed, at);
        // What was wet before is not what is wet last.
        if (before.state[i] != FlowState::wet && at > latest) {
            latest = at;
            out.last = i;
        }
    }
    p = now;
    if (needed > 0 && needed < step) out.step = needed * (1 + 1e-6);
    return out;
}

void Wetting::take(const Moment& before, double step) {
    for (std::uint32_t i = 0; i < count(); ++i) {
        if (state[i] != FlowState::wet) {
            full[i] = after(i);
            continue;
        }
        double out = 0;
        for (auto e = net.start[i]; e < net.start[i + 1]; ++e) {
            if (crosses(i, net.to[e])) out += flow(i, e);
        }
        full[i] -= out * step / net.volume[i];
    }
    for (const auto i : resting_) state[i] = before.state[i];
    resting_.clear();
    last_p_ = before.p;
    last_step_ = step;
}

}  // namespace jig
