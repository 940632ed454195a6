#include "core/science/mesh/draft.hpp"

#include <algorithm>
#include <array>
#include <bit>
#include <cmath>
#include <limits>

#include "core/base/parallel.hpp"
#include "core/base/units.hpp"
#include "core/science/mesh/sample.hpp"

namespace jig {
namespace {

constexpr double kOffset = 1e-5;  // of the diagonal

}  // namespace

DraftMap draft(const TriangleMesh& mesh, const RayMesh& rays, const Point& pull_in, const DraftRules& rules,
               Progress& progress) {
    const Point pull = pull_in.normalized();
    const auto count = mesh.triangles.size();
    DraftMap out;
    out.faces.resize(count);
    out.shadow.assign(count, 0.0f);
    double low = std::numeric_limits<double>::infinity(), high = -low, total = 0;
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) {
            const double h = pull.dot(mesh.points[i]);
            low = std::min(low, h);
            high = std::max(high, h);
        }
    }
    for (std::size_t f = 0; f < count; ++f) total += mesh.area_vector2(f).norm() / 2;
    out.depth = high - low;
    const double size = bounds_of(mesh).diagonal(), step = kOffset * size;
    struct Sum {
        double slides = 0, drags = 0, locks = 0, open = 0, shadowed = 0, projected = 0;
        double worst = std::numeric_limits<double>::infinity();
        std::size_t worst_face = 0;
    };
    struct Face {
        std::size_t f = 0;
        double area = 0, slope = 0;
        bool drags = false;
    };
    constexpr std::size_t kTogether = 8;
    struct Waiting {
        std::array<Point, kTogether> from;
        std::array<Face, kTogether> faces{};
        std::size_t count = 0;
    };
    const auto settle = [&](const Face& face, double shade, Sum& sum) {
        out.shadow[face.f] = static_cast<float>(shade);
        sum.locks += shade * face.area;
        sum.shadowed += shade * face.area;
        (face.drags ? sum.drags : sum.slides) += (1 - shade) * face.area;
        sum.projected += (1 - shade) * face.area * std::max(0.0, face.slope);
        out.faces[face.f] = shade >= 0.5 ? Release::locks : face.drags ? Release::drags : Release::slides;
    };
    const auto shoot = [&](Waiting& wait, Sum& sum) {
        if (wait.count == 0) return;
        const auto hidden = rays.blocked(wait.from.data(), wait.count, pull);
        for (std::size_t k = 0; k < wait.count; ++k)
            settle(wait.faces[k], (hidden >> k & 1U) != 0 ? 1.0 : 0.0, sum);
        wait.count = 0;
    };
    std::vector<Sum> sums(threads_for(count, 4096));
    parallel_shares(count, 4096, [&](std::size_t begin, std::size_t end, unsigned thread) {
        Sum sum;
        Waiting wait;
        for (std::size_t f = begin; f < end; ++f) {
            if (((f - begin) & 0x3fff) == 0) {
                progress.check();
                if (thread == 0)
                    progress.report(
                        static_cast<double>(f) / static_cast<double>(std::max<std::size_t>(1, end)),
                        "trying the pull");
            }
            const Point twice = mesh.area_vector2(f);
            const double area = twice.norm() / 2;
            if (area == 0) {
                out.faces[f] = Release::open;
                continue;
            }
            const Point normal = twice / (2 * area);
            const double slope = std::clamp(normal.dot(pull), -1.0, 1.0);
            const double angle = std::asin(slope);
            if (rules.foot_open && slope < -kFlatFoot && pull.dot(mesh.centre(f)) - low < kFootReach * size) {
                out.faces[f] = Release::open;
                sum.open += area;
                continue;
            }
            if (angle < sum.worst) {
                sum.worst = angle;
                sum.worst_face = f;
            }
            if (angle < -kDraftNoise) {
                out.faces[f] = Release::locks;
                sum.locks += area;
                continue;
            }
            const bool drags = angle < rules.drag_angle;
            const auto samples = 1 + static_cast<std::size_t>(rules.samples * area / total);
            if (samples == 1) {
                // Most faces of a fine mesh get one ray: eight faces' rays go together.
                wait.from[wait.count] = mesh.centre(f) + step * (normal + pull);
                wait.faces[wait.count++] = {f, area, slope, drags};
                if (wait.count == wait.faces.size()) shoot(wait, sum);
                continue;
            }
            std::size_t hidden = 0;
            for (std::size_t i = 0; i < samples; i += kTogether) {
                std::array<Point, kTogether> from;
                const auto some = std::min(kTogether, samples - i);
                for (std::size_t k = 0; k < some; ++k)
                    from[k] = spread_point(mesh, f, i + k, samples) + step * (normal + pull);
                hidden += static_cast<std::size_t>(std::popcount(rays.blocked(from.data(), some, pull)));
            }
            settle({f, area, slope, drags}, static_cast<double>(hidden) / static_cast<double>(samples), sum);
        }
        shoot(wait, sum);
        sums[thread] = sum;
    });
    out.min_draft = std::numeric_limits<double>::infinity();
    for (const auto& sum : sums) {
        out.slides += sum.slides;
        out.drags += sum.drags;
        out.locks += sum.locks;
        out.open += sum.open;
        out.shadowed += sum.shadowed;
        out.projected += sum.projected;
        if (sum.worst < out.min_draft) {
            out.min_draft = sum.worst;
            out.worst_face = sum.worst_face;
        }
    }
    if (!std::isfinite(out.min_draft)) out.min_draft = 0;
    out.area = total;
    return out;
}

double locked_by_angle(const TriangleMesh& mesh, const Point& pull, double& drags, double drag_angle) {
    double locks = 0;
    drags = 0;
    const double drag_slope = std::sin(drag_angle), lock_slope = -std::sin(kDraftNoise);
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        const Point twice = mesh.area_vector2(f);
        const double area = twice.norm() / 2, along = twice.dot(pull) / 2;
        if (along < lock_slope * area)
            locks += area;
        else if (along < drag_slope * area)
            drags += area;
    }
    return locks;
}

}  // namespace jig
