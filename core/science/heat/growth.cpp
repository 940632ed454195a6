#include "core/science/heat/growth.hpp"

#include <cmath>

#include "core/base/units.hpp"

namespace jig {

double warmed_share(double fourier) {
    if (!(fourier > 0)) return 0;
    // The series wants many terms early; there the two faces do not know of each other yet.
    if (fourier < 0.005) return 4 * std::sqrt(fourier / kPi);
    double left = 0;
    for (int n = 1; n < 60; n += 2) left += 8 / (n * n * kPi * kPi) * std::exp(-n * n * kPi * kPi * fourier);
    return 1 - left;
}

GrowthSizes grow(const GrowthChain& c) {
    GrowthSizes out;
    out.plug_hot = c.plug_alpha * (c.plug_warmth - c.room);
    double gelled = 1 + out.plug_hot;
    if (c.splash) {
        const auto& s = *c.splash;
        out.splash_room = gelled * (1 - s.shrinkage) / (1 + s.alpha * (s.gel - c.room)) - 1;
        gelled = (1 + out.splash_room) * (1 + s.alpha * (c.shell_gel - c.room));
    }
    const double cured = gelled * (1 - c.shell_cure_shrinkage);
    const double room = cured / (1 + c.shell_alpha * (c.shell_gel - c.room));
    out.tool_room = room - 1;
    const double hot = room * (1 + c.shell_alpha * (c.part_gel - c.room));
    out.tool_hot = hot - 1;
    out.part_room = hot * (1 - c.part_cure_shrinkage) / (1 + c.part_alpha * (c.part_gel - c.room)) - 1;
    return out;
}

double spring_in(double theta, double al, double at, double fl, double ft, double dT) {
    return theta * ((al - at) * dT / (1 + at * dT) + (fl - ft) / (1 + ft));
}

}  // namespace jig
