// The part's plies cut flat and laid onto their rolls.
#pragma once

#include "core/science/nest/cut_sheets.hpp"
#include "core/stages/part/regions.hpp"

namespace jig::part {

/// m that pieces are larger all round, and that those of one ply lie over each other, where nobody says
/// otherwise.
inline constexpr double kKitTrim = 0.02, kKitLap = 0.025;

struct KitPiece {
    /// "1.2": the ply, counted from the tool, and the piece of it; those of zones follow with their zone's
    /// name.
    std::string name;
    Source of;
    std::string material;
    double angle = 0;  ///< rad of the ply
    Loops outline;     ///< m on the cloth, x along its roll
    double area = 0;   ///< m²
    int joined = 1;    ///< pieces that the ply is made of
};

/// What one cloth is cut from.
struct KitRoll {
    std::string material;
    double width = 0;   ///< m of the roll
    double metres = 0;  ///< m of it that are used
    double yield = 0;   ///< share of those that lies in the plies
    SheetSet sheets;    ///< lengths of the roll as sheets
};

struct Kit {
    std::vector<KitPiece> pieces;
    std::vector<KitRoll> rolls;
    std::vector<std::string> left_out;  ///< cloths that no net is laid for: mats
};

/// Every ply that has a net, where the zones leave it and no further, grown by `trim` m along the face's own
/// rim, parted where it is wider than its roll with laps of `lap` m, and laid on the roll as the ply's angle
/// has it. `frame` is the tool face's. Throws InputError, Cancelled.
Kit kit(const Choices& choices, const Draped& draped, const Frame& frame, const Lists<Reinforcement>& shop,
        double trim, double lap, Progress& progress);

}  // namespace jig::part
