#include "core/stages/back/tipping.hpp"

#include <algorithm>
#include <limits>

#include "core/base/units.hpp"

namespace jig::back {

Tips tips(std::span<const Point2> feet, const Point2& centre, double weight, std::span<const Point2> rim,
          double push) {
    Tips out;
    out.force = std::numeric_limits<double>::infinity();
    for (const auto& a : feet) {
        for (const auto& b : feet) {
            const double side = (b - a).norm();
            if (side < 1e-9) continue;
            // The outline runs with all feet on its left.
            const Point2 outward = Point2((b - a).y(), (a - b).x()) / side;
            if (std::any_of(feet.begin(), feet.end(),
                            [&](const Point2& p) { return outward.dot(p - a) > 1e-9; }))
                continue;
            const double inside = outward.dot(a - centre);
            for (std::size_t i = 0; i < rim.size(); ++i) {
                const double beyond = outward.dot(rim[i] - a);
                if (beyond <= 0 && inside > 0) continue;
                const double force = inside <= 0 ? 0 : weight * inside / beyond;
                if (inside > 0 && beyond > 0)
                    out.ballast = std::max(out.ballast, (push * beyond / inside - weight) / kGravity);
                if (force >= out.force) continue;
                out.force = force;
                out.where = i;
            }
        }
    }
    return out;
}

}  // namespace jig::back
