#include <fmt/format.h>

#include <cmath>

#include "core/stages/heat/findings.hpp"

namespace jig::heat {

Findings evaluate(const Choices& c, const brief::Choices& brief, const shape::Findings& shape,
                  const plug::Findings& plug, const shell::Findings& shell, const part::Choices& part_choices,
                  const part::Findings& part) {
    Findings out;
    out.length = std::max(shape.measures.size.x(), shape.measures.size.y());
    const auto mean = [](const Laminate& l) { return (l.cte[0] + l.cte[1]) / 2; };
    out.chain.room = c.room;
    out.chain.plug_alpha = plug.board.alpha;
    out.chain.shell_gel = c.shell_gel > 0 ? c.shell_gel : shell.resin.gel_temperature;
    out.chain.shell_alpha = mean(shell.stack.laminate);
    out.chain.shell_cure_shrinkage = shell.resin.shrinkage;
    out.chain.part_gel = part_choices.gel_temperature;
    out.chain.part_alpha = mean(part.stack.laminate);
    out.chain.part_cure_shrinkage = part.resin.shrinkage;
    out.sizes = grow(out.chain);
    out.part_error = out.sizes.part_room * out.length;
    out.plug_scale = 1 / (1 + out.sizes.part_room);
    out.Tg_margin = shell.Tg - brief.top_temperature;
    const auto& pl = part.stack.laminate;
    out.spring_in = spring_in(c.corner, out.chain.part_alpha, pl.cte_through, -part.resin.shrinkage,
                              -3 * part.resin.shrinkage, c.room - out.chain.part_gel);
    const auto um = [](double a) { return quantity(Kind::expansion, a); };
    out.figures = {
        {"tool_room", "tool against plug, in the room", Kind::thickness, out.sizes.tool_room * out.length,
         fmt::format("plug grown by {} × {:.0f} K where the shell gels, shell shrinks {:.2f} % in cure and "
                     "{} × {:.0f} K on cooling, over {}",
                     um(out.chain.plug_alpha), out.chain.shell_gel - c.room,
                     100 * out.chain.shell_cure_shrinkage, um(out.chain.shell_alpha),
                     out.chain.shell_gel - c.room, quantity(Kind::length, out.length))},
        {"tool_hot", "tool where the part gels", Kind::thickness, out.sizes.tool_hot * out.length,
         fmt::format("and grown by {} × {:.0f} K", um(out.chain.shell_alpha), out.chain.part_gel - c.room)},
        {"part_error", "part against drawing", Kind::thickness, out.part_error,
         fmt::format(
             "the part takes the tool's size at {}, shrinks {:.2f} % in cure and {} × {:.0f} K on cooling",
             quantity(Kind::temperature, out.chain.part_gel), 100 * out.chain.part_cure_shrinkage,
             um(out.chain.part_alpha), out.chain.part_gel - c.room)},
        {"plug_scale", "scale the plug by", Kind::scale, out.plug_scale,
         "1 ÷ (1 + the part's relative error)"},
        {"spring_in", "a square corner closes by", Kind::angle, out.spring_in,
         fmt::format("θ·[(αl − αt)·ΔT/(1 + αt·ΔT) + (φl − φt)/(1 + φt)], αl {}, αt {}",
                     um(out.chain.part_alpha), um(pl.cte_through))},
        {"Tg", "the tool's Tg", Kind::temperature, shell.Tg,
         "the lower of laminating resin and surface coat"},
        {"Tg_margin", "margin under Tg", Kind::warming, out.Tg_margin,
         "Tg less the top temperature " + quantity(Kind::temperature, brief.top_temperature)}};
    return out;
}

}  // namespace jig::heat
