#include <fmt/format.h>

#include <algorithm>
#include <cmath>

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

/// The place so far along a closed line.
Point2 land_at(const Loop& line, double at) {
    for (std::size_t k = 0; k < line.size(); ++k) {
        const Point2 step = line[(k + 1) % line.size()] - line[k];
        if (at <= step.norm()) return line[k] + step * (step.norm() > 0 ? at / step.norm() : 0);
        at -= step.norm();
    }
    return line.front();
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
    // As much of the edge as the land has by then, and what the pleats before it have taken up; begun where
    // the pleats come to lie, on the mean, straight out from their places on the land.
    const double whole = 2 * (l + w);
    std::vector<double> edge;
    double taken = 0, turn_x = 0, turn_y = 0;
    for (const auto& pleat : film.pleats) {
        edge.push_back(pleat.at + taken + pleat.height);
        taken += 2 * pleat.height;
        const double off =
            2 * kPi * (leaves_at(l, w, land_at(land, pleat.at) - middle) - edge.back()) / whole;
        turn_x += std::cos(off);
        turn_y += std::sin(off);
    }
    const double begin = std::atan2(turn_y, turn_x) / (2 * kPi) * whole;
    for (std::size_t i = 0; i < edge.size(); ++i) {
        if (film.pleats[i].height <= 0) continue;  // it takes nothing up
        const auto [at, along] = on_edge(l, w, begin + edge[i]);
        const Point2 in(-along.y(), along.x());
        const double mark = std::min(film.pleats[i].height, 0.1 * std::min(l, w));
        sheet.pieces.push_back(
            {fmt::format("pleat {}", i + 1), {}, {{at, at + mark * in}}, at + 1.2 * mark * in});
    }
    return out;
}

SheetSet closing_sheet(const Findings& f, double land) {
    return f.wrap.sheets > 0 ? wrap_sheet(f.wrap, land) : film_sheet(f.film, f.frame);
}

}  // namespace jig::bag
