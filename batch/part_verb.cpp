#include <chrono>

#include "batch/on_board.hpp"
#include "core/job/builds.hpp"
#include "core/job/job_file.hpp"
#include "core/stages/part/as_stiff.hpp"
#include "core/stages/part/trial.hpp"

namespace jig::batch {
namespace {

Json at(const Point& p) {
    return Json::array({p.x(), p.y(), p.z()});
}

Json load_json(const part::LoadResult& r) {
    const auto [share, way] = r.most();
    return {{"name", r.name},
            {"load", worded(r.how)},
            {"max_displacement_m", r.moves},
            {"meshes_differ_m", r.differs},
            {"worst_at_m", at(r.worst)},
            {"where", r.where},
            {"holds_times", share > 0 ? Json(1 / share) : Json()},
            {"then", part::said(way)},
            {"shares",
             {{"cracks", r.cracks},
              {"fibres", r.fibres},
              {"core_shear", r.core_shear},
              {"wrinkling", r.wrinkles},
              {"crushing", r.crushes}}},
            {"buckling_factor", r.buckles > 0 ? Json(r.buckles) : Json()},
            {"no_buckling_below", r.none_below > 0 ? Json(r.none_below) : Json()},
            {"lifts_N", r.lifts},
            {"lifted_share", r.lifted},
            {"reactions_N", r.reactions}};
}

Json builds_json(OnBoard& on, Progress& progress) {
    Json out = Json::array();
    for (const auto& plan : builds_side_by_side(on.board, on.job, on.shop, progress))
        out.push_back({{"name", plan.build.name},
                       {"now", plan.now},
                       {"made_of", part::in_short(plan.build)},
                       {"obstacle", plan.obstacle.empty() ? Json() : Json(worded(plan.obstacle))},
                       {"untried", plan.untried.empty() ? Json() : Json(worded(plan.untried))},
                       {"sums", sums_to_json(plan.sums)}});
    return out;
}

/// The build of that name in another cloth; with --out a job that has it kept.
/// `saved` is the piece of the mould that the job itself shows.
Json as_stiff_json(const Arguments& a, const OnBoard& on, int saved) {
    const auto name = *a.option("as-stiff");
    auto like = part::build_of(on.job.part, "now");
    for (const auto& build : on.job.part.builds) {
        if (build.name == name) like = build;
    }
    if (like.name != name)
        throw InputError("--as-stiff", "the job keeps no build \"" + name + "\"",
                         "write the name of one that it keeps, or now for the part as it is");
    const auto cloth = a.option("cloth");
    if (!cloth) throw InputError("--as-stiff", "nothing says in which cloth", "name one with --cloth");
    const auto found = part::as_stiff(like, *cloth, *on.shop);
    if (const auto out = a.option("out")) {
        auto job = on.job;
        job.edge.piece = saved;
        part::keep(job.part.builds, found.build);
        save_job(job, *out);
    }
    return {{"like", like.name},
            {"plies", found.plies},
            {"areal_mass_kg_m2", found.stack.areal_mass()},
            {"thickness_m", found.stack.laminate.thickness},
            {"wanted_Nm", found.wanted},
            {"found_Nm", found.found},
            {"layers", to_json_value(found.build.layers)}};
}

}  // namespace

Json run_part(const Arguments& a, Progress& progress) {
    int saved = 1;
    OnBoard on(a, Depth::stages, progress, [&](Job& job, const Shop&) { saved = show_piece(a, job); });
    Json compared = Json::object();
    if (a.option("as-stiff"))
        compared["as_stiff"] = as_stiff_json(a, on, saved);
    else
        for (const char* alone : {"cloth", "out"}) {
            if (a.option(alone))
                throw InputError("--" + std::string(alone), "nothing says what it has to be as stiff as",
                                 "name a build with --as-stiff");
        }
    if (a.flag("builds")) {
        on.need(Stage::part);
        compared["builds"] = builds_json(on, progress);
    }
    if (!compared.empty() && on.job.part.duty.loads.empty()) return compared;
    if (on.job.part.duty.loads.empty())
        throw InputError("part", "the job does not say what it has to carry",
                         "give its loads, in Part or as part/duty/loads of the file");
    on.need(Stage::part);
    const auto& findings = on.findings;
    const auto seconds = [](const auto& work) {
        const auto start = std::chrono::steady_clock::now();
        work();
        return std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
    };
    std::shared_ptr<const part::Trial> found;
    const double quick = seconds([&] { found = on.board.try_part(on.sheet, false, progress); });
    if (!found) throw InputError("edge", findings.edge->no_tool, "see Edge");
    const double fine =
        a.flag("quick") ? 0 : seconds([&] { found = on.board.try_part(on.sheet, true, progress); });
    const auto& trial = *found;
    Json loads = Json::array(), regions = Json::array();
    for (const auto& r : trial.loads) loads.push_back(load_json(r));
    for (const auto& r : findings.part->regions) {
        Json names = Json::array();
        for (std::size_t z = 0; z < on.job.part.zones.size(); ++z) {
            if ((r.zones >> z & 1u) != 0) names.push_back(on.job.part.zones[z].name);
        }
        regions.push_back({{"zones", std::move(names)},
                           {"area_m2", r.area},
                           {"thickness_m", r.stack.laminate.thickness},
                           {"mass_kg", r.area * r.stack.areal_mass()},
                           {"D11_Nm", r.stack.laminate.D_free(0, 0)},
                           {"D22_Nm", r.stack.laminate.D_free(1, 1)}});
    }
    Json out{
        {"loads", std::move(loads)}, {"regions", std::move(regions)},
        {"mass_kg", trial.mass},     {"degrees_of_freedom", trial.freedoms},
        {"mesh_m", trial.edge},      {"seconds", {{"quick", quick}, {"all", quick + fine}}},
        {"notes", trial.notes},      {"calls", calls_to_json(part::trial_calls(trial, on.job.part.duty))}};
    out.update(compared);
    return out;
}

}  // namespace jig::batch
