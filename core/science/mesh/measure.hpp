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
    std::vector<double> bodies;  ///< m² of each surface that hangs together by its points, largest first
    std::optional<double>
        smallest_inside_radius;  ///< m; nothing where no face is hollow, 0 at a sharp inside corner
    Point smallest_radius_at = Point::Zero();
    bool operator==(const Measures&) const = default;
};

/// All but the inside radius, which wants the bends.
Measures measure(const TriangleMesh& mesh, const Topology& topology);

/// Principal curvatures of each face, 1/m: how tightly it is hollow and how tightly round, zero where it is
/// not. By the turning of the corners' normals (Rusinkiewicz 2004), each taken over the faces that a sharp
/// fold does not part from it: the fold is an edge of its own, and strips of fillets and bores beside it keep
/// their bend.
struct Bends {
    std::vector<float> hollow, round;
    std::vector<std::array<float, 3>>
        fold;  ///< rad by which the surface folds at each edge, as `fold_at` says
    bool operator==(const Bends&) const = default;
};
Bends bends(const TriangleMesh& mesh, const Topology& topology);

/// Fills the smallest inside radius of `out`, and where it is.
void find_inside_radius(const TriangleMesh& mesh, const Bends& bends, Measures& out);

/// The least radii of a file's true faces, m, at the corners of their facets; none where no face is hollow,
/// or none is round.
struct TrueRadii {
    std::optional<double> hollow, round;
};
/// Six times the signed volume under a mesh about the middle of its box, m³: its sign tells its outside.
double turning_volume(const TriangleMesh& mesh);
/// Takes the radius of the file's own faces for that read off the mesh, unless a sharp corner is tighter
/// still; `turned` where the mesh is seen from the faces' other side. True where it was taken.
bool take_true_radius(const TrueRadii& radii, bool turned, double scale, Measures& out);

/// Corners tighter than a radius: where cloth bridges.
struct TightCorners {
    double length = 0;        ///< m along them
    double filler = 0;        ///< m³ that brings them to the radius
    std::vector<char> faces;  ///< by face, true where it belongs to one
    bool operator==(const TightCorners&) const = default;
};
/// m of them that are filled; less is passed over.
inline constexpr double kWorthFilling = 0.02;

/// Hollow corners of the surface itself (cloth laid on it), or its round ones (cloth laid into its mould).
/// A sharp fold by θ takes r²·(tan(θ/2) − θ/2) of filler a metre; a bent strip is counted as a quarter turn.
TightCorners tight_corners(const TriangleMesh& mesh, const Topology& topology, const Bends& bends,
                           double radius, bool hollow);

}  // namespace jig
