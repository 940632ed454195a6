#include "core/shop/figures.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace jig {
namespace {

using Is = ShopFigure::Is;

struct UnitEnd {
    std::string_view end;
    Kind kind;
    std::string_view unit;
};
/// How a field's name ends says what it measures; the longest end that fits holds.
constexpr std::array kEnds{
    UnitEnd{"_h_m2", Kind::factor, "h/m²"},
    UnitEnd{"_W_m2K", Kind::factor, "W/(m²·K)"},
    UnitEnd{"_J_m2K", Kind::factor, "J/(m²·K)"},
    UnitEnd{"_W_mK", Kind::factor, "W/(m·K)"},
    UnitEnd{"_J_kgK", Kind::factor, "J/(kg·K)"},
    UnitEnd{"_J_kg", Kind::factor, "J/kg"},
    UnitEnd{"_kg_m3", Kind::density, ""},
    UnitEnd{"_kg_m2", Kind::areal_mass, ""},
    UnitEnd{"_m3_s", Kind::flow, ""},
    UnitEnd{"_m2_L", Kind::factor, "m²/L"},
    UnitEnd{"_L_L", Kind::ratio, ""},
    UnitEnd{"_N_m", Kind::factor, "N/m"},
    UnitEnd{"_1_K", Kind::expansion, ""},
    UnitEnd{"_1_s", Kind::factor, "1/s"},
    UnitEnd{"_Pas", Kind::factor, "Pa·s"},
    UnitEnd{"_rad", Kind::angle, ""},
    UnitEnd{"_m3", Kind::volume, ""},
    UnitEnd{"_m2", Kind::factor, "m²"},
    UnitEnd{"_kg", Kind::mass, ""},
    UnitEnd{"_Pa", Kind::strength, ""},
    UnitEnd{"_K", Kind::temperature, ""},
    UnitEnd{"_h", Kind::factor, "h"},
    UnitEnd{"_m", Kind::length, ""},
    UnitEnd{"_s", Kind::duration, ""},
};

struct Named {
    std::string_view key, name;
    Kind kind;
    std::string_view unit;
};
/// What its name alone does not say.
constexpr std::array kNamed{
    Named{"price", "price", Kind::money, ""},
    Named{"price_kg", "price", Kind::price_mass, ""},
    Named{"price_m2", "price", Kind::price_area, ""},
    Named{"price_L", "price of a litre", Kind::money, ""},
    Named{"price_sheet", "price of a sheet", Kind::money, ""},
    Named{"minutes_m2", "hands", Kind::factor, "min/m²"},
    Named{"set_up_h", "setting up", Kind::factor, "h"},
    Named{"mix_parts_per_100", "hardener to 100 of resin, by mass", Kind::factor, ""},
    Named{"E_Pa", "modulus E", Kind::modulus, ""},
    Named{"G_Pa", "shear modulus G", Kind::modulus, ""},
    Named{"E_across_Pa", "modulus across", Kind::modulus, ""},
    Named{"E_in_plane_Pa", "modulus in its plane", Kind::modulus, ""},
    Named{"nu", "Poisson's ratio", Kind::factor, ""},
    Named{"alpha_1_K", "expansion", Kind::expansion, ""},
    Named{"crush_Pa", "crushes at", Kind::strength, ""},
    Named{"ultimate_Pa", "least pressure on its shut inlet", Kind::pressure, ""},
    Named{"lowest_Pa", "least that it shows", Kind::pressure, ""},
    Named{"step_Pa", "least step that is read", Kind::pressure, ""},
    Named{"rise_Pa", "may rise in ten minutes by", Kind::pressure, ""},
    Named{"bearing_Pa", "bears under a pin", Kind::strength, ""},
    Named{"Tg_K", "Tg", Kind::temperature, ""},
    Named{"Tg_lead_K", "Tg comes to lie above the cure by", Kind::warming, ""},
    Named{"thickness_m", "thickness", Kind::thickness, ""},
    Named{"pass_thickness_m", "thickness of a pass", Kind::thickness, ""},
    Named{"pressed_m", "thickness under a bag", Kind::thickness, ""},
    Named{"porous_m", "air in its thickness", Kind::thickness, ""},
    Named{"day_limit_m", "laminate in one go, at most", Kind::thickness, ""},
    Named{"reach_m", "carries air over", Kind::length, ""},
    Named{"takes_kg", "resin that it keeps, each unit", Kind::mass, ""},
    Named{"gives_N_m", "stretches for good at", Kind::factor, "N/m"},
    Named{"gives", "gives under a load, power", Kind::factor, ""},
    Named{"K_share", "fibre share of these permeabilities", Kind::ratio, ""},
    Named{"K_along_m2", "permeability along", Kind::factor, "m²"},
    Named{"K_across_m2", "permeability across", Kind::factor, "m²"},
    Named{"K_through_m2", "permeability through", Kind::factor, "m²"},
    Named{"K_m2", "permeability", Kind::factor, "m²"},
    Named{"share", "of its thickness fills with resin", Kind::ratio, ""},
    Named{"fills", "of its thickness fills with resin", Kind::ratio, ""},
    Named{"waste", "bought beyond what is covered", Kind::ratio, ""},
    Named{"loss", "lost in laying it", Kind::ratio, ""},
    Named{"stretches", "stretches by", Kind::ratio, ""},
    Named{"shears_rad", "shears by", Kind::angle, ""},
    Named{"lock_rad", "locks past a shear of", Kind::angle, ""},
    Named{"lies_at_rad", "fibres lie at", Kind::angle, ""},
    Named{"turn_rad", "each coat across the last, by", Kind::angle, ""},
    Named{"crimp", "stiffness kept of straight fibres", Kind::ratio, ""},
    Named{"shrinkage", "shrinks after gel by", Kind::scale, ""},
    Named{"strain_limit", "strain before it cracks", Kind::scale, ""},
    Named{"breaks_pulled", "breaks when pulled by", Kind::scale, ""},
    Named{"breaks_pressed", "breaks when pressed by", Kind::scale, ""},
    Named{"units", "thickness units", Kind::factor, ""},
    Named{"uptake_kg_m2", "resin into cut cells, each face", Kind::areal_mass, ""},
    Named{"bends_cold_m", "bends cold to a radius of", Kind::length, ""},
    Named{"bends_slit_m", "bends slit to a radius of", Kind::length, ""},
    Named{"bends_hot_m", "bends hot to a radius of", Kind::length, ""},
    Named{"in_cloth", "comes in the cloth", Kind::factor, ""},
    Named{"oil", "sealed by oil", Kind::factor, ""},
    Named{"absolute", "counts from no pressure at all", Kind::factor, ""},
    Named{"porous", "drinks resin", Kind::factor, ""},
    Named{"by_length", "bought by the metre", Kind::factor, ""},
    Named{"gel_time_s", "gel time, thin, at 20 °C", Kind::duration, ""},
    Named{"hardens_s", "hard enough to be moved after", Kind::duration, ""},
    Named{"hardens_at_K", "that is told at", Kind::temperature, ""},
    Named{"pot_life_s", "pot life of 1 kg at 20 °C", Kind::duration, ""},
    Named{"gel_temperature_K", "gels in the laminate at", Kind::temperature, ""},
    Named{"heat_J_kg", "heat of reaction", Kind::factor, "J/kg"},
    Named{"changes_1_s", "changes of its air", Kind::factor, "1/s"},
    Named{"walls_W_m2K", "through its walls", Kind::factor, "W/(m²·K)"},
    Named{"lining_J_m2K", "its lining takes up", Kind::factor, "J/(m²·K)"},
    Named{"volume_m3", "holds", Kind::volume, ""},
    Named{"ports", "hoses that it takes", Kind::count, ""},
    Named{"good_for_s", "stays good for", Kind::duration, ""},
    Named{"latest_s", "next step within", Kind::duration, ""},
    Named{"cover_m2_L", "covers", Kind::factor, "m²/L"},
    Named{"T_K", "at", Kind::temperature, ""},
    Named{"time_s", "after", Kind::duration, ""},
    Named{"mass_kg", "mass", Kind::mass, ""},
    Named{"start_K", "from", Kind::temperature, ""},
    Named{"peak_K", "peaks at", Kind::temperature, ""},
    Named{"cure_K", "cured at", Kind::temperature, ""},
    Named{"cure_time_s", "cured for", Kind::duration, ""},
    Named{"Tg_after", "Tg after a cure", Kind::factor, ""},
    Named{"gel_times", "gel time", Kind::factor, ""},
    Named{"pot", "pot that exotherms", Kind::factor, ""},
    Named{"cures", "its cure, by the data sheet", Kind::factor, ""},
};

std::string spaced(std::string_view key) {
    std::string out(key);
    std::replace(out.begin(), out.end(), '_', ' ');
    return out;
}

void name_it(ShopFigure& f, std::string_view key) {
    for (const auto& n : kNamed) {
        if (n.key != key) continue;
        f.name = n.name;
        f.kind = n.kind;
        f.unit = n.unit;
        return;
    }
    const UnitEnd* best = nullptr;
    for (const auto& e : kEnds) {
        if (key.ends_with(e.end) && (best == nullptr || e.end.size() > best->end.size())) best = &e;
    }
    if (best == nullptr) {
        f.name = spaced(key);
        f.kind = Kind::factor;
        return;
    }
    f.name = spaced(key.substr(0, key.size() - best->end.size()));
    f.kind = best->kind;
    f.unit = best->unit;
}

/// Reads off a struct's own fields what figures it has.
class Describer {
  public:
    Describer(std::vector<ShopFigure>& out, std::string at, std::string top, std::string group)
        : out_(out), at_(std::move(at)), top_(std::move(top)), group_(std::move(group)) {}

