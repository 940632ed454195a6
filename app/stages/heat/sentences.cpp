#include "app/stages/sentences.hpp"

namespace jig::app {

std::vector<Sentence> heat_sentences(const Job& job, const Shop& shop) {
    const bool direct = plug::no_plug(job.plug);
    std::vector<Sentence> out{
        {"The shop is at",
         quantity_word("/heat/room", "room temperature", Kind::temperature, kelvin(5), kelvin(35)),
         "; the part gels at",
         quantity_word("/part/gel_temperature", "part gels at", Kind::temperature, kelvin(15), kelvin(180)),
         "and the tool is kept", quantity_word("/heat/Tg_margin", "margin under Tg", Kind::warming, 0, 60),
         direct ? "under what it bears." : "under its Tg."},
        {"A hold counts from when the slowest place is within",
         quantity_word("/heat/within", "band of a hold", Kind::warming, 1, 20), "of the air, which gives it",
         quantity_word("/heat/transfer", "heat transfer", Kind::factor, 4, 60,
                       "W/m²·K: 5 to 10 in still air, 10 to 30 in an oven that blows"),
         "W/m²·K; the oven climbs by",
         quantity_word("/heat/climbs", "what the oven climbs by at most", Kind::heating, 2.0 / 3600,
                       200.0 / 3600),
         "at most. By its own heat a lay-up may run",
         quantity_word("/heat/runs_past", "what a lay-up may run past its air", Kind::warming, 5, 80,
                       "typical: 20 to 40 K; where it prints or the plug is soft, less"),
         "past its air."}};
    Sentence oven{
        "It is cured in a",
        shop_word("/heat/oven/build", "how the oven is built", shop.ovens),
        "whose heater gives",
        or_none(quantity_word("/heat/oven/power", "the oven's heater", Kind::power, 0, 60000,
                              "0 where it is not known: then nobody says whether it keeps up"),
                "nobody knows how much"),
        ";",
        quantity_word("/heat/oven/tools", "such tools in one load", Kind::count, 1, 12),
        job.heat.oven.tools == 1 ? "such tool cures in one load, with" : "such tools cure in one load, with",
        quantity_word("/heat/oven/others", "what else stands in the oven", Kind::mass, 0, 500,
                      "racks, trays, another tool"),
        "of other things."};
    if (!job.heat.oven.map.empty()) {
        oven.push_back(" Its map was read at");
        oven.push_back(quantity_word("/heat/oven/mapped_at", "what it was set to while its map was read",
                                     Kind::temperature, kelvin(30), kelvin(250)));
        oven.push_back(".");
    }
    oven.push_back(" On the stand are");
    oven.push_back(enum_word<OnStand>("/heat/stands", "what of it stands on the tool"));
    if (job.heat.stands == OnStand::thermocouples) {
        oven.push_back("of");
        oven.push_back(enum_word<CureOf>("/heat/shows", "whose thermocouples are shown"));
    }
    oven.push_back(".");
    out.push_back(std::move(oven));
    if (direct) {
        // Nothing gels on a plug.
    } else if (job.heat.shell_gel > 0) {
        out.push_back(
            {"Plug and shell are at",
             quantity_word("/heat/shell_gel", "shell gels at", Kind::temperature, kelvin(10), kelvin(80)),
             "when the shell gels."});
    } else {
        out.push_back({"The shell gels at",
                       choice_word("/heat/shell_gel", "shell gels at",
                                   {{0.0, "its resin's own temperature"},
                                    {kelvin(25), "25 °C"},
                                    {kelvin(35), "35 °C"},
                                    {kelvin(45), "45 °C"}}),
                       "."});
    }
    out.push_back({direct ? "The mould is cut at" : "The plug is cut at",
                   quantity_word("/heat/plug_scale", direct ? "size of the mould" : "size of the plug",
                                 Kind::scale, 0.95, 1.05, "100 % is the drawing's"),
                   "of the drawing's size."});
    out.push_back({"Spring-in is judged at a corner of",
                   quantity_word("/heat/corner", "corner", Kind::angle, radians(20), radians(150)),
                   "; the part's own folds are",
                   flag_word("/heat/opened", "whether the drawing has them opened",
                             "opened in the drawing already", "drawn as the part is wanted"),
                   "."});
    return out;
}

}  // namespace jig::app
