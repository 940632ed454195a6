#include "core/science/heat/cure_fit.hpp"

#include <fmt/format.h>

#include <Eigen/Dense>
#include <unsupported/Eigen/NonLinearOptimization>
#include <unsupported/Eigen/NumericalDiff>

#include "core/base/error.hpp"
#include "core/science/heat/pot.hpp"

namespace jig {
namespace {

/// Places in the vector that is sought.
enum Sought : Eigen::Index {
    speed,
    energy,
    ratio,
    apart,
    power_m,
    power_n,
    warmth,
    fresh,
    full,
    bend,
    cooling,
    kSought
};

constexpr double kGelShare = 0.02;  ///< what a gel time is good for, share
constexpr double kPotShare = 0.03;  ///< the rise of a pot and its time
constexpr double kGlassGood = 2.0;  ///< K of a Tg

struct Problem {
    const CureData& data;
    double reference;  ///< K, the middle of the gel times' temperatures
    Kinetics usual;
    double lead;
    Eigen::VectorXd start, spread;

    using Scalar = double;
    using InputType = Eigen::VectorXd;
    using ValueType = Eigen::VectorXd;
    using JacobianType = Eigen::MatrixXd;
    enum { InputsAtCompileTime = Eigen::Dynamic, ValuesAtCompileTime = Eigen::Dynamic };
    [[nodiscard]] int inputs() const { return kSought; }
    [[nodiscard]] int values() const {
        return static_cast<int>(data.gels.size() + (data.pot ? 2 : 0) + data.glass.size()) + kSought;
    }

    explicit Problem(const CureData& d) : data(d), usual(typical_kinetics(d.family)) {
        double sum = 0;
        for (const auto& g : d.gels) sum += 1 / g.T;
        reference = static_cast<double>(d.gels.size()) / sum;
        lead = usual.glass ? usual.glass->lead : 10;
        double hottest = 0;
        for (const auto& g : d.glass) {
            // What stands above its cure's heat says how far this resin runs past it.
            lead = std::max(lead, std::min(80.0, g.Tg - g.cure_T + 1));
            hottest = std::max(hottest, g.Tg);
        }
        if (d.lead) lead = *d.lead;
        start = Eigen::VectorXd::Zero(kSought);
        spread = start;
        const auto set = [&](Sought i, double value, double sd) {
            start[i] = value;
            spread[i] = sd;
        };
        set(energy, usual.E2, 15e3);
        set(ratio, std::log(usual.A1 / usual.A2), 0.7);
        set(apart, 0, 5e3);
        set(power_m, usual.m, 0.15);
        set(power_n, usual.n, 0.25);
        set(warmth, std::log(d.heat.value_or(usual.heat)), d.heat ? 1e-3 : 0.15);
        const GlassCurve glass = usual.glass.value_or(GlassCurve{});
        set(fresh, glass.fresh, 12);
        set(full, hottest > 0 ? std::max(hottest + 5, glass.fresh + 40) : glass.full, 30);
        set(bend, std::log(glass.lambda / (1 - glass.lambda)), 0.4);
        if (usual.glass) let_gel(d);
        set(cooling, d.pot ? std::log(pot_loss(d.pot->mass)) : 0, 0.3);
        // Speed by the first gel time, all else as usual.
        set(speed, 0, 1e3);
        const auto first = d.gels[d.gels.size() / 2];
        auto k = kinetics(start);
        k.glass.reset();
        if (const auto t = gel_time(k, first.T, 1e12)) start[speed] = std::log(*t / first.time);
    }

    /// It has gelled where the sheet says so, so it was no glass there: the curve starts out low enough.
    void let_gel(const CureData& d) {
        const auto coldest = std::min_element(d.gels.begin(), d.gels.end(),
                                              [](const auto& a, const auto& b) { return a.T < b.T; });
        const double most = coldest->T + lead - kGlassBand / 2, gel = usual.gel;
        start[fresh] = std::min(start[fresh], most - kGlassBand);
        const double share = (most - start[fresh]) / (start[full] - start[fresh]);
        if (!(share < 1)) return;
        const double lambda = share * (1 - gel) / (gel * (1 - share));
        if (lambda < 1) start[bend] = std::min(start[bend], std::log(lambda / (1 - lambda)));
    }

