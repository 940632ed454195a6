#include <fmt/format.h>

#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>

#include <array>
#include <cerrno>
#include <cstdlib>
#include <filesystem>

#include "batch/verbs.hpp"
#include "core/job/evaluate.hpp"
#include "core/job/job_file.hpp"
#include "core/job/tables.hpp"

namespace jig::batch {
namespace {

Findings evaluate_file(const Arguments& a, Job& job, Progress& progress) {
    const auto shop = load_shop(data_folder() + "/library", a.option("library").value_or(""));
    job = load_job(a.file("the job file"));
    return evaluate(job, shop, nullptr, progress);
}

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
    Job job;
    const auto findings = evaluate_file(a, job, progress);
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
    Job job;
    const auto findings = evaluate_file(a, job, progress);
    return {{"calls", calls_to_json(findings.calls)}};
}

}  // namespace jig::batch
