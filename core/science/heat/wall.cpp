#include "core/science/heat/wall.hpp"

#include <fmt/format.h>

#include <Eigen/Core>
#include <numbers>
#include <numeric>

#include "core/base/error.hpp"

namespace jig {
namespace {

using Values = std::vector<double>;

/// The wall in cells, smaller towards each layer's faces.
struct Cells {
    struct Range {
        std::size_t from = 0, to = 0;
    };
    std::vector<Range> layers;
    Values half;      ///< m²·K/W from a cell's middle to its face
    Values held;      ///< J/(m²·K)
    Values releases;  ///< J/m² of its resin from fresh to full
    Values conducts;  ///< W/(m²·K) to the cell before; of the first to the side, one more than cells
    std::vector<const Kinetics*> resin;
    [[nodiscard]] std::size_t count() const { return held.size(); }
};

Cells cells_of(const Wall& wall, int wanted) {
    Cells out;
    double deep = 0;
    const auto depth = [](const WallLayer& l) {
        return l.thickness * std::sqrt(l.density * l.capacity / l.conductivity);
    };
    for (const auto& l : wall.layers) deep += depth(l);
    for (const auto& l : wall.layers) {
        // Odd, so that one cell lies in the middle.
        const int n = 2 * std::max(3, static_cast<int>(std::lround(wanted * depth(l) / deep / 2))) + 1;
        const auto place = [&](int i) {
            const double s = static_cast<double>(i) / n;
            return l.thickness * (s - 0.6 * std::sin(2 * std::numbers::pi * s) / (2 * std::numbers::pi));
        };
        out.layers.push_back({out.count(), out.count() + static_cast<std::size_t>(n)});
        for (int i = 0; i < n; ++i) {
            const double size = place(i + 1) - place(i);
            out.half.push_back(size / 2 / l.conductivity);
            out.held.push_back(size * l.density * l.capacity);
            out.releases.push_back(l.resin ? size * l.resin_density * l.resin->heat : 0);
            out.resin.push_back(l.resin ? &*l.resin : nullptr);
        }
    }
    const auto side = [](const WallSide& s, double half) {
        if (!s.transfer) return 1 / half;
        return *s.transfer > 0 ? 1 / (1 / *s.transfer + half) : 0;
    };
    out.conducts.push_back(side(wall.sides[0], out.half.front()));
    for (std::size_t i = 1; i < out.count(); ++i) out.conducts.push_back(1 / (out.half[i - 1] + out.half[i]));
    out.conducts.push_back(side(wall.sides[1], out.half.back()));
    return out;
}

/// One figure for each cell, taken several at a time.
using Column = Eigen::ArrayXd;

/// State of all cells and its slope.
struct State {
    Column T, cure, T_slope, cure_slope;
};

/// The tridiagonal system of one stage, kept to filter the error with. Eliminated from both ends towards the
/// middle: neither of the two chains waits for the other.
struct Tridiagonal {
    Column lower, diagonal, upper;
    /// Of seven rows or more, as every layer has.
    explicit Tridiagonal(Eigen::Index n)
        : lower(n),
          diagonal(n),
          upper(n),
          link_(n),
          pivot_(n),
          last_(n - 1),
          middle_((n - 1) / 2),
          odd_one_(n % 2 == 0) {}
    /// Eliminates and solves at once.
    void factor_and_solve(Column& x) {
        // What lies outside the first and the last row is the sides'.
        double up = 0, down = 0, before = 0, behind = 0;  // of the rows before and behind
        const auto from_front = [&](Eigen::Index i, double below) {
            pivot_[i] = 1 / (diagonal[i] - below * up);
            up = link_[i] = upper[i] * pivot_[i];
            before = x[i] = (x[i] - below * before) * pivot_[i];
        };
        const auto from_back = [&](Eigen::Index i, double above) {
            pivot_[i] = 1 / (diagonal[i] - above * down);
            down = link_[i] = lower[i] * pivot_[i];
            behind = x[i] = (x[i] - above * behind) * pivot_[i];
        };
        from_front(0, 0);
        from_back(last_, 0);
        const auto m = middle_;
        for (Eigen::Index i = 1; i < m; ++i) {
            from_front(i, lower[i]);
            from_back(last_ - i, upper[last_ - i]);
        }
        if (odd_one_) from_back(m + 1, upper[m + 1]);
        pivot_[m] = 1 / (diagonal[m] - lower[m] * up - upper[m] * down);
        x[m] = (x[m] - lower[m] * before - upper[m] * behind) * pivot_[m];
        back(x);
    }
    /// Once more for other right-hand sides.
    void solve(Column& x) const {
        x[0] *= pivot_[0];
        x[last_] *= pivot_[last_];
        const auto from_back = [&](Eigen::Index i) { x[i] = (x[i] - upper[i] * x[i + 1]) * pivot_[i]; };
        const auto m = middle_;
        for (Eigen::Index i = 1; i < m; ++i) {
            x[i] = (x[i] - lower[i] * x[i - 1]) * pivot_[i];
            from_back(last_ - i);
        }
        if (odd_one_) from_back(m + 1);
        x[m] = (x[m] - lower[m] * x[m - 1] - upper[m] * x[m + 1]) * pivot_[m];
        back(x);
    }

