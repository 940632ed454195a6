#include <fmt/format.h>

#include "batch/verbs.hpp"
#include "core/base/units.hpp"
#include "core/science/laminate/stack.hpp"
#include "core/science/mesh/stl.hpp"
#include "core/shop/layup.hpp"
#include "core/shop/shop.hpp"

namespace jig::batch {
namespace {

PlyMaterial material_from(const JsonPlace& place) {
    PlyMaterial m;
    const auto get = [&](const char* key) { return place.at(key).number(); };
    m.E1 = get("E1_Pa");
    m.E2 = get("E2_Pa");
    m.G12 = get("G12_Pa");
    m.nu12 = get("nu12");
    m.G13 = m.G23 = m.G12;
    place.read("G13_Pa", m.G13);
    m.G23 = m.G13;
    place.read("G23_Pa", m.G23);
    place.read("density_kg_m3", m.density);
    place.read("alpha1_1_K", m.alpha1);
    m.alpha2 = m.alpha1;
    place.read("alpha2_1_K", m.alpha2);
    m.alpha3 = m.alpha2;
    return m;
}

/// A name in the shop library: a reinforcement (in the stack's resin), resin, surface coat, core or board.
PlyMaterial named_material(const std::string& name, const Shop& shop, const Resin& resin, double thickness,
                           double& lies_at, const std::string& where) {
    if (const auto* r = find(shop.reinforcements, name)) {
        const auto& fibre = fibre_of(r->fibre);
        const double vf = r->areal_mass / (fibre.density * thickness);
        if (vf > 0.78) {
            throw InputError(where,
                             fmt::format("{:g} m is too thin for \"{}\": its fibre alone would fill {:.0f} %",
                                         thickness, name, 100 * vf),
                             fmt::format("give it {:.5f} m or more", r->areal_mass / (fibre.density * 0.7)));
        }
        lies_at = r->lies_at;
        return ply_of(r->weave, fibre, resin.matrix, vf, r->crimp);
    }
    if (const auto* m = find(shop.resins, name))
        return isotropic(m->matrix.E, m->matrix.nu, m->matrix.density, m->matrix.alpha);
    if (const auto* m = find(shop.surface_coats, name))
        return isotropic(m->matrix.E, m->matrix.nu, m->matrix.density, m->matrix.alpha);
    if (const auto* m = find(shop.boards, name)) return plate_of(*m);
    if (const auto* m = find(shop.cores, name)) {
        auto p = isotropic(m->E, m->nu, m->density, m->alpha);
        p.G13 = p.G23 = m->G;
        return p;
    }
    throw InputError(where, "the shop library has no \"" + name + "\"",
                     "use a name from data/library, or give the constants as an object");
}

Json matrix_json(const Eigen::Matrix3d& m) {
    Json out = Json::array();
    for (int i = 0; i < 3; ++i) out.push_back({m(i, 0), m(i, 1), m(i, 2)});
    return out;
}

Json moduli_json(const Moduli& m) {
    return {{"Ex_Pa", m.Ex}, {"Ey_Pa", m.Ey}, {"Gxy_Pa", m.Gxy}, {"nuxy", m.nuxy}};
}

}  // namespace

std::vector<StackPly> read_stack(const JsonPlace& place, const Shop& shop) {
    std::string resin_name = "epoxy, room temperature slow";
    place.read("resin", resin_name);
    const auto& resin = need(shop.resins, resin_name, place.where() + ".resin");
    std::vector<StackPly> plies;
    const auto list = place.at("plies");
    for (std::size_t i = 0; i < list.size(); ++i) {
        const auto item = list.item(i);
        StackPly ply;
        ply.thickness = item.at("thickness_m").number();
        if (!(ply.thickness > 0))
            item.at("thickness_m")
                .fail("the thickness is not positive", "give it in metres, such as 0.00025");
        double degrees_given = 0, lies_at = 0;
        item.read("angle_deg", degrees_given);
        const auto material = item.at("material");
        ply.material = material.raw().is_string() ? named_material(material.text(), shop, resin,
                                                                   ply.thickness, lies_at, material.where())
                                                  : material_from(material);
        ply.angle = radians(degrees_given) + lies_at;
        plies.push_back(ply);
    }
    return plies;
}

Json run_laminate(const Arguments& a, Progress&) {
    const auto& path = a.file("the stack file");
    const auto json = parse_json(path, read_file(path, 64u << 20));
    const JsonPlace place(json, path);
    const auto shop = load_shop(data_folder() + "/library");
    const auto l = laminate(read_stack(place, shop));
    return {{"thickness_m", l.thickness},
            {"areal_mass_kg_m2", l.areal_mass},
            {"A", matrix_json(l.A)},
            {"B", matrix_json(l.B)},
            {"D", matrix_json(l.D)},
            {"membrane", moduli_json(l.membrane)},
            {"bending", moduli_json(l.bending)},
            {"shear_stiffness_N_m", {l.shear_stiffness[0], l.shear_stiffness[1]}},
            {"cte_1_K", {l.cte[0], l.cte[1], l.cte[2]}},
            {"curvature_1_m_K", {l.curvature[0], l.curvature[1], l.curvature[2]}},
            {"symmetric", l.symmetric},
            {"balanced", l.balanced}};
}

}  // namespace jig::batch
