#include "core/science/drape/flatten.hpp"

#include <cmath>
#include <Eigen/SparseCholesky>
#include <Eigen/SVD>

#include "core/base/error.hpp"

namespace jig {
namespace {

using Sparse = Eigen::SparseMatrix<double>;
using Triplets = std::vector<Eigen::Triplet<double>>;

/// A face in a plane of its own: corners anticlockwise, the first at the origin.
struct Own {
    std::array<Point2, 3> at;
    std::array<double, 3> cot{};  ///< of the angle at each corner
    double area = 0;
};

Own own_of(const TriangleMesh& mesh, std::size_t f) {
    Own out;
    const Point e = mesh.corner(f, 1) - mesh.corner(f, 0), g = mesh.corner(f, 2) - mesh.corner(f, 0);
    const double length = e.norm();
    if (!(length > 0)) return out;
    const Point u = e / length;
    const double along = u.dot(g), high = (g - along * u).norm();
    out.at = {Point2(0, 0), Point2(length, 0), Point2(along, high)};
    out.area = length * high / 2;
    if (!(out.area > 1e-14 * length * length)) {
        out.area = 0;
        return out;
    }
    for (std::size_t k = 0; k < 3; ++k) {
        const Point2 a = out.at[(k + 1) % 3] - out.at[k], b = out.at[(k + 2) % 3] - out.at[k];
        out.cot[k] = a.dot(b) / (2 * out.area);
    }
    return out;
}

Eigen::Matrix2d jacobian(const Own& own, const std::array<Point2, 3>& to) {
    Eigen::Matrix2d from, onto;
    from << own.at[1] - own.at[0], own.at[2] - own.at[0];
    onto << to[1] - to[0], to[2] - to[0];
    return onto * from.inverse();
}

/// Whether each face is reached from the first over edges.
bool hangs_together(const Topology& topology) {
    std::vector<char> seen(topology.across.size(), 0);
    std::vector<std::uint32_t> open{0};
    std::size_t count = 0;
    while (!open.empty()) {
        const auto f = open.back();
        open.pop_back();
        if (seen[f] != 0) continue;
        seen[f] = 1;
        ++count;
        for (const auto next : topology.across[f]) {
            if (next != kNoFace) open.push_back(next);
        }
    }
    return count == seen.size();
}

class Flattening {
  public:
    Flattening(const TriangleMesh& mesh, Progress& progress) : mesh_(mesh), progress_(progress) {
        own_.reserve(mesh.triangles.size());
        for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
            own_.push_back(own_of(mesh, f));
            area_ += own_.back().area;
        }
        if (!(area_ > 0)) throw InputError("piece", "it has no area to lay flat", "see the face");
        pick_pins();
    }

    std::vector<Point2> run() {
        auto flat = conformal();
        // Its scale is the pins'; the area settles it.
        double area = 0;
        for (std::size_t f = 0; f < own_.size(); ++f) {
            const auto c = corners(flat, f);
            area +=
                std::abs((c[1] - c[0]).x() * (c[2] - c[0]).y() - (c[1] - c[0]).y() * (c[2] - c[0]).x()) / 2;
        }
        if (!(area > 0)) throw InputError("piece", "it cannot be laid flat", "part it in smaller ones");
        for (auto& p : flat) p *= std::sqrt(area_ / area);
        stiffen(flat);
        return flat;
    }

    [[nodiscard]] Flattened judged(std::vector<Point2> flat) const {
        Flattened out;
        double sum = 0;
        for (std::size_t f = 0; f < own_.size(); ++f) {
            out.stretch.push_back(0);
            if (own_[f].area <= 0) continue;
            const auto j = jacobian(own_[f], corners(flat, f));
            out.folded = out.folded || j.determinant() <= 0;
            const Eigen::JacobiSVD<Eigen::Matrix2d> svd(j);
            const auto& s = svd.singularValues();
            out.stretch.back() = std::max(std::abs(s[0] - 1), std::abs(s[1] - 1));
            out.most = std::max(out.most, out.stretch.back());
            sum += own_[f].area * out.stretch.back() * out.stretch.back();
        }
        out.usual = std::sqrt(sum / area_);
        out.flat = std::move(flat);
        return out;
    }

  private:
    [[nodiscard]] std::array<Point2, 3> corners(const std::vector<Point2>& flat, std::size_t f) const {
        const auto& t = mesh_.triangles[f];
        return {flat[t[0]], flat[t[1]], flat[t[2]]};
    }