    template <class T, class... Range>
    void operator()(const char* key, const std::optional<T>& value, Range... range) const {
        auto& f = add(key, Is::number);
        f.needed = false;
        if (value) f.value = *value;
        ranged(f, range...);
    }
    template <class T, class... Range>
    void operator()(const char* key, const T& value, Range... range) const {
        if constexpr (IsVector<T>::value) {
            auto& list = add(key, Is::list);
            const auto name = list.name;
            list.value = value.size();
            for (std::size_t i = 0; i < value.size(); ++i)
                inside(value[i], key, fmt::format("/{}", i), fmt::format("{} {}", name, i + 1));
        } else if constexpr (std::is_enum_v<T>) {
            auto& f = add(key, Is::word);
            f.value = std::string(file_word(value));
            for (const auto& w : Words<T>::all) {
                f.words.emplace_back(w.file);
                f.said.emplace_back(w.said);
            }
        } else if constexpr (std::is_same_v<T, bool>) {
            add(key, Is::flag).value = value;
        } else if constexpr (std::is_same_v<T, std::string>) {
            add(key, Is::text).value = value;
        } else if constexpr (std::is_same_v<T, int>) {
            auto& f = add(key, Is::whole);
            f.kind = Kind::count;
            f.value = value;
            ranged(f, range...);
        } else if constexpr (std::is_same_v<T, double>) {
            auto& f = add(key, Is::number);
            f.value = value;
            ranged(f, range...);
        } else {
            ShopFigure named;
            name_it(named, key);
            inside(value, key, "", named.name);
        }
    }

