// A flat triangle of a shell: stretch with turning about its normal, bending with shear, and what couples
// them.
#pragma once

#include <array>
#include <Eigen/Core>

#include "core/science/laminate/stack.hpp"
#include "core/science/mesh/triangle_mesh.hpp"

namespace jig::shell_fe {

using Matrix18 = Eigen::Matrix<double, 18, 18>;
using Vector18 = Eigen::Matrix<double, 18, 1>;

/// Stiffness of a laminate in the directions of an element, and the forces of its free strain.
struct Section {
    Eigen::Matrix3d A, B, D;
    Eigen::Matrix2d S;         ///< transverse shear, N/m
    Eigen::Vector3d N_T, M_T;  ///< per kelvin: A·cte + B·curvature, B·cte + D·curvature
    double areal_mass = 0;     ///< kg/m²
};
Section section_of(const Laminate& laminate);

/// How much of its corners' turning shows in the bulge of a triangle's edges (α_b of Felippa 2003).
inline constexpr double kDrilling = 1.5;

/// One triangle in its own axes: x the laminate's own projected, z its outward normal. Six freedoms a corner
/// in the world's axes: displacement, then rotation vector.
///
/// Stretch: the optimal triangle with drilling freedoms (Felippa 2003, template OPT). Bending: the discrete
/// Kirchhoff–Mindlin triangle (Katili 1993), which neither locks when thin nor forgets shear when the core is
/// soft. Coupling: the stretch triangle's mean strain with the bending triangle's mean curvature.
class Element {
  public:
    /// Throws InputError for a triangle without area.
    Element(const Point& a, const Point& b, const Point& c, const Point& zero_direction,
            const Section& section);

    [[nodiscard]] double area() const { return area_; }
    [[nodiscard]] const Point& normal() const { return z_; }
    /// In the world's axes.
    [[nodiscard]] Matrix18 stiffness() const;
    /// Corner forces of one kelvin of warming.
    [[nodiscard]] Vector18 warming() const;
    /// Mean stretch (x, y, xy) and mean curvature in its own axes, from its corners' freedoms.
    [[nodiscard]] Eigen::Matrix<double, 6, 1> strain(const Vector18& freedoms) const;
    /// Transverse shear strain (xz, yz) at its middle, in its own axes.
    [[nodiscard]] Eigen::Vector2d shear_strain(const Vector18& freedoms) const;
    /// What forces in the middle plane (x, y, xy, N/m, in its own axes) add to the stiffness against moving
    /// sideways: ∫ ∇uᵀ N ∇u with straight sides.
    [[nodiscard]] Matrix18 stress_stiffness(const Eigen::Vector3d& force) const;

  private:
    [[nodiscard]] Eigen::Matrix<double, 9, 3> lumping() const;
    [[nodiscard]] Eigen::Matrix<double, 9, 9> stretch() const;
    /// Curvature (x, y, xy) at barycentric place from (w, turn of x, turn of y) of the corners.
    [[nodiscard]] Eigen::Matrix<double, 3, 9> curvature(const Eigen::Vector3d& place) const;
    [[nodiscard]] Eigen::Matrix<double, 2, 9> shear(const Eigen::Vector3d& place) const;
    [[nodiscard]] Eigen::Matrix<double, 3, 9> mean_curvature() const;
    [[nodiscard]] Eigen::Matrix<double, 18, 18> to_world() const;

    Point x_, y_, z_;
    Eigen::Vector3d px_, py_;  // corners in its own axes
    double area_ = 0;
    Eigen::Matrix<double, 2, 3> slope_;  // of the corners' linear shapes along x and y
    Eigen::Vector3d side_, cosine_, sine_, phi_;
    Eigen::Matrix<double, 3, 9> bulge_;  // turning at the sides' middles from the corners' freedoms
    const Section* section_;
};

}  // namespace jig::shell_fe
