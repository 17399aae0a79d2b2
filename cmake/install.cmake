include(CMakePackageConfigHelpers)

install(TARGETS gaze_core gaze_library EXPORT GazeTargets FILE_SET HEADERS)
install(TARGETS gaze_command)
install(EXPORT GazeTargets NAMESPACE gaze:: DESTINATION ${CMAKE_INSTALL_LIBDIR}/cmake/Gaze)
install(DIRECTORY demo/ DESTINATION ${CMAKE_INSTALL_DATADIR}/gaze/demo)

configure_package_config_file(cmake/GazeConfig.cmake.in ${PROJECT_BINARY_DIR}/GazeConfig.cmake
                              INSTALL_DESTINATION ${CMAKE_INSTALL_LIBDIR}/cmake/Gaze)
write_basic_package_version_file(${PROJECT_BINARY_DIR}/GazeConfigVersion.cmake
                                 COMPATIBILITY SameMinorVersion)
install(FILES ${PROJECT_BINARY_DIR}/GazeConfig.cmake ${PROJECT_BINARY_DIR}/GazeConfigVersion.cmake
        DESTINATION ${CMAKE_INSTALL_LIBDIR}/cmake/Gaze)

# The file finds its prefix from where it lies, so that an installed tree can be moved.
file(RELATIVE_PATH GAZE_PREFIX_FROM_PKGCONFIG
     "${CMAKE_INSTALL_PREFIX}/${CMAKE_INSTALL_LIBDIR}/pkgconfig" "${CMAKE_INSTALL_PREFIX}")
configure_file(cmake/gaze.pc.in ${PROJECT_BINARY_DIR}/gaze.pc @ONLY)
install(FILES ${PROJECT_BINARY_DIR}/gaze.pc DESTINATION ${CMAKE_INSTALL_LIBDIR}/pkgconfig)
