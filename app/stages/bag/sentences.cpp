#include "app/stages/sentences.hpp"

namespace jig::app {

std::vector<Sentence> bag_sentences(const Job& job, const Shop&) {
    if (job.part.how == LayUp::hand || job.brief.process == Process::squeeze)
        return {{job.part.how == LayUp::hand ? "The part is laid by hand, open: it has no bag."
                                             : "A squeeze mould presses the part itself: it has no bag."}};
    const auto& b = job.bag;
    std::vector<Sentence> out{
        {"Over the last ply",
         flag_word("/bag/peel_ply", "peel ply", "peel ply is laid", "no peel ply is laid"), "and",
         enum_word<ReleaseFilm>("/bag/film", "release film"), "; the bag's film is cut",
         quantity_word("/bag/ease", "film's ease", Kind::ratio, 0, 0.5, "5 to 20 % is usual"),
         "larger than the face and its pleats stand up to",
         quantity_word("/bag/pleat", "tallest pleat", Kind::length, 0.02, 0.2), "."},
        {"It is", flag_word("/bag/second", "second bag", "closed by two bags", "closed by one bag"),
         "and has", quantity_word("/bag/hoses", "hoses", Kind::count, 1, 8),
         b.hoses == 1 ? "hose of" : "hoses of",
         quantity_word("/bag/hose", "hose length", Kind::length, 0.5, 10), "with a bore of",
         quantity_word("/bag/bore", "hose bore", Kind::length, 0.004, 0.03), ", through a trap of",
         quantity_word("/bag/trap", "trap", Kind::volume, 0.001, 0.03), "."},
        {"The pump of", quantity_word("/brief/pump", "pump", Kind::flow, 1.0 / 3600, 100.0 / 3600),
         "gets down to", quantity_word("/bag/ultimate", "pump's own limit", Kind::pressure, 10, 20000),
         "on a shut valve; the part wants",
         quantity_word("/bag/wanted", "pressure in the bag", Kind::pressure, 100, 60000,
                       "absolute: 0 is no air at all"),
         "of absolute pressure,",
         or_none(quantity_word("/bag/altitude", "altitude", Kind::length, 0, 3000), "at sea level"), "."},
        {"Ten minutes after the valve is shut it may have risen by",
         or_none(quantity_word("/bag/rise", "allowed rise in ten minutes", Kind::pressure, 100, 5000),
                 "what is usual for this process"),
         "."}};
    if (b.drop.readings.size() >= 2) {
        out.push_back({"The last drop test is read off the line through the readings below."});
        return out;
    }
    Sentence drop{"The last drop test:",
                  or_none(quantity_word("/bag/drop/seconds", "drop test for", Kind::duration, 0, 3600),
                          "not done yet")};
    if (b.drop.seconds > 0)
        drop.insert(drop.end(),
                    {", from", quantity_word("/bag/drop/from", "drop test from", Kind::pressure, 0, 60000),
                     "to", quantity_word("/bag/drop/to", "drop test to", Kind::pressure, 0, 60000)});
    drop.emplace_back(".");
    out.push_back(std::move(drop));
    return out;
}

}  // namespace jig::app
