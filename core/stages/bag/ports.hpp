// Where hoses of an infusion lie on the face.
#pragma once

#include <optional>
#include <string>

#include "core/science/mesh/topology.hpp"
#include "core/stages/bag/infusion.hpp"

namespace jig::bag {

/// A face as hoses are laid on it: its points and the ways between them.
class FlowGround {
  public:
    /// `mesh` must outlive this.
    FlowGround(const TriangleMesh& mesh, const Frame& frame);

    /// Seen along the pull, from the middle of the face: along and across.
    [[nodiscard]] Point2 seen(const Point& place) const { return frame_.flat(place) - middle_; }
    [[nodiscard]] Point2 seen(std::uint32_t point) const { return seen(mesh_.points[point]); }
    [[nodiscard]] const Point2& half() const { return half_; }  ///< m from the middle to the ends
    [[nodiscard]] std::uint32_t nearest(const Point2& place) const;
    /// Where the face begins and ends along a line so far across.
    [[nodiscard]] Point2 chord(double across) const;
    [[nodiscard]] const std::vector<std::uint32_t>& rim() const { return rim_; }  ///< the longest one
    /// m along the face from the nearest of `from`; 1e300 where no way leads.
    [[nodiscard]] std::vector<double> away_from(const std::vector<std::uint32_t>& from) const;
    /// Points from one to the other over the face, as near as may be to the plane through both along the
    /// pull. Both alone where no way leads.
    [[nodiscard]] std::vector<std::uint32_t> way(std::uint32_t from, std::uint32_t to) const;
    [[nodiscard]] const Frame& frame() const { return frame_; }
    [[nodiscard]] const TriangleMesh& mesh() const { return mesh_; }

  private:
    /// Least ways from `from`, by the cost of each edge; stops at `to` where it is given.
    template <class Cost>
    std::vector<double> spread(const std::vector<std::uint32_t>& from, Cost&& cost,
                               std::vector<std::uint32_t>* before, std::uint32_t to) const;
    const TriangleMesh& mesh_;
    Frame frame_;
    Point2 middle_ = Point2::Zero(), half_ = Point2::Zero();
    std::vector<std::uint32_t> used_, rim_, start_, to_;
    double edge_ = 0;  ///< m, mean of its edges
};

/// A hose where it lies.
struct PlacedPort {
    Port port;
    std::string name;                   ///< "feed 2"
    std::vector<std::uint32_t> points;  ///< of the mesh
    /// Of a line, then of a fishbone's side lines, each as it runs.
    std::vector<std::vector<std::uint32_t>> ways;
    double length = 0;         ///< m of spiral line; 0 at a place
    Point at = Point::Zero();  ///< the middle of it
    bool operator==(const PlacedPort&) const = default;
};

/// A way in the plane through its ends along the pull: what zigzags from point to point is no hose.
std::vector<Point> straightened(const std::vector<std::uint32_t>& way, const FlowGround& ground);

/// The same hose on the other side of the line along the middle of the face; one that lies on that line, at
/// the other end of it. None for one that is its own mirror: all of the rim, or a place in the very middle.
std::optional<Port> mirrored(const Port& port);

/// The hoses of a plan on a face, as the maker could have placed them: feeds first.
std::vector<Port> planned_ports(const Infusion& infusion, const FlowGround& ground);
/// Throws InputError for a rim that is not there.
std::vector<PlacedPort> placed(const std::vector<Port>& ports, const FlowGround& ground);

}  // namespace jig::bag
