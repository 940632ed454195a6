#include "batch/verbs.hpp"
#include "core/job/job_file.hpp"
#include "core/job/trial.hpp"

namespace jig::batch {
namespace {

Json point(const Point& p) {
    return Json::array({p.x(), p.y(), p.z()});
}

Json case_json(const back::CaseResult& r) {
    return {{"case", std::string(file_word(r.kind))},
            {"load", worded(r.how)},
            {"max_displacement_m", r.moves},
            {"face_error_m", r.error},
            {"worst_at_m", point(r.worst)},
            {"where", r.where},
            {"skin_index", r.skin},
            {"foam_index", r.foam},
            {"buckling_factor", r.buckles > 0 ? Json(r.buckles) : Json()},
            {"no_buckling_below", r.none_below > 0 ? Json(r.none_below) : Json()},
            {"feet_lifted", r.lifted},
            {"reactions_N", r.reactions},
            {"meshes_differ_m", r.differs}};
}

}  // namespace

Json run_tool(const Arguments& a, Progress& progress) {
    const auto shop = load_shop(data_folder() + "/library", a.option("library").value_or(""));
    auto job = load_job(a.file("the job file"));
    job.edge.piece = static_cast<int>(a.number("piece", job.edge.piece, 1, 12));
    const auto findings = evaluate(job, shop, nullptr, progress);
    for (const auto& call : findings.calls) {
        if (call.key == "input" && call.stage <= Stage::back)
            throw InputError(name_of(call.stage).key, worded(call.headline), worded(call.why));
    }
    TrialMeshes meshes;
    const auto quick = try_tool(job, findings, shop, Fineness::quick, nullptr, meshes, progress);
    const auto trial = a.option("quick").has_value()
                           ? quick
                           : try_tool(job, findings, shop, Fineness::fine, quick.get(), meshes, progress);
    Json cases = Json::array();
    for (const auto& r : trial->cases) cases.push_back(case_json(r));
    Json out{{"cases", std::move(cases)},
             {"mass_kg", trial->mass},
             {"tips",
              {{"force_N", std::isfinite(trial->tips.force) ? Json(trial->tips.force) : Json()},
               {"where", trial->tips_where},
               {"ballast_kg", trial->tips.ballast}}},
             {"degrees_of_freedom", trial->freedoms},
             {"mesh_m", trial->edge},
             {"seconds",
              {{"quick", quick->seconds}, {"all", quick->seconds + (trial != quick ? trial->seconds : 0)}}},
             {"notes", trial->notes},
             {"calls", calls_to_json(back::trial_calls(*trial, job.back, job.brief))}};
    if (a.option("suggest").has_value()) {
        const auto found = back::suggest(tool_inputs(job, findings, shop), progress);
        const auto tried = [](const std::vector<back::Tried>& list, const char* name) {
            Json all = Json::array();
            for (const auto& t : list)
                all.push_back(
                    {{name, t.value}, {"standing_m", t.sag.standing}, {"leaning_m", t.sag.leaning}});
            return all;
        };
        out["suggestion"] = {{"pitch_m", found.pitch},
                             {"holds", found.holds},
                             {"feet_inset", found.inset},
                             {"pitches", tried(found.pitches, "pitch_m")},
                             {"insets", tried(found.insets, "inset")}};
    }
    if (const auto folder = a.option("out")) {
        make_folder(*folder);
        Json files = Json::array();
        if (findings.back && findings.back->crate) {
            const auto pieces = back::cut_pieces(*findings.back->crate);
            write_sheets(lay_onto_sheets(pieces, back::sheet_rules(job.back, shop), progress),
                         *folder + "/rib-", files);
        }
        if (findings.edge && findings.split) {
            write_sheets(edge::drilling_sheet(job.edge, *findings.edge, shop), *folder + "/drilling-", files);
        }
        out["files"] = std::move(files);
    }
    return out;
}

}  // namespace jig::batch
