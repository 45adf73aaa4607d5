// Draws the pictures of a report.
#pragma once

#include "base/result.h"
#include "fight/trials.h"
#include "report/report.h"

#include <string>
#include <vector>

namespace panoplon {

/// Writes every picture's files into `folder`/figures/ and fills in what a page shows of them.
/// Returns the paths. Stopped, it leaves out what is not drawn yet.
[[nodiscard]] Result<std::vector<std::string>>
draw_pictures(Report& report, const std::string& folder, const Watch& watch = {});

} // namespace panoplon
