#include "core/stages/part/goes.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "core/stages/pots.hpp"

namespace jig::part {
namespace {

/// Goes that these layers ask for by themselves before the `i`-th of them.
std::size_t ended_before(const std::vector<Layer>& layers, std::size_t i) {
    std::size_t out = 0;
    for (std::size_t k = 0; k < std::min(i, layers.size()); ++k) out += ends_go(layers, k) ? 1 : 0;
    return out;
}

bool is_core(const Layer& layer) {
    return layer.kind == LayerKind::core;
}

/// Where the first core lies; past the last layer where there is none.
std::size_t first_core(const std::vector<Layer>& layers) {
    return static_cast<std::size_t>(std::find_if(layers.begin(), layers.end(), is_core) - layers.begin());
}

/// s that all hands take to lay it over `area` m².
double laying_of(const Layer& layer, double area, const brief::Crew& brief, const Library& shop) {
    if (!may_harden(layer.kind)) return 0;
    return shop.rate(is_core(layer) ? "laying core" : "laying ply") * 3600 * area / std::max(1, brief.people);
}

/// m of it that are wet at once with what is laid beside it.
double wet_of(const LaidLayer& laid, const Library& shop) {
    const bool drinks = is_core(laid.layer) && need(shop.cores, laid.layer.material, "part").fills > 0;
    return drinks || laid.layer.kind == LayerKind::ply ? laid.ply.thickness : 0;
}

/// The goes as they would be with these common layers, which differ from those that are there in when they
/// are laid, and in nothing else.
std::vector<Go> goes_laid(Choices c, const Findings& f, const std::vector<Layer>& layers, int parts,
                          const brief::Crew& brief, const Library& shop) {
    c.layers = layers;
    auto laid = f.laying_order;
    auto regions = f.regions;
    std::map<Source, std::size_t> by_source;
    for (auto& r : regions) {
        r.goes.clear();
        for (const auto& [layer, source] : sources_under(c, r.zones)) {
            r.goes.push_back(go_of(c, source));
            by_source[source] = r.goes.back();
        }
    }
    // In the order of their sources, as they were listed.
    std::size_t at = 0;
    for (const auto& [source, go] : by_source) laid.at(at++).go = go;
    return goes(c, laid, regions, parts, 1, f.working.pot, brief, shop);
}

}  // namespace

std::size_t goes_of(const Choices& c) {
    return c.how == LayUp::infused ? 1 : 1 + ended_before(c.layers, c.layers.size());
}

std::size_t go_of(const Choices& c, const Source& layer) {
    const auto last = goes_of(c) - 1;
    if (last == 0) return 0;
    if (layer.zone < 0) return ended_before(c.layers, layer.layer);
    const auto& zone = c.zones.at(static_cast<std::size_t>(layer.zone));
    if (zone.way == ZoneWay::instead) return std::min(last, ended_before(zone.layers, layer.layer));
    const auto core = first_core(c.layers);
    return zone.way == ZoneWay::for_core && core < c.layers.size() ? ended_before(c.layers, core) : last;
}

std::vector<std::string> said_goes(const Choices& c) {
    const auto count = goes_of(c);
    const auto core = first_core(c.layers);
    std::vector<std::string> out;
    for (std::size_t go = 0; go < count; ++go) {
        std::string said;
        const auto add = [&](const char* more) {
            if (said.find(more) == std::string::npos)
                said += (said.empty() ? "" : " and ") + std::string(more);
        };
        std::size_t from = c.layers.size(), to = 0;
        for (std::size_t i = 0; i < c.layers.size(); ++i) {
            if (ended_before(c.layers, i) != go) continue;
            from = std::min(from, i);
            to = i;
            if (is_core(c.layers[i]))
                add("core");
            else if (c.layers[i].kind == LayerKind::ply)
                add(core == c.layers.size() ? "plies" : i < core ? "outer skin" : "inner skin");
        }
        if (said.empty()) said = "coats";
        // Where a skin is laid in several goes its layers tell them apart.
        if (said == "plies" || std::find(out.begin(), out.end(), said) != out.end())
            said = from == to ? fmt::format("layer {}", from + 1)
                              : fmt::format("layers {} to {}", from + 1, to + 1);
        out.push_back(std::move(said));
    }
    return out;
}

std::string which_go(const std::vector<Go>& goes, std::size_t number) {
    if (goes.size() < 2) return {};
    return fmt::format(", go {} of {}: {}", number + 1, goes.size(), goes.at(number).what);
}

std::vector<Go> goes(const Choices& c, const std::vector<Laying>& laid, const std::vector<RegionSum>& regions,
                     int parts, double over, double life, const brief::Crew& brief, const Library& shop) {
    std::vector<Go> out;
    for (auto& what : said_goes(c)) out.push_back({std::move(what), 0, 0, 0, 0});
    const bool wetted = c.how == LayUp::hand || c.how == LayUp::bagged;
    for (std::size_t go = 0; go < out.size(); ++go) {
        Pots pots(life, kPotOfLife);
        for (const auto& l : laid) {
            if (l.go != go) continue;
            const double seconds = laying_of(l.laid.layer, l.area * parts, brief, shop);
            out[go].laying += seconds;
            const double mixed = l.laid.resin * l.area * parts * over;
            if (wetted && mixed > 0) {
                pots.lay(mixed, seconds);
                out[go].resin += mixed;
            } else {
                pots.wait(seconds);
            }
        }
        out[go].pots = pots.count();
    }
    for (const auto& r : regions) {
        std::vector<double> wet(out.size(), 0.0);
        for (std::size_t i = 0; i < r.stack.laid.size(); ++i)
            wet[r.goes.at(i)] += wet_of(r.stack.laid[i], shop);
        for (std::size_t go = 0; go < out.size(); ++go) out[go].wet = std::max(out[go].wet, wet[go]);
    }
    return out;
}

std::optional<std::vector<Layer>> parted(const Choices& c, const Findings& f, double wet, double laying,
                                         int parts, const brief::Crew& brief, const Library& shop) {
    if (c.how == LayUp::infused || f.stack.laid.size() != c.layers.size()) return {};
    auto out = at_once(c.layers);
    double thick = 0, seconds = 0;
    std::optional<std::size_t> last;  // of this go, on which it may end
    for (std::size_t i = 0; i < out.size(); ++i) {
        const double t = wet_of(f.stack.laid[i], shop);
        const double s = laying_of(out[i], f.area * parts, brief, shop);
        if (t > wet || s > laying) return {};
        const bool full = thick + t > wet + 1e-9 || seconds + s > laying + 1e-9;
        // A core that would come onto a hard skin wants bedding: whether it gets some is not to be said here.
        if (full && last && is_core(out[*last + 1])) return {};
        if (full && last) {
            out[*last].hardens = true;
            thick = seconds = 0;
            // What lies between is laid with this one.
            for (auto k = *last + 1; k < i; ++k) {
                thick += wet_of(f.stack.laid[k], shop);
                seconds += laying_of(out[k], f.area * parts, brief, shop);
            }
        }
        thick += t;
        seconds += s;
        if (may_harden(out[i].kind)) last = i;
    }
    const auto all = goes_laid(c, f, out, parts, brief, shop);
    if (!std::all_of(all.begin(), all.end(),
                     [&](const Go& g) { return g.wet <= wet + 1e-9 && g.laying <= laying + 1e-9; }))
        return {};
    return out;
}

std::vector<Layer> at_once(std::vector<Layer> layers) {
    for (auto& l : layers) l.hardens = false;
    return layers;
}

std::vector<Layer> skin_first(std::vector<Layer> layers) {
    layers = at_once(std::move(layers));
    const auto core = first_core(layers);
    if (core == layers.size()) return layers;
    std::optional<std::size_t> skin;
    for (std::size_t i = 0; i < core; ++i) {
        if (layers[i].kind == LayerKind::ply) skin = i;
    }
    if (!skin) return layers;
    layers[*skin].hardens = true;
    if (layers[core - 1].kind != LayerKind::coupling)
        layers.insert(layers.begin() + static_cast<std::ptrdiff_t>(core),
                      Layer{LayerKind::coupling, {}, 0, 0});
    return layers;
}

std::vector<Layer> one_by_one(std::vector<Layer> layers) {
    layers = skin_first(std::move(layers));
    for (auto i = layers.size(); i-- > 0;) {
        if (!is_core(layers[i])) continue;
        layers[i].hardens = i + 1 < layers.size();
        break;
    }
    return layers;
}

}  // namespace jig::part
