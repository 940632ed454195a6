#include <fmt/format.h>

#include "core/stages/brief/findings.hpp"

namespace jig::brief {

Calls calls(const Choices& c, const Findings& f) {
    Calls out;
    if (c.grade != Grade::structural && f.break_even > 0) {
        const bool mould = c.pulls >= f.break_even;
        out.push_back(
            {Stage::brief,
             Severity::note,
             "where_to_finish",
             fmt::format("{} pulls against a break-even of {:.0f}: put the finishing hours into the {}",
                         c.pulls, f.break_even, mould ? "plug and mould" : "parts"),
             mould ? "Every part then leaves the mould nearly finished."
                   : "A plain mould and hand-finished parts cost fewer hours in all.",
             {}});
    }
    if (c.assembly_jig && c.tolerance > 0.001) {
        out.push_back({Stage::brief, Severity::note, "jig",
                       "A tool that is also the jig, held to " + quantity(Kind::thickness, c.tolerance),
                       "Parts bonded in it take their fit from it, and a bond gap is 0.2 to 1 mm: hold it to "
                       "1 mm or better.",
                       Fix{"Hold it to 0.5 mm", patch_of("brief", "tolerance", 0.0005)}});
    }
    if (c.process == Process::prepreg && c.top_temperature < kelvin(60)) {
        out.push_back(
            {Stage::brief, Severity::caution, "prepreg_cold",
             "Oven prepreg at a top temperature of " + quantity(Kind::temperature, c.top_temperature),
             "Oven prepregs cure at 70 °C and above: the tool has to stand that.",
             Fix{"Plan for 80 °C", patch_of("brief", "top_temperature", kelvin(80))}});
    }
    return out;
}

}  // namespace jig::brief
