// What the headless command can do (docs/batch.md).
#pragma once

#include "batch/arguments.hpp"
#include "core/base/json.hpp"
#include "core/base/progress.hpp"
#include "core/science/laminate/stack.hpp"
#include "core/science/nest/cut_sheets.hpp"
#include "core/shop/shop.hpp"

namespace jig::batch {

struct Verb {
    Form form;
    std::string help;
    Json (*run)(const Arguments&, Progress&);
};

const std::vector<Verb>& verbs();

Json run_laminate(const Arguments&, Progress&);
Json run_draft(const Arguments&, Progress&);
Json run_pull(const Arguments&, Progress&);
Json run_split(const Arguments&, Progress&);
Json run_measure(const Arguments&, Progress&);
Json run_slabs(const Arguments&, Progress&);
Json run_gate(const Arguments& a, Progress& progress);
Json run_report(const Arguments&, Progress&);
Json run_check(const Arguments&, Progress&);
Json run_plug(const Arguments&, Progress&);
Json run_stiffness(const Arguments&, Progress&);
Json run_tool(const Arguments&, Progress&);
Json run_shell(const Arguments&, Progress&);
Json run_vacuum(const Arguments&, Progress&);
Json run_bag(const Arguments&, Progress&);
Json run_cure(const Arguments&, Progress&);
Json run_kinetics(const Arguments&, Progress&);
Json run_plan(const Arguments&, Progress&);
Json run_infuse(const Arguments&, Progress&);
Json run_drape(const Arguments&, Progress&);
Json run_part(const Arguments&, Progress&);
Json run_kit(const Arguments&, Progress&);

/// The plies of a stack as docs/batch.md writes it. Throws InputError.
std::vector<StackPly> read_stack(const JsonPlace& place, const Shop& shop);

/// One DXF and one SVG a sheet, named `base` and its number; their names are added to `files`.
void write_sheets(const SheetSet& sheets, const std::string& base, Json& files);
/// Makes a folder where there is none. Throws InputError.
void make_folder(const std::string& folder);

/// The whole command: prints, and returns the exit code (0 answered, 1 own fault, 2 bad input, 3 a stop).
int run(const std::vector<std::string>& words, std::ostream& out, std::ostream& err, Progress& progress);

/// Folder of the shipped data: $JIGSHELL_DATA, the installed place, or the source tree.
std::string data_folder();

}  // namespace jig::batch