    /// Two points far from each other.
    void pick_pins() {
        std::vector<char> used(mesh_.points.size(), 0);
        for (const auto& t : mesh_.triangles) {
            for (const auto p : t) used[p] = 1;
        }
        const auto farthest = [&](std::uint32_t from) {
            auto best = from;
            double most = -1;
            for (std::uint32_t p = 0; p < used.size(); ++p) {
                const double d = (mesh_.points[p] - mesh_.points[from]).squaredNorm();
                if (used[p] != 0 && d > most) {
                    most = d;
                    best = p;
                }
            }
            return best;
        };
        pin_ = farthest(mesh_.triangles.front()[0]);
        other_pin_ = farthest(pin_);
        used_ = std::move(used);
    }

    /// Σ A·|∇v − rot(∇u)|² over the faces is as small as can be, with two points held.
    std::vector<Point2> conformal() {
        const auto n = static_cast<Eigen::Index>(mesh_.points.size());
        std::vector<Eigen::Index> row(mesh_.points.size(), -1);
        Eigen::Index unknown = 0;
        for (std::size_t p = 0; p < row.size(); ++p) {
            if (used_[p] != 0 && p != pin_ && p != other_pin_) row[p] = unknown++;
        }
        std::vector<Point2> flat(static_cast<std::size_t>(n), Point2::Zero());
        flat[other_pin_] = {(mesh_.points[other_pin_] - mesh_.points[pin_]).norm(), 0};
        if (unknown == 0) return flat;
        // The energy is that of Dirichlet less the area: cotangents on both, and the rim's turn between them.
        Triplets triplets;
        Eigen::VectorXd right = Eigen::VectorXd::Zero(2 * unknown);
        const auto add = [&](std::uint32_t a, int da, std::uint32_t b, int db, double value) {
            if (row[a] < 0) return;
            const auto i = 2 * row[a] + da;
            if (row[b] >= 0)
                triplets.emplace_back(i, 2 * row[b] + db, value);
            else
                right[i] -= value * flat[b][db];
        };
        for (std::size_t f = 0; f < own_.size(); ++f) {
            const auto& t = mesh_.triangles[f];
            for (std::size_t k = 0; k < 3; ++k) {
                const auto a = t[(k + 1) % 3], b = t[(k + 2) % 3];
                for (int d = 0; d < 2; ++d) {
                    const double w = own_[f].cot[k] / 2;
                    add(a, d, a, d, w);
                    add(b, d, b, d, w);
                    add(a, d, b, d, -w);
                    add(b, d, a, d, -w);
                }
                // Area of a corner pair: (x_a·y_b − x_b·y_a)/2, each side once.
                if (own_[f].area <= 0) continue;
                add(a, 0, b, 1, -0.5);
                add(b, 1, a, 0, -0.5);
                add(b, 0, a, 1, 0.5);
                add(a, 1, b, 0, 0.5);
            }
        }
        Sparse matrix(2 * unknown, 2 * unknown);
        matrix.setFromTriplets(triplets.begin(), triplets.end());
        // Points of faces without area are held by nothing else.
        for (Eigen::Index i = 0; i < 2 * unknown; ++i) matrix.coeffRef(i, i) += 1e-10;
        const Eigen::SimplicialLDLT<Sparse> solver(matrix);
        const Eigen::VectorXd x = solver.solve(right);
        if (solver.info() != Eigen::Success || !x.allFinite())
            throw InputError("piece", "it cannot be laid flat", "part it in smaller ones");
        for (std::size_t p = 0; p < row.size(); ++p) {
            if (row[p] >= 0) flat[p] = {x[2 * row[p]], x[2 * row[p] + 1]};
        }
        return flat;
    }

