#include "core/stages/back/crate.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/base/units.hpp"
#include "core/science/mesh/slice.hpp"

namespace jig::back {
namespace {

/// Half the length of a foot's pad along its rib, m.
constexpr double kPad = 0.04;

/// Everything from the cut line of the tool's face down, as one outline.
Loops under(const Section& cut, double low, double& left, double& right, double& contour) {
    Loops all = cut.loops;
    const auto drop = [&](const Point2& a, const Point2& b) {
        left = std::min({left, a.x(), b.x()});
        right = std::max({right, a.x(), b.x()});
        contour += (b - a).norm();
        if (std::abs(a.x() - b.x()) < 1e-9) return;
        Loop strip{{a.x(), low}, {b.x(), low}, b, a};
        if (signed_area(strip) < 0) std::reverse(strip.begin(), strip.end());
        all.push_back(std::move(strip));
    };
    for (const auto& line : cut.open_lines) {
        for (std::size_t i = 1; i < line.size(); ++i) drop(line[i - 1], line[i]);
    }
    for (const auto& loop : cut.loops) {
        for (std::size_t i = 0; i < loop.size(); ++i) drop(loop[i], loop[(i + 1) % loop.size()]);
    }
    return united(all);
}

}  // namespace

Crate crate_of(const Choices& c, const edge::ToolFace& face, double clear, double board, Progress& progress) {
    Crate out;
    const auto planes = rib_planes(c, face);
    const auto topology = topology_of(face.rimmed.mesh);
    const auto& f = face.frame;
    const bool foam = c.kind == BackKind::foam_blocks;
    const bool long_u = length_is_u(face);
    out.level = face.high.z() + clear + c.height;
    const double low = face.low.z() - 1;
    std::array<std::vector<std::size_t>, 2> number;  // of ribs by plane; npos where there is none
    constexpr auto kNone = static_cast<std::size_t>(-1);
    for (std::size_t s = 0; s < 2; ++s) {
        if (planes[s].at.empty()) continue;
        // u along the rib, v along the pull, w along the plane's normal: right-handed either way.
        const Frame plane = s == 0 ? Frame{f.v, f.w, f.u} : Frame{-f.u, f.w, f.v};
        const auto cuts = sections(face.rimmed.mesh, topology, plane, planes[s].at, progress);
        for (std::size_t i = 0; i < cuts.size(); ++i) {
            progress.check();
            double left = 1e30, right = -1e30, contour = 0;
            const auto solid = under(cuts[i], low, left, right, contour);
            number[s].push_back(kNone);
            if (solid.empty() || right - left < 0.02) continue;
            const auto blocked = offset(solid, clear);
            Loops whole;
            if (foam) {
                whole = shared(offset(solid, clear + std::max(0.02, c.height)),
                               {rectangle(left, face.low.z() + clear, right, out.level + 1)});
            } else {
                whole = {rectangle(left, face.low.z() + clear, right, out.level)};
            }
            RibPlate rib;
            rib.name = fmt::format("{} {}", (s == 0) == long_u ? "across" : "along", i + 1);
            rib.plane = plane;
            rib.at = planes[s].at[i];
            rib.outline = taken_off(whole, blocked);
            rib.contour = contour;
            // Slivers between a contour and its offset are no ribs.
            std::erase_if(rib.outline, [](const Loop& l) { return std::abs(signed_area(l)) < 1e-4; });
            if (rib.outline.empty()) continue;
            number[s].back() = out.ribs.size();
            out.bond_length += contour;
            out.ribs.push_back(std::move(rib));
        }
    }
    if (!foam) {
        std::vector<Loops> taken(out.ribs.size());
        const double half = (board + c.clearance) / 2;
        for (std::size_t a = 0; a < number[0].size(); ++a) {
            progress.check();
            for (std::size_t b = 0; b < number[1].size(); ++b) {
                const auto i = number[0][a], k = number[1][b];
                if (i == kNone || k == kNone) continue;
                // Across: its u is the face's v. Along: its u is the face's u turned round.
                const double x = planes[1].at[b], y = -planes[0].at[a];
                double p = 0, q = 0, top = 0;
                if (!upright_span(out.ribs[i].outline, x, p, top) ||
                    !upright_span(out.ribs[k].outline, y, q, top))
                    continue;
                const double from = std::max(p, q), middle = (from + out.level) / 2;
                if (middle <= from) continue;
                taken[i].push_back(rectangle(x - half, middle, x + half, out.level + 1));
                taken[k].push_back(rectangle(y - half, from - 1, y + half, middle));
                ++out.laps;
            }
        }
        // Between the feet the ribs are shorter, so that the tool stands where it is meant to. Feet are pads
        // on both ribs of a crossing, or at a rib's end.
        const auto crossings = crossings_of(c, face, progress);
        std::vector<Point2> places;
        for (const auto& p : crossings) places.emplace_back(p.head<2>());
        for (const auto& rib : out.ribs) {
            const bool across = rib.plane.w.dot(f.u) > 0.5;
            for (const double end : {low_corner(rib.outline).x(), high_corner(rib.outline).x()})
                places.push_back(across ? Point2(rib.at, end) : Point2(-end, rib.at));
        }
        const auto feet = feet_on(c, places);
        for (std::size_t r = 0; r < out.ribs.size() && c.feet.relief > 0 && !feet.empty(); ++r) {
            const auto& rib = out.ribs[r];
            const bool across = rib.plane.w.dot(f.u) > 0.5;
            Loops relief{rectangle(-1e3, out.level - c.feet.relief, 1e3, out.level + 1)}, pads;
            for (const auto k : feet) {
                if (std::abs((across ? places[k].x() : places[k].y()) - rib.at) > 1e-9) continue;
                const double x = across ? places[k].y() : -places[k].x();
                pads.push_back(rectangle(x - kPad, out.level - c.feet.relief, x + kPad, out.level + 1));
            }
            if (!pads.empty()) relief = taken_off(relief, pads);
            taken[r].insert(taken[r].end(), relief.begin(), relief.end());
        }
        for (std::size_t r = 0; r < out.ribs.size(); ++r) {
            if (!taken[r].empty()) out.ribs[r].outline = taken_off(out.ribs[r].outline, united(taken[r]));
        }
    }
    for (const auto& rib : out.ribs) {
        out.area += net_area(rib.outline);
        for (const auto& loop : rib.outline) out.cut_length += perimeter(loop);
    }
    return out;
}

SheetRules sheet_rules(const Choices& c, const Library& shop) {
    const auto& stock =
        need(shop.boards, c.kind == BackKind::foam_blocks ? c.foam.board : c.board, "back board");
    SheetRules rules;
    rules.length = stock.sheet_length;
    rules.width = stock.sheet_width;
    rules.margin = 0.01;
    rules.kerf = 0.006;
    return rules;
}

std::vector<CutPiece> cut_pieces(const Crate& crate) {
    std::vector<CutPiece> out;
    for (const auto& rib : crate.ribs) add_pieces(rib.outline, rib.name, rib.at, out);
    return out;
}

}  // namespace jig::back
