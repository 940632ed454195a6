#include "core/stages/back/bench.hpp"

#include <algorithm>
#include <cmath>

#include "core/science/mesh/patches.hpp"
#include "core/science/shell/contact.hpp"
#include "core/stages/back/motion.hpp"
#include "core/stages/whereabouts.hpp"

namespace jig::back {

using shell_fe::Loads;
using shell_fe::Solution;
using shell_fe::Support;
using shell_fe::System;

namespace {

/// So many places round the rim are leant on, and so many wedge slots are tried.
constexpr double kHand = 0.05;  // m, half the patch that a hand presses on and that strains are judged over
constexpr std::size_t kLeanings = 24, kLevers = 12, kMostBolts = 1000;

std::vector<std::uint32_t> corners_of(const std::vector<Point>& points,
                                      const std::vector<std::uint32_t>& rim) {
    std::vector<std::uint32_t> out;
    for (const auto& d : {Point(1, 1, 0), Point(-1, 1, 0), Point(-1, -1, 0), Point(1, -1, 0)}) {
        const auto most = *std::max_element(rim.begin(), rim.end(), [&](std::uint32_t a, std::uint32_t b) {
            return d.dot(points[a]) < d.dot(points[b]);
        });
        if (std::find(out.begin(), out.end(), most) == out.end()) out.push_back(most);
    }
    return out;
}

std::uint32_t nearest_rim(const std::vector<Point>& points, const std::vector<std::uint32_t>& rim,
                          const Point2& at) {
    return *std::min_element(rim.begin(), rim.end(), [&](std::uint32_t a, std::uint32_t b) {
        return (points[a].head<2>() - at).squaredNorm() < (points[b].head<2>() - at).squaredNorm();
    });
}

/// Pressures (Pa on the outside) and point forces as the finite elements spread them, summed about the
/// origin.
struct Sum {
    Point force = Point::Zero(), moment = Point::Zero();
};

Sum sum_of(const Loads& l, const TriangleMesh& mesh) {
    Sum out;
    const auto add = [&](const Point& at, const Point& force) {
        out.force += force;
        out.moment += at.cross(force);
    };
    for (std::size_t f = 0; f < l.pressures.size(); ++f) {
        if (l.pressures[f] == 0) continue;
        const Point each = -static_cast<double>(l.pressures[f]) / 6 * mesh.area_vector2(f);
        for (int k = 0; k < 3; ++k) add(mesh.corner(f, k), each);
    }
    for (const auto& n : l.nodes) add(mesh.points[n.point], n.force);
    return out;
}

/// Air presses alike from every side: what the idealised bag leaves over in force or moment is laid on its
/// edge, as a force that changes linearly along it, the least that does.
void balance(Loads& l, const TriangleMesh& mesh, const std::vector<std::uint32_t>& edge) {
    Point middle = Point::Zero();
    for (const auto i : edge) middle += mesh.points[i] / static_cast<double>(edge.size());
    const auto left = sum_of(l, mesh);
    Eigen::Matrix<double, 6, 6> whole = Eigen::Matrix<double, 6, 6>::Zero();
    const auto arm_of = [&](std::uint32_t i) {
        const Point r = mesh.points[i] - middle;
        Eigen::Matrix3d cross;
        cross << 0, -r.z(), r.y(), r.z(), 0, -r.x(), -r.y(), r.x(), 0;
        return cross;
    };
    // f = c + d × r at each point; its force and its moment about the middle.
    for (const auto i : edge) {
        const Eigen::Matrix3d r = arm_of(i);
        whole.block<3, 3>(0, 0) += Eigen::Matrix3d::Identity();
        whole.block<3, 3>(0, 3) -= r;
        whole.block<3, 3>(3, 0) += r;
        whole.block<3, 3>(3, 3) -= r * r;
    }
    Eigen::Matrix<double, 6, 1> wanted;
    wanted << -left.force, -(left.moment - middle.cross(left.force));
    const Eigen::Matrix<double, 6, 1> x = whole.colPivHouseholderQr().solve(wanted);
    for (const auto i : edge) l.nodes.push_back({i, x.head<3>() - arm_of(i) * x.tail<3>()});
}

}  // namespace

std::vector<Support> three_of(const std::vector<Point>& points, const std::vector<std::uint32_t>& on) {
    if (on.size() < 3)
        throw InputError("back", "the tool stands on fewer than three places", "give it more feet");
    constexpr double kAcross = 0.01;  // m, less of which is a line to stand on
    auto three = shell_fe::three_of(points, on, kAcross);
    if (!three)
        throw InputError("back", "the tool stands in one line and would fall over",
                         "set the ribs closer, so that more of them cross, or give it more feet across");
    return *std::move(three);
}

Bench::Bench(const ToolInputs& in, const EvenFace& face, Progress& progress)
    : in_(in), tool_(build_tool(in, face, progress)) {
    const auto& mesh = tool_.model.mesh;
    weight_.assign(mesh.points.size(), 0);
    normal_.assign(mesh.points.size(), Point::Zero());
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        if (tool_.parts[f] == ToolPart::rib) continue;
        const Point twice = mesh.area_vector2(f);
        if (tool_.parts[f] == ToolPart::face) {
            face_up_ += twice / 2;
            for (const auto i : mesh.triangles[f]) {
                weight_[i] += twice.norm() / 6;
                normal_[i] += twice;
            }
        }
        shell_up_ += twice / 2;
    }
    for (std::size_t i = 0; i < weight_.size(); ++i) {
        if (weight_[i] > 0) face_.push_back(static_cast<std::uint32_t>(i));
    }
    if (tool_.rim.empty() || face_.empty())
        throw InputError("back", "the tool has no rim", "leave its foot open");
    const auto n = std::min(kLeanings, tool_.rim.size());
    for (std::size_t i = 0; i < n; ++i) leant_.push_back(tool_.rim[i * tool_.rim.size() / n]);
}

