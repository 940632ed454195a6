#include <fmt/format.h>

#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>

#include <array>
#include <cerrno>
#include <cstdlib>
#include <filesystem>

#include "batch/on_board.hpp"
#include "core/job/job_file.hpp"
#include "core/job/tables.hpp"
#include "core/science/mesh/solid.hpp"
#include "core/science/mesh/stl.hpp"

namespace jig::batch {
namespace {

/// The sheets are drawn by the window's own printer, started without a window.
void print_sheets(const std::string& job, const std::string& pdf) {
    std::error_code none;
    std::filesystem::path program =
        std::filesystem::read_symlink("/proc/self/exe", none).parent_path() / "jigshell";
    if (!std::filesystem::exists(program, none))
        throw InputError("--pdf", "the program jigshell, which draws the sheets, is not beside this one",
                         "install both");
    // Its words on standard output would spoil the answer: they go to standard error.
    posix_spawn_file_actions_t streams;
    posix_spawn_file_actions_init(&streams);
    posix_spawn_file_actions_adddup2(&streams, STDERR_FILENO, STDOUT_FILENO);
    std::string name = program.string(), print = "--print", to = pdf, from = job;
    std::array<char*, 5> words{name.data(), print.data(), to.data(), from.data(), nullptr};
    // It draws without a display.
    ::setenv("QT_QPA_PLATFORM", "offscreen", 1);
    pid_t child = 0;
    int status = -1;
    const bool started = ::posix_spawn(&child, name.c_str(), &streams, nullptr, words.data(), environ) == 0;
    posix_spawn_file_actions_destroy(&streams);
    while (started && ::waitpid(child, &status, 0) < 0 && errno == EINTR) {
    }
    if (!started || !WIFEXITED(status) || WEXITSTATUS(status) != 0)
        throw InputError(pdf, "the sheets cannot be written there", "choose a folder that you may write to");
}

}  // namespace

Json run_report(const Arguments& a, Progress& progress) {
    const OnBoard on(a, Depth::fine, progress);
    const auto& findings = on.findings;
    auto out = findings_to_json(findings);
    if (const auto folder = a.option("csv")) {
        std::error_code bad;
        std::filesystem::create_directories(*folder, bad);
        if (bad) throw InputError(*folder, "the folder cannot be made", "choose one that you may write to");
        if (findings.run) {
            write_atomically(materials_csv(findings), *folder + "/materials.csv");
            write_atomically(days_csv(findings), *folder + "/days.csv");
        }
    }
    if (const auto pdf = a.option("pdf")) print_sheets(a.file("the job file"), *pdf);
    return out;
}

Json run_check(const Arguments& a, Progress& progress) {
    return {{"calls", calls_to_json(OnBoard(a, Depth::fine, progress).findings.calls)}};
}

Json run_plug(const Arguments& a, Progress& progress) {
    OnBoard on(a, Depth::stages, progress);
    on.need(Stage::plug);
    const auto& job = on.job;
    const auto& shop = *on.shop;
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
        for (std::size_t i = 0; i < findings.plug->plans.size(); ++i) {
            const auto& plan = findings.plug->plans[i];
            const auto base =
                *folder + "/" + (findings.plug->plans.size() > 1 ? fmt::format("plug-{}-", i + 1) : "");
            const auto pieces = plug::cut_pieces(plan, job.plug);
            if (!pieces.empty())
                write_sheets(lay_onto_sheets(pieces, plug::sheet_rules(plan, job.plug, shop), progress),
                             base + "sheet-", files);
            const auto write = [&](const TriangleMesh& mesh, const std::string& name) {
                write_atomically(write_stl_binary(mesh), base + name);
                files.push_back(base + name);
            };
            if (plan.route == Route::slabs) write(stack_mesh(plan.slabs.stack), "stack.stl");
            for (const auto& tile : plan.tiles.tiles) write(tile.mesh, "tile-" + tile.name() + ".stl");
        }
    }
    return {{"taken", std::string(file_word(job.plug.route))}, {"routes", routes}, {"files", files}};
}

}  // namespace jig::batch
