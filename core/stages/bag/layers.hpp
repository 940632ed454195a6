// What lies between the last ply and the pump, sheet by sheet as it is cut.
#pragma once

#include "core/science/nest/roll.hpp"
#include "core/science/vacuum/darts.hpp"
#include "core/science/vacuum/film.hpp"
#include "core/shop/lists.hpp"
#include "core/stages/bag/choices.hpp"
#include "core/stages/bag/way.hpp"
#include "core/stages/part/choices.hpp"

namespace jig::bag {

/// m by which widths of one layer lie over each other, typical.
inline constexpr double kLayerOverlap = 0.03;

struct BagLayer {
    std::string name;    ///< as the shop has it
    std::string covers;  ///< in words
    double area = 0;     ///< m² that it covers, of all pieces
    /// m, as it is cut for the piece that is shown; 0 where nothing was measured.
    double length = 0, width = 0;
    double roll = 0;          ///< m wide; 0 where it is bought by area
    int beside = 1;           ///< of as many sheets that lie side by side across the roll it takes its share
    RollCut cut;              ///< of all pieces
    std::vector<Dart> darts;  ///< of the piece that is shown
    bool judged = false;      ///< whether the shop says how it follows a curved face
    bool operator==(const BagLayer&) const = default;
};

/// What the layers are cut for.
struct Ground {
    double length = 0, width = 0;  ///< m, girths of the shown piece's face; 0 where nothing was measured
    double area = 0;               ///< m² of all pieces
    double rim = 0;                ///< m round all of them
    double pieces = 1;             ///< how many times the shown one's face they are, about
    std::vector<Dart> curved;      ///< places of the shown face
};

/// From the last ply outwards, what closes it last. Throws InputError for what the shop has not.
std::vector<BagLayer> layers(const Choices& choices, LayUp how, const Ground& ground, const Film& film,
                             double film_area, const Wrap& wrap, const Lists<Consumable>& shop);

}  // namespace jig::bag
