#include "core/science/shell/system.hpp"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <Eigen/CholmodSupport>
#include <limits>

#include "core/base/parallel.hpp"
#include "core/science/mesh/topology.hpp"
#include "core/science/shell/element.hpp"

namespace jig::shell_fe {
namespace {

using Sparse = Eigen::SparseMatrix<double, Eigen::ColMajor, int>;

bool inside(const Bounds& box, const Point& p) {
    const double near = 1e-9 + 1e-9 * box.diagonal();
    return ((p - box.low).array() >= -near).all() && ((box.high - p).array() >= -near).all();
}

double since(std::chrono::steady_clock::time_point start) {
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
}

}  // namespace

struct System::Inside {
    TriangleMesh mesh;
    Section section;
    Point zero;
    Topology topology;
    std::vector<int> number;  // by freedom, its row; -1 where it is held
    int rows = 0;
    double mass = 0;
    mutable Eigen::CholmodSupernodalLLT<Sparse, Eigen::Lower> factor;
    mutable Seconds seconds;

    [[nodiscard]] Element element(std::size_t f) const {
        return {mesh.corner(f, 0), mesh.corner(f, 1), mesh.corner(f, 2), zero, section};
    }
    /// Six a point.
    [[nodiscard]] Eigen::VectorXd forces(const Loads& loads) const;
    [[nodiscard]] std::size_t freedom(std::size_t f, int local) const {
        return 6 * static_cast<std::size_t>(mesh.triangles[f][static_cast<std::size_t>(local / 6)]) +
               static_cast<std::size_t>(local % 6);
    }
};

System::System(const TriangleMesh& mesh, const Laminate& laminate, const Point& zero,
               const std::vector<Support>& supports, Progress& progress)
    : inside_(std::make_unique<Inside>()) {
    auto& in = *inside_;
    if (mesh.empty())
        throw InputError("mesh", "it has no triangle", "give points and triangles, or a mesh file");
    if (!(zero.norm() > 1e-12))
        throw InputError("zero_direction", "it has no length", "give a direction such as 1, 0, 0");
    const auto start = std::chrono::steady_clock::now();
    in.mesh = mesh;
    in.section = section_of(laminate);
    in.zero = zero;
    in.topology = topology_of(mesh);
    const auto points = mesh.points.size();
    // Points that no face uses have no stiffness: they are held.
    std::vector<char> used(points, 0), held(6 * points, 0);
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) used[i] = 1;
    }
    for (std::size_t s = 0; s < supports.size(); ++s) {
        std::size_t found = 0;
        for (std::size_t i = 0; i < points; ++i) {
            if (!used[i] || !inside(supports[s].within, mesh.points[i])) continue;
            ++found;
            for (std::size_t k = 0; k < 6; ++k) {
                if (supports[s].fix[k]) held[6 * i + k] = 1;
            }
        }
        if (found == 0)
            throw InputError("supports[" + std::to_string(s) + "]", "no point of the mesh lies in its box",
                             "make the box larger, or look at the unit");
    }
    in.number.assign(6 * points, -1);
    for (std::size_t i = 0; i < in.number.size(); ++i) {
        if (used[i / 6] && !held[i]) in.number[i] = in.rows++;
    }
    // Element matrices on all cores, each share its own list.
    const auto faces = mesh.triangles.size();
    std::vector<std::vector<Eigen::Triplet<double, int>>> lists(faces / 2048 + 1);
    std::vector<double> masses(lists.size(), 0);
    parallel_shares(lists.size(), 1, [&](std::size_t begin, std::size_t end, unsigned) {
        for (auto l = begin; l < end; ++l) {
            progress.check();
            auto& list = lists[l];
            list.reserve(2048 * 171);
            for (auto f = 2048 * l; f < std::min(faces, 2048 * (l + 1)); ++f) {
                const auto e = in.element(f);
                masses[l] += in.section.areal_mass * e.area();
                const Matrix18 K = e.stiffness();
                for (int a = 0; a < 18; ++a) {
                    const int row = in.number[in.freedom(f, a)];
                    if (row < 0) continue;
                    for (int b = 0; b < 18; ++b) {
                        const int column = in.number[in.freedom(f, b)];
                        if (column >= 0 && row >= column) list.emplace_back(row, column, K(a, b));
                    }
                }
            }
        }
    });
    std::size_t count = 0;
    for (const auto& l : lists) count += l.size();
    std::vector<Eigen::Triplet<double, int>> all;
    all.reserve(count);
    for (auto& l : lists) {
        all.insert(all.end(), l.begin(), l.end());
        l = {};
    }
    for (const double m : masses) in.mass += m;
    Sparse K(in.rows, in.rows);
    K.setFromTriplets(all.begin(), all.end());
    all = {};
    in.seconds.assemble = since(start);
    progress.report(0.5, "factoring");
    const auto factoring = std::chrono::steady_clock::now();
    double stiffest = 0;
    for (int i = 0; i < in.rows; ++i) stiffest = std::max(stiffest, K.coeff(i, i));
    in.factor.cholmod().print = 0;
    in.factor.compute(K);
    const auto loose = [] {
        return InputError("supports", "they leave the shell free to move",
                          "hold enough points and directions that it can neither shift nor turn");
    };
    if (in.factor.info() != Eigen::Success) throw loose();
    // Rounding lets a free shell through: its answer to a small push then has no measure.
    Eigen::VectorXd push = Eigen::VectorXd::Zero(in.rows);
    for (int i = 0; i < in.rows; ++i) push[i] = std::sin(1.0 + i);
    const Eigen::VectorXd answer = in.factor.solve(push);
    const double energy = push.dot(answer);
    if (!answer.allFinite() || !(energy > 0) || energy > 1e13 * push.squaredNorm() / stiffest) throw loose();
    in.seconds.factor = since(factoring);
    progress.report(1, "factored");
}

