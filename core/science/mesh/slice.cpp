#include "core/science/mesh/slice.hpp"

#include <algorithm>
#include <cmath>
#include <iterator>
#include <limits>

#include "core/base/parallel.hpp"

namespace jig {
namespace {

/// One cut. `mark` holds, per face, the number of the last cut that passed it.
class Cutter {
  public:
    Cutter(const TriangleMesh& mesh, const Topology& topology, const Frame& frame,
           const std::vector<double>& height)
        : mesh_(mesh), topology_(topology), frame_(frame), height_(height), mark_(mesh.triangles.size(), 0) {}

    Section cut(double level, std::span<const std::uint32_t> candidates) {
        Section out;
        out.height = level;
        level_ = level;
        ++pass_;
        for (const auto seed : candidates) {
            if (mark_[seed] == pass_ || !crosses(seed)) continue;
            follow(seed, out);
        }
        return out;
    }

  private:
    [[nodiscard]] bool above(std::uint32_t f, std::size_t k) const {
        return height_[mesh_.triangles[f][k % 3]] >= level_;
    }
    [[nodiscard]] bool crosses(std::uint32_t f) const {
        const bool a = above(f, 0);
        return a != above(f, 1) || a != above(f, 2);
    }
    /// The edge on which the cut line enters a face (its corners go from above to below) or leaves it.
    [[nodiscard]] std::size_t edge(std::uint32_t f, bool entering) const {
        for (std::size_t k = 0; k < 3; ++k) {
            if (above(f, k) == entering && above(f, k + 1) != entering) return k;
        }
        return 0;
    }
    [[nodiscard]] Point2 crossing(std::uint32_t f, std::size_t k) const {
        const auto i = mesh_.triangles[f][k], j = mesh_.triangles[f][(k + 1) % 3];
        // Always from the lower-numbered point, so both faces of an edge get the same crossing to the bit.
        const auto a = std::min(i, j), b = std::max(i, j);
        const double t = (level_ - height_[a]) / (height_[b] - height_[a]);
        return frame_.flat(mesh_.points[a] + t * (mesh_.points[b] - mesh_.points[a]));
    }
    void follow(std::uint32_t seed, Section& out) {
        auto start = seed;
        bool open = false;
        while (true) {
            const auto before = topology_.across[start][edge(start, true)];
            if (before == kNoFace) {
                open = true;
                break;
            }
            if (before == seed || mark_[before] == pass_ || !crosses(before)) break;
            mark_[before] = pass_;
            start = before;
        }
        if (!open) start = seed;
        Loop line;
        auto at = start;
        auto left = edge(at, false);
        while (true) {
            mark_[at] = pass_;
            line.push_back(crossing(at, edge(at, true)));
            left = edge(at, false);
            const auto next = topology_.across[at][left];
            if (next == start) break;
            if (next == kNoFace || line.size() > mesh_.triangles.size()) {
                line.push_back(crossing(at, left));
                open = true;
                break;
            }
            at = next;
        }
        if (open)
            out.open_lines.push_back(std::move(line));
        else if (line.size() >= 3)
            out.loops.push_back(std::move(line));
    }

