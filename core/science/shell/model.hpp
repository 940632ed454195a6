// A structure as the shell finite elements see it: skins, bars and ties on common points, supports, loads.
#pragma once

#include <vector>

#include "core/science/laminate/stack.hpp"
#include "core/science/mesh/triangle_mesh.hpp"

namespace jig::shell_fe {

/// What faces are made of.
struct Skin {
    Laminate laminate;            ///< its first ply on the inner side of the faces' outward normals
    Point zero = Point::UnitX();  ///< the laminate's x, projected on every face
};

/// A straight bar between two points, rigidly joined to both.
struct Bar {
    std::uint32_t a = 0, b = 0;
    double stretch = 0;         ///< N, E·A
    double bend_up = 0;         ///< N·m², E·I for bending in the plane of the bar and `up`
    double bend_across = 0;     ///< N·m²
    double twist = 0;           ///< N·m², G·J
    double mass = 0;            ///< kg/m
    double alpha = 0;           ///< 1/K
    Point up = Point::UnitZ();  ///< any direction that is not the bar's own
};

/// Holds two points together elastically.
struct Tie {
    std::uint32_t a = 0, b = 0;
    Eigen::Matrix3d stiffness = Eigen::Matrix3d::Zero();  ///< N/m, against a difference of displacements
    Eigen::Matrix3d turning = Eigen::Matrix3d::Zero();    ///< N·m, against a difference of rotations
};

struct Model {
    TriangleMesh mesh;
    std::vector<Skin> skins;
    std::vector<std::uint16_t> skin;  ///< by face, its number in `skins`; empty where all are the first
    std::vector<Bar> bars;
    std::vector<Tie> ties;
    [[nodiscard]] std::size_t skin_of(std::size_t face) const { return skin.empty() ? 0 : skin[face]; }
};

struct Weight {
    double mass = 0;               ///< kg
    Point centre = Point::Zero();  ///< m
};
/// Of all skins and bars.
Weight weigh(const Model& model);

/// Holds the freedoms (x, y, z, then rotations about them) of the named points, and of all inside a box
/// where no point is named.
struct Support {
    Bounds within;
    std::array<bool, 6> fix{};
    std::vector<std::uint32_t> points{};
};

struct PointForce {
    Point force = Point::Zero();  ///< N
    Point near = Point::Zero();   ///< m; the nearest point of the mesh takes it
};

/// Along the mesh's rim where both ends of an edge lie inside a box.
struct LineForce {
    Point force = Point::Zero();  ///< N/m
    Bounds within;
};

/// On one point of the mesh, by its number.
struct NodeForce {
    std::uint32_t point = 0;
    Point force = Point::Zero();  ///< N
};

/// Loads add up.
struct Loads {
    double pressure = 0;             ///< Pa, pushing on the outside of all faces
    std::vector<float> pressures{};  ///< Pa by face, added to that; empty for none
    Point gravity = Point::Zero();   ///< m/s²
    double warming = 0;              ///< K
    std::vector<PointForce> points{};
    std::vector<LineForce> lines{};
    std::vector<NodeForce> nodes{};
};

}  // namespace jig::shell_fe
