# One program for the core, one for the window.
# Catch2's own main sees uninitialised regex states under the sanitizers (GCC 12); nothing of ours.
set_source_files_properties(${PROJECT_SOURCE_DIR}/tests/main.cpp ${PROJECT_SOURCE_DIR}/tests/app/main.cpp
                            PROPERTIES SKIP_PRECOMPILE_HEADERS ON COMPILE_OPTIONS -Wno-maybe-uninitialized)
file(GLOB_RECURSE core_tests CONFIGURE_DEPENDS ${PROJECT_SOURCE_DIR}/tests/*.cpp)
set(app_tests ${core_tests})
list(FILTER core_tests EXCLUDE REGEX "/tests/app/")
list(FILTER app_tests INCLUDE REGEX "/tests/app/")

add_executable(core-tests ${core_tests})
target_link_libraries(core-tests PRIVATE jigbatch PkgConfig::libzip)
target_compile_definitions(core-tests PRIVATE JIG_SOURCE_DATA="${PROJECT_SOURCE_DIR}/data" JIG_BATCH_PROGRAM="$<TARGET_FILE:jigshell-batch>")
add_dependencies(core-tests jigshell-batch jigshell-step)
# GCC 12 sees short strings in initialiser lists as out of bounds (its bug 105329).
target_compile_options(core-tests PRIVATE -Wno-array-bounds -Wno-restrict -Wno-stringop-overflow)
target_precompile_headers(core-tests PRIVATE <catch2/catch.hpp> <nlohmann/json.hpp> <Eigen/Core> <Eigen/Geometry> <fmt/format.h>)
# A test's own lines run once: they are not worth the compiler's time. What they test is built as it is shipped.
target_compile_options(core-tests PRIVATE -O0)
add_test(NAME core COMMAND core-tests)
add_test(NAME batch-help COMMAND jigshell-batch --help)
set_tests_properties(core PROPERTIES TIMEOUT 2400 COST 100)

# The science knows nothing of stages, jobs and shops; nor do its tests, and they stand alone too: small enough to be
# built and run under the sanitizers every time (.ci/run).
if(JIG_SANITIZE)
  set(science_tests ${core_tests})
  list(FILTER science_tests INCLUDE REGEX "/tests/(main.cpp|base/|science/)")
  add_executable(science-tests ${science_tests})
  target_link_libraries(science-tests PRIVATE jigscience)
  add_dependencies(science-tests jigshell-step)
  target_compile_definitions(science-tests PRIVATE JIG_SOURCE_DATA="${PROJECT_SOURCE_DIR}/data")
  target_compile_options(science-tests PRIVATE -Wno-array-bounds -Wno-restrict -Wno-stringop-overflow -O0)
  target_precompile_headers(science-tests PRIVATE <catch2/catch.hpp> <nlohmann/json.hpp> <Eigen/Core> <Eigen/Geometry> <fmt/format.h>)
  add_test(NAME science COMMAND science-tests)
endif()

add_executable(app-tests ${app_tests})
set_target_properties(app-tests PROPERTIES AUTOMOC ON)
target_link_libraries(app-tests PRIVATE jigapp Qt6::Test)
target_precompile_headers(app-tests PRIVATE <catch2/catch.hpp> <nlohmann/json.hpp> <Eigen/Core> <Eigen/Geometry> <QtWidgets>)
target_compile_options(app-tests PRIVATE -O0)
add_dependencies(app-tests jigshell jigshell-batch jigshell-step)
target_compile_definitions(app-tests PRIVATE JIG_PROGRAM="$<TARGET_FILE:jigshell>")
# A case for each file, so that ctest runs two at a time; displays of their own. The longest go first.
set(display 90)
foreach(file IN LISTS app_tests)
  get_filename_component(name ${file} NAME_WE)
  if(name MATCHES "_test$")
    math(EXPR display "${display} + 10")
    add_test(NAME window-${name} COMMAND xvfb-run -a -n ${display} -s "-screen 0 1920x1080x24" $<TARGET_FILE:app-tests> -d yes "-#" "[#${name}]~[.]")
    set_tests_properties(window-${name} PROPERTIES TIMEOUT 1800)
  endif()
endforeach()
