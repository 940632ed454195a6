#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/stages/run/findings.hpp"

namespace jig::run {
namespace {

/// Lines of the bill of materials: what is bought twice for one stage stands in one line. What a pull takes
/// is shared by its parts.
void add_goods(Findings& out, const Work& work, double parts) {
    for (const auto& g : work.goods) {
        const double share = g.ledger == Ledger::each ? 1 / parts : 1;
        const double kept = share * g.amount, bought = kept * (1 + g.waste);
        const auto like = std::find_if(out.materials.begin(), out.materials.end(), [&](const Material& m) {
            return m.ledger == g.ledger && m.stage == g.stage && m.what == g.what && m.kind == g.kind;
        });
        if (like == out.materials.end()) {
            out.materials.push_back(
                {g.ledger, g.stage, g.what, g.kind, bought, g.waste, bought * g.price, g.note});
            continue;
        }
        const double before = like->amount / (1 + like->waste);
        like->amount += bought;
        like->waste = like->amount / (before + kept) - 1;
        like->cost += bought * g.price;
        if (!g.note.empty() && like->note.find(g.note) == std::string::npos)
            like->note += (like->note.empty() ? "" : "; ") + g.note;
    }
}

void add_hours(Findings& out, const Work& work, double parts) {
    for (const auto& step : work.steps) {
        const double share = step.ledger == Ledger::each ? 1 / parts : 1;
        for (const auto& l : step.labour) {
            const auto like = std::find_if(out.hours.begin(), out.hours.end(), [&](const Hours& h) {
                return h.ledger == step.ledger && h.stage == step.stage && h.what == l.rate;
            });
            if (like != out.hours.end())
                like->hours += share * l.hours;
            else
                out.hours.push_back({step.ledger, step.stage, l.rate, share * l.hours});
        }
    }
}

/// Too short to be booked for itself, s.
constexpr double kMoment = 300;

/// The same steps for the shop's calendar: hours of hands are shared by those who are there. What takes but a
/// moment and waits for nothing is done with what follows it.
void add_tasks(Findings& found, const Work& work, int people) {
    auto& out = found.tasks;
    auto& looks = found.looks;
    for (const auto& step : work.steps) {
        const int hands = step.hands > 0 ? std::min(step.hands, people) : people;
        Task task{name_of(step.stage).key, step.what,    step.hours() * 3600 / hands, hands, step.wait,
                  step.can_break,          step.no_later};
        if (!out.empty() && out.back().work < kMoment && out.back().wait <= 0 && out.back().no_later <= 0) {
            const auto& before = out.back();
            // Its hands' time stays what it was, whoever does it.
            task.work += before.work * before.people / hands;
            task.name = before.name + ", then " + task.name;
            out.back() = std::move(task);
        } else {
            out.push_back(std::move(task));
            looks.emplace_back();
        }
        looks.back().insert(looks.back().end(), step.looks.begin(), step.looks.end());
    }
}

}  // namespace

bool last_of(const Findings& f, const Booking& booking) {
    return std::none_of(f.plan.bookings.begin(), f.plan.bookings.end(),
                        [&](const Booking& b) { return b.task == booking.task && b.from > booking.from; });
}

Findings evaluate(const Choices& c, const Before& b, const Library& shop) {
    Findings out;
    const auto work = whole_work(b, shop);
    const double parts = b.split.parts();
    add_goods(out, work, parts);
    add_hours(out, work, parts);
    for (const auto& e : c.equipment)
        out.materials.push_back({Ledger::equipment, Stage::run, e.name, Kind::count, 1, 0, e.price, {}});
    out.labour_rate = c.labour > 0 ? c.labour : shop.rate("labour");
    for (const auto& m : out.materials) out.ledgers[static_cast<std::size_t>(m.ledger)].materials += m.cost;
    for (const auto& h : out.hours) out.ledgers[static_cast<std::size_t>(h.ledger)].hours += h.hours;
    for (auto& l : out.ledgers) l.labour = l.hours * out.labour_rate;
    out.made = b.brief.pulls * b.split.parts();
    add_tasks(out, work, std::max(1, b.brief.people));
    out.plan = timetable(out.tasks, {c.start, b.brief.shift});
    const auto &each = out.ledgers[0], &once = out.ledgers[1], &kit = out.ledgers[2];
    const auto rate = fmt::format("hours × {:g} an hour", out.labour_rate);
    out.figures = {
        {"days", "calendar days to the first part", Kind::count, static_cast<double>(out.plan.days),
         fmt::format("calendar days from the first hour of drawing; {} tasks booked into shifts of {} with "
                     "their waits",
                     out.tasks.size(), quantity(Kind::hours, b.brief.shift))},
        {"once", "once: plug and mould", Kind::money, once.total(),
         "materials " + quantity(Kind::money, once.materials) + " + " +
             quantity(Kind::hours, once.hours * 3600) + " of hands"},
        {"each", "each part", Kind::money, each.total(),
         "materials " + quantity(Kind::money, each.materials) + " + " +
             quantity(Kind::hours, each.hours * 3600) + " of hands"},
        {"equipment", "equipment", Kind::money, kit.materials, "what the shop buys for this job and keeps"},
        {"hours_once", "hands, once", Kind::hours, once.hours * 3600, "shop rates × areas; " + rate},
        {"hours_each", "hands, each part", Kind::hours, each.hours * 3600, "shop rates × areas; " + rate},
        {"per_part", fmt::format("cost per part over {} parts", out.made), Kind::money,
         out.cost_per_part(out.made), fmt::format("each part + once ÷ {}; equipment left out", out.made)},
        {"total", fmt::format("all {} parts", out.made), Kind::money,
         once.total() + out.made * each.total() + kit.materials,
         b.split.parts() > 1 ? fmt::format("once + {} pulls × {} parts × each part + equipment",
                                           b.brief.pulls, b.split.parts())
                             : std::string("once + pulls × each part + equipment")}};
    return out;
}

}  // namespace jig::run
