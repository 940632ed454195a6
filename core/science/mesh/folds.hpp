// Where a face folds: strips along which it turns one way, about a line.
#pragma once

#include "core/base/progress.hpp"
#include "core/science/mesh/topology.hpp"

namespace jig {

struct Fold {
    double turn = 0;               ///< rad that it turns by across, on the mean along it
    double most = 0;               ///< rad, where it turns most
    double radius = 0;             ///< m, on the mean; 0 where all of the turn lies in one edge
    double length = 0;             ///< m along it
    double flank = 0;              ///< m that the face reaches from it, on the side where it reaches less far
    bool free = false;             ///< it runs from rim to rim: its flanks swing as they like
    bool hollow = false;           ///< seen from outside
    Point at = Point::Zero();      ///< on it, near its middle, m
    Point along = Point::Zero();   ///< unit, its axis there
    Point across = Point::Zero();  ///< unit, in the face there
    std::vector<std::uint32_t> faces;  ///< that it is made of
    bool operator==(const Fold&) const = default;
};

struct FoldRules {
    double reach = 0.015;  ///< m over which the face's bend is read: facets finer than that are evened out
    double least = 0.26;   ///< rad; what turns by less is no fold
    double widest = 0.5;   ///< m, the largest radius of one
    bool operator==(const FoldRules&) const = default;
};

/// Folds of a surface, those that turn most first. A face belongs to one where it bends within `widest` and
/// along that at most a third as much: a dish has none. A strip ends where its bend falls under a fifth of
/// its tightest, or changes its way. How far it turns is walked: from up to 400 faces of the strip over the
/// mesh in the plane across the fold, both ways, until the strip is left, adding up what the faces' normals
/// turn by. Lengths are the strip's area over its width. What comes back to itself, as round a tube, is no
/// fold. Throws Cancelled.
std::vector<Fold> folds(const TriangleMesh& mesh, const Topology& topology, const FoldRules& rules,
                        Progress& progress);

}  // namespace jig
