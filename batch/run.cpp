#include <fmt/format.h>

#include <cstdlib>
#include <filesystem>
#include <iostream>

#include "batch/verbs.hpp"

namespace jig::batch {

const std::vector<Verb>& verbs() {
    static const std::vector<Verb> all{
        {"laminate", "laminate STACK.json",
         "Thickness, mass, A, B, D, moduli, shear stiffness, expansion and free curvature of a "
         "stack.\nSTACK: {\"plies\": [{\"material\": NAME or {constants}, \"angle_deg\": 0, \"thickness_m\": "
         "0.00025}, ...], \"resin\": NAME}, first ply at the tool face.",
         run_laminate},
        {"draft", "draft MESH --pull X,Y,Z [--drag-deg 1] [--unit mm|cm|m|in] [--chord M]",
         "Which faces slide, drag and lock when the mould leaves along +pull.", run_draft},
        {"pull", "pull MESH [--top 3] [--drag-deg 1] [--unit mm|cm|m|in] [--chord M]",
         "The best directions for the mould to leave, best first.", run_pull},
        {"split",
         "split MESH --pieces N [--plane X,Y,Z,NX,NY,NZ] [--drag-deg 1] [--out DIR] [--unit mm|cm|m|in] "
         "[--chord M]",
         "A mould in at most N pieces, or two parted by a plane (a point in metres, a normal): each piece's "
         "pull, what "
         "locks, and the seams. With --out one binary STL (mm) a piece.",
         run_split},
        {"measure", "measure MESH [--unit mm|cm|m|in] [--chord M]",
         "Size, area, volume, centre, holes and what was mended.", run_measure},
        {"slabs",
         "slabs MESH --axis X,Y,Z --thickness T [--sheet WxH] [--kerf K] [--margin M] [--fit "
         "oversize|undersize|middle] [--hollow WALL] [--grain yes|no] [--pin D] [--out DIR] [--unit "
         "mm|cm|m|in] "
         "[--chord M]",
         "The shape as a stack of slabs laid onto sheets, with pins, bevels and offcuts; metres. With --out "
         "one DXF "
         "and one SVG a sheet, and stack.stl.",
         run_slabs},
        {"plug", "plug JOB [--out DIR] [--library DIR]",
         "The seven plug routes of a job set side by side: hours, days, cost, mass, accuracy, surface, heat, "
         "moulds, "
         "each with its reason. With --out the cut files of the route that the job takes.",
         run_plug},
        {"stiffness", "stiffness CASE.json [--library DIR]",
         "A shell by finite elements on supports under loads.\nCASE: {\"mesh\": FILE or {\"points_m\", "
         "\"triangles\"}, "
         "\"unit\", \"refine_to_m\", \"stack\", \"zero_direction\", \"supports\", \"loads\", \"probes_m\"}; "
         "see "
         "docs/batch.md.",
         run_stiffness},
        {"tool", "tool JOB [--piece N] [--quick yes] [--suggest yes] [--out DIR] [--library DIR]",
         "The tool of a job on trial by shell finite elements: own weight, turned over, leant on, bolted, "
         "levered, bagged, heated, on two meshes. --piece chooses one of a mould in pieces, --quick leaves "
         "the "
         "fine mesh off, --suggest seeks rib pitch and feet, --out writes the ribs' cutting sheets and the "
         "flange's drilling template.",
         run_tool},
        {"shell", "shell JOB [--build TEXT] [--out JOB] [--library DIR]",
         "The mould's laminate of a job: its order of laying, the seven schools worked out side by side, and "
         "stacks that keep to the sag, mass and days that the job seeks. With --build its plies are first "
         "laid "
         "afresh in the shop's thickness units: a total, as 24, or ply by ply, as \"1 + 2 + 4 x 6 + core + "
         "6\"; "
         "--out writes that job.",
         run_shell},
        {"report", "report JOB [--pdf F] [--csv DIR] [--library DIR]",
         "All findings of a job by stage, and its calls.", run_report},
        {"check", "check JOB [--library DIR]", "The calls of a job; exit 3 where one is a stop.", run_check}};
    return all;
}

std::string data_folder() {
    if (const char* own = std::getenv("JIGSHELL_DATA")) return own;
    std::error_code none;
    const auto beside =
        std::filesystem::read_symlink("/proc/self/exe", none).parent_path().parent_path() / "share/jigshell";
    for (const auto& place :
         {beside.string(), std::string(JIG_SOURCE_DATA), std::string(JIG_INSTALLED_DATA)}) {
        if (std::filesystem::exists(place + "/library", none)) return place;
    }
    throw InputError("data", "the shop library is not where it was installed",
                     "install Jig Shell again, or point JIGSHELL_DATA to its data folder");
}

int run(const std::vector<std::string>& words, std::ostream& out, std::ostream& err, Progress& progress) {
    const auto one_line = [](std::string text) {
        for (auto& c : text) c = c == '\n' ? ' ' : c;
        return text;
    };
    try {
        const auto args = read_arguments(
            words, {"pull",   "drag-deg", "unit",  "top", "axis",    "thickness", "sheet",  "kerf",
                    "margin", "out",      "pdf",   "csv", "library", "chord",     "pieces", "plane",
                    "fit",    "hollow",   "grain", "pin", "quick",   "suggest",   "build",  "piece"});
        if (args.verb.empty()) {
            if (!args.help)
                throw InputError("jigshell-batch", "no verb is given", "see jigshell-batch --help");
            out << "usage: jigshell-batch VERB FILE [options]\nOne JSON object on standard output, SI units. "
                   "Exit 0 answered, 2 bad input, 3 check found a stop, 1 own fault.\n\n";
            for (const auto& v : verbs()) out << "  " << v.usage << "\n";
            out << "\njigshell-batch VERB --help says more. Figures are estimates: data sheets, local codes "
                   "and licensed practice come first.\n";
            return 0;
        }
        for (const auto& v : verbs()) {
            if (args.verb != v.name) continue;
            if (args.help) {
                out << "usage: jigshell-batch " << v.usage << "\n" << v.help << "\n";
                return 0;
            }
            const auto answer = v.run(args, progress);
            out << answer.dump(1) << std::endl;
            if (args.verb == "check") {
                for (const auto& call : answer["calls"]) {
                    if (call["severity"] == "stop") return 3;
                }
            }
            return 0;
        }
        throw InputError("jigshell-batch", "there is no verb \"" + args.verb + "\"",
                         "see jigshell-batch --help");
    } catch (const InputError& e) {
        err << one_line(fmt::format("error: {}: {}; {}", e.where(), e.problem(), e.mend())) << std::endl;
        return 2;
    } catch (const Cancelled&) {
        err << "stopped" << std::endl;
        return 130;
    } catch (const std::exception& e) {
        err << one_line(std::string("fault: ") + e.what()) << std::endl;
        return 1;
    }
}

}  // namespace jig::batch
