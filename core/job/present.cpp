// Findings as JSON, and as the job card's lines.
#include <fmt/format.h>

#include "core/job/evaluate.hpp"
#include "core/stages/bag/flow.hpp"
#include "core/stages/cautions.hpp"
#include "core/stages/plug/hazards.hpp"

namespace jig {

Json calls_to_json(const Calls& calls) {
    static constexpr std::array names{"note", "caution", "stop"};
    Json out = Json::array();
    for (const auto& c : calls) {
        Json one{{"stage", name_of(c.stage).key},
                 {"severity", names[static_cast<std::size_t>(c.severity)]},
                 {"key", c.key},
                 {"headline", worded(c.headline)},
                 {"why", worded(c.why)}};
        if (c.at) one["at_m"] = {c.at->x(), c.at->y(), c.at->z()};
        if (c.fix) one["fix"] = Json{{"label", worded(c.fix->label)}, {"patch", c.fix->patch}};
        out.push_back(std::move(one));
    }
    return out;
}

Json findings_to_json(const Findings& f) {
    Json out = Json::object();
    for (std::size_t s = 0; s < kStages.size(); ++s) {
        Json stage = Json::object();
        for (const auto& figure : f.figures(static_cast<Stage>(s))) {
            stage[figure.key] = {{"value", figure.value},
                                 {"shown", show(figure.kind, figure.value)},
                                 {"name", worded(figure.name)},
                                 {"reason", worded(figure.reason)}};
        }
        out[kStages[s].key] = std::move(stage);
    }
    if (f.release) {
        Json faces = Json::array();
        for (const auto& face : f.release->faces) {
            Json steps = Json::array(), judgements = Json::array();
            for (const auto& step : face.steps)
                steps.push_back({{"product", step.product},
                                 {"coat", step.coat},
                                 {"of", step.of},
                                 {"at_s", step.at},
                                 {"wait_s", step.wait},
                                 {"latest_s", step.latest},
                                 {"turn_rad", step.turn}});
            for (const auto& j : face.judgements)
                judgements.push_back({{"of", std::string(file_word(j.of))},
                                      {"pair", j.pair},
                                      {"verdict", std::string(file_word(j.verdict))},
                                      {"why", j.why},
                                      {"mend", j.mend}});
            faces.push_back({{"name", face.name},
                             {"surface", std::string(file_word(face.surface))},
                             {"history", std::string(file_word(face.history))},
                             {"system", face.system.name},
                             {"area_m2", face.area},
                             {"litres", face.litres},
                             {"strips_m", face.strips},
                             {"clock_s", face.clock},
                             {"verdict", std::string(file_word(face.verdict()))},
                             {"judgements", std::move(judgements)},
                             {"steps", std::move(steps)}});
        }
        out["release"]["faces"] = std::move(faces);
    }
    if (f.run) {
        Json materials = Json::array(), days = Json::array();
        for (const auto& m : f.run->materials) {
            materials.push_back({{"ledger", std::string(file_word(m.ledger))},
                                 {"stage", name_of(m.stage).key},
                                 {"what", m.what},
                                 {"amount", m.amount},
                                 {"shown", show(m.kind, m.amount)},
                                 {"waste", m.waste},
                                 {"cost", m.cost},
                                 {"note", worded(m.note)}});
        }
        for (const auto& b : f.run->plan.bookings) {
            Json looks = Json::array();
            if (run::last_of(*f.run, b)) {
                for (const auto& l : f.run->looks[b.task]) looks.push_back(worded(l));
            }
            days.push_back({{"task", worded(f.run->tasks[b.task].name)},
                            {"stage", f.run->tasks[b.task].stage},
                            {"from_s", b.from},
                            {"to_s", b.to},
                            {"from", clock_words(b.from)},
                            {"looks", std::move(looks)}});
        }
        out["run"]["materials"] = std::move(materials);
        out["run"]["plan"] = std::move(days);
    }
    out["calls"] = calls_to_json(f.calls);
    return out;
}

std::vector<std::string> cautions_for(const Job& job, Stage stage) {
    // Nothing is laid up of a mould that is made itself: its cautions are those of making it.
    if (stage == Stage::shell && plug::no_plug(job.plug)) return plug::hazards(job.plug);
    return stage == Stage::plug ? plug::hazards(job.plug) : cautions_of(stage);
}

std::string card_line(const Job& job, const Findings& f, Stage stage, const Wording& w) {
    const auto& figures = f.figures(stage);
    const auto say = [&](const char* key) {
        for (const auto& figure : figures) {
            if (figure.key == key) return show(figure.kind, figure.value, w);
        }
        return std::string("–");
    };
    switch (stage) {
        case Stage::brief:
            return fmt::format("{} pulls, to {}", job.brief.pulls,
                               show(Kind::temperature, job.brief.top_temperature, w));
        case Stage::shape:
            return say("length") + " · " + say("area");
        case Stage::split:
            if (f.split && !f.split->one_piece()) return say("pieces") + " pieces · seam " + say("seam");
            return (f.split && f.split->parts() > 1 ? say("parts") + " parts · draft " : "worst draft ") +
                   say("min_draft");
        case Stage::plug:
            return (f.plug && f.plug->plans.size() == 1 && f.plug->plans.front().route == Route::slabs
                        ? say("slabs") + " slabs"
                        : say("hours")) +
                   " · " + (f.plug ? show(Kind::mass, f.plug->mass, w) : std::string("–"));
        case Stage::edge:
            return say("width") + " · " + say("area");
        case Stage::shell:
            return say("thickness") + " · " + say("mass");
        case Stage::back:
            return f.back && f.back->ribs > 0 ? say("ribs") + " ribs · " + say("span")
                                              : "none · " + say("sag_person");
        case Stage::release:
            if (f.log && !job.log.entries.empty()) {
                for (const auto& face : f.log->faces) {
                    if (face.of == release::FaceOf::mould)
                        return say("coats") + " coats · " +
                               release::words_of(release::state_after(face.system, face.history, face.events,
                                                                      release::kAfterAll));
                }
            }
            return say("coats") + " coats · " + say("clock");
        case Stage::heat:
            return "part " + say("part_error");
        case Stage::part:
            return say("thickness") + " · " + say("mass");
        case Stage::bag:
            if (f.flow) {
                const bool shell = f.flow->of == Infused::shell;
                return f.flow->filling.fill ? "full after " + say(shell ? "shell_fill" : "fill")
                                            : "fills to " + say(shell ? "shell_filled" : "filled");
            }
            if (f.bag && f.bag->clamp)
                return f.bag->clamp->bolts > 0 ? say("clamp_bolts") + " bolts · " + say("torque")
                                               : std::string("no bolts");
            return f.bag && !f.bag->closed ? std::string("no bag") : say("film") + " · " + say("reached");
        case Stage::run:
            return "by day " + say("days") + " · " + say("per_part") + " each";
        case Stage::log:
            return say("pulls") + " pulls";
    }
    return {};
}

}  // namespace jig
