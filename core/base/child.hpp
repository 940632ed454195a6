// A program of ours run beside this one, watched while it works.
#pragma once

#include <chrono>
#include <functional>
#include <string>
#include <vector>

#include "core/base/progress.hpp"

namespace jig {

struct ChildEnd {
    int code = -1;      ///< exit code; -1 where it did not start or was ended by a signal
    bool late = false;  ///< ended because its time was up, by us or by its own limit of processor time
    std::string out;    ///< what it wrote to standard output
};

/// Where one of our programs stands: beside this one, in the folder above its tests, or installed. Empty
/// where it is nowhere.
std::string program_beside(const std::string& name);

/// Runs `words` (program first), hands it `in`, and gathers what it writes. Lines on its standard error that
/// are numbers from 0 to 1 go to `progress` under `doing`. Throws Cancelled, having ended it, where somebody
/// asked to stop.
ChildEnd run_child(const std::vector<std::string>& words, const std::string& in,
                   std::chrono::milliseconds most, Progress& progress, std::string_view doing);

}  // namespace jig
