// The part's plies cut flat and laid onto their rolls.
#pragma once

#include "core/science/nest/cut_sheets.hpp"
#include "core/stages/part/regions.hpp"

namespace jig::part {

struct KitPiece {
    /// "1.2": the ply, counted from the tool, and the piece of it; those of zones follow with their zone's
    /// name.
    std::string name;
    Source of;
    std::size_t go = 0;  ///< that it is laid in
    std::string material;
    double angle = 0;    ///< rad of the ply
    Loops outline;       ///< m on the cloth, x along its roll
    double area = 0;     ///< m²
    int joined = 1;      ///< pieces that the ply is made of
    double stretch = 0;  ///< that it needs at most to lie on the face, where it cannot shear
    bool torn = false;   ///< more than it gives: it is torn or slit there, and lies over itself
    bool cover = false;  ///< lies over what a cut leaves bare as it opens
    bool operator==(const KitPiece&) const = default;
};

/// What one cloth is cut from.
struct KitRoll {
    std::string material;
    double width = 0;   ///< m of the roll
    double metres = 0;  ///< m of it that are used
    double yield = 0;   ///< share of those that lies in the plies
    SheetSet sheets;    ///< lengths of the roll as sheets
    bool operator==(const KitRoll&) const = default;
};

struct Kit {
    std::vector<KitPiece> pieces;
    std::vector<KitRoll> rolls;
    std::vector<std::string> left_out;  ///< cloths for which the face cannot be laid flat
    bool operator==(const Kit&) const = default;
};

/// What a kit reads of the part's choices; all else as when nobody has chosen.
Choices kit_asked(const Choices& choices);

/// Every ply, where the zones leave it and no further, woven cloth by its net, tape and mat stretched as
/// little as may be, grown by `trim` m along the face's own
/// rim, parted where it is wider than its roll with laps of `lap` m, and laid on the roll as the ply's angle
/// has it. `frame` is the tool face's. Throws InputError, Cancelled.
Kit kit(const Choices& choices, const Draped& draped, const Frame& frame, const Lists<Reinforcement>& shop,
        double trim, double lap, Progress& progress);

}  // namespace jig::part
