#include "core/science/nest/raster_pack.hpp"

#include <algorithm>
#include <bit>
#include <cstdint>
#include <map>
#include <numeric>

#include "core/base/units.hpp"

namespace jig {
namespace {

/// Cells a bit each, row by row.
struct Bits {
    std::size_t words = 0, rows = 0;  ///< words of a row
    std::vector<std::uint64_t> bits;
    Bits() = default;
    Bits(std::size_t wide, std::size_t high) : words(wide), rows(high), bits(wide * high, 0) {}
    [[nodiscard]] const std::uint64_t* row(std::size_t r) const { return bits.data() + r * words; }
    [[nodiscard]] std::uint64_t* row(std::size_t r) { return bits.data() + r * words; }
};

/// Sets the columns `from` to `to` of a row.
void set(std::uint64_t* row, std::size_t from, std::size_t to) {
    for (auto w = from / 64; w <= to / 64; ++w) {
        auto bits = ~std::uint64_t{0};
        if (w == from / 64) bits &= bits << (from % 64);
        if (w == to / 64) bits &= ~std::uint64_t{0} >> (63 - to % 64);
        row[w] |= bits;
    }
}

/// Columns that are set in some row.
std::vector<std::uint64_t> any_row(const Bits& of) {
    std::vector<std::uint64_t> out(of.words, 0);
    for (std::size_t r = 0; r < of.rows; ++r) {
        for (std::size_t w = 0; w < of.words; ++w) out[w] |= of.row(r)[w];
    }
    return out;
}

/// The cells that a turned outline touches; column 0 and row 0 lie `pad` cells before its low corner.
struct Mask {
    double turn = 0;
    Point2 low = Point2::Zero(), size = Point2::Zero();  ///< m, of the turned outline
    std::size_t width = 0;                               ///< cells
    Bits cover;
    std::vector<std::size_t> order;  ///< of its rows, far apart first: what does not fit is found out soon
    std::size_t cells = 0;           ///< that it touches
    std::vector<std::pair<std::size_t, std::size_t>> probes;  ///< some of those: column and row
    [[nodiscard]] bool same_cells(const Mask& other) const {
        return width == other.width && cover.bits == other.cover.bits;
    }
    [[nodiscard]] bool operator<(const Mask& other) const {
        return width != other.width ? width < other.width : cover.bits < other.cover.bits;
    }
};

class SheetCells {
  public:
    SheetCells(const SheetRules& rules)
        : room_(rules.length - 2 * rules.margin, rules.width - 2 * rules.margin),
          cell_(std::max(rules.length, rules.width) / 1000),
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
        out.cover =
            Bits((out.width + 63) / 64, static_cast<std::size_t>(std::ceil(out.size.y() / cell_)) + 2 * pad_);
        for (std::size_t r = 0; r < out.cover.rows; ++r) {
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
                if (from <= to)
                    set(out.cover.row(r), static_cast<std::size_t>(from), static_cast<std::size_t>(to));
            }
        }
        for (const auto word : out.cover.bits) out.cells += static_cast<std::size_t>(std::popcount(word));
        std::vector<char> listed(out.cover.rows, 0);
        for (std::size_t step = std::bit_ceil(out.cover.rows); step > 0; step /= 2) {
            for (std::size_t r = step / 2; r < out.cover.rows; r += step) {
                if (!listed[r]) out.order.push_back(r);
                listed[r] = 1;
            }
        }
        // Ends and middle of rows that are far apart.
        constexpr std::size_t kProbed = 32;
        for (std::size_t k = 0; k < out.order.size() && out.probes.size() < 3 * kProbed; ++k) {
            const auto r = out.order[k];
            std::vector<std::size_t> set;
            for (std::size_t x = 0; x < out.width; ++x) {
                if (out.cover.row(r)[x / 64] >> (x % 64) & 1) set.push_back(x);
            }
            if (set.empty()) continue;
            for (const auto x : {set.front(), set[set.size() / 2], set.back()}) out.probes.emplace_back(x, r);
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
    [[nodiscard]] Bits empty_sheet() const { return {(columns_ + 63) / 64 + 2, rows_}; }
    /// Places from column `from`, `along` by `across` of them in all, at which none of the mask's probes
    /// meets anything. A sheet that is nearly full has none after a few probes, and the rest is not asked.
    [[nodiscard]] static Bits open_places(const Bits& sheet, const Mask& mask, std::size_t from,
                                          std::size_t along, std::size_t across) {
        Bits out((along + 63) / 64, across);
        const auto first = from / 64;
        for (std::size_t y = 0; y < across; ++y) {
            std::fill(out.row(y) + first, out.row(y) + out.words, ~std::uint64_t{0});
            if (along % 64 != 0) out.row(y)[along / 64] >>= 64 - along % 64;
            out.row(y)[first] &= ~std::uint64_t{0} << (from % 64);
        }
        std::vector<std::size_t> rows(across);  // those with a place yet
        std::iota(rows.begin(), rows.end(), std::size_t{0});
        for (const auto& probe : mask.probes) {
            const auto word = probe.first / 64, shift = probe.first % 64;
            std::erase_if(rows, [&](std::size_t y) {
                const auto* have = sheet.row(y + probe.second) + word;
                auto* open = out.row(y);
                std::uint64_t some = 0;
                for (std::size_t w = first; w < out.words; ++w) {
                    // Shifted twice, since a shift by all of a word is none.
                    open[w] &= ~(have[w] >> shift | have[w + 1] << 1 << (63 - shift));
                    some |= open[w];
                }
                return some == 0;
            });
            if (rows.empty()) break;
        }
        return out;
    }
    [[nodiscard]] static bool free(const Bits& sheet, const Mask& mask, std::size_t x, std::size_t y) {
        const auto word = x / 64, shift = x % 64;
        return std::none_of(mask.order.begin(), mask.order.end(), [&](std::size_t r) {
            const auto* have = sheet.row(y + r) + word;
            const auto* want = mask.cover.row(r);
            std::uint64_t over = 0;
            for (std::size_t w = 0; w < mask.cover.words; ++w)
                over |= (have[w] & want[w] << shift) | (have[w + 1] & want[w] >> 1 >> (63 - shift));
            return over != 0;
        });
    }
    static void take(Bits& sheet, const Mask& mask, std::size_t x, std::size_t y) {
        const auto word = x / 64, shift = x % 64;
        for (std::size_t r = 0; r < mask.cover.rows; ++r) {
            auto* have = sheet.row(y + r) + word;
            const auto* want = mask.cover.row(r);
            for (std::size_t w = 0; w < mask.cover.words; ++w) {
                have[w] |= want[w] << shift;
                have[w + 1] |= want[w] >> 1 >> (63 - shift);
            }
        }
    }
    [[nodiscard]] double cell() const { return cell_; }
    [[nodiscard]] std::size_t cells() const { return columns_ * rows_; }

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
    std::vector<Bits> sheets;
    std::vector<std::size_t> left;  ///< cells of each
    // Cells are only ever taken: what found no place before a column finds none there later. By sheet and by
    // the mask's number, which slabs that are alike share.
    std::map<Mask, std::size_t> numbers;
    std::vector<std::vector<std::size_t>> begun;
    for (std::size_t done = 0; done < order.size(); ++done) {
        progress.report(static_cast<double>(done) / static_cast<double>(order.size()),
                        "laying slabs onto sheets");
        const auto& outline = outlines[order[done]];
        const auto first = turn_onto_sheet(outline, rules);
        if (!first) continue;
        std::vector<Mask> ways;
        std::vector<std::size_t> number;
        for (int quarter = 0; quarter < 4; ++quarter) {
            if (rules.grain && quarter % 2 == 1) continue;
            auto mask = cells.mask_of(outline, *first + quarter * kPi / 2);
            const bool known =
                std::any_of(ways.begin(), ways.end(), [&](const Mask& m) { return m.same_cells(mask); });
            if (known || cells.places(mask).first == 0) continue;
            number.push_back(numbers.try_emplace(mask, numbers.size()).first->second);
            ways.push_back(std::move(mask));
        }
        for (std::size_t s = 0; out[order[done]].sheet < 0 && !ways.empty(); ++s) {
            if (s == sheets.size()) {
                sheets.push_back(cells.empty_sheet());
                left.push_back(cells.cells());
                begun.emplace_back();
            }
            const Mask* best = nullptr;
            std::size_t best_x = 0, best_y = 0;
            if (begun[s].size() < numbers.size()) begun[s].resize(numbers.size(), 0);
            for (std::size_t way = 0; way < ways.size(); ++way) {
                const auto& mask = ways[way];
                if (mask.cells > left[s]) continue;
                const auto [along, across] = cells.places(mask);
                auto& start = begun[s][number[way]];
                if (start >= along) continue;
                const auto open = cells.open_places(sheets[s], mask, start, along, across);
                const auto columns = any_row(open);
                bool found = false;
                for (auto x = start; x < along && !found && (best == nullptr || x < best_x); ++x) {
                    const bool some = columns[x / 64] >> (x % 64) & 1;
                    for (std::size_t y = 0; some && y < across && !found; ++y) {
                        if (!(open.row(y)[x / 64] >> (x % 64) & 1) || !cells.free(sheets[s], mask, x, y))
                            continue;
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
            left[s] -= best->cells;
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
