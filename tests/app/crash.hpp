// The program that is killed in the middle of work: this test program, started again with a folder to work
// in.
#pragma once

namespace crash {

inline constexpr const char* kFolder = "JIGSHELL_TEST_CRASH";

/// Opens the job in the folder, edits it, says "edited" once it is autosaved, and waits to be killed.
int work_until_killed();

}  // namespace crash
