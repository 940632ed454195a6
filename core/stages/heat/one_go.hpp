// How thick a laminate may be laid at once before its own heat harms it (docs/methods.md, Exotherm).
#pragma once

#include "core/science/heat/exotherm.hpp"
#include "core/stages/go_limit.hpp"
#include "core/stages/heat/cures.hpp"

namespace jig::heat {

/// What a stack would do if all of it were laid at once, thinner or thicker.
struct OneGo {
    std::vector<ThicknessPeak> curve;  ///< rising from kThinnest to kThickest; empty where nothing reacts
    HeatLimits limits;                 ///< K
    std::string under;                 ///< what lies under it
    double air = 0;                    ///< K, the hottest of its programme
    double laid = 0;                   ///< m of plies that the stack has where it is thickest
    ThicknessPeak whole;               ///< what all of that does at once
    std::optional<double> most;  ///< m that keep the limits, kThickest where all do; none where none does
    bool operator==(const OneGo&) const = default;
};

inline constexpr double kThinnest = 0.0005, kThickest = 0.05;  ///< m
/// m from the one to the other, each so many times the one before.
std::vector<double> thicknesses();

struct ShellGo : OneGo {
    bool operator==(const ShellGo&) const = default;
};
struct PartGo : OneGo {
    bool operator==(const PartGo&) const = default;
};

/// Resins on top of what walls read.
using GoLibrary = Lists<SurfaceCoat, Core, Reinforcement, Rate, Resin>;

/// The shell's plies on its plug, doublers where they lie thickest, coats tacky under them, in the usual
/// programme of their resin (what the maker's own does, the cure's run tells). Throws InputError; Cancelled.
/// Without a curve where the plug is not known.
ShellGo shell_go(const Conditions& air, const RunsPast& past, const PlugUnder& plug,
                 const shell::Choices& shell_choices, const GoLibrary& shop, Progress& progress);
/// The part's in its tool, where its zones lie thickest.
PartGo part_go(const Conditions& air, const RunsPast& past, const shell::Findings& shell,
               const part::Choices& part_choices, const part::Findings& part, const GoLibrary& shop,
               Progress& progress);

/// What it allows of `resin`: by its own heat; by the resin's entry where that is no typical figure and less,
/// or where heat does not decide: no curve, too warm an air, nothing too hot up to kThickest.
GoLimit go_limit(const OneGo& go, const Resin& resin);

}  // namespace jig::heat
