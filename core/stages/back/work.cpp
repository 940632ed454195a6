#include "core/stages/back/work.hpp"

#include <fmt/format.h>

#include "core/stages/stack_goods.hpp"

namespace jig::back {

Work work(const Choices& c, const Findings& back, double pieces, const shell::Choices& shell_choices,
          const shell::Findings& shell, double cured,
          const Lists<Reinforcement, SurfaceCoat, Core, Board, Consumable, Fastener, Bonding, Rate>& shop) {
    Work out;
    const auto once = Ledger::once;
    const double waste = shell_choices.waste, bonded = pieces * back.bond_length;
    const auto boards = [&](const std::string& name) {
        const auto& board = need(shop.boards, name, "back");
        if (back.sheets > 0)
            out.buy(once, Stage::back, board.name, Kind::count, pieces * back.sheets, 0, board.price,
                    "sheets, as the ribs are laid onto them");
        else
            out.buy(once, Stage::back, board.name, Kind::count, sheets_for(pieces * back.rib_area, board), 0,
                    board.price, "sheets, 30 % left over");
    };
    // Cut and fitted while the shell cures, bonded on after it.
    std::vector<Labour> making;
    switch (c.kind) {
        case BackKind::none:
            return out;
        case BackKind::egg_crate:
            boards(c.board);
            break;
        case BackKind::foam_blocks:
            boards(c.foam.board);
            buy_stack(out, once, Stage::back, back.sandwich, shell.resin, pieces * back.sandwich_area, {}, 1,
                      waste, shop);
            making.push_back(at_rate(shop, "laying ply", c.foam.plies * pieces * back.sandwich_area));
            break;
        case BackKind::tubes:
        case BackKind::frame:
            out.consumable(once, Stage::back, c.tubes.metal == Metal::steel ? "steel tube" : "aluminium tube",
                           Kind::mass, pieces * back.mass, shop);
            if (c.kind == BackKind::frame)
                out.buy(once, Stage::back, "levelling foot M12", Kind::count,
                        pieces * c.feet.along * c.feet.across, 0,
                        need(shop.fasteners, "levelling foot M12", "back").price);
            out.step(When::back, Stage::back, fmt::format("weld the back: {:.0f} legs", pieces * back.legs),
                     {at_rate(shop, "welding a frame", 2.0 * pieces * back.legs)});
            break;
        case BackKind::sandwich: {
            buy_stack(out, once, Stage::back, back.sandwich, shell.resin, back.sandwich_area, {}, 1, waste,
                      shop);
            auto& step = out.step(When::back, Stage::back, "core and inner skin",
                                  {at_rate(shop, "laying ply", c.sandwich.plies * back.sandwich_area),
                                   at_rate(shop, "laying core", back.sandwich_area)});
            step.can_break = false;
            step.wait = cured;
            return out;
        }
    }
    if (back.crate) {
        making.push_back(at_rate(shop, "cutting ribs", pieces * back.crate->cut_length));
        making.push_back(at_rate(shop, "fitting ribs", pieces * back.ribs));
        out.step(When::back, Stage::back, fmt::format("cut and fit {:.0f} ribs", pieces * back.ribs), making)
            .look("dry on the shell: an even gap all along, none pressed home");
    }
    const auto& bond = need(shop.bonds, c.joint.bond == Bond::hard ? c.joint.paste : c.joint.strip, "back");
    constexpr double kFillet = 0.15, kOver = 0.1;  // kg of paste a metre; share bought over
    out.buy(once, Stage::back, bond.name, bond.by_length ? Kind::length : Kind::mass,
            bond.by_length ? bonded : kFillet * bonded, kOver, bond.price);
    std::vector<Labour> bonding{at_rate(shop, "bonding ribs", bonded)};
    if (c.joint.bond == Bond::soft) {
        // On both sides, onto the shell and up the rib.
        const double area = bonded * 2 * 2 * c.joint.tab;
        const std::vector<Layer> tab(static_cast<std::size_t>(c.joint.plies),
                                     {LayerKind::ply, c.joint.cloth, 0, 0});
        buy_stack(out, once, Stage::back, sum_stack(tab, shell.resin, LayUp::hand, shop, "back tab"),
                  shell.resin, area, {}, 1, waste, shop);
        bonding.push_back(at_rate(shop, "laying ply", c.joint.plies * area));
    }
    out.step(When::back, Stage::back, "bond the back to the shell", std::move(bonding))
        .look(is_solid(shell.stack)
                  ? "joints are full, the mould lies on its face as it did, nothing holds it bent"
                  : "joints are full, the shell lies on its plug as it did, nothing holds it bent")
        .wait = cured;
    return out;
}

}  // namespace jig::back
