#include "core/stages/back/trial.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <Eigen/Cholesky>
#include <limits>

#include "core/science/shell/system.hpp"

namespace jig::back {
namespace {

using shell_fe::Loads;
using shell_fe::NodeForce;
using shell_fe::Solution;
using shell_fe::Support;
using shell_fe::System;

/// So many places round the rim are leant on, and so many wedge slots are tried.
constexpr std::size_t kLeanings = 24, kLevers = 12;

/// Holds points along the pull, and just enough of them sideways.
std::vector<Support> stand_on(const std::vector<Point>& points, const std::vector<std::uint32_t>& on) {
    if (on.size() < 3)
        throw InputError("back", "the tool stands on fewer than three places", "give it more feet");
    const auto first = on.front();
    const auto far = *std::max_element(on.begin(), on.end(), [&](std::uint32_t a, std::uint32_t b) {
        return (points[a] - points[first]).head<2>().norm() < (points[b] - points[first]).head<2>().norm();
    });
    double off_line = 0;
    for (const auto i : on) {
        const Point2 a = (points[far] - points[first]).head<2>(), b = (points[i] - points[first]).head<2>();
        off_line = std::max(off_line, std::abs(a.x() * b.y() - a.y() * b.x()) / std::max(1e-9, a.norm()));
    }
    if (off_line < 0.01)
        throw InputError("back", "the tool stands in one line and would fall over",
                         "set the ribs closer, so that more of them cross, or give it more feet across");
    // Sideways the far foot is held across the line between the two, along the axis that is nearer to it.
    const Point way = points[far] - points[first];
    const bool along_x = std::abs(way.x()) >= std::abs(way.y());
    std::vector<Support> out{{{}, {false, false, true, false, false, false}, on},
                             {{}, {true, true, true, false, false, false}, {first}},
                             {{}, {!along_x, along_x, true, false, false, false}, {far}}};
    return out;
}

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

/// The tool with what its load cases share.
class Bench {
  public:
    Bench(const ToolInputs& in, const EvenFace& face, Progress& progress)
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

    [[nodiscard]] const Tool& tool() const { return tool_; }
    [[nodiscard]] const std::vector<std::uint32_t>& leant() const { return leant_; }
    [[nodiscard]] std::vector<Support> feet() const { return stand_on(points(), tool_.feet); }
    [[nodiscard]] std::vector<Support> rim_corners() const {
        return stand_on(points(), corners_of(points(), tool_.rim));
    }
    [[nodiscard]] const std::vector<Point>& points() const { return tool_.model.mesh.points; }

    /// In use the back is below: its weight pulls along the pull.
    [[nodiscard]] static Loads weight(double sign) {
        Loads l;
        l.gravity = sign * kGravity * Point::UnitZ();
        return l;
    }
    [[nodiscard]] Loads leaning(std::uint32_t at) const {
        Loads l;
        l.nodes = {{at, in_.back.lean * Point::UnitZ()}};
        return l;
    }
    /// A pressure on the moulded face from inside the cavity, on the flange too where wanted.
    [[nodiscard]] std::vector<float> from_within(double pressure, bool flange) const {
        std::vector<float> out(tool_.parts.size(), 0.0f);
        for (std::size_t f = 0; f < out.size(); ++f) {
            if (tool_.parts[f] == ToolPart::face || (flange && tool_.parts[f] == ToolPart::flange))
                out[f] = static_cast<float>(-pressure);
        }
        return out;
    }
    [[nodiscard]] Loads squeeze(const std::vector<std::uint32_t>& bolts) const {
        Loads l;
        l.pressures = from_within(in_.edge.squeeze, false);
        for (const auto b : bolts)
            l.nodes.push_back(
                {b, -in_.edge.squeeze * face_up_.z() / static_cast<double>(bolts.size()) * Point::UnitZ()});
        return l;
    }
    /// A wedge lifts the rim while the face still sticks to the plug evenly.
    [[nodiscard]] Loads levering(std::uint32_t at) const {
        Loads l;
        l.nodes = {{at, in_.back.lever * Point::UnitZ()}};
        l.pressures = from_within(-in_.back.lever / std::max(1e-9, face_up_.z()), false);
        return l;
    }
    /// A bag round everything. Over a grid it is stretched across the ribs' edges and lies in the cavity; a
    /// tool without one it presses from behind while it bridges the mouth.
    [[nodiscard]] Loads envelope() const {
        Loads l;
        const double p = in_.back.vacuum;
        const auto& rim = tool_.rim;
        const auto spread = [&](const std::vector<std::uint32_t>& on, const Point& force) {
            for (const auto i : on) l.nodes.push_back({i, force / static_cast<double>(on.size())});
        };
        if (!in_.back.has_grid()) {
            l.pressures = from_within(-p, true);
            spread(rim, p * shell_up_.z() * Point::UnitZ());
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
            l.nodes.push_back({rim[i], half});
            l.nodes.push_back({nearest_rim(points(), tool_.base, a.head<2>()), half});
        }
        return l;
    }
    [[nodiscard]] Loads heat(double warming) const {
        Loads l;
        l.warming = warming;
        return l;
    }

