#include "app/stages/sentences.hpp"

namespace jig::app {

std::vector<Sentence> plug_sentences(const Job&, const Shop& shop) {
    return {{"Build the plug as a stack of slabs of", shop_word("/plug/board", "plug board", shop.boards),
             ", cut along the pull."},
            {"Leave", quantity_word("/plug/margin", "margin round slabs", Kind::length, 0, 0.05),
             "round each slab on the sheet; nesting leaves",
             quantity_word("/plug/waste", "waste of sheets", Kind::ratio, 0, 0.8), "of it over."},
            {"Seal it with", enum_word<Barrier>("/plug/barrier", "barrier"),
             "; barrier, filler and paint build up",
             quantity_word("/plug/build_up", "build-up", Kind::thickness, 0, 0.003), "."}};
}

}  // namespace jig::app
