#include "core/science/machine/reach.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/base/parallel.hpp"

namespace jig {
namespace {

constexpr double kNothing = -1e9;

/// Heights on a grid; cells that see nothing are far below.
struct Field {
    long columns = 0, rows = 0;
    double cell = 0;
    std::vector<double> z;
    [[nodiscard]] double at(long x, long y) const {
        return x < 0 || y < 0 || x >= columns || y >= rows ? kNothing
                                                           : z[static_cast<std::size_t>(y * columns + x)];
    }
};

/// The largest of in(x + dx, y + dy) + rise(d) over all d ≤ radius, or the smallest where `down`.
template <class Rise>
Field swept(const Field& in, double radius, bool down, Rise&& rise, Progress& progress) {
    const long reach = static_cast<long>(std::ceil(radius / in.cell));
    struct Tap {
        long dx, dy;
        double rise;
    };
    std::vector<Tap> taps;
    for (long dy = -reach; dy <= reach; ++dy) {
        for (long dx = -reach; dx <= reach; ++dx) {
            const double d = in.cell * std::hypot(static_cast<double>(dx), static_cast<double>(dy));
            if (d <= radius) taps.push_back({dx, dy, rise(d)});
        }
    }
    Field out = in;
    parallel_shares(static_cast<std::size_t>(in.rows), 4, [&](std::size_t begin, std::size_t end, unsigned) {
        for (auto row = begin; row < end; ++row) {
            progress.check();
            const auto y = static_cast<long>(row);
            for (long x = 0; x < in.columns; ++x) {
                double best = down ? std::numeric_limits<double>::infinity() : kNothing;
                for (const auto& tap : taps) {
                    const double v = in.at(x + tap.dx, y + tap.dy);
                    if (v <= kNothing / 2) continue;
                    best = down ? std::min(best, v + tap.rise) : std::max(best, v + tap.rise);
                }
                out.z[row * static_cast<std::size_t>(in.columns) + static_cast<std::size_t>(x)] =
                    std::isfinite(best) ? best : kNothing;
            }
        }
    });
    return out;
}

}  // namespace

ReachMap reach_of_cutter(const TriangleMesh& mesh, const RayMesh& rays, const Frame& frame,
                         const Cutter& cutter, Progress& progress) {
    ReachMap out;
    out.faces.assign(mesh.triangles.size(), Reach::reached);
    Point2 low = Point2::Constant(std::numeric_limits<double>::infinity()), high = -low;
    double foot = std::numeric_limits<double>::infinity(), top = -foot;
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) {
            low = low.cwiseMin(frame.flat(mesh.points[i]));
            high = high.cwiseMax(frame.flat(mesh.points[i]));
            foot = std::min(foot, frame.w.dot(mesh.points[i]));
            top = std::max(top, frame.w.dot(mesh.points[i]));
        }
    }
    Field surface;
    surface.cell = std::max(cutter.radius / 3, (high - low).maxCoeff() / 700);
    // Room all round for the ball beside the shape.
    const long pad = static_cast<long>(std::ceil(cutter.radius / surface.cell)) + 1;
    surface.columns = static_cast<long>(std::ceil((high - low).x() / surface.cell)) + 1 + 2 * pad;
    surface.rows = static_cast<long>(std::ceil((high - low).y() / surface.cell)) + 1 + 2 * pad;
    surface.z.assign(static_cast<std::size_t>(surface.columns * surface.rows), kNothing);
    const auto column = [&](double x) {
        return static_cast<long>(std::lround((x - low.x()) / surface.cell)) + pad;
    };
    const auto row = [&](double y) {
        return static_cast<long>(std::lround((y - low.y()) / surface.cell)) + pad;
    };
    const double above = top + 0.01;
    parallel_shares(
        static_cast<std::size_t>(surface.rows), 4, [&](std::size_t begin, std::size_t end, unsigned) {
            for (auto r = begin; r < end; ++r) {
                progress.check();
                for (long c = 0; c < surface.columns; ++c) {
                    const Point2 p(low.x() + static_cast<double>(c - pad) * surface.cell,
                                   low.y() + static_cast<double>(static_cast<long>(r) - pad) * surface.cell);
                    const auto hit = rays.first(frame.lift(p, above), -frame.w);
                    if (hit)
                        surface
                            .z[r * static_cast<std::size_t>(surface.columns) + static_cast<std::size_t>(c)] =
                            above - hit->distance;
                }
            }
        });
    progress.report(0.3, "trying the cutter");
    const double R = cutter.radius;
    const auto ball = [R](double d) { return std::sqrt(std::max(0.0, R * R - d * d)); };
    // Where the ball's middle rests, and what it then leaves standing.
    const auto rests = swept(surface, R, false, ball, progress);
    const auto left = swept(
        rests, R, true, [&](double d) { return -ball(d); }, progress);
    progress.report(0.6, "trying the holder");
    const auto tall = swept(
        surface, cutter.holder_radius, false, [](double) { return 0.0; }, progress);
    auto raised = rests;
    for (std::size_t i = 0; i < raised.z.size(); ++i) {
        if (raised.z[i] <= kNothing / 2 || tall.z[i] <= kNothing / 2) continue;
        out.deepest = std::max(out.deepest, tall.z[i] - (rests.z[i] - R));
        raised.z[i] = std::max(raised.z[i], tall.z[i] - cutter.stick_out + R);
    }
    const auto left_by_holder = swept(
        raised, R, true, [&](double d) { return -ball(d); }, progress);
    // The grid itself is blind to less than this.
    const double blind = std::max(3e-4, surface.cell * surface.cell / (2 * R) + 0.1 * surface.cell);
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        if ((f & 0x3fffU) == 0) progress.check();
        const Point middle = mesh.centre(f), n = mesh.area_vector2(f);
        const double area = n.norm() / 2;
        const Point2 flat = frame.flat(middle);
        if (n.dot(frame.w) < -1e-4 * n.norm() ||
            rays.blocked(middle + 1e-5 * (top - foot + 0.01) * (n.normalized() + frame.w), frame.w)) {
            // What lies at the foot looks down onto the bench and is not cut.
            if (frame.w.dot(middle) < foot + 1e-6) continue;
            out.faces[f] = Reach::undercut;
            out.undercut += area;
            continue;
        }
        double tight = std::numeric_limits<double>::infinity(), deep = tight;
        const long c = column(flat.x()), r = row(flat.y());
        for (long y = r - 1; y <= r + 1; ++y) {
            for (long x = c - 1; x <= c + 1; ++x) {
                const double z = surface.at(x, y);
                if (z <= kNothing / 2) continue;
                tight = std::min(tight, left.at(x, y) - z);
                deep = std::min(deep, left_by_holder.at(x, y) - z);
            }
        }
        if (!std::isfinite(tight)) continue;
        if (tight > blind) {
            out.faces[f] = Reach::too_tight;
            out.too_tight += area;
        } else if (deep > blind) {
            out.faces[f] = Reach::too_deep;
            out.too_deep += area;
        }
    }
    progress.report(1, "cutter tried");
    return out;
}

}  // namespace jig
