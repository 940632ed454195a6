#include <chrono>

#include "batch/on_board.hpp"

namespace jig::batch {
namespace {

Json moment_or_none(const std::optional<double>& at) {
    return at ? Json(write_moment(*at)) : Json();
}

Json coat(const release::Step& step) {
    return {{"product", step.product}, {"coat", step.coat}, {"of", step.of}, {"turn_rad", step.turn}};
}

Json strings(const std::vector<std::string>& list) {
    Json out = Json::array();
    for (const auto& s : list) out.push_back(worded(s));
    return out;
}

}  // namespace

/// Whether something may be laid on each face at a moment, by what the log has of it.
Json run_gate(const Arguments& a, Progress& progress) {
    double now = std::chrono::duration<double>(std::chrono::system_clock::now().time_since_epoch()).count();
    if (const auto at = a.option("at")) {
        const auto when = read_moment(*at);
        if (!when) throw InputError("--at", "\"" + *at + "\" is no moment", "write it as 2026-05-31T14:30");
        now = when->at;
    }
    OnBoard on(a, Depth::stages, progress);
    on.need(Stage::log);
    Json faces = Json::array();
    bool go = true, any = false;
    std::string known;
    for (const auto& face : on.findings.log->faces) {
        known += (known.empty() ? "" : ", ") + face.name;
        if (const auto wanted = a.option("face"); wanted && *wanted != face.name) continue;
        any = true;
        const auto gate = face.gate(now);
        go = go && gate.go;
        Json next = Json::array();
        for (const auto& step : gate.state.next) next.push_back(coat(step));
        faces.push_back(
            {{"face", face.name},
             {"system", face.system.name},
             {"go", gate.go},
             {"state", release::words_of(gate.state)},
             {"reasons", strings(gate.reasons)},
             {"remarks", strings(gate.state.remarks)},
             {"next_coats", std::move(next)},
             {"next_from", gate.state.done > 0 ? Json(write_moment(gate.state.next_from)) : Json()},
             {"earliest", moment_or_none(gate.earliest)},
             {"latest", moment_or_none(gate.latest)},
             {"pulls", gate.state.pulls},
             {"pulls_since_coat", gate.state.since_coat}});
    }
    if (!any)
        throw InputError("--face", "there is no face \"" + a.option("face").value_or("") + "\"",
                         "name one of: " + known);
    return {{"at", write_moment(now)}, {"go", go}, {"faces", std::move(faces)}};
}

}  // namespace jig::batch
