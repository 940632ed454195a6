// A cut's line against the face's rim.
#pragma once

#include "core/stages/part/draped.hpp"

namespace jig::part {

/// A face's rim seen along the pull.
class SeenRim {
  public:
    SeenRim(const TriangleMesh& face, const Topology& topology, const Frame& frame);
    /// The place of it next to `p`; none without a rim.
    [[nodiscard]] std::optional<Point2> nearest(const Point2& p) const;
    /// How far it is from `p` along a unit `way` until the face has ended for good.
    [[nodiscard]] double out(const Point2& p, const Point2& way) const;

  private:
    std::vector<std::array<Point2, 2>> edges_;
};

/// The middle of the face's box, seen along the pull: spots are measured from it.
Point2 seen_middle(const TriangleMesh& face, const Frame& frame);

/// m of a cut over the face, in the ply where it is longest; 0 where it cuts nothing.
double cut_length(const Draped& draped, std::size_t cut);

/// Moves a corner to a place that was pointed at, from the middle. An end that comes within a cell or two of
/// the rim runs out past it: nobody can point there, and a cut that ends a hair before the rim is meant to
/// reach it.
void move_corner(Cut& cut, std::size_t corner, const Point2& to, const Draped& draped, const Frame& frame);

}  // namespace jig::part
