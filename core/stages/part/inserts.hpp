// Where the part's inserts come to lie and what they bear there.
#pragma once

#include <functional>

#include "core/science/nest/cut_sheets.hpp"
#include "core/shop/stack_figures.hpp"
#include "core/stages/part/face.hpp"
#include "core/stages/part/regions.hpp"

namespace jig::part {

/// Where inserts lie, and nothing else of them.
struct InsertsAsked {
    std::vector<std::pair<Spot, int>> places;  ///< each with its piece of the mould
    bool operator==(const InsertsAsked&) const = default;
};
InsertsAsked inserts_asked(const Choices& choices);

/// One of them on the face.
struct InsertPlace {
    Point at = Point::Zero();
    std::size_t face = 0;    ///< of the draped mesh
    bool beside = false;     ///< the face does not lie under it
    bool elsewhere = false;  ///< nor is it asked for there: it is another piece's
    int piece = 0;           ///< of the mould, whose face it is; 0 of a mould in one
    double rim = 0;          ///< m to the face's rim
    bool operator==(const InsertPlace&) const = default;
};
struct InsertPlaces {
    std::vector<InsertPlace> places;
    bool operator==(const InsertPlaces&) const = default;
};
/// None without a face. Throws InputError for more than `kMostInserts`.
InsertPlaces insert_places(const InsertsAsked& asked, const Frame& frame, const Draped& draped);

/// What it bears there.
struct InsertFit {
    InsertPlace place;
    Point2 asked = Point2::Zero();  ///< where it was asked for, m from the middle of the face
    double core = 0;                ///< m of core under it; 0 where there is none
    double core_density = 0;        ///< kg/m³
    double skin = 0;                ///< m of laminate that its bolt, or its potting, leans on
    double pull_borne = 0;          ///< N; 0 where it is not known
    double push_borne = 0;          ///< N
    bool pull_known = true;         ///< whether anybody knows what it bears when it is pulled
    double holds = 0;               ///< times its loads; infinite without any
    bool operator==(const InsertFit&) const = default;
};

/// The stack where some zones lie.
using StackAt = std::function<const StackSum&(std::uint32_t zones)>;

/// One for each insert of the choices, those of other pieces among them; none without a face. `stack_at` gets
/// the zones at its place. Throws InputError for materials that the library has not.
std::vector<InsertFit> insert_fits(const Choices& choices, const InsertPlaces& placed, const Regions& marked,
                                   const StackAt& stack_at, const Lists<Reinforcement, Core>& shop);

/// The strength of a laminate of this where a pin leans on it, Pa: its own, or the usual of its fibre.
double bearing_of(const Reinforcement& cloth);

/// What stands in the core's place at an insert: a paste with light filler, or the board of its block.
struct InsertBody {
    double E = 0, G = 0, density = 0;  ///< Pa, kg/m³; of a board with a grain the mean of both ways
    double crush = 0;                  ///< Pa
};
/// Throws InputError for a block of a board that the library has not.
InsertBody body_of(const Insert& insert, const Lists<Board>& shop);

/// What fills the core's place at one insert; nothing without a core.
struct InsertFill {
    double paste = 0;  ///< m³ round the insert, which itself is twice as wide as its bolt
    double block = 0;  ///< m² of board, as thick as it comes, that a block is cut from
    double mass = 0;   ///< kg that paste or block weighs more than the core that it takes the place of
};
InsertFill fill_of(const Insert& insert, const InsertFit& fit, const Lists<Board>& shop);

/// What inserts of the choices bear on one face after another, the one that is shown first.
using FitsByPiece = std::vector<std::vector<InsertFit>>;
/// The one of an insert's places that holds least; null where it lies on none, or there is no face.
const InsertFit* weakest_of(const FitsByPiece& fits, std::size_t insert);

std::vector<Figure> insert_figures(const Choices& choices, const FitsByPiece& fits);
Calls insert_calls(const Choices& choices, const FitsByPiece& fits);

/// A template that finds them again: the face's rim as it is seen along the pull, and each place with a
/// cross, its bolt and its name.
SheetSet insert_template(const Choices& choices, const std::vector<InsertFit>& fits,
                         const edge::ToolFace& tool);

}  // namespace jig::part
