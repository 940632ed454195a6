#include "core/science/heat/growth.hpp"

namespace jig {

GrowthSizes grow(const GrowthChain& c) {
    GrowthSizes out;
    out.plug_hot = c.plug_alpha * (c.shell_gel - c.room);
    const double gelled = 1 + out.plug_hot;
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
