#include "batch/on_board.hpp"
#include "core/job/job_file.hpp"
#include "core/job/schools.hpp"
#include "core/stages/shell/find_stack.hpp"
#include "core/stages/shell/units.hpp"

namespace jig::batch {
namespace {

Json layers_json(const std::vector<Layer>& layers) {
    return to_json_value(layers);
}

}  // namespace

Json run_shell(const Arguments& a, Progress& progress) {
    if (a.option("out") && !a.option("build"))
        throw InputError("--out", "without --build the job stays as it is", "say what to build");
    OnBoard on(a, Depth::stages, progress, [&](Job& job, const Shop& shop) {
        const auto typed = a.option("build");
        if (!typed) return;
        job.shell.layers = shell::from_units(*typed, job.shell, nullptr, shop);
        if (const auto out = a.option("out")) save_job(job, *out);
    });
    on.need(Stage::shell);
    const auto& job = on.job;
    const auto& shop = *on.shop;
    const auto& f = *on.findings.shell;
    Json order = Json::array(), zones = Json::array();
    for (const auto& step : f.order)
        order.push_back({{"what", worded(step.what)},
                         {"from_s", step.from},
                         {"resin_kg", step.resin},
                         {"batches", step.batches},
                         {"offset_m", step.offset},
                         {"note", worded(step.note)}});
    for (const auto& z : f.zones)
        zones.push_back({{"where", z.name},
                         {"area_m2", z.area},
                         {"mass_kg", z.extra.areal_mass() * z.area},
                         {"units", z.units},
                         {"thickness_m", z.whole.laminate.thickness}});
    Json schools = Json::array();
    for (const auto& plan : schools_side_by_side(on.board, job, on.shop, progress)) {
        schools.push_back({{"school", std::string(file_word(plan.school))},
                           {"reason", shell::facts_of(plan.school).reason},
                           {"obstacle", plan.obstacle.empty() ? Json() : Json(worded(plan.obstacle))},
                           {"untried", plan.untried.empty() ? Json() : Json(worded(plan.untried))},
                           {"sums", sums_to_json(plan.sums)}});
    }
    const auto& found = *on.board.seek_stack(on.sheet, progress);
    Json stacks = Json::array();
    for (const auto& p : found.curve)
        stacks.push_back({{"thickness_m", p.thickness},
                          {"sag_m", p.sag},
                          {"mass_kg", p.mass},
                          {"price", p.price},
                          {"days", p.days},
                          {"fits", p.fits},
                          {"layers", layers_json(p.layers)}});
    return {{"thickness_m", f.stack.laminate.thickness},
            {"mass_kg", f.mass},
            {"units", f.units},
            {"build", shell::in_units(job.shell.layers, job.shell, shop)},
            {"layers", layers_json(job.shell.layers)},
            {"zones", std::move(zones)},
            {"order", std::move(order)},
            {"schools", std::move(schools)},
            {"stacks", std::move(stacks)},
            {"stacks_tried", found.tried},
            {"best_stack", found.best < 0 ? Json() : Json(found.best)}};
}

}  // namespace jig::batch
