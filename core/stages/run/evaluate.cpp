#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "core/stages/run/findings.hpp"

namespace jig::run {
namespace {

class Book {
  public:
    Book(Findings& out, const Library& shop) : out_(out), shop_(shop) {}

    void material(Ledger ledger, Stage stage, std::string what, Kind kind, double amount, double waste,
                  double unit_price, std::string note = {}) {
        if (amount <= 0) return;
        const double bought = amount * (1 + waste);
        out_.materials.push_back(
            {ledger, stage, std::move(what), kind, bought, waste, bought * unit_price, std::move(note)});
    }
    /// A consumable by its name in the library, with the library's waste.
    void consumable(Ledger ledger, Stage stage, const char* name, Kind kind, double amount) {
        const auto& c = need(shop_.consumables, name, "run");
        material(ledger, stage, name, kind, amount, c.waste, c.price);
    }
    /// The same where the plan counts litres.
    void filler(Ledger ledger, Stage stage, const char* name, double volume) {
        consumable(ledger, stage, name, Kind::mass, volume * need(shop_.consumables, name, "run").density);
    }
    void hours(Ledger ledger, Stage stage, std::string what, double hours) {
        if (hours <= 0) return;
        auto& line = out_.hours.emplace_back();
        line.ledger = ledger;
        line.stage = stage;
        line.what = std::move(what);
        line.hours = hours;
    }
    void rated(Ledger ledger, Stage stage, const std::string& rate, double amount) {
        hours(ledger, stage, rate, shop_.rate(rate) * amount);
    }

    /// Cloth, coats, core and resin of a stack over an area.
    void stack(Ledger ledger, Stage stage, const StackSum& sum, const Resin& resin, double area, double waste,
               double extra_resin) {
        std::map<std::string, std::pair<double, const LaidLayer*>> by_name;
        for (const auto& l : sum.laid) {
            auto& [total, layer] = by_name[l.name];
            total += area;
            layer = &l;
        }
        for (const auto& [name, entry] : by_name) {
            const auto& l = *entry.second;
            if (l.layer.kind == LayerKind::ply) {
                const auto& r = need(shop_.reinforcements, name, "run");
                const double length = entry.first * (1 + waste) / r.roll_width;
                material(ledger, stage, name, Kind::area, entry.first, waste, r.price,
                         "off the roll " + quantity(Kind::length, length) + " × " +
                             quantity(Kind::length, r.roll_width) +
                             (length > r.roll_length
                                  ? fmt::format(", {:.0f} rolls", std::ceil(length / r.roll_length))
                                  : std::string()));
            } else if (l.layer.kind == LayerKind::core) {
                material(ledger, stage, name, Kind::area, entry.first, waste,
                         need(shop_.cores, name, "run").price);
            } else if (l.layer.kind == LayerKind::surface_coat) {
                material(ledger, stage, name, Kind::mass, l.other * entry.first, waste,
                         need(shop_.surface_coats, name, "run").price);
            }
        }
        const double mixed = sum.resin * area + extra_resin / (1 + waste);
        material(ledger, stage, resin.name + ", mixed", Kind::mass, mixed, waste, resin.price,
                 fmt::format("{:g} parts of hardener to 100 by mass; pot life {}", resin.mix_ratio,
                             quantity(Kind::duration, resin.pot_life)));
    }

