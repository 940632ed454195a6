#include <fmt/format.h>

#include "core/stages/edge/findings.hpp"

namespace jig::edge {

void add_figures(const Choices& c, const split::Findings& split, double depth, int elsewhere, Findings& out) {
    const bool pieces = !split.one_piece();
    out.figures = {
        {"width", "flange width", Kind::length, out.width,
         fmt::format("trim {} + channel {} + tape land {} + grip {}", quantity(Kind::length, c.trim),
                     quantity(Kind::length, c.channel), quantity(Kind::length, c.tape_land),
                     quantity(Kind::length, c.grip))},
        {"area", "flange area", Kind::area, out.area,
         pieces ? fmt::format("rim of each of {} pieces grown by the width, less the rim, along its own pull",
                              split.set.pieces.size())
         : split.parts() > 1 ? std::string("outline of all parts grown by the width, less their rims")
                             : std::string("rim grown by the width, less the rim, seen along the pull")},
        {"rim", "length of the rim", Kind::length, out.rim_length,
         pieces              ? std::string("seams and mouths that the part is trimmed along, each once")
         : split.parts() > 1 ? fmt::format("of {} parts, seen along the pull", split.parts())
                             : std::string("seen along the pull")},
        {"tape", "length of the tape land", Kind::length, out.tape_land_length,
         std::string("along its middle") + (pieces ? ", all pieces" : "") +
             "; Bag adds what the pleats take"},
        {"tape_land_area", "to mask against release", Kind::area, out.tape_land_area,
         std::string("tape land all round") + (pieces ? ", all pieces" : "")},
        {"bolts", "bolts", Kind::count, static_cast<double>(out.bolts),
         out.bolts > 0 ? fmt::format("{} round the rim and {} along other seams, at most ",
                                     out.count(Fitting::bolt), elsewhere) +
                             quantity(Kind::length, c.bolt_pitch) + " apart"
                       : std::string("a one-piece tool that is bagged needs none")},
        {"wedges", "wedge slots", Kind::count, static_cast<double>(out.count(Fitting::wedge)),
         "one about every " + quantity(Kind::length, c.wedge_pitch) + " of the fitting line"},
        {"jacks", "jacking screws", Kind::count, static_cast<double>(out.count(Fitting::jack)),
         "four where the draw is deeper than 150 mm; this one is " + quantity(Kind::length, depth)},
        {"ports", "air ports", Kind::count, static_cast<double>(out.count(Fitting::port)),
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
}

}  // namespace jig::edge