  private:
    void back(Column& x) const {
        if (odd_one_) x[middle_ + 1] -= link_[middle_ + 1] * x[middle_];
        for (auto i = middle_; i-- > 0;) {
            x[i] -= link_[i] * x[i + 1];
            x[last_ - i] -= link_[last_ - i] * x[last_ - i - 1];
        }
    }
    Column link_, pivot_;
    Eigen::Index last_, middle_;
    bool odd_one_;  ///< whether one more row lies behind the middle than before it
};

class Solver {
  public:
    Solver(const Wall& wall, const WallRules& rules)
        : wall_(wall),
          cells_(cells_of(wall, rules.cells)),
          n_(static_cast<Eigen::Index>(cells_.count())),
          matrix_(n_),
          residual_(n_),
          conducts_(column(cells_.conducts)),
          per_held_(1 / column(cells_.held)),
          releases_(column(cells_.releases)),
          rate_(Column::Zero(n_)),
          rate_by_T_(Column::Zero(n_)) {
        now_.T = Column::Constant(n_, wall.start);
        now_.cure = Column::Zero(n_);
        for (std::size_t l = 0; l < wall.layers.size(); ++l) {
            for (auto i = cells_.layers[l].from; i < cells_.layers[l].to; ++i) {
                now_.cure[static_cast<Eigen::Index>(i)] = wall.layers[l].cure;
                if (cells_.resin[i] != nullptr)
                    reacting_.emplace_back(static_cast<Eigen::Index>(i), cells_.resin[i]);
            }
        }
        first_cure_ = now_.cure;
        slopes(0);
        mid_ = next_ = now_;
    }

    [[nodiscard]] const State& now() const { return now_; }
    [[nodiscard]] const Cells& cells() const { return cells_; }

    /// Tries a step of `h` s from `t` on; the error in tolerances, or none where it cannot be solved.
    std::optional<double> attempt(double t, double h, double tolerance) {
        // What a round leaves is as the square of its change: a few millionths of a kelvin, far below the
        // tolerance and below a millionth of the balance of energy.
        const double c = kD * h, near = std::min(1e-2, tolerance);
        prepare(c);
        base_T_ = now_.T + c * now_.T_slope;
        base_cure_ = now_.cure + c * now_.cure_slope;
        mid_.T = now_.T + kGamma * h * now_.T_slope;
        mid_.cure = onward(now_.cure, kGamma * h * now_.cure_slope);
        if (!stage(mid_, c, t + kGamma * h, near)) return {};
        const double of_mid = 1 / (kGamma * (2 - kGamma)), of_now = 1 - of_mid;
        base_T_ = of_mid * mid_.T + of_now * now_.T;
        base_cure_ = of_mid * mid_.cure + of_now * now_.cure;
        next_.T = mid_.T + (1 - kGamma) * h * mid_.T_slope;
        next_.cure = onward(mid_.cure, (1 - kGamma) * h * mid_.cure_slope);
        if (!stage(next_, c, t + h, near)) return {};
        const double by_now = h * (1 - 4 * kW) / 3, by_mid = h / 3, by_next = -h * 2 * kD / 3;
        residual_ = by_now * now_.T_slope + by_mid * mid_.T_slope + by_next * next_.T_slope;
        // What is stiff has died away: the error is judged behind the implicit matrix.
        matrix_.solve(residual_);
        const double of_T = most_of(residual_),
                     of_cure = most_of(by_now * now_.cure_slope + by_mid * mid_.cure_slope +
                                       by_next * next_.cure_slope);
        if (!std::isfinite(of_T + of_cure)) return {};
        return std::max(of_T, of_cure / 0.01) / tolerance;
    }

