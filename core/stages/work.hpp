// What a stage takes: steps that are done, looks before going on, and goods that are bought. Run only orders
// them and adds them up.
#pragma once

#include <algorithm>
#include <cmath>
#include <map>

#include "core/shop/lists.hpp"
#include "core/stages/stage.hpp"

namespace jig {

enum class Ledger { each, once, equipment };
template <>
struct Words<Ledger> {
    static constexpr std::array all{Word{"each", "each part"}, Word{"once", "once"},
                                    Word{"equipment", "equipment"}};
};

/// When a step comes on the way to the first part; within one of these, in the order in which stages say it.
enum class When {
    design,
    plug,
    parting,
    release_plug,
    shell,
    back,
    demould,
    drill,
    cure,
    finish,
    release_mould,
    part,
    after
};

/// Hands at one of the shop's rates.
struct Labour {
    std::string rate;
    double hours = 0;
    bool operator==(const Labour&) const = default;
};

struct Step {
    When when = When::design;
    Stage stage = Stage::brief;
    std::string what;
    std::vector<Labour> labour;  ///< of all hands together
    int hands = 0;               ///< people at it at once; 0 for all there are
    double wait = 0;             ///< s that must pass after it (dry, gel, cure); runs day and night
    bool can_break = true;       ///< may be left at the end of a shift
    double no_later = 0;         ///< s after the wait by which the next step must start; 0 for never mind
    Ledger ledger = Ledger::once;
    std::vector<std::string> looks = {};  ///< what must be seen, measured or signed before going on
    Step& look(std::string seen) {
        looks.push_back(std::move(seen));
        return *this;
    }
    [[nodiscard]] double hours() const {
        double sum = 0;
        for (const auto& l : labour) sum += l.hours;
        return sum;
    }
    bool operator==(const Step&) const = default;
};

struct Goods {
    Ledger ledger = Ledger::once;
    Stage stage = Stage::brief;
    std::string what;
    Kind kind = Kind::count;  ///< of `amount`
    double amount = 0;        ///< SI, what stays in the work
    double waste = 0;         ///< share bought over it
    double price = 0;         ///< per SI unit
    std::string note;         ///< rolls, sheets or batches that this means
    bool operator==(const Goods&) const = default;
};

/// For one tool, or for one pull with all the parts that come out of it where the ledger is `each`.
struct Work {
    std::vector<Step> steps;
    std::vector<Goods> goods;
    bool operator==(const Work&) const = default;

    Step& step(When when, Stage stage, std::string what, std::vector<Labour> labour) {
        // What takes nobody any time is no step.
        std::erase_if(labour, [](const Labour& l) { return l.hours <= 0; });
        auto& out = steps.emplace_back();
        out.when = when;
        out.stage = stage;
        out.what = std::move(what);
        out.labour = std::move(labour);
        return out;
    }
    void buy(Ledger ledger, Stage stage, std::string what, Kind kind, double amount, double waste,
             double price, std::string note = {}) {
        if (amount > 0)
            goods.push_back({ledger, stage, std::move(what), kind, amount, waste, price, std::move(note)});
    }
    /// By its name in the library, with the library's waste.
    void consumable(Ledger ledger, Stage stage, const char* name, Kind kind, double amount,
                    const Lists<Consumable>& shop) {
        const auto& c = need(shop.consumables, name, name_of(stage).key);
        buy(ledger, stage, name, kind, amount, c.waste, c.price);
    }
    /// The same where litres are counted.
    void filler(Ledger ledger, Stage stage, const char* name, double volume, const Lists<Consumable>& shop) {
        consumable(ledger, stage, name, Kind::mass,
                   volume * need(shop.consumables, name, name_of(stage).key).density, shop);
    }
};

/// Whole sheets of a stock that pieces of so much area are cut from; 30 % is left over, typical.
inline double sheets_for(double area, const Board& stock) {
    return std::ceil(area / (0.7 * stock.sheet_length * stock.sheet_width));
}

/// Hands at a rate: its setting up, where there is anything to do, and its hours for so much.
inline Labour at_rate(const Lists<Rate>& shop, std::string rate, double amount) {
    const double hours = amount > 0 ? need(shop.rates, rate, "shop rates").hours(amount) : 0;
    return {std::move(rate), hours};
}

}  // namespace jig
