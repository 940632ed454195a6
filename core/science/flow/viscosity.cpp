#include "core/science/flow/viscosity.hpp"

#include <algorithm>
#include <limits>
#include <vector>

namespace jig {
namespace {

constexpr double kNever = std::numeric_limits<double>::infinity();

}  // namespace

Viscosity::Viscosity(std::variant<ThickeningResin, CuringResin> resin, double mixed)
    : resin_(std::move(resin)), mixed_(mixed) {
    const auto* c = std::get_if<CuringResin>(&resin_);
    if (c == nullptr) return;
    const double start = std::max(0.0, -mixed_);
    const double fresh = c->mu * std::exp(c->energy / kGasConstant * (1 / c->T - 1 / c->T_known));
    if (const auto gel = gel_time(c->kinetics, c->T, 1e8)) gel_ = *gel - start;
    // Up to gelation in even steps of cure's time; what never gels is followed for four months.
    const double end = gel_ ? std::max(*gel_, 0.0) : 1e7;
    constexpr int kSteps = 4000;
    double cure = cure_after(c->kinetics, c->T, start), was = kNever;
    for (int i = 0; i <= kSteps; ++i) {
        const double t = end * i / kSteps;
        if (i > 0) cure = cure_after(c->kinetics, c->T, end / kSteps, cure);
        const double left = c->kinetics.gel - cure;
        const double mu = left <= 1e-6 ? kNever : fresh * std::pow(c->kinetics.gel / left, 1.5 + cure);
        const double step = i > 0 ? end / kSteps / 2 * (1 / was + 1 / mu) : 0;
        times_.push_back(t);
        mu_.push_back(mu);
        flow_.push_back(i > 0 ? flow_.back() + step : 0);
        was = mu;
    }
}

Viscosity::Viscosity(std::vector<double> times, std::vector<double> mu, std::optional<double> gel)
    : resin_(CuringResin{}), gel_(gel), times_(std::move(times)), mu_(std::move(mu)) {
    for (std::size_t i = 0; i < times_.size(); ++i)
        flow_.push_back(i > 0 ? flow_.back() + (times_[i] - times_[i - 1]) / 2 * (1 / mu_[i - 1] + 1 / mu_[i])
                              : 0);
}

double Viscosity::at(double time) const {
    if (const auto* r = std::get_if<ThickeningResin>(&resin_))
        return r->tau ? r->mu0 * std::exp((time - mixed_) / *r->tau) : r->mu0;
    if (gel_ && time >= *gel_) return kNever;
    if (time <= 0) return mu_.front();
    const auto next = std::upper_bound(times_.begin(), times_.end(), time);
    if (next == times_.end()) return mu_.back();
    const auto i = static_cast<std::size_t>(next - times_.begin());
    const double share = (time - times_[i - 1]) / (times_[i] - times_[i - 1]);
    return 1 / ((1 - share) / mu_[i - 1] + share / mu_[i]);
}

double Viscosity::flow_time(double time) const {
    if (time <= 0) return 0;
    if (const auto* r = std::get_if<ThickeningResin>(&resin_)) {
        if (!r->tau) return time / r->mu0;
        return *r->tau / r->mu0 * std::exp(mixed_ / *r->tau) * -std::expm1(-time / *r->tau);
    }
    if (gel_ && *gel_ <= 0) return 0;
    if (time >= times_.back()) return flow_.back() + (gel_ ? 0 : (time - times_.back()) / mu_.back());
    const auto i =
        static_cast<std::size_t>(std::upper_bound(times_.begin(), times_.end(), time) - times_.begin());
    return flow_[i - 1] + (flow_[i] - flow_[i - 1]) * (time - times_[i - 1]) / (times_[i] - times_[i - 1]);
}

std::optional<double> Viscosity::when(double flow) const {
    if (flow <= 0) return 0;
    if (const auto* r = std::get_if<ThickeningResin>(&resin_)) {
        if (!r->tau) return flow * r->mu0;
        const double share = flow * r->mu0 / *r->tau * std::exp(-mixed_ / *r->tau);
        if (share >= 1) return {};
        return -*r->tau * std::log1p(-share);
    }
    if (flow_.empty() || flow > flow_.back()) {
        if (gel_ || flow_.empty()) return {};
        return times_.back() + (flow - flow_.back()) * mu_.back();
    }
    const auto i =
        static_cast<std::size_t>(std::lower_bound(flow_.begin(), flow_.end(), flow) - flow_.begin());
    return times_[i - 1] + (times_[i] - times_[i - 1]) * (flow - flow_[i - 1]) / (flow_[i] - flow_[i - 1]);
}

}  // namespace jig
