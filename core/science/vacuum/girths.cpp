#include "core/science/vacuum/girths.hpp"

#include <algorithm>
#include <limits>

#include "core/base/error.hpp"

namespace jig {
namespace {

constexpr int kStations = 61;

/// Length of a section's lines, and how far they reach from the rim's height.
void measure_girth(Girth& girth, double rim_height) {
    const auto reach = [&](const Loop& line) {
        for (const auto& p : line) girth.depth = std::max(girth.depth, std::abs(p.x() - rim_height));
    };
    for (const auto& loop : girth.cut.loops) {
        girth.length += perimeter(loop);
        reach(loop);
    }
    for (const auto& line : girth.cut.open_lines) {
        for (std::size_t i = 1; i < line.size(); ++i) girth.length += (line[i] - line[i - 1]).norm();
        reach(line);
    }
}

/// The places that lie no less deep than all round them, deepest first; as many as are worth
/// a section.
std::vector<Point> deep_places(const TriangleMesh& mesh, const Frame& frame, double rim) {
    std::vector<char> rank(mesh.points.size(), 0);
    const auto depth = [&](std::uint32_t i) { return std::abs(frame.w.dot(mesh.points[i]) - rim); };
    for (const auto& t : mesh.triangles) {
        for (std::size_t k = 0; k < 3; ++k) {
            const auto a = t[k], b = t[(k + 1) % 3];
            if (depth(a) < depth(b)) rank[a] = 2;
            if (depth(b) < depth(a)) rank[b] = 2;
            if (rank[a] == 0) rank[a] = 1;
            if (rank[b] == 0) rank[b] = 1;
        }
    }
    std::vector<std::uint32_t> deep;
    for (std::uint32_t i = 0; i < rank.size(); ++i) {
        if (rank[i] == 1) deep.push_back(i);
    }
    constexpr std::size_t kMost = 24;
    const auto count = std::min(kMost, deep.size());
    std::partial_sort(deep.begin(), deep.begin() + static_cast<std::ptrdiff_t>(count), deep.end(),
                      [&](std::uint32_t a, std::uint32_t b) { return depth(a) > depth(b); });
    std::vector<Point> out;
    for (std::size_t i = 0; i < count; ++i) out.push_back(mesh.points[deep[i]]);
    return out;
}

}  // namespace

FilmRim film_rim(const TriangleMesh& mesh, const Topology& topology, const Frame& frame) {
    const auto loops = rim_loops(mesh, topology);
    if (loops.empty())
        throw InputError("mesh", "the surface has no rim that a film could be stuck to",
                         "leave its foot open: the film lies inside, and its tape round the opening");
    FilmRim out;
    for (const auto i : loops.front()) out.line.push_back(mesh.points[i]);
    for (const auto& p : out.line) out.flat.push_back(frame.flat(p));
    if (signed_area(out.flat) < 0) {
        std::reverse(out.line.begin(), out.line.end());
        std::reverse(out.flat.begin(), out.flat.end());
    }
    double length = 0;
    for (std::size_t i = 0; i < out.line.size(); ++i) {
        const auto &a = out.line[i], &b = out.line[(i + 1) % out.line.size()];
        const double step = (b - a).norm();
        out.height += step * frame.w.dot(a + b) / 2;
        length += step;
    }
    if (length > 0) out.height /= length;
    return out;
}

std::vector<Girth> film_girths(const TriangleMesh& mesh, const Topology& topology, const Frame& frame,
                               const Point& axis, double rim_height, Progress& progress) {
    double low = std::numeric_limits<double>::infinity(), high = -low;
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) {
            low = std::min(low, axis.dot(mesh.points[i]));
            high = std::max(high, axis.dot(mesh.points[i]));
        }
    }
    std::vector<double> at;
    const double hair = 1e-6 * (high - low);
    for (const auto& p : deep_places(mesh, frame, rim_height))
        at.push_back(std::clamp(axis.dot(p), low + hair, high - hair));
    for (int i = 0; i < kStations; ++i) at.push_back(low + (high - low) * (i + 0.5) / kStations);
    std::sort(at.begin(), at.end());
    std::vector<Girth> out;
    for (auto& cut : sections(mesh, topology, girth_frame(frame, axis), at, progress)) {
        auto& girth = out.emplace_back();
        girth.cut = std::move(cut);
        measure_girth(girth, rim_height);
    }
    return out;
}

}  // namespace jig
