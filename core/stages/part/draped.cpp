#include "core/stages/part/draped.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/base/error.hpp"
#include "core/base/units.hpp"
#include "core/science/drape/score.hpp"
#include "core/science/mesh/refine.hpp"
#include "core/stages/part/cut_line.hpp"

namespace jig::part {
namespace {

/// Cells along the root of the face's area: fine enough to see where it locks, quick enough behind an edit.
constexpr double kCells = 42;

/// Angles that lie alike: a woven cloth is the same turned by a quarter, tape by a half.
double folded(double angle, Weave weave) {
    const double period = weave == Weave::cloth ? kPi / 2 : kPi;
    double out = std::fmod(angle, period);
    if (out < 0) out += period;
    return period - out < 1e-6 ? 0 : out;
}

/// An angle within a turn of so many hundredths of a degree, rounded to one of them, rad.
double within_turn(double angle, double turn) {
    double out = std::fmod(std::round(degrees(angle) * 100), turn);
    if (out < 0) out += turn;
    return radians(out / 100);
}

/// Whether a ply at an angle has a cut.
bool has(const Cut& cut, double angle, bool on_tool) {
    if (cut.line.size() < 2) return false;
    switch (cut.in) {
        case CutIn::every:
            return true;
        case CutIn::behind:
            return !on_tool;
        case CutIn::angle:
            return alike(cut.angle) == alike(angle);
        case CutIn::roll:
            return roll_way(cut.angle) == roll_way(angle);
    }
    return true;
}

/// A face in triangles that cloth is laid on, and what is known of it before.
std::pair<TriangleMesh, Draped> evened(TriangleMesh face, int piece, Progress& progress) {
    Draped out;
    out.piece = piece;
    for (std::size_t f = 0; f < face.triangles.size(); ++f) out.area += face.area_vector2(f).norm() / 2;
    if (face.empty() || !(out.area > 0)) return {std::move(face), std::move(out)};
    out.cell = std::sqrt(out.area) / kCells;
    return {refined(face, 2 * out.cell, progress).mesh, std::move(out)};
}

/// A cut's line as it is drawn, moved aside.
SeenLine line_of(const Cut& cut, int aside, const Point2& middle) {
    SeenLine out;
    for (const auto& s : cut.line) out.push_back(middle + Point2(s.along, s.across));
    const Point2 way = out.size() < 2 ? Point2(0, 0) : Point2(out.back() - out.front());
    if (aside != 0 && way.norm() > 0) {
        const Point2 left = Point2(-way.y(), way.x()).normalized();
        for (auto& p : out) p += aside * cut.step * left;
    }
    return out;
}

/// Cuts them into the face.
void lay_cuts(const ClothAsked& asked, const Frame& frame, const Point2& middle, TriangleMesh& face,
              Draped& out) {
    for (const auto& ply : asked.plies) {
        out.cut_plies[ply.of] = ply.cuts;
        for (const auto& as : ply.cuts) {
            if (!lies_on(asked.cuts[as.cut].piece, out.piece)) continue;
            if (std::none_of(out.cuts.begin(), out.cuts.end(), [&](const LaidCut& c) { return c.as == as; }))
                out.cuts.push_back({as, line_of(asked.cuts[as.cut], as.aside, middle), {}, {}, 0});
        }
    }
    if (out.cuts.empty()) return;
    std::vector<SeenLine> lines;
    for (const auto& c : out.cuts) lines.push_back(c.seen);
    auto cut = scored_for_net(face, frame, lines, out.cell);
    face = std::move(cut.mesh);
    std::map<PointPair, Point> normals;
    for (std::size_t k = 0; k < out.cuts.size(); ++k) {
        out.cuts[k].edges = std::move(cut.edges[k]);
        for (const auto& edge : out.cuts[k].edges) normals[edge] = Point::Zero();
    }
    for (std::size_t f = 0; f < face.triangles.size(); ++f) {
        const auto& t = face.triangles[f];
        for (std::size_t k = 0; k < 3; ++k) {
            const auto at = normals.find(edge_of(t[k], t[(k + 1) % 3]));
            if (at != normals.end()) at->second += face.area_vector2(f).normalized();
        }
    }
    for (auto& c : out.cuts) {
        for (const auto& edge : c.edges) {
            const Point &a = face.points[edge.first], &b = face.points[edge.second];
            c.line.push_back({a, b, normals[edge].normalized()});
            c.length += (b - a).norm();
        }
    }
}

}  // namespace

double alike(double angle) {
    return within_turn(angle, 9000);
}

double roll_way(double angle) {
    return within_turn(angle, 18000);
}

ClothAsked cloth_asked(const Choices& c) {
    if (c.cuts.size() > kMostCuts)
        throw InputError("part", fmt::format("it has {} cuts, more than {}", c.cuts.size(), kMostCuts),
                         "take some away, or part the tool");
    ClothAsked out{{}, c.drape, c.cuts};
    std::vector<int> had(c.cuts.size(), 0);
    bool on_tool = true;  // the common stack's first ply
    const auto add = [&](int zone, const std::vector<Layer>& layers) {
        for (std::size_t i = 0; i < layers.size(); ++i) {
            if (layers[i].kind != LayerKind::ply) continue;
            auto& ply =
                out.plies.emplace_back(ClothAsked::Ply{{zone, i}, layers[i].material, layers[i].angle, {}});
            for (std::size_t k = 0; k < c.cuts.size(); ++k) {
                if (!has(c.cuts[k], layers[i].angle, on_tool)) continue;
                // Where it is drawn, to one side, to the other, and again.
                const int aside = std::array{0, 1, -1}[static_cast<std::size_t>(had[k]++ % 3)];
                ply.cuts.push_back({k, c.cuts[k].step > 0 ? aside : 0});
            }
            on_tool = false;
        }
    };
    add(-1, c.layers);
    for (std::size_t z = 0; z < c.zones.size(); ++z) add(static_cast<int>(z), c.zones[z].layers);
    return out;
}

ClothCuts Draped::together(const std::vector<CutAs>& some, const Frame& frame) const {
    ClothCuts out{frame, {}, {}};
    for (const auto& as : some) {
        for (const auto& laid : cuts) {
            if (!(laid.as == as) || laid.edges.empty()) continue;
            out.lines.push_back(laid.seen);
            out.edges.insert(out.edges.end(), laid.edges.begin(), laid.edges.end());
        }
    }
    return out;
}

const ClothNet* Draped::worst() const {
    const ClothNet* out = nullptr;
    for (const auto& net : nets) {
        if (out == nullptr ||
            std::pair(net.drape.locked, net.drape.most) > std::pair(out->drape.locked, out->drape.most))
            out = &net;
    }
    return out;
}

double locks_at(const Reinforcement& cloth) {
    if (cloth.lock > 0) return cloth.lock;
    if (cloth.weave == Weave::unidirectional) return radians(5);
    if (cloth.style == "plain" || cloth.style == "roving") return radians(42);
    if (cloth.style == "satin") return radians(58);
    return radians(50);
}

Draped bare_face(const ClothAsked& asked, const Piece& piece, int number, Progress& progress) {
    auto [face, laid] = evened(edge::moulded_face(piece), number, progress);
    Draped out = laid;
    if (face.empty() || !(out.area > 0)) return out;
    const auto frame = edge::frame_of(piece);
    lay_cuts(asked, frame, seen_middle(face, frame), face, laid);
    out.face = std::make_shared<const TriangleMesh>(std::move(face));
    return out;
}

Draped draped(const ClothAsked& asked, const edge::ToolFace& tool, const Lists<Reinforcement>& shop,
              Progress& progress) {
    auto [face, out] = evened(edge::moulded_face(tool), tool.piece, progress);
    if (face.empty() || !(out.area > 0)) return out;
    const Frame& frame = tool.frame;
    const Point2 middle = seen_middle(face, frame);
    lay_cuts(asked, frame, middle, face, out);
    const auto topology = topology_of(face);
    const Point2 wanted = middle + Point2(asked.start.along, asked.start.across);
    // The point of the face that lies under it, seen along the pull.
    std::uint32_t seed = face.triangles.front()[0];
    for (const auto& t : face.triangles) {
        for (const auto i : t) {
            if ((frame.flat(face.points[i]) - wanted).squaredNorm() <
                (frame.flat(face.points[seed]) - wanted).squaredNorm())
                seed = i;
        }
    }
    out.seed = face.points[seed];
    Point normal = Point::Zero();
    for (std::size_t f = 0; f < face.triangles.size(); ++f) {
        const auto& t = face.triangles[f];
        if (std::find(t.begin(), t.end(), seed) != t.end()) normal += face.area_vector2(f);
    }
    normal.normalize();
    for (auto ply : asked.plies) {
        std::erase_if(ply.cuts,
                      [&](const CutAs& as) { return !lies_on(asked.cuts[as.cut].piece, tool.piece); });
        // What the library has not the part itself says.
        const auto* known = find(shop.reinforcements, ply.material);
        if (known == nullptr || known->weave == Weave::mat) continue;
        const auto& cloth = *known;
        const double angle = folded(ply.angle + cloth.lies_at, cloth.weave), lock = locks_at(cloth);
        auto net = std::find_if(out.nets.begin(), out.nets.end(), [&](const ClothNet& n) {
            return std::abs(n.angle - angle) < 1e-6 && n.cuts == ply.cuts;
        });
        if (net == out.nets.end()) {
            out.nets.push_back({angle, {}, ply.material, lock, ply.cuts, {}});
            net = out.nets.end() - 1;
        }
        net->plies.push_back(ply.of);
        if (lock < net->lock) {
            net->lock = lock;
            net->tightest = ply.material;
        }
    }
    for (auto& net : out.nets) {
        const double turn = asked.start.turn + net.angle;
        Point warp = std::cos(turn) * frame.u + std::sin(turn) * frame.v;
        // On a wall that the direction points straight off, the cloth runs up the wall.
        if (warp.cross(normal).norm() < 0.2) warp = frame.w;
        const DrapeRules rules{out.seed, warp, out.cell, net.lock};
        const auto cuts = out.together(net.cuts, frame);
        net.drape =
            cuts.edges.empty() ? drape(face, topology, rules, progress) : drape(face, cuts, rules, progress);
    }
    out.face = std::make_shared<const TriangleMesh>(std::move(face));
    return out;
}

}  // namespace jig::part