std::vector<std::uint32_t> Bench::rim_corners() const {
    return corners_of(points(), tool_.rim);
}

std::vector<std::uint32_t> Bench::beside(std::uint32_t leant) const {
    std::vector<std::uint32_t> out;
    const auto& rim = tool_.rim;
    const auto at = static_cast<std::size_t>(std::find(rim.begin(), rim.end(), leant) - rim.begin());
    const auto known = [&](std::uint32_t i) {
        return std::find(leant_.begin(), leant_.end(), i) != leant_.end();
    };
    for (const bool ahead : {true, false}) {
        for (std::size_t k = 1; k < rim.size(); ++k) {
            const auto i = rim[(ahead ? at + k : at + rim.size() - k) % rim.size()];
            if (known(i)) break;
            out.push_back(i);
        }
    }
    return out;
}

std::vector<std::uint32_t> Bench::fitted(Fitting kind, const std::vector<std::uint32_t>& otherwise,
                                         std::size_t most) const {
    std::vector<std::uint32_t> out;
    const auto put = [&](std::uint32_t i) {
        if (out.size() < most && std::find(out.begin(), out.end(), i) == out.end()) out.push_back(i);
    };
    if (in_.edge_found != nullptr) {
        for (const auto& fit : in_.edge_found->fits) {
            if (fit.kind == kind) put(nearest_rim(points(), tool_.rim, fit.place));
        }
    }
    if (out.empty()) std::for_each(otherwise.begin(), otherwise.end(), put);
    return out;
}

std::vector<std::uint32_t> Bench::slots() const {
    return fitted(Fitting::wedge, corners_of(points(), tool_.rim), kLevers);
}

std::vector<std::uint32_t> Bench::bolts() const {
    return fitted(Fitting::bolt, tool_.rim, kMostBolts);
}

Tips Bench::tips_at_its_ends() const {
    std::vector<Point2> places;
    for (const auto i : tool_.stands) places.emplace_back(points()[i].head<2>());
    auto wide = in_.back;
    wide.feet.inset = 0;
    std::vector<std::uint32_t> feet;
    for (const auto k : feet_on(wide, places)) feet.push_back(tool_.stands[k]);
    return tips_on(feet);
}

