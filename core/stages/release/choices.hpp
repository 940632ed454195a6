// What keeps the tool from sticking.
#pragma once

#include "core/base/fields.hpp"
#include "core/shop/lists.hpp"

namespace jig::release {

/// What of the shop library this stage reads.
using Library = Lists<ReleaseSystem>;

struct Choices {
    std::string system = "semi-permanent";
    bool wax_before = false;  ///< the face has been waxed earlier and not stripped
    bool mask_land = true;    ///< tape land masked until bagging
    static void fields(auto& c, auto&& v) {
        v("system", c.system);
        v("wax_before", c.wax_before);
        v("mask_land", c.mask_land);
    }
    bool operator==(const Choices&) const = default;
};

}  // namespace jig::release
