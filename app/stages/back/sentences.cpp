#include "app/stages/sentences.hpp"

namespace jig::app {

std::vector<Sentence> back_sentences(const Job&, const Shop& shop) {
    return {{"Hold the shell with", enum_word<BackKind>("/back/kind", "back"), "of",
             shop_word("/back/board", "rib board", shop.boards), "every",
             quantity_word("/back/pitch", "rib pitch", Kind::length, 0.05, 1), ", standing",
             quantity_word("/back/height", "rib height", Kind::length, 0.02, 0.5), "off the shell."},
            {"Between ribs the skin may sag",
             quantity_word("/back/limit", "sag allowed", Kind::thickness, 0.0001, 0.005),
             "under its weight, a person leaning with",
             quantity_word("/back/person", "leaning force in newtons", Kind::factor, 0, 1000,
                           "newtons; a hand leans with 200 to 300, a person with up to 1000"),
             "N, and", enum_word<BagKind>("/back/bag", "bag"), "at",
             quantity_word("/back/vacuum", "vacuum", Kind::pressure, 0, 101325), "."}};
}

}  // namespace jig::app
