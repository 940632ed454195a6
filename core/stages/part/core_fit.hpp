// Whether the part's cores bend to the face where they lie.
#pragma once

#include "core/stages/part/regions.hpp"

namespace jig::part {

/// What laying cores reads of the part: where layers lie, and its cores.
struct CoreAsked {
    Choices stack;
    bool operator==(const CoreAsked&) const = default;
};
CoreAsked core_asked(const Choices& choices);

/// The cores of the common stack and of every zone, in the order in which they are laid.
std::vector<std::pair<Source, Layer>> cores_of(const Choices& choices);

/// One core on its part of the face.
struct CoreBend {
    Source of;
    Layer layer;
    double thickness = 0;        ///< m
    double bends_to = 0;         ///< m, across its slits where those run one way; 0 where it is not known
    double area = 0;             ///< m² of the draped face
    double tight = 0;            ///< m² of it on which the face bends more than the core does
    double tightest = 0;         ///< m, the least radius under it; 0 where it is flat
    Point at = Point::Zero();    ///< there
    bool elsewhere = false;      ///< and that is on a piece of the mould that is not shown
    std::vector<char> is_tight;  ///< by face of the draped mesh
    bool operator==(const CoreBend&) const = default;
};

struct CoreFit {
    double reach = 0;             ///< m over which bends are read off the face
    std::vector<CoreBend> cores;  ///< in the order in which they are laid
    /// m² of the face that a core does not follow, of the core that follows least.
    [[nodiscard]] double tight() const;
    bool operator==(const CoreFit&) const = default;
};

/// Without a face, cores have no area. Places smaller than the cores' own thickness across are not told
/// apart: a core that meets a corner lies over it. Cores that the library has not are left to the part
/// itself. Throws Cancelled.
CoreFit core_fit(const CoreAsked& asked, const Frame& frame, const Draped& draped, const Regions& marked,
                 const Lists<Core>& shop, Progress& progress);

/// The same cores on another piece of the mould besides: areas of both, the tighter of their bends. Which
/// faces are tight stays that of the first.
CoreFit and_on(CoreFit fit, const CoreFit& other);

/// Another way of working this core that bends it to the face, slits before heat; none where no way does.
std::optional<CoreCut> cut_for(const Core& core, const CoreBend& bend);

std::vector<Figure> core_figures(const Choices& choices, const CoreFit& fit, double scale, const Resin& resin,
                                 const Lists<Core>& shop);
/// `marked` are all pieces of the mould, each once.
Calls core_calls(const Choices& choices, const CoreFit& fit, const std::vector<const Regions*>& marked,
                 const Lists<Core>& shop);

}  // namespace jig::part
