#include "core/stages/edge/findings.hpp"

namespace jig::edge {

Calls calls(const Choices& c, const Findings&, const brief::Choices& brief) {
    Calls out;
    const bool bagged = brief.process != Process::wet && brief.process != Process::squeeze;
    if (bagged && c.tape_land < 0.025) {
        out.push_back(
            {Stage::edge, Severity::stop, "tape_land",
             "Tape land " + quantity(Kind::length, c.tape_land) + ": too narrow to seal a bag",
             "Sealant tape wants " + quantity(Kind::length, 0.025) + " or more of clean, unreleased flange.",
             Fix{"Make it 30 mm wide", patch_of("edge", "tape_land", 0.030)}});
    }
    if (brief.process == Process::infusion && c.channel < 0.01) {
        out.push_back(
            {Stage::edge, Severity::caution, "channel",
             "No room for a feed line: channel " + quantity(Kind::length, c.channel),
             "Infusion wants about " + quantity(Kind::length, 0.02) + " between trim line and tape land.",
             Fix{"Give it 20 mm", patch_of("edge", "channel", 0.020)}});
    }
    if (c.trim < 0.008) {
        out.push_back({Stage::edge, Severity::caution, "trim",
                       "Trim allowance " + quantity(Kind::length, c.trim),
                       "The edge of a laminate is dry and ragged: make the part further past the trim line.",
                       Fix{"Trim 15 mm", patch_of("edge", "trim", 0.015)}});
    }
    if (brief.process == Process::squeeze && c.bolt_pitch > 0.12) {
        out.push_back({Stage::edge, Severity::caution, "bolt_pitch",
                       "Bolt pitch " + quantity(Kind::length, c.bolt_pitch) + " on a squeeze mould",
                       "Squeeze moulds gape between bolts further apart than about " +
                           quantity(Kind::length, 0.1) + ".",
                       Fix{"Bolt every 100 mm", patch_of("edge", "bolt_pitch", 0.10)}});
    }
    return out;
}

}  // namespace jig::edge
