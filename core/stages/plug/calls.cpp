#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/stages/plug/findings.hpp"

namespace jig::plug {

Calls calls(const Choices& c, const Findings& f, const brief::Choices& brief) {
    Calls out;
    if (f.too_large) {
        out.push_back({Stage::plug,
                       Severity::caution,
                       "sheet_size",
                       "The largest slab does not go onto one sheet of " +
                           quantity(Kind::length, f.board.sheet_length) + " × " +
                           quantity(Kind::length, f.board.sheet_width),
                       "Join sheets edge to edge first and stagger the joints from slab to slab, or choose "
                       "larger stock.",
                       {}});
    }
    const double longest = std::max(brief.router_x, brief.router_y),
                 shortest = std::min(brief.router_x, brief.router_y);
    for (const auto& slab : f.stack.slabs) {
        if (slab.outline.empty()) continue;
        const Point2 size = high_corner(slab.outline) - low_corner(slab.outline);
        if (size.maxCoeff() <= longest && size.minCoeff() <= shortest) continue;
        out.push_back(
            {Stage::plug,
             Severity::note,
             "router",
             fmt::format("Slab {} does not go onto the router: {} × {}", slab.number,
                         quantity(Kind::length, size.maxCoeff()), quantity(Kind::length, size.minCoeff())),
             "Cut it by hot wire or saw from the full-size sheet, or in two pieces.",
             {}});
        break;
    }
    if (f.board.porous && c.barrier == Barrier::none) {
        out.push_back({Stage::plug, Severity::stop, "porous", f.board.name + " is porous and has no barrier",
                       "Air comes through, release fails and the shell sticks.",
                       Fix{"Skin it with epoxy", patch_of("plug", "barrier", "epoxy")}});
    }
    if (f.mass > brief.lift) {
        const int hands = static_cast<int>(std::ceil(f.mass / brief.lift));
        out.push_back({Stage::plug,
                       hands > 4 ? Severity::caution : Severity::note,
                       "lift",
                       fmt::format("Plug {}: {} people or a hoist to lift and turn it",
                                   quantity(Kind::mass, f.mass), hands),
                       "Counted at " + quantity(Kind::mass, brief.lift) +
                           " for one person; plan the lift before the plug is glued.",
                       {}});
    }
    return out;
}

}  // namespace jig::plug
