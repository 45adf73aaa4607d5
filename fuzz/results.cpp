// The file in which results of runs are kept.
#include "store/history.h"
#include "store/results_file.h"
#include "target.h"

using namespace panoplon;
using namespace panoplon::fuzz;

int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t size) {
    const std::string path = file_with("results.sqlite", bytes, size);
    static_cast<void>(find_history(path, "Fuzzed"));
    static_cast<void>(kept_rows(path, 1, "audit", {"item", "verdict"}));
    Table table{"audit", {as::text("item", "item"), as::text("verdict", "verdict")}};
    table.row({"cap", "sound"});
    static_cast<void>(keep_run(path, {"audit", "", "Fuzzed", "0", "0", 1, "2026", false}, {table}));
    return 0;
}
