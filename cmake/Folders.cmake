# Headers of the standard library that nearly every file includes.
set(STANDARD_HEADERS <algorithm> <array> <cmath> <cstdint> <functional> <map> <memory> <optional> <set> <span> <stop_token>
    <string> <string_view> <thread> <tuple> <utility> <variant> <vector>)

# How code is compiled that is never what one waits for: forms, the command line, tests.
set(COLD_OPTION -O1)
if(COULTER_SANITIZE)
  set(COLD_OPTION -O0)
endif()

# coulter_folder(NAME [COLD] [USES folder…] [LINKS library…] [PRECOMPILES header…] [APART pattern…]): one folder of src/, or one storey of a folder
# (formula/notation), becomes one library.
#
# A folder sees the headers of the folders it names in USES and of those they use, and no others: each
# library exports a private mirror directory with links to its allowed folders, so a wrong include does not build.
function(coulter_folder NAME)
  cmake_parse_arguments(ARG "COLD" "" "USES;LINKS;PRECOMPILES;APART" ${ARGN})
  file(GLOB SOURCES CONFIGURE_DEPENDS ${CMAKE_CURRENT_SOURCE_DIR}/${NAME}/*.cpp)
  coulter_library_of(LIBRARY ${NAME})
  add_library(${LIBRARY} STATIC ${SOURCES})
  coulter_together(${LIBRARY} ${ARG_APART})
  if(ARG_COLD)
    target_compile_options(${LIBRARY} PRIVATE ${COLD_OPTION})
  endif()
  set(MIRROR ${CMAKE_BINARY_DIR}/include/${LIBRARY})
  get_filename_component(PARENT ${MIRROR}/${NAME} DIRECTORY)
  file(MAKE_DIRECTORY ${PARENT})
  file(CREATE_LINK ${CMAKE_CURRENT_SOURCE_DIR}/${NAME} ${MIRROR}/${NAME} SYMBOLIC)
  target_include_directories(${LIBRARY} PUBLIC ${MIRROR})
  foreach(FOLDER ${ARG_USES})
    coulter_library_of(USED ${FOLDER})
    target_link_libraries(${LIBRARY} PUBLIC ${USED})
  endforeach()
  target_link_libraries(${LIBRARY} PUBLIC ${ARG_LINKS})
  # What nearly every file includes of the standard library is read once for all folders, or with what a folder names.
  if(ARG_PRECOMPILES)
    target_precompile_headers(${LIBRARY} PRIVATE ${STANDARD_HEADERS} ${ARG_PRECOMPILES})
  else()
    target_precompile_headers(${LIBRARY} REUSE_FROM coulter_standard)
  endif()
  set_property(GLOBAL APPEND PROPERTY COULTER_FOLDERS ${NAME})
endfunction()

# coulter_together(TARGET [pattern…]): sources are compiled eight at a time, which takes half as long as one by one. So a name in an unnamed
# namespace belongs to one file of its folder; files that match a pattern (the entries of a table, which all define the same names) stay apart.
function(coulter_together TARGET)
  if(NOT COULTER_TOGETHER)
    return()
  endif()
  set_target_properties(${TARGET} PROPERTIES UNITY_BUILD ON UNITY_BUILD_BATCH_SIZE 8)
  get_target_property(SOURCES ${TARGET} SOURCES)
  foreach(PATTERN ${ARGN})
    set(APART ${SOURCES})
    list(FILTER APART INCLUDE REGEX ${PATTERN})
    set_source_files_properties(${APART} PROPERTIES SKIP_UNITY_BUILD_INCLUSION ON)
  endforeach()
endfunction()

# The library of a folder: coulter_formula_notation of formula/notation.
function(coulter_library_of VARIABLE NAME)
  string(REPLACE "/" "_" WORDS ${NAME})
  set(${VARIABLE} coulter_${WORDS} PARENT_SCOPE)
endfunction()

# coulter_test(NAME [TOGETHER] LINKS library… [PRECOMPILES header…]): tests/NAME/*.cpp becomes one test program, test_formula_notation of formula/notation.
# TOGETHER: its files share no name, and are compiled in batches.
function(coulter_test NAME)
  cmake_parse_arguments(ARG "TOGETHER" "" "LINKS;PRECOMPILES" ${ARGN})
  file(GLOB SOURCES CONFIGURE_DEPENDS ${CMAKE_CURRENT_SOURCE_DIR}/${NAME}/*.cpp)
  string(REPLACE "/" "_" WORDS ${NAME})
  set(PROGRAM test_${WORDS})
  add_executable(${PROGRAM} ${SOURCES})
  if(ARG_TOGETHER)
    coulter_together(${PROGRAM})
  endif()
  target_link_libraries(${PROGRAM} PRIVATE coulter_test_main ${ARG_LINKS})
  target_compile_options(${PROGRAM} PRIVATE ${COLD_OPTION})
  if(ARG_PRECOMPILES)
    target_precompile_headers(${PROGRAM} PRIVATE <catch2/catch.hpp> ${STANDARD_HEADERS} ${ARG_PRECOMPILES})
  else()
    target_precompile_headers(${PROGRAM} REUSE_FROM coulter_test_standard)
  endif()
  add_test(NAME ${WORDS} COMMAND ${PROGRAM})
  set_tests_properties(${WORDS} PROPERTIES TIMEOUT 1200 ENVIRONMENT "QT_QPA_PLATFORM=offscreen;COULTER_SOURCE=${CMAKE_SOURCE_DIR};COULTER_PROGRAM=${CMAKE_BINARY_DIR}/coulter")
endfunction()
