#include "core/science/heat/kinetics.hpp"

#include <array>

namespace jig {
namespace {

/// One step of Bogacki and Shampine's pair (1989) over `N` states; the error of each is left in `error`.
template <std::size_t N, class Slope>
std::array<double, N> pair_step(const Slope& slope, const std::array<double, N>& y,
                                const std::array<double, N>& k1, double h, std::array<double, N>& error,
                                std::array<double, N>& k4) {
    std::array<double, N> at{};
    const auto step = [&](const auto&... terms) {
        for (std::size_t i = 0; i < N; ++i) at[i] = y[i] + h * (... + (terms.first * (*terms.second)[i]));
        return at;
    };
    const auto k2 = slope(step(std::pair{0.5, &k1}));
    const auto k3 = slope(step(std::pair{0.75, &k2}));
    const auto out = step(std::pair{2.0 / 9, &k1}, std::pair{1.0 / 3, &k2}, std::pair{4.0 / 9, &k3});
    k4 = slope(out);
    for (std::size_t i = 0; i < N; ++i)
        error[i] = h * (-5.0 / 72 * k1[i] + k2[i] / 12 + k3[i] / 9 - k4[i] / 8);
    return out;
}

/// Walks states forwards with steps by error until `until(t, y, t_before, y_before)` is true or `end` is
/// reached; returns the last time and states.
template <std::size_t N, class Slope, class Until>
std::pair<double, std::array<double, N>> walk(const Slope& slope, std::array<double, N> y,
                                              const std::array<double, N>& tolerance, double end,
                                              const Until& until) {
    double t = 0, h = std::min(end, 1.0);
    auto k1 = slope(y);
    std::array<double, N> error{}, k4{};
    for (int i = 0; i < 2000000 && t < end; ++i) {
        h = std::min(h, end - t);
        const auto next = pair_step<N>(slope, y, k1, h, error, k4);
        double worst = 0;
        for (std::size_t j = 0; j < N; ++j) worst = std::max(worst, std::abs(error[j]) / tolerance[j]);
        if (!(worst <= 1)) {
            h *= std::isfinite(worst) ? std::max(0.2, 0.9 / std::cbrt(worst)) : 0.1;
            if (h < 1e-12) break;
            continue;
        }
        const auto before = y;
        const double was = t;
        t += h;
        y = next;
        k1 = k4;
        if (until(t, y, was, before)) break;
        h *= std::min(4.0, 0.9 / std::cbrt(std::max(worst, 1e-3)));
    }
    return {t, y};
}

double power(double base, double exponent) {
    if (exponent == 0) return 1;
    if (exponent == 1) return base;
    if (exponent == 2) return base * base;
    return base <= 0 ? 0 : std::pow(base, exponent);
}

/// A power and its slope.
struct Power {
    double value = 0, slope = 0;
};

/// α^m. With m below 1 it leaves 0 with an upright tangent, at which a resin would start or not
/// as rounding has it: up to the α at which α^(1 − m) is kStart it is its own tangent from there, by which
/// nothing comes earlier or later than about kStart/k2.
constexpr double kStart = 1e-4;

Power growth(double a, double m) {
    if (m > 0 && m < 1 && a <= kStart) {
        const double from = std::max(1e-30, std::pow(kStart, 1 / (1 - m)));
        if (a < from) {
            const double there = std::pow(from, m);
            return {there * (1 - m + m * a / from), m * there / from};
        }
    }
    const double value = power(a, m);
    return {value, m == 1 ? 1 : a > 0 ? m * value / a : 0};
}

/// (1 − α)^n by what is left, and its slope. With n below 1 it comes down to 0 upright, which no implicit
/// step gets past: the last kEnd of a cure goes straight, on through 0 too.
constexpr double kEnd = 1e-6;

Power fall(double left, double n) {
    if (n < 1 && left < kEnd) {
        const double slope = std::pow(kEnd, n - 1);
        return {slope * left, slope};
    }
    const double value = power(left, n);
    return {value, n == 1 ? 1 : left > 0 ? n * value / left : 0};
}

/// The share of a step at whose end what rises from the first value to the second comes to `at`: a cubic
/// through both and their slopes over the step, by halving.
double share_until(double at, std::pair<double, double> from, std::pair<double, double> to) {
    double low = 0, high = 1;
    for (int i = 0; i < 50; ++i) {
        const double s = (low + high) / 2, q = s - 1;
        const double there = from.first * q * q * (1 + 2 * s) + to.first * s * s * (3 - 2 * s) +
                             from.second * s * q * q + to.second * s * s * q;
        (there < at ? low : high) = s;
    }
    return high;
}

/// Of a pot's heat and degree of cure.
auto in_a_pot(const Kinetics& k, double mass, double capacity, double start, double loss) {
    return [=, &k](const std::array<double, 2>& y) {
        // What is left at the very end is no heat, and stiff.
        const double rate = y[1] < 1 - kEnd ? cure_rate(k, y[0], y[1]).rate : 0;
        return std::array{k.heat * rate / capacity - loss * (y[0] - start) / (mass * capacity), rate};
    };
}

}  // namespace

CureRate cure_rate(const Kinetics& k, double T, double cure) {
    if (cure >= (k.n < 1 ? 1 + kEnd : 1)) return {};
    double g = 1, g_by_x = 0, x_by_cure = 0;
    if (k.glass) {
        const double x = (T + k.glass->lead - k.glass->at(cure)) / kGlassBand;
        if (x <= 0) return {};
        if (x < 1) {
            g = x * x * (3 - 2 * x);
            g_by_x = 6 * x * (1 - x);
            x_by_cure = -k.glass->slope(cure) / kGlassBand;
        }
    }
    const double inverse = 1 / (kGasConstant * T);
    const double k1 = k.A1 > 0 ? k.A1 * std::exp(-k.E1 * inverse) : 0;
    const double k2 = k.A2 > 0 ? k.A2 * std::exp(-k.E2 * inverse) : 0;
    const double a = std::max(cure, 0.0), left = 1 - a;
    const auto grows = growth(a, k.m);
    const auto falls = fall(left, k.n);
    const double speed = k1 + k2 * grows.value, chemical = speed * falls.value;
    CureRate out;
    out.rate = chemical * g;
    out.by_cure = (k2 * grows.slope * falls.value - speed * falls.slope) * g + chemical * g_by_x * x_by_cure;
    out.by_T = (k1 * k.E1 + k2 * grows.value * k.E2) * inverse / T * falls.value * g +
               chemical * g_by_x / kGlassBand;
    return out;
}

double cure_after(const Kinetics& k, double T, double seconds, double cure) {
    const auto slope = [&](const std::array<double, 1>& y) { return std::array{cure_rate(k, T, y[0]).rate}; };
    const double full = k.n < 1 ? 1 - kEnd : 1;
    const auto end = walk<1>(slope, {cure}, {1e-7}, seconds,
                             [&](double, const auto& y, double, const auto&) { return y[0] >= full; });
    return end.second[0] >= full ? 1 : end.second[0];
}

std::optional<double> gel_time(const Kinetics& k, double T, double longest) {
    if (k.glass && k.glass->at(k.gel) >= T + k.glass->lead) return {};
    const auto slope = [&](const std::array<double, 1>& y) { return std::array{cure_rate(k, T, y[0]).rate}; };
    std::optional<double> out;
    walk<1>(slope, {0.0}, {1e-7}, longest, [&](double t, const auto& y, double was, const auto& before) {
        if (y[0] < k.gel) return false;
        out = was + (t - was) * share_until(k.gel, {before[0], slope(before)[0] * (t - was)},
                                            {y[0], slope(y)[0] * (t - was)});
        return true;
    });
    return out;
}

PotPeak pot_peak(const Kinetics& k, double mass, double capacity, double start, double loss) {
    const auto slope = in_a_pot(k, mass, capacity, start, loss);
    PotPeak out{start, 0};
    walk<2>(slope, {start, 0.0}, {1e-4, 1e-7}, 1e7, [&](double t, const auto& y, double, const auto&) {
        if (y[0] > out.T) out = {y[0], t};
        // Nothing is left that could warm it again.
        return y[1] > 0.02 && slope(y)[0] < 0 && y[0] < out.T - 0.05 * (out.T - start);
    });
    return out;
}

double pot_cure(const Kinetics& k, double mass, double capacity, double start, double loss, double seconds) {
    return walk<2>(in_a_pot(k, mass, capacity, start, loss), {start, 0.0}, {1e-4, 1e-7}, seconds,
                   [](double, const auto&, double, const auto&) { return false; })
        .second[1];
}

std::optional<double> pot_until(const Kinetics& k, double mass, double capacity, double start, double loss,
                                double cure, double longest) {
    const auto slope = in_a_pot(k, mass, capacity, start, loss);
    std::optional<double> out;
    walk<2>(slope, {start, 0.0}, {1e-4, 1e-7}, longest,
            [&](double t, const auto& y, double was, const auto& before) {
                if (y[1] < cure) return false;
                out = was + (t - was) * share_until(cure, {before[1], slope(before)[1] * (t - was)},
                                                    {y[1], slope(y)[1] * (t - was)});
                return true;
            });
    return out;
}

}  // namespace jig
