#include "core/science/mesh/curving.hpp"

#include <algorithm>
#include <cmath>
#include <Eigen/Cholesky>
#include <Eigen/Eigenvalues>

#include "core/base/parallel.hpp"

namespace jig {
namespace {

/// Points next to each other, in one array by their numbers.
struct Neighbours {
    std::vector<std::uint32_t> first, of;
    explicit Neighbours(const TriangleMesh& mesh) : first(mesh.points.size() + 1, 0) {
        std::vector<PointPair> pairs;
        pairs.reserve(3 * mesh.triangles.size());
        for (const auto& t : mesh.triangles) {
            for (std::size_t k = 0; k < 3; ++k) pairs.push_back(edge_of(t[k], t[(k + 1) % 3]));
        }
        std::sort(pairs.begin(), pairs.end());
        pairs.erase(std::unique(pairs.begin(), pairs.end()), pairs.end());
        for (const auto& [a, b] : pairs) {
            ++first[a + 1];
            ++first[b + 1];
        }
        for (std::size_t i = 1; i < first.size(); ++i) first[i] += first[i - 1];
        of.resize(2 * pairs.size());
        auto next = first;
        for (const auto& [a, b] : pairs) {
            of[next[a]++] = b;
            of[next[b]++] = a;
        }
    }
};

/// What the surface reaches from a point without leaving the ball of `reach` round it.
class Around {
  public:
    Around(const TriangleMesh& mesh, const Neighbours& neighbours)
        : mesh_(mesh), neighbours_(neighbours), seen_(mesh.points.size(), 0) {}

    const std::vector<std::uint32_t>& of(std::uint32_t point, double reach) {
        constexpr std::size_t kEnough = 10, kMost = 600;
        ++round_;
        found_ = {point};
        seen_[point] = round_;
        for (std::size_t i = 0; i < found_.size() && found_.size() < kMost; ++i) {
            for (auto k = neighbours_.first[found_[i]]; k < neighbours_.first[found_[i] + 1]; ++k) {
                const auto next = neighbours_.of[k];
                if (seen_[next] == round_) continue;
                if (i > 0 && found_.size() >= kEnough &&
                    (mesh_.points[next] - mesh_.points[point]).norm() > reach)
                    continue;
                seen_[next] = round_;
                found_.push_back(next);
            }
        }
        return found_;
    }

  private:
    const TriangleMesh& mesh_;
    const Neighbours& neighbours_;
    std::vector<std::uint32_t> seen_, found_;
    std::uint32_t round_ = 0;
};

Curving fitted(const TriangleMesh& mesh, const std::vector<std::uint32_t>& around, const Point& normal) {
    const Frame frame = frame_across(normal);
    const Point& here = mesh.points[around.front()];
    double size = 0;
    for (const auto p : around) size = std::max(size, (mesh.points[p] - here).norm());
    if (!(size > 0)) return {};
    using Six = Eigen::Matrix<double, 6, 1>;
    Eigen::Matrix<double, 6, 6> normal_matrix = Eigen::Matrix<double, 6, 6>::Zero();
    Six right = Six::Zero();
    for (const auto p : around) {
        const Point d = (mesh.points[p] - here) / size;
        const double x = frame.u.dot(d), y = frame.v.dot(d), z = frame.w.dot(d);
        Six row;
        row << x * x, x * y, y * y, x, y, 1;
        normal_matrix += row * row.transpose();
        right += row * z;
    }
    // Points on a line or a cross leave the fit open: the flattest one is taken.
    normal_matrix.diagonal().head<3>().array() += 1e-9 * static_cast<double>(around.size());
    normal_matrix.diagonal().tail<3>().array() += 1e-12 * static_cast<double>(around.size());
    const Six c = normal_matrix.ldlt().solve(right);
    const double p = c[3], q = c[4], w = std::sqrt(1 + p * p + q * q);
    Eigen::Matrix2d first, second;
    first << 1 + p * p, p * q, p * q, 1 + q * q;
    second << 2 * c[0], c[1], c[1], 2 * c[2];
    second /= w * size;
    const Eigen::GeneralizedSelfAdjointEigenSolver<Eigen::Matrix2d> solved(second, first);
    const auto& k = solved.eigenvalues();
    const int at = std::abs(k[1]) >= std::abs(k[0]) ? 1 : 0;
    const Eigen::Vector2d way = solved.eigenvectors().col(at);
    const Point along = way.x() * (frame.u + p * frame.w) + way.y() * (frame.v + q * frame.w);
    return {k[at], k[1 - at], along.normalized()};
}

}  // namespace

std::vector<Curving> curvings(const TriangleMesh& mesh, const Topology& topology, double reach,
                              Progress& progress) {
    std::vector<Curving> out(mesh.points.size());
    if (topology.across.size() != mesh.triangles.size()) return out;
    std::vector<Point> normals(mesh.points.size(), Point::Zero());
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        for (const auto p : mesh.triangles[f]) normals[p] += mesh.area_vector2(f);
    }
    const Neighbours neighbours(mesh);
    parallel_shares(out.size(), 256, [&](std::size_t begin, std::size_t end, unsigned) {
        Around around(mesh, neighbours);
        for (auto i = begin; i < end; ++i) {
            if (i % 256 == 0) progress.check();
            if (!(normals[i].norm() > 0)) continue;
            const auto& found = around.of(static_cast<std::uint32_t>(i), reach);
            Point normal = Point::Zero();
            for (const auto p : found) normal += normals[p];
            if (!(normal.norm() > 0)) normal = normals[i];
            out[i] = fitted(mesh, found, normal.normalized());
        }
    });
    return out;
}

}  // namespace jig