  private:
    ShopFigure& add(const char* key, Is is) const {
        auto& f = out_.emplace_back();
        f.is = is;
        f.pointer = at_ + "/" + key;
        f.key = top_.empty() ? key : top_;
        f.group = group_;
        name_it(f, key);
        return f;
    }
    static void ranged(ShopFigure&) {}
    static void ranged(ShopFigure& f, auto low, auto high) {
        f.low = static_cast<double>(low);
        f.high = static_cast<double>(high);
    }
    template <class T>
    void inside(const T& value, const char* key, const std::string& item, const std::string& name) const {
        T::fields(value, Describer(out_, at_ + "/" + key + item, top_.empty() ? key : top_, name));
    }
    std::vector<ShopFigure>& out_;
    std::string at_, top_, group_;
};

/// `take` is called with the list of that key; throws InputError where there is none.
template <class S, class Take>
void with_list(S& shop, std::string_view list, Take&& take) {
    bool found = false;
    Shop::lists(shop, [&](std::string_view name, auto& all) {
        if (name != list) return;
        found = true;
        take(all);
    });
    if (!found)
        throw InputError("library", "there is no list \"" + std::string(list) + "\"",
                         "name one that there is");
}

/// The same with the entry of that name; throws InputError where there is none.
template <class Take>
void with_entry(const Shop& shop, std::string_view list, std::string_view entry, Take&& take) {
    with_list(shop, list, [&](const auto& all) { take(need(all, entry, std::string(list))); });
}

/// The shop with the JSON of one entry changed. Ranges are seen to as a file's are.
template <class Change>
Shop changed(const Shop& shop, std::string_view list, std::string_view entry, Change&& change) {
    with_list(shop, list, [](const auto&) {});  // there is one
    const auto all = parse_json(std::string(list), write_list(shop, list));
    for (const auto& one : all.at("entries")) {
        if (one.at("name") != std::string(entry)) continue;
        auto next = one;
        change(next);
        Shop out = shop;
        const Json text{{"list", std::string(list)}, {"entries", Json::array({next})}};
        read_list(out, list, text.dump(), one_of_list(list));
        return out;
    }
    throw InputError(std::string(list), "there is no entry \"" + std::string(entry) + "\"",
                     "name one that there is");
}

}  // namespace

std::vector<ShopList> shop_lists() {
    std::vector<ShopList> out;
    static const Shop empty;
    Shop::lists(empty, [&](std::string_view name, const auto&) {
        std::string said = spaced(name);
        if (name == "reinforcements") said = "cloth and mat";
        if (name == "releases") said = "release systems";
        if (name == "release_pairs") said = "what goes with what release";
        if (name == "consumables") said = "films, tapes and the like";
        if (name == "bonds") said = "bonding";
        if (name == "pass_marks") said = "pass marks of bags";
        if (name == "rates") said = "hours and prices of hands";
        if (name == "gauges") said = "vacuum gauges";
        if (name == "traps") said = "resin traps";
        if (name == "pumps") said = "vacuum pumps";
        out.push_back({std::string(name), std::move(said)});
    });
    return out;
}

