# What `cmake --install` puts where, and the Debian package (cpack -G DEB).
include(GNUInstallDirs)
install(TARGETS panoplon)
install(FILES ${shell_files}/panoplon.1 DESTINATION ${CMAKE_INSTALL_MANDIR}/man1)
install(FILES ${shell_files}/panoplon.bash DESTINATION ${CMAKE_INSTALL_DATADIR}/bash-completion/completions
        RENAME panoplon)
install(FILES ${shell_files}/_panoplon DESTINATION ${CMAKE_INSTALL_DATADIR}/zsh/vendor-completions)
install(FILES README.md DESTINATION ${CMAKE_INSTALL_DOCDIR})
install(FILES LICENSE DESTINATION ${CMAKE_INSTALL_DOCDIR} RENAME copyright)
install(DIRECTORY docs/ DESTINATION ${CMAKE_INSTALL_DOCDIR} FILES_MATCHING PATTERN "*.md")

set(CPACK_GENERATOR DEB)
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
