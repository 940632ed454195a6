#include <algorithm>

#include "app/stages/sentences.hpp"

namespace jig::app {

namespace {

/// How resin is let in.
void add_infusion(const Job& job, std::vector<Sentence>& out) {
    const auto of = infused_shown(job);
    const auto& c = job.bag.of(of);
    const auto at = [&](const char* field) {
        return std::string(of == Infused::shell ? "/bag/shell_infusion/" : "/bag/infusion/") + field;
    };
    if (infuses(job, Infused::part) && infuses(job, Infused::shell))
        out.push_back({"Part and shell are both infused; hoses, front and pots here are those of",
                       enum_word<Infused>("/bag/shows", "whose resin is shown"), "."});
    else if (of == Infused::shell)
        out.push_back({"The shell is infused on its plug, flange and all."});
    Sentence plan{"Resin comes in by", enum_word<InfusionPlan>(at("plan"), "plan of the hoses")};
    if (c.plan == InfusionPlan::spine)
        plan.insert(plan.end(), {",", quantity_word(at("lines"), "feed lines", Kind::count, 1, 6),
                                 c.lines == 1 ? "of them," : "of them, the outer ones when resin comes,"});
    else if (c.plan == InfusionPlan::fishbone)
        plan.insert(plan.end(), {"with", quantity_word(at("lines"), "side lines each way", Kind::count, 1, 6),
                                 c.lines == 1 ? "line to each side," : "lines to each side,"});
    else
        plan.emplace_back(",");
    plan.emplace_back(flag_word(at("medium"), "flow medium", "under a flow medium", "without a flow medium"));
    if (c.medium)
        plan.insert(plan.end(), {"that ends", quantity_word(at("brake"), "brake", Kind::length, 0, 0.3),
                                 "before a vent"});
    plan.emplace_back(".");
    out.push_back(std::move(plan));
    out.push_back(
        {"The resin in the pot stands",
         quantity_word(at("below"), of == Infused::shell ? "pot under the top" : "pot under the rim",
                       Kind::length, -0.5, 2),
         of == Infused::shell ? "under the shell's top; the first feed opens"
                              : "under the rim; the first feed opens",
         quantity_word(at("waited"), "time since mixing", Kind::duration, 0, 3600), "after it was mixed."});
    Sentence hoses{"At most", quantity_word(at("pot"), "pot", Kind::mass, 0.2, 20),
                   "are mixed at once; each feed draws it through",
                   or_none(quantity_word(at("hose"), "hose of a feed, its length", Kind::length, 0, 10),
                           "no hose of its own")};
    if (c.hose > 0)
        hoses.insert(hoses.end(), {"with a bore of", quantity_word(at("bore"), "hose of a feed, its bore",
                                                                   Kind::length, 0.004, 0.02)});
    hoses.insert(hoses.end(),
                 {"; once it is full", enum_word<WhenFull>(at("when_full"), "once it is full"), "."});
    out.push_back(std::move(hoses));
    out.push_back({"The preform lets through",
                   quantity_word(at("lets"), "permeability, of the library's", Kind::factor, 0.1, 10,
                                 "by your own fronts below; 1 is the library's typical figure"),
                   "times what the library says, and along the rim resin runs",
                   quantity_word(at("race"), "race along the rim", Kind::factor, 1, 50,
                                 "1 where cloth fills the edge; 10 and more where a gap is left"),
                   "times as well."});
}

/// How the part is pressed or laid where it has no bag.
std::vector<Sentence> bagless(const Job& job) {
    if (job.brief.process == Process::squeeze)
        return {{"A squeeze mould presses the part itself, with",
                 quantity_word("/edge/squeeze", "squeeze pressure", Kind::pressure, 0, 500000),
                 "on its face; it has no bag."},
                {"The threads of its bolts are", enum_word<Thread>("/bag/clamp/thread", "threads"),
                 "; each is drawn with",
                 or_none(quantity_word("/bag/clamp/torque", "torque", Kind::torque, 0, 200),
                         "what that pressure asks for"),
                 ", crosswise, in three rounds."}};
    return {{"The part is laid by hand, open: it has no bag."}};
}

/// What lies over the part's last ply.
void add_layers(const Job& job, std::vector<Sentence>& out) {
    const auto& b = job.bag;
    Sentence over{"Over the last ply",
                  flag_word("/bag/peel_ply", "peel ply", "peel ply is laid", "no peel ply is laid"), "and",
                  enum_word<ReleaseFilm>("/bag/film", "release film")};
    if (job.part.how != LayUp::infused)
        over.insert(over.end(), {",", flag_word("/bag/breather", "breather", "under breather",
                                                "with no breather over it")});
    over.emplace_back(".");
    out.push_back(std::move(over));
    Sentence way{"It is closed by", enum_word<BagWay>("/bag/way", "what closes it")};
    if (b.way == BagWay::tube)
        way.insert(way.end(),
                   {"that lies", or_none(quantity_word("/bag/tube", "tube that you have, lying flat",
                                                       Kind::length, 0.1, 6, "0 for the shop's"),
                                         "as wide as the shop's")});
    if (b.wraps())
        way.insert(way.end(),
                   {",", quantity_word("/bag/ease", "film's ease", Kind::ratio, 0, 0.5, "5 to 20 % is usual"),
                    "larger than the tool is round"});
    way.emplace_back(".");
    out.push_back(std::move(way));
    if (b.way != BagWay::surface) return;
    Sentence film{"The film is",
                  or_none(quantity_word("/bag/sheet_length", "film that you have, its length", Kind::length,
                                        0.1, 20, "0 for one that is cut to size"),
                          "cut to size")};
    if (b.sheet_length > 0)
        film.insert(film.end(),
                    {"by", or_none(quantity_word("/bag/sheet_width", "film that you have, its width",
                                                 Kind::length, 0.1, 20),
                                   "a width still to be said")});
    if (!b.own_sheet())
        film.insert(
            film.end(),
            {",", quantity_word("/bag/ease", "film's ease", Kind::ratio, 0, 0.5, "5 to 20 % is usual"),
             "larger than the face"});
    film.insert(film.end(), {", and its pleats stand up to",
                             quantity_word("/bag/pleat", "tallest pleat", Kind::length, 0.02, 0.2), "."});
    out.push_back(std::move(film));
}

/// Hoses, trap and pump, which draw on whatever is bagged, part or shell.
void add_pump(const Job& job, const Shop& shop, bool of_part, std::vector<Sentence>& out) {
    const auto& b = job.bag;
    std::vector<Option> pumps{{Json(""), "a pump of its own figures"}};
    for (const auto& p : shop.pumps) pumps.push_back({Json(p.name), QString::fromStdString(p.name)});
    Sentence pump{"It is emptied by", choice_word("/bag/pump", "pump", std::move(pumps))};
    if (b.pump.empty())
        pump.insert(
            pump.end(),
            {", of", quantity_word("/brief/pump", "pump's speed", Kind::flow, 1.0 / 3600, 100.0 / 3600),
             "and down to", quantity_word("/bag/ultimate", "pump's own limit", Kind::pressure, 10, 20000),
             "on a shut valve"});
    pump.emplace_back(".");
    Sentence lines{of_part && b.way == BagWay::surface ? "It is" : "It has"};
    if (of_part && b.way == BagWay::surface)
        lines.insert(
            lines.end(),
            {flag_word("/bag/second", "second bag", "closed by two bags", "closed by one bag"), "and has"});
    if (b.placed_of(RimThing::hose) > 0)
        lines.emplace_back(QString("%1 %2 of").arg(b.hoses_out()).arg(b.hoses_out() == 1 ? "hose" : "hoses"));
    else
        lines.insert(lines.end(), {quantity_word("/bag/hoses", "hoses", Kind::count, 1, 8),
                                   b.hoses == 1 ? "hose of" : "hoses of"});
    std::vector<Option> traps{{Json(""), "a trap"}};
    for (const auto& t : shop.traps) traps.push_back({Json(t.name), QString::fromStdString(t.name)});
    lines.insert(lines.end(),
                 {quantity_word("/bag/hose", "hose length", Kind::length, 0.5, 10), "with a bore of",
                  quantity_word("/bag/bore", "hose bore", Kind::length, 0.004, 0.03), ", through",
                  choice_word("/bag/catcher", "trap before the pump", std::move(traps))});
    if (b.catcher.empty())
        lines.insert(lines.end(), {"of", quantity_word("/bag/trap", "trap", Kind::volume, 0.001, 0.03)});
    lines.emplace_back(".");
    out.push_back(std::move(lines));
    out.push_back(std::move(pump));
    std::vector<Option> gauges{{Json(""), "a gauge that is not named"}};
    for (const auto& g : shop.gauges) gauges.push_back({Json(g.name), QString::fromStdString(g.name)});
    out.push_back(
        {"The vacuum is read off", choice_word("/bag/gauge", "vacuum gauge", std::move(gauges)), "."});
    Sentence switching{"The pump", flag_word("/bag/switching/switches", "pump that switches by itself",
                                             "stops and starts by itself", "runs on")};
    if (b.switching.switches)
        switching.insert(
            switching.end(),
            {", down to", quantity_word("/bag/switching/low", "pump stops at", Kind::pressure, 100, 60000),
             "and again from",
             quantity_word("/bag/switching/high", "pump starts at", Kind::pressure, 100, 60000),
             "; between two runs it was seen to rest for",
             or_none(quantity_word("/bag/switching/rests", "pump rests for", Kind::duration, 0, 36000),
                     "a time not watched yet")});
    switching.emplace_back(".");
    out.push_back(std::move(switching));
    out.push_back({of_part ? "The part wants" : "The shell wants",
                   quantity_word("/bag/wanted", "pressure in the bag", Kind::pressure, 100, 60000,
                                 "absolute: 0 is no air at all"),
                   "of absolute pressure,",
                   or_none(quantity_word("/bag/altitude", "altitude", Kind::length, 0, 3000), "at sea level"),
                   "."});
}

void add_drop_test(const Job& job, std::vector<Sentence>& out) {
    const auto& b = job.bag;
    out.push_back(
        {"Ten minutes after the valve is shut it may have risen by",
         or_none(quantity_word("/bag/rise", "allowed rise in ten minutes", Kind::pressure, 100, 5000),
                 "what is usual for this process"),
         "."});
    Sentence alone{
        "Pump, trap and hoses alone:",
        or_none(quantity_word("/bag/alone/seconds", "test of the lines for", Kind::duration, 0, 3600),
                "not tested yet")};
    if (b.alone.seconds > 0)
        alone.insert(
            alone.end(),
            {", from", quantity_word("/bag/alone/from", "test of the lines from", Kind::pressure, 0, 60000),
             "to", quantity_word("/bag/alone/to", "test of the lines to", Kind::pressure, 0, 60000)});
    alone.emplace_back(".");
    out.push_back(std::move(alone));
    if (b.drop.readings.size() >= 2) {
        out.push_back({"The last drop test is read off the line through the readings below."});
        return;
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
}

}  // namespace

std::vector<Sentence> bag_sentences(const Job& job, const Shop& shop) {
    const bool bagged = job.brief.process != Process::squeeze && job.part.how != LayUp::hand;
    const bool infused = infuses(job, infused_shown(job));
    std::vector<Sentence> out;
    if (!bagged) out = bagless(job);
    if (infused) add_infusion(job, out);
    if (bagged) add_layers(job, out);
    if (bagged || infused) add_pump(job, shop, bagged, out);
    if (bagged) add_drop_test(job, out);
    return out;
}

}  // namespace jig::app
