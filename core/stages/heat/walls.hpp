// A stack as heat sees it: what lies in the oven, layer by layer.
#pragma once

#include "core/science/heat/wall.hpp"
#include "core/stages/back/choices.hpp"
#include "core/stages/heat/choices.hpp"
#include "core/stages/part/findings.hpp"
#include "core/stages/plug/findings.hpp"
#include "core/stages/shell/findings.hpp"

namespace jig::heat {

/// What walls read of the library, and what cures do, whose joints have boards and adhesives in them.
using WallLibrary = Lists<SurfaceCoat, Core, Reinforcement, Rate>;
using CureLibrary = Lists<SurfaceCoat, Core, Reinforcement, Rate, Board, Bonding>;

/// How a stack lies while it cures.
struct Lying {
    std::string of;
    bool fresh = true;          ///< whether it reacts at all
    double room = 293.15;       ///< K that coats have set at before plies came
    std::size_t from = 0;       ///< first layer of this go; what lies before it has cured overnight
    std::size_t to = 1u << 30;  ///< one past its last layer; what comes after is not there yet
    std::vector<std::size_t> starts = {};  ///< layers with which earlier goes began
};

/// A stack in layers of a wall, and the layer of the stack that each of these begins with.
struct Seen {
    std::vector<WallLayer> layers;
    std::vector<std::size_t> from;
    bool operator==(const Seen&) const = default;
};

/// Neighbours of one kind and one go are one.
Seen wall_of(const StackSum& stack, const Resin& resin, const Lying& lying, const WallLibrary& shop);

/// What a shell lies on, as heat sees it.
struct PlugUnder {
    Board board;
    double path = 0;     ///< m that heat has to go through
    bool known = false;  ///< whether the plug could be worked out as far as that
    bool operator==(const PlugUnder&) const = default;
};
/// The same once Plug has settled it.
struct PlugMade : PlugUnder {
    bool operator==(const PlugMade&) const = default;
};
/// A shell's layers `go` on its plug, the plug first; its air is the room's.
Wall on_plug(const Seen& go, const PlugUnder& plug, const Conditions& air);
/// A part's layers in its tool, the tool's outside first.
Wall in_tool(const Seen& laid, const shell::Findings& shell, const Conditions& air, const WallLibrary& shop);

/// What sets where the back is joined to the shell.
struct BondedOn {
    std::string where;              ///< "under a tab"; empty where it lies all over
    std::vector<WallLayer> layers;  ///< fresh, from the shell's back outward
    /// W/(m²·K) from it to the air. A bed of paste is narrow: it is as deep as a layer of its volume to its
    /// surface, loses by its flanks, and shell and rib lead its heat away as straight fins, √(h·k·t) a metre
    /// (docs/methods.md, Heat).
    double transfer = 0;
    double hardens = 0;  ///< s until it may be moved, at
    double at = 0;       ///< K
    bool operator==(const BondedOn&) const = default;
};
/// None where nothing in a joint reacts: no back, one that floats, bought strip without tabs. `shell` are the
/// layers that it is joined to.
std::vector<BondedOn> bonded_on(const back::Choices& back, const std::vector<WallLayer>& shell,
                                const Resin& shell_resin, LayUp how, const Conditions& air,
                                const CureLibrary& shop);

/// A part's stack where it ends at its joint: what of it is no core.
StackSum edge_of(const StackSum& stack);
/// Two such edges with `bond` between them; on the outsides the tool, where it is their jig.
Wall at_joint(const Seen& edge, const Bonding& bond, double gap, const shell::Findings* jig,
              const Conditions& air, const CureLibrary& shop);

}  // namespace jig::heat
