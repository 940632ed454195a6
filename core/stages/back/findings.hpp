#pragma once

#include <array>
#include <optional>

#include "core/base/shared.hpp"
#include "core/stages/back/choices.hpp"
#include "core/stages/back/crate.hpp"
#include "core/stages/shell/findings.hpp"

namespace jig::back {

struct Sag {
    double own = 0, person = 0, bag = 0;  ///< m
    [[nodiscard]] double worst() const { return std::max(person + own, bag + own); }
    bool operator==(const Sag&) const = default;
};

struct Findings {
    std::vector<Figure> figures;
    double span = 0;  ///< m between supports
    Sag sag;
    double pitch_for_limit = 0;  ///< m at which the skin sags by the limit; 0 where none is close enough
    Shared<Crate> crate;         ///< of plates; none for other backs
    int ribs = 0;                ///< plates, or lines of tubes
    double rib_area = 0;         ///< m² of board
    int sheets = 0;              ///< of board that the ribs are laid onto; 0 where only their area is known
    double bond_length = 0;      ///< m along which the back is bonded to the shell
    double tube_length = 0;      ///< m
    int legs = 0;                ///< of a grid of tubes
    double sandwich_area = 0;    ///< m² of core and inner skin
    StackSum sandwich;           ///< core and inner skin alone
    double mass = 0;             ///< kg
    double print = 0;            ///< how likely ribs show through: below 1 they hardly do
    std::string print_reason;
    bool operator==(const Findings&) const = default;
};

/// Core and inner skin, as layers on top of the shell's own.
std::vector<Layer> inner_layers(const Sandwich& sandwich);

/// K that Brief has to ask for before the tool has to go into an oven.
inline constexpr double kWarmRoom = kelvin(45);

/// Length, width and height of the tool as it stands, m: flange, shell and back; none without a tool.
std::optional<std::array<double, 3>> tool_box(const edge::Findings& edge, const shell::Findings& shell,
                                              const Choices& choices);

/// Strip of shell between two ribs, simply supported (the safe side: a continuous skin sags less).
Sag sag_at(double span, const Laminate& laminate, const Choices& choices);

Findings evaluate(const Choices& choices, const split::Findings& split, const edge::Findings& edge,
                  const shell::Findings& shell, const shell::Choices& shell_choices, const Library& shop,
                  Progress& progress);
Calls calls(const Choices& choices, const Findings& findings, const shell::Findings& shell,
            const edge::Findings& edge, const brief::Choices& brief);

}  // namespace jig::back
