#pragma once

#include "core/base/shared.hpp"
#include "core/science/nest/cut_sheets.hpp"
#include "core/shop/shop.hpp"
#include "core/stages/edge/choices.hpp"
#include "core/stages/edge/flange.hpp"
#include "core/stages/edge/joint.hpp"
#include "core/stages/split/findings.hpp"

namespace jig::edge {

/// One fitting where it goes, seen along the pull.
struct Fit {
    Fitting kind = Fitting::bolt;
    double at = 0;                     ///< share of the way round, as in Placed
    Point2 place = Point2::Zero();     ///< m, in the frame's flat coordinates
    Point2 outward = Point2::UnitX();  ///< away from the part
    int number = -1;                   ///< among those on the fitting line; -1 for ports in the face itself
    bool operator==(const Fit&) const = default;
};

struct Findings {
    std::vector<Figure> figures;
    double width = 0, area = 0, rim_length = 0;
    double tape_land_length = 0;  ///< m along its middle
    double tape_land_area = 0;    ///< m² that must stay free of release
    int bolts = 0;                ///< all round and along the seams
    Loops rims;                   ///< of the parts, or of the chosen piece: seen along its pull
    Loops outer;                  ///< outside of the flange in the same frame, before any cut-out
    Loops outline;                ///< the same with its cut-outs and slots
    Shared<ToolFace> tool;        ///< face and flange; none where the rim allows no flange
    std::string no_tool;          ///< and why
    Loops tape_inner;             ///< where the tape land starts
    Loop fitting_line;            ///< that fittings stand on: the middle of the grip
    std::vector<Fit> fits;
    Joint joint;                   ///< of a bolted mould; zero elsewhere
    std::optional<double> hollow;  ///< m, radius of the rim's tightest hollow turn; 0 for a sharp one
    double clear_between = 0;      ///< m between the rims of two parts that lie together; 0 for one part
    double deep_flat = 0;          ///< m² of flat face near the deepest place, where a pull makes suction
    [[nodiscard]] int count(Fitting kind) const {
        int n = 0;
        for (const auto& f : fits) n += f.kind == kind;
        return n;
    }
    bool operator==(const Findings&) const = default;
};

/// `plate` is the bending stiffness of the flange's laminate, N·m; 0 where it is not known.
Findings evaluate(const Choices& choices, const shape::Findings& shape, const split::Findings& split,
                  const brief::Making& brief, double plate, const Library& shop);
Calls calls(const Choices& choices, const Findings& findings, const brief::Choices& brief,
            const Library& shop);

/// The figures of findings that are complete but for them: `depth` of the draw, m, and bolts `elsewhere` than
/// round the chosen rim.
void add_figures(const Choices& choices, const split::Findings& split, double depth, int elsewhere,
                 Findings& out);

/// Fittings as the rules lay them out.
std::vector<Placed> by_rule(const Choices& choices, const Findings& findings, const brief::Making& brief,
                            bool bolted, double depth);
/// A place on the fitting line, and the nearest share of the way round it.
Fit fit_at(const Loop& line, Fitting kind, double at);
double share_near(const Loop& line, const Point2& place);
/// A share moved onto the pitch that starts at the first fitting of its kind, and away from corners that it
/// would stand in.
double snapped(const Loop& line, double at, double pitch);

/// Round hole of a fitting in the drilling template, m across; 0 for those that are cut from the edge.
double hole_of(Fitting kind, const Choices& choices, const Library& shop);
/// The flange's outline with all holes, ready to cut or to print: outer loops, then the part's rims and
/// holes.
Loops drilling_template(const Choices& choices, const Findings& findings, const Library& shop);

/// The same as one sheet of its own size, each fitting named.
SheetSet drilling_sheet(const Choices& choices, const Findings& findings, const Library& shop);

}  // namespace jig::edge
