#include "cli/session.h"
#include "store/history.h"

#include <filesystem>

namespace panoplon {

int run_history(const Invocation& invocation) {
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    namespace fs = std::filesystem;
    std::error_code error;
    const fs::path beside =
        fs::weakly_canonical(invocation.operands().front(), error).parent_path() / "results";
    const fs::path folder =
        invocation.has("results") ? fs::path(invocation.value("results")) : beside;
    const fs::path file = folder / results_file_name;
    if (!fs::exists(file, error))
        return report_failure({Cause::file, fmt::format("there is no '{}'", file.string()),
                               "runs are kept where -o leads; name that folder: --results DIR"});
    const auto history = find_history(file.string(), opened.armoury().name);
    if (!history.ok()) return report_failure(history.failure());
    return show_into(invocation.value("o"), invocation, opened.armoury(),
                     show_history(opened.armoury().name, history.value()), 0);
}

} // namespace panoplon
