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

/// A triangle's part between two heights, seen from above, anticlockwise.
Loop clipped_flat(const std::array<Point, 3>& corners, double low, double high) {
    std::vector<Point> poly(corners.begin(), corners.end());
    // Points carry their flat place in x and y and their height in z.
    const auto keep = [&poly](double level, bool above) {
        std::vector<Point> out;
        for (std::size_t i = 0; i < poly.size(); ++i) {
            const auto &p = poly[i], &q = poly[(i + 1) % poly.size()];
            const bool in = above ? p.z() >= level : p.z() <= level,
                       next = above ? q.z() >= level : q.z() <= level;
            if (in) out.push_back(p);
            if (in != next) {
                Point cut = p + (level - p.z()) / (q.z() - p.z()) * (q - p);
                cut.z() = level;
                out.push_back(cut);
            }
        }
        poly = std::move(out);
    };
    keep(low, true);
    keep(high, false);
    Loop flat;
    for (const auto& p : poly) flat.emplace_back(p.x(), p.y());
    if (flat.size() < 3) return {};
    if (signed_area(flat) < 0) std::reverse(flat.begin(), flat.end());
    return flat;
}

std::size_t slab_at(double height, double low, double thickness, std::size_t count) {
    return static_cast<std::size_t>(
        std::clamp(std::floor((height - low) / thickness), 0.0, static_cast<double>(count - 1)));
}

/// Which faces cross each slab and look down (or up) there; up only where it is asked for.
struct FacesBySlab {
    std::vector<std::vector<std::uint32_t>> down, up;  ///< by slab
};

