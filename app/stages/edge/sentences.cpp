#include "app/stages/sentences.hpp"

namespace jig::app {

std::vector<Sentence> edge_sentences(const Job&, const Shop& shop) {
    return {{"Past the trim line the part goes on for",
             quantity_word("/edge/trim", "trim allowance", Kind::length, 0, 0.08), ", then",
             quantity_word("/edge/channel", "channel", Kind::length, 0, 0.06), "of channel,",
             quantity_word("/edge/tape_land", "tape land", Kind::length, 0.01, 0.08,
                           "25 mm or more, never released"),
             "of tape land and", quantity_word("/edge/grip", "grip", Kind::length, 0, 0.08), "of grip."},
            {"A bolted mould takes", shop_word("/edge/bolt", "bolt", shop.fasteners), "every",
             quantity_word("/edge/bolt_pitch", "bolt pitch", Kind::length, 0.05, 0.4), "."}};
}

}  // namespace jig::app
