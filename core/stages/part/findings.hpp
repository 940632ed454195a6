#pragma once

#include "core/shop/stack_figures.hpp"
#include "core/shop/working.hpp"
#include "core/stages/brief/choices.hpp"
#include "core/stages/go_limit.hpp"
#include "core/stages/part/choices.hpp"
#include "core/stages/part/core_fit.hpp"
#include "core/stages/part/draped.hpp"
#include "core/stages/part/inserts.hpp"
#include "core/stages/part/pieces.hpp"
#include "core/stages/part/regions.hpp"
#include "core/stages/part/resin_account.hpp"
#include "core/stages/split/findings.hpp"

namespace jig::part {

/// The stack where the same zones lie over one another.
struct RegionSum {
    std::uint32_t zones = 0;  ///< bit i for the i-th zone; 0 for the common stack
    double area = 0;          ///< m² of one part
    StackSum stack;
    std::vector<std::size_t> goes;  ///< by layer of the stack, which go lays it; never falling
    bool operator==(const RegionSum&) const = default;
};

/// One layer and what it covers.
struct Laying {
    LaidLayer laid;
    int zone = -1;    ///< that it belongs to, -1 for the common stack
    double area = 0;  ///< m² of one part
    std::size_t go = 0;
    bool operator==(const Laying&) const = default;
};

/// What is laid and hardens together, before more is laid on it; all parts of one pull.
struct Go {
    std::string what;   ///< "outer skin"
    double resin = 0;   ///< kg mixed by hand for what it lays
    double laying = 0;  ///< s that its plies and cores take all hands
    double wet = 0;     ///< m of plies and filled mats that are wet at once, where most are
    int pots = 0;       ///< of resin; 0 where nothing is wetted by hand
    bool operator==(const Go&) const = default;
};

/// What of one kind of core is bought for one part, once its panels lie on their sheets.
struct CoreBought {
    std::string material;
    double area = 0;  ///< m² of sheets
    std::string how;
    bool operator==(const CoreBought&) const = default;
};

struct Findings {
    std::vector<Figure> figures;
    StackSum stack;                    ///< the common one
    std::vector<RegionSum> regions;    ///< all of the part, region by region; the common stack first
    std::vector<Laying> laying_order;  ///< from the tool in, a zone's layers behind the common ones
    Shared<Regions> marked;            ///< where the zones lie, of a mould in pieces on the one shown
    Shared<OtherMarks> others;         ///< on its other pieces
    Resin resin;
    Working working;             ///< of it in the room
    double area = 0;             ///< m² of part
    double mass = 0;             ///< kg, trimmed
    double resin_mix = 0;        ///< kg to mix for each part
    ResinAccount resin_account;  ///< where it goes
    std::vector<Go> goes;        ///< that it is laid in, at least one
    int pots = 0;                ///< of resin for one pull; 0 where nothing is wetted by hand
    double stiffer = 1;          ///< times as stiff over the span as a solid laminate of the same mass
    double bridging_radius = 0;  ///< m
    TightCorners corners;        ///< of the mould, under the part
    JointFigures joint;
    double core_share = 0;  ///< of the thickness
    FitsByPiece inserts;    ///< on the piece that is shown, then on the others
    int inserts_set = 0;    ///< of one part; those for each piece count on every one that they lie on
    double potting = 0;     ///< m³ of paste round them, of one part
    std::map<std::string, double> blocks;  ///< m² of each board that their blocks are cut from, of one part
    Shared<CoreFit> cores;                 ///< and whether they bend to the face, of all pieces
    std::vector<CoreBought>
        core_bought;          ///< none before the panels lie on sheets: cores then go by their area
    double panel_filler = 0;  ///< m³ between panels and in cells along edges, of one part
    double lapped = 0;        ///< m that laps along one cut add to the common stack, where most
    Shared<Draped> draped;    ///< its cloth on the face; without a net where there is no face
    /// What is laid where these zones lie; the common stack for a sliver that the part has no region of.
    [[nodiscard]] const StackSum& stack_under(std::uint32_t zones) const;
    /// m² of one part on which a zone lies.
    [[nodiscard]] double area_of(std::size_t zone) const;
    /// m² of one part as it was measured, all pieces together; 0 where there is no face.
    [[nodiscard]] double measured() const;
    bool operator==(const Findings&) const = default;
};

/// It is laid in a room of `room` K.
Findings evaluate(const Choices& choices, const shape::Findings& shape, const split::Findings& split,
                  const brief::Crew& brief, const Draped& draped, const Regions& marked, const CoreFit& cores,
                  const InsertPlaces& inserts, const OtherFaces& other_faces, const OtherMarks& others,
                  const OtherCores& other_cores, const Keepers& keepers, double room, const Library& shop);
/// `parts` come out of the tool at once. Throws InputError for materials that the library has not.
/// `bagging` are the hours of all hands that closing its bag takes (Bag's own work), `go` is how thick its
/// plies may be laid at once.
Calls calls(const Choices& choices, const Findings& findings, const brief::Choices& brief, int parts,
            double bagging, const GoLimit& go, const Library& shop);

}  // namespace jig::part
