#include "core/shop/core_cut.hpp"

#include <algorithm>
#include <cmath>

namespace jig {
namespace {

/// Shear modulus along round bores that fill `share` of a body.
double bored(double whole, double in_holes, double share) {
    const double more = 1 + share, less = 1 - share;
    return whole * (less * whole + more * in_holes) / (more * whole + less * in_holes);
}

/// Across layers: what strains by turns. An empty slit carries nothing and leaves its share of the section.
double across(double whole, double in_slits, double share) {
    return in_slits > 0 ? 1 / ((1 - share) / whole + share / in_slits) : (1 - share) * whole;
}

double along(double whole, double in_slits, double share) {
    return (1 - share) * whole + share * in_slits;
}

}  // namespace

CoreOpen open_of(const CoreCut& cut, double thickness) {
    CoreOpen out;
    if (cut.hole > 0)
        out.holes = std::min(0.78, kPi / 4 * std::pow(std::min(1.0, cut.hole / cut.hole_pitch), 2));
    if (cut.slits == Slits::none || thickness <= 0) return out;
    out.across = std::min(0.95, cut.slit / cut.slit_pitch);
    out.depth = std::min(1.0, cut.slit_depth / thickness);
    const double share = cut.slits == Slits::along ? out.across : out.across * (2 - out.across);
    out.slits = share * (1 - out.holes);
    return out;
}

PlyMaterial as_cut(const PlyMaterial& core, const CoreOpen& open, Slits slits, const Matrix* resin) {
    PlyMaterial out = core;
    const double E = resin != nullptr ? resin->E : 0, G = resin != nullptr ? E / (2 + 2 * resin->nu) : 0;
    if (open.holes > 0) {
        out.G13 = bored(out.G13, G, open.holes);
        out.G23 = bored(out.G23, G, open.holes);
        for (auto* e : {&out.E1, &out.E2}) *e = resin != nullptr ? *e : *e * (1 - open.holes);
        out.G12 = resin != nullptr ? out.G12 : out.G12 * (1 - open.holes);
    }
    if (slits == Slits::none) return out;
    const double f = open.across, d = open.depth;
    // Each direction of slits in turn: those along 1, then those along 2.
    const auto in_plane = [&](double& with, double& over) {
        with = (1 - d) * with + d * along(with, E, f);
        // An empty slit parts the layer that it cuts: nothing goes across.
        over = (1 - d) * over + d * (resin != nullptr ? across(over, E, f) : 0);
    };
    const auto shear = [&](double& with, double& over) {
        with = 1 / ((1 - d) / with + d / along(with, G, f));
        over = 1 / ((1 - d) / over + d / across(over, G, f));
    };
    in_plane(out.E1, out.E2);
    shear(out.G13, out.G23);
    out.G12 = (1 - d) * out.G12 + d * (resin != nullptr ? across(out.G12, G, f) : 0);
    if (slits == Slits::both) {
        in_plane(out.E2, out.E1);
        shear(out.G23, out.G13);
    }
    // What is cut through and empty still hangs on its scrim.
    const double least = 1e-3 * std::min(core.E1, core.E2);
    out.E1 = std::max(out.E1, least);
    out.E2 = std::max(out.E2, least);
    out.G12 = std::max(out.G12, 1e-3 * core.G12);
    out.nu12 = std::min(core.nu12, 0.9 * std::sqrt(out.E1 / out.E2));
    return out;
}

double bends_to(const Core& core, const CoreCut& cut) {
    double out = core.bends_cold;
    const auto better = [&](double radius) {
        if (radius > 0 && (out <= 0 || radius < out)) out = radius;
    };
    if (cut.slits != Slits::none) better(core.bends_slit);
    if (cut.heated) better(core.bends_hot);
    return out;
}

}  // namespace jig
