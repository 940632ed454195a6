// Sizes of a surface.
#pragma once

#include <optional>

#include "core/science/mesh/topology.hpp"

namespace jig {

struct Measures {
    double area = 0;                 ///< m²
    double volume = 0;               ///< m³; an open surface is closed over its rims by flat fans
    Point centroid = Point::Zero();  ///< of that volume, m; of the area where it encloses none
    Point size = Point::Zero();      ///< m, along x, y, z
    bool closed = false;
    std::size_t rims = 0;
    std::optional<double>
        smallest_inside_radius;  ///< m; nothing where no face is hollow, 0 at a sharp inside corner
    Point smallest_radius_at = Point::Zero();
};

Measures measure(const TriangleMesh& mesh, const Topology& topology);

}  // namespace jig
