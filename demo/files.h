// Files that are compiled into the program.
#pragma once

#include "base/embedded.h"

#include <span>

namespace panoplon {

/// The demo armoury.
[[nodiscard]] std::span<const EmbeddedFile> demo_files();
/// The armoury that `new` starts with.
[[nodiscard]] std::span<const EmbeddedFile> starter_files();
/// words.md and model.md of docs/, which `explain` reads.
[[nodiscard]] std::span<const EmbeddedFile> page_files();

} // namespace panoplon