std::string one_of_list(std::string_view list) {
    auto out = spaced(list);
    if (out.ends_with("s")) out.pop_back();
    return out;
}

std::vector<std::string> entry_names(const Shop& shop, std::string_view list) {
    std::vector<std::string> out;
    with_list(shop, list, [&](const auto& all) {
        for (const auto& e : all) out.push_back(e.name);
    });
    return out;
}

std::vector<ShopFigure> shop_figures(const Shop& shop, std::string_view list, std::string_view entry) {
    std::vector<ShopFigure> out;
    with_list(shop, list, [&](const auto& all) {
        if (const auto* e = find(all, entry))
            std::decay_t<decltype(*e)>::fields(*e, Describer(out, "", "", ""));
    });
    return out;
}

Origin entry_origin(const Shop& shop, std::string_view list, std::string_view entry) {
    Origin out;
    with_entry(shop, list, entry, [&](const Entry& e) { out = e.origin; });
    return out;
}

Origin figure_origin(const Shop& shop, std::string_view list, std::string_view entry,
                     const std::string& key) {
    Origin out;
    with_entry(shop, list, entry, [&](const Entry& e) { out = e.origin_of(key); });
    return out;
}

bool is_own(const Shop& shop, const Shop& shipped, std::string_view list, std::string_view entry) {
    bool out = false;
    with_list(shop, list, [&](const auto& all) {
        with_list(shipped, list, [&](const auto& theirs) {
            if constexpr (std::is_same_v<decltype(all), decltype(theirs)>) {
                const auto *mine = find(all, entry), *old = find(theirs, entry);
                out = mine != nullptr && (old == nullptr || !(*old == *mine));
            }
        });
    });
    return out;
}

Shop with_figure(const Shop& shop, std::string_view list, std::string_view entry, const std::string& pointer,
                 const Json& value, const Origin& origin) {
    return changed(shop, list, entry, [&](Json& e) {
        const Json::json_pointer at(pointer);
        if (value.is_null())
            e.at(at.parent_pointer()).erase(at.back());
        else
            e[at] = value;
        const auto key = pointer.substr(1, pointer.find('/', 1) - 1);
        e["origins"][key] = to_json_value(origin);
    });
}

Shop with_origin(const Shop& shop, std::string_view list, std::string_view entry, const std::string& key,
                 const Origin& origin) {
    return changed(shop, list, entry, [&](Json& e) {
        if (key.empty())
            e["origin"] = to_json_value(origin);
        else
            e["origins"][key] = to_json_value(origin);
    });
}

Shop with_item(const Shop& shop, std::string_view list, std::string_view entry, const std::string& pointer) {
    return changed(shop, list, entry, [&](Json& e) {
        auto& items = e[Json::json_pointer(pointer)];
        // What is left out is read as what it is when nobody says.
        items.push_back(items.empty() ? Json::object() : items.back());
    });
}

Shop without_item(const Shop& shop, std::string_view list, std::string_view entry,
                  const std::string& pointer) {
    return changed(shop, list, entry, [&](Json& e) {
        const Json::json_pointer at(pointer);
        auto& items = e.at(at.parent_pointer());
        const auto i = std::stoul(at.back());
        if (i < items.size()) items.erase(i);
    });
}

Shop with_copy(const Shop& shop, std::string_view list, std::string_view entry, const std::string& name) {
    if (name.find_first_not_of(" \t") == std::string::npos)
        throw InputError("name", "the name is empty", "name the entry");
    const auto names = entry_names(shop, list);
    if (std::find(names.begin(), names.end(), name) != names.end())
        throw InputError("name", "the list has a \"" + name + "\" already", "choose another name");
    return changed(shop, list, entry, [&](Json& e) { e["name"] = name; });
}

Shop without_own(const Shop& shop, const Shop& shipped, std::string_view list, std::string_view entry) {
    Shop out = shop;
    with_list(out, list, [&](auto& all) {
        with_list(shipped, list, [&](const auto& theirs) {
            if constexpr (std::is_same_v<std::decay_t<decltype(all)>, std::decay_t<decltype(theirs)>>) {
                const auto mine =
                    std::find_if(all.begin(), all.end(), [&](const auto& e) { return e.name == entry; });
                if (mine == all.end()) return;
                if (const auto* old = find(theirs, entry))
                    *mine = *old;
                else
                    all.erase(mine);
            }
        });
    });
    return out;
}

}  // namespace jig
