#include "core/science/nest/raster_pack.hpp"

#include <algorithm>
#include <cstdint>
#include <map>
#include <numeric>

#include "core/base/units.hpp"

namespace jig {
namespace {

using Row = std::vector<std::uint64_t>;

/// The cells that a turned outline touches; column 0 and row 0 lie `pad` cells before its low corner.
struct Mask {
    double turn = 0;
    Point2 low = Point2::Zero(), size = Point2::Zero();  ///< m, of the turned outline
    std::size_t width = 0;                               ///< cells
    std::vector<Row> rows;
    [[nodiscard]] bool same_cells(const Mask& other) const {
        return width == other.width && rows == other.rows;
    }
    [[nodiscard]] bool operator<(const Mask& other) const {
        return width != other.width ? width < other.width : rows < other.rows;
    }
};

class SheetCells {
  public:
    SheetCells(const SheetRules& rules)
        : room_(rules.length - 2 * rules.margin, rules.width - 2 * rules.margin),
          cell_(std::max(rules.length, rules.width) / 1500),
          grow_(rules.kerf / 2 + 0.7072 * cell_),
          pad_(static_cast<std::size_t>(std::ceil(grow_ / cell_)) + 1) {
        columns_ = static_cast<std::size_t>(std::ceil(room_.x() / cell_)) + 2 * pad_ + 1;
        rows_ = static_cast<std::size_t>(std::ceil(room_.y() / cell_)) + 2 * pad_ + 1;
    }

    /// A cell is touched where its middle lies in the outline grown by half a cell's diagonal.
    [[nodiscard]] Mask mask_of(const Loop& outline, double turn) const {
        Mask out;
        out.turn = turn;
        const double c = std::cos(turn), s = std::sin(turn);
        Loop loop;
        for (const auto& p : outline) loop.emplace_back(c * p.x() - s * p.y(), s * p.x() + c * p.y());
        out.low = low_corner({loop});
        out.size = high_corner({loop}) - out.low;
        for (auto& p : loop) p -= out.low;
        const auto grown = offset({loop}, grow_);
        out.width = static_cast<std::size_t>(std::ceil(out.size.x() / cell_)) + 2 * pad_;
        out.rows.assign(static_cast<std::size_t>(std::ceil(out.size.y() / cell_)) + 2 * pad_,
                        Row((out.width + 63) / 64, 0));
        for (std::size_t r = 0; r < out.rows.size(); ++r) {
            const double y = (static_cast<double>(r) - static_cast<double>(pad_) + 0.5) * cell_;
            std::vector<double> cross;
            for (const auto& ring : grown) {
                for (std::size_t i = 0; i < ring.size(); ++i) {
                    const auto &a = ring[i], &b = ring[(i + 1) % ring.size()];
                    if ((a.y() > y) == (b.y() > y)) continue;
                    cross.push_back(a.x() + (y - a.y()) / (b.y() - a.y()) * (b.x() - a.x()));
                }
            }
            std::sort(cross.begin(), cross.end());
            for (std::size_t k = 0; k + 1 < cross.size(); k += 2) {
                const auto column = [&](double x) { return x / cell_ + static_cast<double>(pad_) - 0.5; };
                const auto from = static_cast<std::int64_t>(std::ceil(std::max(0.0, column(cross[k]))));
                const auto to = std::min(static_cast<std::int64_t>(std::floor(column(cross[k + 1]))),
                                         static_cast<std::int64_t>(out.width) - 1);
                for (auto x = from; x <= to; ++x)
                    out.rows[r][static_cast<std::size_t>(x) / 64] |= std::uint64_t{1} << (x % 64);
            }
        }
        return out;
    }

