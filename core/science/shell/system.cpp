#include "core/science/shell/system.hpp"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <Eigen/Eigenvalues>
#include <limits>

#include "core/base/parallel.hpp"
#include "core/science/mesh/topology.hpp"
#include "core/science/shell/bar.hpp"
#include "core/science/shell/element.hpp"
#include "core/science/shell/factor.hpp"
#include "core/science/shell/stiffness.hpp"

namespace jig::shell_fe {
namespace {

bool inside(const Bounds& box, const Point& p) {
    const double near = 1e-9 + 1e-9 * box.diagonal();
    return ((p - box.low).array() >= -near).all() && ((box.high - p).array() >= -near).all();
}

double since(std::chrono::steady_clock::time_point start) {
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
}

Matrix12 tie_stiffness(const Tie& tie) {
    Matrix12 K = Matrix12::Zero();
    for (const auto& [at, k] : {std::pair{0, &tie.stiffness}, std::pair{3, &tie.turning}}) {
        K.block<3, 3>(at, at) = K.block<3, 3>(at + 6, at + 6) = *k;
        K.block<3, 3>(at, at + 6) = K.block<3, 3>(at + 6, at) = -*k;
    }
    return K;
}

}  // namespace

struct System::Inside {
    Model model;
    std::vector<Section> sections;
    Topology topology;
    std::unique_ptr<Stiffness> matrix;
    mutable Factor factor;
    mutable Seconds seconds;

    [[nodiscard]] const TriangleMesh& mesh() const { return model.mesh; }
    [[nodiscard]] Element element(std::size_t f) const {
        const auto s = model.skin_of(f);
        return {mesh().corner(f, 0), mesh().corner(f, 1), mesh().corner(f, 2), model.skins[s].zero,
                sections[s]};
    }
    [[nodiscard]] const Point& point(std::uint32_t i) const { return mesh().points[i]; }
    [[nodiscard]] int row(std::size_t freedom) const { return matrix->number[freedom]; }
    /// Six a point.
    [[nodiscard]] Eigen::VectorXd forces(const Loads& loads) const;
    void add_lines(const LineForce& line, Eigen::VectorXd& force) const;
    [[nodiscard]] std::size_t freedom(std::size_t f, int local) const {
        return 6 * static_cast<std::size_t>(mesh().triangles[f][static_cast<std::size_t>(local / 6)]) +
               static_cast<std::size_t>(local % 6);
    }
    [[nodiscard]] Vector18 corners(std::size_t f, const Eigen::VectorXd& freedoms) const {
        Vector18 own;
        for (int a = 0; a < 18; ++a) own[a] = freedoms[static_cast<Eigen::Index>(freedom(f, a))];
        return own;
    }
    [[nodiscard]] std::vector<char> held_by(const std::vector<Support>& supports) const;
    void assemble(Progress& progress);
    void add_reactions(std::vector<Solution>& solutions) const;
    /// A full matrix over `from` (one column each) as solved for, and back.
    [[nodiscard]] Eigen::VectorXd whole(const Eigen::VectorXd& solved) const {
        Eigen::VectorXd out = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(matrix->number.size()));
        for (std::size_t i = 0; i < matrix->number.size(); ++i) {
            if (row(i) >= 0) out[static_cast<Eigen::Index>(i)] = solved[row(i)];
        }
        return out;
    }
};

std::vector<char> System::Inside::held_by(const std::vector<Support>& supports) const {
    const auto points = mesh().points.size();
    // Points that nothing uses have no stiffness: they are held.
    std::vector<char> used(points, 0), turned(points, 0), held(6 * points, 0);
    for (const auto& t : mesh().triangles) {
        for (const auto i : t) used[i] = turned[i] = 1;
    }
    for (const auto& bar : model.bars) used[bar.a] = used[bar.b] = turned[bar.a] = turned[bar.b] = 1;
    for (const auto& tie : model.ties) {
        used[tie.a] = used[tie.b] = 1;
        if (!tie.turning.isZero()) turned[tie.a] = turned[tie.b] = 1;
    }
    for (std::size_t i = 0; i < held.size(); ++i) held[i] = !(i % 6 < 3 ? used[i / 6] : turned[i / 6]);
    for (std::size_t s = 0; s < supports.size(); ++s) {
        std::size_t found = 0;
        const auto hold = [&](std::size_t i) {
            ++found;
            for (std::size_t k = 0; k < 6; ++k) {
                if (supports[s].fix[k]) held[6 * i + k] = 1;
            }
        };
        for (const auto i : supports[s].points) hold(i);
        for (std::size_t i = 0; supports[s].points.empty() && i < points; ++i) {
            if (used[i] && inside(supports[s].within, mesh().points[i])) hold(i);
        }
        if (found == 0)
            throw InputError("supports[" + std::to_string(s) + "]", "no point of the mesh lies in its box",
                             "make the box larger, or look at the unit");
    }
    return held;
}

