#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/stages/edge/findings.hpp"
#include "core/stages/edge/flange.hpp"

namespace jig::edge {
namespace {

constexpr double kSlotWidth = 0.03, kFeedWidth = 0.04;  ///< m, typical
/// One air port serves so much flat, m²; flats lean less than this, and lie within this share of the depth.
constexpr double kPerPort = 0.35, kFlat = 0.94, kDeep = 0.15;

/// Radius of the tightest hollow turn; 0 for a sharp one, none where every turn is outwards.
std::optional<double> tightest_hollow(const Loops& loops) {
    std::optional<double> least;
    for (const auto& loop : loops) {
        const auto n = loop.size();
        for (std::size_t i = 0; i < n; ++i) {
            const Point2 a = loop[(i + n - 1) % n], b = loop[i], c = loop[(i + 1) % n];
            const Point2 p = b - a, q = c - b;
            const double turn = std::atan2(p.x() * q.y() - p.y() * q.x(), p.dot(q));
            if (turn > -0.02) continue;
            // Where an arc meets a straight side the arc's own facet is the shorter.
            const double radius = -turn > kCorner ? 0 : std::min(p.norm(), q.norm()) / -turn;
            if (!least || radius < *least) least = radius;
        }
    }
    return least;
}

double apart(const Loops& rims) {
    double least = std::numeric_limits<double>::infinity();
    for (std::size_t i = 0; i < rims.size(); ++i) {
        for (std::size_t k = i + 1; k < rims.size(); ++k) {
            for (const auto& p : rims[i]) {
                for (const auto& q : rims[k]) least = std::min(least, (p - q).norm());
            }
        }
    }
    return std::isfinite(least) ? least : 0;
}

/// Air ports go into the flats that the part leaves last: near the deepest place and square to the pull. As
/// far from each other as those flats allow.
std::vector<Fit> air_ports(const TriangleMesh& mesh, const std::vector<Release>& faces, const Frame& frame,
                           double& flat) {
    double top = -std::numeric_limits<double>::infinity(), low = -top;
    for (const auto& p : mesh.points) {
        top = std::max(top, frame.w.dot(p));
        low = std::min(low, frame.w.dot(p));
    }
    std::vector<std::pair<Point2, double>> flats;
    flat = 0;
    Point2 middle = Point2::Zero();
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        if (faces.empty() || faces[f] == Release::open) continue;
        const Point n = mesh.area_vector2(f);
        if (n.dot(frame.w) < kFlat * n.norm()) continue;
        if (frame.w.dot(mesh.centre(f)) < top - kDeep * (top - low)) continue;
        flats.emplace_back(frame.flat(mesh.centre(f)), n.norm() / 2);
        flat += n.norm() / 2;
        middle += n.norm() / 2 * flats.back().first;
    }
    std::vector<Fit> out;
    if (flats.empty() || top - low < 0.05 || flat < 0.02) return out;
    middle /= flat;
    const auto wanted = static_cast<std::size_t>(std::ceil(flat / kPerPort));
    const auto nearest = [&](const Point2& p) {
        return std::min_element(flats.begin(), flats.end(),
                                [&](const auto& a, const auto& b) {
                                    return (a.first - p).squaredNorm() < (b.first - p).squaredNorm();
                                })
            ->first;
    };
    if (wanted == 1) {
        out.push_back({Fitting::port, 0, nearest(middle), Point2::UnitX(), -1});
    } else {
        std::vector<Point2> at{flats.front().first};
        for (const auto& [p, a] : flats) {
            if (p.x() < at.front().x()) at.front() = p;
        }
        while (at.size() < std::min<std::size_t>(wanted, 12)) {
            double far = -1;
            Point2 next = at.front();
            for (const auto& [p, a] : flats) {
                double d = std::numeric_limits<double>::infinity();
                for (const auto& q : at) d = std::min(d, (p - q).squaredNorm());
                if (d > far) {
                    far = d;
                    next = p;
                }
            }
            at.push_back(next);
        }
        // Drawn in from the flats' ends.
        for (const auto& p : at)
            out.push_back({Fitting::port, 0, nearest(middle + 0.6 * (p - middle)), Point2::UnitX(), -1});
    }
    return out;
}

/// Slots for wedges and cut-outs for feeds, taken from the outside inwards.
Loops notched(const Choices& c, const Findings& f) {
    Loops notches;
    for (const auto& fit : f.fits) {
        const bool feed = fit.kind == Fitting::feed;
        if (!feed && fit.kind != Fitting::wedge) continue;
        const double half = (feed ? kFeedWidth : kSlotWidth) / 2;
        const double deep = feed ? c.grip / 2 : std::min(c.wedge_length, c.grip) - c.grip / 2;
        const Point2 side(-fit.outward.y(), fit.outward.x());
        const Point2 in = fit.place - deep * fit.outward, out = fit.place + 0.5 * fit.outward;
        Loop box{in - half * side, out - half * side, out + half * side, in + half * side};
        if (signed_area(box) < 0) std::reverse(box.begin(), box.end());
        notches.push_back(std::move(box));
    }
    return notches.empty() ? f.outer : taken_off(f.outer, notches);
}

/// The rim that the flange goes round: of all parts together, or of each piece.
std::vector<Loops> rims_of(const split::Findings& split) {
    if (split.one_piece()) return {split.joined};
    std::vector<Loops> out;
    for (const auto& piece : split.set.pieces) out.push_back(rim_of(piece));
    return out;
}

/// Outside of the flange round a rim.
Loops outside_of(const Loops& rim, const Choices& c) {
    return stretched(offset(rim, c.width(), c.corner == FlangeCorner::round), c.sides);
}

}  // namespace

