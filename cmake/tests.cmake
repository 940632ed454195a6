# One program for the science, one for the rest of the core, one for the window.
file(GLOB_RECURSE core_tests CONFIGURE_DEPENDS ${PROJECT_SOURCE_DIR}/tests/*.cpp)
set(science_tests ${core_tests})
set(app_tests ${core_tests})
list(FILTER science_tests INCLUDE REGEX "/tests/(main.cpp|base/|science/)")
list(FILTER app_tests INCLUDE REGEX "/tests/app/")
list(FILTER core_tests EXCLUDE REGEX "/tests/(app/|base/|science/|catch.cpp)")
# Fewer at a time than the program's own, so that a test that changes is soon built again; helpers of one
# program's tests have names of their own. What most of them include is parsed once.
set(CMAKE_UNITY_BUILD_BATCH_SIZE 8)
set(tests_include <catch2/catch.hpp> <nlohmann/json.hpp> <Eigen/Core> <Eigen/Geometry> <fmt/format.h>)
# GCC 12 sees uninitialised regex states in Catch2 under the sanitizers; nothing of ours.
add_library(catch2-once OBJECT ${PROJECT_SOURCE_DIR}/tests/catch.cpp)
target_link_libraries(catch2-once PRIVATE jig_rules)
target_compile_options(catch2-once PRIVATE -O0 -Wno-maybe-uninitialized)
function(set_up_tests target)
  target_link_libraries(${target} PRIVATE catch2-once)
  target_compile_definitions(${target} PRIVATE JIG_SOURCE_DATA="${PROJECT_SOURCE_DIR}/data")
  # GCC 12 sees short strings in initialiser lists as out of bounds (its bug 105329).
  # A test's own lines run once: they are not worth the compiler's time. What they test is built as it is shipped.
  target_compile_options(${target} PRIVATE -Wno-array-bounds -Wno-restrict -Wno-stringop-overflow -O0)
  # What a test and the program both make of a template is taken from whoever comes first: that is the program,
  # lest it is tested with the tests' own slow copies.
  foreach(library IN LISTS ARGN)
    target_link_options(${target} PRIVATE LINKER:--whole-archive $<TARGET_FILE:${library}> LINKER:--no-whole-archive)
  endforeach()
endfunction()

# The science knows nothing of stages, jobs and shops; nor do its tests.
add_executable(science-tests ${science_tests})
# CGAL does not know our warnings.
set_source_files_properties(${PROJECT_SOURCE_DIR}/tests/science/vacuum/geodesic_test.cpp PROPERTIES COMPILE_OPTIONS "-w" SKIP_PRECOMPILE_HEADERS ON SKIP_UNITY_BUILD_INCLUSION ON)
set_up_tests(science-tests jigscience)
target_link_libraries(science-tests PRIVATE jigscience)
target_precompile_headers(science-tests PRIVATE ${tests_include})
add_dependencies(science-tests jigshell-step)
# In two halves that take about as long, one for each core of the machines that prove it: under the sanitizers
# they take a quarter of an hour together. Lower than what works behind a window, which windows' own tests would
# else wait for.
set(faces_filter)
set(fields_filter)
foreach(file IN LISTS science_tests)
  get_filename_component(name ${file} NAME_WE)
  if(file MATCHES "/science/(mesh|nest|drape|laminate|machine|heat)/")
    list(APPEND faces_filter "[#${name}]~[.]")
  elseif(name MATCHES "_test$")
    list(APPEND fields_filter "[#${name}]~[.]")
  endif()
endforeach()
list(JOIN faces_filter "," faces_filter)
list(JOIN fields_filter "," fields_filter)
add_test(NAME science-faces COMMAND nice -n 15 $<TARGET_FILE:science-tests> -d yes "-#" "${faces_filter}")
add_test(NAME science-fields COMMAND nice -n 15 $<TARGET_FILE:science-tests> -d yes "-#" "${fields_filter}")

add_executable(core-tests ${core_tests})
set_up_tests(core-tests jigbatch jigcore jigscience)
target_link_libraries(core-tests PRIVATE jigbatch PkgConfig::libzip)
target_compile_definitions(core-tests PRIVATE JIG_BATCH_PROGRAM="$<TARGET_FILE:jigshell-batch>")
target_precompile_headers(core-tests PRIVATE ${tests_include} ${PROJECT_SOURCE_DIR}/core/job/evaluate.hpp)
add_dependencies(core-tests jigshell-batch jigshell-step)
# In two halves, one for each core of the machines that prove it. Under the sanitizers, which take three times
# as long, those that work whole jobs out again and again are left to the user's check.
option(JIG_SHORT_TESTS "Leave out the core's longest tests" OFF)
set(long_tests back batch bag builds calls core cure_oven cure_sheet cures cuts evaluate fastest fixes flow
    flow_calls gate handbook infuse job_board kept life measured mould part_trial plug pots_age rim run sheets
    shell_flow split stance trial vacuum way zones)
set(stages_filter)
set(others_filter)
foreach(file IN LISTS core_tests)
  get_filename_component(name ${file} NAME_WE)
  string(REGEX REPLACE "_test$" "" subject ${name})
  if(JIG_SHORT_TESTS AND subject IN_LIST long_tests)
    continue()
  endif()
  if(file MATCHES "/tests/stages/[^/]*_test.cpp$")
    list(APPEND stages_filter "[#${name}]~[.]")
  elseif(name MATCHES "_test$")
    list(APPEND others_filter "[#${name}]~[.]")
  endif()
endforeach()
list(JOIN stages_filter "," stages_filter)
list(JOIN others_filter "," others_filter)
add_test(NAME stages COMMAND nice -n 15 $<TARGET_FILE:core-tests> -d yes "-#" "${stages_filter}")
add_test(NAME jobs COMMAND nice -n 15 $<TARGET_FILE:core-tests> -d yes "-#" "${others_filter}")
add_test(NAME batch-help COMMAND jigshell-batch --help)
set_tests_properties(science-faces science-fields stages jobs PROPERTIES TIMEOUT 3600 COST 100)

add_executable(app-tests ${app_tests})
set_target_properties(app-tests PROPERTIES AUTOMOC ON)
target_link_libraries(app-tests PRIVATE jigapp Qt6::Test)
target_precompile_headers(app-tests PRIVATE ${tests_include} ${window_includes} ${PROJECT_SOURCE_DIR}/core/job/evaluate.hpp)
set_up_tests(app-tests jigapp jigcore jigscience)
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
