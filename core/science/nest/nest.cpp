#include "core/science/nest/nest.hpp"

#include <algorithm>

#include "core/base/units.hpp"
#include "core/science/nest/packing.hpp"
#include "core/science/nest/raster_pack.hpp"
#include "core/science/nest/row_pack.hpp"

namespace jig {
namespace {

constexpr double kPackGrid =
    1e5;  // hundredths of a millimetre: fine enough for a saw, small enough for the library's products

constexpr std::size_t kManyPieces = 80;  // beyond which exact shapes take too long

Loop turned(const Loop& loop, double turn) {
    const double c = std::cos(turn), s = std::sin(turn);
    Loop out;
    out.reserve(loop.size());
    for (const auto& p : loop) out.emplace_back(c * p.x() - s * p.y(), s * p.x() + c * p.y());
    return out;
}

/// Andrew's (1979) chain round a set of points, anticlockwise.
Loop hull_of(Loop points) {
    std::sort(points.begin(), points.end(), [](const Point2& a, const Point2& b) {
        return a.x() != b.x() ? a.x() < b.x() : a.y() < b.y();
    });
    Loop out;
    const auto add = [&](const Point2& p, std::size_t fixed) {
        const auto turns = [&](const Point2& a, const Point2& b) {
            return (b - a).x() * (p - a).y() - (b - a).y() * (p - a).x() > 0;
        };
        while (out.size() > fixed && !turns(out[out.size() - 2], out.back())) out.pop_back();
        out.push_back(p);
    };
    for (const auto& p : points) add(p, 1);
    const auto half = out.size();
    for (auto p = points.rbegin() + 1; p != points.rend(); ++p) add(*p, half);
    out.pop_back();
    return out;
}

/// What loses less than this by being filled up to its hull is laid as that: quicker, and the library is sure
/// of what is nowhere hollow.
constexpr double kNearlyFull = 0.1;

/// An outline of few points that covers the given one and is nowhere wider or longer; `full` for its hull.
Loop covering(const Loop& loop, bool full) {
    if (loop.size() < 3) return loop;
    const Point2 low = low_corner({loop}), high = high_corner({loop});
    auto cover = hull_of(loop);
    double margin = 2 / kPackGrid;  // what rounding to the grid may cost
    if (!full && signed_area(cover) > (1 + kNearlyFull) * std::abs(signed_area(loop))) {
        margin = std::max(5e-4, 0.004 * (high - low).maxCoeff());
        cover = simplified(loop, margin);
    }
    const auto grown =
        shared(offset({cover}, margin, false), {rectangle(low.x(), low.y(), high.x(), high.y())});
    Loop best;
    for (const auto& g : grown) {
        if (std::abs(signed_area(g)) > std::abs(signed_area(best))) best = g;
    }
    return best.empty() ? loop : best;
}

}  // namespace

std::optional<double> turn_onto_sheet(const Loop& outline, const SheetRules& rules) {
    const double room_x = rules.length - 2 * rules.margin + kSheetSlack,
                 room_y = rules.width - 2 * rules.margin + kSheetSlack;
    const auto fits = [&](double turn) {
        const auto loop = turned(outline, turn);
        const Point2 size = high_corner({loop}) - low_corner({loop});
        return size.x() <= room_x && size.y() <= room_y;
    };
    if (fits(0)) return 0.0;
    if (rules.grain) return std::nullopt;
    if (fits(kPi / 2)) return kPi / 2;
    for (int k = 1; k < 180; ++k) {
        const double turn = k * kPi / 180;
        if (k != 90 && fits(turn)) return turn;
    }
    return std::nullopt;
}

namespace {

/// By the library's no-fit polygons, whose number grows by the square of the pieces'.
void pack_exactly(const std::vector<Loop>& outlines, const std::vector<char>& full, const SheetRules& rules,
                  std::vector<Placed>& placed, Progress& progress) {
    const double room_x = rules.length - 2 * rules.margin, room_y = rules.width - 2 * rules.margin;
    std::vector<PackItem> items;
    std::vector<std::size_t> which;
    std::vector<double> before;  // turn that a piece comes with
    for (std::size_t i = 0; i < outlines.size(); ++i) {
        const auto turn = turn_onto_sheet(outlines[i], rules);
        if (!turn) continue;
        PackItem item;
        // The library tries an empty sheet only the way a piece comes.
        for (const auto& p : covering(turned(outlines[i], *turn), full[i] != 0))
            item.outline.emplace_back(std::llround(p.x() * kPackGrid), std::llround(p.y() * kPackGrid));
        before.push_back(*turn);
        items.push_back(std::move(item));
        which.push_back(i);
    }
    if (items.empty()) return;
    progress.report(0.1, "laying slabs onto sheets");
    // The library calls back from inside its own loops: exceptions must not pass through it.
    const auto left = [&](unsigned more) {
        if (progress.stopped()) return;
        try {
            progress.report(1 - 0.9 * static_cast<double>(more) / static_cast<double>(items.size()),
                            "laying slabs onto sheets");
        } catch (const Cancelled&) {
            return;
        }
    };
    // Between pieces the library wants half the gap on either side, also towards the sheet's edge, where none
    // is due: the sheet it is told of is larger by that.
    const auto gap = std::llround(rules.kerf * kPackGrid);
    const auto half = static_cast<double>((gap + 1) / 2 + 1) / kPackGrid;
    pack(items, std::llround((room_x + 2 * half) * kPackGrid), std::llround((room_y + 2 * half) * kPackGrid),
         gap, rules.grain, left, [&] { return progress.stopped(); });
    for (std::size_t k = 0; k < items.size(); ++k) {
        const auto& item = items[k];
        if (item.bin < 0) continue;
        auto& p = placed[which[k]];
        p.sheet = item.bin;
        p.turn = item.turn + before[k];
        p.move = {static_cast<double>(item.move_x) / kPackGrid + rules.margin - half,
                  static_cast<double>(item.move_y) / kPackGrid + rules.margin - half};
    }
}

/// Marks pieces of one sheet that lie over each other: the library's no-fit polygons of hollow outlines are
/// now and then too small. True where there are any.
bool mark_overlaps(const std::vector<Loop>& outlines, const std::vector<Placed>& placed,
                   std::vector<char>& marks) {
    constexpr double kTouch = 2 / kPackGrid;  // m that rounding may take along a rim
    struct There {
        std::size_t number;
        Loop loop;
        Point2 low, high;
    };
    std::vector<There> there;
    bool any = false;
    for (std::size_t i = 0; i < outlines.size(); ++i) {
        if (placed[i].sheet < 0) continue;
        There one{i, {}, {}, {}};
        for (const auto& p : outlines[i]) one.loop.push_back(placed[i].at(p));
        one.low = low_corner({one.loop});
        one.high = high_corner({one.loop});
        for (const auto& other : there) {
            if (placed[other.number].sheet != placed[i].sheet ||
                (other.high.array() <= one.low.array()).any() ||
                (one.high.array() <= other.low.array()).any())
                continue;
            if (net_area(shared({one.loop}, {other.loop})) <=
                kTouch * std::min(perimeter(one.loop), perimeter(other.loop)))
                continue;
            marks[i] = marks[other.number] = 1;
            any = true;
        }
        there.push_back(std::move(one));
    }
    return any;
}

int sheets_of(const std::vector<Placed>& placed) {
    int out = 0;
    for (const auto& p : placed) out = std::max(out, p.sheet + 1);
    return out;
}

}  // namespace

Nesting nest(const std::vector<Loop>& outlines, const SheetRules& rules, Progress& progress) {
    const double room_x = rules.length - 2 * rules.margin, room_y = rules.width - 2 * rules.margin;
    if (!(room_x > 0) || !(room_y > 0))
        throw InputError("sheet", "the margin leaves no room on it",
                         "give a larger sheet or a smaller margin");
    double area = 0;
    for (const auto& outline : outlines) {
        if (fits_a_sheet(outline, rules)) area += std::abs(signed_area(outline));
    }
    Nesting out;
    const auto take = [&](std::vector<Placed> placed) {
        progress.check();
        const int sheets = sheets_of(placed);
        if (!out.placed.empty() && sheets >= out.sheets) return;
        out.placed = std::move(placed);
        out.sheets = sheets;
    };
    const auto wanting = [&] { return out.placed.empty() || area <= (out.sheets - 1) * room_x * room_y; };
    if (outlines.size() <= kManyPieces) {
        // Once as they are, once with what came to lie over something filled up.
        std::vector<char> full(outlines.size(), 0);
        for (int round = 0; round < 2 && out.placed.empty(); ++round) {
            std::vector<Placed> placed(outlines.size());
            pack_exactly(outlines, full, rules, placed, progress);
            if (!mark_overlaps(outlines, placed, full)) take(std::move(placed));
        }
    }
    const bool many = out.placed.empty();
    if (many) take(pack_by_cells(outlines, rules, progress));
    if (wanting()) take(pack_by_rows(outlines, rules));
    if (!many && wanting()) take(pack_by_cells(outlines, rules, progress));
    double used = 0;
    for (std::size_t i = 0; i < outlines.size(); ++i) {
        if (out.placed[i].sheet < 0) continue;
        used += std::abs(signed_area(outlines[i]));
    }
    if (out.sheets > 0) out.yield = used / (out.sheets * rules.length * rules.width);
    return out;
}

}  // namespace jig
