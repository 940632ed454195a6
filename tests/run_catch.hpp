#pragma once

/// Runs the tests of this program as its arguments say; its exit code.
int run_catch(int argc, char** argv);
