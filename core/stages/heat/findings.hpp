#pragma once

#include "core/base/shared.hpp"
#include "core/science/heat/growth.hpp"
#include "core/stages/back/choices.hpp"
#include "core/stages/heat/choices.hpp"
#include "core/stages/heat/folds.hpp"
#include "core/stages/heat/one_go.hpp"
#include "core/stages/heat/oven.hpp"
#include "core/stages/part/findings.hpp"
#include "core/stages/shell/findings.hpp"

namespace jig::heat {

struct Findings {
    std::vector<Figure> figures;
    GrowthChain chain;
    GrowthSizes sizes;
    double length = 0;        ///< m, the part's longest side
    double part_error = 0;    ///< m over that length, with the plug cut at the size that is chosen
    double spring_in = 0;     ///< rad
    double Tg = 0;            ///< K that its cures have brought the tool to
    double Tg_margin = 0;     ///< K left under the tool's Tg at the top temperature
    double part_Tg = 0;       ///< K that the part's resin reaches in its cure
    Shared<Cures> cures;      ///< what each programme does through its wall
    FoldsUse folds;           ///< what the part's folds do
    OvenUse oven;             ///< what they ask of it, where that is known
    OneGo shell_go, part_go;  ///< how hot either becomes, by how thick it is laid at once
    double plug_scale = 1;    ///< to cut the plug by so that the part comes out right
    /// How thick that which a cure hardens may be laid at once; none where nothing is laid for it.
    [[nodiscard]] const OneGo* go(CureOf of) const {
        const auto* out = of == CureOf::on_plug ? &shell_go : of == CureOf::part ? &part_go : nullptr;
        return out != nullptr && !out->curve.empty() ? out : nullptr;
    }
    bool operator==(const Findings&) const = default;
};

/// `routes` says how the plug is made: a splash is a mould more in the chain.
Findings evaluate(const Choices& choices, const brief::Limits& brief, const shape::Findings& shape,
                  const plug::Choices& routes, const plug::Findings& plug, const shell::Findings& shell,
                  const part::Choices& part_choices, const part::Findings& part, const Cures& cures,
                  const ShellGo& shell_go, const PartGo& part_go, const FaceFolds& folds,
                  const FoldZones& fold_zones, const Library& shop);

/// With the oven's figures after its own.
Findings with_oven(Findings findings, const Choices& choices, const OvenUse& oven);

/// All that is warmed with the tool.
struct Warmed {
    const brief::Choices& brief;
    const plug::Findings& plug;
    const shell::Choices& shell_choices;
    const shell::Findings& shell;
    const back::Choices& back;
    const part::Choices& part;
    Library shop;
};
Calls calls(const Choices& choices, const Findings& findings, const Warmed& with);

}  // namespace jig::heat
