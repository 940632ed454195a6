#include "core/science/mesh/refine.hpp"

#include <unordered_map>

namespace jig {

Refined refined(const TriangleMesh& mesh, double longest, Progress& progress) {
    constexpr std::size_t kMost = 10000000;
    Refined out;
    out.mesh = mesh;
    out.parent.resize(mesh.triangles.size());
    for (std::size_t f = 0; f < out.parent.size(); ++f) out.parent[f] = static_cast<std::uint32_t>(f);
    for (bool split = true; split;) {
        split = false;
        progress.check();
        std::unordered_map<std::uint64_t, std::uint32_t> middles;
        std::vector<Triangle> faces;
        std::vector<std::uint32_t> parent;
        auto& points = out.mesh.points;
        const auto middle = [&](std::uint32_t a, std::uint32_t b) -> std::int64_t {
            if ((points[a] - points[b]).norm() <= longest) return -1;
            const auto key = (static_cast<std::uint64_t>(std::min(a, b)) << 32U) | std::max(a, b);
            const auto [found, fresh] = middles.try_emplace(key, static_cast<std::uint32_t>(points.size()));
            if (fresh) points.push_back((points[a] + points[b]) / 2);
            return found->second;
        };
        for (std::size_t f = 0; f < out.mesh.triangles.size(); ++f) {
            auto t = out.mesh.triangles[f];
            std::array<std::int64_t, 3> m{middle(t[0], t[1]), middle(t[1], t[2]), middle(t[2], t[0])};
            const int count = (m[0] >= 0) + (m[1] >= 0) + (m[2] >= 0);
            const auto add = [&](std::int64_t a, std::int64_t b, std::int64_t c) {
                faces.push_back({static_cast<std::uint32_t>(a), static_cast<std::uint32_t>(b),
                                 static_cast<std::uint32_t>(c)});
                parent.push_back(out.parent[f]);
            };
            // Turned so that the split edge comes first, or the whole one last.
            for (int turn = 0; turn < 3; ++turn) {
                if (count == 1 ? m[0] >= 0 : count == 2 ? m[2] < 0 : true) break;
                t = {t[1], t[2], t[0]};
                m = {m[1], m[2], m[0]};
            }
            split |= count > 0;
            if (count == 0) {
                add(t[0], t[1], t[2]);
            } else if (count == 1) {
                add(t[0], m[0], t[2]);
                add(m[0], t[1], t[2]);
            } else if (count == 2) {
                add(m[0], t[1], m[1]);
                add(t[0], m[0], m[1]);
                add(t[0], m[1], t[2]);
            } else {
                add(t[0], m[0], m[2]);
                add(m[0], t[1], m[1]);
                add(m[2], m[1], t[2]);
                add(m[0], m[1], m[2]);
            }
        }
        if (faces.size() > kMost)
            throw InputError("refine", "it would make more than ten million faces", "ask for longer edges");
        out.mesh.triangles = std::move(faces);
        out.parent = std::move(parent);
    }
    return out;
}

}  // namespace jig
