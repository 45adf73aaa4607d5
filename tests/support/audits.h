// Audits as most tests want them.
#pragma once

#include "judge/audit/audit.h"

namespace panoplon::test {

/// Over all levels of the armoury, as far apart as it says.
[[nodiscard]] AuditResult audited(const Armoury& armoury, AuditOptions options = {});

} // namespace panoplon::test
