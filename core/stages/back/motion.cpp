#include "core/stages/back/motion.hpp"

#include <Eigen/Cholesky>

namespace jig::back {

Motion motion_of(const std::vector<Point>& places, const std::vector<Point>& moves,
                 const std::vector<double>& weights, bool growth) {
    // Least squares over shift, turn and growth about the middle.
    Motion out;
    double whole = 0;
    for (std::size_t i = 0; i < places.size(); ++i) {
        out.middle += weights[i] * places[i];
        whole += weights[i];
    }
    out.middle /= whole;
    using Row = Eigen::Matrix<double, 3, 7>;
    Eigen::Matrix<double, 7, 7> N = Eigen::Matrix<double, 7, 7>::Zero();
    Eigen::Matrix<double, 7, 1> b = Eigen::Matrix<double, 7, 1>::Zero();
    for (std::size_t i = 0; i < places.size(); ++i) {
        const Point r = places[i] - out.middle;
        Row A = Row::Zero();
        A.leftCols<3>().setIdentity();
        A.block<3, 3>(0, 3) << 0, r.z(), -r.y(), -r.z(), 0, r.x(), r.y(), -r.x(), 0;
        if (growth) A.col(6) = r;
        N += weights[i] * A.transpose() * A;
        b += weights[i] * A.transpose() * moves[i];
    }
    if (!growth) N(6, 6) = 1;
    N.diagonal().array() += 1e-12 * N.trace();
    const Eigen::Matrix<double, 7, 1> x = N.ldlt().solve(b);
    out.shift = x.head<3>();
    out.turn = x.segment<3>(3);
    out.growth = growth ? x[6] : 0;
    return out;
}

}  // namespace jig::back
