// Temperatures that decide size.
#pragma once

#include <vector>

#include "core/base/fields.hpp"
#include "core/shop/lists.hpp"

namespace jig::heat {

/// What of the shop library this stage reads.
using Library = Lists<Resin, Core, Board, Bonding>;

/// One leg of a cure's programme: to a heat, and hold it once the slowest place has come near.
struct Leg {
    double to = 333.15;         ///< K of the air
    double rate = 10.0 / 3600;  ///< K/s up or down
    double hold = 28800;        ///< s
    static void fields(auto& c, auto&& v) {
        v("to", c.to, 263.0, 600.0);
        v("rate", c.rate, 1e-5, 1.0);
        v("hold", c.hold, 0.0, 2e6);
    }
    bool operator==(const Leg&) const = default;
};

struct Choices {
    double room = 293.15;    ///< K
    double shell_gel = 0;    ///< K of plug and shell where the shell gels; 0 for the resin's own figure
    double corner = 1.5708;  ///< rad, the corner judged for spring-in
    double plug_scale = 1;   ///< of the drawing's size that the plug is cut at
    double Tg_margin = 15;   ///< K wanted between the tool's heat and its Tg
    /// Programmes of the oven or tent; without a leg the usual one of resin and rates. The shell while it
    /// lies on its plug, the shell off it, and the part in its tool.
    std::vector<Leg> on_plug, post_cure, part;
    double within = 5;  ///< K of the air that the slowest place must have come to before a hold's clock runs
    double climbs = 40.0 / 3600;  ///< K/s that the oven climbs by with its load at most
    double transfer = 12;         ///< W/(m²·K) between the air and what stands in it
    double runs_past = 30;        ///< K that a lay-up may run past its air by its own heat
    static void fields(auto& c, auto&& v) {
        v("room", c.room, 263.0, 323.0);
        v("shell_gel", c.shell_gel, 0.0, 450.0);
        v("corner", c.corner, 0.1, 3.0);
        v("plug_scale", c.plug_scale, 0.9, 1.1);
        v("Tg_margin", c.Tg_margin, 0.0, 100.0);
        v("on_plug", c.on_plug);
        v("post_cure", c.post_cure);
        v("part", c.part);
        v("within", c.within, 0.5, 100.0);
        v("climbs", c.climbs, 1e-5, 1.0);
        v("transfer", c.transfer, 1.0, 500.0);
        v("runs_past", c.runs_past, 2.0, 200.0);
    }
    bool operator==(const Choices&) const = default;
};

}  // namespace jig::heat
