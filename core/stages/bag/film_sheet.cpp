#include <fmt/format.h>

#include <algorithm>

#include "core/stages/bag/findings.hpp"

namespace jig::bag {
namespace {

/// A place on a rectangle's edge, and the way along it, anticlockwise.
struct OnEdge {
    Point2 at, along;
};
OnEdge on_edge(double length, double width, double s) {
    const double whole = 2 * (length + width);
    s -= std::floor(s / whole) * whole;
    if (s < length) return {{s, 0}, {1, 0}};
    s -= length;
    if (s < width) return {{length, s}, {0, 1}};
    s -= width;
    if (s < length) return {{length - s, width}, {-1, 0}};
    return {{0, width - (s - length)}, {0, -1}};
}

/// m along the edge to where a line from the middle leaves the rectangle.
double leaves_at(double length, double width, const Point2& toward) {
    const double u = std::abs(toward.x()) > 0 ? length / 2 / std::abs(toward.x()) : 1e300,
                 v = std::abs(toward.y()) > 0 ? width / 2 / std::abs(toward.y()) : 1e300;
    if (u > 1e299 && v > 1e299) return 0;
    const Point2 p = Point2(length, width) / 2 + toward * std::min(u, v);
    if (v <= u) return toward.y() < 0 ? p.x() : length + width + (length - p.x());
    return toward.x() > 0 ? length + p.y() : 2 * length + width + (width - p.y());
}

}  // namespace

SheetSet film_sheet(const Film& film, const Frame& frame) {
    SheetSet out;
    const double l = film.length, w = film.width;
    out.rules.length = l;
    out.rules.width = w;
    auto& sheet = out.sheets.emplace_back();
    sheet.pieces.push_back({"film", {rectangle(0, 0, l, w)}, {}, Point2(l, w) / 2});
    if (film.land.empty()) return out;
    Loop land;
    for (const auto& p : film.land) land.push_back(frame.flat(p));
    const Point2 middle = (low_corner({land}) + high_corner({land})) / 2;
    double passed = leaves_at(l, w, land.front() - middle);
    int number = 0;
    for (const auto& pleat : film.pleats) {
        // As much of the edge as the land has by then, and what the pleats before it have taken up.
        const auto [at, along] = on_edge(l, w, passed + pleat.at + pleat.height);
        passed += 2 * pleat.height;
        const Point2 in(-along.y(), along.x());
        const double mark = std::min(pleat.height, 0.1 * std::min(l, w));
        sheet.pieces.push_back(
            {fmt::format("pleat {}", ++number), {}, {{at, at + mark * in}}, at + 1.2 * mark * in});
    }
    return out;
}

}  // namespace jig::bag
