// The part's cores cut into panels: as many as its sheets and its bends ask for, laid flat and onto sheets.
#pragma once

#include "core/science/nest/cut_sheets.hpp"
#include "core/stages/part/findings.hpp"

namespace jig::part {

struct CorePanel {
    std::string name;  ///< "C1.2": the core, counted from the tool, and the panel of it
    Source of;
    int piece = 0;  ///< of the mould, whose face it lies on; 0 of a mould in one
    std::string material;
    Loops outline;            ///< m, flat, seen from the tool
    std::vector<Loop> arrow;  ///< along the tool's length
    double area = 0;          ///< m²
    double stretch = 0;       ///< share; all but a twentieth of it stretches or closes up by less
    bool strained = false;    ///< by more than it takes, and it cannot be cut any smaller
    Point middle = Point::Zero(), normal = Point::UnitZ();
    bool operator==(const CorePanel&) const = default;
};

/// Where two panels meet: ends on the face, and its outward normal there.
struct PanelSeam {
    Point a, b, normal;
    int piece = 0;  ///< of the mould, as a panel's
    bool operator==(const PanelSeam&) const = default;
};

/// What one kind of core is cut from.
struct CoreSheets {
    std::string material;
    double thickness = 0;  ///< m
    SheetSet sheets;
    bool operator==(const CoreSheets&) const = default;
};

struct CorePanels {
    std::vector<CorePanel> panels;
    std::vector<CoreSheets> stocks;
    std::vector<PanelSeam> seams;
    double joints = 0;                   ///< m of them
    double edges = 0;                    ///< m round the cores
    double joint_fill = 0;               ///< m³ between panels
    double edge_fill = 0;                ///< m³ of cells filled along edges
    std::vector<std::string> no_sheets;  ///< cores that do not come in sheets
    double not_flat = 0;    ///< m² of cores that cannot be laid flat, however small they are cut
    bool too_many = false;  ///< more than `kMostPanels`: none are kept
    bool operator==(const CorePanels&) const = default;
};

/// Each core where the zones leave it is cut across the longest of the tool's three directions until a panel
/// goes onto its sheet and takes the stretch that lying flat asks of it; slits both ways take as much more as
/// they are wide. Panels are half a gap smaller all round; those of all faces go onto the same sheets. Throws
/// InputError where no sheet is wide enough for any; Cancelled.
CorePanels core_panels(const CoreAsked& asked, const std::vector<PieceFace>& faces, const Lists<Core>& shop,
                       Progress& progress);
inline constexpr std::size_t kMostPanels = 400;

/// A part's findings with what its panels truly take: sheets, the last one by the length that is cut off it
/// unless the part is a `one_off`, and the filler between panels and along edges.
Findings with_panels(Findings part, const CorePanels& panels, bool one_off);

std::vector<Figure> panel_figures(const CorePanels& panels, const Choices& choices);
Calls panel_calls(const CorePanels& panels, const Choices& choices);

}  // namespace jig::part