    const TriangleMesh& mesh_;
    const Topology& topology_;
    const Frame& frame_;
    const std::vector<double>& height_;
    std::vector<std::uint32_t> mark_;
    std::uint32_t pass_ = 0;
    double level_ = 0;
};

std::vector<double> heights_of(const TriangleMesh& mesh, const Point& w) {
    std::vector<double> height(mesh.points.size());
    for (std::size_t i = 0; i < height.size(); ++i) height[i] = w.dot(mesh.points[i]);
    return height;
}

/// Heights at which the surface turns over: points of edges between a face that looks up and one that does
/// not.
std::vector<double> turning_heights(const TriangleMesh& mesh, const Topology& topology, const Frame& frame,
                                    const std::vector<double>& height) {
    std::vector<char> up(mesh.triangles.size());
    for (std::size_t f = 0; f < up.size(); ++f) {
        const Point n = mesh.area_vector2(f);
        up[f] = n.dot(frame.w) > 1e-7 * n.norm();
    }
    std::vector<double> out;
    for (std::size_t f = 0; f < up.size(); ++f) {
        for (std::size_t k = 0; k < 3; ++k) {
            const auto g = topology.across[f][k];
            if (g != kNoFace && g > f && up[f] != up[g]) {
                out.push_back(height[mesh.triangles[f][k]]);
                out.push_back(height[mesh.triangles[f][(k + 1) % 3]]);
            }
        }
    }
    std::sort(out.begin(), out.end());
    out.erase(std::unique(out.begin(), out.end()), out.end());
    return out;
}

}  // namespace

std::vector<Section> sections(const TriangleMesh& mesh, const Topology& topology, const Frame& frame,
                              std::span<const double> heights, Progress& progress) {
    const auto height = heights_of(mesh, frame.w);
    std::vector<std::size_t> order(heights.size());
    for (std::size_t i = 0; i < order.size(); ++i) order[i] = i;
    std::sort(order.begin(), order.end(),
              [&](std::size_t a, std::size_t b) { return heights[a] < heights[b]; });
    std::vector<double> sorted;
    for (const auto i : order) sorted.push_back(heights[i]);
    // Per cut the faces it crosses, as one packed list.
    std::vector<std::uint32_t> first(sorted.size() + 1, 0), last;
    std::vector<std::pair<std::uint32_t, std::uint32_t>> range(mesh.triangles.size());
    for (std::size_t f = 0; f < range.size(); ++f) {
        const auto& t = mesh.triangles[f];
        const auto [low, high] = std::minmax({height[t[0]], height[t[1]], height[t[2]]});
        const auto a = std::upper_bound(sorted.begin(), sorted.end(), low) - sorted.begin();
        const auto b = std::upper_bound(sorted.begin() + a, sorted.end(), high) - sorted.begin();
        range[f] = {static_cast<std::uint32_t>(a), static_cast<std::uint32_t>(b)};
        for (auto i = a; i < b; ++i) ++first[static_cast<std::size_t>(i) + 1];
    }
    for (std::size_t i = 1; i < first.size(); ++i) first[i] += first[i - 1];
    std::vector<std::uint32_t> crossed(first.back());
    last = first;
    for (std::size_t f = 0; f < range.size(); ++f) {
        for (auto i = range[f].first; i < range[f].second; ++i)
            crossed[last[i]++] = static_cast<std::uint32_t>(f);
    }
    std::vector<Section> out(heights.size());
    const auto grain = std::max<std::size_t>(1, crossed.empty() ? 1 : sorted.size() * 4096 / crossed.size());
    parallel_shares(sorted.size(), grain, [&](std::size_t begin, std::size_t end, unsigned) {
        Cutter cutter(mesh, topology, frame, height);
        for (auto i = begin; i < end; ++i) {
            progress.check();
            out[order[i]] =
                cutter.cut(sorted[i], std::span(crossed).subspan(first[i], first[i + 1] - first[i]));
        }
    });
    return out;
}

SlabStack slabs(const TriangleMesh& mesh, const Topology& topology, const Point& axis, double thickness,
                Progress& progress, SlabFit fit) {
    SlabStack out;
    out.frame = frame_across(axis);
    const auto height = heights_of(mesh, out.frame.w);
    double low = std::numeric_limits<double>::infinity(), high = -low;
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) {
            low = std::min(low, height[i]);
            high = std::max(high, height[i]);
        }
    }
    const double tall = high - low, hair = 1e-6 * std::max(tall, 1e-9);
    if (!(thickness > 0) || tall / thickness > 2000) {
        throw InputError("slab thickness", "it makes no slab, or more than 2000",
                         "give the thickness of your sheet, such as 50 mm");
    }
    const auto count = static_cast<std::size_t>(std::max(1.0, std::ceil((tall - hair) / thickness)));
    const auto turning = turning_heights(mesh, topology, out.frame, height);
    std::vector<double> levels;
    std::vector<std::size_t> first{0};
    for (std::size_t s = 0; s < count; ++s) {
        const double from = low + static_cast<double>(s) * thickness, to = std::min(high, from + thickness);
        const double a = std::max(from, low + hair), b = std::min(to, high - hair);
        if (fit == SlabFit::middle) {
            levels.push_back((a + b) / 2);
            first.push_back(levels.size());
            continue;
        }
        levels.push_back(a);
        levels.push_back(b);
        const auto begin = std::upper_bound(turning.begin(), turning.end(), a),
                   end = std::lower_bound(begin, turning.end(), b);
        if (begin != end) {
            constexpr int kBetween = 6;
            const double reach = *(end - 1) - *begin;
            for (int i = 0; i <= kBetween; ++i) {
                const double h = *begin + reach * i / kBetween;
                levels.push_back(std::max(a, h - hair));
                levels.push_back(std::min(b, h + hair));
            }
        }
        first.push_back(levels.size());
    }
    progress.report(0.1, "cutting slabs");
    const auto cuts = sections(mesh, topology, out.frame, levels, progress);
    out.slabs.resize(count);
    parallel_shares(count, 1, [&](std::size_t begin, std::size_t end, unsigned) {
        for (auto s = begin; s < end; ++s) {
            progress.check();
            Loops all;
            for (auto i = first[s]; i < first[s + 1]; ++i) {
                // Cut lines that end at a rim are closed straight across: the plug is solid there.
                Loops loops = cuts[i].loops;
                for (const auto& line : cuts[i].open_lines) {
                    if (line.size() >= 3) loops.push_back(line);
                }
                auto solid = united(loops);
                if (fit == SlabFit::undersize && i > first[s])
                    all = shared(all, solid);
                else
                    all.insert(all.end(), std::make_move_iterator(solid.begin()),
                               std::make_move_iterator(solid.end()));
            }
            auto& slab = out.slabs[s];
            slab.number = static_cast<int>(s) + 1;
            slab.from = low + static_cast<double>(s) * thickness;
            slab.to = slab.from + thickness;
            // Holes of one level must not cut into another level's solid: unite levels one by one.
            slab.outline = united(all);
            slab.area = net_area(slab.outline);
        }
    });
    out.slabs.erase(std::remove_if(out.slabs.begin(), out.slabs.end(),
                                   [&](const Slab& s) { return fit != SlabFit::oversize && s.area <= 0; }),
                    out.slabs.end());
    for (const auto& slab : out.slabs) out.volume += slab.area * thickness;
    progress.report(1, "slabs cut");
    return out;
}

}  // namespace jig
