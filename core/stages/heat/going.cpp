#include "core/stages/heat/going.hpp"

#include <algorithm>
#include <cmath>
#include <map>

namespace jig::heat {
namespace {

/// The common wall, and every wall in the oven's cool and warm end in place of where it may stand between.
std::vector<CurePlace> at_ends(std::vector<CurePlace> walls, const OvenEnds& ends) {
    if (ends.cool >= 0 && ends.warm <= 0) return walls;
    std::vector<CurePlace> out{walls.front()};
    for (auto& place : walls) {
        // The end first: what is cut short in a table is told apart by it.
        const auto of = place.name.empty() ? " of the oven" : ", " + place.name;
        for (const bool warm : {false, true}) {
            out.push_back(place);
            out.back().name = (warm ? "warm end" : "cool end") + of;
            out.back().off = warm ? ends.warm : ends.cool;
        }
    }
    return out;
}

double thickness_of(const StackSum& stack) {
    double out = 0;
    for (const auto& l : stack.laid) out += l.ply.thickness;
    return out;
}

}  // namespace

CureRun Going::run(CureWalls cure, const std::vector<Leg>& own, const std::vector<Leg>& usual) const {
    // In the room both ends are as warm as it is; what is found sooner and warmer finds them there.
    cure.walls = at_ends(std::move(cure.walls), ends);
    return run_of(std::move(cure), own.empty() ? usual : own, own.empty(), in.within, progress);
}

std::vector<Leg> Going::one_leg(double T, double hold) const {
    return {{std::max(in.room, T), need(shop.rates, "post-cure ramp", "shop rates").value / 3600, hold}};
}

Wall Going::standing(std::vector<WallLayer> layers) const {
    const WallSide air{in.transfer, steady(in.room)};
    return {std::move(layers), {air, air}, in.room};
}

const WallHistory& least_of(const CureRun& run, std::optional<std::size_t> of) {
    for (const auto& p : run.places) {
        if (p.of == of) return p.history;
    }
    return run.cured.history;
}

void left_by(const WallHistory& h, std::size_t before, std::vector<WallLayer>& layers) {
    for (const auto& gel : h.gels) {
        if (gel.layer >= before && gel.layer - before < layers.size())
            layers[gel.layer - before].cure = gel.cure;
    }
}

void left_by_name(const CureRun& run, std::vector<WallLayer>& layers) {
    for (auto& layer : layers) {
        std::optional<double> least;
        run.each([&](const std::string&, const Wall& wall, const WallHistory& h) {
            for (const auto& gel : h.gels) {
                if (wall.layers[gel.layer].name == layer.name) least = std::min(least.value_or(1), gel.cure);
            }
        });
        if (layer.resin && least) layer.cure = *least;
    }
}

std::vector<Elsewhere> most_different(std::vector<Elsewhere> all, const StackSum& common) {
    std::map<std::string, int> alike;
    for (auto& e : all) {
        const int number = ++alike[e.name];
        if (number > 1) e.name += " " + std::to_string(number);
    }
    const double usual = thickness_of(common);
    std::stable_sort(all.begin(), all.end(), [&](const Elsewhere& a, const Elsewhere& b) {
        return std::abs(thickness_of(*a.stack) - usual) > std::abs(thickness_of(*b.stack) - usual);
    });
    if (all.size() > kMostPlaces) all.resize(kMostPlaces);
    return all;
}

}  // namespace jig::heat
