#pragma once

#include "core/science/schedule/timetable.hpp"
#include "core/stages/back/findings.hpp"
#include "core/stages/bag/findings.hpp"
#include "core/stages/bag/flow.hpp"
#include "core/stages/brief/findings.hpp"
#include "core/stages/heat/oven.hpp"
#include "core/stages/part/findings.hpp"
#include "core/stages/release/findings.hpp"
#include "core/stages/run/choices.hpp"
#include "core/stages/work.hpp"

namespace jig {

namespace run {

/// One line of the bill of materials.
struct Material {
    Ledger ledger = Ledger::once;
    Stage stage = Stage::plug;
    std::string what;
    Kind kind = Kind::count;  ///< of `amount`
    double amount = 0;        ///< SI, waste counted
    double waste = 0;         ///< share of it beyond what stays
    double cost = 0;
    std::string note;  ///< rolls, sheets or batches that this means
    bool operator==(const Material&) const = default;
};

struct Hours {
    Ledger ledger = Ledger::once;
    Stage stage = Stage::plug;
    std::string what;
    double hours = 0;
    bool operator==(const Hours&) const = default;
};

struct LedgerSum {
    double materials = 0, hours = 0, labour = 0;
    [[nodiscard]] double total() const { return materials + labour; }
    bool operator==(const LedgerSum&) const = default;
};

struct Findings {
    std::vector<Figure> figures;
    std::vector<Material> materials;
    std::vector<Hours> hours;          ///< by rate: of the tool, and of each part
    std::array<LedgerSum, 3> ledgers;  ///< by Ledger
    std::vector<Task> tasks;           ///< the same hours, in order
    /// By task, what must be seen, measured or signed before going on.
    std::vector<std::vector<std::string>> looks;
    Timetable plan;
    double labour_rate = 0;
    int made = 0;  ///< parts over all planned pulls
    /// Cost of one part where `n` are made, equipment left out.
    [[nodiscard]] double cost_per_part(int n) const {
        return ledgers[0].total() + ledgers[1].total() / std::max(1, n);
    }
    bool operator==(const Findings&) const = default;
};

/// What of the brief the run reads.
using Asked = brief::Of<brief::Wanted, brief::Crew, brief::Series, brief::Making, brief::Jig>;

/// What the other stages came to.
struct Before {
    Asked brief;
    double room;  ///< K
    const heat::Cures& cures;
    const heat::OvenUse& oven;
    const split::Choices& split_choices;
    const split::Findings& split;
    const plug::Choices& plug_choices;
    const plug::Findings& plug;
    const edge::Choices& edge_choices;
    const edge::Findings& edge;
    const shell::Choices& shell_choices;
    const shell::Findings& shell;
    const back::Choices& back_choices;
    const back::Findings& back;
    const release::Findings& release;
    const part::Choices& part_choices;
    const part::Findings& part;
    const bag::Choices& bag_choices;
    const bag::Findings& bag;
    const bag::Flow& flow;
    const bag::Flow& shell_flow;
    /// How often the back is built: of a mould in pieces it is worked out for the one that is shown, and the
    /// others are taken as like it.
    [[nodiscard]] double pieces() const {
        return split.one_piece() ? 1 : static_cast<double>(split.set.pieces.size());
    }
};

/// Whether a task ends with this booking: then it is looked at.
bool last_of(const Findings& findings, const Booking& booking);

Findings evaluate(const Choices& choices, const Before& before, const Library& shop);
Calls calls(const Findings& findings, const brief::Choices& brief);

/// What every stage takes, in its order: the building of the tool, then one pull.
Work whole_work(const Before& before, const Library& shop);

}  // namespace run
}  // namespace jig
