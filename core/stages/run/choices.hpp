// Money, hands and what has to be bought for the shop.
#pragma once

#include "core/base/fields.hpp"
#include "core/shop/lists.hpp"

namespace jig::run {

/// What of the shop library this stage reads.
using Library = Lists<Reinforcement, SurfaceCoat, Core, Board, Consumable, Fastener, Bonding, Rate>;

struct Equipment {
    std::string name;
    double price = 0;
    static void fields(auto& c, auto&& v) {
        v("name", c.name);
        v("price", c.price, 0.0, 1e7);
    }
    bool operator==(const Equipment&) const = default;
};

struct Choices {
    double labour = 0;          ///< per hour; 0 for the shop's rate
    double start = 8 * 3600.0;  ///< s after midnight at which the shift begins
    std::vector<Equipment> equipment;
    static void fields(auto& c, auto&& v) {
        v("labour", c.labour, 0.0, 10000.0);
        v("start", c.start, 0.0, 86400.0);
        v("equipment", c.equipment);
    }
    bool operator==(const Choices&) const = default;
};

}  // namespace jig::run
