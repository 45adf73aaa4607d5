# What `cmake --install` puts where, and the Debian package (cpack -G DEB).
include(GNUInstallDirs)
install(TARGETS panoplon)
install(TARGETS panoplon_core EXPORT panoplon_core LIBRARY DESTINATION ${CMAKE_INSTALL_LIBDIR})
install(DIRECTORY include/panoplon DESTINATION ${CMAKE_INSTALL_INCLUDEDIR})
install(EXPORT panoplon_core NAMESPACE panoplon:: FILE panoplon-config.cmake
        DESTINATION ${CMAKE_INSTALL_LIBDIR}/cmake/panoplon)
include(CMakePackageConfigHelpers)
write_basic_package_version_file(${CMAKE_BINARY_DIR}/panoplon-config-version.cmake
                                 COMPATIBILITY SameMinorVersion)
file(RELATIVE_PATH from_pc_to_prefix /${CMAKE_INSTALL_LIBDIR}/pkgconfig /)
configure_file(cmake/panoplon.pc.in ${CMAKE_BINARY_DIR}/panoplon.pc @ONLY)
install(FILES ${CMAKE_BINARY_DIR}/panoplon-config-version.cmake
        DESTINATION ${CMAKE_INSTALL_LIBDIR}/cmake/panoplon)
install(FILES ${CMAKE_BINARY_DIR}/panoplon.pc DESTINATION ${CMAKE_INSTALL_LIBDIR}/pkgconfig)
install(FILES ${shell_files}/panoplon.1 DESTINATION ${CMAKE_INSTALL_MANDIR}/man1)
install(FILES ${shell_files}/panoplon.bash DESTINATION ${CMAKE_INSTALL_DATADIR}/bash-completion/completions
        RENAME panoplon)
install(FILES ${shell_files}/_panoplon DESTINATION ${CMAKE_INSTALL_DATADIR}/zsh/vendor-completions)
install(FILES README.md DESTINATION ${CMAKE_INSTALL_DOCDIR})
install(FILES LICENSE DESTINATION ${CMAKE_INSTALL_DOCDIR} RENAME copyright)
install(DIRECTORY docs/ DESTINATION ${CMAKE_INSTALL_DOCDIR} FILES_MATCHING PATTERN "*.md")
if(TARGET panoplon-mpi)
  install(TARGETS panoplon-mpi LIBRARY DESTINATION lib/panoplon COMPONENT mpi)
endif()

set(CPACK_GENERATOR DEB)
set(CPACK_DEB_COMPONENT_INSTALL ON) # what needs MPI is a package of its own
set(CPACK_DEBIAN_UNSPECIFIED_PACKAGE_NAME panoplon)
set(CPACK_DEBIAN_MPI_PACKAGE_NAME panoplon-mpi)
set(CPACK_DEBIAN_MPI_PACKAGE_DEPENDS "panoplon (= ${PROJECT_VERSION})")
set(CPACK_DEBIAN_MPI_DESCRIPTION "lets several processes of panoplon work together by MPI")
set(CPACK_PACKAGING_INSTALL_PREFIX /usr)
set(CPACK_STRIP_FILES ON)
set(CPACK_PACKAGE_CONTACT "The Panoplon team <panoplon@localhost>")
set(CPACK_PACKAGE_DESCRIPTION_SUMMARY "judges combat gear: finds what is dominant or useless")
set(CPACK_DEBIAN_PACKAGE_DESCRIPTION
    "Wears the gear of an armoury of plain files, fights with it and plays characters
through levels, thousands of times, to chart power and to find gear that is
dominant or useless, with numbers that can be traced to the files.")
set(CPACK_DEBIAN_PACKAGE_SECTION devel)
set(CPACK_DEBIAN_FILE_NAME DEB-DEFAULT)
set(CPACK_DEBIAN_PACKAGE_SHLIBDEPS ON)
set(CPACK_DEBIAN_PACKAGE_DEPENDS "gnuplot-nox, fonts-inter")
include(CPack)