    /// Takes the step that was last tried.
    void take(double t, double h, WallHistory& sums) {
        const auto flows = [&](const State& s, double time, double weight) {
            for (const auto& [air, cell, conducts] :
                 {std::tuple{wall_.sides[0].air.at(time), s.T[0], cells_.conducts.front()},
                  std::tuple{wall_.sides[1].air.at(time), s.T[n_ - 1], cells_.conducts.back()}}) {
                const double q = weight * conducts * (air - cell);
                (q > 0 ? sums.in : sums.lost) += std::abs(q);
            }
        };
        flows(now_, t, kW * h);
        flows(mid_, t + kGamma * h, kW * h);
        flows(next_, t + h, kD * h);
        std::swap(now_, next_);
    }

    void close(WallHistory& sums) const {
        sums.held += ((now_.T - wall_.start) / per_held_).sum();
        sums.reaction += (releases_ * (now_.cure - first_cure_)).sum();
    }

    /// K of the face before cell `i`; of the last face for i = cells. `air` of both sides at this moment.
    [[nodiscard]] double face(std::size_t i, double time) const {
        if (i == 0 || i == cells_.count()) {
            const auto& side = wall_.sides[i == 0 ? 0 : 1];
            if (!side.transfer) return side.air.at(time);
            const double cell = i == 0 ? now_.T[0] : now_.T[n_ - 1],
                         half = i == 0 ? cells_.half.front() : cells_.half.back(),
                         q = cells_.conducts[i] * (side.air.at(time) - cell);
            return cell + q * half;
        }
        const double a = 1 / cells_.half[i - 1], b = 1 / cells_.half[i];
        return (a * now_.T[i - 1] + b * now_.T[i]) / (a + b);
    }

  private:
    static constexpr double kGamma = 2 - std::numbers::sqrt2, kD = kGamma / 2, kW = std::numbers::sqrt2 / 4;

    static double most_of(const auto& changes) {
        return changes.abs().template maxCoeff<Eigen::PropagateNaN>();
    }
    static Eigen::Map<const Column> column(const Values& of) {
        return {of.data(), static_cast<Eigen::Index>(of.size())};
    }

    void slopes(double time) {
        now_.cure_slope = Column::Zero(n_);
        for (const auto& [i, resin] : reacting_)
            now_.cure_slope[i] = cure_rate(*resin, now_.T[i], now_.cure[i]).rate;
        Column flow(n_ + 1);  // W/m² from each cell to the one behind it
        flow[0] = wall_.sides[0].air.at(time) - now_.T[0];
        flow.segment(1, n_ - 1) = now_.T.head(n_ - 1) - now_.T.tail(n_ - 1);
        flow[n_] = now_.T[n_ - 1] - wall_.sides[1].air.at(time);
        flow *= conducts_;
        now_.T_slope = (flow.head(n_) - flow.tail(n_) + releases_ * now_.cure_slope) * per_held_;
    }

    /// Where a cure is looked for first: on its way, but not beyond half of what is left of it.
    static Column onward(const Column& cure, const Column& by) { return cure + by.min(0.5 * (1 - cure)); }

