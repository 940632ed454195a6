// The real layers at the cut, as outlines in the plane of the cut: what the ribbon, the sheets and the SVG
// draw.
#pragma once

#include <QString>

#include "app/theme/ink.hpp"
#include "core/job/evaluate.hpp"

namespace jig::app {

struct SectionLayer {
    QString name;
    Hatch hatch = Hatch::foam;
    double thickness = 0;  ///< m as it is; 0 for bodies such as the plug
    Stage stage = Stage::plug;
    Loops outline;  ///< m in the plane of the cut, thickness stretched; layers lie over one another from the
                    ///< last to the first
    bool line_only = false;  ///< release and bag are drawn as lines
};

struct Section2 {
    std::vector<SectionLayer> layers;                     ///< from the plug (first) to the outermost
    double stretch = 1;                                   ///< of thickness
    double low_x = 0, high_x = 0, low_y = 0, high_y = 0;  ///< m, the window that is drawn
    std::vector<std::pair<double, double>> tape;          ///< m along x on the foot, where the tape land lies
    double foot = 0;
    bool part_in_tool = false;
    double part = 0;  ///< m of the part where it is thickest, in the tool
    [[nodiscard]] bool empty() const { return layers.empty(); }
};

/// The section of the mould on its plug; for Release, Heat and Part the part in the finished tool with its
/// bag. Empty where the shape or the shell has no findings.
Section2 section_at_cut(const Job& job, const Findings& findings, Stage stage);

}  // namespace jig::app