void System::Inside::assemble(Progress& progress) {
    // Element matrices on all cores, a batch at a time; adding them up is quick.
    constexpr std::size_t kBatch = 4096;
    const auto faces = mesh().triangles.size();
    std::vector<Matrix18> blocks(std::min(kBatch, faces));
    for (std::size_t from = 0; from < faces; from += kBatch) {
        progress.check();
        const auto count = std::min(kBatch, faces - from);
        parallel_shares(count, 256, [&](std::size_t begin, std::size_t end, unsigned) {
            for (auto i = begin; i < end; ++i) {
                blocks[i] = element(from + i).stiffness();
            }
        });
        for (std::size_t i = 0; i < count; ++i) {
            matrix->add(mesh().triangles[from + i], blocks[i].data());
        }
    }
    for (const auto& bar : model.bars) {
        const std::array ends{bar.a, bar.b};
        matrix->add(ends, bar_stiffness(bar, point(bar.a), point(bar.b)).data());
    }
    for (const auto& tie : model.ties) {
        const std::array ends{tie.a, tie.b};
        matrix->add(ends, tie_stiffness(tie).data());
    }
}

System::System(const TriangleMesh& mesh, const Laminate& laminate, const Point& zero,
               const std::vector<Support>& supports, Progress& progress)
    : System(Model{mesh, {{laminate, zero}}, {}, {}, {}}, supports, progress) {}

System::System(Model model, const std::vector<Support>& supports, Progress& progress)
    : inside_(std::make_unique<Inside>()) {
    auto& in = *inside_;
    if (model.mesh.empty())
        throw InputError("mesh", "it has no triangle", "give points and triangles, or a mesh file");
    for (const auto& skin : model.skins) {
        if (!(skin.zero.norm() > 1e-12))
            throw InputError("zero_direction", "it has no length", "give a direction such as 1, 0, 0");
    }
    const auto start = std::chrono::steady_clock::now();
    in.model = std::move(model);
    for (const auto& skin : in.model.skins) in.sections.push_back(section_of(skin.laminate));
    in.matrix = std::make_unique<Stiffness>(in.model, in.held_by(supports));
    in.assemble(progress);
    in.topology = topology_of(in.mesh());
    in.seconds.assemble = since(start);
    progress.report(0.5, "factoring");
    const auto factoring = std::chrono::steady_clock::now();
    const auto loose = [] {
        return InputError("supports", "they leave the shell free to move",
                          "hold enough points and directions that it can neither shift nor turn");
    };
    if (!in.factor.compute(*in.matrix)) throw loose();
    // Rounding lets a free shell through: its answer to a small push then has no measure. It is measured
    // against the usual stiffness, since one needle of a triangle is as stiff as it is thin.
    if (in.factor.evenness() < 1e-9) {
        Eigen::VectorXd push(in.matrix->rows);
        for (int i = 0; i < in.matrix->rows; ++i) push[i] = std::sin(1.0 + i);
        const Eigen::VectorXd answer = in.factor.solve(push);
        const double energy = push.dot(answer);
        if (!answer.allFinite() || !(energy > 0) ||
            energy > 1e13 * push.squaredNorm() / in.matrix->usual_diagonal())
            throw loose();
    }
    in.seconds.factor = since(factoring);
    progress.report(1, "factored");
}

System::~System() = default;
System::System(System&&) noexcept = default;
System& System::operator=(System&&) noexcept = default;

const Model& System::model() const {
    return inside_->model;
}

double System::mass() const {
    return weigh(inside_->model).mass;
}

std::size_t System::freedoms() const {
    return static_cast<std::size_t>(inside_->matrix->rows);
}

Seconds System::seconds() const {
    return inside_->seconds;
}

