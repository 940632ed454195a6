#include <cmath>

#include "batch/on_board.hpp"
#include "batch/read_case.hpp"
#include "batch/read_mesh.hpp"
#include "core/base/units.hpp"
#include "core/job/job_file.hpp"
#include "core/job/tables.hpp"
#include "core/science/mesh/stl.hpp"
#include "core/science/vacuum/bridging.hpp"
#include "core/science/vacuum/drop.hpp"
#include "core/science/vacuum/pump.hpp"

namespace jig::batch {
namespace {

constexpr double kMostVolume = 1e6, kMostPressure = 2e5;

double volume_in(const JsonPlace& place) {
    if (place.has("volume_m3")) {
        if (place.has("parts")) place.fail("both \"volume_m3\" and \"parts\" are given", "keep one of them");
        return between(place, "volume_m3", 0, kMostVolume);
    }
    const auto parts = place.at("parts");
    double out = between(parts, "area_m2", 0, 1e6, 0) * between(parts, "porous_m", 0, 10, 0) +
                 between(parts, "trap_m3", 0, kMostVolume, 0);
    if (parts.has("hoses")) {
        const auto hoses = parts.at("hoses");
        for (std::size_t i = 0; i < hoses.size(); ++i)
            out += hose_volume(between(hoses.item(i), "length_m", 0, 1e5),
                               between(hoses.item(i), "bore_m", 0, 10));
    }
    return out;
}

Json film_json(const Film& f) {
    Json pleats = Json::array();
    for (const auto& p : f.pleats) pleats.push_back({{"at_m", p.at}, {"height_m", p.height}});
    return {{"girths_m", {f.along, f.across}},
            {"longest_girths_m", {f.longest_along, f.longest_across}},
            {"sheet_m", {f.length, f.width}},
            {"depth_m", f.depth},
            {"land_m", f.land_length},
            {"slack_m", f.slack},
            {"pleats", std::move(pleats)},
            {"tape_m", f.tape},
            {"joins", f.joins}};
}

void write_film(const SheetSet& set, const std::string& folder, Json& out) {
    make_folder(folder);
    out["files"] = Json::array();
    write_sheets(set, folder + "/film", out["files"]);
}

Json wrap_json(const bag::Wrap& k) {
    if (k.sheets == 0) return {};
    return {{"round_m", {k.round.along, k.round.across}},
            {"sheets", k.sheets},
            {"tube", k.tube},
            {"sheet_m", {k.length, k.width}},
            {"seam_m", k.seam},
            {"joins", k.joins},
            {"wanted_m", k.tube ? Json(k.wanted) : Json()},
            {"bends_m", k.bends > 0 && std::isfinite(k.bends) ? Json(k.bends) : Json()}};
}

Json bridge_json(const std::optional<Bridge>& b) {
    if (!b) return {};
    return {{"reaches", b->reaches},  {"along", b->along},
            {"short_m", b->short_by}, {"radius_m", b->reaches ? Json(b->radius) : Json()},
            {"gap_m", b->gap},        {"at_m", {b->at.x(), b->at.y(), b->at.z()}}};
}

Json layers_json(const std::vector<bag::BagLayer>& layers) {
    Json out = Json::array();
    for (const auto& l : layers) {
        const bool measured = l.length > 0, cut = l.cut.metres > 0;
        Json darts = Json::array();
        for (const auto& d : l.darts)
            darts.push_back({{"at_m", {d.at.x(), d.at.y(), d.at.z()}}, {"angle_rad", d.angle}});
        out.push_back({{"name", l.name},
                       {"covers", worded(l.covers)},
                       {"area_m2", l.area},
                       {"cut_m", measured ? Json{l.length, l.width} : Json()},
                       {"roll_m", cut ? Json(l.roll) : Json()},
                       {"lengths", cut ? Json(l.cut.strips) : Json()},
                       {"off_roll_m", cut ? Json(l.cut.metres) : Json()},
                       {"darts", l.judged ? darts : Json()}});
    }
    return out;
}

Json rim_json(const bag::Rim& rim) {
    Json out = Json::array();
    for (const auto& s : rim.things)
        out.push_back({{"what", file_word(s.what)},
                       {"at_m", s.at * rim.length},
                       {"place_m", {s.place.x(), s.place.y(), s.place.z()}},
                       {"height_m", s.what == RimThing::pleat ? Json(s.height) : Json()},
                       {"clear_m", s.what == RimThing::pleat ? Json() : Json(s.off)}});
    return out;
}

Json clamp_json(const std::optional<bag::Clamping>& k) {
    if (!k) return {};
    Json order = Json::array();
    for (const auto& f : k->order) order.push_back({f.place.x(), f.place.y()});
    return {{"bolts", k->bolts},  {"needed_N", k->needed},      {"torque_Nm", k->torque},
            {"pull_N", k->pull},  {"pressed_Pa", k->pressed},   {"strip_N", k->strip},
            {"face_m2", k->face}, {"order_m", std::move(order)}};
}

Json bag_of_job(const Arguments& a, Progress& progress) {
    OnBoard on(a, Depth::stages, progress);
    on.need(Stage::bag);
    const auto& bag = *on.findings.bag;
    Json out = film_json(bag.film);
    // What there is no film to measure on is not 0.
    if (!bag.measured) {
        for (auto& [key, value] : out.items()) value = Json();
    }
    out["closed"] = bag.closed;
    out["way"] = file_word(on.job.bag.way);
    out["wrap"] = wrap_json(bag.wrap);
    out["clamp"] = clamp_json(bag.clamp);
    out["layers"] = layers_json(bag.layers);
    out["bridge"] = bridge_json(bag.bridge);
    out["rim"] = rim_json(bag.rim);
    out["far_m"] = bag.rim.far > 0 ? Json(bag.rim.far) : Json();
    out["film_m2"] = bag.film_area;
    out["tape_m"] = bag.tape;
    out["room_Pa"] = bag.room;
    out["volume_m3"] = bag.pump.volume;
    out["leak_Pa_m3_s"] = bag.pump.leak;
    out["end_Pa"] = bag.reached;
    out["time_s"] = or_null(bag.down);
    out["alone_Pa_m3_s"] = or_null(bag.alone);
    out["duty"] = bag.cycle ? Json(bag.cycle->duty()) : Json();
    out["force_N"] = bag.force;
    out["trap_m3"] = bag.trap;
    out["drop_lasts_s"] = bag.told_after > 0 ? Json(bag.told_after) : Json();
    Json calls = Json::array();
    for (auto& call : calls_to_json(on.findings.calls)) {
        if (call["stage"] == name_of(Stage::bag).key) calls.push_back(call);
    }
    out["calls"] = std::move(calls);
    if (a.option("out")) {
        if (!bag.measured) throw InputError("bag", "there is no film to cut", "see the job's Bag and Edge");
        write_film(bag::closing_sheet(bag, on.job.edge.tape_land), *a.option("out"), out);
        const auto path = *a.option("out") + "/layers.csv";
        write_atomically(layer_table(bag.layers), path);
        out["files"].push_back(path);
    }
    return out;
}

}  // namespace

Json run_vacuum(const Arguments& a, Progress&) {
    const auto& path = a.file("the case");
    const auto json = parse_json(path, read_file(path));
    const JsonPlace place(json, path);
    known_keys(place, {"volume_m3", "parts", "pump", "altitude_m", "leak_Pa_m3_s", "drop", "cycling",
                       "projected_m2", "times_to_Pa"});
    PumpDown pump;
    pump.volume = volume_in(place);
    if (pump.volume <= 0) place.fail("there is no volume to empty", "give it in m³ or by its parts");
    if (place.has("pump")) {
        pump.speed = between(place.at("pump"), "speed_m3_s", 0, 1e4);
        pump.ultimate = between(place.at("pump"), "ultimate_Pa", 0, kMostPressure, 0);
    }
    pump.start = room_pressure(between(place, "altitude_m", -500, 11000, 0));
    const int told = int{place.has("leak_Pa_m3_s")} + int{place.has("drop")} +
                     int{place.has("cycling") && place.at("cycling").has("off_s")};
    if (told > 1) place.fail("the leak is given more than once", "keep one of leak, drop and cycling");
    std::optional<double> low, high;
    std::optional<DropFit> fit;
    if (place.has("leak_Pa_m3_s")) pump.leak = between(place, "leak_Pa_m3_s", 0, 1e9);
    if (place.has("drop")) {
        const auto drop = place.at("drop");
        if (drop.has("readings")) {
            std::vector<DropReading> readings;
            const auto list = drop.at("readings");
            for (std::size_t i = 0; i < list.size(); ++i)
                readings.push_back({between(list.item(i), "seconds", 0, kLongest),
                                    between(list.item(i), "Pa", 0, kMostPressure)});
            fit = fit_drop(std::move(readings));
            if (!fit) list.fail("a line wants two readings at different times", "give more of them");
            pump.leak = pump.volume * std::max(0.0, fit->rise);
        } else {
            const double from = between(drop, "from_Pa", 0, kMostPressure),
                         to = between(drop, "to_Pa", 0, kMostPressure),
                         seconds = between(drop, "seconds", 1e-3, kLongest);
            if (to < from)
                drop.fail("a shut bag that leaks rises: \"to_Pa\" is below \"from_Pa\"", "turn them round");
            pump.leak = leak_of_drop(pump.volume, from, to, seconds);
        }
    }
    if (place.has("cycling")) {
        const auto cycling = place.at("cycling");
        low = between(cycling, "low_Pa", 0, kMostPressure);
        high = between(cycling, "high_Pa", 0, kMostPressure);
        if (*high <= *low) cycling.fail("\"high_Pa\" is not above \"low_Pa\"", "turn them round");
        if (cycling.has("off_s"))
            pump.leak = leak_of_drop(pump.volume, *low, *high, between(cycling, "off_s", 1e-3, kLongest));
    }
    const auto end = pump.end();
    Json out{{"room_Pa", pump.start},
             {"volume_m3", pump.volume},
             {"leak_Pa_m3_s", pump.leak},
             {"end_Pa", end ? Json(std::min(*end, pump.start)) : Json()}};
    if (fit) {
        out["drop"] = {{"rise_Pa_s", fit->rise},
                       {"spread_Pa_s", or_null(fit->spread)},
                       {"from_Pa", fit->from},
                       {"scatter_Pa", fit->scatter},
                       {"flattens", or_null(fit->flattens)},
                       {"leak_spread_Pa_m3_s", fit->spread ? Json(pump.volume * *fit->spread) : Json()}};
    }
    Json times = Json::array();
    if (place.has("times_to_Pa")) {
        const auto asked = place.at("times_to_Pa");
        for (std::size_t i = 0; i < asked.size(); ++i)
            times.push_back(or_null(pump.time_to(asked.item(i).number())));
    }
    out["times_s"] = std::move(times);
    if (low) {
        const auto cycle = cycle_of(pump, *low, *high);
        std::optional<double> duty, off, on;
        if (cycle) {
            duty = cycle->duty();
            off = cycle->off;
            on = cycle->on;
        }
        // What was seen stands beside what the pump should need: a pump that runs longer is worn.
        const auto cycling = place.at("cycling");
        if (cycling.has("on_s") && cycling.has("off_s")) {
            const double ran = between(cycling, "on_s", 0, kLongest),
                         rested = between(cycling, "off_s", 0, kLongest);
            out["seen_duty"] = ran / (ran + rested);
            if (!off) off = rested;
            if (!duty) duty = ran / (ran + rested);
        }
        out["duty"] = or_null(duty);
        out["off_s"] = or_null(off);
        out["on_s"] = or_null(on);
    }
    const double last = end ? std::min(*end, pump.start) : pump.start;
    out["force_N"] = place.has("projected_m2")
                         ? Json((pump.start - last) * between(place, "projected_m2", 0, 1e6))
                         : Json();
    return out;
}

Json run_bag(const Arguments& a, Progress& progress) {
    if (!a.option("pull")) {
        for (const char* name : {"land", "ease", "film", "pleat", "sheet"}) {
            if (a.option(name))
                throw InputError(std::string("--") + name, "a job has its own",
                                 "leave it out, or name a mesh with its --pull");
        }
        return bag_of_job(a, progress);
    }
    const auto pull = a.need_direction("pull");
    FilmRules rules;
    rules.land = a.number("land", 0, 0, 10);
    rules.ease = a.number("ease", 0.1, 0, 10);
    rules.roll = a.number("film", 0, 0, 100);
    rules.pleat = a.number("pleat", 0.05, 1e-3, 10);
    const auto mesh = load_mesh(a, progress);
    const auto topology = topology_of(mesh.mesh);
    const auto frame =
        lengthwise(mesh.mesh, topology, frame_across(Point(pull[0], pull[1], pull[2]).normalized()));
    if (a.option("sheet")) {
        const auto sheet = a.need_numbers("sheet", 2, "2.4,1.5");
        if (!(sheet[0] > 0) || !(sheet[1] > 0) || sheet[0] > 1e3 || sheet[1] > 1e3)
            throw InputError("--sheet", "a film is wider than nothing and narrower than a kilometre",
                             "give its two sides in metres");
        rules.sheet = Point2(sheet[0], sheet[1]);
    }
    const auto film = film_over(mesh.mesh, topology, frame, rules, progress);
    Json out = film_json(film);
    if (rules.sheet)
        out["bridge"] = bridge_json(bridge_under(mesh.mesh, topology, frame, rules, film, progress));
    if (a.option("out")) write_film(bag::film_sheet(film, frame), *a.option("out"), out);
    return out;
}

}  // namespace jig::batch
