// A straight bar with bending, stretch and twist.
#pragma once

#include "core/science/shell/model.hpp"

namespace jig::shell_fe {

using Matrix12 = Eigen::Matrix<double, 12, 12>;
using Vector12 = Eigen::Matrix<double, 12, 1>;

/// In the world's axes; displacement, then rotation vector, of both ends. Slender: no shear (Przemieniecki
/// 1968, ch. 5). Throws InputError for ends at one place or an `up` along the bar.
Matrix12 bar_stiffness(const Bar& bar, const Point& a, const Point& b);
/// What an axial force (N, pulling positive) adds to the stiffness against moving sideways (Przemieniecki
/// 1968, ch. 15).
Matrix12 bar_stress_stiffness(const Bar& bar, const Point& a, const Point& b, double force);
/// End forces of one kelvin of warming.
Vector12 bar_warming(const Bar& bar, const Point& a, const Point& b);

}  // namespace jig::shell_fe
