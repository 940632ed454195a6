#include "app/stages/sentences.hpp"

namespace jig::app {

std::vector<Sentence> shell_sentences(const Job& job, const Shop& shop) {
    if (plug::no_plug(job.plug)) {
        std::vector<Sentence> none{
            {"The mould is", enum_word<MouldWay>("/plug/direct/way", "way of making the mould"),
             "itself, so nothing is laid up: its wall is",
             quantity_word("/plug/direct/wall", "wall under the deepest place", Kind::length, 0.005, 0.15),
             "where it is thinnest."}};
        none.emplace_back(1, QString("A plug, and with it a laminate, is chosen in Plug; the stack that was "
                                     "laid out here is kept."));
        return none;
    }
    const auto school = enum_word<School>("/shell/school", "school");
    std::vector<Sentence> out{
        {"Build the shell in", shop_word("/shell/resin", "shell resin", shop.resins), ", laid",
         enum_word<LayUp>("/shell/how", "way of laying the shell"), "in the order below, from the plug out."},
        {"It started from the school of", school,
         QString("(%1); choosing one lays its stack afresh.").arg(shell::facts_of(job.shell.school).reason)},
        {"Post-cure it free-standing at",
         quantity_word("/shell/cure_temperature", "post-cure", Kind::temperature, kelvin(20), kelvin(180)),
         "; buy", quantity_word("/shell/waste", "waste of shell", Kind::ratio, 0, 0.5),
         "more than stays in it; thickness is counted in",
         shop_word("/shell/unit", "unit cloth", shop.reinforcements), "."},
        {"A pot holds", quantity_word("/shell/batch", "pot of resin", Kind::mass, 0.2, 10),
         "; overlaps step on by",
         quantity_word("/shell/stagger", "stagger of overlaps", Kind::length, 0, 0.3)}};
    if (job.shell.how == LayUp::infused)
        out.back().insert(
            out.back().end(),
            {"; hoses, medium and pots keep",
             quantity_word("/shell/pot_loss", "resin that stays behind", Kind::mass, 0, 20), "of resin."});
    else if (job.shell.how == LayUp::prepreg)
        out.back().insert(
            out.back().end(),
            {"; debulk every", quantity_word("/shell/debulk", "layers between debulks", Kind::count, 1, 12),
             "plies."});
    else
        out.back().emplace_back(".");
    out.push_back({"Seek a stack that sags",
                   quantity_word("/shell/seek/sag", "sag sought", Kind::thickness, 0.0001, 0.005),
                   "at most between ribs, weighs",
                   quantity_word("/shell/seek/mass", "mass sought", Kind::mass, 2, 200),
                   "at most and is laid in",
                   quantity_word("/shell/seek/days", "days sought", Kind::count, 1, 10), "days."});
    return out;
}

}  // namespace jig::app
