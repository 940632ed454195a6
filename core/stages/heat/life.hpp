// A tool's life and its part's, cure by cure, each going on from what the one before has left. Every cure is
// a finding of its own: a programme that changes is gone through again alone, with what comes after it.
#pragma once

#include "core/stages/heat/cures.hpp"

namespace jig::heat {

/// A shell's cure, and what it has left of the shell's walls; empty where nothing is laid.
struct ShellCured {
    std::optional<CureRun> run;    ///< none where the job has no such cure
    std::vector<Seen> walls;       ///< all that lies, the common wall first, then as `CureRun::places`
    std::vector<BondedOn> joints;  ///< where the back is joined to the common wall at a place
    std::vector<WallLayer> skin;   ///< what of the back lies all over it
    bool operator==(const ShellCured&) const = default;
};
struct CuredOnPlug : ShellCured {
    bool operator==(const CuredOnPlug&) const = default;
};
struct CuredWithBack : ShellCured {
    bool operator==(const CuredWithBack&) const = default;
};
struct CuredStanding {
    std::optional<CureRun> run;
    bool operator==(const CuredStanding&) const = default;
};
/// A part's goes in its tool: the first, those between as one, and the last.
struct CuredInTool {
    std::vector<CureRun> runs;
    bool operator==(const CuredInTool&) const = default;
};
/// What joins parts, and the wall through it as that has left it; none where nothing in it sets.
struct CuredJoined {
    std::optional<CureRun> run;
    std::optional<Wall> joint;
    bool operator==(const CuredJoined&) const = default;
};
struct CuredFree {
    std::optional<CureRun> run;
    bool operator==(const CuredFree&) const = default;
};

/// All throw InputError for what the library lacks, and as warm(); Cancelled.
CuredOnPlug cure_on_plug(const Conditions& air, const OvenEnds& ends, const LegsOf<CureOf::on_plug>& legs,
                         const PlugMade& plug, const shell::Findings& shell, const CureLibrary& shop,
                         Progress& progress);
CuredWithBack cure_with_back(const Conditions& air, const OvenEnds& ends,
                             const LegsOf<CureOf::with_back>& legs, const CuredOnPlug& before,
                             const PlugMade& plug, const shell::Choices& choices,
                             const shell::Findings& shell, const back::Choices& back, const CureLibrary& shop,
                             Progress& progress);
CuredStanding cure_standing(const Conditions& air, const OvenEnds& ends,
                            const LegsOf<CureOf::post_cure>& legs, const CuredWithBack& before,
                            const shell::Choices& choices, const shell::Findings& shell,
                            const CureLibrary& shop, Progress& progress);
CuredInTool cure_in_tool(const Conditions& air, const OvenEnds& ends, const LegsOf<CureOf::part_first>& first,
                         const LegsOf<CureOf::part_next>& next, const LegsOf<CureOf::part>& last,
                         const shell::Findings& shell, const part::Choices& choices,
                         const part::Findings& part, const CureLibrary& shop, Progress& progress);
CuredJoined cure_joined(const Conditions& air, const OvenEnds& ends, const LegsOf<CureOf::joined>& legs,
                        const CuredInTool& before, const brief::Jig& brief, const shell::Findings& shell,
                        const part::Choices& choices, const part::Findings& part, const CureLibrary& shop,
                        Progress& progress);
CuredFree cure_free(const Conditions& air, const OvenEnds& ends, const LegsOf<CureOf::part_free>& legs,
                    const CuredInTool& in_tool, const CuredJoined& joined, const brief::Jig& brief,
                    const part::Choices& choices, const part::Findings& part, const CureLibrary& shop,
                    Progress& progress);
/// All that the job has, in their order.
Cures cures(const CuredOnPlug& on_plug, const CuredWithBack& with_back, const CuredStanding& standing,
            const CuredInTool& in_tool, const CuredJoined& joined, const CuredFree& free);

}  // namespace jig::heat
