#include "core/stages/shell/units.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <functional>

#include "core/base/units.hpp"
#include "core/shop/stack_figures.hpp"
#include "core/stages/shell/cloths.hpp"

namespace jig::shell {
namespace {

constexpr double kMostUnits = 500, kNear = 1.0 / 6;
constexpr std::size_t kMostPlies = 200;
/// A total that is met within so many units is met.
constexpr double kClose = 0.5;
/// Most plies in half a stack of each cloth but the heaviest.
constexpr int kSteps = 4;

double thickness(const std::string& material, const Choices& c, const Library& shop) {
    return sum_stack({{LayerKind::ply, material, 0, 0}}, need(shop.resins, c.resin, "shell resin"), c.how,
                     shop, "shell unit")
        .laminate.thickness;
}

/// 2.0 as "2", 1.94 as "1.9".
std::string number(double units) {
    return fmt::format("{:g}", std::round(units * 10) / 10);
}

struct Worth {
    std::string cloth;
    double units;
    bool laid;  ///< the stack has it already
};

/// The stack's cloths, and the shop's others of the same fibre.
std::vector<Worth> worths(const Choices& c, const Cloths& cloths, const Library& shop) {
    std::vector<Worth> out;
    for (const auto& name : cloths.names) out.push_back({name, units_of(name, c, shop), true});
    const auto& like = need(shop.reinforcements, cloths.names.back(), "shell");
    for (const auto& r : shop.reinforcements) {
        if (r.fibre != like.fibre || (r.weave == Weave::mat) != (like.weave == Weave::mat) ||
            r.weave == Weave::unidirectional || r.style == "tissue" ||
            std::find(cloths.names.begin(), cloths.names.end(), r.name) != cloths.names.end())
            continue;
        out.push_back({r.name, units_of(r.name, c, shop), false});
    }
    return out;
}

/// The cloth that is worth so many units: one that the stack has where it is as good as the nearest.
const std::string& worth_of(double units, const std::vector<Worth>& all) {
    const auto off = [&](const Worth& w) { return std::abs(w.units - units) / std::max(units, 1e-9); };
    const Worth* best = nullptr;
    for (const auto& w : all) {
        // Numbers are written to a tenth: what reads the same is the same.
        const double slack = 0.05 / std::max(units, 1e-9);
        if (best == nullptr || off(w) < off(*best) - (best->laid && !w.laid ? slack : 0)) best = &w;
    }
    if (best == nullptr || off(*best) > kNear)
        throw InputError("shell", "no cloth of this fibre counts " + number(units) + " units",
                         best == nullptr
                             ? "add one to the library"
                             : "the nearest is " + best->cloth + ", which counts " + number(best->units));
    return best->cloth;
}

/// Of the stack's cores the one that comes next, where a list says "core"; the last again for more.
Layer core_of(const Choices& c, std::size_t place) {
    const auto& layers = c.layers.empty() ? start_from(c.school).layers : c.layers;
    std::vector<Layer> cores;
    std::copy_if(layers.begin(), layers.end(), std::back_inserter(cores),
                 [](const Layer& l) { return l.kind == LayerKind::core; });
    if (cores.empty())
        throw InputError("shell", "the stack has no core to put there", "add one to the table first");
    return cores[std::min(place, cores.size() - 1)];
}

std::string_view trimmed(std::string_view text) {
    const auto first = text.find_first_not_of(' '), last = text.find_last_not_of(' ');
    return first == std::string_view::npos ? std::string_view() : text.substr(first, last - first + 1);
}

/// "4 × 5.7", "4 x core", "1.9": so many plies of so many units, or a core.
struct Term {
    int times = 1;
    bool core = false;
    double units = 0;
};
std::optional<Term> read_term(std::string_view text) {
    Term out;
    for (const std::string_view sign : {"×", "x", "X", "*"}) {
        const auto at = text.find(sign);
        if (at == std::string_view::npos) continue;
        const auto count = trimmed(text.substr(0, at));
        const auto [end, bad] = std::from_chars(count.data(), count.data() + count.size(), out.times);
        if (bad != std::errc{} || end != count.data() + count.size() || out.times < 1) return std::nullopt;
        text.remove_prefix(at + sign.size());
        break;
    }
    text = trimmed(text);
    out.core = text == "core";
    if (!out.core) out.units = read_quantity(Kind::factor, text).value_or(0);
    return out.core || out.units > 0 ? std::optional(out) : std::nullopt;
}

std::vector<Layer> listed(std::string_view typed, const Choices& c, const Cloths& cloths,
                          const Library& shop) {
    const auto all = worths(c, cloths, shop);
    std::vector<Layer> out;
    std::size_t cores = 0;
    for (std::size_t from = 0; from <= typed.size();) {
        const auto to = std::min(typed.find('+', from), typed.size());
        const auto text = typed.substr(from, to - from);
        const auto term = read_term(text);
        if (!term)
            throw InputError("shell", "\"" + std::string(text) + "\" is no ply counted in units",
                             "write for instance 24 for a total, or 1 + 2 + 4 × 6 + 1 ply by ply");
        if (out.size() + static_cast<std::size_t>(term->times) > kMostPlies)
            throw InputError("shell", fmt::format("over {} plies", kMostPlies), "count again");
        const auto layer =
            term->core ? core_of(c, cores++) : Layer{LayerKind::ply, worth_of(term->units, all), 0, 0};
        out.insert(out.end(), static_cast<std::size_t>(term->times), layer);
        from = to + 1;
    }
    return out;
}

/// Angles of a list: those of `old` for what stays at either end, then 0 and 45° in turn, mirrored where the
/// list is.
void turn(std::vector<Layer>& layers, const std::vector<Layer>& old, bool turned) {
    const auto n = layers.size();
    const auto same = [](const Layer& a, const Layer& b) {
        return a.kind == b.kind && a.material == b.material;
    };
    const bool mirror = std::equal(layers.begin(), layers.end(), layers.rbegin(), same);
    for (std::size_t i = 0; i < n; ++i) {
        const auto place = mirror ? std::min(i, n - 1 - i) : i;
        if (layers[i].kind == LayerKind::ply && turned && place % 2 == 1) layers[i].angle = kPi / 4;
    }
    const auto most = std::min(n, old.size());
    std::size_t head = 0, tail = 0;
    while (head < most && same(layers[head], old[head])) ++head;
    while (head + tail < most && same(layers[n - 1 - tail], old[old.size() - 1 - tail])) ++tail;
    std::copy_n(old.begin(), head, layers.begin());
    std::copy_n(old.end() - static_cast<std::ptrdiff_t>(tail), tail,
                layers.end() - static_cast<std::ptrdiff_t>(tail));
}

/// How well counts of cloths meet a total; less is better.
struct Fit {
    bool met = false;
    int left_out = 0;  ///< cloths skipped between the lightest and the heaviest used
    int plies = 0;
    double off = 1e30;
    [[nodiscard]] bool better_than(const Fit& o) const {
        if (met != o.met) return met;
        if (!met && std::abs(off - o.off) > 1e-9) return off < o.off;
        return std::tie(left_out, plies, off) < std::tie(o.left_out, o.plies, o.off);
    }
};

std::vector<Layer> adding_up(double total, const Choices& c, const Cloths& cloths, bool doubler,
                             const Library& shop) {
    if (total <= 0 || total > kMostUnits)
        throw InputError("shell", number(total) + " units are no build",
                         fmt::format("more than 0 and at most {:g}", kMostUnits));
    std::vector<double> worth;
    for (const auto& name : cloths.names) worth.push_back(units_of(name, c, shop));
    const auto n = cloths.names.size();
    const int sides = doubler ? 1 : 2;
    std::vector<int> counts(n, 0), best;
    int best_middle = -1;
    Fit least;
    const auto weigh = [&](int middle) {
        Fit fit;
        double sum = middle >= 0 ? worth[static_cast<std::size_t>(middle)] : 0;
        fit.plies = middle >= 0;
        bool used = false;
        const auto heaviest = std::find_if(counts.rbegin(), counts.rend(), [](int k) { return k > 0; });
        const auto end = static_cast<std::size_t>(counts.rend() - heaviest);
        for (std::size_t i = 0; i < end; ++i) {
            sum += sides * counts[i] * worth[i];
            fit.plies += sides * counts[i];
            // A stack starts with its lightest cloth.
            fit.left_out += !doubler && counts[i] == 0;
            used = used || counts[i] > 0;
        }
        if (fit.plies == 0) return;
        fit.off = std::abs(sum - total);
        fit.met = fit.off <= kClose;
        if (!best.empty() && !fit.better_than(least)) return;
        least = fit;
        best = counts;
        best_middle = middle;
    };
    const std::function<void(std::size_t, double)> choose = [&](std::size_t i, double left) {
        if (i + 1 < n) {
            for (int k = 0; k <= kSteps && (k == 0 || left > -kClose); ++k, left -= sides * worth[i]) {
                counts[i] = k;
                choose(i + 1, left);
            }
            return;
        }
        const int near = std::max(0, static_cast<int>(left / (sides * worth[i])));
        for (int k = near; k <= near + 1; ++k) {
            counts[i] = k;
            weigh(-1);
            if (doubler || !cloths.core.empty()) continue;
            // One more ply of the heaviest used in the middle keeps it mirrored.
            int heaviest = 0;
            for (std::size_t j = 0; j < n; ++j) heaviest = counts[j] > 0 ? static_cast<int>(j) : heaviest;
            weigh(heaviest);
        }
    };
    choose(0, total);
    const auto plies = static_cast<std::size_t>(least.plies);
    if (plies > kMostPlies)
        throw InputError("shell", fmt::format("over {} plies", kMostPlies), "take a heavier cloth");
    if (!doubler) return mirrored(cloths, best, best_middle);
    Cloths bare = cloths;
    bare.face.clear();
    bare.core.clear();
    auto out = mirrored(bare, best);
    out.resize(out.size() / 2);
    return out;
}

}  // namespace

bool is_cloth(const Layer& layer, const Library& shop) {
    return layer.kind == LayerKind::ply &&
           need(shop.reinforcements, layer.material, "shell").style != "tissue";
}

double units_of(const std::string& material, const Choices& c, const Library& shop) {
    const auto& cloth = need(shop.reinforcements, material, "shell");
    if (cloth.units > 0) return cloth.units;
    return thickness(material, c, shop) / thickness(c.unit, c, shop);
}

double units_of(const std::vector<Layer>& layers, const Choices& c, const Library& shop) {
    double out = 0;
    for (const auto& l : layers) out += is_cloth(l, shop) ? units_of(l.material, c, shop) : 0;
    return out;
}

std::string in_units(const std::vector<Layer>& layers, const Choices& c, const Library& shop) {
    std::string out;
    for (std::size_t i = 0; i < layers.size();) {
        std::size_t next = i + 1;
        const auto& l = layers[i];
        if (l.kind != LayerKind::core && !is_cloth(l, shop)) {
            i = next;
            continue;
        }
        while (next < layers.size() && layers[next].kind == l.kind && layers[next].material == l.material)
            ++next;
        out += out.empty() ? "" : " + ";
        if (next > i + 1) out += fmt::format("{} × ", next - i);
        out += l.kind == LayerKind::core ? "core" : number(units_of(l.material, c, shop));
        i = next;
    }
    return out;
}

std::vector<Layer> from_units(const std::string& typed, const Choices& c, const Zone* doubler,
                              const Library& shop) {
    const auto cloths = cloths_of(c, shop);
    const auto text = trimmed(typed);
    if (const auto total = read_quantity(Kind::factor, text))
        return adding_up(*total, c, cloths, doubler != nullptr, shop);
    auto plies = listed(text, c, cloths, shop);
    std::vector<Layer> old;
    for (const auto& l : doubler != nullptr ? doubler->layers : c.layers) {
        if (l.kind == LayerKind::core || is_cloth(l, shop)) old.push_back(l);
    }
    turn(plies, old, cloths.turned);
    if (doubler == nullptr) plies.insert(plies.begin(), cloths.face.begin(), cloths.face.end());
    return plies;
}

}  // namespace jig::shell
