// Moving along a mesh from face to face.
#pragma once

#include <optional>

#include "core/science/mesh/topology.hpp"

namespace jig {

/// A place on the mesh, or past its rim in the plane of the face that it left by.
struct OnMesh {
    Point at = Point::Zero();
    std::uint32_t face = 0;
    bool outside = false;
};

class MeshWalk {
  public:
    /// Mesh and topology must outlive this.
    MeshWalk(const TriangleMesh& mesh, const Topology& topology);

    /// The place of the mesh next to `p`, walked to from `start`: down the distance from face to face. Past a
    /// rim, the foot of `p` on the plane of the last face.
    [[nodiscard]] OnMesh nearest(const Point& p, std::uint32_t start) const;

    /// Straight on along the mesh from a place, `length` m along `way` (any direction; its part in the face
    /// counts), each fold unfolded. `way` comes back turned as the face turned it. Past a rim, straight on in
    /// its plane.
    [[nodiscard]] OnMesh straight(const OnMesh& from, Point& way, double length) const;

    /// The straight way along the mesh between two places of it, each fold unfolded.
    struct Way {
        double length = 0;                                      ///< m
        Point leaves = Point::Zero(), arrives = Point::Zero();  ///< unit, in the faces of its ends
    };
    /// Sought from the straight line through the air; none where that does not find it.
    [[nodiscard]] std::optional<Way> way(const OnMesh& from, const OnMesh& to) const;

    /// Whether a fold sharper than 20° ends at a corner of the face: normals between corners say little
    /// there.
    [[nodiscard]] bool beside_fold(std::uint32_t face) const { return sharp_[face] != 0; }

    /// Unit normal between those of a face's corners, each the mean of its faces.
    [[nodiscard]] Point normal(const OnMesh& place) const;
    [[nodiscard]] const Point& flat_normal(std::uint32_t face) const { return normals_[face]; }

  private:
    const TriangleMesh& mesh_;
    const Topology& topology_;
    std::vector<Point> normals_, corner_normals_;
    std::vector<char> sharp_;  ///< by face
};

}  // namespace jig
