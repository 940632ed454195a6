#include "app/stages/sentences.hpp"

namespace jig::app {

std::vector<Sentence> shell_sentences(const Job&, const Shop& shop) {
    return {
        {"Build the shell in", shop_word("/shell/resin", "shell resin", shop.resins), ", laid",
         enum_word<LayUp>("/shell/how", "way of laying the shell"), "in the order below, from the plug out."},
        {"It started from the school of", enum_word<School>("/shell/school", "school"),
         "; choosing one lays its stack afresh."},
        {"Post-cure it free-standing at",
         quantity_word("/shell/cure_temperature", "post-cure", Kind::temperature, kelvin(20), kelvin(180)),
         "; buy", quantity_word("/shell/waste", "waste of shell", Kind::ratio, 0, 0.5),
         "more than stays in it."}};
}

}  // namespace jig::app
