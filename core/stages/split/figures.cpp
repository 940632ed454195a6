#include <fmt/format.h>

#include <cmath>
#include <limits>

#include "core/stages/split/show.hpp"

namespace jig::split {

void add_figures(const Choices& c, const Asked& asked, Findings& out) {
    const auto& m = out.map;
    const auto share = [&](double a) {
        return fmt::format("{:.1f} % of the moulded area",
                           out.moulded_area > 0 ? 100 * a / out.moulded_area : 0);
    };
    out.figures = {
        {"slides", "slides", Kind::area, m.slides,
         share(m.slides) + ": more draft than the drag angle and nothing stands over it"},
        {"drags", "drags", Kind::area, m.drags,
         share(m.drags) + ": draft between 0 and " + quantity(Kind::angle, out.drag_angle)},
        {"locks", "locks", Kind::area, m.locks, share(m.locks) + ": turned away from the pull, or overhung"},
        {"overhung", "of that, overhung", Kind::area, m.shadowed,
         "rays from the face along the pull meet the shape"},
        {"min_draft", "worst draft", Kind::angle, m.min_draft,
         out.one_piece() ? "asin of normal · pull at the worst face"
                         : "asin of normal · pull at the worst face, each along its own piece's pull"},
        {"moulded", "moulded area", Kind::area, out.moulded_area,
         "all faces less " + quantity(Kind::area, m.open) + " of open foot"},
        {"projected", "seen along the pull", Kind::area, m.projected,
         "sum of A·sin(draft) over faces that nothing stands over"},
        {"draw", "depth of draw", Kind::length, m.depth, "extent along the pull"},
        {"mouth", "widest circle in its mouth", Kind::length, out.mouth,
         "the largest circle inside the rim seen along the pull: hands, bag and hoses pass through it"}};
    for (std::size_t i = 1; out.one_piece() && i < out.candidates.size(); ++i) {
        const auto& other = out.candidates[i];
        const auto& d = other.direction;
        out.figures.push_back(
            {fmt::format("pull_{}", i + 1), fmt::format("pull number {} would lock", i + 1), Kind::area,
             other.locks,
             fmt::format("along {:.2f}, {:.2f}, {:.2f}; drags {}, {} deep", d.x(), d.y(), d.z(),
                         quantity(Kind::area, other.drags), quantity(Kind::length, other.depth))});
    }
    if (out.parts() > 1) {
        out.figures.push_back(
            {"parts", "parts from one pull", Kind::count, static_cast<double>(out.parts()),
             fmt::format("{}, {} of flange between two at least; the mould is {} × {} without its own flange",
                         c.together == Together::mirrored ? "left and right" : "alike",
                         quantity(Kind::length, c.between), quantity(Kind::length, out.size.x()),
                         quantity(Kind::length, out.size.y()))});
        out.figures.push_back({"bags_saved", "bagging operations saved", Kind::count,
                               static_cast<double>(asked.pulls) * (out.parts() - 1),
                               fmt::format("{} pulls × ({} parts − 1), against one mould for each part",
                                           asked.pulls, out.parts())});
    }
    if (!out.one_piece()) {
        double board_area = 0, clay = 0, misfit = 0, low = std::numeric_limits<double>::infinity(), high = 0;
        std::size_t dowels = 0, supports = 0;
        for (const auto& board : out.boards) {
            board_area += board.area;
            clay += clay_volume(board.length, c, asked.stock);
            misfit = std::max(misfit, board.misfit);
            dowels += board.dowels.size();
            supports += board.supports.size();
            for (const auto& s : board.supports) {
                low = std::min(low, s.height);
                high = std::max(high, s.height);
            }
        }
        out.figures.push_back({"pieces", "pieces", Kind::count, static_cast<double>(out.set.pieces.size()),
                               c.way == SplitWay::plane ? "one on each side of the plane"
                                                        : "as few as free every face, up to your number"});
        out.figures.push_back({"seam", "length of the seams", Kind::length, out.set.seam_length,
                               "along the part, steps of the mesh smoothed out"});
        for (std::size_t i = 0; i < out.facts.size(); ++i) {
            const auto& piece = out.set.pieces[i];
            const auto& d = piece.direction;
            out.figures.push_back(
                {fmt::format("piece_{}", i + 1), out.facts[i].name, Kind::area, piece.map.area,
                 fmt::format(
                     "pull {:.2f}, {:.2f}, {:.2f}; locks {}, drags {}; {} deep, mouth {}; {}", d.x(), d.y(),
                     d.z(), quantity(Kind::area, piece.map.locks), quantity(Kind::area, piece.map.drags),
                     quantity(Kind::length, out.facts[i].depth), quantity(Kind::length, out.facts[i].mouth),
                     out.facts[i].way.turn > 0 ? fmt::format("comes off as number {}", out.facts[i].way.turn)
                                               : std::string("held by another piece"))});
        }
        out.figures.push_back(
            {"boards", "parting boards", Kind::area, board_area,
             fmt::format("{} boards, {} wide, {} off the plug", out.boards.size(),
                         quantity(Kind::length, c.board_width), quantity(Kind::length, c.stand_off))});
        out.figures.push_back(
            {"clay", "clay fillet", Kind::volume, clay,
             "length × (gap × " + quantity(Kind::length, asked.stock) + " of board + (1 − π/4)·r²)"});
        if (supports > 0)
            out.figures.push_back(
                {"supports", "supports under the boards", Kind::count, static_cast<double>(supports),
                 fmt::format(
                     "every {} or less along their outer edges, {} to {} above the bench that the plug "
                     "lies on",
                     quantity(Kind::length, c.support_pitch), quantity(Kind::length, low),
                     quantity(Kind::length, high))});
        if (misfit > 0)
            out.figures.push_back(
                {"misfit", "boards laid flat may be out by", Kind::thickness, misfit,
                 "the strip parted along its one set of diagonals and along the other, laid on each other; a "
                 "strip bent one way only gives 0"});
        if (!out.show.empty())
            out.figures.push_back({"seam_on_show", "seam across show surface", Kind::length, out.seam_on_show,
                                   "steps of the seams whose middle lies on a shown face"});
        if (c.locating == Locating::dowels)
            out.figures.push_back(
                {"dowels", "dowels", Kind::count, static_cast<double>(dowels),
                 "two or more a board, no further apart than 0.6 m, one round one slotted: " + c.dowel});
        else
            out.figures.push_back({"lean_step", "step of the leaning face", Kind::length,
                                   c.board_width * std::tan(c.lean),
                                   "board width × tan " + quantity(Kind::angle, c.lean)});
    }
}

}  // namespace jig::split
