// A way to make the part, kept under a name so that others can be set beside it.
#pragma once

#include "core/stages/part/zone.hpp"

namespace jig::part {

struct Build {
    std::string name = "build";
    std::string resin;
    LayUp how = LayUp::bagged;
    std::vector<Layer> layers;
    double gel_temperature = 296.15;  ///< K
    std::vector<Zone> zones;
    static void fields(auto& c, auto&& v) {
        v("name", c.name);
        v("resin", c.resin);
        v("how", c.how);
        v("layers", c.layers);
        v("gel_temperature", c.gel_temperature, 283.0, 500.0);
        v("zones", c.zones);
    }
    bool operator==(const Build&) const = default;
};

/// More do not fit side by side.
inline constexpr std::size_t kMostBuilds = 8;

}  // namespace jig::part
