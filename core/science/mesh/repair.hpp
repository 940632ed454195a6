// Mending of meshes that come from other programs and from scans.
#pragma once

#include <string>
#include <vector>

#include "core/base/progress.hpp"
#include "core/science/mesh/topology.hpp"

namespace jig {

/// One thing that was mended, in the maker's words, with how often.
struct Repair {
    std::string what;
    std::size_t count = 0;
    bool operator==(const Repair&) const = default;
};

struct Repaired {
    TriangleMesh mesh;
    Topology topology;
    std::vector<Repair> repairs;
    std::size_t holes = 0;  ///< rims that remain
};

/// Joins points closer than a millionth of the size, drops empty and doubled faces, turns faces so that
/// neighbours agree and closed bodies face outwards, and closes pinholes whose rim is shorter than 2 % of the
/// diagonal. Open surfaces stay open. Throws Cancelled.
Repaired repaired(TriangleMesh mesh, Progress& progress);

}  // namespace jig