Tips Bench::tips_on(const std::vector<std::uint32_t>& on) const {
    std::vector<Point2> feet, rim;
    for (const auto i : on) feet.emplace_back(points()[i].head<2>());
    for (const auto i : tool_.rim) rim.emplace_back(points()[i].head<2>());
    const auto weight = shell_fe::weigh(tool_.model);
    return back::tips(feet, weight.centre.head<2>(), weight.mass * kGravity, rim, in_.back.lean);
}

Loads Bench::weight(double sign) {
    Loads l;
    l.gravity = sign * kGravity * Point::UnitZ();
    return l;
}

Loads Bench::leaning(std::uint32_t at) const {
    // Hands and hip press on a patch, not on a point: it is shared out along a hand's width of the rim by
    // what each point has of it. A point force's own dimple would grow as the mesh gets finer.
    const auto& rim = tool_.rim;
    std::vector<std::pair<std::uint32_t, double>> shares;
    double whole = 0;
    for (std::size_t i = 0; i < rim.size(); ++i) {
        const Point &a = points()[rim[i]], &b = points()[rim[(i + 1) % rim.size()]], middle = (a + b) / 2;
        const double length = (b - a).norm(), off = (middle - points()[at]).norm();
        const double covered =
            std::clamp((kHand + length / 2 - off) / std::max(1e-9, length), 0.0, 1.0) * length;
        if (covered <= 0) continue;
        for (const auto end : {rim[i], rim[(i + 1) % rim.size()]}) shares.emplace_back(end, covered / 2);
        whole += covered;
    }
    Loads l;
    if (whole <= 0) shares = {{at, whole = 1}};
    for (const auto& [point, share] : shares)
        l.nodes.push_back({point, in_.back.lean * share / whole * Point::UnitZ()});
    return l;
}

std::vector<float> Bench::from_within(double pressure, bool flange) const {
    std::vector<float> out(tool_.parts.size(), 0.0f);
    for (std::size_t f = 0; f < out.size(); ++f) {
        if (tool_.parts[f] == ToolPart::face || (flange && tool_.parts[f] == ToolPart::flange))
            out[f] = static_cast<float>(-pressure);
    }
    return out;
}

Loads Bench::squeeze(const std::vector<std::uint32_t>& bolts) const {
    Loads l;
    l.pressures = from_within(in_.edge.squeeze, false);
    for (const auto b : bolts)
        l.nodes.push_back(
            {b, -in_.edge.squeeze * face_up_.z() / static_cast<double>(bolts.size()) * Point::UnitZ()});
    return l;
}

Loads Bench::levering(std::uint32_t at) const {
    Loads l;
    l.nodes = {{at, in_.back.lever * Point::UnitZ()}};
    l.pressures = from_within(-in_.back.lever / std::max(1e-9, face_up_.z()), false);
    return l;
}

Loads Bench::envelope() const {
    Loads l;
    const double p = in_.back.vacuum;
    const auto& rim = tool_.rim;
    const auto spread = [&](const std::vector<std::uint32_t>& on, const Point& force) {
        for (const auto i : on) l.nodes.push_back({i, force / static_cast<double>(on.size())});
    };
    if (!in_.back.has_grid()) {
        l.pressures = from_within(-p, true);
        spread(rim, p * shell_up_.z() * Point::UnitZ());
        balance(l, tool_.model.mesh, rim);
        return l;
    }
    l.pressures = from_within(p, true);
    spread(tool_.base, -p * shell_up_.z() * Point::UnitZ());
    // Between rim and base the bag stands as a wall: half of what presses on it goes to either.
    for (std::size_t i = 0; i < rim.size(); ++i) {
        const Point &a = points()[rim[i]], &b = points()[rim[(i + 1) % rim.size()]];
        const Point along = b - a;
        // The rim runs with the surface on its left, so outwards is on its right.
        const Point inward = Point(-along.y(), along.x(), 0);
        const double tall = std::max(0.0, tool_.level - a.z());
        const Point half = p * tall / 2 * inward;
        // Half of a strip's edge belongs to either of its ends.
        for (const auto end : {rim[i], rim[(i + 1) % rim.size()]}) {
            l.nodes.push_back({end, half / 2});
            l.nodes.push_back({nearest_rim(points(), tool_.base, points()[end].head<2>()), half / 2});
        }
    }
    auto edge = rim;
    edge.insert(edge.end(), tool_.base.begin(), tool_.base.end());
    balance(l, tool_.model.mesh, edge);
    return l;
}

