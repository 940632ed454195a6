// Several parts in one mould: how they lie beside each other.
#pragma once

#include <cmath>
#include <memory>

#include "core/science/mesh/outline.hpp"
#include "core/science/mesh/topology.hpp"
#include "core/stages/split/choices.hpp"

namespace jig::split {

/// Where one part lies in the mould, across its pull: mirrored (v for -v), then turned, then moved.
struct PartPlace {
    bool mirrored = false;
    double turn = 0;               ///< rad
    Point2 move = Point2::Zero();  ///< m
    [[nodiscard]] Point2 at(const Point2& p) const {
        const double y = mirrored ? -p.y() : p.y(), c = std::cos(turn), s = std::sin(turn);
        return Point2(p.x() * c - y * s, p.x() * s + y * c) + move;
    }
    bool operator==(const PartPlace&) const = default;
};

/// The outline as it lies there, running the same way round.
Loop placed(const Loop& outline, const PartPlace& place);

/// Places for the parts that `choices` asks for, `between` m of flange apart at least: in rows, each slid up
/// to the last, upright or every second one turned by half, whichever way needs the least mould. The outlines
/// are one part's, seen along the pull.
std::vector<PartPlace> lay_parts(const Loops& outlines, const Choices& choices);

/// One outline round all rims: what lies between them, about `between` m wide or less, is closed, and more
/// where they meet only with corners.
Loops joined_outline(const Loops& rims, double between);

/// All parts as one surface in the part's own axes.
struct Stood {
    TriangleMesh mesh;
    Topology topology;
    bool operator==(const Stood&) const = default;
};
std::shared_ptr<const Stood> stand_parts(const TriangleMesh& part, const Frame& frame,
                                         const std::vector<PartPlace>& places);

}  // namespace jig::split
