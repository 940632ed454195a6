// Catch2 itself, compiled once for all test programs.
#define CATCH_CONFIG_RUNNER
#include <catch2/catch.hpp>

#include "tests/run_catch.hpp"

int run_catch(int argc, char** argv) {
    return Catch::Session().run(argc, argv);
}
