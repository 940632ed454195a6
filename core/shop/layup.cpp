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
    if (r.style == "tissue") return tissue[column];
    return r.weave == Weave::mat ? mat[column] : cloth[column];
}

std::vector<LaidLayer> lay_up(const std::vector<Layer>& layers, const Resin& resin, LayUp how,
                              const Shop& shop, const std::string& where) {
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
                const auto& fibre = shop.fibre(r.fibre);
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
                laid.ply.material = isotropic(core.E, core.nu, core.density, core.alpha);
                laid.ply.material.G13 = laid.ply.material.G23 = core.G;
                laid.other = laid.ply.thickness * core.density;
                laid.resin = 2 * core.uptake;
                laid.price = core.price + laid.resin * resin.price;
                laid.origin = core.origin;
                break;
            }
        }
        out.push_back(std::move(laid));
    }
    return out;
}

std::vector<StackPly> plies_of(const std::vector<LaidLayer>& laid) {
    std::vector<StackPly> out;
    for (const auto& l : laid) out.push_back(l.ply);
    return out;
}

}  // namespace jig
