# Benchmarks: each sets our time beside a reference in the same run and prints the ratio.
find_package(benchmark REQUIRED)
add_executable(jig-bench bench/mesh_bench.cpp bench/pieces_bench.cpp bench/cgal_reference.cpp bench/embree_reference.cpp bench/evaluate_bench.cpp bench/bag_bench.cpp bench/making_bench.cpp bench/nest_bench.cpp bench/shell_bench.cpp bench/cholmod_reference.cpp)
target_precompile_headers(jig-bench REUSE_FROM jigscience)
target_link_libraries(jig-bench PRIVATE jigcore benchmark::benchmark_main embree ${POLYCLIPPING} ${MPFR} ${GMP} ${CHOLMOD} ${OPENBLAS})
target_include_directories(jig-bench SYSTEM PRIVATE ${CHOLMOD_HEADERS})
target_compile_definitions(jig-bench PRIVATE JIG_SOURCE_DATA="${PROJECT_SOURCE_DIR}/data")
set_source_files_properties(bench/cgal_reference.cpp PROPERTIES COMPILE_OPTIONS "-Wno-error;-w" SKIP_PRECOMPILE_HEADERS ON)
# The window's start; needs a display (xvfb-run).
add_executable(jig-window-bench bench/window_bench.cpp)
target_precompile_headers(jig-window-bench REUSE_FROM jigapp)
target_link_libraries(jig-window-bench PRIVATE jigapp benchmark::benchmark)
