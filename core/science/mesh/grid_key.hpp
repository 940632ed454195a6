// Cells of a grid in space, as keys of hash tables.
#pragma once

#include <cstdint>

namespace jig {

struct GridKey {
    std::int64_t x, y, z;
    bool operator==(const GridKey&) const = default;
};

struct GridHash {
    std::size_t operator()(const GridKey& k) const {
        auto h = static_cast<std::uint64_t>(k.x) * 0x9e3779b97f4a7c15ull;
        h = (h ^ static_cast<std::uint64_t>(k.y)) * 0xc2b2ae3d27d4eb4full;
        h = (h ^ static_cast<std::uint64_t>(k.z)) * 0x165667b19e3779f9ull;
        return static_cast<std::size_t>(h ^ (h >> 29U));
    }
};

}  // namespace jig
