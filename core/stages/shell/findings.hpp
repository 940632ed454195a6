#pragma once

#include "core/shop/stack_figures.hpp"
#include "core/shop/working.hpp"
#include "core/stages/edge/findings.hpp"
#include "core/stages/go_limit.hpp"
#include "core/stages/plug/findings.hpp"
#include "core/stages/shell/choices.hpp"

namespace jig::shell {

/// A zone's layers and what they come to.
struct ZoneSum {
    std::string name;
    StackSum extra;    ///< of its own layers alone
    StackSum whole;    ///< of the common stack with them on top
    double area = 0;   ///< m²
    double units = 0;  ///< that its plies count
    /// Of its own layers, those that begin a day after the common stack's last, which takes what comes
    /// before.
    std::vector<std::size_t> days;
    bool operator==(const ZoneSum&) const = default;
};

/// One thing done while the shell is laid up, in order.
struct LayStep {
    enum class Kind { filler, coat, ply, core, debulk, fill, day_end, abrade } kind = Kind::ply;
    std::string what;
    double from = 0;    ///< s of work since the day's start
    double resin = 0;   ///< kg to mix for it
    int batches = 0;    ///< pots of resin, by size and pot life
    double offset = 0;  ///< m that its overlaps are shifted against the layer before
    std::string note;
    bool operator==(const LayStep&) const = default;
};

struct Findings {
    std::vector<Figure> figures;
    StackSum stack;
    Resin resin;
    Working working;  ///< of it in the room, in pots as large as are mixed
    std::vector<ZoneSum> zones;
    std::vector<LayStep> order;
    double area = 0;        ///< m², shell and flange
    double mass = 0;        ///< kg
    double resin_mass = 0;  ///< kg to mix, waste counted
    double bow = 0;         ///< m over the longest side on cooling from the post-cure, back left off
    double shrink_bow = 0;  ///< m of that from the resin's shrinkage after gel
    GoLimit go;             ///< how thick its plies may be laid at once
    std::vector<std::size_t> day_ends;  ///< layers after which to stop for the day
    int days = 1;
    int batches = 0;
    double units = 0;            ///< what its plies count in the shop's own thickness units
    double bridging_radius = 0;  ///< m, corners tighter than this are bridged by the cloth
    TightCorners corners;        ///< of the plug, under the shell
    double Tg = 0;               ///< K that its cures bring the lowest of resin and surface coats to
    std::string Tg_reason;
    double slowest_ply = 0;  ///< s that laying its slowest ply takes
    bool operator==(const Findings&) const = default;
};

/// Temperatures that the shell is made between, K.
struct Warmth {
    double room = 293.15, gel = 293.15;
    bool operator==(const Warmth&) const = default;
};

/// `under_ribs` is the length along which ribs lie on the shell, m; `go` is how thick plies may be laid at
/// once.
Findings evaluate(const Choices& choices, const shape::Findings& shape, const split::Findings& split,
                  const edge::Findings& edge, const brief::Crew& brief, double under_ribs,
                  const Warmth& warmth, const GoLimit& go, const Library& shop);
Calls calls(const Choices& choices, const Findings& findings, const plug::Choices& plug,
            const plug::Findings& plug_findings, const brief::Choices& brief, bool has_back,
            const Warmth& warmth, const Library& shop);

/// The largest free curvature of a stack on cooling from its post-cure, shrinkage after gel counted, 1/m.
double free_curve(const StackSum& stack, double cooling);

/// The flange's laminate: the common stack and what comes on top there. Throws InputError.
Laminate flange_laminate(const Choices& choices, const Library& shop);

}  // namespace jig::shell
