// How the master is made: a stack of slabs along the pull.
#pragma once

#include "core/base/fields.hpp"

namespace jig {

enum class Barrier { none, epoxy, water };
template <>
struct Words<Barrier> {
    static constexpr std::array all{Word{"none", "no barrier coat"}, Word{"epoxy", "a skin of epoxy"},
                                    Word{"water", "a water-based barrier coat"}};
};

namespace plug {

struct Choices {
    std::string board = "XPS foam 32, 50 mm";
    double margin = 0.015;     ///< m left round each slab on the sheet
    double waste = 0.30;       ///< share of each sheet that nesting leaves over
    double build_up = 0.0006;  ///< m of barrier, filler, primer and paint
    Barrier barrier = Barrier::water;
    static void fields(auto& c, auto&& v) {
        v("board", c.board);
        v("margin", c.margin, 0.0, 0.2);
        v("waste", c.waste, 0.0, 0.9);
        v("build_up", c.build_up, 0.0, 0.05);
        v("barrier", c.barrier);
    }
    bool operator==(const Choices&) const = default;
};

}  // namespace plug
}  // namespace jig
