// A report made and written: the page, the workbook, the figures, the tables of results.
#pragma once

#include "cli/session.h"
#include "work/report_work.h"

#include <string>

namespace panoplon {

struct MadeReport {
    Report report;
    std::vector<Table> tables; ///< for the file of results
    std::uint64_t seed = 1;
    std::optional<FightError> error;
};
/// `old`: an older reading, where what changed since is asked for. `title`: empty for the armoury's
/// name.
[[nodiscard]] MadeReport make_report(const ReadArmoury& read, const ReadArmoury* old,
                                     const ReportRequest& request, const std::string& title,
                                     const Recall& recall, Stages& stages);

/// Draws its figures and writes it all into a folder. Returns the exit code.
[[nodiscard]] int write_report(const Invocation& invocation, const ReadArmoury& read,
                               MadeReport made, const std::string& folder, Stages& stages);

} // namespace panoplon
