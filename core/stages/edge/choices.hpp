// The rim past the trim line, and what is fitted to it.
#pragma once

#include "core/base/fields.hpp"
#include "core/shop/lists.hpp"

namespace jig {

enum class FlangeLie { flat, following };
template <>
struct Words<FlangeLie> {
    static constexpr std::array all{Word{"flat", "lies flat at the foot"},
                                    Word{"following", "follows the trim line's height"}};
};

enum class FlangeCorner { round, square };
template <>
struct Words<FlangeCorner> {
    static constexpr std::array all{Word{"round", "rounded"}, Word{"square", "returned square"}};
};

enum class Fitting { bolt, dowel, bush, wedge, jack, port, feed };
template <>
struct Words<Fitting> {
    static constexpr std::array all{Word{"bolt", "bolt"},
                                    Word{"dowel", "dowel"},
                                    Word{"bush", "threaded bush"},
                                    Word{"wedge", "wedge slot"},
                                    Word{"jack", "jacking screw"},
                                    Word{"port", "air port"},
                                    Word{"feed", "cut-out for a feed"}};
};

namespace edge {

/// What of the shop library this stage reads.
using Library = Lists<Fastener>;

/// One fitting that the maker has put down himself: by its share of the way round the rim, from the end of
/// the length axis, anticlockwise seen along the pull.
struct Placed {
    Fitting kind = Fitting::bolt;
    double at = 0;
    static void fields(auto& c, auto&& v) {
        v("kind", c.kind);
        v("at", c.at, 0.0, 1.0);
    }
    bool operator==(const Placed&) const = default;
};

/// Grip beyond the common one on each side of the mould, as it lies seen along the pull, m.
struct Sides {
    double ahead = 0, behind = 0, left = 0, right = 0;
    static void fields(auto& c, auto&& v) {
        v("ahead", c.ahead, 0.0, 0.5);
        v("behind", c.behind, 0.0, 0.5);
        v("left", c.left, 0.0, 0.5);
        v("right", c.right, 0.0, 0.5);
    }
    bool operator==(const Sides&) const = default;
};

/// What is squeezed in a bolted joint.
struct Seal {
    double stiffness = 2e6;  ///< N/m per m of joint
    double squeeze = 0.001;  ///< m at the bolts
    double gap = 0.0003;     ///< m that the joint may open between bolts before it leaks
    static void fields(auto& c, auto&& v) {
        v("stiffness", c.stiffness, 1e3, 1e9);
        v("squeeze", c.squeeze, 0.0, 0.02);
        v("gap", c.gap, 1e-5, 0.02);
    }
    bool operator==(const Seal&) const = default;
};

struct Choices {
    double trim = 0.015;       ///< m the part is made past the trim line
    double channel = 0.0;      ///< m for a resin channel or feed line
    double tape_land = 0.030;  ///< m kept clean for the bag's tape
    double grip = 0.025;       ///< m for clamps and bolts
    Sides sides;
    FlangeLie lie = FlangeLie::flat;
    FlangeCorner corner = FlangeCorner::round;
    double bolt_pitch = 0.15;  ///< m
    std::string bolt = "bolt M8 with washers";
    std::string dowel = "dowel pin 10 mm with bush";
    Seal seal;
    double squeeze = 30000;       ///< Pa on the face of a bolted squeeze mould
    double wedge_pitch = 0.7;     ///< m between wedge slots along the rim
    double wedge_length = 0.025;  ///< m, how far a slot reaches in from the outside
    bool by_rule = true;          ///< fittings laid out by the rules; else as `placed` says
    std::vector<Placed> placed;
    int piece = 1;  ///< of a mould in pieces: the one that is backed and tried out, by its number
    static void fields(auto& c, auto&& v) {
        v("trim", c.trim, 0.0, 0.3);
        v("channel", c.channel, 0.0, 0.3);
        v("tape_land", c.tape_land, 0.0, 0.3);
        v("grip", c.grip, 0.0, 0.3);
        v("sides", c.sides);
        v("lie", c.lie);
        v("corner", c.corner);
        v("bolt_pitch", c.bolt_pitch, 0.02, 2.0);
        v("bolt", c.bolt);
        v("dowel", c.dowel);
        v("seal", c.seal);
        v("squeeze", c.squeeze, 0.0, 1e7);
        v("wedge_pitch", c.wedge_pitch, 0.1, 5.0);
        v("wedge_length", c.wedge_length, 0.01, 0.2);
        v("by_rule", c.by_rule);
        v("placed", c.placed);
        v("piece", c.piece, 1, 12);
    }
    bool operator==(const Choices&) const = default;
    [[nodiscard]] double width() const { return trim + channel + tape_land + grip; }
};

}  // namespace edge
}  // namespace jig
