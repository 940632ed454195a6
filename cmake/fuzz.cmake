# Readers under libFuzzer, one program a format. Clang only: tools/fuzz sets it up and runs each for a while.
set(fuzzed core/science/mesh/stl.cpp core/science/mesh/polygon_files.cpp core/science/mesh/outline_file.cpp
           core/science/mesh/outline.cpp core/science/mesh/triangle_mesh.cpp core/science/mesh/cut.cpp
           core/science/mesh/topology.cpp core/base/error.cpp core/base/units.cpp core/base/typed.cpp)
function(add_fuzzer name call)
  add_executable(fuzz-${name} fuzz/readers.cpp ${fuzzed})
  target_include_directories(fuzz-${name} PRIVATE ${PROJECT_SOURCE_DIR})
  target_compile_definitions(fuzz-${name} PRIVATE "JIG_READ=${call}")
  target_compile_options(fuzz-${name} PRIVATE -g -O1 -fsanitize=fuzzer,address,undefined)
  target_link_options(fuzz-${name} PRIVATE -fsanitize=fuzzer,address,undefined)
  target_link_libraries(fuzz-${name} PRIVATE Eigen3::Eigen fmt::fmt nlohmann_json::nlohmann_json PkgConfig::dxflib
                        pugixml::pugixml ${POLYCLIPPING})
endfunction()
add_fuzzer(stl "jig::read_stl(bytes, \"file\", 1e-3, quiet)")
add_fuzzer(obj "jig::read_obj(bytes, \"file\", 1e-3, quiet)")
add_fuzzer(ply "jig::read_ply(bytes, \"file\", 1e-3, quiet)")
add_fuzzer(outline "jig::read_outline(bytes, \"file\", 1e-3)")
