// What --set is given.
#include "target.h"

using namespace panoplon;
using namespace panoplon::fuzz;

int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t size) {
    const std::string text = text_of(bytes, size);
    // No argument of a program holds a NUL.
    if (invalid_utf8(text) || text.find('\0') != std::string::npos) return 0;
    look_through(read_sources(sources_with("more.toml", ""), {}, {text}));
    return 0;
}
