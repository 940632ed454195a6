#include "core/science/nest/row_pack.hpp"

#include <algorithm>

#include "core/base/units.hpp"

namespace jig {
namespace {

struct LyingBox {
    std::size_t of;
    double turn;
    Point2 low, size;
};

LyingBox lying_box(const Loop& outline, std::size_t of, double turn) {
    const Placed turned{0, turn, Point2::Zero()};
    Loop loop;
    loop.reserve(outline.size());
    for (const auto& p : outline) loop.push_back(turned.at(p));
    const auto low = low_corner({loop});
    return {of, turn, low, high_corner({loop}) - low};
}

struct BoxRow {
    int sheet;
    double low, used;  ///< m across the sheet where it begins, and along what lies in it
};

}  // namespace

std::vector<Placed> pack_by_rows(const std::vector<Loop>& outlines, const SheetRules& rules) {
    const Point2 room = Point2(rules.length, rules.width).array() - 2 * rules.margin + kSheetSlack;
    std::vector<LyingBox> boxes;
    for (std::size_t i = 0; i < outlines.size(); ++i) {
        const auto turn = turn_onto_sheet(outlines[i], rules);
        if (!turn) continue;
        boxes.push_back(lying_box(outlines[i], i, *turn));
        const auto& size = boxes.back().size;
        if (!rules.grain && size.y() > size.x() && size.y() <= room.x() && size.x() <= room.y())
            boxes.back() = lying_box(outlines[i], i, *turn + kPi / 2);
    }
    std::stable_sort(boxes.begin(), boxes.end(),
                     [](const LyingBox& a, const LyingBox& b) { return a.size.y() > b.size.y(); });
    std::vector<Placed> out(outlines.size());
    std::vector<BoxRow> rows;
    std::vector<double> taken;  // m across each sheet
    for (const auto& box : boxes) {
        const auto after = [&](double used) { return used > 0 ? used + rules.kerf : 0; };
        auto row = std::find_if(rows.begin(), rows.end(),
                                [&](const BoxRow& r) { return after(r.used) + box.size.x() <= room.x(); });
        if (row == rows.end()) {
            auto sheet = std::find_if(taken.begin(), taken.end(), [&](double across) {
                return after(across) + box.size.y() <= room.y();
            });
            if (sheet == taken.end()) sheet = taken.insert(taken.end(), 0);
            rows.push_back({static_cast<int>(sheet - taken.begin()), after(*sheet), 0});
            *sheet = rows.back().low + box.size.y();
            row = rows.end() - 1;
        }
        const Point2 corner(after(row->used), row->low);
        out[box.of] = {row->sheet, box.turn, corner - box.low + Point2::Constant(rules.margin)};
        row->used = corner.x() + box.size.x();
    }
    return out;
}

}  // namespace jig
