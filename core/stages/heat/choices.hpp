// Temperatures that decide size.
#pragma once

#include <array>
#include <string>
#include <vector>

#include "core/base/fields.hpp"
#include "core/shop/lists.hpp"

namespace jig {

/// In the order of a tool's life, and then of a part's.
enum class CureOf { on_plug, with_back, post_cure, part_first, part_next, part, joined, part_free };
template <>
struct Words<CureOf> {
    static constexpr std::array all{Word{"on_plug", "shell on its plug"},
                                    Word{"with_back", "back bonded on"},
                                    Word{"post_cure", "shell, free-standing"},
                                    Word{"part_first", "part, its first go"},
                                    Word{"part_next", "part, goes between"},
                                    Word{"part", "part in the tool"},
                                    Word{"joined", "parts joined"},
                                    Word{"part_free", "part, free-standing"}};
};

/// What of Heat is seen on the tool itself.
enum class OnStand { thermocouples, folds };
template <>
struct Words<OnStand> {
    static constexpr std::array all{Word{"thermocouples", "the thermocouples"},
                                    Word{"folds", "the part's folds"}};
};

namespace heat {

/// What of the shop library this stage reads.
using Library = Lists<Resin, Core, Board, Bonding>;

inline constexpr double kLongestHold = 2e6;  ///< s of a leg

/// One leg of a cure's programme: to a heat, and hold it once the slowest place has come near.
struct Leg {
    double to = 333.15;         ///< K of the air
    double rate = 10.0 / 3600;  ///< K/s up or down
    double hold = 28800;        ///< s
    static void fields(auto& c, auto&& v) {
        v("to", c.to, 263.0, 600.0);
        v("rate", c.rate, 1e-5, 1.0);
        v("hold", c.hold, 0.0, kLongestHold);
    }
    bool operator==(const Leg&) const = default;
};

/// What a thermometer read in the oven, beside what the oven was set to.
struct OvenSpot {
    double x = 0.5, y = 0.5,
           z = 0.5;  ///< shares of its length from the door, its width from the left, its height
    double off = 0;  ///< K read over what was set
    static void fields(auto& c, auto&& v) {
        v("x", c.x, 0.0, 1.0);
        v("y", c.y, 0.0, 1.0);
        v("z", c.z, 0.0, 1.0);
        v("off", c.off, -60.0, 60.0);
    }
    bool operator==(const OvenSpot&) const = default;
};

/// The oven, or the tent with a heater; its size is Brief's.
struct Oven {
    std::string build = "lined oven";  ///< in the library
    double power = 0;                  ///< W of its heater; 0 for not known
    double mapped_at = 353.15;         ///< K that it was set to while its map was read
    std::vector<OvenSpot> map;         ///< none while it has not been measured
    double others = 0;                 ///< kg that stand in it beside the tools
    int tools = 1;                     ///< such tools that cure in one load
    static void fields(auto& c, auto&& v) {
        v("build", c.build);
        v("power", c.power, 0.0, 1e7);
        v("mapped_at", c.mapped_at, 293.0, 600.0);
        v("map", c.map);
        v("others", c.others, 0.0, 1e5);
        v("tools", c.tools, 1, 100);
    }
    bool operator==(const Oven&) const = default;
};

struct Choices {
    double room = 293.15;    ///< K
    double shell_gel = 0;    ///< K of plug and shell where the shell gels; 0 for the resin's own figure
    double corner = 1.5708;  ///< rad, the corner judged for spring-in
    double plug_scale = 1;   ///< of the drawing's size that the plug is cut at
    double Tg_margin = 15;   ///< K wanted between the tool's heat and its Tg
    /// Programmes of the oven or tent; without a leg the usual one of resin and rates. The shell while it
    /// lies on its plug, its back bonded to it there, the shell off it, the part in its tool (the first of
    /// its goes, those between, and the last, which is all of it where there is but one), what joins it, and
    /// the part by itself, which has no cure of its own without a leg.
    std::vector<Leg> on_plug, with_back, post_cure, part_first, part_next, part, joined, part_free;
    double within = 5;  ///< K of the air that the slowest place must have come to before a hold's clock runs
    double climbs = 40.0 / 3600;  ///< K/s that the oven climbs by with its load at most
    double transfer = 12;         ///< W/(m²·K) between the air and what stands in it
    double runs_past = 30;        ///< K that a lay-up may run past its air by its own heat
    Oven oven;
    OnStand stands = OnStand::thermocouples;  ///< what the stand shows of the tool
    CureOf shows = CureOf::part;              ///< whose thermocouples stand on the shape
    bool opened = false;                      ///< the drawing's folds have been opened for what they close by
    static void fields(auto& c, auto&& v) {
        v("room", c.room, 263.0, 323.0);
        v("shell_gel", c.shell_gel, 0.0, 450.0);
        v("corner", c.corner, 0.1, 3.0);
        v("plug_scale", c.plug_scale, 0.9, 1.1);
        v("Tg_margin", c.Tg_margin, 0.0, 100.0);
        v("on_plug", c.on_plug);
        v("with_back", c.with_back);
        v("post_cure", c.post_cure);
        v("part_first", c.part_first);
        v("part_next", c.part_next);
        v("part", c.part);
        v("joined", c.joined);
        v("part_free", c.part_free);
        v("within", c.within, 0.5, 100.0);
        v("climbs", c.climbs, 1e-5, 1.0);
        v("transfer", c.transfer, 1.0, 500.0);
        v("runs_past", c.runs_past, 2.0, 200.0);
        v("oven", c.oven);
        v("stands", c.stands);
        v("shows", c.shows);
        v("opened", c.opened);
    }
    bool operator==(const Choices&) const = default;
};

/// What of the choices every cure meets, whatever its programme.
struct Conditions {
    double room = 293.15;  ///< K
    double transfer = 12;  ///< W/(m²·K) between the air and what stands in it
    double shell_gel = 0;  ///< K, as Choices has it
    double within = 5;     ///< K of the air that the slowest place must have come to
    bool operator==(const Conditions&) const = default;
};
inline Conditions conditions_of(const Choices& c) {
    return {c.room, c.transfer, c.shell_gel, c.within};
}
/// K that a lay-up may run past its air by its own heat.
struct RunsPast {
    double by = 30;
    bool operator==(const RunsPast&) const = default;
};

/// A cure's own legs among the choices.
inline auto& legs_in(auto& choices, CureOf of) {
    switch (of) {
        case CureOf::on_plug:
            return choices.on_plug;
        case CureOf::with_back:
            return choices.with_back;
        case CureOf::post_cure:
            return choices.post_cure;
        case CureOf::part_first:
            return choices.part_first;
        case CureOf::part_next:
            return choices.part_next;
        case CureOf::joined:
            return choices.joined;
        case CureOf::part_free:
            return choices.part_free;
        case CureOf::part:
            break;
    }
    return choices.part;
}

/// The legs of one cure and nothing else: what the others go by leaves it alone.
template <CureOf of>
struct LegsOf {
    std::vector<Leg> legs;
    bool operator==(const LegsOf&) const = default;
};

}  // namespace heat
}  // namespace jig
