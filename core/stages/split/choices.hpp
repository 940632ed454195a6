// Which way the mould leaves.
#pragma once

#include <array>

#include "core/base/fields.hpp"

namespace jig {

enum class PullMode { best, given };
template <>
struct Words<PullMode> {
    static constexpr std::array all{Word{"best", "the best pull found"}, Word{"given", "a pull of your own"}};
};

namespace split {

struct Choices {
    PullMode mode = PullMode::best;
    std::array<double, 3> pull{0, 0, 1};  ///< used where the mode is given; any length but zero
    double drag_angle = 0.0349;           ///< rad of draft below which a face drags
    bool foot_open = true;                ///< flat faces at the foot stay out of the mould
    static void fields(auto& c, auto&& v) {
        v("mode", c.mode);
        v("pull", c.pull);
        v("drag_angle", c.drag_angle, 0.0, 0.35);
        v("foot_open", c.foot_open);
    }
    bool operator==(const Choices&) const = default;
};

}  // namespace split
}  // namespace jig
