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

/// The largest of in(x + dx, y + dy) + rise(d) over all d ≤ radius.
template <class Rise>
Field swept(const Field& in, double radius, Rise&& rise, Progress& progress) {
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
                double best = kNothing;
                for (const auto& tap : taps) {
                    const double v = in.at(x + tap.dx, y + tap.dy);
                    if (v <= kNothing / 2) continue;
                    best = std::max(best, v + tap.rise);
                }
                out.z[row * static_cast<std::size_t>(in.columns) + static_cast<std::size_t>(x)] = best;
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
    // The lowest that the ball's middle may be, and the tallest thing within the holder's radius.
    const auto rests = swept(
        surface, R, [R](double d) { return std::sqrt(std::max(0.0, R * R - d * d)); }, progress);
    progress.report(0.6, "trying the holder");
    const auto tall = swept(
        surface, cutter.holder_radius, [](double) { return 0.0; }, progress);
    // The grid itself is blind to less than this; the nearest nine cells take a steep wall's place into
    // account.
    const double blind = 3e-4 + surface.cell * surface.cell / (2 * R);
    const auto least_round = [&](const Field& field, const Point2& p) {
        double least = std::numeric_limits<double>::infinity();
        const long c = column(p.x()), r = row(p.y());
        for (long y = r - 1; y <= r + 1; ++y) {
            for (long x = c - 1; x <= c + 1; ++x) least = std::min(least, field.at(x, y));
        }
        return least;
    };
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        if ((f & 0x3fffU) == 0) progress.check();
        const Point middle = mesh.centre(f), n = mesh.area_vector2(f);
        const double area = n.norm() / 2;
        if (n.dot(frame.w) < -1e-4 * n.norm() ||
            rays.blocked(middle + 1e-5 * (top - foot + 0.01) * (n.normalized() + frame.w), frame.w)) {
            // What lies at the foot looks down onto the bench and is not cut.
            if (frame.w.dot(middle) < foot + 1e-6) continue;
            out.faces[f] = Reach::undercut;
            out.undercut += area;
            continue;
        }
        // The ball touches the face's middle when its own is a radius off it.
        const Point ball = middle + R * n.normalized();
        const double height = frame.w.dot(ball), tip = height - R;
        const Point2 at = frame.flat(ball);
        const double wall = least_round(tall, at);
        if (wall > kNothing / 2) out.deepest = std::max(out.deepest, wall - tip);
        if (least_round(rests, at) - height > blind) {
            out.faces[f] = Reach::too_tight;
            out.too_tight += area;
        } else if (wall - tip > cutter.stick_out) {
            out.faces[f] = Reach::too_deep;
            out.too_deep += area;
        }
    }
    progress.report(1, "cutter tried");
    return out;
}

}  // namespace jig
