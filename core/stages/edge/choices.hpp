// The rim past the trim line.
#pragma once

#include "core/base/fields.hpp"

namespace jig::edge {

struct Choices {
    double trim = 0.015;       ///< m the part is made past the trim line
    double channel = 0.0;      ///< m for a resin channel or feed line
    double tape_land = 0.030;  ///< m kept clean for the bag's tape
    double grip = 0.025;       ///< m for clamps and bolts
    double bolt_pitch = 0.15;  ///< m
    std::string bolt = "bolt M8 with washers";
    static void fields(auto& c, auto&& v) {
        v("trim", c.trim, 0.0, 0.3);
        v("channel", c.channel, 0.0, 0.3);
        v("tape_land", c.tape_land, 0.0, 0.3);
        v("grip", c.grip, 0.0, 0.3);
        v("bolt_pitch", c.bolt_pitch, 0.02, 2.0);
        v("bolt", c.bolt);
    }
    bool operator==(const Choices&) const = default;
    [[nodiscard]] double width() const { return trim + channel + tape_land + grip; }
};

}  // namespace jig::edge
