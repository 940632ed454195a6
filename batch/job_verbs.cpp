#include <fmt/format.h>
#include <unistd.h>

#include <filesystem>

#include "batch/on_board.hpp"
#include "core/base/child.hpp"
#include "core/job/job_file.hpp"
#include "core/job/tables.hpp"
#include "core/science/mesh/solid.hpp"
#include "core/science/mesh/stl.hpp"

namespace jig::batch {
namespace {

/// The sheets are drawn by the window's own printer, started without a window.
void print_sheets(const Arguments& a, const std::string& pdf, Progress& progress) {
    const auto program = program_beside("jigshell");
    if (program.empty())
        throw InputError("--pdf", "the program jigshell, which draws the sheets, is not beside this one",
                         "install both");
    std::vector<std::string> words{program, "-platform", "offscreen", "--print", pdf};
    if (const auto library = a.option("library")) words.insert(words.end(), {"--library", *library});
    words.push_back(a.file("the job file"));
    if (run_child(words, {}, std::chrono::minutes(10), progress, "drawing the sheets").code != 0)
        throw InputError(pdf, "the sheets cannot be written there", "choose a folder that you may write to");
}

/// Said before a job is worked out for half a minute. Throws InputError.
void look_for_folder_of(const std::string& file) {
    const auto folder = std::filesystem::absolute(file).parent_path();
    std::error_code none;
    if (!std::filesystem::is_directory(folder, none) || ::access(folder.c_str(), W_OK) != 0)
        throw InputError(file, "it cannot be written there", "choose a folder that you may write to");
}

}  // namespace

Json run_report(const Arguments& a, Progress& progress) {
    if (const auto pdf = a.option("pdf")) look_for_folder_of(*pdf);
    if (const auto folder = a.option("csv")) make_folder(*folder);
    const OnBoard on(a, Depth::fine, progress);
    const auto& findings = on.findings;
    auto out = findings_to_json(findings);
    if (const auto folder = a.option("csv")) {
        if (findings.run) {
            write_atomically(materials_csv(findings), *folder + "/materials.csv");
            write_atomically(days_csv(findings), *folder + "/days.csv");
        }
    }
    if (const auto pdf = a.option("pdf")) print_sheets(a, *pdf, progress);
    return out;
}

Json run_check(const Arguments& a, Progress& progress) {
    return {{"calls", calls_to_json(OnBoard(a, Depth::fine, progress).findings.calls)}};
}

Json run_plug(const Arguments& a, Progress& progress) {
    OnBoard on(a, Depth::stages, progress);
    on.need(Stage::plug);
    const auto& job = on.job;
    const auto& findings = on.findings;
    const auto figures = [](const std::vector<Figure>& list) {
        Json out = Json::object();
        for (const auto& f : list)
            out[f.key] = {{"value", f.value},
                          {"shown", show(f.kind, f.value)},
                          {"name", f.name},
                          {"reason", worded(f.reason)}};
        return out;
    };
    Json routes = Json::array(), files = Json::array();
    for (const auto& plan : *on.board.routes(on.sheet, progress)) {
        Json needs = Json::array(), works = Json::array();
        for (const auto& n : plan.needs)
            needs.push_back({{"what", n.what},
                             {"amount", n.amount},
                             {"shown", show(n.kind, n.amount)},
                             {"cost", n.cost()}});
        for (const auto& w : plan.works)
            works.push_back({{"what", w.what}, {"hours", w.hours}, {"wait_s", w.wait}});
        routes.push_back({{"route", std::string(file_word(plan.route))},
                          {"obstacle", plan.obstacle.empty() ? Json() : Json(worded(plan.obstacle))},
                          {"sums", figures(plan.sums)},
                          {"figures", figures(plan.figures)},
                          {"needs", std::move(needs)},
                          {"works", std::move(works)}});
    }
    if (const auto folder = a.option("out")) {
        make_folder(*folder);
        const auto laid = on.board.plug_sheets(on.sheet, progress);
        for (std::size_t k = 0; k < laid->size(); ++k) {
            const auto stock = laid->size() > 1 ? fmt::format("stock-{}-", k + 1) : std::string();
            write_sheets((*laid)[k], *folder + "/" + stock + "sheet-", files);
        }
        const auto bodies = plug::bodies(job.plug, *findings.shape, *findings.split);
        for (std::size_t i = 0; i < findings.plug->plans.size(); ++i) {
            const auto& plan = findings.plug->plans[i];
            const auto base =
                *folder + "/" + (findings.plug->plans.size() > 1 ? fmt::format("plug-{}-", i + 1) : "");
            const auto write = [&](const TriangleMesh& mesh, const std::string& name) {
                write_atomically(write_stl_binary(mesh), base + name);
                files.push_back(base + name);
            };
            if (plan.route == Route::slabs) write(plug::stack_as_cut(plan, job.heat.plug_scale), "stack.stl");
            const double scale = job.heat.plug_scale;
            if (plan.mould)
                write(plug::as_cut(*plan.mould, plug::cut_deeper(job.plug, *on.shop), scale),
                      "mould-as-cut.stl");
            if (plan.tiles.tiles.empty()) continue;
            const auto tiles = plug::tiles_as_cut(plan, plan.mould ? plan.mould->body : bodies.at(i),
                                                  job.plug, scale, *on.shop, progress);
            for (const auto& tile : tiles.tiles) write(tile.mesh, "tile-" + tile.name() + ".stl");
        }
    }
    return {{"taken", std::string(file_word(job.plug.route))}, {"routes", routes}, {"files", files}};
}

}  // namespace jig::batch
