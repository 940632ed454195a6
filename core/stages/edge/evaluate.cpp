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

/// The tightest hollow turn of an outline: half the circle that fits into it from outside.
double tightest_hollow(const Loops& loops) {
    double least = 0;
    for (const auto& loop : loops) {
        const auto n = loop.size();
        for (std::size_t i = 0; i < n; ++i) {
            const Point2 a = loop[(i + n - 1) % n], b = loop[i], c = loop[(i + 1) % n];
            const Point2 p = b - a, q = c - b;
            const double turn = std::atan2(p.x() * q.y() - p.y() * q.x(), p.dot(q));
            if (turn > -0.02) continue;
            const double radius = 0.5 * (p.norm() + q.norm()) / -turn;
            if (least == 0 || radius < least) least = radius;
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
std::vector<Fit> air_ports(const shape::Findings& shape, const split::Findings& split, double& flat) {
    const auto& mesh = shape.mesh;
    double top = -std::numeric_limits<double>::infinity(), low = -top;
    for (const auto& p : mesh.points) {
        top = std::max(top, split.pull.dot(p));
        low = std::min(low, split.pull.dot(p));
    }
    std::vector<std::pair<Point2, double>> flats;
    flat = 0;
    Point2 middle = Point2::Zero();
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        if (split.map.faces.empty() || split.map.faces[f] == Release::open) continue;
        const Point n = mesh.area_vector2(f);
        if (n.dot(split.pull) < kFlat * n.norm()) continue;
        if (split.pull.dot(mesh.centre(f)) < top - kDeep * (top - low)) continue;
        flats.emplace_back(split.frame.flat(mesh.centre(f)), n.norm() / 2);
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

}  // namespace

Findings evaluate(const Choices& c, const shape::Findings& shape, const split::Findings& split,
                  const brief::Choices& brief, double plate, const Shop& shop) {
    Findings out;
    static_cast<void>(need(shop.fasteners, c.bolt, "edge bolt"));
    static_cast<void>(need(shop.fasteners, c.dowel, "edge dowel"));
    out.width = c.width();
    // The bag and its tape go round all parts; each part has a rim of its own to trim along.
    const Loops& rim = split.joined;
    const bool round = c.corner == FlangeCorner::round;
    for (const auto& loop : split.rims) out.rim_length += perimeter(loop);
    out.outer = stretched(offset(rim, out.width, round), c.sides);
    // Pieces meet in a flange on each side of every seam.
    out.seam_area = 2 * split.set.seam_length * out.width;
    out.area = net_area(out.outer) - net_area(split.rims) + out.seam_area;
    out.tape_inner = offset(rim, c.trim + c.channel, round);
    const auto tape_outer = offset(rim, c.trim + c.channel + c.tape_land, round);
    out.tape_land_area = net_area(tape_outer) - net_area(out.tape_inner);
    double middle = 0;
    for (const auto& loop : offset(rim, c.trim + c.channel + c.tape_land / 2, round))
        middle += perimeter(loop);
    out.tape_length = 1.15 * middle;
    for (const auto& loop : offset(rim, c.width() - c.grip / 2, round)) {
        if (std::abs(signed_area(loop)) > std::abs(signed_area(out.fitting_line))) out.fitting_line = loop;
    }
    const double depth = shape.measures.size.dot(split.pull.cwiseAbs());
    const bool bolted = brief.process == Process::squeeze;
    for (const auto& p : c.by_rule ? by_rule(c, out, brief, depth) : c.placed)
        out.fits.push_back(fit_at(out.fitting_line, p.kind, p.at));
    for (std::size_t i = 0; i < out.fits.size(); ++i) out.fits[i].number = static_cast<int>(i);
    const auto ports = air_ports(shape, split, out.deep_flat);
    out.fits.insert(out.fits.end(), ports.begin(), ports.end());
    out.outline = notched(c, out);
    try {
        out.tool = std::make_shared<const ToolFace>(tool_face(shape, split, c, out.outer));
    } catch (const InputError& e) {
        out.no_tool = e.problem() + "; " + e.mend();
    }
    out.hollow = tightest_hollow(rim);
    out.clear_between = split.parts() > 1 ? apart(split.rims) : 0;
    const double seam = split.set.seam_length;
    const int along_seams = seam > 0 ? static_cast<int>(std::ceil(seam / c.bolt_pitch)) : 0;
    out.bolts = out.count(Fitting::bolt) + along_seams;
    const double squeezed =
        bolted && out.rim_length > 0 ? c.squeeze * split.map.projected * split.parts() / out.rim_length : 0;
    if (out.bolts > 0 && plate > 0) out.joint = joint_of(c, plate, c.tape_land + c.grip, squeezed);
    out.figures = {
        {"width", "flange width", Kind::length, out.width,
         fmt::format("trim {} + channel {} + tape land {} + grip {}", quantity(Kind::length, c.trim),
                     quantity(Kind::length, c.channel), quantity(Kind::length, c.tape_land),
                     quantity(Kind::length, c.grip))},
        {"area", "flange area", Kind::area, out.area,
         (split.parts() > 1 ? std::string("outline of all parts grown by the width, less their rims")
                            : std::string("rim grown by the width, less the rim, seen along the pull")) +
             (seam > 0 ? ", and " + quantity(Kind::area, out.seam_area) + " along both sides of the seams"
                       : std::string())},
        {"rim", "length of the rim", Kind::length, out.rim_length,
         split.parts() > 1 ? fmt::format("of {} parts, seen along the pull", split.parts())
                           : std::string("seen along the pull")},
        {"tape", "sealant tape", Kind::length, out.tape_length, "middle of the tape land + 15 % for pleats"},
        {"tape_land_area", "to mask against release", Kind::area, out.tape_land_area, "tape land all round"},
        {"bolts", "bolts", Kind::count, static_cast<double>(out.bolts),
         out.bolts > 0 ? fmt::format("{} round the rim and {} along the seams, at most ",
                                     out.count(Fitting::bolt), along_seams) +
                             quantity(Kind::length, c.bolt_pitch) + " apart"
                       : std::string("a one-piece tool that is bagged needs none")},
        {"wedges", "wedge slots", Kind::count, static_cast<double>(out.count(Fitting::wedge)),
         "one about every " + quantity(Kind::length, c.wedge_pitch) + " of the fitting line"},
        {"jacks", "jacking screws", Kind::count, static_cast<double>(out.count(Fitting::jack)),
         "four where the draw is deeper than 150 mm; this one is " + quantity(Kind::length, depth)},
        {"ports", "air ports", Kind::count, static_cast<double>(ports.size()),
         quantity(Kind::area, out.deep_flat) +
             " of flat near the deepest place, a port for each 0.35 m²; without air it holds with up to one "
             "atmosphere"}};
    if (out.joint.load > 0) {
        out.figures.push_back(
            {"gap", "joint opens between bolts", Kind::thickness, out.joint.gap,
             fmt::format(
                 "built-in beam of {:.0f} N·m² on the seal, pushed apart by {:.0f} N/m over the pitch "
                 "(Hetényi)",
                 out.joint.bending, out.joint.load)});
        out.figures.push_back(
            {"pitch_for_gap", "bolt pitch for " + quantity(Kind::thickness, c.seal.gap), Kind::length,
             out.joint.pitch_for_gap,
             "the widest pitch at which the joint stays that close; 0 where any within 2 m does"});
        out.figures.push_back({"per_bolt", "pull on each bolt", Kind::force, out.joint.per_bolt,
                               fmt::format("{:.0f} N/m of joint × pitch", out.joint.load)});
    }
    return out;
}

}  // namespace jig::edge
