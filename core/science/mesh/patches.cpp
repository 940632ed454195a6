#include "core/science/mesh/patches.hpp"

#include <algorithm>

#include "core/base/parallel.hpp"

namespace jig {

Eigen::ArrayXXd patch_means(const TriangleMesh& mesh, const Eigen::ArrayXXd& by_face, double reach,
                            const std::vector<char>& kind) {
    const auto n = static_cast<std::size_t>(by_face.rows());
    std::vector<std::vector<std::uint32_t>> at_point(mesh.points.size());
    // What a patch asks of a face lies together: patches overlap, so that each is asked a hundred times.
    struct Face {
        Point centre;
        double area;
    };
    std::vector<Face> face(n);
    for (std::size_t f = 0; f < n; ++f) {
        face[f] = {mesh.centre(f), mesh.area_vector2(f).norm()};
        for (const auto i : mesh.triangles[f]) at_point[i].push_back(static_cast<std::uint32_t>(f));
    }
    // Each face's neighbours of its kind once, though two share two points with it.
    std::vector<std::uint32_t> start(n + 1, 0), next;
    next.reserve(13 * n);
    for (std::size_t f = 0; f < n; ++f) {
        const auto from = next.size();
        for (const auto i : mesh.triangles[f])
            for (const auto g : at_point[i])
                if (g != f && (kind.empty() || kind[g] == kind[f]) &&
                    std::find(next.begin() + static_cast<std::ptrdiff_t>(from), next.end(), g) == next.end())
                    next.push_back(g);
        start[f + 1] = static_cast<std::uint32_t>(next.size());
    }
    // A face's fields side by side.
    const Eigen::ArrayXXd fields = by_face.transpose();
    Eigen::ArrayXXd out(by_face.rows(), by_face.cols());
    parallel_shares(n, 2000, [&](std::size_t from, std::size_t to, unsigned) {
        std::vector<std::uint32_t> mark(n, 0), patch;
        Eigen::ArrayXd sum(fields.rows());
        for (auto f = from; f < to; ++f) {
            const auto own = static_cast<std::uint32_t>(f) + 1;
            patch.assign(1, own - 1);
            mark[f] = own;
            double whole = 0;
            sum.setZero();
            for (std::size_t k = 0; k < patch.size(); ++k) {
                const auto at = patch[k];
                sum += face[at].area * fields.col(at);
                whole += face[at].area;
                for (auto e = start[at]; e < start[at + 1]; ++e) {
                    const auto g = next[e];
                    if (mark[g] == own) continue;
                    mark[g] = own;
                    if ((face[g].centre - face[f].centre).squaredNorm() <= reach * reach) patch.push_back(g);
                }
            }
            const auto row = static_cast<Eigen::Index>(f);
            if (whole > 0)
                out.row(row) = (sum / whole).transpose();
            else
                out.row(row) = by_face.row(row);
        }
    });
    return out;
}

}  // namespace jig
