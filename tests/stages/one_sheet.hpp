// One sheet of cloth that resin runs through, whose answers are those of Darcy's law by hand.
#pragma once

#include "core/stages/bag/flow.hpp"

namespace fixtures {

/// Fed by the maker's own hoses, which take nothing off, without a medium; a resin of 0.25 Pa·s that stays
/// so. `K` m², `vacuum` Pa under a room of 100 kPa.
inline jig::bag::FlowAsked one_sheet(double K, double open, double thickness, double vacuum) {
    jig::bag::FlowAsked a;
    a.infused = true;
    jig::FlowLayer cloth;
    cloth.K1 = cloth.K2 = K;
    cloth.Kz = K / 10;
    cloth.thickness = thickness;
    cloth.porosity = open;
    a.preform = {{{}, cloth, true}};
    a.stack.layers = {{jig::LayerKind::ply, "cloth", 0, 0}};
    a.medium.thickness = 0;
    a.resin = {};
    a.resin.kinetics = {};
    a.resin.kinetics.A1 = a.resin.kinetics.A2 = 0;
    a.resin.mu = 0.25;
    a.resin.T = a.resin.T_known;
    a.room = 1e5;
    a.vacuum = 1e5 - vacuum;
    a.infusion.plan = jig::InfusionPlan::own;
    a.infusion.below = 0;
    a.infusion.hose = 0;
    a.infusion.medium = false;
    return a;
}

}  // namespace fixtures