    /// Places along and across that keep an outline inside the room.
    [[nodiscard]] std::pair<std::size_t, std::size_t> places(const Mask& mask) const {
        const Point2 spare = room_ - mask.size;
        if (spare.minCoeff() < -2e-6) return {0, 0};
        return {static_cast<std::size_t>(std::max(0.0, spare.x()) / cell_) + 1,
                static_cast<std::size_t>(std::max(0.0, spare.y()) / cell_) + 1};
    }
    [[nodiscard]] std::vector<Row> empty_sheet() const {
        return std::vector<Row>(rows_, Row((columns_ + 63) / 64 + 1, 0));
    }
    [[nodiscard]] static bool free(const std::vector<Row>& sheet, const Mask& mask, std::size_t x,
                                   std::size_t y) {
        const auto word = x / 64, shift = x % 64;
        for (std::size_t r = 0; r < mask.rows.size(); ++r) {
            const auto& have = sheet[y + r];
            for (std::size_t w = 0; w < mask.rows[r].size(); ++w) {
                const auto bits = mask.rows[r][w];
                if (have[word + w] & (bits << shift)) return false;
                if (shift != 0 && (have[word + w + 1] & (bits >> (64 - shift)))) return false;
            }
        }
        return true;
    }
    static void take(std::vector<Row>& sheet, const Mask& mask, std::size_t x, std::size_t y) {
        const auto word = x / 64, shift = x % 64;
        for (std::size_t r = 0; r < mask.rows.size(); ++r) {
            auto& have = sheet[y + r];
            for (std::size_t w = 0; w < mask.rows[r].size(); ++w) {
                have[word + w] |= mask.rows[r][w] << shift;
                if (shift != 0) have[word + w + 1] |= mask.rows[r][w] >> (64 - shift);
            }
        }
    }
    [[nodiscard]] double cell() const { return cell_; }

  private:
    Point2 room_;
    double cell_, grow_;
    std::size_t pad_, columns_ = 0, rows_ = 0;
};

}  // namespace

std::vector<Placed> pack_by_cells(const std::vector<Loop>& outlines, const SheetRules& rules,
                                  Progress& progress) {
    const SheetCells cells(rules);
    std::vector<Placed> out(outlines.size());
    std::vector<std::size_t> order(outlines.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
        return std::abs(signed_area(outlines[a])) > std::abs(signed_area(outlines[b]));
    });
    std::vector<std::vector<Row>> sheets;
    // Cells are only ever taken: what found no place before a column finds none there later.
    std::vector<std::map<Mask, std::size_t>> begun;
    for (std::size_t done = 0; done < order.size(); ++done) {
        progress.report(static_cast<double>(done) / static_cast<double>(order.size()),
                        "laying slabs onto sheets");
        const auto& outline = outlines[order[done]];
        const auto first = turn_onto_sheet(outline, rules);
        if (!first) continue;
        std::vector<Mask> ways;
        for (int quarter = 0; quarter < 4; ++quarter) {
            if (rules.grain && quarter % 2 == 1) continue;
            auto mask = cells.mask_of(outline, *first + quarter * kPi / 2);
            const bool known =
                std::any_of(ways.begin(), ways.end(), [&](const Mask& m) { return m.same_cells(mask); });
            if (!known && cells.places(mask).first > 0) ways.push_back(std::move(mask));
        }
        for (std::size_t s = 0; out[order[done]].sheet < 0 && !ways.empty(); ++s) {
            if (s == sheets.size()) {
                sheets.push_back(cells.empty_sheet());
                begun.emplace_back();
            }
            const Mask* best = nullptr;
            std::size_t best_x = 0, best_y = 0;
            for (const auto& mask : ways) {
                const auto [along, across] = cells.places(mask);
                auto& start = begun[s].try_emplace(mask, 0).first->second;
                bool found = false;
                for (auto x = start; x < along && !found && (best == nullptr || x < best_x); ++x) {
                    for (std::size_t y = 0; y < across && !found; ++y) {
                        if (!cells.free(sheets[s], mask, x, y)) continue;
                        found = true;
                        best = &mask;
                        best_x = x;
                        best_y = y;
                    }
                    if (!found) start = x + 1;
                }
            }
            if (best == nullptr) continue;
            cells.take(sheets[s], *best, best_x, best_y);
            auto& placed = out[order[done]];
            placed.sheet = static_cast<int>(s);
            placed.turn = best->turn;
            placed.move = Point2(static_cast<double>(best_x), static_cast<double>(best_y)) * cells.cell() +
                          Point2::Constant(rules.margin) - best->low;
        }
    }
    return out;
}

}  // namespace jig
