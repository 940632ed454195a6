#include "app/stages/sentences.hpp"

namespace jig::app {

std::vector<Sentence> log_sentences(const Job&, const Shop&) {
    return {
        {"The tool's own record, newest last. Weigh each part and note each coat with its time: the gate and "
         "the figures below are worked out from it."}};
}

}  // namespace jig::app
