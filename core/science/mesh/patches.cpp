#include "core/science/mesh/patches.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>
#include <unordered_map>

#include "core/science/mesh/grid_key.hpp"

namespace jig {
namespace {

/// By how much of itself a mean of what is even comes out wrong at most.
constexpr double kRounding = 1e-12;
constexpr double kNothing = -std::numeric_limits<double>::infinity();

/// Faces gathered about one of them, over the points that they share.
class Patches {
  public:
    Patches(const TriangleMesh& mesh, const Eigen::ArrayXXd& by_face, double reach,
            const std::vector<char>& among)
        : mesh_(mesh),
          reach_(reach),
          among_(among),
          at_point_(mesh.points.size()),
          fields_(by_face.transpose()),
          mark_(mesh.triangles.size(), 0) {
        face_.reserve(mesh.triangles.size());
        for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
            face_.push_back({mesh.centre(f), mesh.area_vector2(f).norm()});
            if (!counts(f)) continue;
            for (const auto i : mesh.triangles[f]) at_point_[i].push_back(static_cast<std::uint32_t>(f));
        }
    }

    [[nodiscard]] bool counts(std::size_t f) const { return among_.empty() || among_[f] != 0; }

    /// By field, the mean over the patch about a face.
    Eigen::ArrayXd mean(std::uint32_t f) {
        const auto own = f + 1;
        patch_.assign(1, f);
        mark_[f] = own;
        double whole = 0;
        Eigen::ArrayXd sum = Eigen::ArrayXd::Zero(fields_.rows());
        for (std::size_t k = 0; k < patch_.size(); ++k) {
            const auto at = patch_[k];
            sum += face_[at].area * fields_.col(at);
            whole += face_[at].area;
            for (const auto point : mesh_.triangles[at]) {
                for (const auto g : at_point_[point]) {
                    if (mark_[g] == own) continue;
                    mark_[g] = own;
                    if ((face_[g].centre - face_[f].centre).squaredNorm() <= reach_ * reach_)
                        patch_.push_back(g);
                }
            }
        }
        return whole > 0 ? Eigen::ArrayXd(sum / whole) : Eigen::ArrayXd(fields_.col(f));
    }

    /// By field and face, what no mean over its patch is more than: the most within the cells of a grid, as
    /// wide as the reach, about its own; nothing for faces that do not count.
    [[nodiscard]] Eigen::ArrayXXd bounds() const {
        // A hair wider, lest rounding puts what is just within reach into the cell after the next.
        const double cell = std::max(1.001 * reach_, 1e-6);
        const auto key = [&](std::size_t f) -> GridKey {
            const Point p = face_[f].centre / cell;
            return {std::llround(std::floor(p.x())), std::llround(std::floor(p.y())),
                    std::llround(std::floor(p.z()))};
        };
        std::unordered_map<GridKey, Eigen::ArrayXd, GridHash> most, about;
        for (std::size_t f = 0; f < face_.size(); ++f) {
            if (!counts(f)) continue;
            const auto field = fields_.col(static_cast<Eigen::Index>(f));
            auto [at, fresh] = most.try_emplace(key(f), field);
            if (!fresh) at->second = at->second.max(field);
        }
        for (const auto& [at, own] : most) {
            auto& round = about.try_emplace(at, own).first->second;
            for (std::int64_t n = 0; n < 27; ++n) {
                const auto next = most.find({at.x + n % 3 - 1, at.y + n / 3 % 3 - 1, at.z + n / 9 - 1});
                if (next != most.end()) round = round.max(next->second);
            }
        }
        Eigen::ArrayXXd out = Eigen::ArrayXXd::Constant(fields_.rows(), fields_.cols(), kNothing);
        for (std::size_t f = 0; f < face_.size(); ++f)
            if (counts(f)) out.col(static_cast<Eigen::Index>(f)) = about.at(key(f));
        return out;
    }

  private:
    struct Face {
        Point centre;
        double area;
    };
    const TriangleMesh& mesh_;
    double reach_;
    const std::vector<char>& among_;
    std::vector<std::vector<std::uint32_t>> at_point_;  ///< faces that count
    Eigen::ArrayXXd fields_;                            ///< a face's fields side by side
    std::vector<Face> face_;
    std::vector<std::uint32_t> mark_, patch_;
};

}  // namespace

Eigen::ArrayXd greatest_patch_means(const TriangleMesh& mesh, const Eigen::ArrayXXd& by_face, double reach,
                                    const std::vector<char>& among) {
    Patches patches(mesh, by_face, reach, among);
    const auto bounds = patches.bounds();
    Eigen::ArrayXd best = Eigen::ArrayXd::Constant(by_face.cols(), kNothing);
    std::vector<char> asked(mesh.triangles.size(), 0);
    std::vector<std::uint32_t> order(mesh.triangles.size());
    for (Eigen::Index field = 0; field < by_face.cols(); ++field) {
        // Where it is greatest itself its patch is likely to be: few others are asked after those.
        std::iota(order.begin(), order.end(), 0U);
        std::sort(order.begin(), order.end(), [&](std::uint32_t a, std::uint32_t b) {
            const double high = bounds(field, a), other = bounds(field, b);
            return high != other ? high > other : by_face(a, field) > by_face(b, field);
        });
        for (const auto f : order) {
            const double most = bounds(field, f);
            if (!(most - kRounding * std::abs(most) > best[field])) break;
            if (asked[f] != 0) continue;
            asked[f] = 1;
            best = best.max(patches.mean(f));
        }
    }
    return (best == kNothing).select(0.0, best);
}

}  // namespace jig
