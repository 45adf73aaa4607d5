# Compiles files into the program: adds to the list `embedded_sources` a C++ file with the function
# that `header` declares.
function(embed header function)
  set(source ${CMAKE_CURRENT_BINARY_DIR}/${function}.cpp)
  set(script ${CMAKE_SOURCE_DIR}/cmake/embed_script.cmake)
  add_custom_command(
    OUTPUT ${source}
    COMMAND ${CMAKE_COMMAND} "-DOUTPUT=${source}" "-DINPUTS=${ARGN}" -DHEADER=${header}
            -DFUNCTION=${function} -P ${script}
    DEPENDS ${ARGN} ${script}
    VERBATIM)
  set(embedded_sources ${embedded_sources} ${source} PARENT_SCOPE)
endfunction()
