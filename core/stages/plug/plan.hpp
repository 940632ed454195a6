// What one route makes of one body: its cut-up shape, what it takes and what comes out.
#pragma once

#include "core/base/shared.hpp"
#include "core/science/machine/reach.hpp"
#include "core/science/mesh/tiles.hpp"
#include "core/science/nest/cut_sheets.hpp"
#include "core/shop/shop.hpp"
#include "core/stages/plug/choices.hpp"
#include "core/stages/split/findings.hpp"

namespace jig::plug {

/// Something bought for the plug, waste counted.
struct Need {
    std::string what;
    Kind kind = Kind::mass;
    double amount = 0, price = 0;  ///< SI, per SI unit
    std::string note;
    [[nodiscard]] double cost() const { return amount * price; }
    bool operator==(const Need&) const = default;
};

/// Something done to it, in order.
struct PlugStep {
    std::string what;
    double hours = 0;  ///< of hands
    double wait = 0;   ///< s after it
    bool operator==(const PlugStep&) const = default;
};

/// What a plug is built round: the whole mould's shape, or one piece's.
struct Body {
    std::string name;
    Shared<split::Stood> surface;
    Derived<RayMesh> rays;
    Frame frame;                   ///< w is the pull
    double foot = 0, depth = 0;    ///< m along it
    double area = 0;               ///< m² to finish
    double volume = 0;             ///< m³ under it
    double length = 0, width = 0;  ///< m across the pull
    Point centre = Point::Zero();  ///< of the volume
    bool operator==(const Body&) const = default;
};

/// The bodies that the choices ask for: one, or one for each piece.
std::vector<Body> bodies(const Choices& choices, const shape::Findings& shape, const split::Findings& split);
/// The body closed at its foot, for routes that cut it.
split::Stood solid_of(const Body& body);
/// Sets its size, foot and depth by its surface.
void measure_across(Body& body);

/// The body as it is cut: its surface smaller by a build-up along its normals, all scaled about its middle,
/// its foot as far below the surface as it was; its volume and centre stay the drawing's.
Body as_cut(Body body, double build_up, double scale);

/// How a slab's edge leans at one place: positive where the slab is wider at its foot.
struct Bevel {
    Point2 at;
    double angle = 0;  ///< rad
    bool operator==(const Bevel&) const = default;
};

struct SlabPlan {
    SlabStack stack;                         ///< outlines as they are cut, hollows included
    int sheets = 0;                          ///< by area
    double cut_length = 0, glue = 0;         ///< m, kg
    double to_sand = 0, to_fill = 0;         ///< m³ of steps
    int parted = 0, joints = 0;              ///< slabs larger than a sheet, and the joints that part them
    std::vector<Loops> hollows;              ///< what is cut out of the slabs' middles, by slab that has one
    std::vector<std::vector<Point2>> pins;   ///< by slab, in the stack's frame
    std::vector<std::vector<Bevel>> bevels;  ///< by slab
    std::vector<int> inside;  ///< by slab, the slab whose hollow it is cut from; -1 for a sheet
    int pin_groups = 1;       ///< sets of pins that the stack needs, neighbours share a slab
    bool operator==(const SlabPlan&) const = default;
};
inline constexpr double kWorthHollowing = 0.01;  ///< m²; a hollow smaller than a hand is not worth the cut
SlabPlan slab_plan(const Choices& choices, const Body& body, const Board& board, Progress& progress);

/// A part of a block that goes onto the router in one piece, in the body's frame.
struct BlockPart {
    Point low, high;
    std::vector<Point> dowels;  ///< where it meets the next parts
    bool operator==(const BlockPart&) const = default;
};

struct BlockPlan {
    std::vector<BlockPart> parts;
    int layers = 0, boards = 0;
    double bought = 0, removed = 0, glue_area = 0;  ///< m³, m³, m²
    ReachMap reach;
    double step = 0, scallop = 0;     ///< m, as planned
    double machine = 0, by_hand = 0;  ///< s, h
    /// Cost of finishing against the step, for the curve: step (m), machine and hands (currency).
    struct Choice {
        double step, machine, hands;
        bool operator==(const Choice&) const = default;
    };
    std::vector<Choice> curve;
    bool operator==(const BlockPlan&) const = default;
};

/// What is cut out of a block, as it lies on the router: frame.w towards the spindle.
struct Blank {
    const TriangleMesh& face;  ///< that the ball finishes
    const RayMesh& rays;       ///< of it
    Frame frame;
    Point low, high;              ///< m, of what is left in the end: across, along, up
    double volume = 0, area = 0;  ///< m³ that is left, m² that the ball finishes
};
/// Of a plug, board is left to spare at its sides and top.
Blank blank_of(const Body& body, double area);
BlockPlan block_plan(const Block& cut, const Blank& blank, const Board& board, const Asked& brief,
                     const Library& shop, Progress& progress);

/// A flat piece of a skeleton or a template, ready to cut, with its place in the body's frame.
struct Rib {
    std::string name;
    Loops outline;  ///< m, in its own plane: along and up
    Frame plane;
    double at = 0;  ///< m along plane.w
    bool operator==(const Rib&) const = default;
};

struct SkeletonPlan {
    std::vector<Rib> stations, keels, templates;
    double cut_length = 0, ply_area = 0;  ///< m, m²
    double fill = 0, skin = 0;            ///< m³ between the ribs, m³ outside them
    double batten_length = 0;             ///< m
    int battens = 0;
    int sheets = 0;  ///< by area
    bool operator==(const SkeletonPlan&) const = default;
};
SkeletonPlan skeleton_plan(const Choices& choices, const Body& body, const Board& ply, Progress& progress);

/// One step of finishing a plug's surface.
struct FinishStep {
    std::string what, product;
    Kind kind = Kind::mass;
    double amount = 0, price = 0;  ///< of product, waste counted
    double hours = 0, wait = 0;    ///< h of hands, s to dry
    bool operator==(const FinishStep&) const = default;
};
/// The barrier that a route's surface gets: an existing part's own laminate needs none.
inline Barrier barrier_on(Route route, const Choices& choices) {
    return route == Route::existing ? Barrier::none : choices.barrier;
}

/// Grits from the first cut to the last.
const std::vector<int>& grits_of(Grade grade);

/// From a raw surface to a grade: barrier, filler, primer, guide coat, a ladder of grits, paint, polish. The
/// grades' sanding hours are the shop's, shared out over the ladder.
std::vector<FinishStep> surface_schedule(Grade grade, Barrier barrier, double area, const Library& shop);

/// One piece of a mould that is cut or printed itself, stood with its face up.
struct MouldPiece {
    Body body;        ///< face and flange, looking out of the tool; frame.w is against the pull
    double face = 0;  ///< m² of face and flange; body.area is of what is moulded alone
    TileSet tiles;    ///< of a printed one
    double mass = 0;  ///< kg
    bool operator==(const MouldPiece&) const = default;
};

struct Plan {
    Route route = Route::slabs;
    std::string body;
    std::string obstacle;  ///< why it cannot be done here; empty where it can
    std::vector<Need> needs;
    std::vector<PlugStep> works;
    std::vector<Figure> figures;  ///< of the route's own
    std::vector<Figure> sums;     ///< hours, days, cost, mass, accuracy, surface, heat, moulds
    Board substrate;              ///< what its surface is made of, before any coat
    double mass = 0, area = 0;
    Frame frame;
    SlabPlan slabs;
    BlockPlan block;
    SkeletonPlan skeleton;
    TileSet tiles;
    Shared<MouldPiece> mould;  ///< none of a plug
    [[nodiscard]] double hours() const {
        double sum = 0;
        for (const auto& w : works) sum += w.hours;
        return sum;
    }
    [[nodiscard]] double cost() const {
        double sum = 0;
        for (const auto& n : needs) sum += n.cost();
        return sum;
    }
    bool operator==(const Plan&) const = default;
};

/// What a plug's surface is made of, before any coat. Throws InputError for names that the library has not.
Board substrate_of(Route route, const Choices& choices, const Library& shop);

/// What a route makes of a body. What stands in its way becomes its obstacle. Throws InputError for names
/// that the library does not have; Cancelled.
Plan plan_for(Route route, const Choices& choices, const Body& body, const shape::Choices& shape,
              const Asked& brief, const Library& shop, Progress& progress);

/// Its goods, figures and cost with `count` sheets of a stock in place of those that were reckoned by area.
void take_sheets(Plan& plan, const std::string& stock, int count, const std::string& how, double labour);

/// The flat pieces that a plan is cut into: slabs with their pins, numbers, front arrows and the sloping tick
/// that shows a slab out of order, or ribs; empty for routes that cut none. `templates` gives a skeleton's
/// gauges instead. All outlines are `scale` times the drawing's size: what heat and shrinkage do after is
/// made up for in the plane; heights of a stack are its stock's.
std::vector<CutPiece> cut_pieces(const Plan& plan, const Choices& choices, double scale,
                                 bool templates = false);
/// A stack of slabs as they are cut, scaled in its plane like them.
TriangleMesh stack_as_cut(const Plan& plan, double scale);
/// The stock that they are cut from, and its rules.
const Board& stock_of(const Plan& plan, const Choices& choices, const Library& shop);
SheetRules sheet_rules(const Plan& plan, const Choices& choices, const Library& shop);

/// The plug's surface as it is cut: undersize by the build-up along its normals, scaled about its middle.
TriangleMesh compensated(const TriangleMesh& mesh, double build_up, double scale);

}  // namespace jig::plug