    /// What of the matrix of z = base + c·slope(z) no cure changes.
    void prepare(double c) {
        matrix_.lower = -c * per_held_ * conducts_.head(n_);
        matrix_.upper = -c * per_held_ * conducts_.tail(n_);
        still_ = 1 - matrix_.lower - matrix_.upper;
        warms_ = c * per_held_ * releases_;
    }

    /// Solves z = base + c·slope(z) for cure and temperature, until a round changes less than `near` K; false
    /// where it does not converge.
    bool stage(State& z, double c, double time, double near) {
        const double before = wall_.sides[0].air.at(time), behind = wall_.sides[1].air.at(time);
        double last = 1e300;
        for (int round = 0; round < 12; ++round) {
            bool reacts = false;
            for (const auto& [i, resin] : reacting_) {
                if (!cure_of(*resin, z, i, c)) return false;
                reacts |= rate_[i] != 0 || rate_by_T_[i] != 0;
            }
            matrix_.diagonal = still_ - warms_ * rate_by_T_;
            residual_ = base_T_ + warms_ * rate_ - still_ * z.T;
            residual_.tail(n_ - 1) -= matrix_.lower.tail(n_ - 1) * z.T.head(n_ - 1);
            residual_.head(n_ - 1) -= matrix_.upper.head(n_ - 1) * z.T.tail(n_ - 1);
            residual_[0] -= matrix_.lower[0] * before;
            residual_[n_ - 1] -= matrix_.upper[n_ - 1] * behind;
            matrix_.factor_and_solve(residual_);
            z.T += residual_;
            const double most = most_of(residual_);
            if (!std::isfinite(most) || (round > 3 && most > last)) return false;
            last = most;
            // What a round leaves goes with the square of its change, and is nothing where nothing reacts.
            if (most < near || !reacts) break;
            if (round == 11) return false;
        }
        z.T_slope = (z.T - base_T_) / c;
        // The last round moved T by so little that its own slope takes the cure along.
        z.cure_slope = rate_ + rate_by_T_ * residual_;
        z.cure = base_cure_ + c * z.cure_slope;
        return true;
    }

    /// α = base + c·rate(T, α) of one cell; the rate there, and how it follows T with α in step.
    bool cure_of(const Kinetics& k, State& z, Eigen::Index i, double c) {
        double& a = z.cure[i];
        for (int round = 0; round < 30; ++round) {
            const auto r = cure_rate(k, z.T[i], a);
            const double stiff = 1 - c * r.by_cure;
            // Where a step is so long that several cures fit it, it is too long.
            if (!(stiff > 0.1)) return false;
            const double change = (base_cure_[i] + c * r.rate - a) / stiff;
            // Of what there is: a resin that its own product sets going begins with next to none. What a
            // round leaves goes with the square of its change.
            const bool near = std::abs(change) <= 1e-5 * std::abs(a);
            a += change;
            if (near) {
                rate_[i] = (a - base_cure_[i]) / c;
                rate_by_T_[i] = r.by_T / stiff;
                return true;
            }
        }
        return false;
    }

    const Wall& wall_;
    Cells cells_;
    Eigen::Index n_;
    std::vector<std::pair<Eigen::Index, const Kinetics*>> reacting_;  ///< cells with resin
    State now_, mid_, next_;
    Tridiagonal matrix_;
    Column residual_, base_T_, base_cure_, first_cure_;
    Column conducts_, per_held_, releases_;  ///< of the cells; m²·K/J
    Column still_, warms_;                   ///< the matrix without cure, and K·s of its rate
    Column rate_, rate_by_T_;  ///< of cure in the last round, and how it follows T with α in step
};

/// What is read off the cells as time goes.
class Recorder {
  public:
    Recorder(const Wall& wall, const Solver& solver, WallHistory& out)
        : wall_(wall), solver_(solver), out_(out) {
        double at = 0;
        for (std::size_t l = 0; l < wall.layers.size(); ++l) {
            const double d = wall.layers[l].thickness;
            for (const double share : {0.0, 0.5, 1.0}) {
                auto& place = out.places.emplace_back();
                place.layer = l;
                place.at = at + share * d;
            }
            at += d;
            if (!wall.layers[l].resin) continue;
            auto& gel = out.gels.emplace_back();
            gel.layer = l;
            const bool gelled = wall.layers[l].cure >= wall.layers[l].resin->gel;
            if (gelled) gel.first = gel.all = 0;
            lowest_.push_back(wall.layers[l].cure);
            highest_.push_back(wall.layers[l].cure);
        }
        out.peak = -1;
        out.hottest.assign(wall.layers.size(), {wall.start, 0});
        within_.assign(wall.layers.size(), -1e300);
    }

