// Layers as a maker names them, made into plies with thickness, mass, resin and price.
#pragma once

#include "core/base/shared.hpp"
#include "core/science/laminate/stack.hpp"
#include "core/shop/core_cut.hpp"
#include "core/shop/lists.hpp"

namespace jig {

enum class LayerKind { surface_coat, coupling, ply, core, wall };
template <>
struct Words<LayerKind> {
    static constexpr std::array all{Word{"surface_coat", "surface coat"}, Word{"coupling", "coupling coat"},
                                    Word{"ply", "ply"}, Word{"core", "core"}, Word{"wall", "solid wall"}};
};

enum class LayUp { hand, bagged, infused, prepreg };
template <>
struct Words<LayUp> {
    static constexpr std::array all{Word{"hand", "by hand"}, Word{"bagged", "by hand under a bag"},
                                    Word{"infused", "infused"}, Word{"prepreg", "as prepreg"}};
};

/// What a mould is cut from or printed in, where it is not laid up.
struct Solid {
    PlyMaterial material;  ///< its density with what stands behind the wall brought into it
    double conductivity = 0, heat_capacity = 0;  ///< W/(m·K), J/(kg·K)
    double bears = 0;                            ///< K
    double mass = 0;                             ///< kg of all of it
    bool metal = false;
    Origin origin;
    bool operator==(const Solid&) const = default;
};

/// A go ends on what is laid; coats gel by themselves.
constexpr bool may_harden(LayerKind kind) {
    return kind == LayerKind::ply || kind == LayerKind::core;
}

struct Layer {
    LayerKind kind = LayerKind::ply;
    std::string
        material;      ///< name in the library; a coupling coat is of the stack's own resin and needs none
    double angle = 0;  ///< rad
    double thickness = 0;      ///< m measured here; 0 for the library's
    CoreCut cut = {};          ///< of a core
    bool hardens = false;      ///< what lies until here hardens before the next layer is laid
    Shared<Solid> solid = {};  ///< of a wall; follows from Plug and stands in no file
    static void fields(auto& c, auto&& v) {
        v("kind", c.kind);
        v("material", c.material);
        v("angle", c.angle, -3.15, 3.15);
        v("thickness", c.thickness, 0.0, 0.5);
        if (c.kind == LayerKind::core) v("cut", c.cut);
        if (may_harden(c.kind)) v("hardens", c.hardens);
    }
    bool operator==(const Layer&) const = default;
};
/// Whether more is laid in another go, once the `i`-th of these layers and all before it have hardened.
inline bool ends_go(const std::vector<Layer>& layers, std::size_t i) {
    return i + 1 < layers.size() && may_harden(layers[i].kind) && layers[i].hardens;
}

struct LaidLayer {
    Layer layer;
    std::string name;
    StackPly ply;
    double fibre = 0;  ///< kg/m²
    double resin = 0;  ///< kg/m² of the stack's resin
    double other = 0;  ///< kg/m² of surface coat or core
    double price = 0;  ///< per m², waste not counted
    double fibre_volume = 0;
    Origin origin;
    [[nodiscard]] double mass() const { return fibre + resin + other; }
    bool operator==(const LaidLayer&) const = default;
};

/// Fibre volume share that a lay-up reaches with a reinforcement, typical.
double fibre_volume(const Reinforcement& reinforcement, LayUp how);

/// Throws InputError naming `where` and the layer for materials that the library has not.
std::vector<LaidLayer> lay_up(const std::vector<Layer>& layers, const Resin& resin, LayUp how,
                              const PlyLists& shop, const std::string& where);

/// A board in its plane, 1 along the grain of its faces. Plywood and fibre board shear more than an isotropic
/// plate of their E.
PlyMaterial plate_of(const Board& board);

/// What a stack does of itself as its resin shrinks after gel: the resin's own strain through the same
/// equations as its expansion, with the stiffness that it has by then. Fibres hold it back along themselves,
/// carbon more than glass, and hardly through the thickness. Cores and surface coats, cured or inert, do not
/// shrink.
struct CureStrain {
    double in_plane = 0;                                  ///< mean of both ways, positive as it shrinks
    double through = 0;                                   ///< positive as it shrinks
    Eigen::Vector3d curvature = Eigen::Vector3d::Zero();  ///< 1/m: x, y, xy
    bool operator==(const CureStrain&) const = default;
};
/// The library gives a resin's shrinkage in a hand-laid laminate of glass: mat with polyesters, cloth with
/// others.
CureStrain cure_strain(const std::vector<LaidLayer>& laid, const Resin& resin, const PlyLists& shop);

/// The plies alone, ready for `laminate`.
std::vector<StackPly> plies_of(const std::vector<LaidLayer>& laid);

/// Cloth bridges corners tighter than so many thicknesses of its laminate, typical.
inline constexpr double kBridgingThicknesses = 2;

/// Thickness of a coupling coat, m.
inline constexpr double kCouplingThickness = 0.0005;

}  // namespace jig
