// How the part is closed, emptied and filled.
#pragma once

#include <algorithm>

#include "core/base/fields.hpp"
#include "core/shop/lists.hpp"
#include "core/stages/bag/infusion.hpp"

namespace jig {

/// What closes the part.
enum class BagWay { surface, envelope, tube, reusable };
template <>
struct Words<BagWay> {
    static constexpr std::array all{Word{"surface", "a film round its face"},
                                    Word{"envelope", "an envelope of film round the whole tool"},
                                    Word{"tube", "a tube of film round the whole tool"},
                                    Word{"reusable", "a bag that is used again"}};
};

/// What lies between peel ply and breather.
enum class ReleaseFilm { none, perforated, solid };
template <>
struct Words<ReleaseFilm> {
    static constexpr std::array all{Word{"none", "no film"}, Word{"perforated", "perforated film"},
                                    Word{"solid", "release film without holes"}};
};

/// What the bolts of a squeeze mould are drawn up with on their threads.
enum class Thread { dry, oiled, waxed };
template <>
struct Words<Thread> {
    static constexpr std::array all{Word{"dry", "dry"}, Word{"oiled", "oiled"}, Word{"waxed", "waxed"}};
};

/// What stands on the land round a face.
enum class RimThing { hose, gauge, pleat };
template <>
struct Words<RimThing> {
    static constexpr std::array all{Word{"hose", "hose"}, Word{"gauge", "gauge"}, Word{"pleat", "pleat"}};
};

namespace bag {

/// Where something stands on the land of the film.
struct OnRim {
    RimThing what = RimThing::hose;
    double at = 0;  ///< share of the way round it, from where a stretch without corners begins
    static void fields(auto& c, auto&& v) {
        v("what", c.what);
        v("at", c.at, 0.0, 1.0);
    }
    bool operator==(const OnRim&) const = default;
};

/// What of the shop library this stage reads.
using Library = Lists<Resin, Consumable, Fastener, VacuumPump, VacuumGauge, ResinTrap, PassMark>;

/// The last drop test of this bag: what the gauge said when the valve was shut, and after how long.
struct DropTest {
    double from = 2000, to = 2500;  ///< Pa absolute
    double seconds = 0;             ///< 0 for not done yet
    struct Reading {
        double seconds = 0, pressure = 2000;  ///< Pa absolute
        static void fields(auto& c, auto&& v) {
            v("seconds", c.seconds, 0.0, 1e6);
            v("pressure", c.pressure, 0.0, 110000.0);
        }
        bool operator==(const Reading&) const = default;
    };
    std::vector<Reading> readings = {};  ///< of the gauge; two or more outrank the figures above
    static void fields(auto& c, auto&& v) {
        v("from", c.from, 0.0, 110000.0);
        v("to", c.to, 0.0, 110000.0);
        v("seconds", c.seconds, 0.0, 1e6);
        v("readings", c.readings);
    }
    bool operator==(const DropTest&) const = default;
};

/// A pump that stops by itself when it is deep enough, and starts when the bag has leaked so far.
struct Switching {
    bool switches = false;
    double low = 5000, high = 10000;  ///< Pa absolute
    double rests = 0;                 ///< s that it was seen to rest; 0 for not watched yet
    static void fields(auto& c, auto&& v) {
        v("switches", c.switches);
        v("low", c.low, 1.0, 110000.0);
        v("high", c.high, 1.0, 110000.0);
        v("rests", c.rests, 0.0, 1e6);
    }
    [[nodiscard]] bool watched() const { return switches && rests > 0 && high > low; }
    bool operator==(const Switching&) const = default;
};

/// Of a squeeze mould.
struct Clamp {
    Thread thread = Thread::oiled;
    double torque = 0;  ///< N·m on each bolt; 0 for what Edge's pressure asks
    static void fields(auto& c, auto&& v) {
        v("thread", c.thread);
        v("torque", c.torque, 0.0, 10000.0);
    }
    bool operator==(const Clamp&) const = default;
};

struct Choices {
    BagWay way = BagWay::surface;
    [[nodiscard]] bool wraps() const { return way == BagWay::envelope || way == BagWay::tube; }
    double tube = 0;  ///< m that a tube of one's own lies wide; 0 for the shop's
    bool peel_ply = true;
    ReleaseFilm film = ReleaseFilm::perforated;
    double ease = 0.10;    ///< share by which the film is larger than what it lies on
    double pleat = 0.06;   ///< m, the tallest that a pleat may stand
    bool breather = true;  ///< over a part that is not infused
    /// m, of a film that the shop has already, either way round; 0 for one that is cut to size.
    double sheet_length = 0, sheet_width = 0;
    [[nodiscard]] bool own_sheet() const {
        return way == BagWay::surface && sheet_length > 0 && sheet_width > 0;
    }
    bool second = false;  ///< another film over the first, for safety; round a face only
    [[nodiscard]] int films() const { return second && way == BagWay::surface ? 2 : 1; }
    double hose = 2.0;    ///< m of each hose to the pump
    double bore = 0.010;  ///< m inside them
    int hoses = 1;        ///< to the pump, where none is placed
    /// By the maker; of what is not among them each kind stands by the rules.
    std::vector<OnRim> placed = {};
    [[nodiscard]] int placed_of(RimThing what) const {
        return static_cast<int>(
            std::count_if(placed.begin(), placed.end(), [&](const OnRim& p) { return p.what == what; }));
    }
    [[nodiscard]] int hoses_out() const {
        const int own = placed_of(RimThing::hose);
        return own > 0 ? own : hoses;
    }
    std::string catcher;   ///< name of the trap; empty for one of this size:
    double trap = 0.005;   ///< m³
    double wanted = 5000;  ///< Pa absolute in the bag
    /// Name of the pump; empty for one of the brief's speed and this limit.
    std::string pump;
    double ultimate = 300;  ///< Pa absolute that such a one reaches on its shut inlet
    std::string gauge;      ///< its name; empty where nobody says what it is read off
    double altitude = 0;    ///< m above the sea
    double rise = 0;  ///< Pa that the shut bag may rise by in ten minutes; 0 for the usual of its process
    DropTest alone;   ///< of pump, trap and hoses, before the bag is on them
    DropTest drop;
    Switching switching;
    Infusion infusion;              ///< of the part
    Infusion shell_infusion;        ///< of the mould's shell
    Infused shows = Infused::part;  ///< whose resin is looked at where both are infused
    [[nodiscard]] const Infusion& of(Infused of) const {
        return of == Infused::shell ? shell_infusion : infusion;
    }
    Clamp clamp;
    static void fields(auto& c, auto&& v) {
        v("way", c.way);
        v("tube", c.tube, 0.0, 20.0);
        v("peel_ply", c.peel_ply);
        v("film", c.film);
        v("ease", c.ease, 0.0, 1.0);
        v("pleat", c.pleat, 0.01, 0.5);
        v("breather", c.breather);
        v("sheet_length", c.sheet_length, 0.0, 100.0);
        v("sheet_width", c.sheet_width, 0.0, 100.0);
        v("second", c.second);
        v("hose", c.hose, 0.0, 100.0);
        v("bore", c.bore, 0.002, 0.1);
        v("hoses", c.hoses, 1, 20);
        v("placed", c.placed);
        v("catcher", c.catcher);
        v("trap", c.trap, 0.0, 1.0);
        v("wanted", c.wanted, 10.0, 101325.0);
        v("pump", c.pump);
        v("ultimate", c.ultimate, 0.0, 90000.0);
        v("gauge", c.gauge);
        v("altitude", c.altitude, -400.0, 6000.0);
        v("rise", c.rise, 0.0, 101325.0);
        v("alone", c.alone);
        v("drop", c.drop);
        v("switching", c.switching);
        v("infusion", c.infusion);
        v("shell_infusion", c.shell_infusion);
        v("shows", c.shows);
        v("clamp", c.clamp);
    }
    bool operator==(const Choices&) const = default;
};

}  // namespace bag
}  // namespace jig
