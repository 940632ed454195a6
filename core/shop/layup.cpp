#include "core/shop/layup.hpp"

#include <fmt/format.h>

#include <cmath>

namespace jig {

double fibre_volume(const Reinforcement& r, LayUp how) {
    const auto column = static_cast<std::size_t>(how);
    // craft figures: hand 0.35 to 0.45 (mat 0.15 to 0.20), bagged 0.45 to 0.55, infused 0.50 to 0.58, prepreg
    // 0.55 to 0.60
    static constexpr std::array<double, 4> mat{0.18, 0.22, 0.25, 0.25}, tissue{0.10, 0.12, 0.12, 0.12},
        cloth{0.40, 0.48, 0.53, 0.57};
    // Heavy woven roving takes more resin by hand than cloth does.
    if (r.style == "roving" && how == LayUp::hand) return 0.34;
    if (r.style == "tissue") return tissue[column];
    return r.weave == Weave::mat ? mat[column] : cloth[column];
}

std::vector<LaidLayer> lay_up(const std::vector<Layer>& layers, const Resin& resin, LayUp how,
                              const PlyLists& shop, const std::string& where) {
    std::vector<LaidLayer> out;
    for (std::size_t i = 0; i < layers.size(); ++i) {
        const auto& layer = layers[i];
        const auto place = fmt::format("{} layer {}", where, i + 1);
        LaidLayer laid;
        laid.layer = layer;
        laid.name = layer.material;
        laid.ply.angle = layer.angle;
        const auto settle = [&](double library) {
            return laid.ply.thickness = layer.thickness > 0 ? layer.thickness : library;
        };
        switch (layer.kind) {
            case LayerKind::surface_coat: {
                const auto& coat = need(shop.surface_coats, layer.material, place);
                const double t = settle(coat.pass_thickness * coat.passes);
                laid.ply.material =
                    isotropic(coat.matrix.E, coat.matrix.nu, coat.matrix.density, coat.matrix.alpha);
                laid.other = t * coat.matrix.density;
                laid.price = laid.other * coat.price;
                laid.origin = coat.origin;
                break;
            }
            case LayerKind::coupling: {
                // The stack's resin, thickened and full of chopped strand: stiffer and less given to grow
                // than neat.
                const double t = settle(kCouplingThickness);
                laid.name = "coupling coat";
                laid.ply.material = isotropic(1.5 * resin.matrix.E, resin.matrix.nu,
                                              1.15 * resin.matrix.density, 0.7 * resin.matrix.alpha);
                laid.resin = t * laid.ply.material.density;
                laid.price = laid.resin * resin.price;
                laid.origin = {OriginKind::typical, "2026-11", "resin with chopped strand and thickener"};
                break;
            }
            case LayerKind::ply: {
                const auto& r = need(shop.reinforcements, layer.material, place);
                const auto& fibre = fibre_of(r.fibre);
                double vf = fibre_volume(r, how);
                if (layer.thickness > 0) vf = std::min(0.7, r.areal_mass / (fibre.density * layer.thickness));
                laid.fibre_volume = vf;
                settle(ply_thickness(r.areal_mass, fibre.density, vf));
                laid.ply.material = ply_of(r.weave, fibre, resin.matrix, vf, r.crimp);
                laid.ply.angle = layer.angle + r.lies_at;
                laid.fibre = r.areal_mass;
                laid.resin = (laid.ply.thickness - r.areal_mass / fibre.density) * resin.matrix.density;
                laid.price = r.price + laid.resin * resin.price;
                laid.origin =
                    layer.thickness > 0 ? Origin{OriginKind::measured, "", "thickness typed in"} : r.origin;
                break;
            }
            case LayerKind::core: {
                const auto& core = need(shop.cores, layer.material, place);
                settle(core.thickness);
                // End grain and cells carry little in their plane, whatever they bear through it.
                laid.ply.material =
                    isotropic(core.E_in_plane.value_or(core.E), core.nu, core.density, core.alpha);
                laid.ply.material.G13 = laid.ply.material.G23 = core.G;
                // A prepreg brings its resin with it: none is left for a core's cells and cuts.
                const bool filled = how != LayUp::prepreg;
                const auto open = open_of(layer.cut, laid.ply.thickness);
                laid.ply.material =
                    as_cut(laid.ply.material, open, layer.cut.slits, filled ? &resin.matrix : nullptr);
                laid.other = laid.ply.thickness * core.density * (1 - open.volume());
                const double drinks = core.fills * (1 - open.volume()) + open.volume();
                if (filled) laid.resin = 2 * core.uptake + drinks * laid.ply.thickness * resin.matrix.density;
                laid.ply.material.density = (laid.other + laid.resin) / laid.ply.thickness;
                laid.price = core.price + laid.resin * resin.price;
                laid.origin = core.origin;
                break;
            }
            case LayerKind::wall: {
                if (!layer.solid)
                    throw InputError(
                        place, "a solid wall is not laid up",
                        "choose a ply, a core or a coat; a mould without a plug is chosen in Plug");
                laid.ply.thickness = layer.thickness;
                laid.ply.material = layer.solid->material;
                laid.other = layer.thickness * layer.solid->material.density;
                laid.origin = layer.solid->origin;
                break;
            }
        }
        out.push_back(std::move(laid));
    }
    return out;
}

PlyMaterial plate_of(const Board& board) {
    auto out = isotropic(board.E, 0.3, board.density, board.alpha);
    if (board.E_across) {
        out.E2 = *board.E_across;
        // Crossed sheets hold each other: a tenth at most goes across, typical of plywood.
        out.nu12 = 0.1;
    }
    if (board.G) out.G12 = out.G13 = out.G23 = *board.G;
    return out;
}

CureStrain cure_strain(const std::vector<LaidLayer>& laid, const Resin& resin, const PlyLists& shop) {
    CureStrain out;
    // Between gel and full cure a resin has on the mean about half its stiffness. Typical.
    constexpr double kAfterGel = 0.5;
    Matrix unit = resin.matrix;
    unit.E *= kAfterGel;
    unit.alpha = 1;
    const auto still = [](Fibre f) {
        f.alpha1 = f.alpha2 = 0;
        return f;
    };
    std::vector<StackPly> plies;
    for (const auto& l : laid) {
        auto ply = l.ply;
        ply.material.alpha1 = ply.material.alpha2 = ply.material.alpha3 = 0;
        if (l.layer.kind == LayerKind::ply) {
            const auto& r = need(shop.reinforcements, l.layer.material, "cure shrinkage");
            ply.material = ply_of(r.weave, still(fibre_of(r.fibre)), unit, l.fibre_volume, r.crimp);
        } else if (l.layer.kind == LayerKind::coupling) {
            ply.material.alpha1 = ply.material.alpha2 = ply.material.alpha3 = 0.7;
        }
        plies.push_back(ply);
    }
    const bool mat = has_styrene(resin.family);
    const auto known = ply_of(mat ? Weave::mat : Weave::cloth, still(fibre_of(FibreKind::glass)), unit,
                              mat ? 0.18 : 0.40, mat ? 0.82 : 0.92);
    const auto moved = laminate(plies);
    const double neat = resin.shrinkage / known.alpha1;  // what the resin alone would shrink
    out.in_plane = neat * (moved.cte[0] + moved.cte[1]) / 2;
    out.through = neat * moved.cte_through;
    out.curvature = neat * moved.curvature;
    return out;
}

std::vector<StackPly> plies_of(const std::vector<LaidLayer>& laid) {
    std::vector<StackPly> out;
    for (const auto& l : laid) out.push_back(l.ply);
    return out;
}

}  // namespace jig
