// A formula, read in every scope that there is and reckoned.
#include "formula/formula.h"
#include "target.h"

using namespace panoplon;
using namespace panoplon::fuzz;

int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t size) {
    std::string text = text_of(bytes, size);
    if (invalid_utf8(text)) return 0; // refused before
    std::string quoted;
    for (const char c : text) {
        if (c == '"' || c == '\\') quoted += '\\';
        if (static_cast<unsigned char>(c) >= 0x20 && c != 0x7f) quoted += c;
    }
    const std::string file = "[action.fuzzed]\nevery = \"" + quoted + "\"\ndeals = { blunt = \"" +
                             quoted + "\" }\n[stat.fuzzed]\nvalue = \"" + quoted +
                             "\"\n[upgrade.fuzzed]\ncost = \"" + quoted + "\"\n";
    look_through(read_sources(sources_with("more.toml", file), {}));
    return 0;
}
