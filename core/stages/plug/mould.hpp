// The mould that is cut or printed itself: blocks with the part's face and its flange let into them.
#pragma once

#include "core/shop/layup.hpp"
#include "core/stages/plug/plan.hpp"

namespace jig::plug {

/// All pieces; none where a plug is built, or where something stands in the way, which `obstacle` says.
struct Mould {
    std::vector<MouldPiece> pieces;
    std::string obstacle;
    [[nodiscard]] double mass() const;  ///< kg
    [[nodiscard]] double face() const;  ///< m²
    bool operator==(const Mould&) const = default;
};

/// Lets a face with its flange, which look out of the plug, into a block: turned over, `wall` under the
/// deepest place, down to a flat foot and cut to the flange's outline. `moulded` is the face's m². Throws
/// InputError for names that the library has not and for a printer without room; Cancelled.
MouldPiece let_in(const Choices& choices, std::string name, const TriangleMesh& face, const Frame& pull,
                  double moulded, const Library& shop, Progress& progress);

/// What making it takes. What stands in its way becomes its obstacle. Throws as plan_for.
Plan plan_of(const Choices& choices, const MouldPiece& piece, const shape::Choices& shape, const Asked& brief,
             const Library& shop, Progress& progress);
/// A plan that says why there is none.
Plan no_plan(const Choices& choices, std::string obstacle, const Library& shop);

/// Its wall as stiffness and heat see it: as thick as it is where it is thinnest, as heavy as the whole block
/// is on the mean of its face. None where the library has not what it is made of.
std::optional<Layer> wall_of(const Choices& choices, const Mould& mould, const Library& shop);

/// What its face is made of, before any release.
FaceKind face_of(const Choices& choices, const Library& shop);

/// Pulls that such a mould bears, looked after: typical.
int pulls_of(const Choices& choices, const Library& shop);

/// m by which its face is cut deeper for what is coated onto it; 0 of metal.
double cut_deeper(const Choices& choices, const Library& shop);

/// The closed body as it is cut: deeper by its coats, scaled about its middle.
TriangleMesh as_cut(const MouldPiece& piece, double deeper, double scale);

/// The tiles of a plan's own body as they leave for the printer: a mould's deeper by its coats, a plug's
/// smaller by its build-up, scaled. Throws InputError for a printer without room; Cancelled.
TileSet tiles_as_cut(const Plan& plan, const Body& body, const Choices& choices, double scale,
                     const Library& shop, Progress& progress);

/// From the cutter's or printer's surface to a grade: sealed where it has pores, no filler, primer or paint
/// on metal.
std::vector<FinishStep> mould_schedule(const Choices& choices, Grade grade, double area, const Library& shop);

}  // namespace jig::plug
