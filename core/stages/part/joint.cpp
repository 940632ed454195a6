#include "core/stages/part/joint.hpp"

#include <cmath>

#include "core/base/units.hpp"

namespace jig::part {

JointFigures join(const Joint& j, double thickness, double along, double density) {
    JointFigures out;
    if (j.kind == JointKind::none) return out;
    out.length = j.length > 0 ? j.length : along;
    out.lap = j.lap * thickness;
    const double covered = j.kind == JointKind::butt ? 2 * out.lap : out.lap;
    if (j.kind == JointKind::joggle) {
        out.step = thickness + j.gap;
        out.tape_layers = static_cast<int>(std::lround(out.step / j.tape));
        out.tape_length = out.tape_layers * out.length;
    }
    if (j.kind == JointKind::returned) out.flange_area = out.lap * out.length;
    const double section = covered * j.gap;
    out.bead = std::sqrt(4 * section * (1 + j.squeeze_out) / kPi);
    out.adhesive = section * out.length * (1 + j.squeeze_out) * density;
    return out;
}

}  // namespace jig::part
