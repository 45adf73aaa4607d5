// The file in which answers of searches are kept.
#include "store/memory_file.h"
#include "target.h"

using namespace panoplon;
using namespace panoplon::fuzz;

int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t size) {
    const std::string path = file_with("known.sqlite", bytes, size);
    MemoryFile memory(path, 1, "2026-01-01");
    for (std::uint64_t key = 0; key < 4; ++key)
        if (memory.find(key)) memory.reject(key);
    memory.keep(7, "answer");
    static_cast<void>(memory.find(7));
    static_cast<void>(memory.notes());
    return 0;
}
