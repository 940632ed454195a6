#include "core/stages/part/draped.hpp"

#include <algorithm>
#include <cmath>

#include "core/base/units.hpp"
#include "core/science/mesh/refine.hpp"

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

}  // namespace

ClothAsked cloth_asked(const Choices& c) {
    ClothAsked out{{}, c.drape};
    const auto add = [&](int zone, const std::vector<Layer>& layers) {
        for (std::size_t i = 0; i < layers.size(); ++i) {
            if (layers[i].kind == LayerKind::ply)
                out.plies.push_back({{zone, i}, layers[i].material, layers[i].angle});
        }
    };
    add(-1, c.layers);
    for (std::size_t z = 0; z < c.zones.size(); ++z) add(static_cast<int>(z), c.zones[z].layers);
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

Draped draped(const ClothAsked& asked, const edge::ToolFace& tool, const Lists<Reinforcement>& shop,
              Progress& progress) {
    Draped out;
    auto face = edge::moulded_face(tool);
    for (std::size_t f = 0; f < face.triangles.size(); ++f) out.area += face.area_vector2(f).norm() / 2;
    if (face.empty() || !(out.area > 0)) return out;
    out.cell = std::sqrt(out.area) / kCells;
    face = refined(face, 2 * out.cell, progress).mesh;
    const auto topology = topology_of(face);
    const Frame& frame = tool.frame;
    Point2 low = Point2::Constant(1e300), high = -low;
    for (const auto& t : face.triangles) {
        for (const auto i : t) {
            low = low.cwiseMin(frame.flat(face.points[i]));
            high = high.cwiseMax(frame.flat(face.points[i]));
        }
    }
    const Point2 wanted = (low + high) / 2 + Point2(asked.start.along, asked.start.across);
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
    for (const auto& ply : asked.plies) {
        // What the library has not the part itself says.
        const auto* known = find(shop.reinforcements, ply.material);
        if (known == nullptr || known->weave == Weave::mat) continue;
        const auto& cloth = *known;
        const double angle = folded(ply.angle + cloth.lies_at, cloth.weave), lock = locks_at(cloth);
        auto net = std::find_if(out.nets.begin(), out.nets.end(),
                                [&](const ClothNet& n) { return std::abs(n.angle - angle) < 1e-6; });
        if (net == out.nets.end()) {
            out.nets.push_back({angle, {}, ply.material, lock, {}});
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
        net.drape = drape(face, topology, rules, progress);
    }
    out.face = std::make_shared<const TriangleMesh>(std::move(face));
    return out;
}

}  // namespace jig::part
