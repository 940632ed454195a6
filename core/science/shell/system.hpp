// A shell on its supports under loads: assembled once, factored once, solved for as many loads as wanted.
#pragma once

#include <memory>
#include <string>

#include "core/base/progress.hpp"
#include "core/science/shell/model.hpp"

namespace jig::shell_fe {

struct Solution {
    Eigen::VectorXd freedoms;                             ///< six a point: displacement m, rotation rad
    Point reactions = Point::Zero();                      ///< N, sum over all supports
    double largest = 0;                                   ///< m, of the displacements
    std::vector<std::pair<std::uint32_t, Point>> held{};  ///< N, by point, what each support of it bears
    [[nodiscard]] Point displacement(std::size_t point) const {
        return freedoms.segment<3>(static_cast<Eigen::Index>(6 * point));
    }
    [[nodiscard]] Point rotation(std::size_t point) const {
        return freedoms.segment<3>(static_cast<Eigen::Index>(6 * point + 3));
    }
    /// Finds the largest displacement anew.
    void measure();
};

/// Means over a face, along its laminate's x and y, free strains of warming included.
struct FaceStrain {
    Eigen::Vector3d middle = Eigen::Vector3d::Zero();     ///< x, y, xy
    Eigen::Vector3d curvature = Eigen::Vector3d::Zero();  ///< 1/m
    Eigen::Vector2d shear = Eigen::Vector2d::Zero();      ///< through the thickness, xz and yz
};

struct Seconds {
    double assemble = 0, factor = 0, solve = 0;
};

class System {
  public:
    /// Throws InputError for an empty mesh, for supports that hold no point, and for a shell that they leave
    /// free to move, naming the motion; Cancelled.
    System(Model model, const std::vector<Support>& supports, Progress& progress);
    /// All faces of one laminate.
    System(const TriangleMesh& mesh, const Laminate& laminate, const Point& zero,
           const std::vector<Support>& supports, Progress& progress);
    ~System();
    System(System&&) noexcept;
    System& operator=(System&&) noexcept;
    System(const System&) = delete;
    System& operator=(const System&) = delete;

    /// Throws InputError for a line force that finds no rim, and where reactions do not balance the loads.
    [[nodiscard]] Solution solve(const Loads& loads) const;
    /// All cases at once, which costs little more than one.
    [[nodiscard]] std::vector<Solution> solve(const std::vector<Loads>& cases) const;
    [[nodiscard]] FaceStrain strain(std::size_t face, const Solution& solution) const;

    struct Buckling {
        double factor = 0;  ///< that the loads may be multiplied with; 0 where none was found
        /// Up to here no factor lies, by Sturm's count: just under `factor`, or as far as was looked.
        double none_below = 0;
        Eigen::VectorXd shape;  ///< six a point, its largest displacement 1
    };
    /// Linear buckling under the loads that gave `solution` (warming `warming` K counted): the smallest
    /// positive λ of (K + λ·K_σ)φ = 0, faces and bars taking part. Whether a λ is past the first is told by
    /// whether K + λ·K_σ is still positive definite, so tension elsewhere hides nothing; between brackets by
    /// inverse iteration shifted to the lower one. Looked for up to `most`. Forces keep their directions.
    /// Cancelled.
    [[nodiscard]] Buckling buckling(const Solution& solution, double warming, Progress& progress,
                                    double most = 1e6) const;
    /// What in the model deserves a word: faces that look opposite ways, points that fall together unjoined.
    [[nodiscard]] std::vector<std::string> notes() const;

    [[nodiscard]] const Model& model() const;
    [[nodiscard]] double mass() const;           ///< kg
    [[nodiscard]] std::size_t freedoms() const;  ///< that are solved for
    [[nodiscard]] Seconds seconds() const;       ///< assembling and factoring; solving of the last call

  private:
    struct Inside;
    std::unique_ptr<Inside> inside_;
};

}  // namespace jig::shell_fe