FacesBySlab facing_by_slab(const TriangleMesh& mesh, const Frame& frame, const std::vector<double>& height,
                           double low, double thickness, std::size_t count, bool want_up) {
    FacesBySlab out;
    out.down.resize(count);
    out.up.resize(count);
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        const Point n = mesh.area_vector2(f);
        const double tilt = n.dot(frame.w);
        if ((tilt > 0 && !want_up) || std::abs(tilt) < 1e-9 * n.norm()) continue;
        const auto& t = mesh.triangles[f];
        const auto [from, to] = std::minmax({height[t[0]], height[t[1]], height[t[2]]});
        auto& side = tilt < 0 ? out.down : out.up;
        for (auto s = slab_at(from, low, thickness, count); s <= slab_at(to, low, thickness, count); ++s)
            side[s].push_back(static_cast<std::uint32_t>(f));
    }
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
    const double tall = high - low;
    if (!(thickness > 0) || tall / thickness > 2000) {
        throw InputError("slab thickness", "it makes no slab, or more than 2000",
                         "give the thickness of your sheet, such as 50 mm");
    }
    // A shoulder on a slab's face belongs to neither slab: each is judged a hair inside its own faces, and
    // the hair is thicker than the noise of single-precision files and of axes typed to a few digits.
    const double hair = std::max({1e-6 * tall, std::min(1e-3 * thickness, 2e-5),
                                  5e-7 * std::max(std::abs(low), std::abs(high)), 1e-15});
    const auto count = static_cast<std::size_t>(std::max(1.0, std::ceil((tall - hair) / thickness)));
    const auto facing =
        facing_by_slab(mesh, out.frame, height, low, thickness, count, topology.rim_edges == 0);
    // Slabs in which the surface has a rim are open there, and both their sections tell something.
    std::vector<char> open(count, 0);
    for (std::size_t f = 0; f < mesh.triangles.size() && topology.rim_edges > 0; ++f) {
        for (std::size_t k = 0; k < 3; ++k) {
            if (topology.across[f][k] != kNoFace) continue;
            const auto [a, b] =
                std::minmax(height[mesh.triangles[f][k]], height[mesh.triangles[f][(k + 1) % 3]]);
            for (auto s = slab_at(a, low, thickness, count); s <= slab_at(b, low, thickness, count); ++s)
                open[s] = 1;
        }
    }
    // What lies over a place inside a slab is entered through the lower section or a face that looks down,
    // and left through the upper section or a face that looks up: the smaller of the two sets tells all. A
    // surface that is open has its rim below, so there the faces that look down are the ones to ask.
    std::vector<char> by_down(count, 1);
    std::vector<std::pair<double, double>> ends;
    std::vector<double> levels;
    std::vector<std::size_t> lower(count, 0), upper(count, 0);
    for (std::size_t i = 0; i < count; ++i) {
        const double from = low + static_cast<double>(i) * thickness, to = std::min(high, from + thickness);
        const double a = std::max(from, low) + hair, b = std::min(to, high) - hair;
        ends.emplace_back(a, b);
        by_down[i] = topology.rim_edges > 0 || facing.down[i].size() <= facing.up[i].size();
        if (fit == SlabFit::middle) {
            lower[i] = levels.size();
            // A shoulder at half the thickness is cut above it, however the shape is turned.
            levels.push_back((a + b) / 2 + hair);
            continue;
        }
        // An undersize slab is bounded by the section that it is left through.
        const bool want_lower = open[i] || (fit == SlabFit::oversize) == static_cast<bool>(by_down[i]);
        const bool want_upper = open[i] || !want_lower;
        if (want_lower) {
            lower[i] = levels.size();
            levels.push_back(a);
        }
        if (want_upper) {
            upper[i] = levels.size();
            levels.push_back(b);
        }
    }
    progress.report(0.1, "cutting slabs");
    const auto cuts = sections(mesh, topology, out.frame, levels, progress);
    out.slabs.resize(count);
    parallel_shares(count, 1, [&](std::size_t begin, std::size_t end, unsigned) {
        const auto solid = [&](std::size_t i) {
            // Cut lines that end at a rim are closed straight across: the plug is solid there.
            Loops loops = cuts[i].loops;
            for (const auto& line : cuts[i].open_lines) {
                if (line.size() >= 3) loops.push_back(line);
            }
            // One line round one solid is what it is.
            return loops.size() == 1 && signed_area(loops.front()) > 0 ? loops : united(loops);
        };
        const auto seen = [&](std::size_t s, bool down) {
            Loops pieces;
            for (const auto f : down ? facing.down[s] : facing.up[s]) {
                std::array<Point, 3> corners;
                for (std::size_t k = 0; k < 3; ++k) {
                    const auto i = mesh.triangles[f][k];
                    const Point2 flat = out.frame.flat(mesh.points[i]);
                    corners[k] = {flat.x(), flat.y(), height[i]};
                }
                auto piece = clipped_flat(corners, ends[s].first, ends[s].second);
                if (piece.size() >= 3) pieces.push_back(std::move(piece));
            }
            return pieces;
        };
        const auto outline_of = [&](std::size_t s) -> Loops {
            const bool down = by_down[s] != 0;
            if (fit == SlabFit::middle) return solid(lower[s]);
            if (fit == SlabFit::oversize) {
                auto all = solid(down ? lower[s] : upper[s]);
                auto faces = seen(s, down);
                if (faces.empty() && !open[s]) return all;
                all.insert(all.end(), std::make_move_iterator(faces.begin()),
                           std::make_move_iterator(faces.end()));
                if (open[s]) {
                    for (auto& loop : solid(down ? upper[s] : lower[s])) all.push_back(std::move(loop));
                }
                return united(all);
            }
            // Inside all through: in the upper section with nothing that looks down below it, or in the lower
            // one with nothing that looks up above it.
            auto inside = solid(down ? upper[s] : lower[s]);
            if (const auto faces = seen(s, down); !faces.empty()) inside = taken_off(inside, united(faces));
            return open[s] ? shared(inside, solid(down ? lower[s] : upper[s])) : inside;
        };
        for (auto s = begin; s < end; ++s) {
            progress.check();
            auto& slab = out.slabs[s];
            slab.number = static_cast<int>(s) + 1;
            slab.from = low + static_cast<double>(s) * thickness;
            slab.to = slab.from + thickness;
            slab.outline = outline_of(s);
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