    [[nodiscard]] Kinetics kinetics(const Eigen::VectorXd& x) const {
        Kinetics k = usual;
        k.E2 = x[energy];
        k.E1 = x[energy] + x[apart];
        k.A2 = std::exp(x[speed] + k.E2 / (kGasConstant * reference));
        k.A1 = std::exp(x[speed] + x[ratio] + k.E1 / (kGasConstant * reference));
        k.m = std::clamp(x[power_m], 0.05, 3.0);
        k.n = std::clamp(x[power_n], 0.2, 4.0);
        k.heat = std::exp(x[warmth]);
        if (k.glass) {
            k.glass->fresh = x[fresh];
            k.glass->full = std::max(x[full], x[fresh] + 20);
            k.glass->lambda = 1 / (1 + std::exp(-x[bend]));
            k.glass->lead = lead;
        }
        return k;
    }

    int operator()(const Eigen::VectorXd& x, Eigen::VectorXd& out) const {
        const auto k = kinetics(x);
        Eigen::Index i = 0;
        for (const auto& g : data.gels) {
            // What turns to glass first takes as long as one can wait, and longer the earlier it does: so a
            // search that begins there finds its way out.
            const double early =
                k.glass ? std::max(0.0, k.glass->at(k.gel) - g.T - k.glass->lead) / kGlassBand : 0;
            const double t = gel_time(k, g.T, 1e4 * g.time).value_or(1e4 * g.time);
            out[i++] = (std::log(t / g.time) + early) / kGelShare;
        }
        if (data.pot) {
            const auto& p = *data.pot;
            const auto peak = pot_peak(k, p.mass, kPotCapacity, p.start, std::exp(x[cooling]));
            out[i++] = std::log(std::max(peak.T - p.start, 1e-3) / (p.peak - p.start)) / kPotShare;
            out[i++] = std::log(std::max(peak.time, 1e-3) / p.peak_time) / kPotShare;
        }
        for (const auto& g : data.glass)
            out[i++] = (k.glass->at(cure_after(k, g.cure_T, g.cure_time)) - g.Tg) / kGlassGood;
        for (Eigen::Index j = 0; j < kSought; ++j) out[i++] = (x[j] - start[j]) / spread[j];
        return 0;
    }
};

}  // namespace

Kinetics typical_kinetics(CureFamily family) {
    switch (family) {
        case CureFamily::epoxy:
            return {0.1, 55e3, 1, 55e3, 0.6, 1.5, 0.6, 400e3, GlassCurve{253.15, 358.15, 0.4, 10}};
        case CureFamily::styrene:
            // Flat enough that what a shop lays in one go does not run away, as it does not.
            return {0.1, 60e3, 1, 60e3, 0.5, 1.8, 0.15, 350e3, GlassCurve{233.15, 373.15, 0.5, 20}};
        case CureFamily::mineral:
            break;
    }
    return {0.1, 40e3, 1, 40e3, 0.9, 1.2, 0.3, 80e3, {}};
}

Kinetics kinetics_by_gel(CureFamily family, double T, double time, double Tg, double lead) {
    auto k = typical_kinetics(family);
    auto bare = k;
    bare.glass.reset();
    if (k.glass) {
        k.glass->full = std::max(Tg, k.glass->fresh + 20);
        k.glass->lead = lead;
    }
    // Times go as 1 ÷ speed while nothing turns to glass: from a speed near 1 each second, so exactly.
    const double lift = std::exp(k.E2 / (kGasConstant * T));
    bare.A1 *= lift;
    bare.A2 *= lift;
    const double scale = gel_time(bare, T).value_or(time) / time * lift;
    k.A1 *= scale;
    k.A2 *= scale;
    // Where it comes near to glass before it gels, that has held it up.
    for (int i = 0; i < 8; ++i) {
        const auto t = gel_time(k, T, 1e4 * time);
        if (!t || std::abs(*t / time - 1) < 1e-3) break;
        k.A1 *= *t / time;
        k.A2 *= *t / time;
    }
    return k;
}

double CureFit::gel_spread(double T) const {
    const double away = (1 / T - 1 / mean_T) / kGasConstant;
    return std::hypot(ln_spread, E_spread * away);
}

CureFit fit_cure(const CureData& data) {
    if (data.gels.empty())
        throw InputError("gel_times", "no gel time is given",
                         "give it at one temperature at least, better at two");
    if (data.family == CureFamily::mineral && !data.glass.empty())
        throw InputError("Tg", "a plaster has no glass transition", "leave it empty");
    for (const auto& a : data.gels) {
        for (const auto& b : data.gels) {
            if (b.T > a.T + 1 && b.time > 1.05 * a.time)
                throw InputError("gel_times", fmt::format("it gels later at {:g} K than at {:g} K", b.T, a.T),
                                 "warmer is quicker: look the two figures up again");
        }
    }
    if (data.pot && data.pot->peak <= data.pot->start)
        throw InputError("pot", "the peak is no warmer than the start", "give both in kelvin");
    const Problem problem(data);
    Eigen::VectorXd x = problem.start;
    Eigen::NumericalDiff<Problem, Eigen::Central> slopes(problem, 1e-9);
    Eigen::LevenbergMarquardt<Eigen::NumericalDiff<Problem, Eigen::Central>> solver(slopes);
    solver.parameters.maxfev = 4000;
    solver.parameters.xtol = 1e-9;
    solver.parameters.ftol = 1e-12;
    solver.minimize(x);
    CureFit out;
    out.kinetics = problem.kinetics(x);
    Eigen::VectorXd misses(problem.values());
    problem(x, misses);
    double squares = 0, chi = 0;
    const auto told = problem.values() - kSought;
    for (Eigen::Index i = 0; i < told; ++i) {
        const auto gels = static_cast<Eigen::Index>(data.gels.size());
        const double share = i < gels                        ? misses[i] * kGelShare
                             : i < gels + (data.pot ? 2 : 0) ? misses[i] * kPotShare
                                                             : misses[i] * kGlassGood / 100;
        squares += share * share;
        chi += misses[i] * misses[i];
    }
    out.misfit = std::sqrt(squares / static_cast<double>(told));
    Eigen::MatrixXd jacobian(problem.values(), static_cast<Eigen::Index>(kSought));
    slopes.df(x, jacobian);
    // Figures that scatter more than they are said to are worth less.
    const double scatter = std::max(1.0, std::sqrt(chi / static_cast<double>(told)));
    const Eigen::MatrixXd spread = (jacobian.transpose() * jacobian).inverse() * scatter * scatter;
    out.E_spread = std::sqrt(spread(energy, energy));
    out.mean_T = problem.reference;
    // Of a gel time at the middle: by all that moves it, which the gel times' own rows tell.
    out.ln_spread = kGelShare * scatter / std::sqrt(static_cast<double>(data.gels.size()));
    const bool ranged = [&] {
        const auto [low, high] = std::minmax_element(data.gels.begin(), data.gels.end(),
                                                     [](const auto& a, const auto& b) { return a.T < b.T; });
        return high->T - low->T > 3;
    }();
    if (!ranged) out.assumed.emplace_back("activation energy: gel times at one temperature alone");
    if (data.gels.size() < 3 || !ranged)
        out.assumed.emplace_back("one activation energy for both ways of the reaction");
    out.assumed.emplace_back(data.pot ? "shape of the rate (m, n, k1 ÷ k2): typical, moved by the pot"
                                      : "shape of the rate (m, n, k1 ÷ k2): typical of the family");
    out.assumed.emplace_back(fmt::format("degree of cure at gelation: {:g}", out.kinetics.gel));
    if (!data.heat)
        out.assumed.emplace_back(data.pot ? "heat of reaction: by the pot, typical loss of a pot in still air"
                                          : "heat of reaction: typical of the family");
    if (out.kinetics.glass) {
        if (data.glass.empty())
            out.assumed.emplace_back("Tg fresh, full and between: typical of the family");
        else if (data.glass.size() < 3)
            out.assumed.emplace_back(data.glass.size() == 1 ? "Tg fresh, and how it rises on its way to full"
                                                            : "how Tg rises on its way to full");
        if (!data.lead)
            out.assumed.emplace_back(
                fmt::format("Tg may come to lie {:.0f} K above the cure's heat", out.kinetics.glass->lead));
    }
    return out;
}

}  // namespace jig
