#include "app/stages/sentences.hpp"

namespace jig::app {
namespace {

/// What a kind of face is made of, what was on it, and what it gets.
Sentence face_sentence(const char* said, const std::string& at, const Shop& shop) {
    auto system = shop_word(at + "/system", QString(said) + ", release", shop.releases);
    system.options.insert(system.options.begin(), {Json(std::string()), "the same"});
    return {QString("%1 is").arg(said),
            enum_word<FaceKind>(at + "/surface", QString(said) + ", surface"),
            "and",
            enum_word<FaceHistory>(at + "/history", QString(said) + ", what was on it"),
            "; it gets",
            system,
            "."};
}

}  // namespace

std::vector<Sentence> release_sentences(const Job& job, const Shop& shop) {
    std::vector<Sentence> out{
        {"Release with", shop_word("/release/system", "release system", shop.releases), "."},
        face_sentence("The mould's face", "/release/mould", shop)};
    // A mould that is made itself is taken off nothing.
    const bool plug = !plug::no_plug(job.plug);
    if (plug) out.push_back(face_sentence("The plug's face", "/release/plug", shop));
    if (job.split.way != SplitWay::one) {
        if (plug) out.push_back(face_sentence("A parting board's face", "/release/boards", shop));
        out.push_back({"Lines between pieces are",
                       enum_word<SeamFill>("/release/seam", "lines between pieces"),
                       "; rims that close on each other are",
                       flag_word("/release/rims_released", "rims", "released", "kept clear for glue"), "."});
    }
    if (bag::stuck_to_flange(job.bag, job.part.how, job.brief.process))
        out.push_back({"The tape land is",
                       flag_word("/release/mask_land", "masking", "masked until bagging", "released too"),
                       "."});
    return out;
}

}  // namespace jig::app
