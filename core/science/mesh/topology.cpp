#include "core/science/mesh/topology.hpp"

#include <algorithm>
#include <cmath>
#include <unordered_map>

namespace jig {

Topology topology_of(const TriangleMesh& mesh) {
    // Half-edges are put into buckets by their lower point (a counting sort); within a bucket of about six,
    // those with the same upper point belong to one edge.
    struct HalfEdge {
        std::uint32_t upper, face;
        std::uint8_t k;
        bool forward;
        bool matched;
    };
    const auto faces = mesh.triangles.size();
    std::vector<std::uint32_t> start(mesh.points.size() + 1, 0);
    for (const auto& t : mesh.triangles) {
        for (std::size_t k = 0; k < 3; ++k) ++start[std::min(t[k], t[(k + 1) % 3]) + 1];
    }
    for (std::size_t i = 1; i < start.size(); ++i) start[i] += start[i - 1];
    std::vector<HalfEdge> edges(faces * 3);
    auto fill = start;
    for (std::size_t f = 0; f < faces; ++f) {
        const auto& t = mesh.triangles[f];
        for (std::size_t k = 0; k < 3; ++k) {
            const auto a = t[k], b = t[(k + 1) % 3];
            edges[fill[std::min(a, b)]++] = {std::max(a, b), static_cast<std::uint32_t>(f),
                                             static_cast<std::uint8_t>(k), a < b, false};
        }
    }
    Topology out;
    out.across.assign(faces, {kNoFace, kNoFace, kNoFace});
    for (std::size_t low = 0; low + 1 < start.size(); ++low) {
        for (auto i = start[low]; i < start[low + 1]; ++i) {
            if (edges[i].matched) continue;
            std::uint32_t other = kNoFace;
            int count = 1;
            for (auto j = i + 1; j < start[low + 1]; ++j) {
                if (edges[j].matched || edges[j].upper != edges[i].upper) continue;
                edges[j].matched = true;
                other = j;
                ++count;
            }
            if (count == 1) {
                ++out.rim_edges;
            } else if (count > 2) {
                ++out.crowded_edges;
            } else {
                out.across[edges[i].face][edges[i].k] = edges[other].face;
                out.across[edges[other].face][edges[other].k] = edges[i].face;
                if (edges[i].forward == edges[other].forward) ++out.turned_edges;
            }
        }
    }
    return out;
}

std::vector<std::vector<std::uint32_t>> rim_loops(const TriangleMesh& mesh, const Topology& topology) {
    std::unordered_multimap<std::uint32_t, std::uint32_t> next;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        for (std::size_t k = 0; k < 3; ++k) {
            if (topology.across[f][k] != kNoFace) continue;
            const auto a = mesh.triangles[f][k], b = mesh.triangles[f][(k + 1) % 3];
            // Where several faces meet at an edge, those that pass it in opposite ways leave no rim between
            // them.
            const auto [from, to] = next.equal_range(b);
            const auto back = std::find_if(from, to, [&](const auto& n) { return n.second == a; });
            if (back != to)
                next.erase(back);
            else
                next.emplace(a, b);
        }
    }
    std::vector<std::vector<std::uint32_t>> loops;
    while (!next.empty()) {
        std::vector<std::uint32_t> loop;
        auto at = next.begin()->first;
        for (auto step = next.find(at); step != next.end(); step = next.find(at)) {
            loop.push_back(at);
            at = step->second;
            next.erase(step);
        }
        if (loop.size() >= 3) loops.push_back(std::move(loop));
    }
    std::vector<std::pair<double, std::size_t>> order;
    for (std::size_t i = 0; i < loops.size(); ++i) order.emplace_back(-loop_length(mesh, loops[i]), i);
    std::sort(order.begin(), order.end());
    std::vector<std::vector<std::uint32_t>> sorted;
    for (const auto& [length, i] : order) sorted.push_back(std::move(loops[i]));
    return sorted;
}

double loop_length(const TriangleMesh& mesh, const std::vector<std::uint32_t>& loop) {
    double sum = 0;
    for (std::size_t i = 0; i < loop.size(); ++i) {
        sum += (mesh.points[loop[(i + 1) % loop.size()]] - mesh.points[loop[i]]).norm();
    }
    return sum;
}

double fold_at(const TriangleMesh& mesh, const Topology& topology, std::size_t face, int k) {
    const auto other = topology.across[face][static_cast<std::size_t>(k)];
    if (other == kNoFace) return 0;
    const Point n = mesh.area_vector2(face), m = mesh.area_vector2(other);
    const Point along = mesh.corner(face, (k + 1) % 3) - mesh.corner(face, k);
    const double angle = std::atan2(n.cross(m).norm(), n.dot(m));
    // Where the neighbour's normal leans towards this face, the fold is an inside corner.
    return n.cross(m).dot(along) < 0 ? angle : -angle;
}

}  // namespace jig
