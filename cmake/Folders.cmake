# coulter_folder(NAME [USES folder…] [LINKS library…]): one folder of src/ becomes one library.
#
# A folder sees the headers of the folders it names in USES and of those they use, and no others: each
# library exports a private mirror directory with links to its allowed folders, so a wrong include does not build.
function(coulter_folder NAME)
  cmake_parse_arguments(ARG "" "" "USES;LINKS" ${ARGN})
  file(GLOB SOURCES CONFIGURE_DEPENDS ${CMAKE_CURRENT_SOURCE_DIR}/${NAME}/*.cpp)
  add_library(coulter_${NAME} STATIC ${SOURCES})
  set(MIRROR ${CMAKE_BINARY_DIR}/include/${NAME})
  file(MAKE_DIRECTORY ${MIRROR})
  file(CREATE_LINK ${CMAKE_CURRENT_SOURCE_DIR}/${NAME} ${MIRROR}/${NAME} SYMBOLIC)
  target_include_directories(coulter_${NAME} PUBLIC ${MIRROR})
  foreach(FOLDER ${ARG_USES})
    target_link_libraries(coulter_${NAME} PUBLIC coulter_${FOLDER})
  endforeach()
  target_link_libraries(coulter_${NAME} PUBLIC ${ARG_LINKS})
endfunction()

# coulter_test(NAME LINKS library…): tests/NAME/*.cpp becomes one test program.
function(coulter_test NAME)
  cmake_parse_arguments(ARG "" "" "LINKS" ${ARGN})
  file(GLOB SOURCES CONFIGURE_DEPENDS ${CMAKE_CURRENT_SOURCE_DIR}/${NAME}/*.cpp)
  add_executable(test_${NAME} ${SOURCES})
  target_link_libraries(test_${NAME} PRIVATE coulter_test_main ${ARG_LINKS})
  target_compile_options(test_${NAME} PRIVATE -O1 -Wno-array-bounds) # GCC 12 sees overflows in its own std::string here
  target_precompile_headers(test_${NAME} PRIVATE <catch2/catch.hpp> <string> <vector> <cmath>)
  add_test(NAME ${NAME} COMMAND test_${NAME})
  set_tests_properties(${NAME} PROPERTIES TIMEOUT 1200 ENVIRONMENT "QT_QPA_PLATFORM=offscreen;COULTER_SOURCE=${CMAKE_SOURCE_DIR};COULTER_PROGRAM=${CMAKE_BINARY_DIR}/coulter")
endfunction()
