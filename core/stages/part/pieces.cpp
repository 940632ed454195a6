#include "core/stages/part/pieces.hpp"

#include "core/stages/edge/flange.hpp"

namespace jig::part {

OtherFaces other_faces(int shown, const split::Findings& split, Progress& progress) {
    OtherFaces out;
    if (split.one_piece()) return out;
    const auto chosen = edge::chosen_piece(shown, split);
    for (std::size_t i = 0; i < split.set.pieces.size(); ++i) {
        if (i == chosen) continue;
        const auto& piece = split.set.pieces[i];
        out.faces.push_back({edge::frame_of(piece), bare_face(piece, static_cast<int>(i) + 1, progress)});
    }
    return out;
}

OtherMarks other_marks(const ZonesAsked& zones, const InsertsAsked& inserts, const CoreAsked& cores,
                       const OtherFaces& on, const Lists<Core>& shop, Progress& progress) {
    OtherMarks out;
    for (const auto& [frame, bare] : on.faces) {
        auto& piece = out.pieces.emplace_back();
        piece.marked = regions(zones, frame, bare, progress);
        piece.inserts = insert_places(inserts, frame, bare);
        piece.cores = core_fit(cores, frame, bare, piece.marked, shop, progress);
    }
    return out;
}

}  // namespace jig::part
