# Writes OUTPUT, a C++ file with the function FUNCTION() that HEADER declares: each of INPUTS as a raw
# string.
set(rows "")
foreach(input IN LISTS INPUTS)
  file(READ "${input}" text)
  get_filename_component(name "${input}" NAME)
  string(APPEND rows "    {\"${name}\", R\"ARMOURY(${text})ARMOURY\"},\n")
endforeach()
file(WRITE "${OUTPUT}" "#include \"${HEADER}\"

namespace panoplon {

namespace {

constexpr EmbeddedFile files[] = {
${rows}};

} // namespace

std::span<const EmbeddedFile> ${FUNCTION}() { return files; }

} // namespace panoplon
")
