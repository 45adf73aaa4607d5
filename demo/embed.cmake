# Writes OUTPUT, a C++ file with a function FUNCTION() that gives each of INPUTS as a raw string.
set(rows "")
foreach(input IN LISTS INPUTS)
  file(READ "${input}" text)
  get_filename_component(name "${input}" NAME)
  string(APPEND rows "    {\"${name}\", R\"ARMOURY(${text})ARMOURY\"},\n")
endforeach()
file(WRITE "${OUTPUT}" "#include \"demo/files.h\"

namespace panoplon {

namespace {

constexpr EmbeddedFile files[] = {
${rows}};

} // namespace

std::span<const EmbeddedFile> ${FUNCTION}() { return files; }

} // namespace panoplon
")
