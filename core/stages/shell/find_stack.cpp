#include "core/stages/shell/find_stack.hpp"

#include <algorithm>
#include <cmath>
#include <functional>

#include "core/base/units.hpp"
#include "core/science/laminate/plate.hpp"
#include "core/stages/shell/cloths.hpp"

namespace jig::shell {
namespace {

/// Most plies of the middling and of the heaviest cloth in half a stack.
constexpr int kMiddling = 4, kHeavy = 10;

}  // namespace

Found find_stacks(const Choices& like, const Seek& wanted, const back::Choices& back, double area,
                  const GoLimit& go, const Library& shop, Progress& progress) {
    const auto cloths = cloths_of(like, shop);
    const auto& resin = need(shop.resins, like.resin, "shell resin");
    const double span = back.has_grid() ? back.pitch : 0.5;
    Found out;
    std::vector<Proposal> all;
    const auto n = cloths.names.size();
    std::vector<int> counts(n, 0);
    // Every cloth but the heaviest 0 to 4 times (the lightest once at least), the heaviest 0 to 10 times.
    const auto weigh = [&] {
        progress.check();
        Proposal p;
        p.layers = mirrored(cloths, counts);
        const auto sum = sum_stack(p.layers, resin, like.how, shop, "shell");
        const auto& l = sum.laminate;
        p.thickness = l.thickness;
        const double D = std::min(l.bending.Ex, l.bending.Ey) * std::pow(l.thickness, 3) / 12;
        const double S = l.shear_stiffness.minCoeff();
        p.sag = strip_sag_uniform(l.areal_mass * kGravity, span, D, S) +
                long_plate_sag_point(back.person, span, D, S);
        p.mass = sum.areal_mass() * area;
        p.price = sum.price * area * (1 + like.waste);
        double today = 0;
        for (const auto& laid : sum.laid) {
            if (laid.layer.kind != LayerKind::ply) continue;
            if (go.is_full(today, laid.ply.thickness)) {
                ++p.days;
                today = 0;
            }
            today += laid.ply.thickness;
        }
        p.fits = p.sag <= wanted.sag && p.mass <= wanted.mass && p.days <= wanted.days;
        all.push_back(std::move(p));
        ++out.tried;
    };
    const std::function<void(std::size_t)> choose = [&](std::size_t i) {
        if (i == n) return weigh();
        const int most = i + 1 == n ? kHeavy : n > 4 ? 2 : kMiddling;
        for (int k = i == 0 ? 1 : 0; k <= most; ++k) {
            counts[i] = k;
            choose(i + 1);
        }
    };
    choose(0);
    std::sort(all.begin(), all.end(), [](const Proposal& a, const Proposal& b) {
        return a.mass < b.mass || (a.mass == b.mass && a.sag < b.sag);
    });
    // Sag falls along the curve; what is heavier and no stiffer is left out.
    double least = 1e30;
    for (auto& p : all) {
        if (p.sag >= 0.92 * least) continue;
        least = p.sag;
        out.curve.push_back(std::move(p));
    }
    for (std::size_t i = 0; i < out.curve.size() && out.best < 0; ++i) {
        if (out.curve[i].fits) out.best = static_cast<int>(i);
    }
    progress.report(1, "found");
    return out;
}

}  // namespace jig::shell
