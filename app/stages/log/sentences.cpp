#include "app/stages/sentences.hpp"

namespace jig::app {

std::vector<Sentence> log_sentences(const Job&, const Shop&) {
    return {
        {"The tool's own record, newest last. Weigh each part and note the release coats: the figures learn "
         "from it."}};
}

}  // namespace jig::app
