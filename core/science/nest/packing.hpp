// The border to libnest2d, which does not compile as C++20: plain values only, so that one file alone is
// built to its older standard.
#pragma once

#include <cstdint>
#include <functional>
#include <utility>
#include <vector>

namespace jig {

struct PackItem {
    std::vector<std::pair<std::int64_t, std::int64_t>> outline;  ///< anticlockwise, grid units
    int bin = -1;
    double turn = 0;
    std::int64_t move_x = 0, move_y = 0;
};

/// Places every item into as few bins of `width` x `height` as the library finds; `grain` allows half turns
/// only. `left` hears how many remain.
void pack(std::vector<PackItem>& items, std::int64_t width, std::int64_t height, std::int64_t gap, bool grain,
          const std::function<void(unsigned left)>& left, const std::function<bool()>& stop);

}  // namespace jig
