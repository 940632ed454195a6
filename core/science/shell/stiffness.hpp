// The lower half of a symmetric matrix over six freedoms a point, laid out before it is filled.
#pragma once

#include <array>
#include <Eigen/Core>
#include <span>
#include <vector>

#include "core/science/shell/model.hpp"

namespace jig::shell_fe {

/// Compressed columns. Points that share a face, bar or tie touch; each pair is one block, so that an entry's
/// place follows from the block's and no list of entries is ever sorted.
struct Stiffness {
    int rows = 0;
    std::vector<int> number;                   ///< by freedom, its row; -1 where it is held
    std::vector<int> first;                    ///< by column, its first entry; one more at the end
    std::vector<int> row;                      ///< by entry
    std::vector<double> value;                 ///< by entry
    std::vector<std::size_t> neighbours_from;  ///< by point, into `neighbour`; one more at the end
    std::vector<std::uint32_t> neighbour;      ///< points of a higher number that it touches, ascending
    std::vector<int> before;                   ///< by neighbour, rows of earlier neighbours

    /// Lays out the matrix of a model whose freedoms are `held` (six a point, nonzero where they are).
    Stiffness(const Model& model, const std::vector<char>& held);

    /// Adds a block matrix of `points` (six freedoms each, column-major, its lower half or whole alike).
    void add(std::span<const std::uint32_t> points, const double* block);
    /// The middle one of all freedoms' own stiffnesses.
    [[nodiscard]] double usual_diagonal() const;
    /// y = A·x with both halves.
    [[nodiscard]] Eigen::VectorXd times(const Eigen::VectorXd& x) const;
};

}  // namespace jig::shell_fe
