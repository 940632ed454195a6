// A shell on its supports under loads: assembled once, factored once, solved for as many loads as wanted.
#pragma once

#include <memory>

#include "core/base/progress.hpp"
#include "core/science/laminate/stack.hpp"
#include "core/science/mesh/triangle_mesh.hpp"

namespace jig::shell_fe {

/// Holds the freedoms (x, y, z, then rotations about them) of all points inside a box.
struct Support {
    Bounds within;
    std::array<bool, 6> fix{};
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

/// Loads add up.
struct Loads {
    double pressure = 0;            ///< Pa, pushing on the outside of the faces
    Point gravity = Point::Zero();  ///< m/s²
    double warming = 0;             ///< K
    std::vector<PointForce> points;
    std::vector<LineForce> lines;
};

struct Solution {
    Eigen::VectorXd freedoms;         ///< six a point: displacement m, rotation rad
    Point reactions = Point::Zero();  ///< N, sum over all supports
    double largest = 0;               ///< m, of the displacements
    [[nodiscard]] Point displacement(std::size_t point) const {
        return freedoms.segment<3>(static_cast<Eigen::Index>(6 * point));
    }
    [[nodiscard]] Point rotation(std::size_t point) const {
        return freedoms.segment<3>(static_cast<Eigen::Index>(6 * point + 3));
    }
};

struct Seconds {
    double assemble = 0, factor = 0, solve = 0;
};

class System {
  public:
    /// `zero` is the laminate's x, projected on every face; the first ply lies on the inner side of the
    /// outward normal. Throws InputError for an empty mesh, for supports that hold no point, and for a shell
    /// that they leave free to move; Cancelled.
    System(const TriangleMesh& mesh, const Laminate& laminate, const Point& zero,
           const std::vector<Support>& supports, Progress& progress);
    ~System();
    System(System&&) noexcept;
    System& operator=(System&&) noexcept;
    System(const System&) = delete;
    System& operator=(const System&) = delete;

    /// Throws InputError for a line force that finds no rim.
    [[nodiscard]] Solution solve(const Loads& loads) const;
    /// All cases at once, which costs little more than one.
    [[nodiscard]] std::vector<Solution> solve(const std::vector<Loads>& cases) const;
    [[nodiscard]] double mass() const;           ///< kg
    [[nodiscard]] std::size_t freedoms() const;  ///< that are solved for
    [[nodiscard]] Seconds seconds() const;       ///< assembling and factoring; solving of the last call

  private:
    struct Inside;
    std::unique_ptr<Inside> inside_;
};

}  // namespace jig::shell_fe
