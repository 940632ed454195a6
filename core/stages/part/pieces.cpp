#include "core/stages/part/pieces.hpp"

#include "core/stages/edge/flange.hpp"

namespace jig::part {

OtherFaces other_faces(int shown, const split::Findings& split, const ClothAsked& cloth, Progress& progress) {
    OtherFaces out;
    if (split.one_piece()) return out;
    const auto chosen = edge::chosen_piece(shown, split);
    for (std::size_t i = 0; i < split.set.pieces.size(); ++i) {
        if (i == chosen) continue;
        const auto& piece = split.set.pieces[i];
        out.faces.push_back(
            {edge::frame_of(piece), bare_face(cloth, piece, static_cast<int>(i) + 1, progress)});
    }
    return out;
}

OtherMarks other_marks(const ZonesAsked& zones, const InsertsAsked& inserts, const OtherFaces& on,
                       Progress& progress) {
    OtherMarks out;
    for (const auto& [frame, bare] : on.faces)
        out.pieces.push_back({regions(zones, frame, bare, progress), insert_places(inserts, frame, bare)});
    return out;
}

OtherCores other_cores(const CoreAsked& cores, const OtherFaces& on, const OtherMarks& marks,
                       const Lists<Core>& shop, Progress& progress) {
    OtherCores out;
    for (std::size_t i = 0; i < on.faces.size(); ++i) {
        const auto& [frame, bare] = on.faces[i];
        out.fits.push_back(core_fit(cores, frame, bare, marks.pieces.at(i).marked, shop, progress));
    }
    return out;
}

}  // namespace jig::part
