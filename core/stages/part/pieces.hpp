// The part on those pieces of its mould that Edge does not show: its sums are of all of them.
#pragma once

#include "core/stages/part/core_fit.hpp"
#include "core/stages/part/inserts.hpp"
#include "core/stages/split/findings.hpp"

namespace jig::part {

/// The face of one piece, without cloth on it.
struct PieceFace {
    Frame frame;  ///< across its pull
    Draped bare;
    bool operator==(const PieceFace&) const = default;
};
struct OtherFaces {
    std::vector<PieceFace> faces;
    bool operator==(const OtherFaces&) const = default;
};
/// Of a mould in pieces all but the one that has this number; none of a mould in one. Throws Cancelled.
OtherFaces other_faces(int shown, const split::Findings& split, const ClothAsked& cloth, Progress& progress);

/// Where zones and inserts lie on one of them.
struct PieceMarked {
    Regions marked;
    InsertPlaces inserts;
    bool operator==(const PieceMarked&) const = default;
};
struct OtherMarks {
    std::vector<PieceMarked> pieces;
    bool operator==(const OtherMarks&) const = default;
};
/// Throws as `regions` and `insert_places` do.
OtherMarks other_marks(const ZonesAsked& zones, const InsertsAsked& inserts, const OtherFaces& on,
                       Progress& progress);

/// By piece, how cores bend to it.
struct OtherCores {
    std::vector<CoreFit> fits;
    bool operator==(const OtherCores&) const = default;
};
/// Throws Cancelled.
OtherCores other_cores(const CoreAsked& cores, const OtherFaces& on, const OtherMarks& marks,
                       const Lists<Core>& shop, Progress& progress);

}  // namespace jig::part