  private:
    Findings& out_;
    Library shop_;
};

/// What the plug's own plan says.
void plug_lines(Book& book, const Before& b) {
    for (const auto& plan : b.plug.plans) {
        for (const auto& n : plan.needs)
            book.material(Ledger::once, Stage::plug, n.what, n.kind, n.amount, 0, n.price, n.note);
        for (const auto& w : plan.works) book.hours(Ledger::once, Stage::plug, w.what, w.hours);
    }
    // The mould is polished as the plug was.
    if (b.brief.grade == Grade::clear || b.brief.grade == Grade::gloss)
        book.consumable(Ledger::once, Stage::run, "polishing compound", Kind::mass,
                        0.04 * b.plug.sanding_area);
}

/// What the seams between pieces need: boards to part them, dowels to find each other again.
void seam_lines(Book& book, const Before& b, const Library& shop) {
    double area = 0, dowels = 0;
    for (const auto& board : b.split.boards) {
        area += board.area;
        dowels += static_cast<double>(board.dowels.size());
    }
    if (area <= 0) return;
    const auto& stock = need(shop.boards, b.split_choices.board, "split");
    book.material(Ledger::once, Stage::split, stock.name, Kind::count,
                  std::ceil(area / (0.7 * stock.sheet_length * stock.sheet_width)), 0, stock.price,
                  "sheets for parting boards, 30 % left over");
    book.material(Ledger::once, Stage::split, b.split_choices.dowel, Kind::count, dowels, 0,
                  need(shop.fasteners, b.split_choices.dowel, "split").price);
    book.rated(Ledger::once, Stage::split, "parting boards", b.split.set.seam_length);
}

/// What is bolted, pinned and bonded into the flange.
void fitting_lines(Book& book, const Before& b, const Library& shop) {
    const auto buy = [&](const std::string& name, double count) {
        if (count > 0)
            book.material(Ledger::once, Stage::edge, name, Kind::count, count, 0,
                          need(shop.fasteners, name, "edge").price);
    };
    buy(b.edge_choices.bolt, b.edge.bolts);
    buy(b.edge_choices.dowel, b.edge.count(Fitting::dowel));
    buy("threaded bush M8", b.edge.count(Fitting::bush));
    buy("jacking screw M10", b.edge.count(Fitting::jack));
    buy("air port with valve", b.edge.count(Fitting::port));
    const double holes = b.edge.bolts + b.edge.count(Fitting::dowel) + b.edge.count(Fitting::bush) +
                         b.edge.count(Fitting::jack) + b.edge.count(Fitting::port) +
                         b.edge.count(Fitting::wedge);
    if (holes > 0) book.rated(Ledger::once, Stage::edge, "drilling flange", holes);
}

void back_lines(Book& book, const Before& b, const Library& shop) {
    const auto once = Ledger::once;
    const auto& c = b.back_choices;
    const double pieces = b.pieces();
    const double bonded = pieces * b.back.bond_length;
    const auto boards = [&](const std::string& name, double area) {
        const auto& board = need(shop.boards, name, "back");
        book.material(once, Stage::back, board.name, Kind::count,
                      std::ceil(area / (0.7 * board.sheet_length * board.sheet_width)), 0, board.price,
                      "sheets, 30 % left over");
    };
    switch (c.kind) {
        case BackKind::none:
            return;
        case BackKind::egg_crate:
            boards(c.board, pieces * b.back.rib_area);
            break;
        case BackKind::foam_blocks:
            boards(c.foam.board, pieces * b.back.rib_area);
            book.stack(once, Stage::back, b.back.sandwich, b.shell.resin, pieces * b.back.sandwich_area,
                       b.shell_choices.waste, 0);
            book.rated(once, Stage::back, "laying ply", c.foam.plies * pieces * b.back.sandwich_area);
            break;
        case BackKind::tubes:
        case BackKind::frame:
            book.consumable(once, Stage::back,
                            c.tubes.metal == Metal::steel ? "steel tube" : "aluminium tube", Kind::mass,
                            pieces * b.back.mass);
            book.rated(once, Stage::back, "welding a frame", 2.0 * pieces * b.back.legs);
            if (c.kind == BackKind::frame)
                book.material(once, Stage::back, "levelling foot M12", Kind::count,
                              pieces * c.feet.along * c.feet.across, 0,
                              need(shop.fasteners, "levelling foot M12", "back").price);
            break;
        case BackKind::sandwich:
            book.stack(once, Stage::back, b.back.sandwich, b.shell.resin, b.back.sandwich_area,
                       b.shell_choices.waste, 0);
            book.rated(once, Stage::back, "laying ply", c.sandwich.plies * b.back.sandwich_area);
            book.rated(once, Stage::back, "laying core", b.back.sandwich_area);
            return;
    }
    if (b.back.crate) {
        book.rated(once, Stage::back, "cutting ribs", pieces * b.back.crate->cut_length);
        book.rated(once, Stage::back, "fitting ribs", pieces * b.back.ribs);
    }
    const auto& bond = need(shop.bonds, c.joint.bond == Bond::hard ? c.joint.paste : c.joint.strip, "back");
    constexpr double kFillet = 0.15, kOver = 0.1;  // kg of paste a metre; share bought over
    book.material(once, Stage::back, bond.name, bond.by_length ? Kind::length : Kind::mass,
                  bond.by_length ? bonded : kFillet * bonded, kOver, bond.price);
    if (c.joint.bond == Bond::soft) {
        // On both sides, onto the shell and up the rib.
        const double area = bonded * 2 * 2 * c.joint.tab;
        const std::vector<Layer> tab(static_cast<std::size_t>(c.joint.plies),
                                     {LayerKind::ply, c.joint.cloth, 0, 0});
        book.stack(once, Stage::back, sum_stack(tab, b.shell.resin, LayUp::hand, shop, "back tab"),
                   b.shell.resin, area, b.shell_choices.waste, 0);
        book.rated(once, Stage::back, "laying ply", c.joint.plies * area);
    }
    book.rated(once, Stage::back, "bonding ribs", bonded);
}

void tool_lines(Book& book, const Before& b, const Library& shop, const std::string& grade) {
    const auto once = Ledger::once;
    const double area = b.shell.area;
    book.rated(once, Stage::brief, "design", 1);
    book.consumable(once, Stage::edge, "clay fillet", Kind::mass,
                    0.15 * (b.edge.rim_length + b.split.set.seam_length));
    book.filler(once, Stage::shell, "thickened epoxy for fillets", b.shell.corners.filler);
    seam_lines(book, b, shop);
    book.consumable(once, Stage::edge, "masking tape", Kind::length, b.edge.tape_length);
    fitting_lines(book, b, shop);
    book.material(once, Stage::release, b.release.system.name + ", plug and mould", Kind::volume,
                  2 * b.release.litres * 1e-3, 0,
                  b.release.litres > 0 ? b.release.cost_first / (b.release.litres * 1e-3) : 0);
    book.hours(once, Stage::release, "release on plug and mould", 2 * b.release.work / 3600);
    book.stack(once, Stage::shell, b.shell.stack, b.shell.resin, area, b.shell_choices.waste, 0);
    for (const auto& zone : b.shell.zones)
        book.stack(once, Stage::shell, zone.extra, b.shell.resin, zone.area, b.shell_choices.waste, 0);
    double plies = 0, coats = 0, cores = 0;
    for (const auto& l : b.shell_choices.layers) {
        plies += l.kind == LayerKind::ply;
        cores += l.kind == LayerKind::core;
        coats += l.kind == LayerKind::surface_coat ? need(shop.surface_coats, l.material, "shell").passes
                 : l.kind == LayerKind::coupling   ? 1
                                                   : 0;
    }
    book.rated(once, Stage::shell, "coating", coats * area);
    double doubled = 0, debulks = 0;
    for (std::size_t z = 0; z < b.shell.zones.size(); ++z)
        doubled += b.shell.zones[z].area * static_cast<double>(b.shell.zones[z].extra.laid.size());
    for (const auto& step : b.shell.order) debulks += step.kind == shell::LayStep::Kind::debulk;
    book.rated(once, Stage::shell, "laying ply", plies * area + doubled);
    book.rated(once, Stage::shell, "laying core", cores * area);
    if (debulks > 0) book.rated(once, Stage::shell, "debulk", debulks);
    book.consumable(once, Stage::shell, "peel ply", Kind::area, area);
    if (b.shell_choices.how != LayUp::hand) {
        book.consumable(once, Stage::shell, "bag film", Kind::area, area);
        book.consumable(once, Stage::shell, "breather", Kind::area, area);
        book.consumable(once, Stage::shell, "sealant tape", Kind::length, b.edge.tape_length);
        book.rated(once, Stage::shell, "bagging", area);
        book.rated(once, Stage::shell, "setting up bag", 1);
    }
    book.consumable(once, Stage::shell, "brushes, rollers, pots", Kind::count, 1 + b.shell.days);
    // Plug and mould are each wiped down before their first coat of release.
    book.consumable(once, Stage::release, "solvent and wipes", Kind::count, 2);
    book.consumable(once, Stage::shell, "gloves and masks", Kind::count, b.brief.people);
    back_lines(book, b, shop);
    book.rated(once, Stage::run, "demould tool", 1);
    book.hours(once, Stage::run, "finishing the mould", shop.rate(grade) * b.plug.sanding_area / 2);
}

void part_lines(Book& book, const Before& b, const Library& shop) {
    const auto each = Ledger::each;
    // What a pull takes is shared by the parts that come out of it.
    const double area = b.part.area, parts = b.split.parts();
    book.stack(each, Stage::part, b.part.stack, b.part.resin, area, b.part_choices.waste,
               b.part_choices.pot_loss);
    double plies = 0, cores = 0, coats = 0;
    for (const auto& l : b.part_choices.layers) {
        plies += l.kind == LayerKind::ply;
        cores += l.kind == LayerKind::core;
        coats += l.kind == LayerKind::surface_coat || l.kind == LayerKind::coupling;
    }
    book.rated(each, Stage::part, "laying ply", plies * area);
    book.rated(each, Stage::part, "laying core", cores * area);
    book.rated(each, Stage::part, "coating", coats * area);
    if (b.part_choices.how != LayUp::hand) {
        const double bagged = area + b.edge.area / parts;
        book.consumable(each, Stage::part, "peel ply", Kind::area, area);
        book.consumable(each, Stage::part, "bag film", Kind::area, bagged);
        book.consumable(each, Stage::part, b.part_choices.how == LayUp::infused ? "flow medium" : "breather",
                        Kind::area, area);
        book.consumable(each, Stage::part, "sealant tape", Kind::length, b.edge.tape_length / parts);
        // Hoses are clogged or cut with every pull: two metres to the pump, typical.
        constexpr double kHose = 2;
        book.consumable(each, Stage::part, "vacuum hose", Kind::length, kHose / parts);
        if (b.part_choices.how == LayUp::infused)
            book.consumable(each, Stage::part, "spiral feed line", Kind::length, b.edge.rim_length / parts);
        if (b.part_choices.how == LayUp::bagged)
            book.consumable(each, Stage::part, "perforated film", Kind::area, area);
        book.rated(each, Stage::part, "bagging", bagged);
        book.rated(each, Stage::part, "setting up bag", 1 / parts);
    }
    book.filler(each, Stage::part, "thickened epoxy for fillets", b.part.corners.filler);
    book.consumable(each, Stage::part, "structural adhesive", Kind::mass, b.part.joint.adhesive);
    book.consumable(each, Stage::part, "gloves and masks", Kind::count, b.brief.people * 0.5);
    book.material(
        each, Stage::release, b.release.system.name + ", touch-up", Kind::volume,
        b.release.litres * 1e-3 / (5.0 * b.release.system.pulls_per_touch_up * parts), 0,
        b.release.cost_each > 0
            ? b.release.cost_each / (b.release.litres * 1e-3 / (5.0 * b.release.system.pulls_per_touch_up))
            : 0);
    book.hours(each, Stage::release, "release touch-up", b.release.work_each / 3600 / parts);
    book.rated(each, Stage::part, "demould part", 1);
    book.rated(each, Stage::part, "trimming", b.edge.rim_length / parts);
    const bool mould_finished = b.brief.grade != Grade::structural;
    const double kept = mould_finished ? 1 - shop.rate("paint kept out of part") : 1;
    book.hours(each, Stage::part, "finishing", kept * b.brief_findings.part_hours_m2 * area);
}

}  // namespace

Findings evaluate(const Choices& c, const Before& b, const Library& shop) {
    Findings out;
    const auto grade = "sanding " + std::string(file_word(b.brief.grade));
    Book book(out, shop);
    plug_lines(book, b);
    tool_lines(book, b, shop, grade);
    part_lines(book, b, shop);
    for (const auto& e : c.equipment)
        book.material(Ledger::equipment, Stage::run, e.name, Kind::count, 1, 0, e.price);
    out.labour_rate = c.labour > 0 ? c.labour : shop.rate("labour");
    for (const auto& m : out.materials) out.ledgers[static_cast<std::size_t>(m.ledger)].materials += m.cost;
    for (const auto& h : out.hours) out.ledgers[static_cast<std::size_t>(h.ledger)].hours += h.hours;
    for (auto& l : out.ledgers) l.labour = l.hours * out.labour_rate;
    out.made = b.brief.pulls * b.split.parts();
    out.tasks = build_tasks(b, shop);
    out.plan = timetable(out.tasks, {c.start, b.brief.shift});
    const auto &each = out.ledgers[0], &once = out.ledgers[1], &kit = out.ledgers[2];
    const auto rate = fmt::format("hours × {:g} an hour", out.labour_rate);
    out.figures = {
        {"days", "days to the first part", Kind::count, static_cast<double>(out.plan.days),
         fmt::format("{} tasks booked into shifts of {} with their waits", out.tasks.size(),
                     quantity(Kind::hours, b.brief.shift))},
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