    /// After a step, from `was` to `time`.
    void look(double was, double time) {
        const auto& T = solver_.now().T;
        double low = 1e300, high = -1e300, before = solver_.face(0, time);
        for (std::size_t l = 0; l < out_.hottest.size(); ++l) {
            const auto range = solver_.cells().layers[l];
            double cold = 1e300, hot = -1e300;
            for (auto i = range.from; i < range.to; ++i) {
                cold = std::min(cold, T[i]);
                hot = std::max(hot, T[i]);
            }
            within_[l] = std::max(within_[l], hot);
            const double behind = solver_.face(range.to, time);
            cold = std::min({cold, before, behind});
            hot = std::max({hot, before, behind});
            before = behind;
            low = std::min(low, cold);
            high = std::max(high, hot);
            if (hot > out_.hottest[l].T) out_.hottest[l] = {hot, time};
        }
        out_.lag = std::max(out_.lag, high - low);
        if (high > out_.peak) {
            out_.peak = high;
            out_.peak_time = time;
        }
        for (std::size_t g = 0; g < out_.gels.size(); ++g) {
            auto& gel = out_.gels[g];
            const auto range = solver_.cells().layers[gel.layer];
            const auto& cure = solver_.now().cure;
            const auto [least, most] =
                std::minmax_element(cure.begin() + static_cast<std::ptrdiff_t>(range.from),
                                    cure.begin() + static_cast<std::ptrdiff_t>(range.to));
            gel.peak = std::max(gel.peak, within_[gel.layer]);
            const double wanted = wall_.layers[gel.layer].resin->gel;
            const auto crossed = [&](double then, double now) {
                return was + (time - was) * (now > then ? (wanted - then) / (now - then) : 1);
            };
            if (!gel.first && *most >= wanted) gel.first = crossed(highest_[g], *most);
            if (!gel.all && *least >= wanted) gel.all = crossed(lowest_[g], *least);
            lowest_[g] = *least;
            highest_[g] = *most;
        }
    }

    void write(double time) {
        out_.times.push_back(time);
        const auto& cure = solver_.now().cure;
        for (std::size_t p = 0; p < out_.places.size(); ++p) {
            auto& place = out_.places[p];
            const auto range = solver_.cells().layers[place.layer];
            const auto& resin = wall_.layers[place.layer].resin;
            const auto middle = (range.from + range.to) / 2;
            const auto which = p % 3;
            place.T.push_back(which == 0   ? solver_.face(range.from, time)
                              : which == 1 ? solver_.now().T[middle]
                                           : solver_.face(range.to, time));
            if (!resin) continue;
            // At a face, straight on from the two cells next to it.
            const auto edge = [&](std::size_t first, std::size_t second) {
                const double a = solver_.cells().half[first], b = solver_.cells().half[second];
                return cure[first] + (cure[first] - cure[second]) * a / (a + b);
            };
            const double a = std::clamp(which == 0   ? edge(range.from, range.from + 1)
                                        : which == 1 ? cure[middle]
                                                     : edge(range.to - 1, range.to - 2),
                                        0.0, 1.0);
            // Straight on may overshoot where a layer begins to cure from within; cure never goes back.
            place.cure.push_back(place.cure.empty() ? a : std::max(a, place.cure.back()));
            if (resin->glass) place.Tg.push_back(resin->glass->at(place.cure.back()));
        }
    }

