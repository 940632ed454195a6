#include "app/stages/sentences.hpp"

namespace jig::app {

std::vector<Sentence> part_sentences(const Job&, const Shop& shop) {
    return {
        {"Make the part in", shop_word("/part/resin", "part resin", shop.resins), ", laid",
         enum_word<LayUp>("/part/how", "way of laying the part"), ", in the order below from the tool in."},
        {"It gels at",
         quantity_word("/part/gel_temperature", "part gels at", Kind::temperature, kelvin(15), kelvin(180)),
         "and should weigh",
         quantity_word("/part/target_mass", "target mass", Kind::mass, 0, 20, "0 for no target"), "."},
        {"Cloth is cut with", quantity_word("/part/waste", "waste of part", Kind::ratio, 0, 1),
         "of waste, and", quantity_word("/part/pot_loss", "resin lost", Kind::mass, 0, 2),
         "of resin stays in pots and lines."}};
}

}  // namespace jig::app
