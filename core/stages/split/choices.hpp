// Which way the mould leaves, and where it divides into pieces.
#pragma once

#include <array>

#include "core/base/fields.hpp"
#include "core/science/mesh/paint.hpp"
#include "core/shop/lists.hpp"

namespace jig {

enum class PullMode { best, given };
template <>
struct Words<PullMode> {
    static constexpr std::array all{Word{"best", "the best pull found"}, Word{"given", "a pull of your own"}};
};

enum class DragRule { given, surface };
template <>
struct Words<DragRule> {
    static constexpr std::array all{Word{"given", "an angle of your own"},
                                    Word{"surface", "what its surface wants"}};
};

enum class SplitWay { one, plane, search };
template <>
struct Words<SplitWay> {
    static constexpr std::array all{Word{"one", "in one piece"},
                                    Word{"plane", "in two pieces, parted by a plane"},
                                    Word{"search", "in the pieces that free it"}};
};

enum class Locating { dowels, leaning };
template <>
struct Words<Locating> {
    static constexpr std::array all{Word{"dowels", "dowels"}, Word{"leaning", "a leaning joint face"}};
};

enum class Together { alone, mirrored, several };
template <>
struct Words<Together> {
    static constexpr std::array all{Word{"alone", "lies in it alone"},
                                    Word{"mirrored", "lies beside its mirror image"},
                                    Word{"several", "lies beside others of its kind"}};
};

template <>
struct Words<Paint> {
    static constexpr std::array all{Word{"show", "show surface"}, Word{"plain", "plain again"},
                                    Word{"given", "given to a piece"}};
};

namespace split {

/// What of the shop library this stage reads.
using Library = Lists<Board, Fastener>;

/// A touch of the brush on the stand, in the part's own place.
struct Stroke {
    Paint paint = Paint::show;
    std::array<double, 3> at{0, 0, 0};      ///< m
    std::array<double, 3> facing{0, 0, 1};  ///< outwards there
    double reach = 0.03;                    ///< m
    std::array<double, 3> toward{0, 0, 1};  ///< pull of the piece that it is given to
    static void fields(auto& c, auto&& v) {
        v("paint", c.paint);
        v("at", c.at);
        v("facing", c.facing);
        v("reach", c.reach, 0.0005, 5.0);
        v("toward", c.toward);
    }
    bool operator==(const Stroke&) const = default;
};

struct Choices {
    PullMode mode = PullMode::best;
    std::array<double, 3> pull{0, 0, 1};  ///< used where the mode is given; any length but zero
    DragRule drag_rule = DragRule::given;
    double drag_angle = 0.0349;  ///< rad of draft below which a face drags, where the rule is given
    bool foot_open = true;       ///< flat faces at the foot stay out of the mould
    SplitWay way = SplitWay::one;
    int pieces = 2;                           ///< at most, where they are searched for
    std::array<double, 3> plane_at{0, 0, 0};  ///< m, a point of the plane
    std::array<double, 3> plane_normal{0, 0, 1};
    double show_above =
        0;  ///< rad: faces steeper than this against the pull's plane are hidden; 0 marks no show face
    std::vector<std::string> names{"piece 1", "piece 2", "piece 3",
                                   "piece 4", "piece 5", "piece 6"};  ///< in their order
    Locating locating = Locating::dowels;
    double lean = 0.0873;         ///< rad that a leaning joint face stands off the seam's own
    std::vector<Stroke> painted;  ///< in the order they were laid
    Together together = Together::alone;
    int parts = 4;          ///< where several lie together
    double between = 0.06;  ///< m of flange between two of them
    std::string dowel = "dowel pin 8 mm with bush";
    std::string board = "birch plywood 12 mm";  ///< that parting boards are cut from
    double support_pitch = 0.4;                 ///< m between supports along a board's outer edge
    double stand_off = 0.002;                   ///< m between parting board and plug, closed with clay
    double board_width = 0.10;                  ///< m of the parting board past the plug
    double fillet = 0.006;                      ///< m of clay fillet along it
    double backing = 0.010;                     ///< m of shell that each piece is tried with on its way out
    static void fields(auto& c, auto&& v) {
        v("mode", c.mode);
        v("pull", c.pull);
        v("drag_rule", c.drag_rule);
        v("drag_angle", c.drag_angle, 0.0, 0.35);
        v("foot_open", c.foot_open);
        v("way", c.way);
        v("pieces", c.pieces, 1, 6);
        v("plane_at", c.plane_at);
        v("plane_normal", c.plane_normal);
        v("show_above", c.show_above, 0.0, 1.5708);
        v("names", c.names);
        v("locating", c.locating);
        v("lean", c.lean, 0.0, 0.7);
        v("painted", c.painted);
        v("together", c.together);
        v("parts", c.parts, 2, 24);
        v("between", c.between, 0.0, 2.0);
        v("dowel", c.dowel);
        v("board", c.board);
        v("support_pitch", c.support_pitch, 0.02, 5.0);
        v("stand_off", c.stand_off, 0.0, 0.05);
        v("board_width", c.board_width, 0.005, 2.0);
        v("fillet", c.fillet, 0.0, 0.1);
        v("backing", c.backing, 0.0005, 0.5);
    }
    bool operator==(const Choices&) const = default;
};

}  // namespace split
}  // namespace jig
