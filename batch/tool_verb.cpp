#include "batch/on_board.hpp"
#include "core/stages/back/suggest.hpp"

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
    OnBoard on(a, Depth::stages, progress, [&](Job& job, const Shop&) { show_piece(a, job); });
    const auto& job = on.job;
    const auto& shop = *on.shop;
    on.need(Stage::back);
    const double quick = on.work_out(Depth::quick, progress);
    const double fine = a.flag("quick") ? 0 : on.work_out(Depth::fine, progress);
    on.need(Stage::back);
    const auto& findings = on.findings;
    if (!findings.trial) throw InputError("edge", findings.edge->no_tool, "see Edge");
    const auto& trial = findings.trial;
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
             {"seconds", {{"quick", quick}, {"all", quick + fine}}},
             {"notes", trial->notes},
             {"calls", calls_to_json(back::trial_calls(*trial, job.back, job.brief))}};
    if (a.flag("suggest")) {
        const auto& found = *on.board.seek_pitch(on.sheet, progress);
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
            write_sheets(*on.board.rib_sheets(on.sheet, progress), *folder + "/rib-", files);
        }
        if (findings.edge && findings.split) {
            write_sheets(edge::drilling_sheet(job.edge, *findings.edge, shop), *folder + "/drilling-", files);
        }
        out["files"] = std::move(files);
    }
    return out;
}

}  // namespace jig::batch
