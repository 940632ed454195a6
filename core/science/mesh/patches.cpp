#include "core/science/mesh/patches.hpp"

#include "core/base/parallel.hpp"

namespace jig {

std::vector<double> patch_means(const TriangleMesh& mesh, const std::vector<double>& by_face, double reach,
                                const std::vector<char>& kind) {
    std::vector<std::vector<std::uint32_t>> at_point(mesh.points.size());
    std::vector<double> area(by_face.size());
    std::vector<Point> centre(by_face.size());
    for (std::size_t f = 0; f < by_face.size(); ++f) {
        area[f] = mesh.area_vector2(f).norm();
        centre[f] = mesh.centre(f);
        for (const auto i : mesh.triangles[f]) at_point[i].push_back(static_cast<std::uint32_t>(f));
    }
    std::vector<double> out(by_face.size());
    parallel_shares(by_face.size(), 2000, [&](std::size_t from, std::size_t to, unsigned) {
        std::vector<std::size_t> mark(by_face.size(), 0);
        std::vector<std::uint32_t> patch;
        for (auto f = from; f < to; ++f) {
            patch.assign(1, static_cast<std::uint32_t>(f));
            mark[f] = f + 1;
            double sum = 0, whole = 0;
            for (std::size_t n = 0; n < patch.size(); ++n) {
                sum += area[patch[n]] * by_face[patch[n]];
                whole += area[patch[n]];
                for (const auto i : mesh.triangles[patch[n]]) {
                    for (const auto g : at_point[i]) {
                        if (mark[g] == f + 1 || (!kind.empty() && kind[g] != kind[f]) ||
                            (centre[g] - centre[f]).squaredNorm() > reach * reach)
                            continue;
                        mark[g] = f + 1;
                        patch.push_back(g);
                    }
                }
            }
            out[f] = whole > 0 ? sum / whole : by_face[f];
        }
    });
    return out;
}

}  // namespace jig
