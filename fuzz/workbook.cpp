// A workbook: a zip archive of XML.
#include "armoury/workbook.h"
#include "target.h"

using namespace panoplon;
using namespace panoplon::fuzz;

int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t size) {
    static_cast<void>(read_workbook(text_of(bytes, size)));
    return 0;
}