Loops rim_of(const Piece& piece) {
    const auto frame = frame_of(piece);
    Loops flat;
    for (const auto& rim : rim_loops(piece.mesh, topology_of(piece.mesh))) {
        auto& loop = flat.emplace_back();
        for (const auto i : rim) loop.push_back(frame.flat(piece.mesh.points[i]));
        if (signed_area(loop) < 0) std::reverse(loop.begin(), loop.end());
    }
    return united(flat);
}

std::size_t chosen_piece(int number, const split::Findings& split) {
    return std::min(static_cast<std::size_t>(number), split.set.pieces.size()) - 1;
}

Findings evaluate(const Choices& c, const shape::Findings& shape, const split::Findings& split,
                  const brief::Making& brief, double plate, const Library& shop) {
    Findings out;
    static_cast<void>(need(shop.fasteners, c.bolt, "edge bolt"));
    static_cast<void>(need(shop.fasteners, c.dowel, "edge dowel"));
    out.width = c.width();
    // The bag and its tape go round all parts; each part has a rim of its own to trim along. Pieces are laid
    // open, each with its own rim, seams and mouths together; what is drawn is that of the chosen one.
    const bool round = c.corner == FlangeCorner::round;
    const auto rims = rims_of(split);
    const auto chosen = split.one_piece() ? 0 : chosen_piece(c.piece, split);
    out.rims = split.one_piece() ? split.rims : rims[chosen];
    const Loops& rim = rims[chosen];
    // A face that winds over itself has a rim that no flange goes round.
    bool crossed = false;
    for (std::size_t i = 0; i < rims.size(); ++i) {
        const Loops &own = split.one_piece() ? split.rims : rims[i], outer = outside_of(rims[i], c);
        const double beyond = net_area(outer) - net_area(own);
        crossed = crossed || beyond <= 0;
        out.area += std::max(0.0, beyond);
        for (const auto& loop : own) out.rim_length += perimeter(loop);
        const auto land = c.trim + c.channel;
        out.tape_land_area +=
            net_area(offset(rims[i], land + c.tape_land, round)) - net_area(offset(rims[i], land, round));
        for (const auto& loop : offset(rims[i], land + c.tape_land / 2, round))
            out.tape_land_length += perimeter(loop);
    }
    // Along a seam two pieces meet, and the part is trimmed once.
    out.rim_length = std::max(0.0, out.rim_length - split.set.seam_length);
    out.outer = outside_of(rim, c);
    out.tape_inner = offset(rim, c.trim + c.channel, round);
    for (const auto& loop : offset(rim, c.width() - c.grip / 2, round)) {
        if (std::abs(signed_area(loop)) > std::abs(signed_area(out.fitting_line))) out.fitting_line = loop;
    }
    const auto* piece = split.one_piece() ? nullptr : &split.set.pieces[chosen];
    const double depth = piece != nullptr ? piece->map.depth : shape.measures.size.dot(split.pull.cwiseAbs());
    const bool squeezing = brief.process == Process::squeeze;
    const bool bolted = squeezing || piece != nullptr;
    for (const auto& p : c.by_rule ? by_rule(c, out, brief, bolted, depth) : c.placed)
        out.fits.push_back(fit_at(out.fitting_line, p.kind, p.at));
    for (std::size_t i = 0; i < out.fits.size(); ++i) out.fits[i].number = static_cast<int>(i);
    const auto ports = piece != nullptr
                           ? air_ports(piece->mesh, piece->map.faces, frame_of(*piece), out.deep_flat)
                           : air_ports(shape.mesh, split.map.faces, split.frame, out.deep_flat);
    out.fits.insert(out.fits.end(), ports.begin(), ports.end());
    out.outline = notched(c, out);
    try {
        if (crossed)
            throw InputError(
                "edge", "its rim crosses itself seen along the pull",
                "choose a pull that sees it once, or split the shape where it winds over itself");
        out.tool = std::make_shared<const ToolFace>(tool_face(shape, split, c, out.outer));
    } catch (const InputError& e) {
        out.no_tool = e.problem() + "; " + e.mend();
    }
    out.hollow = tightest_hollow(rim);
    out.clear_between = split.parts() > 1 ? apart(split.rims) : 0;
    // Of a mould in two pieces the bolts round one are all there are; of more, those along the other seams
    // come to them.
    const double other = std::max(0.0, split.set.seam_length - perimeter(out.fitting_line));
    const int elsewhere =
        piece != nullptr && rims.size() > 2 ? static_cast<int>(std::ceil(other / c.bolt_pitch)) : 0;
    out.bolts = out.count(Fitting::bolt) + elsewhere;
    const double squeezed = squeezing && out.rim_length > 0
                                ? c.squeeze * split.map.projected * split.parts() / out.rim_length
                                : 0;
    if (out.bolts > 0 && plate > 0) out.joint = joint_of(c, plate, c.tape_land + c.grip, squeezed);
    add_figures(c, split, depth, elsewhere, out);
    return out;
}

}  // namespace jig::edge
