#include "app/stages/sentences.hpp"

namespace jig::app {

std::vector<Sentence> edge_sentences(const Job& job, const Shop& shop) {
    const bool pieces = job.split.way != SplitWay::one;
    const bool bolted = job.brief.process == Process::squeeze || pieces;
    // Pieces meet along their seams, so their flanges follow them.
    const Piece lie =
        pieces ? Piece("follows the seam") : Piece(enum_word<FlangeLie>("/edge/lie", "lie of the flange"));
    std::vector<Sentence> out{
        {"Past the trim line the mould goes on",
         quantity_word("/edge/trim", "trim allowance", Kind::length, 0, 0.08), ", then",
         quantity_word("/edge/channel", "channel", Kind::length, 0, 0.06), "of channel,",
         quantity_word("/edge/tape_land", "tape land", Kind::length, 0.01, 0.08,
                       "25 mm or more, never released"),
         "of tape land and", quantity_word("/edge/grip", "grip", Kind::length, 0, 0.08), "of grip."},
        {"The flange", lie, ", its corners", enum_word<FlangeCorner>("/edge/corner", "corners of the flange"),
         "; more grip:", quantity_word("/edge/sides/ahead", "more grip ahead", Kind::length, 0, 0.2),
         "ahead,", quantity_word("/edge/sides/behind", "more grip behind", Kind::length, 0, 0.2), "behind,",
         quantity_word("/edge/sides/left", "more grip at the left", Kind::length, 0, 0.2), "left,",
         quantity_word("/edge/sides/right", "more grip at the right", Kind::length, 0, 0.2), "right."}};
    if (pieces)
        out.push_back({"Drawn here is that of", piece_word(job), "; areas and lengths are of all pieces."});
    if (bolted) {
        out.push_back({"Halves are bolted with", shop_word("/edge/bolt", "bolt", shop.fasteners), "every",
                       quantity_word("/edge/bolt_pitch", "bolt pitch", Kind::length, 0.05, 0.4),
                       "and located by", shop_word("/edge/dowel", "dowel", shop.fasteners), "."});
        out.push_back(
            {"The joint's strip pushes back with",
             quantity_word("/edge/seal/stiffness", "stiffness of the strip, N/m²", Kind::factor, 1e5, 1e7,
                           "newtons a metre of joint for each metre of squeeze; a 6 mm rubber cord about "
                           "2 million"),
             "N/m², squeezed",
             quantity_word("/edge/seal/squeeze", "squeeze of the strip", Kind::thickness, 0, 0.005),
             "at the bolts; it may open",
             quantity_word("/edge/seal/gap", "gap allowed", Kind::thickness, 0.00005, 0.003), "."});
        if (job.brief.process == Process::squeeze)
            out.push_back({"The squeeze presses the face with",
                           quantity_word("/edge/squeeze", "squeeze pressure", Kind::pressure, 0, 500000),
                           "."});
    }
    out.push_back(
        {"Wedge slots of", quantity_word("/edge/wedge_length", "wedge slot", Kind::length, 0.01, 0.1),
         "come about every", quantity_word("/edge/wedge_pitch", "pitch of wedge slots", Kind::length, 0.2, 2),
         "; fittings lie", flag_word("/edge/by_rule", "fittings", "by the rules", "where you have put them"),
         "."});
    return out;
}

}  // namespace jig::app
