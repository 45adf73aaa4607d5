// Verdicts by name, as --fail-on has them.
#pragma once

#include "cli/session.h"
#include "judge/audit/verdict.h"

#include <set>

namespace panoplon {

/// Of every --fail-on, with commas between; a refusal with "did you mean".
[[nodiscard]] Result<std::set<Verdict>> verdicts_to_fail_on(const Invocation& invocation);

/// Says to standard error what failed a check; true when nothing did.
[[nodiscard]] bool passed(const std::vector<std::string>& failing);

} // namespace panoplon
