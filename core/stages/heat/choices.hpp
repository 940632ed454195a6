// Temperatures that decide size.
#pragma once

#include "core/base/fields.hpp"
#include "core/shop/lists.hpp"

namespace jig::heat {

/// What of the shop library this stage reads.
using Library = Lists<Resin, Core, Board, Bonding>;

struct Choices {
    double room = 293.15;    ///< K
    double shell_gel = 0;    ///< K of plug and shell where the shell gels; 0 for the resin's own figure
    double corner = 1.5708;  ///< rad, the corner judged for spring-in
    double plug_scale = 1;   ///< of the drawing's size that the plug is cut at
    double Tg_margin = 15;   ///< K wanted between the tool's heat and its Tg
    static void fields(auto& c, auto&& v) {
        v("room", c.room, 263.0, 323.0);
        v("shell_gel", c.shell_gel, 0.0, 450.0);
        v("corner", c.corner, 0.1, 3.0);
        v("plug_scale", c.plug_scale, 0.9, 1.1);
        v("Tg_margin", c.Tg_margin, 0.0, 100.0);
    }
    bool operator==(const Choices&) const = default;
};

}  // namespace jig::heat
