# Writes OUTPUT, a C++ file that holds each of INPUTS as a raw string.
set(rows "")
foreach(input IN LISTS INPUTS)
  file(READ "${input}" text)
  get_filename_component(name "${input}" NAME)
  string(APPEND rows "    {\"${name}\", R\"ARMOURY(${text})ARMOURY\"},\n")
endforeach()
file(WRITE "${OUTPUT}" "#include \"demo/files.h\"

namespace panoplon {

namespace {

constexpr DemoFile files[] = {
${rows}};

} // namespace

std::span<const DemoFile> demo_files() { return files; }

} // namespace panoplon
")
