// A file of definitions.
#include "target.h"

using namespace panoplon;
using namespace panoplon::fuzz;

int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t size) {
    const std::string text = text_of(bytes, size);
    if (invalid_utf8(text)) return 0; // refused before
    look_through(read_sources(sources_with("more.toml", text), {}));
    return 0;
}
