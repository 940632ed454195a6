#include "core/stages/edge/work.hpp"

#include <fmt/format.h>

namespace jig::edge {

Work work(const Choices& c, const Findings& edge, double seam, bool plug, const std::string& stock,
          const Lists<Board, Fastener, Consumable, Rate>& shop) {
    Work out;
    if (edge.area > 0 && plug) {
        const auto& board = need(shop.boards, stock, "edge");
        out.buy(Ledger::once, Stage::edge, board.name, Kind::count, sheets_for(edge.area, board), 0,
                board.price, "sheets for flange boards, 30 % left over");
        out.step(When::parting, Stage::edge, "set up the flange boards and clay fillet",
                 {at_rate(shop, "flange boards", edge.area)})
            .look("boards stand firm, the fillet runs without a gap, lands are masked");
    }
    if (plug)
        out.consumable(Ledger::once, Stage::edge, "clay fillet", Kind::mass, 0.15 * (edge.rim_length + seam),
                       shop);
    const auto buy = [&](const std::string& name, double count) {
        if (count > 0)
            out.buy(Ledger::once, Stage::edge, name, Kind::count, count, 0,
                    need(shop.fasteners, name, "edge").price);
    };
    buy(c.bolt, edge.bolts);
    buy(c.dowel, edge.count(Fitting::dowel));
    buy("threaded bush M8", edge.count(Fitting::bush));
    buy("jacking screw M10", edge.count(Fitting::jack));
    buy("air port with valve", edge.count(Fitting::port));
    double holes = edge.bolts;
    for (const auto kind : {Fitting::dowel, Fitting::bush, Fitting::jack, Fitting::port, Fitting::wedge})
        holes += edge.count(kind);
    if (holes > 0)
        out.step(When::drill, Stage::edge,
                 fmt::format("drill the flange from its template: {:.0f} places", holes),
                 {at_rate(shop, "drilling flange", holes)})
            .look(plug ? "the template lay on its marks; holes are clear and square, no glass stands up"
                       : "the template lay on its marks; holes are clear and square, no burr stands up");
    return out;
}

}  // namespace jig::edge
