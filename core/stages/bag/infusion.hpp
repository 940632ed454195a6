// How resin is let into a part or a shell under its bag: what the maker decides.
#pragma once

#include <vector>

#include "core/base/fields.hpp"

namespace jig {

enum class InfusionPlan { spine, fishbone, ring, end, own };
template <>
struct Words<InfusionPlan> {
    static constexpr std::array all{Word{"spine", "lines along the face"}, Word{"fishbone", "a fishbone"},
                                    Word{"ring", "a ring round the rim"}, Word{"end", "one end of the rim"},
                                    Word{"own", "hoses as I place them"}};
};

/// What is filled under a bag.
enum class Infused { part, shell };
template <>
struct Words<Infused> {
    static constexpr std::array all{Word{"part", "the part in its mould"},
                                    Word{"shell", "the shell on its plug"}};
};

enum class PortUse { feed, vent };
template <>
struct Words<PortUse> {
    static constexpr std::array all{Word{"feed", "feed"}, Word{"vent", "vent"}};
};

enum class PortKind { place, line, fishbone, rim };
template <>
struct Words<PortKind> {
    static constexpr std::array all{Word{"place", "place"}, Word{"line", "line"},
                                    Word{"fishbone", "fishbone"}, Word{"rim", "rim"}};
};

enum class PortOpens { start, clock, front };
template <>
struct Words<PortOpens> {
    static constexpr std::array all{Word{"start", "at once"}, Word{"clock", "by the clock"},
                                    Word{"front", "when wet"}};
};

enum class WhenFull { draw_on, clamp };
template <>
struct Words<WhenFull> {
    static constexpr std::array all{Word{"draw_on", "the vents draw on until it gels"},
                                    Word{"clamp", "every hose is clamped"}};
};

namespace bag {

/// A hose that lets resin in or air out, from the middle of the face, seen along the pull.
struct Port {
    PortUse use = PortUse::feed;
    PortKind kind = PortKind::place;
    double along = 0, across = 0;        ///< m: of the place, or where the line begins
    double to_along = 0, to_across = 0;  ///< m: where the line ends
    int bones = 0;                       ///< of a fishbone, lines square to it on each side
    double reach = 0;                    ///< m that each of those goes out
    PortOpens opens = PortOpens::start;  ///< of a feed
    double at = 0;                       ///< s after the first feed, by the clock
    double shuts = 0;                    ///< s after the first feed; 0 for never before it is full
    static void fields(auto& c, auto&& v) {
        v("use", c.use);
        v("kind", c.kind);
        v("along", c.along, -50.0, 50.0);
        v("across", c.across, -50.0, 50.0);
        v("to_along", c.to_along, -50.0, 50.0);
        v("to_across", c.to_across, -50.0, 50.0);
        v("bones", c.bones, 0, 20);
        v("reach", c.reach, 0.0, 20.0);
        v("opens", c.opens);
        v("at", c.at, 0.0, 1e6);
        v("shuts", c.shuts, 0.0, 1e6);
    }
    [[nodiscard]] bool has_ends() const { return kind == PortKind::line || kind == PortKind::fishbone; }
    bool operator==(const Port&) const = default;
};

/// Where the real front stood at a time.
struct SeenFront {
    double along = 0, across = 0;  ///< m from the middle of the face
    double after = 0;              ///< s after the first feed
    static void fields(auto& c, auto&& v) {
        v("along", c.along, -50.0, 50.0);
        v("across", c.across, -50.0, 50.0);
        v("after", c.after, 0.0, 1e6);
    }
    bool operator==(const SeenFront&) const = default;
};

struct Infusion {
    InfusionPlan plan = InfusionPlan::spine;
    int lines = 1;                 ///< of the spine, side by side; of a fishbone, to each side
    std::vector<Port> ports = {};  ///< hoses of the maker's own
    bool medium = true;            ///< flow medium over the last ply
    double brake = 0.04;           ///< m before a vent where the medium ends
    double below = 0.3;   ///< m that the pot's resin stands under the face's top: the rim, or a shell's crown
    double waited = 300;  ///< s from mixing to the first feed's opening
    double lets = 1;      ///< times as much as the library says that this preform lets through
    double race = 1;      ///< times as fast along the rim, where cloth does not fill the edge
    double hose = 1.5, bore = 0.01;  ///< m of each feed's hose from the pot, and across it inside
    double pot = 5;                  ///< kg that are mixed at once
    WhenFull when_full = WhenFull::draw_on;
    std::vector<SeenFront> seen = {};
    static void fields(auto& c, auto&& v) {
        v("plan", c.plan);
        v("lines", c.lines, 1, 12);
        v("ports", c.ports);
        v("medium", c.medium);
        v("brake", c.brake, 0.0, 2.0);
        v("below", c.below, -5.0, 5.0);
        v("waited", c.waited, 0.0, 1e6);
        v("lets", c.lets, 0.01, 100.0);
        v("race", c.race, 1.0, 1000.0);
        v("hose", c.hose, 0.0, 50.0);
        v("bore", c.bore, 0.002, 0.05);
        v("pot", c.pot, 0.05, 200.0);
        v("when_full", c.when_full);
        v("seen", c.seen);
    }
    bool operator==(const Infusion&) const = default;
};

}  // namespace bag
}  // namespace jig
