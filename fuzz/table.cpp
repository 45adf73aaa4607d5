// A table of text, as spreadsheets write it: first its encoding, then its cells.
#include "armoury/encoding.h"
#include "target.h"

using namespace panoplon;
using namespace panoplon::fuzz;

int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t size) {
    const DecodedText decoded = decode_table(text_of(bytes, size));
    if (decoded.bad_byte || invalid_utf8(decoded.text)) return 0; // refused before
    for (const char* name : {"items.csv", "more.tsv"})
        look_through(read_sources(sources_with(name, decoded.text), {}));
    return 0;
}
