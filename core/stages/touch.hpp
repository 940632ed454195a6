// One touch of the brush on a face, as job files keep it.
#pragma once

#include <array>

#include "core/science/mesh/paint.hpp"

namespace jig {

struct Touch {
    std::array<double, 3> at{0, 0, 0}, facing{0, 0, 1};
    double reach = 0.03;  ///< m
    static void fields(auto& c, auto&& v) {
        v("at", c.at);
        v("facing", c.facing);
        v("reach", c.reach, 0.0005, 5.0);
    }
    bool operator==(const Touch&) const = default;
    [[nodiscard]] Dab dab() const {
        return {{at[0], at[1], at[2]}, {facing[0], facing[1], facing[2]}, reach};
    }
};

}  // namespace jig
