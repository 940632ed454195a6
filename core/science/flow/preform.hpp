// What a preform lets through and holds, layer by layer.
#pragma once

#include <optional>
#include <vector>

#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

/// One layer of a preform, where it lies.
struct FlowLayer {
    double K1 = 1e-10, K2 = 1e-10, Kz = 1e-11;  ///< m², along, across and through it
    double angle = 0;          ///< rad from the zero direction, about the face's outward normal
    double thickness = 0.001;  ///< m
    double porosity = 0.5;
    double gives = 0;  ///< its thickness goes with the load on it to the power of −gives; 0 for what is stiff
    std::optional<Bounds> within;  ///< faces whose centre lies there; none for all
    bool operator==(const FlowLayer&) const = default;
};

/// Sums of the layers over one face: Σ K·h as a tensor in 3-D, of the face's plane (m³), Σ φ·h (m), and of
/// those that give under a load Σ h (m) and Σ gives·h (m).
struct FaceFlow {
    Eigen::Matrix3d conducts = Eigen::Matrix3d::Zero();
    double holds = 0, cloth = 0, gives = 0;
    /// One layer more, with directions of the face's plane along its K1 and K2.
    void add(const FlowLayer& layer, const Point& along, const Point& across);
    bool operator==(const FaceFlow&) const = default;
};
std::vector<FaceFlow> face_flows(const TriangleMesh& mesh, const std::vector<FlowLayer>& layers,
                                 const Point& zero);

/// How far the front in a tight preform trails that in the medium on top of it: two layers in balance, resin
/// going down through the preform's Kz from what the medium carries. m; and the same as s at a front of
/// `speed` m/s.
struct Lag {
    double length = 0;
    [[nodiscard]] double seconds(double speed) const { return speed > 0 ? length / speed : 0; }
};
Lag lag_under(const FlowLayer& medium, const FlowLayer& preform);

}  // namespace jig
