// Mending of meshes that come from other programs and from scans.
#pragma once

#include <string>
#include <vector>

#include "core/base/fields.hpp"
#include "core/base/progress.hpp"
#include "core/science/mesh/topology.hpp"

namespace jig {

/// What may be mended; each can be left as it came.
struct MendRules {
    bool join = true;   ///< join points that fall together
    bool drop = true;   ///< drop empty and doubled faces
    bool turn = true;   ///< turn faces so that neighbours agree and closed bodies face outwards
    bool close = true;  ///< close pinholes
    static void fields(auto& c, auto&& v) {
        v("join", c.join);
        v("drop", c.drop);
        v("turn", c.turn);
        v("close", c.close);
    }
    bool operator==(const MendRules&) const = default;
};

/// One thing that was mended, in the maker's words, with how often and where.
struct Repair {
    std::string what;
    std::size_t count = 0;
    std::string rule;           ///< the field of MendRules that undoes it
    std::vector<Point> places;  ///< the first few hundred
    bool operator==(const Repair&) const = default;
};

inline constexpr const char* kCrowded = "edges at which three faces or more meet";

struct Repaired {
    TriangleMesh mesh;
    Topology topology;
    std::vector<Repair> repairs;
    std::vector<Repair> left;  ///< what is open or crowded still, with its places
    std::size_t holes = 0;     ///< rims that remain
};

/// Joins points closer than a millionth of the size; takes out faces without area (their neighbours close
/// up), doubled faces and the two that lie on each other where bodies touch; turns faces so that neighbours
/// agree and closed bodies face outwards, those inside another inwards; closes pinholes whose rim is shorter
/// than 2 % of the diagonal. Open surfaces stay open, and `left` says where. Throws InputError where no face
/// with an area is left; Cancelled.
Repaired repaired(TriangleMesh mesh, Progress& progress, const MendRules& rules = {});

}  // namespace jig
