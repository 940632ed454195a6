#include <fmt/format.h>

#include <cmath>

#include "core/stages/heat/findings.hpp"

namespace jig::heat {

Calls calls(const Choices& c, const Findings& f, const brief::Choices& brief, const shell::Findings& shell,
            const plug::Findings& plug, const part::Choices& part) {
    Calls out;
    const auto add = [&](Severity s, const char* key, std::string headline, std::string why,
                         std::optional<Fix> fix = {}) {
        out.push_back({Stage::heat, s, key, std::move(headline), std::move(why), std::move(fix)});
    };
    if (f.Tg_margin < c.Tg_margin) {
        add(f.Tg_margin < 0 ? Severity::stop : Severity::caution, "Tg",
            f.Tg_margin < 0 ? "The tool is " + quantity(Kind::warming, -f.Tg_margin) + " over its Tg of " +
                                  quantity(Kind::temperature, shell.Tg)
                            : "Only " + quantity(Kind::warming, f.Tg_margin) + " under the tool's Tg of " +
                                  quantity(Kind::temperature, shell.Tg),
            "A tool at its Tg creeps and loses its shape: choose a hotter resin and surface coat, post-cured "
            "in steps.");
    }
    if (std::abs(f.part_error) > brief.tolerance) {
        add(Severity::caution, "size",
            std::string("The part comes out ") + quantity(Kind::thickness, std::abs(f.part_error)) +
                (f.part_error < 0 ? " short over " : " long over ") + quantity(Kind::length, f.length),
            fmt::format("The tolerance is {}; cut the plug at {:.3f} % of size.",
                        quantity(Kind::thickness, brief.tolerance), 100 * f.plug_scale));
    }
    if (f.chain.shell_gel > plug.board.top_temperature) {
        add(Severity::stop, "plug_hot",
            plug.board.name + " stands " + quantity(Kind::temperature, plug.board.top_temperature) +
                "; the shell gels at " + quantity(Kind::temperature, f.chain.shell_gel),
            "The plug softens under the shell: lay thinner layers, or choose a cooler resin or a better "
            "board.");
    }
    if (part.gel_temperature > brief.top_temperature + 0.5) {
        add(Severity::caution, "brief_heat",
            "The part gels at " + quantity(Kind::temperature, part.gel_temperature) +
                ", hotter than the brief's " + quantity(Kind::temperature, brief.top_temperature),
            "The brief's top temperature is what the tool is judged by.",
            Fix{"Raise the brief to it", patch_of("brief", "top_temperature", part.gel_temperature)});
    }
    return out;
}

}  // namespace jig::heat
