#include "core/stages/split/work.hpp"

#include <fmt/format.h>

#include <cmath>

namespace jig::split {

Work work(const Choices& c, const Findings& split, bool plug, const Lists<jig::Board, Fastener, Rate>& shop) {
    Work out;
    double area = 0, dowels = 0;
    for (const auto& board : split.boards) {
        area += board.area;
        dowels += static_cast<double>(board.dowels.size());
    }
    if (area > 0 && plug) {
        const auto& stock = need(shop.boards, c.board, "split");
        out.buy(Ledger::once, Stage::split, stock.name, Kind::count, jig::sheets_for(area, stock), 0,
                stock.price, "sheets for parting boards, 30 % left over");
        out.buy(Ledger::once, Stage::split, c.dowel, Kind::count, dowels, 0,
                need(shop.fasteners, c.dowel, "split").price);
    }
    const double seam = split.set.seam_length;
    if (seam > 0 && plug)
        out.step(When::parting, Stage::split,
                 split.boards.size() == 1
                     ? std::string("fit the parting board with clay")
                     : fmt::format("fit {} parting boards with clay", split.boards.size()),
                 {at_rate(shop, "parting boards", seam)})
            .look("clay closes the line all round; dowels and keys stand along the pull");
    if (seam > 0) {
        auto& close = out.step(When::part, Stage::split, "bring the pieces together and bolt them",
                               {at_rate(shop, "closing the mould", seam)});
        close.ledger = Ledger::each;
        close.look("flanges lie on each other all round, dowels home, the seam shut");
    }
    return out;
}

}  // namespace jig::split
