// What a shell system holds: shared by its solving and its buckling, and seen by nobody else.
#pragma once

#include "core/science/mesh/topology.hpp"
#include "core/science/shell/element.hpp"
#include "core/science/shell/factor.hpp"
#include "core/science/shell/stiffness.hpp"
#include "core/science/shell/system.hpp"

namespace jig::shell_fe {

struct System::Inside {
    Model model;
    std::vector<Section> sections;
    Topology topology;
    double near = 0;  ///< m within which places are the same
    std::unique_ptr<Stiffness> matrix;
    mutable Factor factor;
    mutable Seconds seconds;

    [[nodiscard]] const TriangleMesh& mesh() const { return model.mesh; }
    [[nodiscard]] Element element(std::size_t f) const {
        const auto s = model.skin_of(f);
        return {mesh().corner(f, 0), mesh().corner(f, 1), mesh().corner(f, 2), model.skins[s].zero,
                sections[s]};
    }
    [[nodiscard]] const Point& point(std::uint32_t i) const { return mesh().points[i]; }
    [[nodiscard]] int row(std::size_t freedom) const { return matrix->number[freedom]; }
    /// Six a point.
    [[nodiscard]] Eigen::VectorXd forces(const Loads& loads) const;
    void add_lines(const LineForce& line, Eigen::VectorXd& force) const;
    [[nodiscard]] std::size_t freedom(std::size_t f, int local) const {
        return 6 * static_cast<std::size_t>(mesh().triangles[f][static_cast<std::size_t>(local / 6)]) +
               static_cast<std::size_t>(local % 6);
    }
    [[nodiscard]] Vector18 corners(std::size_t f, const Eigen::VectorXd& freedoms) const {
        Vector18 own;
        for (int a = 0; a < 18; ++a) own[a] = freedoms[static_cast<Eigen::Index>(freedom(f, a))];
        return own;
    }
    [[nodiscard]] std::vector<char> held_by(const std::vector<Support>& supports) const;
    void assemble(Progress& progress);
    void add_reactions(std::vector<Solution>& solutions, const std::vector<std::uint32_t>& place) const;
    /// Lists the points that supports hold in every solution, and says by point its place in that list.
    [[nodiscard]] std::vector<std::uint32_t> list_held(std::vector<Solution>& solutions) const;
    /// A full matrix over `from` (one column each) as solved for, and back.
    [[nodiscard]] Eigen::VectorXd whole(const Eigen::VectorXd& solved) const {
        Eigen::VectorXd out = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(matrix->number.size()));
        for (std::size_t i = 0; i < matrix->number.size(); ++i) {
            if (row(i) >= 0) out[static_cast<Eigen::Index>(i)] = solved[row(i)];
        }
        return out;
    }
};

}  // namespace jig::shell_fe
