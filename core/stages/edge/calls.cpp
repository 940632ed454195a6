#include "core/stages/edge/findings.hpp"

#include <cmath>

namespace jig::edge {
namespace {

Calls width_calls(const Choices& c, const Findings& f, const brief::Choices& brief, const Library& shop) {
    Calls out;
    const auto add = [&](Severity s, const char* key, std::string headline, std::string why,
                         std::optional<Fix> fix = {}) {
        out.push_back({Stage::edge, s, key, std::move(headline), std::move(why), std::move(fix)});
    };
    const bool bagged = brief.process != Process::wet && brief.process != Process::squeeze;
    if (bagged && c.tape_land < 0.025) {
        add(Severity::stop, "tape_land",
            "Tape land " + quantity(Kind::length, c.tape_land) + ": too narrow to seal a bag",
            "Sealant tape wants " + quantity(Kind::length, 0.025) + " or more of clean, unreleased flange.",
            Fix{"Make it 30 mm wide", patch_of("edge", "tape_land", 0.030)});
    }
    if (brief.process == Process::infusion && c.channel < 0.01) {
        add(Severity::caution, "channel",
            "No room for a feed line: channel " + quantity(Kind::length, c.channel),
            "Infusion wants about " + quantity(Kind::length, 0.02) + " between trim line and tape land.",
            Fix{"Give it 20 mm", patch_of("edge", "channel", 0.020)});
    }
    if (c.trim < 0.008) {
        add(Severity::caution, "trim", "Trim allowance " + quantity(Kind::length, c.trim),
            "The edge of a laminate is dry and ragged: make the part further past the trim line.",
            Fix{"Trim 15 mm", patch_of("edge", "trim", 0.015)});
    }
    const double bolt = need(shop.fasteners, c.bolt, "edge bolt").diameter;
    const double wanted = std::ceil(3.5 * bolt * 1000) / 1000;
    if (f.bolts > 0 && c.grip < wanted) {
        add(Severity::caution, "grip",
            "A grip of " + quantity(Kind::length, c.grip) + " is too narrow for its bolts",
            "Washer and edge want 3.5 diameters of " + quantity(Kind::length, bolt) + ", " +
                quantity(Kind::length, wanted) + ".",
            Fix{"Widen the grip", patch_of("edge", "grip", wanted)});
    }
    if (f.count(Fitting::wedge) > 0 && c.wedge_length > c.grip + 1e-9) {
        add(Severity::caution, "wedge",
            "Wedge slots of " + quantity(Kind::length, c.wedge_length) + " do not fit a grip of " +
                quantity(Kind::length, c.grip),
            "They would reach into the tape land and let the bag leak; they are cut as deep as the grip.",
            Fix{"Make them as long as the grip", patch_of("edge", "wedge_length", std::max(0.01, c.grip))});
    }
    if (f.clear_between > 0 && f.clear_between < 2 * c.trim) {
        add(Severity::caution, "between",
            quantity(Kind::length, f.clear_between) + " between two parts is less than two trim allowances",
            "Each part is made " + quantity(Kind::length, c.trim) + " past its trim line.",
            Fix{"Move them apart", patch_of("split", "between", 2 * c.trim + 0.01)});
    }
    if (f.hollow && *f.hollow < c.trim + c.channel + c.tape_land) {
        add(Severity::note, "hollow",
            "The rim has a hollow turn of " +
                (*f.hollow > 0 ? quantity(Kind::length, *f.hollow) : std::string("no radius at all")) +
                ", tighter than the tape's way",
            "Tape and channel cut across it; look at the stand, and leave the turn more room where it "
            "matters.");
    }
    return out;
}

}  // namespace

Calls calls(const Choices& c, const Findings& f, const brief::Choices& brief, const Library& shop) {
    Calls out = width_calls(c, f, brief, shop);
    const auto add = [&](Severity s, const char* key, std::string headline, std::string why,
                         std::optional<Fix> fix = {}) {
        out.push_back({Stage::edge, s, key, std::move(headline), std::move(why), std::move(fix)});
    };
    if (!f.no_tool.empty()) {
        add(Severity::caution, "no_flange", "No flange can be drawn on this shape: " + f.no_tool,
            "Widths, areas and tape are still worked out from the outline; the tool's stiffness is not.");
    }
    if (f.joint.load > 0 && f.joint.gap > c.seal.gap) {
        std::optional<Fix> fix;
        const double pitch = std::floor(f.joint.pitch_for_gap * 200) / 200;
        if (pitch >= 0.02)
            fix = Fix{"Bolt every " + quantity(Kind::length, pitch), patch_of("edge", "bolt_pitch", pitch)};
        add(Severity::caution, "bolt_pitch",
            "Bolt pitch " + quantity(Kind::length, c.bolt_pitch) + ": the joint opens " +
                quantity(Kind::thickness, f.joint.gap) + " between bolts",
            "It may open " + quantity(Kind::thickness, c.seal.gap) +
                " before it leaks; closer bolts or a stiffer flange hold it.",
            fix);
    }
    if (!c.by_rule && brief.process == Process::squeeze && f.count(Fitting::dowel) < 2) {
        add(Severity::caution, "dowels",
            std::to_string(f.count(Fitting::dowel)) + " dowels: the halves are not located",
            "Two or more, far apart, one in a round hole and one in a slot.",
            Fix{"Lay the fittings out by the rules", patch_of("edge", "by_rule", true)});
    }
    if (!c.by_rule && f.count(Fitting::wedge) + f.count(Fitting::jack) == 0) {
        add(Severity::caution, "aids", "Nothing to start the tool with",
            "Tools that stick are levered, and plugs and tools are broken that way: plan wedge slots or "
            "jacking "
            "screws from the start.",
            Fix{"Lay the fittings out by the rules", patch_of("edge", "by_rule", true)});
    }
    return out;
}

}  // namespace jig::edge
