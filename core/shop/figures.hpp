// The shop library as a maker reads and writes it: lists, entries, figures with their names and units.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/base/units.hpp"
#include "core/shop/shop.hpp"

namespace jig {

/// One figure of an entry.
// NOLINTNEXTLINE(bugprone-exception-escape): what Json asserts as it is moved does not come to be.
struct ShopFigure {
    enum class Is { number, whole, flag, word, text, list };
    Is is = Is::number;
    std::string pointer;  ///< within the entry's JSON: "/first_use/0/coats"
    std::string key;      ///< the field whose origin holds for it: "first_use"
    std::string group;    ///< "first use 1"; empty for what the entry has itself
    std::string name;     ///< "wait"
    /// What the number measures; a factor with `unit` beside it where no kind has that unit.
    Kind kind = Kind::factor;
    std::string unit;
    Json value;                      ///< SI; null where it is not known and need not be
    bool needed = true;              ///< else it may be left empty
    double low = 0, high = 0;        ///< of numbers, where low < high
    std::vector<std::string> words;  ///< of words, as files have them
    std::vector<std::string> said;   ///< the same, as a maker says them
};

/// Keys of the lists with their names, in the order in which a maker reads them.
struct ShopList {
    std::string key, name;
};
std::vector<ShopList> shop_lists();
/// "resin", of "resins".
std::string one_of_list(std::string_view list);

std::vector<std::string> entry_names(const Shop& shop, std::string_view list);
/// Empty where there is no such entry.
std::vector<ShopFigure> shop_figures(const Shop& shop, std::string_view list, std::string_view entry);
/// Where all figures of an entry come from that have no origin of their own, and where one comes from.
Origin entry_origin(const Shop& shop, std::string_view list, std::string_view entry);
Origin figure_origin(const Shop& shop, std::string_view list, std::string_view entry, const std::string& key);
/// Whether the shop's entry is its own: not shipped, or changed.
bool is_own(const Shop& shop, const Shop& shipped, std::string_view list, std::string_view entry);

/// Each of these gives the shop with that one change. They throw InputError, saying the range, where a value
/// does not fit; the shop that is given stays as it is.
///
/// A figure with where it comes from. A null `value` is for what is not known.
Shop with_figure(const Shop& shop, std::string_view list, std::string_view entry, const std::string& pointer,
                 const Json& value, const Origin& origin);
/// Where the entry's figures come from; of one field alone with its `key`.
Shop with_origin(const Shop& shop, std::string_view list, std::string_view entry, const std::string& key,
                 const Origin& origin);
/// One more at the end of a list within an entry, like the last one there; or without that one.
Shop with_item(const Shop& shop, std::string_view list, std::string_view entry, const std::string& pointer);
Shop without_item(const Shop& shop, std::string_view list, std::string_view entry,
                  const std::string& pointer);
/// An entry like another, under a name that the list has not.
Shop with_copy(const Shop& shop, std::string_view list, std::string_view entry, const std::string& name);
/// Without an entry; where one of that name is shipped, with that.
Shop without_own(const Shop& shop, const Shop& shipped, std::string_view list, std::string_view entry);

}  // namespace jig
