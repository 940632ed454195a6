// What keeps the tool from sticking.
#pragma once

#include "core/base/fields.hpp"
#include "core/shop/lists.hpp"

namespace jig {

/// What closes the line between pieces that are bolted together, before anything is laid over it.
enum class SeamFill { wax, clay, none };
template <>
struct Words<SeamFill> {
    static constexpr std::array all{Word{"wax", "filled with wax"}, Word{"clay", "filled with soft clay"},
                                    Word{"none", "left open"}};
};

namespace release {

/// What of the shop library this stage reads.
using Library = Lists<ReleaseSystem, ReleasePair, Resin, SurfaceCoat, Board>;

/// How a kind of face is treated.
struct Treated {
    FaceKind surface = FaceKind::as_built;
    FaceHistory history = FaceHistory::fresh;
    std::string system;  ///< empty: the stage's own
    static void fields(auto& c, auto&& v) {
        v("surface", c.surface);
        v("history", c.history);
        v("system", c.system);
    }
    bool operator==(const Treated&) const = default;
};

/// A loose core, an insert, a dowel plate: what else resin touches.
struct Loose {
    std::string name = "loose core";
    FaceKind surface = FaceKind::epoxy_coat;
    FaceHistory history = FaceHistory::fresh;
    std::string system;  ///< empty: the stage's own
    double area = 0.05;  ///< m²
    static void fields(auto& c, auto&& v) {
        v("name", c.name);
        v("surface", c.surface);
        v("history", c.history);
        v("system", c.system);
        v("area", c.area, 0.0, 1000.0);
    }
    bool operator==(const Loose&) const = default;
};

struct Choices {
    std::string system = "semi-permanent";
    Treated plug, mould;
    Treated boards{FaceKind::as_built, FaceHistory::fresh, "release tape"};
    std::vector<Loose> loose;
    bool mask_land = true;      ///< tape land masked until bagging
    bool rims_released = true;  ///< rims that close on each other are released; false: kept clear for glue
    SeamFill seam = SeamFill::wax;
    static void fields(auto& c, auto&& v) {
        v("system", c.system);
        v("plug", c.plug);
        v("boards", c.boards);
        v("mould", c.mould);
        v("loose", c.loose);
        v("mask_land", c.mask_land);
        v("rims_released", c.rims_released);
        v("seam", c.seam);
    }
    bool operator==(const Choices&) const = default;
};

}  // namespace release
}  // namespace jig
