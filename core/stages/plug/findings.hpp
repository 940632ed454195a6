#pragma once

#include "core/stages/plug/attack.hpp"
#include "core/stages/plug/mould.hpp"

namespace jig::plug {

struct Findings {
    std::vector<Figure> figures;
    std::vector<Plan> plans;  ///< one for each body
    std::vector<FinishStep> finish;
    Board board;              ///< the first body's substrate
    double mass = 0;          ///< kg
    double heat_path = 0;     ///< m of the first body that heat has to go through: its least size, or a wall
    double sanding_area = 0;  ///< m²
    double crush_safety = 0;  ///< against an envelope bag; 0 where there is none
    double wall_safety = 0;   ///< the same of a hollow plug's wall; 0 where it is solid
    int pulls = 0;            ///< that a mould without a plug bears; 0 for a plug
    Point centre = Point::Zero();  ///< of gravity, in the first body's frame from its low corner
    bool operator==(const Findings&) const = default;
};

/// `cure` K is its heat while what is laid on it cures; `mould` has the pieces of one that is made without a
/// plug. Throws InputError, Cancelled.
Findings evaluate(const Choices& choices, const shape::Choices& shape_choices, const shape::Findings& shape,
                  const split::Findings& split, const Mould& mould, const Asked& brief, const Library& shop,
                  double cure, Progress& progress);
Calls calls(const Choices& choices, const Findings& findings, const brief::Choices& brief,
            Family shell_resin);

/// What all plugs cost, or the mould that is made without one, hands at `labour` an hour.
Figure cost_of(const std::vector<Plan>& plans, double labour, bool direct = false);

/// All routes for this job beside each other, the whole mould as one body; `mould` as if it were made without
/// a plug, its pieces as one plan. Heavier than `evaluate`: for work behind the window.
std::vector<Plan> side_by_side(const Choices& choices, const shape::Choices& shape_choices,
                               const shape::Findings& shape, const split::Findings& split, const Mould& mould,
                               const Asked& brief, double scale, const Library& shop, Progress& progress);

/// Hours of finishing over `parts` parts where plug and mould are finished to the grade, and where every part
/// is.
struct FinishHours {
    double tool = 0, part = 0;            ///< h once, h each, finished in the tool
    double bare_tool = 0, bare_part = 0;  ///< the same with a structural tool and finished parts
    double break_even = 0;                ///< parts from which the tool is the better place; 0 for never
    bool operator==(const FinishHours&) const = default;
};
FinishHours finish_hours(Grade grade, double area, const Lists<Rate>& shop);

}  // namespace jig::plug
