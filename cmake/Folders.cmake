# Headers of the standard library that nearly every file includes.
set(STANDARD_HEADERS <algorithm> <array> <cmath> <cstdint> <functional> <map> <memory> <optional> <set> <span> <stop_token>
    <string> <string_view> <thread> <tuple> <utility> <variant> <vector>)

# coulter_folder(NAME [USES folder…] [LINKS library…] [PRECOMPILES header…]): one folder of src/, or one storey of a folder (formula/notation),
# becomes one library.
#
# A folder sees the headers of the folders it names in USES and of those they use, and no others: each
# library exports a private mirror directory with links to its allowed folders, so a wrong include does not build.
function(coulter_folder NAME)
  cmake_parse_arguments(ARG "" "" "USES;LINKS;PRECOMPILES" ${ARGN})
  file(GLOB SOURCES CONFIGURE_DEPENDS ${CMAKE_CURRENT_SOURCE_DIR}/${NAME}/*.cpp)
  coulter_library_of(LIBRARY ${NAME})
  add_library(${LIBRARY} STATIC ${SOURCES})
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

# The library of a folder: coulter_formula_notation of formula/notation.
function(coulter_library_of VARIABLE NAME)
  string(REPLACE "/" "_" WORDS ${NAME})
  set(${VARIABLE} coulter_${WORDS} PARENT_SCOPE)
endfunction()

# coulter_test(NAME LINKS library…): tests/NAME/*.cpp becomes one test program, test_formula_notation of formula/notation.
function(coulter_test NAME)
  cmake_parse_arguments(ARG "" "" "LINKS" ${ARGN})
  file(GLOB SOURCES CONFIGURE_DEPENDS ${CMAKE_CURRENT_SOURCE_DIR}/${NAME}/*.cpp)
  string(REPLACE "/" "_" WORDS ${NAME})
  set(PROGRAM test_${WORDS})
  add_executable(${PROGRAM} ${SOURCES})
  target_link_libraries(${PROGRAM} PRIVATE coulter_test_main ${ARG_LINKS})
  target_compile_options(${PROGRAM} PRIVATE -O1)
  target_precompile_headers(${PROGRAM} PRIVATE <catch2/catch.hpp> <string> <vector> <cmath>)
  add_test(NAME ${WORDS} COMMAND ${PROGRAM})
  set_tests_properties(${WORDS} PROPERTIES TIMEOUT 1200 ENVIRONMENT "QT_QPA_PLATFORM=offscreen;COULTER_SOURCE=${CMAKE_SOURCE_DIR};COULTER_PROGRAM=${CMAKE_BINARY_DIR}/coulter")
endfunction()
