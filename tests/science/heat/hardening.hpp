// A resin that hardens as many do, for tests.
#pragma once

#include "core/science/heat/kinetics.hpp"

inline jig::Kinetics hardening() {
    jig::Kinetics k;
    k.A1 = 2e4;
    k.E1 = 58000;
    k.A2 = 3e5;
    k.E2 = 56000;
    k.m = 0.7;
    k.n = 1.6;
    k.gel = 0.58;
    k.heat = 390e3;
    k.glass = jig::GlassCurve{258, 385, 0.38, 10};
    return k;
}
