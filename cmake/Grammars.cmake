# The grammars that programs are read by, from the sources that ./dev fetched: C as it comes, none of our warnings.
set(GRAMMARS ${CMAKE_SOURCE_DIR}/third_party/grammars/node_modules)
if(NOT EXISTS ${GRAMMARS}/tree-sitter-cpp/src/parser.c)
  message(FATAL_ERROR "The grammar sources are not here: run ./dev grammars, which fetches them.")
endif()
find_package(PkgConfig REQUIRED)
pkg_check_modules(TREE_SITTER REQUIRED IMPORTED_TARGET tree-sitter)
add_library(grammars STATIC
  ${GRAMMARS}/tree-sitter-c/src/parser.c
  ${GRAMMARS}/tree-sitter-cpp/src/parser.c ${GRAMMARS}/tree-sitter-cpp/src/scanner.c
  ${GRAMMARS}/tree-sitter-python/src/parser.c ${GRAMMARS}/tree-sitter-python/src/scanner.c)
target_compile_options(grammars PRIVATE -w)
# Each brings the same header of its generator.
target_include_directories(grammars PRIVATE ${GRAMMARS}/tree-sitter-cpp/src)
target_link_libraries(grammars PUBLIC PkgConfig::TREE_SITTER)
set_target_properties(grammars PROPERTIES UNITY_BUILD OFF)
