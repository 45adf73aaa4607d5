// What the last whole audit of an armoury said of its items, kept in the store for the editor.
#pragma once

#include "cli/session.h"
#include "editor/hover.h"
#include "judge/audit/audit.h"
#include "judge/search/memory.h"

namespace panoplon {

/// Keeps the verdicts of an audit, unless it was of a part only, or of an armoury with what-ifs.
void keep_told(Memory& memory, const Invocation& invocation, const ReadArmoury& read,
               const AuditResult& audit);

/// Those that were kept last of the armoury in a folder; without a time where none are.
[[nodiscard]] ToldAudit find_told(Memory& memory, const std::string& folder);

} // namespace panoplon
