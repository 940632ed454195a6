#include <algorithm>

#include "batch/on_board.hpp"
#include "batch/read_case.hpp"
#include "batch/read_cure.hpp"
#include "core/job/trial.hpp"
#include "core/science/heat/cure_fit.hpp"
#include "core/science/heat/wall.hpp"
#include "core/science/mesh/stl.hpp"
#include "core/shop/cure.hpp"
#include "core/stages/heat/sensors.hpp"

namespace jig::batch {
namespace {

constexpr double kHottest = 2000, kColdest = 50;

std::vector<Segment> programme_from(const JsonPlace& place) {
    std::vector<Segment> out;
    for (std::size_t i = 0; i < place.size(); ++i) {
        const auto one = place.item(i);
        known_keys(one, {"to_K", "K_s", "hold_s"});
        Segment s;
        s.hold = one.has("hold_s");
        if (s.hold && (one.has("to_K") || one.has("K_s")))
            one.fail("it holds and goes elsewhere at once", "write two segments");
        if (s.hold) {
            s.seconds = between(one, "hold_s", 0, kLongest);
        } else {
            s.to = between(one, "to_K", kColdest, kHottest);
            // Down is written with or without its sign.
            s.rate = std::abs(between(one, "K_s", -1e6, 1e6));
            if (s.rate <= 0) one.at("K_s").fail("it never gets there", "write a rate above 0");
        }
        out.push_back(s);
    }
    return out;
}

WallSide side_from(const JsonPlace& place, double start) {
    WallSide out;
    if (place.has("T_K")) {
        known_keys(place, {"T_K"});
        out.air = steady(between(place, "T_K", kColdest, kHottest));
        return out;
    }
    known_keys(place, {"h_W_m2K", "air"});
    out.transfer = between(place, "h_W_m2K", 0, 1e7);
    const auto air = place.at("air");
    out.air = air.raw().is_array() ? course_of(programme_from(air), start)
                                   : steady(between(air, "T_K", kColdest, kHottest));
    return out;
}

WallLayer layer_from(const JsonPlace& place, std::size_t number, const Shop& shop) {
    known_keys(place,
               {"name", "thickness_m", "k_W_mK", "rho_kg_m3", "c_J_kgK", "resin", "resin_kg_m3", "cure"});
    WallLayer out;
    out.name = place.has("name") ? place.at("name").text() : fmt::format("layer {}", number);
    out.thickness = between(place, "thickness_m", 1e-7, 100);
    out.conductivity = between(place, "k_W_mK", 1e-5, 1e5);
    out.density = between(place, "rho_kg_m3", 1e-3, 1e5);
    out.capacity = between(place, "c_J_kgK", 1, 1e6);
    if (place.has("resin") && !place.at("resin").raw().is_null()) {
        out.resin = kinetics_from(place.at("resin"), shop);
        out.resin_density = between(place, "resin_kg_m3", 0, 1e5);
        out.cure = between(place, "cure", 0, 1, 0);
    }
    return out;
}

std::vector<double> times_from(const JsonPlace& place) {
    std::vector<double> out;
    if (!place.has("at_s")) return out;
    const auto asked = place.at("at_s");
    if (asked.size() > 20000) asked.fail("more than 20000 times are asked for", "ask for fewer");
    for (std::size_t i = 0; i < asked.size(); ++i) {
        out.push_back(asked.item(i).number());
        if (out.back() < 0 || out.back() > kLongest)
            asked.item(i).fail("it lies before the start, or beyond all cures",
                               "write seconds from the start on");
    }
    return out;
}

Json wall_json(const Wall& wall, const WallHistory& h) {
    Json layers = Json::array(), gels = Json::array(), firsts = Json::array(), glass = Json::array();
    for (std::size_t i = 0; i < h.places.size(); ++i) {
        static constexpr std::array kNames{"first face", "middle", "last face"};
        const auto& p = h.places[i];
        layers.push_back({{"name", wall.layers[p.layer].name},
                          {"place", kNames[i % 3]},
                          {"at_m", p.at},
                          {"T_K", p.T},
                          {"cure", p.cure.empty() ? Json() : Json(p.cure)},
                          {"Tg_K", p.Tg.empty() ? Json() : Json(p.Tg)}});
    }
    std::optional<double> lowest;
    for (const auto& g : h.gels) {
        gels.push_back(or_null(g.all));
        firsts.push_back(or_null(g.first));
        glass.push_back(or_null(g.Tg));
        if (g.Tg && (!lowest || *g.Tg < *lowest)) lowest = g.Tg;
    }
    return {{"times_s", h.times},
            {"layers", std::move(layers)},
            {"peak_K", h.peak},
            {"peak_s", h.peak_time},
            {"lag_K", h.lag},
            {"gel_s", std::move(gels)},
            {"gel_first_s", std::move(firsts)},
            {"Tg_end_K", or_null(lowest)},
            {"Tg_ends_K", std::move(glass)},
            {"energy_J_m2", {{"in", h.in}, {"reaction", h.reaction}, {"held", h.held}, {"lost", h.lost}}},
            {"steps", h.steps}};
}

Json peaks_json(const std::vector<ThicknessPeak>& peaks) {
    Json out = Json::array();
    for (const auto& p : peaks)
        out.push_back({{"thickness_m", p.thickness},
                       {"peak_K", p.peak},
                       {"peak_s", p.peak_time},
                       {"under_K", p.under > 0 ? Json(p.under) : Json()},
                       {"gel_s", or_null(p.gels)}});
    return out;
}

/// How hot layers of a wall become by how thick they are laid, into its answer.
void thicken(const Arguments& a, Wall wall, double end, Json& out, Progress& progress) {
    const auto names = a.option("thicker");
    if (!names) {
        for (const char* alone : {"limit", "under"}) {
            if (a.option(alone))
                throw InputError("--" + std::string(alone), "nothing says which layers grow thicker",
                                 "name them with --thicker");
        }
        return;
    }
    LaidAtOnce laid;
    laid.wall = std::move(wall);
    laid.end = end;
    laid.follow = {false, false};
    std::vector<std::string> wanted{""};
    for (const char c : *names) {
        if (c == ',')
            wanted.emplace_back();
        else
            wanted.back() += c;
    }
    for (const auto& name : wanted) {
        const auto before = laid.layers.size();
        for (std::size_t i = 0; i < laid.wall.layers.size(); ++i) {
            if (laid.wall.layers[i].name == name) laid.layers.push_back(i);
        }
        if (laid.layers.size() == before)
            throw InputError("--thicker", "the wall has no layer \"" + name + "\"",
                             "write names as the wall does, with commas between");
    }
    std::sort(laid.layers.begin(), laid.layers.end());
    laid.layers.erase(std::unique(laid.layers.begin(), laid.layers.end()), laid.layers.end());
    const auto curve = peaks_at(laid, heat::thicknesses(), progress);
    HeatLimits limits;
    if (a.option("limit")) limits.laid = a.need_number("limit", kColdest, kHottest);
    if (a.option("under")) limits.under = a.need_number("under", kColdest, kHottest);
    out["exotherm"] = peaks_json(curve);
    const bool limited = a.option("limit") || a.option("under");
    out["most_m"] = limited ? or_null(thickest(laid, curve, limits, progress)) : Json();
}

}  // namespace

Kinetics kinetics_from(const JsonPlace& place, const Shop& shop) {
    if (place.raw().is_string()) {
        const auto name = place.text();
        if (const auto* r = find(shop.resins, name)) return kinetics_of(*r);
        if (const auto* c = find(shop.surface_coats, name)) return kinetics_of(*c);
        if (const auto* b = find(shop.bonds, name); b != nullptr && b->sets()) return kinetics_of(*b);
        place.fail("the shop library has no resin \"" + name + "\"",
                   "use a name from data/library, or give its constants as an object");
    }
    known_keys(place,
               {"A1_1_s", "E1_J_mol", "A2_1_s", "E2_J_mol", "m", "n", "gel_cure", "heat_J_kg", "Tg0_K",
                "Tg_full_K", "lambda", "Tg_lead_K", "misfit", "assumed", "E2_spread_J_mol", "gel_spread"});
    Kinetics k;
    k.A1 = between(place, "A1_1_s", 0, 1e30, 0);
    k.E1 = between(place, "E1_J_mol", 0, 1e6, 0);
    k.A2 = between(place, "A2_1_s", 0, 1e30, 0);
    k.E2 = between(place, "E2_J_mol", 0, 1e6, 0);
    k.m = between(place, "m", 0, 10, 1);
    k.n = between(place, "n", 0, 10, 1);
    k.gel = between(place, "gel_cure", 0, 1, 0.6);
    k.heat = between(place, "heat_J_kg", 0, 1e8, 0);
    const auto given = [&](const char* key) { return place.has(key) && !place.at(key).raw().is_null(); };
    if (given("Tg0_K") || given("Tg_full_K")) {
        GlassCurve glass;
        glass.fresh = between(place, "Tg0_K", 1, kHottest);
        glass.full = between(place, "Tg_full_K", 1, kHottest);
        glass.lambda = between(place, "lambda", 1e-3, 1e3, 0.4);
        glass.lead = between(place, "Tg_lead_K", 0, 200, glass.lead);
        if (glass.full <= glass.fresh)
            place.at("Tg_full_K").fail("it is not above \"Tg0_K\"", "a resin's Tg rises as it cures");
        k.glass = glass;
    }
    return k;
}

Json to_json(const Kinetics& k) {
    const auto glass = [&](double GlassCurve::*field) { return k.glass ? Json((*k.glass).*field) : Json(); };
    return {{"A1_1_s", k.A1},
            {"E1_J_mol", k.E1},
            {"A2_1_s", k.A2},
            {"E2_J_mol", k.E2},
            {"m", k.m},
            {"n", k.n},
            {"gel_cure", k.gel},
            {"heat_J_kg", k.heat},
            {"Tg0_K", glass(&GlassCurve::fresh)},
            {"Tg_full_K", glass(&GlassCurve::full)},
            {"lambda", glass(&GlassCurve::lambda)},
            {"Tg_lead_K", glass(&GlassCurve::lead)}};
}

namespace {

Json fast_json(const heat::Fastest& f) {
    if (!f.run) return {{"found", false}, {"stands", worded(f.stands)}, {"tried", f.tried}};
    Json legs = Json::array();
    for (const auto& leg : f.run->legs)
        legs.push_back({{"to_K", leg.to}, {"K_s", leg.rate}, {"hold_s", leg.hold}});
    return {{"found", true},           {"seconds", f.run->seconds},  {"legs", std::move(legs)},
            {"cure_end", f.run->cure}, {"Tg_K", or_null(f.run->Tg)}, {"overshoot_K", f.run->overshoot},
            {"tried", f.tried}};
}

Json go_json(const heat::OneGo& go) {
    return {{"most_m", or_null(go.most)},
            {"laid_m", go.laid},
            {"laid_peak_K", go.whole.peak},
            {"limit_K", go.limits.laid},
            {"under_limit_K", go.limits.under < 1000 ? Json(go.limits.under) : Json()},
            {"under", go.under},
            {"exotherm", peaks_json(go.curve)}};
}

Json folds_json(const heat::FoldsUse& use) {
    Json out = Json::array();
    for (std::size_t i = 0; i < use.all.size(); ++i) {
        const auto& fold = (*use.on.folds)[i];
        const auto& one = use.all[i];
        out.push_back({{"where", use.on.where[i]},
                       {"at_m", {fold.at.x(), fold.at.y(), fold.at.z()}},
                       {"turns_deg", degrees(fold.turn)},
                       {"most_deg", degrees(fold.most)},
                       {"radius_m", fold.radius},
                       {"length_m", fold.length},
                       {"hollow", fold.hollow},
                       {"alpha_1_K", one.alpha},
                       {"in_zones", one.zoned},
                       {"closes_deg", degrees(one.closes)},
                       {"build_deg", degrees(one.build)},
                       {"flank_m", fold.flank},
                       {"held", !fold.free},
                       {"swings_m", one.swings},
                       {"moves_m", one.moves}});
    }
    return out;
}

Json oven_json(const heat::CureHeat& use) {
    const auto& h = use.heat;
    return {{"energy_J", h.heater}, {"walls_J", h.walls},     {"air_J", h.air},
            {"warmed_J", h.warmed}, {"vented_J", h.vented},   {"most_W", h.most},
            {"most_s", h.most_at},  {"cool_end_K", use.cool}, {"keeps_up_K_s", or_null(use.climbs)}};
}

/// The cures of a job, each as a wall's answer with what is said of it.
Json cures_of_job(const Arguments& a, Progress& progress) {
    OnBoard on(a, Depth::stages, progress);
    on.need(Stage::heat);
    Json cures = Json::array(), calls = Json::array();
    for (const auto& run : on.findings.heat->cures->runs) {
        auto one = wall_json(run.wall, run.cured.history);
        Json air = Json::array();
        for (const auto& corner : run.cured.air.corners) air.push_back({{"s", corner.time}, {"K", corner.T}});
        one["of"] = std::string(file_word(run.of));
        one["name"] = std::string(said(run.of));
        one["times"] = run.times;
        one["usual"] = run.usual;
        one["air"] = std::move(air);
        one["seconds"] = run.seconds;
        one["cure_end"] = run.cure;
        one["over_Tg_K"] = run.over_Tg > -999 ? Json(run.over_Tg) : Json();
        one["safe_rate_K_s"] = or_null(run.safe_rate);
        Json places = Json::array(), sensors = Json::array();
        for (const auto& p : heat::places_of(run, on.job.heat.within))
            places.push_back({{"name", p.name},
                              {"peak_K", p.peak},
                              {"near_s", or_null(p.near)},
                              {"gel_s", or_null(p.gels)},
                              {"cure_end", p.cure},
                              {"Tg_K", or_null(p.Tg)}});
        for (const auto& s : heat::sensors_of(run, on.job.heat))
            sensors.push_back({{"where", s.where}, {"for", s.for_what}, {"alarm_K", or_null(s.alarm)}});
        one["places"] = std::move(places);
        one["sensors"] = std::move(sensors);
        one["warm_end_K"] = run.warmest_air;
        const auto* use = on.findings.heat->oven.find(run.of);
        one["oven"] = use != nullptr ? oven_json(*use) : Json();
        if (const auto* go = on.findings.heat->go(run.of)) one["one_go"] = go_json(*go);
        if (a.flag("fast"))
            one["fast"] = fast_json(fastest_programme(on.job, on.findings, *on.shop, run.of, progress));
        cures.push_back(std::move(one));
    }
    for (auto& call : calls_to_json(on.findings.calls)) {
        if (call["stage"] == name_of(Stage::heat).key) calls.push_back(call);
    }
    const auto& oven = on.findings.heat->oven;
    return {{"cures", std::move(cures)},
            {"folds", folds_json(on.findings.heat->folds)},
            {"calls", std::move(calls)},
            {"oven",
             {{"build", oven.build.name},
              {"power_W", oven.power > 0 ? Json(oven.power) : Json()},
              {"holds_K", or_null(oven.holds)},
              {"tools", oven.tools},
              {"goes_in", oven.goes_in}}}};
}

}  // namespace

Json run_cure(const Arguments& a, Progress& progress) {
    const auto& path = a.file("the wall");
    const auto bytes = read_file(path);
    // A job is zipped where it carries meshes, and names itself.
    if (bytes.compare(0, 2, "PK") == 0 || bytes.find("\"jigshell job\"") != std::string::npos) {
        for (const char* of_wall : {"thicker", "limit", "under"}) {
            if (a.option(of_wall))
                throw InputError("--" + std::string(of_wall), "a job's own plies are thickened as they are",
                                 "leave it out, or name a wall");
        }
        return cures_of_job(a, progress);
    }
    if (a.option("fast"))
        throw InputError("--fast", "only a job knows what its cures have to reach",
                         "leave it out, or name a job");
    const auto json = parse_json(path, bytes);
    const JsonPlace place(json, path);
    const auto shop = load_shop(data_folder() + "/library", a.option("library").value_or(""));
    known_keys(place,
               {"layers", "sides", "start_K", "end_s", "at_s", "cells", "tolerance_K", "longest_step_s"});
    Wall wall;
    wall.start = between(place, "start_K", kColdest, kHottest);
    const auto layers = place.at("layers"), sides = place.at("sides");
    if (layers.size() == 0) layers.fail("the wall has no layer", "list one at least");
    if (layers.size() > 200) layers.fail("more than 200 layers", "join those that are alike");
    for (std::size_t i = 0; i < layers.size(); ++i)
        wall.layers.push_back(layer_from(layers.item(i), i + 1, shop));
    if (sides.size() != 2)
        sides.fail("a wall has two sides", "list the first layer's side, then the last one's");
    for (std::size_t i = 0; i < 2; ++i) wall.sides[i] = side_from(sides.item(i), wall.start);
    WallRules rules;
    const auto asked = times_from(place);
    rules.at = asked;
    std::sort(rules.at.begin(), rules.at.end());
    rules.cells = static_cast<int>(between(place, "cells", 5, 5000, rules.cells));
    rules.tolerance = between(place, "tolerance_K", 1e-6, 10, rules.tolerance);
    rules.longest = between(place, "longest_step_s", 0, kLongest, 0);
    if (!place.has("end_s") && asked.empty())
        place.fail("nothing says how long it goes on", "give \"end_s\", or times in \"at_s\"");
    rules.end =
        place.has("end_s") ? between(place, "end_s", 1e-6, kLongest) : std::max(1e-6, rules.at.back());
    auto out = wall_json(wall, warm(wall, rules, progress));
    thicken(a, std::move(wall), rules.end, out, progress);
    return out;
}

Json run_kinetics(const Arguments& a, Progress&) {
    const auto& path = a.file("the data");
    const auto json = parse_json(path, read_file(path));
    const JsonPlace place(json, path);
    known_keys(place, {"family", "gel_times", "pot", "heat_J_kg", "Tg", "Tg_lead_K"});
    CureData data;
    auto family = place.at("family").text();
    std::replace(family.begin(), family.end(), ' ', '_');
    const auto known = std::find_if(Words<Family>::all.begin(), Words<Family>::all.end(),
                                    [&](const Word& w) { return w.file == family; });
    if (known == Words<Family>::all.end())
        place.at("family").fail("\"" + family + "\" is no family of resins",
                                "write polyester, vinyl_ester, epoxy, filled_polyester or plaster");
    data.family = cure_family(static_cast<Family>(known - Words<Family>::all.begin()));
    const auto given = [&](const char* key) { return place.has(key) && !place.at(key).raw().is_null(); };
    const auto gels = place.at("gel_times");
    for (std::size_t i = 0; i < gels.size(); ++i)
        data.gels.push_back(
            {between(gels.item(i), "T_K", 200, 800), between(gels.item(i), "s", 1e-2, kLongest)});
    if (given("pot")) {
        const auto pot = place.at("pot");
        data.pot = CureData::Pot{between(pot, "mass_kg", 1e-4, 1e4), between(pot, "T0_K", 200, 800),
                                 between(pot, "peak_K", 200, 1500), between(pot, "peak_s", 1e-2, kLongest)};
    }
    if (given("heat_J_kg")) data.heat = between(place, "heat_J_kg", 1e3, 1e7);
    if (given("Tg_lead_K")) data.lead = between(place, "Tg_lead_K", 0, 200);
    if (given("Tg")) {
        const auto list = place.at("Tg");
        for (std::size_t i = 0; i < list.size(); ++i)
            data.glass.push_back({between(list.item(i), "cure_K", 200, 800),
                                  between(list.item(i), "cure_s", 1, kLongest),
                                  between(list.item(i), "Tg_K", 150, 900)});
    }
    const auto fit = fit_cure(data);
    auto out = to_json(fit.kinetics);
    out["misfit"] = fit.misfit;
    out["E2_spread_J_mol"] = fit.E_spread;
    Json spread = Json::array();
    for (const auto& g : data.gels) spread.push_back({{"T_K", g.T}, {"share", fit.gel_spread(g.T)}});
    out["gel_spread"] = std::move(spread);
    out["assumed"] = fit.assumed;
    return out;
}

}  // namespace jig::batch