    /// Each face turns as it lies best, then all points move to where the faces so turned want them.
    void stiffen(std::vector<Point2>& flat) {
        constexpr int kRounds = 200;
        const auto n = static_cast<Eigen::Index>(mesh_.points.size());
        Triplets triplets;
        for (std::size_t f = 0; f < own_.size(); ++f) {
            const auto& t = mesh_.triangles[f];
            for (std::size_t k = 0; k < 3; ++k) {
                const auto a = static_cast<int>(t[(k + 1) % 3]), b = static_cast<int>(t[(k + 2) % 3]);
                const double w = own_[f].cot[k];
                triplets.emplace_back(a, a, w);
                triplets.emplace_back(b, b, w);
                triplets.emplace_back(a, b, -w);
                triplets.emplace_back(b, a, -w);
            }
        }
        Sparse matrix(n, n);
        matrix.setFromTriplets(triplets.begin(), triplets.end());
        for (Eigen::Index i = 0; i < n; ++i)
            matrix.coeffRef(i, i) +=
                i == static_cast<Eigen::Index>(pin_) || used_[static_cast<std::size_t>(i)] == 0 ? 1.0 : 1e-12;
        const Eigen::SimplicialLDLT<Sparse> solver(matrix);
        if (solver.info() != Eigen::Success) return;
        const double size = std::sqrt(area_);
        const Point2 held = flat[pin_];
        for (int round = 0; round < kRounds; ++round) {
            if (round % 8 == 0) progress_.check();
            Eigen::MatrixXd right = Eigen::MatrixXd::Zero(n, 2);
            for (std::size_t f = 0; f < own_.size(); ++f) {
                const auto& own = own_[f];
                if (own.area <= 0) continue;
                const auto& t = mesh_.triangles[f];
                const auto to = corners(flat, f);
                // The nearest turn to how the face lies, turned over or not: by their cotangents its sides
                // weigh so that no direction counts more than another.
                double c = 0, s = 0;
                for (std::size_t k = 0; k < 3; ++k) {
                    const std::size_t a = (k + 1) % 3, b = (k + 2) % 3;
                    const Point2 side = own.at[a] - own.at[b], laid = to[a] - to[b];
                    c += own.cot[k] * side.dot(laid);
                    s += own.cot[k] * (side.x() * laid.y() - side.y() * laid.x());
                }
                const double r = std::sqrt(c * c + s * s);
                Eigen::Matrix2d turn = Eigen::Matrix2d::Identity();
                if (r > 0) turn << c / r, -s / r, s / r, c / r;
                for (std::size_t k = 0; k < 3; ++k) {
                    const std::size_t a = (k + 1) % 3, b = (k + 2) % 3;
                    const Point2 pull = own.cot[k] * (turn * (own.at[a] - own.at[b]));
                    right.row(static_cast<Eigen::Index>(t[a])) += pull.transpose();
                    right.row(static_cast<Eigen::Index>(t[b])) -= pull.transpose();
                }
            }
            right.row(static_cast<Eigen::Index>(pin_)) += held.transpose();
            const Eigen::MatrixXd next = solver.solve(right);
            if (!next.allFinite()) return;
            double moved = 0;
            for (std::size_t p = 0; p < flat.size(); ++p) {
                if (used_[p] == 0) continue;
                const Point2 to = next.row(static_cast<Eigen::Index>(p)).transpose();
                moved = std::max(moved, (to - flat[p]).norm());
                flat[p] = to;
            }
            if (moved < 1e-6 * size) return;
        }
    }

    const TriangleMesh& mesh_;
    Progress& progress_;
    std::vector<Own> own_;
    double area_ = 0;
    std::uint32_t pin_ = 0, other_pin_ = 0;
    std::vector<char> used_;
};

}  // namespace

Flattened flatten(const TriangleMesh& mesh, Progress& progress) {
    if (mesh.empty()) throw InputError("piece", "it has no area to lay flat", "see the face");
    const auto topology = topology_of(mesh);
    if (topology.rim_edges == 0 || !hangs_together(topology))
        throw InputError("piece", "it is not one face with a rim", "part it in such faces");
    Flattening flattening(mesh, progress);
    return flattening.judged(flattening.run());
}

Point2 laid_flat(const TriangleMesh& mesh, const Flattened& flat, std::size_t face, const Point& way) {
    const auto& t = mesh.triangles[face];
    const Point e = mesh.corner(face, 1) - mesh.corner(face, 0),
                g = mesh.corner(face, 2) - mesh.corner(face, 0);
    const double ee = e.dot(e), eg = e.dot(g), gg = g.dot(g), det = ee * gg - eg * eg;
    if (!(det > 0)) return Point2::Zero();
    const double a = way.dot(e), b = way.dot(g);
    return (a * gg - b * eg) / det * (flat.flat[t[1]] - flat.flat[t[0]]) +
           (b * ee - a * eg) / det * (flat.flat[t[2]] - flat.flat[t[0]]);
}

}  // namespace jig
