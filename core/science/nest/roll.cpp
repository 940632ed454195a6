#include "core/science/nest/roll.hpp"

#include <algorithm>
#include <array>
#include <cassert>
#include <cmath>
#include <vector>

namespace jig {
namespace {

struct Place {
    double along = 0, across = 0;
};

/// How far a convex outline reaches along, between two heights across.
double reach(const std::array<Place, 4>& outline, double from, double to) {
    double low = 1e300, high = -1e300;
    const auto count = [&](double along) {
        low = std::min(low, along);
        high = std::max(high, along);
    };
    for (std::size_t i = 0; i < 4; ++i) {
        const auto &a = outline[i], &b = outline[(i + 1) % 4];
        if (a.across >= from && a.across <= to) count(a.along);
        for (const double h : {from, to}) {
            if ((a.across - h) * (b.across - h) < 0)
                count(a.along + (b.along - a.along) * (h - a.across) / (b.across - a.across));
        }
    }
    return std::max(0.0, high - low);
}

}  // namespace

RollCut cut_off_roll(double length, double girth, double angle, double width, double overlap) {
    assert(width > overlap);
    if (!(length > 0) || !(girth > 0)) return {};
    const double c = std::cos(angle), s = std::sin(angle);
    std::array<Place, 4> outline;
    const std::array<std::array<double, 2>, 4> corners{{{0, 0}, {length, 0}, {length, girth}, {0, girth}}};
    double low = 1e300, high = -1e300;
    for (std::size_t i = 0; i < 4; ++i) {
        outline[i] = {c * corners[i][0] + s * corners[i][1], -s * corners[i][0] + c * corners[i][1]};
        low = std::min(low, outline[i].across);
        high = std::max(high, outline[i].across);
    }
    RollCut out;
    // Rounding must not ask for one more.
    const double tall = high - low;
    out.strips = 1 + std::max(0, static_cast<int>(std::ceil((tall - width) / (width - overlap) - 1e-9)));
    for (int i = 0; i < out.strips; ++i) {
        const double from = low + i * (width - overlap);
        out.metres += reach(outline, from - 1e-12, std::min(high, from + width) + 1e-12);
    }
    return out;
}

}  // namespace jig
