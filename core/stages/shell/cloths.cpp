#include "core/stages/shell/cloths.hpp"

#include <algorithm>

#include "core/base/units.hpp"
#include "core/stages/shell/units.hpp"

namespace jig::shell {

Cloths cloths_of(const Choices& like, const Library& shop) {
    Cloths out;
    std::vector<Layer> tissue;
    std::vector<const Reinforcement*> found;
    const auto& layers = like.layers.empty() ? start_from(like.school).layers : like.layers;
    for (const auto& l : layers) {
        if (l.kind == LayerKind::surface_coat || l.kind == LayerKind::coupling) {
            out.face.push_back(l);
        } else if (l.kind == LayerKind::core) {
            if (out.core.empty()) out.core.push_back(l);
        } else if (!is_cloth(l, shop)) {
            if (tissue.empty()) tissue.push_back(l);
        } else {
            const auto& r = need(shop.reinforcements, l.material, "shell");
            if (std::find(found.begin(), found.end(), &r) == found.end()) found.push_back(&r);
        }
    }
    if (found.empty())
        throw InputError("shell", "the stack names no cloth to build from", "start it from a school first");
    out.face.insert(out.face.end(), tissue.begin(), tissue.end());
    std::sort(found.begin(), found.end(),
              [](const auto* a, const auto* b) { return a->areal_mass < b->areal_mass; });
    for (const auto* r : found) {
        out.names.push_back(r->name);
        out.turned = out.turned && r->weave != Weave::mat;
    }
    return out;
}

std::vector<Layer> mirrored(const Cloths& cloths, const std::vector<int>& counts, int middle) {
    std::vector<Layer> half;
    bool turn = false;
    const auto lay = [&](std::size_t cloth) {
        half.push_back({LayerKind::ply, cloths.names[cloth], cloths.turned && turn ? kPi / 4 : 0.0, 0});
        turn = !turn;
    };
    for (std::size_t i = 0; i < counts.size(); ++i) {
        for (int n = 0; n < counts[i]; ++n) lay(i);
    }
    std::vector<Layer> out = cloths.face;
    out.insert(out.end(), half.begin(), half.end());
    out.insert(out.end(), cloths.core.begin(), cloths.core.end());
    const std::vector<Layer> back(half.rbegin(), half.rend());
    if (middle >= 0) {
        lay(static_cast<std::size_t>(middle));
        out.push_back(half.back());
    }
    out.insert(out.end(), back.begin(), back.end());
    return out;
}

}  // namespace jig::shell