    /// Where a place is, in words.
    [[nodiscard]] std::string said_where(const Point& p, bool flange) const {
        const Point low = in_.face.low, high = in_.face.high;
        const auto third = [](double v, double a, double b) { return (v - a) / std::max(1e-9, b - a); };
        const double x = third(p.x(), low.x(), high.x()), y = third(p.y(), low.y(), high.y());
        const double z = third(p.z(), low.z(), high.z());
        std::string out = flange     ? "flange"
                          : z > 0.85 ? "deepest part"
                          : z < 0.15 ? "face at the rim"
                                     : "wall";
        const char* length = x > 0.67 ? "ahead" : x < 0.33 ? "behind" : "";
        const char* width = y > 0.67 ? "left" : y < 0.33 ? "right" : "";
        if (*length == 0 && *width == 0) return out + ", middle";
        out += ",";
        if (*length != 0) out += std::string(" ") + length;
        if (*width != 0) out += std::string(" ") + width;
        return out;
    }

    /// Takes a solution apart into what a maker asks of it. `pushed` is the point that is pushed, where there
    /// is one.
    [[nodiscard]] CaseResult result(LoadCase kind, const System& system, const Solution& u, double warming,
                                    std::optional<std::uint32_t> pushed = {}) const {
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
            const double off =
                std::abs((moves[k] - motion.of(places[k])).dot(normal_[face_[k]].normalized()));
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

  private:
    void strains(const System& system, const Solution& u, double warming, CaseResult& out) const {
        const auto& model = tool_.model;
        const Board* foam =
            in_.back.kind == BackKind::foam_blocks ? find(in_.shop.boards, in_.back.foam.board) : nullptr;
        for (std::size_t f = 0; f < model.mesh.triangles.size(); ++f) {
            const auto& l = model.skins[model.skin_of(f)].laminate;
            const auto e = system.strain(f, u);
            // What warming does freely strains nothing.
            const Eigen::Vector3d middle = e.middle - warming * l.cte,
                                  bend = e.curvature - warming * l.curvature;
            double most = 0;
            for (const double z : {-l.thickness / 2, l.thickness / 2}) {
                const Eigen::Vector3d s = middle + z * bend;
                const double mean = (s[0] + s[1]) / 2, radius = std::hypot((s[0] - s[1]) / 2, s[2] / 2);
                most = std::max({most, std::abs(mean + radius), std::abs(mean - radius)});
            }
            if (foam != nullptr && tool_.parts[f] == ToolPart::rib)
                out.foam = std::max(out.foam, most * foam->E / foam->crush);
            else
                out.skin = std::max(out.skin, most / kSkinStrain);
        }
    }

    const ToolInputs& in_;
    Tool tool_;
    std::vector<double> weight_;
    std::vector<Point> normal_;
    std::vector<std::uint32_t> face_, leant_;
    Point face_up_ = Point::Zero(), shell_up_ = Point::Zero();
};

std::vector<std::uint32_t> fitted(const Bench& bench, const edge::Findings* edge, Fitting kind,
                                  const std::vector<Point2>& else_at, std::size_t most) {
    std::vector<std::uint32_t> out;
    const auto put = [&](const Point2& at) {
        const auto i = nearest_rim(bench.points(), bench.tool().rim, at);
        if (out.size() < most && std::find(out.begin(), out.end(), i) == out.end()) out.push_back(i);
    };
    if (edge != nullptr) {
        for (const auto& fit : edge->fits) {
            if (fit.kind == kind) put(fit.place);
        }
    }
    if (out.empty()) {
        for (const auto& at : else_at) put(at);
    }
    return out;
}

}  // namespace

Motion motion_of(const std::vector<Point>& places, const std::vector<Point>& moves,
                 const std::vector<double>& weights, bool growth) {
    // Least squares over shift, turn and growth about the middle.
    Motion out;
    double whole = 0;
    for (std::size_t i = 0; i < places.size(); ++i) {
        out.middle += weights[i] * places[i];
        whole += weights[i];
    }
    out.middle /= whole;
    using Row = Eigen::Matrix<double, 3, 7>;
    Eigen::Matrix<double, 7, 7> N = Eigen::Matrix<double, 7, 7>::Zero();
    Eigen::Matrix<double, 7, 1> b = Eigen::Matrix<double, 7, 1>::Zero();
    for (std::size_t i = 0; i < places.size(); ++i) {
        const Point r = places[i] - out.middle;
        Row A = Row::Zero();
        A.leftCols<3>().setIdentity();
        A.block<3, 3>(0, 3) << 0, r.z(), -r.y(), -r.z(), 0, r.x(), r.y(), -r.x(), 0;
        if (growth) A.col(6) = r;
        N += weights[i] * A.transpose() * A;
        b += weights[i] * A.transpose() * moves[i];
    }
    if (!growth) N(6, 6) = 1;
    N.diagonal().array() += 1e-12 * N.trace();
    const Eigen::Matrix<double, 7, 1> x = N.ldlt().solve(b);
    out.shift = x.head<3>();
    out.turn = x.segment<3>(3);
    out.growth = growth ? x[6] : 0;
    return out;
}

double edge_for(const ToolInputs& in, std::size_t triangles) {
    double area = 0;
    for (std::size_t f = 0; f < in.face.rimmed.mesh.triangles.size(); ++f)
        area += in.face.rimmed.mesh.area_vector2(f).norm() / 2;
    const double even = std::sqrt(area / (0.433 * static_cast<double>(triangles)));
    return in.back.has_grid() ? std::min(even, 0.5 * in.back.pitch) : even;
}

Trial try_out(const ToolInputs& in, const EvenFace& face, const brief::Choices& brief, const Trial* coarse,
              Progress& progress) {
    const auto start = std::chrono::steady_clock::now();
    progress.report(0.05, "meshing the tool");
    const Bench bench(in, face, progress);
    const auto& c = in.back;
    Trial out;
    out.fine = coarse != nullptr;
    out.edge = face.edge;
    out.mesh = bench.tool().model.mesh;
    out.parts = bench.tool().parts;
    for (const auto& bar : bench.tool().model.bars) out.bars.emplace_back(bar.a, bar.b);
    out.feet = bench.tool().feet;
    out.notes = bench.tool().notes;
    std::sort(out.notes.begin(), out.notes.end());
    out.notes.erase(std::unique(out.notes.begin(), out.notes.end()), out.notes.end());

    progress.report(0.15, "setting the tool on its feet");
    const System on_feet(bench.tool().model, bench.feet(), progress);
    out.mass = on_feet.mass();
    out.freedoms = on_feet.freedoms();
    std::vector<Loads> loads;
    std::vector<LoadCase> kinds;
    std::vector<std::optional<std::uint32_t>> pushed;
    const auto add = [&](LoadCase kind, Loads l, std::optional<std::uint32_t> at = {}) {
        kinds.push_back(kind);
        loads.push_back(std::move(l));
        pushed.push_back(at);
    };
    add(LoadCase::standing, Bench::weight(1));
    for (const auto i : bench.leant()) add(LoadCase::leaning, bench.leaning(i), i);
    std::vector<Point2> corners;
    for (const auto i : corners_of(bench.points(), bench.tool().rim))
        corners.emplace_back(bench.points()[i].head<2>());
    for (const auto i : fitted(bench, in.edge_found, Fitting::wedge, corners, kLevers))
        add(LoadCase::levering, bench.levering(i), i);
    if (brief.process == Process::squeeze) {
        std::vector<Point2> all;
        for (const auto i : bench.tool().rim) all.emplace_back(bench.points()[i].head<2>());
        add(LoadCase::squeeze, bench.squeeze(fitted(bench, in.edge_found, Fitting::bolt, all, 1000)));
    }
    const double warming = brief.top_temperature - kelvin(20);
    if (c.bag == BagKind::envelope) add(LoadCase::envelope_bag, bench.envelope());
    if (warming > 1) add(LoadCase::heat, bench.heat(warming));
    progress.report(0.45, "solving the load cases");
    const auto solutions = on_feet.solve(loads);
    const auto how = [&](LoadCase kind) -> std::string {
        switch (kind) {
            case LoadCase::standing:
                return quantity(Kind::mass, out.mass) + fmt::format(" on {} feet", out.feet.size());
            case LoadCase::turned:
                return quantity(Kind::mass, out.mass) + " on the rim's corners";
            case LoadCase::leaning:
                return fmt::format("{:.0f} N at the worst of {} places", c.lean, bench.leant().size());
            case LoadCase::squeeze:
                return quantity(Kind::pressure, in.edge.squeeze) + " on the face, held by the bolts";
            case LoadCase::levering:
                return fmt::format("{:.0f} N at the worst wedge slot, the face still sticking evenly",
                                   c.lever);
            case LoadCase::surface_bag:
            case LoadCase::envelope_bag:
                return quantity(Kind::pressure, c.vacuum) + " below the room";
            case LoadCase::heat:
                return fmt::format("{:.0f} K above the room, even growth taken off", warming);
        }
        return {};
    };
    // Of several places for one load, the one that gives way most.
    for (std::size_t i = 0; i < kinds.size();) {
        std::size_t worst = i, k = i;
        const auto gives = [&](std::size_t n) {
            return pushed[n] ? std::abs(solutions[n].displacement(*pushed[n]).z()) : solutions[n].largest;
        };
        for (; k < kinds.size() && kinds[k] == kinds[i]; ++k) {
            if (gives(k) > gives(worst)) worst = k;
        }
        auto r = bench.result(kinds[i], on_feet, solutions[worst], kinds[i] == LoadCase::heat ? warming : 0,
                              pushed[worst]);
        r.how = how(r.kind);
        if (r.kind == LoadCase::envelope_bag) {
            progress.report(0.7, "looking for buckling");
            r.buckles = on_feet.buckling(solutions[worst], 0, progress).factor;
        }
        out.cases.push_back(std::move(r));
        i = k;
    }
    progress.report(0.85, "turning the tool over");
    {
        const System on_rim(bench.tool().model, bench.rim_corners(), progress);
        const auto u = on_rim.solve(Bench::weight(-1));
        auto r = bench.result(LoadCase::turned, on_rim, u, 0);
        r.how = how(r.kind);
        out.cases.insert(out.cases.begin() + 1, std::move(r));
    }
    if (c.bag == BagKind::surface) {
        // It presses on the face as hard as the air on the back: nothing bends.
        CaseResult r;
        r.kind = LoadCase::surface_bag;
        r.how = how(r.kind) + ": pressed through the thickness, air pushes as hard on the back";
        r.where = "nowhere";
        for (const auto& layer : in.shell.layers) {
            const auto* core = layer.kind == LayerKind::core ? find(in.shop.cores, layer.material) : nullptr;
            if (core != nullptr) r.skin = std::max(r.skin, c.vacuum / core->crush);
        }
        out.cases.push_back(std::move(r));
    }
    std::stable_sort(out.cases.begin(), out.cases.end(),
                     [](const CaseResult& a, const CaseResult& b) { return a.kind < b.kind; });
    for (auto& r : out.cases) {
        const auto* before = coarse != nullptr ? coarse->find(r.kind) : nullptr;
        if (before != nullptr) r.differs = std::abs(r.moves - before->moves);
    }
    out.seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
    progress.report(1, "tried");
    return out;
}

QuickSag quick_sag(const ToolInputs& in, const EvenFace& face, Progress& progress) {
    const Bench bench(in, face, progress);
    const System system(bench.tool().model, bench.feet(), progress);
    std::vector<Loads> loads{Bench::weight(1)};
    for (const auto i : bench.leant()) loads.push_back(bench.leaning(i));
    const auto solutions = system.solve(loads);
    QuickSag out;
    out.standing = solutions.front().largest;
    for (std::size_t i = 1; i < solutions.size(); ++i)
        out.leaning = std::max(out.leaning, std::abs(solutions[i].displacement(bench.leant()[i - 1]).z()));
    return out;
}

}  // namespace jig::back
