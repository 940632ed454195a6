#include "core/stages/back/layout.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/science/mesh/slice.hpp"

namespace jig::back {
namespace {

/// How far ribs end inside the flange's outside, m.
constexpr double kInset = 0.012;
/// One way; more would be a shape in a wrong unit.
constexpr double kMostRibs = 300;

PlaneSet set_of(const Point& normal, double low, double high, double pitch, bool wanted) {
    PlaneSet out{normal, {}};
    if (!wanted) return out;
    low += kInset;
    high -= kInset;
    const double ribs = std::ceil((high - low) / pitch - 1e-9) + 1;
    if (!(ribs <= kMostRibs))
        throw InputError("back", fmt::format("{:.0f} ribs one way", ribs),
                         "set them further apart, or look in Shape whether the file's unit is right");
    const int count = std::max(2, static_cast<int>(ribs));
    for (int i = 0; i < count; ++i) out.at.push_back(low + (high - low) * i / (count - 1));
    return out;
}

}  // namespace

bool length_is_u(const edge::ToolFace& face) {
    return face.high.x() - face.low.x() >= face.high.y() - face.low.y();
}

std::array<PlaneSet, 2> rib_planes(const Choices& c, const edge::ToolFace& face) {
    const bool grid = c.has_grid(), long_u = length_is_u(face);
    return {
        set_of(face.frame.u, face.low.x(), face.high.x(), c.pitch, grid && (long_u ? c.across : c.along)),
        set_of(face.frame.v, face.low.y(), face.high.y(), c.pitch, grid && (long_u ? c.along : c.across))};
}

double rib_length(const Choices& c, const edge::ToolFace& face) {
    if (!c.has_plates()) return 0;
    const auto topology = topology_of(face.rimmed.mesh);
    Progress quiet;
    double out = 0;
    for (const auto& set : rib_planes(c, face)) {
        if (set.at.empty()) continue;
        for (const auto& cut :
             sections(face.rimmed.mesh, topology, frame_across(set.normal), set.at, quiet)) {
            for (const auto& loop : cut.loops) out += perimeter(loop);
            for (const auto& line : cut.open_lines) {
                for (std::size_t i = 1; i < line.size(); ++i) out += (line[i] - line[i - 1]).norm();
            }
        }
    }
    return out;
}

std::vector<Point> crossings_of(const Choices& c, const edge::ToolFace& face, Progress& progress) {
    std::vector<Point> out;
    const auto planes = rib_planes(c, face);
    if (planes[0].at.empty() || planes[1].at.empty()) return out;
    const auto& f = face.frame;
    const auto cuts = sections(face.rimmed.mesh, topology_of(face.rimmed.mesh), Frame{f.v, f.w, f.u},
                               planes[0].at, progress);
    for (const auto& cut : cuts) {
        for (const double v : planes[1].at) {
            double top = -std::numeric_limits<double>::infinity();
            auto lines = cut.open_lines;
            for (auto loop : cut.loops) {
                loop.push_back(loop.front());
                lines.push_back(std::move(loop));
            }
            for (const auto& line : lines) {
                for (std::size_t i = 1; i < line.size(); ++i) {
                    const auto &a = line[i - 1], &b = line[i];
                    if ((a.x() - v) * (b.x() - v) > 0 || a.x() == b.x()) continue;
                    top = std::max(top, a.y() + (v - a.x()) / (b.x() - a.x()) * (b.y() - a.y()));
                }
            }
            if (std::isfinite(top)) out.emplace_back(cut.height, v, top);
        }
    }
    return out;
}

/// Whether a foot goes to `a` sooner than to `b`: where it is nearer to its place by more than a millimetre,
/// else where it stands wider, else in the order of the drawing. What the mesh leaves of noise decides
/// nothing.
static bool goes_before(const Point2& a, const Point2& b, const Point2& at, const Point2& middle) {
    constexpr double kSame = 1e-3;
    const double nearer = (b - at).norm() - (a - at).norm(),
                 wider = (a - middle).norm() - (b - middle).norm();
    if (std::abs(nearer) > kSame) return nearer > 0;
    if (std::abs(wider) > kSame) return wider > 0;
    return std::abs(a.x() - b.x()) > kSame ? a.x() < b.x() : a.y() < b.y() - kSame;
}

std::vector<std::size_t> feet_on(const Choices& c, const std::vector<Point2>& places) {
    std::vector<std::size_t> out;
    Point2 low = Point2::Constant(std::numeric_limits<double>::infinity()), high = -low;
    for (const auto& p : places) {
        low = low.cwiseMin(p);
        high = high.cwiseMax(p);
    }
    const auto share = [&](int i, int n) { return c.feet.inset + (1 - 2 * c.feet.inset) * i / (n - 1.0); };
    for (int j = 0; j < c.feet.across; ++j) {
        for (int i = 0; i < c.feet.along; ++i) {
            const Point2 at =
                low + Point2(share(i, c.feet.along), share(j, c.feet.across)).cwiseProduct(high - low);
            std::size_t best = places.size();
            for (std::size_t k = 0; k < places.size(); ++k) {
                if (std::find(out.begin(), out.end(), k) != out.end()) continue;
                if (best == places.size() || goes_before(places[k], places[best], at, (low + high) / 2))
                    best = k;
            }
            if (best < places.size()) out.push_back(best);
        }
    }
    return out;
}

}  // namespace jig::back