Loads Bench::heat(double warming) {
    Loads l;
    l.warming = warming;
    return l;
}

std::string Bench::said_where(const Point& p, bool flange) const {
    const double deep = (p.z() - in_.face.low.z()) / std::max(1e-9, in_.face.high.z() - in_.face.low.z());
    return (flange        ? "flange"
            : deep > 0.85 ? "deepest part"
            : deep < 0.15 ? "face at the rim"
                          : "wall") +
           (", " + whereabouts(p, in_.face.low, in_.face.high));
}

CaseResult Bench::result(LoadCase kind, const System& system, const Solution& u, double warming,
                         std::optional<std::uint32_t> pushed) const {
    CaseResult out;
    out.kind = kind;
    out.moves = u.largest;
    out.reactions = u.reactions.z();
    std::vector<Point> places, moves;
    std::vector<double> weights;
    for (const auto i : face_) {
        places.push_back(points()[i]);
        moves.push_back(u.displacement(i));
        weights.push_back(weight_[i]);
    }
    const auto motion = motion_of(places, moves, weights, warming != 0);
    std::size_t at = 0;
    for (std::size_t k = 0; k < face_.size(); ++k) {
        const double off = std::abs((moves[k] - motion.of(places[k])).dot(normal_[face_[k]].normalized()));
        if (off > out.error) {
            out.error = off;
            at = k;
        }
    }
    if (pushed) {
        out.worst = points()[*pushed];
        out.where = said_where(out.worst, true);
    } else {
        out.worst = places[at];
        out.where = said_where(out.worst, false);
    }
    strains(system, u, warming, out);
    // What is pushed at one place is seen against its feet, all else against the face as a whole.
    out.relative = !pushed;
    for (std::size_t i = 0; i < points().size(); ++i) {
        Point moved = u.displacement(i);
        if (out.relative) moved -= motion.of(points()[i]);
        out.field.push_back(moved.cast<float>());
    }
    return out;
}

void Bench::strains(const System& system, const Solution& u, double warming, CaseResult& out) const {
    const auto& model = tool_.model;
    const auto& mesh = model.mesh;
    const Board* board = in_.back.kind == BackKind::foam_blocks ? find(in_.shop.boards, in_.back.foam.board)
                         : in_.back.kind == BackKind::egg_crate ? find(in_.shop.boards, in_.back.board)
                                                                : nullptr;
    // The strain at a point force or a tie is the mesh's own and grows as it gets finer: what is judged is
    // the mean over the patch of a hand about each face.
    Eigen::ArrayXd raw = Eigen::ArrayXd::Zero(static_cast<Eigen::Index>(mesh.triangles.size()));
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        const auto& l = model.skins[model.skin_of(f)].laminate;
        const auto e = system.strain(f, u);
        // What warming does freely strains nothing.
        const Eigen::Vector3d middle = e.middle - warming * l.cte, bend = e.curvature - warming * l.curvature;
        for (const double z : {-l.thickness / 2, l.thickness / 2}) {
            const Eigen::Vector3d s = middle + z * bend;
            const double mean = (s[0] + s[1]) / 2, radius = std::hypot((s[0] - s[1]) / 2, s[2] / 2);
            auto& most = raw[static_cast<Eigen::Index>(f)];
            most = std::max({most, std::abs(mean + radius), std::abs(mean - radius)});
        }
    }
    const auto greatest = [&](bool of_ribs) {
        std::vector<char> among(mesh.triangles.size());
        for (std::size_t f = 0; f < among.size(); ++f)
            among[f] = (tool_.parts[f] == ToolPart::rib) == of_ribs ? 1 : 0;
        return greatest_patch_means(mesh, raw, kHand, among)[0];
    };
    out.skin = std::max(out.skin, greatest(false) / in_.shell_found.resin.strain_limit);
    if (board != nullptr) out.foam = std::max(out.foam, greatest(true) * board->E / board->crush);
}

}  // namespace jig::back
