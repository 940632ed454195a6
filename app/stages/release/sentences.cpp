#include "app/stages/sentences.hpp"

namespace jig::app {

std::vector<Sentence> release_sentences(const Job&, const Shop& shop) {
    return {
        {"Release with", shop_word("/release/system", "release system", shop.releases), "on a face that has",
         flag_word("/release/wax_before", "wax before", "been waxed before", "never been waxed"), "."},
        {"The tape land is",
         flag_word("/release/mask_land", "masking", "masked until bagging", "released too"), "."}};
}

}  // namespace jig::app
