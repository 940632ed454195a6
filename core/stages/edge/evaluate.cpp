#include <fmt/format.h>

#include <cmath>

#include "core/stages/edge/findings.hpp"

namespace jig::edge {

Findings evaluate(const Choices& c, const split::Findings& split, const brief::Choices& brief,
                  const Shop& shop) {
    Findings out;
    static_cast<void>(need(shop.fasteners, c.bolt, "edge bolt"));
    out.width = c.width();
    // The bag and its tape go round all parts; each part has a rim of its own to trim along.
    const Loops& rim = split.joined;
    for (const auto& loop : split.rims) out.rim_length += perimeter(loop);
    out.outer = offset(rim, out.width);
    // Pieces meet in a flange on each side of every seam.
    out.seam_area = 2 * split.set.seam_length * out.width;
    out.area = net_area(out.outer) - net_area(split.rims) + out.seam_area;
    out.tape_inner = offset(rim, c.trim + c.channel);
    const auto tape_outer = offset(rim, c.trim + c.channel + c.tape_land);
    out.tape_land_area = net_area(tape_outer) - net_area(out.tape_inner);
    double middle = 0;
    for (const auto& loop : offset(rim, c.trim + c.channel + c.tape_land / 2)) middle += perimeter(loop);
    out.tape_length = 1.15 * middle;
    double bolt_line = 0;
    for (const auto& loop : offset(rim, c.width() - c.grip / 2)) bolt_line += perimeter(loop);
    const bool bolted = brief.process == Process::squeeze;
    const double seam = split.set.seam_length;
    out.bolts = (bolted ? static_cast<int>(std::ceil(bolt_line / c.bolt_pitch)) : 0) +
                (seam > 0 ? static_cast<int>(std::ceil(seam / c.bolt_pitch)) : 0);
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
         bolted || seam > 0 ? "bolt line " + quantity(Kind::length, (bolted ? bolt_line : 0) + seam) +
                                  " ÷ pitch " + quantity(Kind::length, c.bolt_pitch) + ", rounded up"
                            : std::string("a one-piece tool that is bagged needs none")}};
    return out;
}

}  // namespace jig::edge
