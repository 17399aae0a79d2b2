include(CMakePackageConfigHelpers)

# Each component has targets of its own, so that who asks for one need not have what the others use.
set(GAZE_CONFIG_FOLDER ${CMAKE_INSTALL_LIBDIR}/cmake/Gaze)
set(GAZE_INSTALLED core ${GAZE_COMPONENTS})
if(GAZE_C)
  list(APPEND GAZE_INSTALLED c)
endif()
foreach(component ${GAZE_INSTALLED})
  install(TARGETS gaze_${component} EXPORT Gaze_${component} FILE_SET HEADERS)
  install(EXPORT Gaze_${component} NAMESPACE gaze:: DESTINATION ${GAZE_CONFIG_FOLDER})
endforeach()
if(GAZE_COMMAND)
  install(TARGETS gaze_command)
  install(FILES scripts/gaze.bash-completion RENAME gaze
          DESTINATION ${CMAKE_INSTALL_DATADIR}/bash-completion/completions)
  install(DIRECTORY demo/ DESTINATION ${CMAKE_INSTALL_DATADIR}/gaze/demo)
  file(RELATIVE_PATH from_command ${CMAKE_INSTALL_FULL_BINDIR} ${CMAKE_INSTALL_FULL_LIBDIR})
  set_target_properties(gaze_command PROPERTIES INSTALL_RPATH "$ORIGIN/${from_command}")
endif()

set(GAZE_CONFIG_LISTS "")
foreach(component ${GAZE_INSTALLED})
  string(APPEND GAZE_CONFIG_LISTS "set(Gaze_needs_${component} \"${GAZE_NEEDS_${component}}\")\n"
                                  "set(Gaze_uses_${component} ${GAZE_USES_${component}})\n")
endforeach()
configure_package_config_file(cmake/GazeConfig.cmake.in ${PROJECT_BINARY_DIR}/GazeConfig.cmake
                              INSTALL_DESTINATION ${GAZE_CONFIG_FOLDER})
write_basic_package_version_file(${PROJECT_BINARY_DIR}/GazeConfigVersion.cmake COMPATIBILITY SameMinorVersion)
install(FILES ${PROJECT_BINARY_DIR}/GazeConfig.cmake ${PROJECT_BINARY_DIR}/GazeConfigVersion.cmake
        DESTINATION ${GAZE_CONFIG_FOLDER})

# The files find their prefix from where they lie, so that an installed tree can be moved. What a shared library uses
# it finds by itself.
file(RELATIVE_PATH GAZE_PREFIX_FROM_PKGCONFIG
     "${CMAKE_INSTALL_PREFIX}/${CMAKE_INSTALL_LIBDIR}/pkgconfig" "${CMAKE_INSTALL_PREFIX}")
if(BUILD_SHARED_LIBS)
  set(GAZE_PRIVATE .private)
endif()
set(GAZE_LIBS "")
set(GAZE_NEEDS fmt)
foreach(component core ${GAZE_COMPONENTS})
  string(PREPEND GAZE_LIBS "-lgaze_${component} ")
  foreach(library ${GAZE_NEEDS_${component}})
    string(APPEND GAZE_NEEDS " ${library}")
  endforeach()
  if(component STREQUAL core)
    set(GAZE_PC_NAME "Gaze, the core")
    configure_file(cmake/gaze.pc.in ${PROJECT_BINARY_DIR}/gaze-core.pc @ONLY)
  endif()
endforeach()
set(GAZE_PC_NAME "Gaze")
configure_file(cmake/gaze.pc.in ${PROJECT_BINARY_DIR}/gaze.pc @ONLY)
if(GAZE_C)
  configure_file(cmake/gaze-c.pc.in ${PROJECT_BINARY_DIR}/gaze-c.pc @ONLY)
  install(FILES ${PROJECT_BINARY_DIR}/gaze-c.pc DESTINATION ${CMAKE_INSTALL_LIBDIR}/pkgconfig)
endif()
install(FILES ${PROJECT_BINARY_DIR}/gaze.pc ${PROJECT_BINARY_DIR}/gaze-core.pc
        DESTINATION ${CMAKE_INSTALL_LIBDIR}/pkgconfig)

# A package of all of it for Debian: `cpack` in the build folder.
set(CPACK_GENERATOR DEB)
set(CPACK_PACKAGING_INSTALL_PREFIX /usr)
set(CPACK_PACKAGE_NAME gaze)
set(CPACK_PACKAGE_CONTACT "the founders of Gaze")
set(CPACK_DEBIAN_FILE_NAME DEB-DEFAULT)
set(CPACK_DEBIAN_PACKAGE_DEPENDS
    "libeigen3-dev, libfmt-dev, libassimp-dev, libpolyclipping-dev, libcairo2-dev, fonts-dejavu-core")
include(CPack)
