#include "core/stages/bag/way.hpp"

#include <cmath>

namespace jig::bag {

ToolBehind tool_behind(const Choices& c, const shell::Findings& shell, const back::Choices& b,
                       const back::Findings& back, const plug::Choices& plug) {
    ToolBehind out;
    if (!c.wraps()) return out;
    const bool ribs = b.kind != BackKind::none && b.kind != BackKind::sandwich;
    out.form.wall = shell.stack.laminate.thickness + back.sandwich.laminate.thickness;
    out.form.back = ribs ? b.height : 0;
    out.form.boxed = ribs || plug::no_plug(plug);
    out.gap = ribs ? back.span : 0;
    out.tried_as = b.bag == BagKind::envelope;
    return out;
}

bool stuck_to_flange(const Choices& c, LayUp how, Process process) {
    return how != LayUp::hand && process != Process::squeeze && !c.wraps();
}

release::TapeLand tape_land(const Choices& c, const part::Choices& part, const brief::Making& brief) {
    return {stuck_to_flange(c, part.how, brief.process)};
}

Wrap wrap_of(const Choices& c, const Round& round, const ToolBehind& behind, double land,
             const Consumable& stock) {
    Wrap out;
    out.round = round;
    out.tube = c.way == BagWay::tube;
    const double along = round.along / 2 * (1 + c.ease), across = round.across / 2 * (1 + c.ease);
    out.length = along + 2 * land;
    if (behind.gap > 0) out.bends = radius_of_span(behind.gap, c.ease);
    if (out.tube) {
        out.sheets = 1;
        out.wanted = across;
        out.width = c.tube > 0 ? c.tube : stock.width;
        out.seam = 2 * out.width;
        return out;
    }
    // One sheet round the tool saves a seam where the roll is wide enough for it.
    const double open = 2 * across + 2 * land;
    if (stock.width <= 0 || std::min(open, out.length) <= stock.width) {
        out.sheets = 1;
        out.width = open;
        out.seam = out.length + open - 2 * land;
    } else {
        out.sheets = 2;
        out.width = across + 2 * land;
        out.seam = 2 * (out.length + out.width - 2 * land);
    }
    if (stock.width > 0)
        out.joins = std::max(
            0, static_cast<int>(std::ceil(std::min(out.length, out.width) / stock.width - 1e-9)) - 1);
    return out;
}

const char* closed_with(const Choices& c) {
    switch (c.way) {
        case BagWay::tube:
            return "bag tube";
        case BagWay::reusable:
            return "reusable bag";
        default:
            return "bag film";
    }
}

SheetSet wrap_sheet(const Wrap& wrap, double land) {
    SheetSet out;
    const double l = wrap.length, w = wrap.width, in = land / 2;
    out.rules.length = l;
    out.rules.width = w;
    auto& pieces = out.sheets.emplace_back().pieces;
    const auto line = [&](std::string name, Loop along) {
        const Point2 at = (along.front() + along.back()) / 2;
        pieces.push_back({std::move(name), {}, {std::move(along)}, at});
    };
    pieces.push_back({wrap.tube          ? "tube, lying flat"
                      : wrap.sheets == 2 ? "film, two of it"
                                         : "film, folded once",
                      {rectangle(0, 0, l, w)},
                      {},
                      Point2(l, w) / 2});
    line("seam", {{in, 0}, {in, w}});
    line("seam", {{l - in, 0}, {l - in, w}});
    if (wrap.tube) return out;
    line("seam", {{0, in}, {l, in}});
    line("seam", {{0, w - in}, {l, w - in}});
    if (wrap.sheets == 1) line("fold", {{0, w / 2}, {l, w / 2}});
    return out;
}

}  // namespace jig::bag
