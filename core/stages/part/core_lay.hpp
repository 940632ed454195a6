// How the part's core is laid: what all its cores share; each has its own cuts in its layer.
#pragma once

#include "core/base/fields.hpp"

namespace jig::part {

struct CoreLay {
    double gap = 0.001;   ///< m between panels, filled as they are laid
    double takes = 0.01;  ///< share by which a panel may stretch or close up without a cut
    double edge = 0;      ///< m of cells filled along the core's own edge; 0 for none
    static void fields(auto& c, auto&& v) {
        v("gap", c.gap, 0.0, 0.02);
        v("takes", c.takes, 0.001, 0.2);
        v("edge", c.edge, 0.0, 0.2);
    }
    bool operator==(const CoreLay&) const = default;
};

}  // namespace jig::part
