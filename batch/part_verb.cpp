#include <chrono>

#include "batch/on_board.hpp"
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
            {"reactions_N", r.reactions}};
}

}  // namespace

Json run_part(const Arguments& a, Progress& progress) {
    OnBoard on(a, Depth::stages, progress);
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
    return {
        {"loads", std::move(loads)}, {"regions", std::move(regions)},
        {"mass_kg", trial.mass},     {"degrees_of_freedom", trial.freedoms},
        {"mesh_m", trial.edge},      {"seconds", {{"quick", quick}, {"all", quick + fine}}},
        {"notes", trial.notes},      {"calls", calls_to_json(part::trial_calls(trial, on.job.part.duty))}};
}

}  // namespace jig::batch
