// How a core's sheet is bored, slit or heated so that it bends and lets resin through, and what that leaves
// of it.
#pragma once

#include "core/science/laminate/ply.hpp"
#include "core/shop/entries.hpp"

namespace jig {

enum class Slits { none, along, both };
template <>
struct Words<Slits> {
    static constexpr std::array all{Word{"none", "no slits"}, Word{"along", "slits one way"},
                                    Word{"both", "slits both ways"}};
};

struct CoreCut {
    double hole = 0, hole_pitch = 0.04;  ///< m, bored right through on a square pitch; 0 for none
    Slits slits = Slits::none;           ///< one way: along the core's own angle
    double slit = 0.001;                 ///< m wide
    double slit_depth = 0.003;           ///< m, never more than the core is thick
    double slit_pitch = 0.03;            ///< m from slit to slit
    bool heated = false;                 ///< it is bent hot
    static void fields(auto& c, auto&& v) {
        v("hole", c.hole, 0.0, 0.02);
        v("hole_pitch", c.hole_pitch, 0.005, 1.0);
        v("slits", c.slits);
        v("slit", c.slit, 0.0001, 0.02);
        v("slit_depth", c.slit_depth, 0.0005, 0.3);
        v("slit_pitch", c.slit_pitch, 0.005, 1.0);
        v("heated", c.heated);
    }
    bool operator==(const CoreCut&) const = default;
};

/// Shares of a core `thickness` m thick that are cut away.
struct CoreOpen {
    double holes = 0;   ///< of its face
    double slits = 0;   ///< of its face, where slits are and holes are not
    double depth = 0;   ///< of its thickness that slits go down
    double across = 0;  ///< of a line across the slits
    [[nodiscard]] double volume() const { return holes + slits * depth; }
};
CoreOpen open_of(const CoreCut& cut, double thickness);

/// What is left of a core of these figures, its cuts full of `resin`, or empty where that is null; 1 runs
/// along the slits. Holes by the composite cylinders of Hashin and Rosen (1964), which is exact for shear
/// along them; slits as layers, stacked across them and side by side along them; the cut depth and what is
/// left under it in series for shear, side by side in the plane. Density is left as it was.
PlyMaterial as_cut(const PlyMaterial& core, const CoreOpen& open, Slits slits, const Matrix* resin);

/// The least radius, m, that a core bends to as it is cut; 0 where the library does not know. Slit cores bend
/// so across their slits alone where those run one way.
double bends_to(const Core& core, const CoreCut& cut);

}  // namespace jig
