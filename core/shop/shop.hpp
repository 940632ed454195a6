// The shop library: everything that figures are taken from and that no single job decides.
#pragma once

#include <string>
#include <string_view>
#include <tuple>
#include <vector>

#include "core/shop/entries.hpp"

namespace jig {

struct Shop {
    std::vector<Reinforcement> reinforcements;
    std::vector<Resin> resins;
    std::vector<SurfaceCoat> surface_coats;
    std::vector<Core> cores;
    std::vector<Board> boards;
    std::vector<ReleaseSystem> releases;
    std::vector<ReleasePair> release_pairs;
    std::vector<Consumable> consumables;
    std::vector<Fastener> fasteners;
    std::vector<Bonding> bonds;
    std::vector<Filament> filaments;
    std::vector<VacuumPump> pumps;
    std::vector<VacuumGauge> gauges;
    std::vector<ResinTrap> traps;
    std::vector<PassMark> pass_marks;
    std::vector<OvenBuild> ovens;
    std::vector<Rate> rates;

    // Made once, in shop.cpp.
    Shop();
    Shop(const Shop&);
    Shop(Shop&&) noexcept;
    Shop& operator=(const Shop&);
    Shop& operator=(Shop&&) noexcept;
    ~Shop();
    bool operator==(const Shop&) const;

    /// The lists with the names of their files, in the order in which a maker reads them.
    static void lists(auto& shop, auto&& visit) {
        visit("reinforcements", shop.reinforcements);
        visit("resins", shop.resins);
        visit("surface_coats", shop.surface_coats);
        visit("cores", shop.cores);
        visit("boards", shop.boards);
        visit("releases", shop.releases);
        visit("release_pairs", shop.release_pairs);
        visit("consumables", shop.consumables);
        visit("fasteners", shop.fasteners);
        visit("bonds", shop.bonds);
        visit("filaments", shop.filaments);
        visit("pumps", shop.pumps);
        visit("gauges", shop.gauges);
        visit("traps", shop.traps);
        visit("pass_marks", shop.pass_marks);
        visit("ovens", shop.ovens);
        visit("rates", shop.rates);
    }

    [[nodiscard]] double rate(std::string_view name) const;  ///< throws InputError where there is none
    [[nodiscard]] double price_of(std::string_view consumable) const;
};

/// Filament figures are physics, not stock.
const Fibre& fibre_of(FibreKind kind);

/// The entry of that name; throws InputError that names `where` and lists what there is.
template <class List>
const typename List::value_type& need(const List& list, std::string_view name, std::string_view where) {
    std::string known;
    for (const auto& entry : list) {
        if (entry.name == name) return entry;
        known += (known.empty() ? "" : ", ") + entry.name;
    }
    throw InputError(std::string(where), "the shop library has no \"" + std::string(name) + "\"",
                     "choose one of: " + (known.size() > 300 ? known.substr(0, 300) + " …" : known));
}

template <class List>
const typename List::value_type* find(const List& list, std::string_view name) {
    for (const auto& entry : list) {
        if (entry.name == name) return &entry;
    }
    return nullptr;
}

/// Reads `shipped`/*.json and lays the shop's own `own`/*.json over it, entry by entry (by name); `own` may
/// be empty or missing. Throws InputError naming file, list and figure; with `left_out`, a list of the shop's
/// own that cannot be read is left out instead and said there, so that a typo does not close the shop.
Shop load_shop(const std::string& shipped, const std::string& own = {},
               std::vector<InputError>* left_out = nullptr);

/// One list as the text of its file.
std::string write_list(const Shop& shop, std::string_view list);
/// The same of those entries alone in which it departs from what is shipped; no text where it does not.
std::string write_own(const Shop& shop, const Shop& shipped, std::string_view list);
/// Replaces one list by the text of a file. Throws InputError.
void read_list(Shop& shop, std::string_view list, std::string_view text, const std::string& where);

}  // namespace jig
