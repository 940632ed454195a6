// CHOLMOD's supernodal Cholesky of a stiffness, in an order found on the graph of points.
#pragma once

#include <memory>

#include "core/science/shell/stiffness.hpp"

namespace jig::shell_fe {

class Factor {
  public:
    Factor();
    ~Factor();
    Factor(const Factor&) = delete;
    Factor& operator=(const Factor&) = delete;

    /// False where the matrix is not positive definite.
    bool compute(Stiffness& K);
    /// Whether a matrix of the pattern last computed is positive definite: with K positive definite, whether
    /// no eigenvalue of (K + λ·M)φ = 0 lies between nought and λ (Sturm). The factor is that matrix's where
    /// it is.
    bool definite(Stiffness& K);
    /// A cheap estimate of the reciprocal condition.
    double evenness();
    Eigen::MatrixXd solve(const Eigen::MatrixXd& right);

  private:
    struct Inside;
    std::unique_ptr<Inside> inside_;
};

}  // namespace jig::shell_fe
