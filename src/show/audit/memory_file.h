// What audits know of contexts, as a file in the folder of their results.
#pragma once

#include "judge/audit/context_memory.h"
#include "show/document.h"

#include <string_view>

namespace panoplon {

inline constexpr const char* memory_file_name = "audit-known.json";

/// Contexts that were not asked for in the last five runs are left out.
[[nodiscard]] std::string memory_text(const ContextMemory& memory);
/// Takes up what such a text says; what is no context of one is passed over, so that a damaged or
/// foreign file only costs time. Each context counts as one run older.
void read_memory(std::string_view text, ContextMemory& memory);

} // namespace panoplon
