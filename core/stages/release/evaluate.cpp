#include <fmt/format.h>

#include "core/stages/release/findings.hpp"

namespace jig::release {
namespace {

/// The corner along a seam that is filled: a hollow of this radius, in both legs.
constexpr double kFillet = 0.003;
constexpr double kWaxDensity = 920, kClayDensity = 1750;  // kg/m³, typical

FaceKind surface_of(const plug::Plan& plan, const std::vector<plug::FinishStep>& finish) {
    if (plan.route == Route::existing) return FaceKind::gelcoat;
    const auto has = [&](std::string_view product) {
        return std::any_of(finish.begin(), finish.end(),
                           [&](const plug::FinishStep& s) { return s.product == product; });
    };
    if (has("plug top coat")) return FaceKind::top_coat;
    if (has("high-build primer")) return FaceKind::surfacer;
    return plan.route == Route::splash ? FaceKind::taped : FaceKind::epoxy_coat;
}

/// Stock has no word for its kind: foams are light, what is stiff and open is wood, what is closed a
/// laminate.
FaceKind surface_of(const Board& stock) {
    if (stock.density < 200) return FaceKind::foam;
    if (!stock.porous) return FaceKind::laminate;
    return stock.E > 2e9 ? FaceKind::wood : FaceKind::board;
}

FaceKind surface_of(const shell::Choices& shell, const Library& shop) {
    if (is_solid(shell.layers))
        return shell.layers.front().solid->metal ? FaceKind::metal : FaceKind::epoxy_coat;
    for (const auto& layer : shell.layers) {
        if (layer.kind != LayerKind::surface_coat) break;
        const auto* coat = find(shop.surface_coats, layer.material);
        if (coat == nullptr) break;
        if (has_styrene(coat->family)) return FaceKind::gelcoat;
        return coat->family == Family::plaster ? FaceKind::plaster : FaceKind::epoxy_coat;
    }
    return FaceKind::laminate;
}

Family family_of(const std::string& resin, const Library& shop) {
    const auto* entry = find(shop.resins, resin);
    return entry == nullptr ? Family::epoxy : entry->family;
}

const ReleaseSystem& system_of(const std::string& own, const Choices& c, const Library& shop) {
    return need(shop.releases, own.empty() ? c.system : own, "release system");
}

/// A face's coats, clock and amounts, and what the shop says of it.
Face worked_out(FaceOf of, std::string name, FaceKind surface, FaceHistory history,
                const ReleaseSystem& system, Family resin, double area, const Library& shop) {
    Face face;
    face.of = of;
    face.name = std::move(name);
    face.surface = surface;
    face.history = history;
    face.system = system;
    face.resin = resin;
    face.area = area;
    face.steps = coats_of(face.system.first_use, face.area, &face.clock);
    face.clock += face.system.final_cure;
    for (const auto& coat : face.system.first_use) {
        const double litres = coat.coats * face.area / coat.cover / (1 - coat.loss);
        face.litres += litres;
        face.cost += litres * coat.price;
        face.work += coat.coats * coat.minutes * 60 * face.area;
        if (coat.width > 0) face.strips += coat.coats * face.area / std::max(1e-3, coat.width - coat.lap);
    }
    face.judgements = judged(face.surface, face.history, face.resin, face.system.kind, shop);
    return face;
}

}  // namespace

std::vector<Step> coats_of(const std::vector<ReleaseCoat>& coats, double area, double* clock) {
    std::vector<Step> out;
    double at = 0;
    for (const auto& coat : coats) {
        // Across the coat before, and where that has been done, aslant to both.
        double turn = 0;
        for (int k = 1; k <= coat.coats; ++k) {
            out.push_back({coat.product, k, coat.coats, at, coat.wait, turn, coat.latest});
            turn = k % 2 == 1 ? turn + coat.turn : turn + coat.turn / 2;
            turn = std::fmod(turn, kPi);
            at += coat.minutes * 60 * area + coat.wait;
        }
    }
    if (clock != nullptr) *clock = at;
    return out;
}

std::vector<Judgement> judged(FaceKind surface, FaceHistory history, Family resin, ReleaseKind system,
                              const Library& shop) {
    std::vector<Judgement> out;
    const auto ask = [&](PairOf of, std::string_view what, std::string_view what_said) {
        for (const auto& pair : shop.release_pairs) {
            if (pair.of != of || pair.system != system || pair.what != what) continue;
            out.push_back({of, pair.verdict, pair.name, pair.why, pair.mend});
            return;
        }
        out.push_back({of, Verdict::caution, fmt::format("{} with {}", said(system), what_said),
                       "The shop's list says nothing of this pair.",
                       "Try a hidden place first, and note it in the list."});
    };
    ask(PairOf::surface, file_word(surface), said(surface));
    ask(PairOf::history, file_word(history), said(history));
    ask(PairOf::resin, file_word(resin), said(resin));
    return out;
}

Findings evaluate(const Choices& c, const split::Choices& split_choices, const split::Findings& split,
                  const plug::Findings& plug, const edge::Findings& edge, const shell::Choices& shell,
                  const part::Choices& part, const TapeLand& land, const Library& shop) {
    Findings out;
    out.system = system_of(c.mould.system, c, shop);
    out.taped = land.taped;
    const bool masks = land.taped && c.mask_land;
    out.kept_clear = masks ? edge.tape_land_area : 0;
    // Rims that are glued are masked on both sides of their line.
    out.masked = (masks ? edge.tape_land_length : 0) + (c.rims_released ? 0 : 2 * split.set.seam_length);
    out.area = split.mould_area() + edge.area - out.kept_clear;
    out.plan = coats_of(out.system.first_use, out.area, &out.clock);
    out.clock += out.system.final_cure;

    const auto laid = family_of(shell.resin, shop), made = family_of(part.resin, shop);
    const auto surface = [](FaceKind chosen, FaceKind built) {
        return chosen == FaceKind::as_built ? built : chosen;
    };
    // The plug's face carries the flange boards' too: what the shell is laid over.
    const bool direct = is_solid(shell.layers);
    double plugs = 0;
    for (const auto& plan : plug.plans) plugs += plan.area;
    for (const auto& plan : plug.plans) {
        if (direct) break;  // nothing is laid over one
        const auto name = plug.plans.size() == 1 ? std::string("plug") : "plug of " + plan.body;
        const double share = plugs > 0 ? plan.area / plugs : 1.0 / static_cast<double>(plug.plans.size());
        out.faces.push_back(worked_out(FaceOf::plug, name,
                                       surface(c.plug.surface, surface_of(plan, plug.finish)), c.plug.history,
                                       system_of(c.plug.system, c, shop), laid, share * out.area, shop));
    }
    if (!split.boards.empty() && !direct) {
        const auto& stock = need(shop.boards, split_choices.board, "parting board");
        for (const auto& board : split.boards)
            out.faces.push_back(worked_out(FaceOf::boards, "parting " + board.name,
                                           surface(c.boards.surface, surface_of(stock)), c.boards.history,
                                           system_of(c.boards.system, c, shop), laid, board.area, shop));
    }
    const auto mould = [&](const std::string& name, double area) {
        out.faces.push_back(worked_out(FaceOf::mould, name, surface(c.mould.surface, surface_of(shell, shop)),
                                       c.mould.history, out.system, made, area, shop));
    };
    if (split.one_piece()) {
        mould("mould", out.area);
    } else {
        double all = 0;
        for (const auto& piece : split.set.pieces) all += piece.map.area;
        for (std::size_t i = 0; i < split.set.pieces.size(); ++i)
            mould(i < split_choices.names.size() ? split_choices.names[i] : fmt::format("piece {}", i + 1),
                  all > 0 ? out.area * split.set.pieces[i].map.area / all : 0);
    }
    for (const auto& loose : c.loose)
        out.faces.push_back(worked_out(FaceOf::loose, loose.name,
                                       surface(loose.surface, FaceKind::epoxy_coat), loose.history,
                                       system_of(loose.system, c, shop), made, loose.area, shop));

    // The mould's own sums are those of its faces.
    double strips = 0;
    for (const auto& face : out.faces) {
        if (face.of != FaceOf::mould) continue;
        out.litres += face.litres;
        out.cost_first += face.cost;
        out.work += face.work;
        strips += face.strips;
    }
    const auto coats = out.plan.size();
    const double share = 1.0 / out.system.pulls_per_touch_up;
    for (const auto& coat : out.system.each_pull) {
        out.work_each += share * coat.coats * coat.minutes * 60 * out.area;
        out.cost_each += share * coat.coats * out.area / coat.cover / (1 - coat.loss) * coat.price;
    }
    out.seam = split.set.seam_length;
    const double fill = (1 - kPi / 4) * kFillet * kFillet * 2 * out.seam;
    out.seam_with = c.seam;
    out.seam_fill =
        c.seam == SeamFill::none ? 0 : fill * (c.seam == SeamFill::wax ? kWaxDensity : kClayDensity);

    const bool by_roll = out.system.kind == ReleaseKind::sheet || out.system.kind == ReleaseKind::tape;
    out.figures = {
        {"coats", "coats before the first pull", Kind::count, static_cast<double>(coats), out.system.care},
        {"area", "area to coat", Kind::area, out.area,
         masks ? "moulded area and flange, less the masked tape land " + quantity(Kind::area, out.kept_clear)
               : std::string("moulded area and flange")},
        {"clock", "first coat to first pull", Kind::duration, out.clock,
         "work on every coat, its wait, and the last cure of " +
             quantity(Kind::duration, out.system.final_cure)},
        {"work", "hands for the first use", Kind::hours, out.work, "minutes per m² and coat × area"},
        by_roll ? Figure{"strips", "strips to lay", Kind::length, strips,
                         "area ÷ (width of the roll less its lap); joints print"}
                : Figure{"litres", "product for the first use", Kind::volume, out.litres * 1e-3,
                         "coats × area ÷ cover ÷ (1 − what is sprayed past it)"},
        {"touch_up", "pulls per touch-up", Kind::count, static_cast<double>(out.system.pulls_per_touch_up),
         out.system.season > 0
             ? fmt::format("from the shop library; after each of the first {} while the face seasons",
                           out.system.season)
             : "from the shop library"},
        {"good_for", "a finished face waits at most", Kind::duration, out.system.good_for,
         out.system.good_for > 0 ? "then dust and drying cost the release: one coat more" : "0: any time"},
        {"limit", "good up to", Kind::temperature, out.system.top_temperature,
         "from the shop library: " + out.system.origin.note}};
    if (out.masked > 0)
        out.figures.push_back({"masked", "masking tape before the first coat", Kind::length, out.masked,
                               std::string(masks ? "along the tape land, as wide as that" : "") +
                                   (c.rims_released ? ""
                                    : masks         ? "; "
                                                    : "") +
                                   (c.rims_released ? "" : "both sides of the lines that are glued")});
    if (out.seam > 0 && c.seam != SeamFill::none)
        out.figures.push_back(
            {"seam_fill", "to close the lines between pieces", Kind::mass, out.seam_fill,
             fmt::format("{} of line, a hollow of {} on both sides, at {:.0f} kg/m³",
                         quantity(Kind::length, out.seam), quantity(Kind::thickness, kFillet),
                         c.seam == SeamFill::wax ? kWaxDensity : kClayDensity)});
    return out;
}

}  // namespace jig::release
