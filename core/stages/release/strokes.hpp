// Which way each coat of release is laid on the face.
#pragma once

#include "core/base/progress.hpp"
#include "core/science/mesh/topology.hpp"
#include "core/stages/release/findings.hpp"

namespace jig::release {

/// Coats that are laid one way, and that way over the middle of the face.
struct Stroke {
    double turn = 0;         ///< rad against the first coat, 0 to below π
    std::vector<int> coats;  ///< by their place in the plan, from 1
    std::vector<Point> way;  ///< over the face from rim to rim; round it where it is closed
    bool operator==(const Stroke&) const = default;
};

/// The first coat goes along the longer side of the face, seen along frame.w; in the order of their first
/// coats. Ways that no section of the face has are left out. Cancelled.
std::vector<Stroke> strokes_of(const std::vector<Step>& plan, const TriangleMesh& face, const Frame& frame,
                               Progress& progress);

}  // namespace jig::release
