#include "core/science/shell/system.hpp"

#include <fmt/format.h>
#include <algorithm>
#include <chrono>
#include <cmath>
#include <limits>
#include <map>
#include <unordered_map>

#include "core/base/parallel.hpp"
#include "core/science/mesh/grid_key.hpp"
#include "core/science/mesh/topology.hpp"
#include "core/science/shell/bar.hpp"
#include "core/science/shell/inside.hpp"
#include "core/science/shell/rigid.hpp"

namespace jig::shell_fe {
namespace {

/// `near` m is how far beside a box still counts: of the mesh's size, not of the box's.
bool inside(const Bounds& box, const Point& p, double near) {
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
            if (used[i] && inside(supports[s].within, mesh().points[i], near)) hold(i);
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
    progress.check();
    in.near = 1e-6 * bounds_of(in.mesh()).diagonal();
    const auto held = in.held_by(supports);
    if (const auto motion = free_motion(in.model, held))
        throw InputError("supports", "they leave the shell free to move: " + *motion,
                         "hold more points or directions, so that it can neither shift nor turn");
    in.matrix = std::make_unique<Stiffness>(in.model, held);
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
    std::map<std::pair<std::uint32_t, std::uint32_t>, int> faces_at;  // of edges that two faces do not share
    for (std::size_t f = 0; f < mesh().triangles.size(); ++f) {
        for (std::size_t k = 0; k < 3; ++k) {
            if (topology.across[f][k] == kNoFace)
                ++faces_at[std::minmax(mesh().triangles[f][k], mesh().triangles[f][(k + 1) % 3])];
        }
    }
    double length = 0;
    for (std::size_t f = 0; f < mesh().triangles.size(); ++f) {
        for (std::size_t k = 0; k < 3; ++k) {
            if (topology.across[f][k] != kNoFace) continue;
            const auto a = mesh().triangles[f][k], b = mesh().triangles[f][(k + 1) % 3];
            if (!inside(line.within, point(a), near) || !inside(line.within, point(b), near)) continue;
            // Where several faces meet is a junction of plates, no rim.
            if (faces_at.at(std::minmax(a, b)) != 1) continue;
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

void Solution::measure() {
    largest = 0;
    for (Eigen::Index i = 0; i + 5 < freedoms.size(); i += 6)
        largest = std::max(largest, freedoms.segment<3>(i).norm());
}

Solution System::solve(const Loads& loads) const {
    return std::move(solve(std::vector<Loads>{loads}).front());
}

std::vector<Solution> System::solve(const std::vector<Loads>& cases) const {
    if (cases.empty()) return {};
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
    const auto place = in.list_held(out);
    for (std::size_t c = 0; c < out.size(); ++c) {
        out[c].freedoms = in.whole(u.col(static_cast<Eigen::Index>(c)));
        out[c].measure();
        for (std::size_t i = 0; i < number.size(); ++i) {
            const double force = forces[c][static_cast<Eigen::Index>(i)];
            if (i % 6 >= 3 || number[i] >= 0 || force == 0) continue;
            out[c].reactions[static_cast<Eigen::Index>(i % 6)] -= force;
            out[c].held[place[i / 6]].second[static_cast<Eigen::Index>(i % 6)] -= force;
        }
    }
    in.add_reactions(out, place);
    for (std::size_t c = 0; c < out.size(); ++c) {
        Point sum = out[c].reactions;
        double size = 0;
        for (std::size_t i = 0; i < in.mesh().points.size(); ++i) {
            const Point f = forces[c].segment<3>(6 * static_cast<Eigen::Index>(i));
            sum += f;
            size += f.norm();
        }
        if (!(sum.norm() <= 1e-5 * size) && size > 0)
            throw InputError("supports",
                             "reactions do not balance the loads: the shell is all but free to move",
                             "hold it by more points, further apart");
    }
    in.seconds.solve = since(start);
    return out;
}

std::vector<std::uint32_t> System::Inside::list_held(std::vector<Solution>& solutions) const {
    std::vector<std::uint32_t> place(mesh().points.size(), kNoFace);
    std::vector<std::pair<std::uint32_t, Point>> list;
    for (std::uint32_t i = 0; i < place.size(); ++i) {
        const auto n = 6 * std::size_t{i};
        if (row(n) >= 0 && row(n + 1) >= 0 && row(n + 2) >= 0) continue;
        place[i] = static_cast<std::uint32_t>(list.size());
        list.emplace_back(i, Point::Zero());
    }
    for (auto& solution : solutions) solution.held = list;
    return place;
}

void System::Inside::add_reactions(std::vector<Solution>& solutions,
                                   const std::vector<std::uint32_t>& place) const {
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
                    if (row(6 * std::size_t{points[p]} + k) >= 0) continue;
                    const double force = back[static_cast<Eigen::Index>(6 * p + k)];
                    solution.reactions[static_cast<Eigen::Index>(k)] += force;
                    solution.held[place[points[p]]].second[static_cast<Eigen::Index>(k)] += force;
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

std::vector<std::string> System::notes() const {
    const auto& in = *inside_;
    std::vector<std::string> out;
    if (in.topology.turned_edges > 0)
        out.push_back(fmt::format(
            "{} edges join faces that look opposite ways: pressure and the stack's order turn over "
            "there",
            in.topology.turned_edges));
    // Points in one place that no face shares: seams that were not joined.
    std::unordered_map<GridKey, std::uint32_t, GridHash> cells;
    std::size_t apart = 0;
    std::vector<char> used(in.mesh().points.size(), 0);
    for (const auto& t : in.mesh().triangles) {
        for (const auto i : t) used[i] = 1;
    }
    const double cell = 4 * std::max(1e-300, in.near);
    for (std::uint32_t i = 0; i < used.size(); ++i) {
        if (!used[i]) continue;
        const Point& p = in.point(i);
        const auto row = [&](double v) { return static_cast<std::int64_t>(std::llround(v / cell)); };
        const auto [at, fresh] = cells.try_emplace({row(p.x()), row(p.y()), row(p.z())}, i);
        apart += !fresh && (in.point(at->second) - p).norm() <= in.near;
    }
    if (apart > 0)
        out.push_back(
            fmt::format("{} points lie on others without being joined: the shell is open along them", apart));
    return out;
}

FaceStrain System::strain(std::size_t face, const Solution& solution) const {
    const auto element = inside_->element(face);
    const auto corners = inside_->corners(face, solution.freedoms);
    const auto both = element.strain(corners);
    return {both.head<3>(), both.tail<3>(), element.shear_strain(corners)};
}

}  // namespace jig::shell_fe
