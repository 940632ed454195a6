#include "app/stages/sentences.hpp"

namespace jig::app {

std::vector<Sentence> brief_sentences(const Job&, const Shop&) {
    return {{"Plan", text_word("/brief/job", "job"), "for", text_word("/brief/customer", "customer"), ": the",
             text_word("/brief/part", "part"), ", revision",
             quantity_word("/brief/revision", "revision", Kind::count, 0, 20), "."},
            {"Make", quantity_word("/brief/pulls", "pulls", Kind::count, 1, 300),
             "pulls, with a surface that is", enum_word<Grade>("/brief/grade", "surface grade"), ", by",
             enum_word<Process>("/brief/process", "part process"), "."},
            {"The tool sees up to",
             quantity_word("/brief/top_temperature", "top temperature", Kind::temperature, kelvin(15),
                           kelvin(180)),
             "and holds", quantity_word("/brief/tolerance", "tolerance", Kind::thickness, 0.0001, 0.01),
             "; it is",
             flag_word("/brief/assembly_jig", "assembly jig", "also the jig that parts are bonded in",
                       "used for moulding only"),
             "."},
            {"The shop has",
             quantity_word("/brief/people", "people", Kind::count, 1, 8),
             "people for",
             quantity_word("/brief/shift", "shift", Kind::hours, 4 * 3600, 12 * 3600),
             "a day, who lift",
             quantity_word("/brief/lift", "lift for one person", Kind::mass, 5, 30,
                           "local rules set this; 20 to 25 kg is common"),
             "each, a router of",
             quantity_word("/brief/router_x", "router travel along", Kind::length, 0.3, 6),
             "×",
             quantity_word("/brief/router_y", "router travel across", Kind::length, 0.3, 3),
             "×",
             quantity_word("/brief/router_z", "router travel up", Kind::length, 0.05, 1),
             ", an oven of",
             quantity_word("/brief/oven_x", "oven length", Kind::length, 0.3, 6),
             "×",
             quantity_word("/brief/oven_y", "oven width", Kind::length, 0.3, 4),
             "×",
             quantity_word("/brief/oven_z", "oven height", Kind::length, 0.3, 3),
             ", a door of",
             or_none(quantity_word("/brief/door_width", "door width", Kind::length, 0.5, 5), "any width"),
             "×",
             quantity_word("/brief/door_height", "door height", Kind::length, 0.5, 5),
             "and a pump of",
             quantity_word("/brief/pump", "pump", Kind::flow, 1.0 / 3600, 100.0 / 3600),
             "."}};
}

}  // namespace jig::app
