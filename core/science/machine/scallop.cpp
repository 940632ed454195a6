#include "core/science/machine/scallop.hpp"

#include <algorithm>
#include <cmath>

namespace jig {

double scallop_height(double step, double radius) {
    const double half = std::min(step / 2, radius);
    return radius - std::sqrt(radius * radius - half * half);
}

double step_for_scallop(double height, double radius) {
    const double h = std::clamp(height, 0.0, radius);
    return 2 * std::sqrt(h * (2 * radius - h));
}

double roughing_seconds(double volume, const Feeds& f) {
    return f.travel * volume / (f.feed * f.rough_deep * f.rough_wide);
}

double finishing_seconds(double area, double step, const Feeds& f) {
    return f.travel * area / (f.feed * step);
}

}  // namespace jig