System::~System() = default;
System::System(System&&) noexcept = default;
System& System::operator=(System&&) noexcept = default;

double System::mass() const {
    return inside_->mass;
}

std::size_t System::freedoms() const {
    return static_cast<std::size_t>(inside_->rows);
}

Seconds System::seconds() const {
    return inside_->seconds;
}

Eigen::VectorXd System::Inside::forces(const Loads& loads) const {
    Eigen::VectorXd force = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(number.size()));
    const bool spread = loads.pressure != 0 || !loads.gravity.isZero() || loads.warming != 0;
    for (std::size_t f = 0; spread && f < mesh.triangles.size(); ++f) {
        const Point twice = mesh.area_vector2(f);
        const double area = twice.norm() / 2;
        const Point each = section.areal_mass * area / 3 * loads.gravity - loads.pressure / 6 * twice;
        for (const auto i : mesh.triangles[f]) force.segment<3>(6 * static_cast<Eigen::Index>(i)) += each;
        if (loads.warming == 0) continue;
        const Vector18 free = loads.warming * element(f).warming();
        for (int a = 0; a < 18; ++a) force[static_cast<Eigen::Index>(freedom(f, a))] += free[a];
    }
    for (const auto& p : loads.points) {
        std::size_t nearest = 0;
        double least = std::numeric_limits<double>::infinity();
        for (const auto& t : mesh.triangles) {
            for (const auto i : t) {
                const double d = (mesh.points[i] - p.near).squaredNorm();
                if (d < least) {
                    least = d;
                    nearest = i;
                }
            }
        }
        force.segment<3>(6 * static_cast<Eigen::Index>(nearest)) += p.force;
    }
    for (const auto& line : loads.lines) {
        double length = 0;
        for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
            for (std::size_t k = 0; k < 3; ++k) {
                if (topology.across[f][k] != kNoFace) continue;
                const auto a = mesh.triangles[f][k], b = mesh.triangles[f][(k + 1) % 3];
                if (!inside(line.within, mesh.points[a]) || !inside(line.within, mesh.points[b])) continue;
                const Point edge = mesh.points[b] - mesh.points[a];
                const double l = edge.norm();
                length += l;
                for (const auto i : {a, b})
                    force.segment<3>(6 * static_cast<Eigen::Index>(i)) += line.force * l / 2;
                // The triangle's edge bulges with its corners' turning: a pull across it turns them too.
                const Point z = element(f).normal();
                const double turning = kDrilling * l * line.force.dot(edge.cross(z)) / 12;
                force.segment<3>(6 * static_cast<Eigen::Index>(b) + 3) += turning * z;
                force.segment<3>(6 * static_cast<Eigen::Index>(a) + 3) -= turning * z;
            }
        }
        if (!(length > 0))
            throw InputError("line_force_N_m", "no edge of the mesh's rim lies in its box",
                             "line forces act along rims: make the box larger");
    }
    return force;
}

Solution System::solve(const Loads& loads) const {
    return std::move(solve(std::vector<Loads>{loads}).front());
}

std::vector<Solution> System::solve(const std::vector<Loads>& cases) const {
    const auto& in = *inside_;
    const auto start = std::chrono::steady_clock::now();
    const auto count = static_cast<Eigen::Index>(cases.size());
    std::vector<Eigen::VectorXd> forces;
    Eigen::MatrixXd right(in.rows, count);
    for (Eigen::Index c = 0; c < count; ++c) {
        const auto& force = forces.emplace_back(in.forces(cases[static_cast<std::size_t>(c)]));
        for (std::size_t i = 0; i < in.number.size(); ++i) {
            if (in.number[i] >= 0) right(in.number[i], c) = force[static_cast<Eigen::Index>(i)];
        }
    }
    const Eigen::MatrixXd u = in.factor.solve(right);
    std::vector<Solution> out(cases.size());
    for (std::size_t c = 0; c < out.size(); ++c) {
        auto& freedoms = out[c].freedoms;
        freedoms = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(in.number.size()));
        for (std::size_t i = 0; i < in.number.size(); ++i) {
            if (in.number[i] >= 0)
                freedoms[static_cast<Eigen::Index>(i)] = u(in.number[i], static_cast<Eigen::Index>(c));
        }
        for (std::size_t i = 0; i < in.mesh.points.size(); ++i)
            out[c].largest = std::max(out[c].largest, out[c].displacement(i).norm());
        for (std::size_t i = 0; i < in.number.size(); ++i) {
            if (i % 6 < 3 && in.number[i] < 0)
                out[c].reactions[static_cast<Eigen::Index>(i % 6)] -= forces[c][static_cast<Eigen::Index>(i)];
        }
    }
    // What the held freedoms carry: the elements' forces on them less the loads put there.
    for (std::size_t f = 0; f < in.mesh.triangles.size(); ++f) {
        bool any = false;
        for (int a = 0; a < 18; ++a) any |= a % 6 < 3 && in.number[in.freedom(f, a)] < 0;
        if (!any) continue;
        const Matrix18 K = in.element(f).stiffness();
        for (auto& solution : out) {
            Vector18 own;
            for (int a = 0; a < 18; ++a)
                own[a] = solution.freedoms[static_cast<Eigen::Index>(in.freedom(f, a))];
            const Vector18 back = K * own;
            for (int a = 0; a < 18; ++a) {
                if (a % 6 < 3 && in.number[in.freedom(f, a)] < 0) solution.reactions[a % 6] += back[a];
            }
        }
    }
    in.seconds.solve = since(start);
    return out;
}

}  // namespace jig::shell_fe