    void close() {
        for (auto& gel : out_.gels) {
            const auto range = solver_.cells().layers[gel.layer];
            const auto& cure = solver_.now().cure;
            gel.cure = std::min(1.0, *std::min_element(cure.begin() + static_cast<std::ptrdiff_t>(range.from),
                                                       cure.begin() + static_cast<std::ptrdiff_t>(range.to)));
            if (const auto& glass = wall_.layers[gel.layer].resin->glass) gel.Tg = glass->at(gel.cure);
        }
    }

  private:
    const Wall& wall_;
    const Solver& solver_;
    WallHistory& out_;
    Values lowest_, highest_;  ///< degree of cure in each layer that cures
    Values within_;            ///< K of each layer's hottest cell so far
};

/// s in which air or a held face goes from one temperature to another at once: cells next to a face settle in
/// far less, and no step could be short enough to follow that from a jump.
constexpr double kJump = 1e-3;

/// The wall with every jump of its sides taken in kJump, at the start too.
Wall eased(Wall wall) {
    for (auto& side : wall.sides) {
        auto& corners = side.air.corners;
        const double first = side.air.at(0);
        if (!side.transfer && first != wall.start) {
            std::erase_if(corners, [](const Course::Corner& c) { return c.time <= 0; });
            corners.insert(corners.begin(), {{0, wall.start}, {kJump, first}});
        }
        for (std::size_t i = 1; i < corners.size(); ++i)
            corners[i].time = std::max(corners[i].time, corners[i - 1].time + kJump);
    }
    return wall;
}

}  // namespace

WallHistory warm(const Wall& sharp, const WallRules& rules, Progress& progress) {
    const Wall wall = eased(sharp);
    WallHistory out;
    Solver solver(wall, rules);
    Recorder recorder(wall, solver, out);
    Values asked = rules.at;
    if (asked.empty()) {
        for (int i = 0; i <= 240; ++i) asked.push_back(rules.end * i / 240);
    }
    // Steps end on what is asked for and on the corners of the air.
    Values stops = asked;
    stops.push_back(rules.end);
    for (const auto& side : wall.sides) {
        for (const auto& corner : side.air.corners) stops.push_back(corner.time);
    }
    std::sort(stops.begin(), stops.end());
    const double last = std::max(rules.end, asked.back());
    double t = 0, h = std::min(1.0, last / 1000);
    recorder.look(0, 0);
    std::size_t written = 0;
    const auto write_up_to = [&] {
        for (; written < asked.size() && asked[written] <= t; ++written) recorder.write(asked[written]);
    };
    write_up_to();
    auto stop = std::upper_bound(stops.begin(), stops.end(), t);
    while (t < last) {
        while (stop != stops.end() && *stop <= t) ++stop;
        const double to = stop != stops.end() ? std::min(*stop, last) : last;
        const double longest = rules.longest > 0 ? rules.longest : last;
        const double room = to - t, wanted = std::min(h, longest);
        // Not a sliver before a stop.
        const double step = wanted >= room ? room : wanted > 0.6 * room ? room / 2 : wanted;
        const auto error = solver.attempt(t, step, rules.tolerance);
        if (!error || *error > 1) {
            h = error ? step * std::max(0.2, 0.9 / std::cbrt(*error)) : step / 4;
            if (h < 1e-7)
                throw InputError("wall", fmt::format("its cure runs away after {:.4g} s", t),
                                 "look at the resin's constants and its heat of reaction");
            continue;
        }
        solver.take(t, step, out);
        const double was = t;
        t = step == room ? to : t + step;
        if (++out.steps % 64 == 0) progress.report(t / last, "warming the wall");
        recorder.look(was, t);
        write_up_to();
        const double grown = step * std::min(3.0, 0.9 / std::cbrt(std::max(*error, 0.02)));
        // A step cut short by a stop does not make the next one start small.
        h = step < wanted ? std::max(h, grown) : grown;
    }
    recorder.close();
    solver.close(out);
    return out;
}

}  // namespace jig