void System::Inside::add_lines(const LineForce& line, Eigen::VectorXd& force) const {
    double length = 0;
    for (std::size_t f = 0; f < mesh().triangles.size(); ++f) {
        for (std::size_t k = 0; k < 3; ++k) {
            if (topology.across[f][k] != kNoFace) continue;
            const auto a = mesh().triangles[f][k], b = mesh().triangles[f][(k + 1) % 3];
            if (!inside(line.within, point(a)) || !inside(line.within, point(b))) continue;
            const Point edge = point(b) - point(a);
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

Eigen::VectorXd System::Inside::forces(const Loads& loads) const {
    Eigen::VectorXd force = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(matrix->number.size()));
    const bool spread =
        loads.pressure != 0 || !loads.pressures.empty() || !loads.gravity.isZero() || loads.warming != 0;
    for (std::size_t f = 0; spread && f < mesh().triangles.size(); ++f) {
        const Point twice = mesh().area_vector2(f);
        const double pressure =
            loads.pressure + (loads.pressures.empty() ? 0.0 : static_cast<double>(loads.pressures[f]));
        const Point each =
            sections[model.skin_of(f)].areal_mass * twice.norm() / 6 * loads.gravity - pressure / 6 * twice;
        for (const auto i : mesh().triangles[f]) force.segment<3>(6 * static_cast<Eigen::Index>(i)) += each;
        if (loads.warming == 0) continue;
        const Vector18 free = loads.warming * element(f).warming();
        for (int a = 0; a < 18; ++a) force[static_cast<Eigen::Index>(freedom(f, a))] += free[a];
    }
    for (const auto& bar : model.bars) {
        if (!spread) break;
        const Point &a = point(bar.a), &b = point(bar.b);
        Vector12 both = loads.warming * bar_warming(bar, a, b);
        const Point each = bar.mass * (b - a).norm() / 2 * loads.gravity;
        both.segment<3>(0) += each;
        both.segment<3>(6) += each;
        force.segment<6>(6 * static_cast<Eigen::Index>(bar.a)) += both.head<6>();
        force.segment<6>(6 * static_cast<Eigen::Index>(bar.b)) += both.tail<6>();
    }
    for (const auto& p : loads.points) {
        std::size_t nearest = 0;
        double least = std::numeric_limits<double>::infinity();
        for (const auto& t : mesh().triangles) {
            for (const auto i : t) {
                const double d = (point(i) - p.near).squaredNorm();
                if (d < least) {
                    least = d;
                    nearest = i;
                }
            }
        }
        force.segment<3>(6 * static_cast<Eigen::Index>(nearest)) += p.force;
    }
    for (const auto& n : loads.nodes) force.segment<3>(6 * static_cast<Eigen::Index>(n.point)) += n.force;
    for (const auto& line : loads.lines) add_lines(line, force);
    return force;
}

Solution System::solve(const Loads& loads) const {
    return std::move(solve(std::vector<Loads>{loads}).front());
}

std::vector<Solution> System::solve(const std::vector<Loads>& cases) const {
    const auto& in = *inside_;
    const auto start = std::chrono::steady_clock::now();
    const auto count = static_cast<Eigen::Index>(cases.size());
    const auto& number = in.matrix->number;
    std::vector<Eigen::VectorXd> forces(cases.size());
    Eigen::MatrixXd right(in.matrix->rows, count);
    parallel_shares(cases.size(), 1, [&](std::size_t begin, std::size_t end, unsigned) {
        for (auto c = begin; c < end; ++c) {
            forces[c] = in.forces(cases[c]);
            for (std::size_t i = 0; i < number.size(); ++i) {
                if (number[i] >= 0)
                    right(number[i], static_cast<Eigen::Index>(c)) = forces[c][static_cast<Eigen::Index>(i)];
            }
        }
    });
    const Eigen::MatrixXd u = in.factor.solve(right);
    std::vector<Solution> out(cases.size());
    for (std::size_t c = 0; c < out.size(); ++c) {
        out[c].freedoms = in.whole(u.col(static_cast<Eigen::Index>(c)));
        for (std::size_t i = 0; i < in.mesh().points.size(); ++i)
            out[c].largest = std::max(out[c].largest, out[c].displacement(i).norm());
        for (std::size_t i = 0; i < number.size(); ++i) {
            if (i % 6 < 3 && number[i] < 0)
                out[c].reactions[static_cast<Eigen::Index>(i % 6)] -= forces[c][static_cast<Eigen::Index>(i)];
        }
    }
    in.add_reactions(out);
    in.seconds.solve = since(start);
    return out;
}

void System::Inside::add_reactions(std::vector<Solution>& solutions) const {
    // What the held freedoms carry: the elements' forces on them less the loads put there.
    const auto holds = [&](std::uint32_t i) {
        const auto n = 6 * std::size_t{i};
        return row(n) < 0 || row(n + 1) < 0 || row(n + 2) < 0;
    };
    const auto add = [&](std::span<const std::uint32_t> points, const auto& K) {
        for (auto& solution : solutions) {
            Eigen::Matrix<double, Eigen::Dynamic, 1> own(static_cast<Eigen::Index>(6 * points.size()));
            for (std::size_t p = 0; p < points.size(); ++p)
                own.segment<6>(static_cast<Eigen::Index>(6 * p)) =
                    solution.freedoms.segment<6>(6 * static_cast<Eigen::Index>(points[p]));
            const Eigen::VectorXd back = K * own;
            for (std::size_t p = 0; p < points.size(); ++p) {
                for (std::size_t k = 0; k < 3; ++k) {
                    if (row(6 * std::size_t{points[p]} + k) < 0)
                        solution.reactions[static_cast<Eigen::Index>(k)] +=
                            back[static_cast<Eigen::Index>(6 * p + k)];
                }
            }
        }
    };
    for (std::size_t f = 0; f < mesh().triangles.size(); ++f) {
        const auto& t = mesh().triangles[f];
        if (holds(t[0]) || holds(t[1]) || holds(t[2])) add(t, element(f).stiffness());
    }
    for (const auto& bar : model.bars) {
        if (holds(bar.a) || holds(bar.b))
            add(std::array{bar.a, bar.b}, bar_stiffness(bar, point(bar.a), point(bar.b)));
    }
    for (const auto& tie : model.ties) {
        if (!holds(tie.a) && !holds(tie.b)) continue;
        add(std::array{tie.a, tie.b}, tie_stiffness(tie));
    }
}

FaceStrain System::strain(std::size_t face, const Solution& solution) const {
    const auto both = inside_->element(face).strain(inside_->corners(face, solution.freedoms));
    return {both.head<3>(), both.tail<3>()};
}

System::Buckling System::buckling(const Solution& solution, double warming, Progress& progress) const {
    const auto& in = *inside_;
    // Forces in the middle planes, with what warming would have done freely taken off.
    auto stress = *in.matrix;
    std::fill(stress.value.begin(), stress.value.end(), 0.0);
    for (std::size_t f = 0; f < in.mesh().triangles.size(); ++f) {
        const auto& s = in.sections[in.model.skin_of(f)];
        const auto e = strain(f, solution);
        const Eigen::Vector3d N = s.A * e.middle + s.B * e.curvature - warming * s.N_T;
        // What is added to K·φ on the left stands on the right with the other sign.
        const Matrix18 K = -in.element(f).stress_stiffness(N);
        stress.add(in.mesh().triangles[f], K.data());
    }
    constexpr int kShapes = 12, kRounds = 80;
    const int rows = in.matrix->rows;
    const int shapes = std::min(kShapes, rows);
    Eigen::MatrixXd X(rows, shapes);
    for (int j = 0; j < shapes; ++j) {
        for (int i = 0; i < rows; ++i) X(i, j) = std::sin(0.7 * (i + 1) * (j + 1) + j);
    }
    Buckling out;
    double last = 0;
    for (int round = 0; round < kRounds; ++round) {
        progress.report(static_cast<double>(round) / kRounds, "looking for buckling");
        Eigen::MatrixXd Y(rows, shapes);
        parallel_shares(
            static_cast<std::size_t>(shapes), 1, [&](std::size_t begin, std::size_t end, unsigned) {
                for (auto j = static_cast<Eigen::Index>(begin); j < static_cast<Eigen::Index>(end); ++j)
                    Y.col(j) = stress.times(X.col(j));
            });
        X = in.factor.solve(Y);
        Eigen::MatrixXd MX(rows, shapes);
        parallel_shares(
            static_cast<std::size_t>(shapes), 1, [&](std::size_t begin, std::size_t end, unsigned) {
                for (auto j = static_cast<Eigen::Index>(begin); j < static_cast<Eigen::Index>(end); ++j)
                    MX.col(j) = stress.times(X.col(j));
            });
        // K·X is Y: the reduced problem M·y = μ·K·y, whose largest μ is the smallest λ = 1/μ.
        const Eigen::MatrixXd k = X.transpose() * Y, m = X.transpose() * MX;
        const Eigen::MatrixXd ks = (k + k.transpose()) / 2, ms = (m + m.transpose()) / 2;
        Eigen::LLT<Eigen::MatrixXd> whole(ks);
        if (whole.info() != Eigen::Success) break;
        const Eigen::GeneralizedSelfAdjointEigenSolver<Eigen::MatrixXd> reduced(ms, ks);
        if (reduced.info() != Eigen::Success) break;
        X = X * reduced.eigenvectors();
        for (int j = 0; j < shapes; ++j) X.col(j) /= std::max(1e-300, X.col(j).cwiseAbs().maxCoeff());
        const double mu = reduced.eigenvalues()[shapes - 1];
        out.factor = mu > 0 ? 1 / mu : 0;
        out.shape = X.col(shapes - 1);
        if (std::abs(mu - last) < 1e-6 * std::abs(mu)) break;
        last = mu;
    }
    out.shape = in.whole(out.shape.size() == rows ? out.shape : Eigen::VectorXd::Zero(rows));
    double most = 0;
    for (std::size_t i = 0; i < in.mesh().points.size(); ++i)
        most = std::max(most, out.shape.segment<3>(static_cast<Eigen::Index>(6 * i)).norm());
    if (most > 0) out.shape /= most;
    return out;
}

}  // namespace jig::shell_fe
