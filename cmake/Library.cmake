# The core as one installed library: all folders but the command line and the window in one archive, with the public
# header and a package that finds what it stands on.
#   cmake --install build --component library --prefix PLACE
get_property(LIBRARY_FOLDERS GLOBAL PROPERTY COULTER_FOLDERS)
list(REMOVE_ITEM LIBRARY_FOLDERS command desktop)
set(LIBRARY_SCRIPT "create $<TARGET_FILE_DIR:coulter_library>/libcoulter.a\n")
foreach(FOLDER ${LIBRARY_FOLDERS})
  coulter_library_of(LIBRARY ${FOLDER})
  string(APPEND LIBRARY_SCRIPT "addlib $<TARGET_FILE:${LIBRARY}>\n")
  list(APPEND LIBRARY_TARGETS ${LIBRARY})
endforeach()
string(APPEND LIBRARY_SCRIPT "save\nend\n")
file(GENERATE OUTPUT ${CMAKE_BINARY_DIR}/libcoulter.mri CONTENT "${LIBRARY_SCRIPT}")
set(LIBRARY_FILE ${CMAKE_CURRENT_BINARY_DIR}/src/libcoulter.a)
add_custom_command(
  OUTPUT ${LIBRARY_FILE}
  COMMAND ${CMAKE_COMMAND} -E rm -f ${LIBRARY_FILE}
  COMMAND sh -c "${CMAKE_AR} -M < ${CMAKE_BINARY_DIR}/libcoulter.mri"
  DEPENDS ${LIBRARY_TARGETS} ${CMAKE_BINARY_DIR}/libcoulter.mri
  VERBATIM)
add_custom_target(library ALL DEPENDS ${LIBRARY_FILE})

include(CMakePackageConfigHelpers)
include(GNUInstallDirs)
set(LIBRARY_PACKAGE ${CMAKE_INSTALL_LIBDIR}/cmake/Coulter)
configure_package_config_file(cmake/CoulterConfig.cmake.in ${CMAKE_BINARY_DIR}/CoulterConfig.cmake
                              INSTALL_DESTINATION ${LIBRARY_PACKAGE}
                              PATH_VARS CMAKE_INSTALL_LIBDIR CMAKE_INSTALL_INCLUDEDIR)
write_basic_package_version_file(${CMAKE_BINARY_DIR}/CoulterConfigVersion.cmake COMPATIBILITY SameMinorVersion)
install(FILES ${LIBRARY_FILE} DESTINATION ${CMAKE_INSTALL_LIBDIR} COMPONENT library EXCLUDE_FROM_ALL)
install(DIRECTORY include/ DESTINATION ${CMAKE_INSTALL_INCLUDEDIR} COMPONENT library EXCLUDE_FROM_ALL)
install(FILES ${CMAKE_BINARY_DIR}/CoulterConfig.cmake ${CMAKE_BINARY_DIR}/CoulterConfigVersion.cmake
        DESTINATION ${LIBRARY_PACKAGE} COMPONENT library EXCLUDE_FROM_ALL)
