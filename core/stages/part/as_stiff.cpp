#include "core/stages/part/as_stiff.hpp"

#include "core/stages/part/goes.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>

namespace jig::part {

Build build_of(const Choices& c, std::string name) {
    return {std::move(name), c.resin, c.how, c.layers, c.gel_temperature, c.zones};
}

Choices made_as(Choices c, const Build& b) {
    c.resin = b.resin;
    c.how = b.how;
    c.layers = b.layers;
    c.gel_temperature = b.gel_temperature;
    c.zones = b.zones;
    return c;
}

bool is_made_as(const Choices& c, const Build& b) {
    return build_of(c, b.name) == b;
}

std::string main_cloth(const std::vector<Layer>& layers) {
    std::map<std::string, int> plies;
    for (const auto& l : layers) plies[l.material] += l.kind == LayerKind::ply ? 1 : 0;
    std::string most;
    for (const auto& [cloth, n] : plies) {
        if (n > 0 && (most.empty() || n > plies[most])) most = cloth;
    }
    return most;
}

std::string in_short(const Build& b) {
    int plies = 0;
    std::string core;
    for (const auto& l : b.layers) {
        plies += l.kind == LayerKind::ply ? 1 : 0;
        if (l.kind == LayerKind::core && core.empty()) core = " and " + l.material;
    }
    const auto zones = b.zones.empty()       ? std::string()
                       : b.zones.size() == 1 ? std::string(", 1 zone")
                                             : fmt::format(", {} zones", b.zones.size());
    return fmt::format("{} {}{} in {}, {}{}", plies, plies == 1 ? "ply" : "plies", core, b.resin, said(b.how),
                       zones);
}

void keep(std::vector<Build>& builds, Build build) {
    if (build.layers.empty())
        throw InputError("part", "nothing is laid that could be kept", "lay plies first");
    if (builds.size() >= kMostBuilds)
        throw InputError("part", fmt::format("{} builds are kept", builds.size()), "take one away first");
    const auto taken = [&](const std::string& name) {
        return std::any_of(builds.begin(), builds.end(), [&](const Build& b) { return b.name == name; });
    };
    for (char letter = 'A'; build.name.empty() || taken(build.name); ++letter)
        build.name = std::string("build ") + letter;
    builds.push_back(std::move(build));
}

AsStiff as_stiff(const Build& like, const std::string& cloth, const Library& shop) {
    if (like.layers.empty())
        throw InputError("part", "\"" + like.name + "\" has no layers",
                         "lay some first, or take another build");
    const auto& resin = need(shop.resins, like.resin, "part resin");
    need(shop.reinforcements, cloth, "part");
    const auto stiffness = [](const StackSum& s) {
        return std::min(s.laminate.D_free(0, 0), s.laminate.D_free(1, 1));
    };
    std::vector<Layer> coats, cores;
    // Which of other plies are to harden first is the maker's to say anew.
    for (const auto& l : at_once(like.layers)) {
        if (l.kind == LayerKind::core)
            cores.push_back(l);
        else if (l.kind != LayerKind::ply)
            coats.push_back(l);
    }
    AsStiff out;
    out.wanted = stiffness(sum_stack(like.layers, resin, like.how, shop, "part"));
    const auto ply = [&](int from_outside) {
        Layer l;
        l.material = cloth;
        l.angle = from_outside % 2 == 0 ? 0 : kPi / 4;
        return l;
    };
    for (int n = 1; n <= kMostPlies; ++n) {
        const int under = (n + 1) / 2, over = n - under;
        auto layers = coats;
        for (int i = 0; i < under; ++i) layers.push_back(ply(i));
        layers.insert(layers.end(), cores.begin(), cores.end());
        for (int i = over; i-- > 0;) layers.push_back(ply(i));
        auto sum = sum_stack(layers, resin, like.how, shop, "part");
        const double found = stiffness(sum);
        if (found < out.wanted * (1 - 1e-9)) continue;
        out.build = like;
        out.build.name = "as stiff as " + like.name;
        out.build.layers = std::move(layers);
        out.build.zones.clear();
        out.plies = n;
        out.stack = std::move(sum);
        out.found = found;
        return out;
    }
    throw InputError("part", fmt::format("{} plies of {} are not as stiff", kMostPlies, cloth),
                     "take a heavier cloth, or a core");
}

}  // namespace jig::part
