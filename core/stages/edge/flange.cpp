#include "core/stages/edge/flange.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/base/error.hpp"
#include "core/science/mesh/cut.hpp"
#include "core/science/mesh/repair.hpp"
#include "core/science/mesh/triangulate.hpp"

namespace jig::edge {
namespace {

/// Edge of the flange's triangles, m.
constexpr double kSpacing = 0.03;
/// Over a very large box the triangles are larger, so that a file in a wrong unit does not stall the shop.
double spacing_for(const Loops& outer) {
    constexpr double kMostPlaces = 2e5;
    const Point2 size = high_corner(outer) - low_corner(outer);
    return std::max(kSpacing, std::sqrt(size.prod() / kMostPlaces));
}

/// Rims that lie in no other: a hole within the face is blanked, it gets no flange.
std::vector<std::vector<std::uint32_t>> outer_rims(const TriangleMesh& face, const Frame& frame) {
    const auto rims = rim_loops(face, topology_of(face));
    std::vector<Loop> flat;
    for (const auto& rim : rims) {
        auto& loop = flat.emplace_back();
        for (const auto i : rim) loop.push_back(frame.flat(face.points[i]));
    }
    std::vector<std::vector<std::uint32_t>> out;
    for (std::size_t i = 0; i < rims.size(); ++i) {
        bool within = false;
        for (std::size_t k = 0; k < rims.size() && !within; ++k)
            within = k != i && std::abs(signed_area(flat[k])) > std::abs(signed_area(flat[i])) &&
                     holds({flat[k]}, flat[i].front());
        if (!within) out.push_back(rims[i]);
    }
    return out;
}

}  // namespace

Loops stretched(const Loops& loops, const Sides& s) {
    Loops out = loops;
    const auto sweep = [&](const Point2& by) {
        if (by.isZero()) return;
        Loops all = out;
        for (const auto& loop : out) {
            for (std::size_t i = 0; i < loop.size(); ++i) {
                const auto &a = loop[i], &b = loop[(i + 1) % loop.size()];
                Loop patch{a, b, b + by, a + by};
                if (signed_area(patch) < 0) std::reverse(patch.begin(), patch.end());
                all.push_back(std::move(patch));
            }
        }
        out = united(all);
    };
    sweep({s.ahead, 0});
    sweep({-s.behind, 0});
    sweep({0, s.left});
    sweep({0, -s.right});
    return out;
}

Rimmed rimmed(const TriangleMesh& face, const Frame& frame, const Loops& outer, FlangeLie lie, double foot,
              double run, double spacing) {
    Rimmed out;
    const auto rims = outer_rims(face, frame);
    if (rims.empty())
        throw InputError("edge", "the moulded face has no rim", "leave its foot open, or split it in Split");
    out.mesh = face;
    out.patch.assign(face.triangles.size(), 0);
    Loops lines;
    std::vector<std::uint32_t> number;
    for (const auto& rim : rims) {
        auto& line = lines.emplace_back();
        for (const auto i : rim) {
            line.push_back(frame.flat(face.points[i]));
            number.push_back(i);
        }
    }
    for (const auto& line : lines) {
        for (const auto& p : line) {
            if (!holds(outer, p))
                throw InputError("edge", "the rim reaches outside its own flange seen along the pull",
                                 "choose a pull that sees the whole rim, or a wider flange");
        }
    }
    const auto rim_points = number.size();
    for (const auto& loop : outer) {
        // Long straight sides want points of their own to make triangles with.
        auto& line = lines.emplace_back();
        for (std::size_t i = 0; i < loop.size(); ++i) {
            const auto &a = loop[i], &b = loop[(i + 1) % loop.size()];
            const int steps = std::max(1, static_cast<int>(std::lround((b - a).norm() / spacing)));
            for (int k = 0; k < steps; ++k) line.push_back(a + (b - a) * k / steps);
        }
    }
    const auto flat = filled(lines, spacing);
    for (std::size_t i = rim_points; i < flat.points.size(); ++i) {
        const auto& p = flat.points[i];
        double nearest = std::numeric_limits<double>::infinity(), height = foot;
        for (std::size_t k = 0; k < rim_points; ++k) {
            const double d = (flat.points[k] - p).squaredNorm();
            if (d >= nearest) continue;
            nearest = d;
            height = frame.w.dot(face.points[number[k]]);
        }
        if (lie == FlangeLie::flat) {
            const double share = run > 0 ? std::min(1.0, std::sqrt(nearest) / run) : 1;
            height += share * (foot - height);
        }
        number.push_back(static_cast<std::uint32_t>(out.mesh.points.size()));
        out.mesh.points.push_back(frame.lift(p, height));
    }
    // The face looks outwards, away from the plug; where its rim turns, the flange looks along the pull.
    for (const auto& t : flat.triangles) {
        Triangle laid{number[t[0]], number[t[1]], number[t[2]]};
        const auto f = out.mesh.triangles.size();
        out.mesh.triangles.push_back(laid);
        const Point n = out.mesh.area_vector2(f);
        if (n.dot(frame.w) < 0) std::swap(out.mesh.triangles.back()[1], out.mesh.triangles.back()[2]);
        out.patch.push_back(1);
        out.flange_area += n.norm() / 2;
    }
    return out;
}

ToolFace tool_face(const shape::Findings& shape, const split::Findings& split, const Choices& c,
                   const Loops& outer) {
    ToolFace out;
    if (split.one_piece()) {
        const auto& whole = split::mould_mesh(shape, split);
        std::vector<std::uint32_t> keep;
        const auto& map = split.map.faces;
        for (std::uint32_t f = 0; f < whole.triangles.size(); ++f) {
            if (map.empty() || map[f % map.size()] != Release::open) keep.push_back(f);
        }
        const auto face = some_faces(whole, keep);
        out.frame = split.frame;
        out.rim = split.joined;
        out.rimmed = rimmed(face, out.frame, outer, c.lie, split.foot, c.trim, spacing_for(outer));
    } else {
        const auto chosen = chosen_piece(c.piece, split);
        const auto& piece = split.set.pieces[chosen];
        out.piece = static_cast<int>(chosen) + 1;
        out.frame = frame_of(piece);
        out.rim = rim_of(piece);
        out.rimmed = rimmed(moulded_face(piece), out.frame, outer, FlangeLie::following, 0, c.trim,
                            spacing_for(outer));
    }
    const auto& f = out.frame;
    out.low = Point::Constant(1e30);
    out.high = -out.low;
    for (const auto& t : out.rimmed.mesh.triangles) {
        for (const auto i : t) {
            const auto& p = out.rimmed.mesh.points[i];
            const Point q(f.u.dot(p), f.v.dot(p), f.w.dot(p));
            out.low = out.low.cwiseMin(q);
            out.high = out.high.cwiseMax(q);
        }
    }
    return out;
}

TriangleMesh moulded_face(const Piece& piece) {
    // A cut through corners leaves points that fall together along the seam.
    Progress quiet;
    MendRules rules;
    rules.turn = rules.close = false;
    return repaired(piece.mesh, quiet, rules).mesh;
}

Frame frame_of(const Piece& piece) {
    return frame_across(piece.direction.normalized());
}

TriangleMesh moulded_face(const ToolFace& tool) {
    std::vector<std::uint32_t> faces;
    for (std::size_t f = 0; f < tool.rimmed.patch.size(); ++f) {
        if (tool.rimmed.patch[f] == 0) faces.push_back(static_cast<std::uint32_t>(f));
    }
    return some_faces(tool.rimmed.mesh, faces);
}

}  // namespace jig::edge
