#include "core/shop/shop.hpp"

#include <algorithm>
#include <filesystem>

#include "core/science/mesh/stl.hpp"

namespace jig {
namespace {

template <class E>
E read_entry(const JsonPlace& place) {
    E entry;
    entry.name = place.at("name").text();
    if (entry.name.empty()) place.at("name").fail("the name is empty", "name the entry");
    const auto own = JsonPlace(place.raw(), place.where() + " \"" + entry.name + "\"");
    if (own.has("origin")) from_json_value(own.at("origin"), entry.origin);
    if (own.has("origins")) {
        for (const auto& [figure, json] : own.at("origins").raw().items()) {
            from_json_value(JsonPlace(json, own.where() + ".origins." + figure), entry.origins[figure]);
        }
    }
    E::fields(entry, FieldReader{own});
    return entry;
}

template <class E>
Json write_entry(const E& entry) {
    Json out = Json::object();
    out["name"] = entry.name;
    E::fields(entry, FieldWriter{out});
    out["origin"] = to_json_value(entry.origin);
    for (const auto& [figure, origin] : entry.origins) out["origins"][figure] = to_json_value(origin);
    return out;
}

template <class E>
void lay_over(std::vector<E>& list, E entry) {
    const auto old = std::find_if(list.begin(), list.end(), [&](const E& e) { return e.name == entry.name; });
    if (old == list.end())
        list.push_back(std::move(entry));
    else
        *old = std::move(entry);
}

}  // namespace

void read_list(Shop& shop, std::string_view wanted, std::string_view text, const std::string& where) {
    const auto json = parse_json(where, text);
    const JsonPlace place(json, where);
    const auto entries = place.at("entries");
    Shop::lists(shop, [&](std::string_view name, auto& list) {
        if (name != wanted) return;
        using E = typename std::decay_t<decltype(list)>::value_type;
        auto fresh = list;
        for (std::size_t i = 0; i < entries.size(); ++i) lay_over(fresh, read_entry<E>(entries.item(i)));
        list = std::move(fresh);
    });
}

std::string write_list(const Shop& shop, std::string_view wanted) {
    Json out;
    Shop::lists(shop, [&](std::string_view name, const auto& list) {
        if (name != wanted) return;
        out["list"] = std::string(name);
        out["entries"] = Json::array();
        for (const auto& entry : list) out["entries"].push_back(write_entry(entry));
    });
    return out.dump(1) + "\n";
}

std::string write_own(const Shop& shop, const Shop& shipped, std::string_view wanted) {
    Json out;
    Shop::lists(shop, [&](std::string_view name, const auto& list) {
        if (name != wanted) return;
        Shop::lists(shipped, [&](std::string_view other, const auto& theirs) {
            if constexpr (std::is_same_v<decltype(list), decltype(theirs)>) {
                if (other != name) return;
                for (const auto& entry : list) {
                    const auto* old = find(theirs, entry.name);
                    if (old != nullptr && *old == entry) continue;
                    out["list"] = std::string(name);
                    out["entries"].push_back(write_entry(entry));
                }
            }
        });
    });
    return out.is_null() ? std::string() : out.dump(1) + "\n";
}

Shop load_shop(const std::string& shipped, const std::string& own, std::vector<InputError>* left_out) {
    Shop shop;
    for (const auto& folder : {shipped, own}) {
        if (folder.empty()) continue;
        Shop::lists(shop, [&](std::string_view name, auto&) {
            const auto path = folder + "/" + std::string(name) + ".json";
            if (folder == own && !std::filesystem::exists(path)) return;
            try {
                read_list(shop, name, read_file(path, 16u << 20), path);
            } catch (const InputError& e) {
                if (folder != own || left_out == nullptr) throw;
                left_out->push_back(e);
            }
        });
    }
    return shop;
}

Shop::Shop() = default;
Shop::Shop(const Shop&) = default;
Shop::Shop(Shop&&) noexcept = default;
Shop& Shop::operator=(const Shop&) = default;
Shop& Shop::operator=(Shop&&) noexcept = default;
Shop::~Shop() = default;
bool Shop::operator==(const Shop&) const = default;

double Shop::rate(std::string_view name) const {
    return need(rates, name, "shop rates").value;
}

double Shop::price_of(std::string_view name) const {
    return need(consumables, name, "shop consumables").price;
}

const Fibre& fibre_of(FibreKind kind) {
    // methods.md, Typical material figures.
    static const Fibre glass{2550, 72e9, 72e9, 29.5e9, 0.22, 5e-6, 5e-6};
    static const Fibre carbon{1780, 230e9, 15e9, 15e9, 0.20, -0.5e-6, 10e-6};
    static const Fibre aramid{1440, 120e9, 5e9, 2.9e9, 0.35, -3e-6, 60e-6};
    return kind == FibreKind::glass ? glass : kind == FibreKind::carbon ? carbon : aramid;
}

}  // namespace jig
