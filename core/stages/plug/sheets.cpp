#include "core/stages/plug/sheets.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace jig::plug {

Cutting cutting(const std::vector<Plan>& plans, const Choices& c, double scale, const Library& shop) {
    Cutting out;
    for (const auto& plan : plans) {
        auto pieces = cut_pieces(plan, c, scale);
        if (pieces.empty()) continue;
        const auto& board = stock_of(plan, c, shop);
        auto stock = std::find_if(out.stocks.begin(), out.stocks.end(),
                                  [&](const Stock& s) { return s.board.name == board.name; });
        if (stock == out.stocks.end())
            stock = out.stocks.insert(stock, {board, sheet_rules(plan, c, shop), {}});
        const auto before = static_cast<int>(stock->pieces.size());
        for (auto& piece : pieces) {
            if (piece.inside >= 0) piece.inside += before;
            if (plans.size() > 1) piece.name = plan.body + " " + piece.name;
            stock->pieces.push_back(std::move(piece));
        }
    }
    return out;
}

std::vector<SheetSet> lay(const Cutting& cutting, Progress& progress) {
    std::vector<SheetSet> out;
    for (const auto& stock : cutting.stocks)
        out.push_back(lay_onto_sheets(stock.pieces, stock.rules, progress));
    return out;
}

void take_sheets(std::vector<Plan>& plans, const Choices& c, const Cutting& cutting,
                 const std::vector<SheetSet>& laid, const Library& shop) {
    const double labour = shop.rate("labour");
    for (std::size_t k = 0; k < cutting.stocks.size(); ++k) {
        const auto& stock = cutting.stocks[k];
        auto count = static_cast<int>(laid.at(k).sheets.size());
        auto how = fmt::format("{} pieces laid onto sheets of {} × {}, {:.0f} % of them used",
                               stock.pieces.size(), quantity(Kind::length, stock.rules.length),
                               quantity(Kind::length, stock.rules.width), 100 * laid[k].yield);
        // What lies on none is joined out of more, and bought all the same.
        const auto& large = laid[k].too_large;
        double joined = 0;
        for (const auto& piece : stock.pieces) {
            if (std::find(large.begin(), large.end(), piece.name) != large.end())
                joined += net_area(piece.outline);
        }
        if (joined > 0) {
            const auto more = static_cast<int>(
                std::ceil(joined / ((1 - c.waste) * stock.rules.length * stock.rules.width)));
            count += more;
            how += fmt::format("; {} larger than a sheet, joined out of {} more by area", large.size(), more);
        }
        for (auto& plan : plans) {
            if (plan.route != Route::slabs && plan.route != Route::skeleton) continue;
            if (stock_of(plan, c, shop).name != stock.board.name) continue;
            take_sheets(plan, stock.board.name, count, how, labour);
            count = 0;
            how = "cut from the sheets of the first plug";
        }
    }
}

Findings with_sheets(Findings f, const Choices& c, const Cutting& cutting, const std::vector<SheetSet>& laid,
                     const Library& shop) {
    take_sheets(f.plans, c, cutting, laid, shop);
    for (const auto& plan : f.plans) {
        for (const auto& figure : plan.figures) {
            const auto key = f.plans.size() > 1 ? plan.body + "_" + figure.key : figure.key;
            for (auto& shown : f.figures) {
                if (shown.key != key) continue;
                shown.value = figure.value;
                shown.reason = figure.reason;
            }
        }
    }
    for (auto& shown : f.figures) {
        if (shown.key == "cost") shown = cost_of(f.plans, shop.rate("labour"), no_plug(c));
    }
    return f;
}

}  // namespace jig::plug
