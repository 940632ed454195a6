// What closes the part: a film round its face, one round the whole tool, or a bag that is used again.
#pragma once

#include "core/science/nest/cut_sheets.hpp"
#include "core/science/vacuum/wrap.hpp"
#include "core/stages/back/findings.hpp"
#include "core/stages/bag/choices.hpp"
#include "core/stages/plug/choices.hpp"
#include "core/stages/release/findings.hpp"

namespace jig::bag {

/// What of shell and back a film round the whole tool meets; nothing for another way, which never meets them.
struct ToolBehind {
    Behind form;
    double gap = 0;        ///< m of air between ribs; 0 where there are none
    bool tried_as = true;  ///< whether Back tries the tool in such a bag
    bool operator==(const ToolBehind&) const = default;
};
ToolBehind tool_behind(const Choices& choices, const shell::Findings& shell,
                       const back::Choices& back_choices, const back::Findings& back,
                       const plug::Choices& plug);

/// Whether a bag is stuck to the flange of the mould: not laid open, nor squeezed, nor in a film all round.
bool stuck_to_flange(const Choices& choices, LayUp how, Process process);
release::TapeLand tape_land(const Choices& choices, const part::Choices& part, const brief::Making& brief);

/// A film round the whole tool as it is cut.
struct Wrap {
    Round round;     ///< of the tool alone
    int sheets = 0;  ///< 0 for another way; 1 for a tube or a sheet that is folded
    bool tube = false;
    double length = 0, width = 0;  ///< m of each sheet, or of the tube lying flat
    double seam = 0;               ///< m that are stuck
    int joins = 0;                 ///< between widths of the roll, of each sheet
    double wanted = 0;             ///< m that the tube would have to lie wide
    double bends = 0;              ///< m, radius of it between two ribs; 0 where it lies everywhere
    [[nodiscard]] double area() const { return sheets * (tube ? 2 : 1) * length * width; }
    [[nodiscard]] bool fits() const { return !tube || wanted <= width * (1 + 1e-9); }
    bool operator==(const Wrap&) const = default;
};

/// `land` is the width of a seam's tape, m; `stock` the film or the tube of the shop.
Wrap wrap_of(const Choices& choices, const Round& round, const ToolBehind& behind, double land,
             const Consumable& stock);

/// Name in the shop library of what closes it.
const char* closed_with(const Choices& choices);

/// A sheet of the wrap with its seams, and its fold.
SheetSet wrap_sheet(const Wrap& wrap, double land);

}  // namespace jig::bag
