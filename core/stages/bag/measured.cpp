#include "core/stages/bag/measured.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <set>

namespace jig::bag {
namespace {

/// `name` of a list, with each of its figures `K` times `lets`.
template <class Material, std::size_t n>
Measured let_through(std::vector<Material>& list, const std::string& name, double lets, const Origin& origin,
                     const std::array<std::pair<const char*, double Material::*>, n>& figures) {
    const auto found =
        std::find_if(list.begin(), list.end(), [&](const Material& m) { return m.name == name; });
    if (found == list.end())
        throw InputError("bag", "the shop library has no \"" + name + "\"", "choose another cloth");
    Measured out{name, (*found).*figures.front().second, 0};
    for (const auto& [key, K] : figures) {
        double& value = (*found).*K;
        const double next = value * lets;
        // As narrow as the narrowest of the library's own bounds.
        if (next < 1e-15 || next > 1e-6)
            throw InputError(
                "bag", fmt::format("{:.3g} times what the library says of \"{}\" is no preform", lets, name),
                "look at the clock, the places and the plan of hoses");
        value = next;
        found->origins[key] = origin;
    }
    out.after = (*found).*figures.front().second;
    return out;
}

}  // namespace

std::vector<Measured> keep_measured(Shop& shop, const Infusion& infusion, const part::Choices& part,
                                    const Origin& origin) {
    if (part.how != LayUp::infused)
        throw InputError("bag", "neither the part nor the shell is infused", "choose so in Part or in Shell");
    if (infusion.lets == 1)
        throw InputError("bag", "the job uses the library's own permeability",
                         "mark the front, and use what it shows first");
    std::set<std::string> cloths;
    const auto gather = [&](const std::vector<Layer>& layers) {
        for (const auto& l : layers) {
            if (l.kind == LayerKind::ply) cloths.insert(l.material);
        }
    };
    gather(part.layers);
    for (const auto& zone : part.zones) gather(zone.layers);
    if (cloths.empty()) throw InputError("bag", "it has no cloth that resin runs through", "lay some");
    auto kept = shop;
    std::vector<Measured> out;
    for (const auto& name : cloths)
        out.push_back(let_through(kept.reinforcements, name, infusion.lets, origin,
                                  std::array{std::pair{"K_along_m2", &Reinforcement::K_along},
                                             std::pair{"K_across_m2", &Reinforcement::K_across},
                                             std::pair{"K_through_m2", &Reinforcement::K_through}}));
    const auto* medium = find(kept.consumables, "flow medium");
    if (infusion.medium && medium != nullptr && medium->K > 0)
        out.push_back(let_through(kept.consumables, medium->name, infusion.lets, origin,
                                  std::array{std::pair{"K_m2", &Consumable::K}}));
    shop = std::move(kept);
    return out;
}

}  // namespace jig::bag
