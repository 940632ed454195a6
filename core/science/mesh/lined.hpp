// A mesh whose edges run along given planes, so that ribs can stand on them.
#pragma once

#include <set>
#include <vector>

#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

/// Parallel planes: normal · p = at.
struct PlaneSet {
    Point normal = Point::UnitX();  ///< unit
    std::vector<double> at;         ///< m, ascending
};

struct Lined {
    TriangleMesh mesh;
    std::vector<int> patch;              ///< by face, as it was given
    std::array<std::vector<int>, 2> on;  ///< by point, its plane in either set; -1 off all of them
};

/// Edges that the outline of a surface runs along: rims, borders between patches, folds sharper than 35°; the
/// lower point first.
std::set<std::pair<std::uint32_t, std::uint32_t>> outline_edges(const TriangleMesh& mesh,
                                                                const std::vector<int>& patch);

/// Points near a plane are moved onto it along their edges, edges that still cross it are split there. Points
/// on a rim, on a border between patches or on a fold sharper than 35° move along it only, so the surface
/// keeps its outline. No point moves further than `reach` (a share of its edge).
Lined lined_up(const TriangleMesh& mesh, const std::vector<int>& patch, const std::array<PlaneSet, 2>& sets,
               double reach = 0.33);

/// Whether twice a face's area is no more than `least` of its longest side squared.
bool is_sliver(const TriangleMesh& mesh, std::size_t face, double least);

/// Leaves out points that no face uses.
void drop_unused_points(Lined& lined);

/// Leaves out faces that are slivers, which join nothing and spoil the sums of those that do, then all but
/// the largest piece that still hangs together, then unused points.
void drop_slivers(Lined& lined, double least);

/// The points on one plane of one set, joined along the mesh's edges from its lowest place along `along` to
/// its highest by the shortest way; one chain for each piece of the surface that the plane meets.
std::vector<std::vector<std::uint32_t>> chains_on(const Lined& lined, int set, int plane, const Point& along);

}  // namespace jig
