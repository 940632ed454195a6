#include "core/science/mesh/nearest.hpp"

#include <algorithm>

namespace jig {

Point nearest_on_edge(const Point& p, const Point& a, const Point& b) {
    const Point ab = b - a;
    const double length2 = ab.squaredNorm();
    const double t = length2 > 0 ? std::clamp((p - a).dot(ab) / length2, 0.0, 1.0) : 0.0;
    return a + t * ab;
}

Point nearest_on_triangle(const Point& p, const Point& a, const Point& b, const Point& c) {
    const Point n = (b - a).cross(c - a);
    const double twice2 = n.squaredNorm();
    if (twice2 > 0) {
        // Inside the face's prism the plane is nearest.
        const auto left = [&](const Point& from, const Point& to) {
            return n.dot((to - from).cross(p - from)) >= 0;
        };
        if (left(a, b) && left(b, c) && left(c, a)) return p - n * (n.dot(p - a) / twice2);
    }
    Point best = nearest_on_edge(p, a, b);
    for (const auto& q : {nearest_on_edge(p, b, c), nearest_on_edge(p, c, a)}) {
        if ((q - p).squaredNorm() < (best - p).squaredNorm()) best = q;
    }
    return best;
}

}  // namespace jig
