#include "app/stages/sentences.hpp"

namespace jig::app {

std::vector<Sentence> split_sentences(const Job& job, const Shop&) {
    std::vector<Sentence> out{
        {"The mould leaves along", enum_word<PullMode>("/split/mode", "way of the pull"),
         job.split.mode == PullMode::given ? ":" : "."},
        {"A face drags with less than",
         quantity_word("/split/drag_angle", "drag angle", Kind::angle, 0, radians(8),
                       "1° for a rough face, 2° to 3° for a fine one"),
         "of draft. Flat faces at the foot are",
         flag_word("/split/foot_open", "foot", "left open", "moulded too"), "."}};
    if (job.split.mode == PullMode::given) {
        out[0].insert(out[0].end(),
                      {"x", quantity_word("/split/pull/0", "pull along x", Kind::factor, -1, 1), ", y",
                       quantity_word("/split/pull/1", "pull along y", Kind::factor, -1, 1), ", z",
                       quantity_word("/split/pull/2", "pull along z", Kind::factor, -1, 1), "."});
    }
    return out;
}

}  // namespace jig::app
