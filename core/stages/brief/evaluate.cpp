#include <fmt/format.h>

#include <cmath>

#include "core/stages/brief/findings.hpp"

namespace jig::brief {

Findings evaluate(const Figured& c, const Library& shop) {
    Findings out;
    const std::string grade(file_word(c.grade));
    out.plug_hours_m2 = shop.rate("sanding " + grade);
    out.part_hours_m2 = shop.rate("finishing " + grade);
    // Plug and mould finished to the grade, against a structural plug and every part finished by hand.
    const double extra = 1.5 * (out.plug_hours_m2 - shop.rate("sanding structural"));
    const double saved =
        shop.rate("paint kept out of part") * (out.part_hours_m2 - shop.rate("finishing structural"));
    out.break_even = saved > 0 ? extra / saved : 0;
    out.figures = {
        {"pulls", "pulls planned", Kind::count, static_cast<double>(c.pulls), "your choice above"},
        {"plug_finish", "finishing plug and mould, per m²", Kind::hours, out.plug_hours_m2 * 3600,
         fmt::format("shop rate \"sanding {}\" = {:.1f} h/m² on the plug; half of it again on the mould",
                     grade, out.plug_hours_m2)},
        {"part_finish", "finishing each part by hand, per m²", Kind::hours, out.part_hours_m2 * 3600,
         fmt::format("shop rate \"finishing {}\" = {:.1f} h/m²", grade, out.part_hours_m2)},
        {"break_even", "finish the plug from this many pulls", Kind::factor, out.break_even,
         saved > 0 ? fmt::format("{:.1f} h/m² more on plug and mould ÷ {:.2f} h/m² saved on each part", extra,
                                 saved)
                   : std::string("this grade asks for no finish that a mould could save")}};
    // Pull-down t = V/S·ln(p0/p1), turned round for one minute down to 100 mbar.
    out.figures.push_back({"pump_minute", "the pump empties in a minute", Kind::volume,
                           c.pump * 60 / std::log(101325.0 / 10000.0),
                           "S·t ÷ ln(p0/p1) from the room's pressure to 100 mbar, no leak"});
    return out;
}

}  // namespace jig::brief
