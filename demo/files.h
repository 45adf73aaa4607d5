// Files that are compiled into the program.
#pragma once

#include "base/embedded.h"

#include <span>

namespace panoplon {

/// The demo armoury.
[[nodiscard]] std::span<const EmbeddedFile> demo_files();
/// A small armoury beside it, of actions, effects and consumables.
[[nodiscard]] std::span<const EmbeddedFile> workshop_files();
/// The armoury that `new` starts with.
[[nodiscard]] std::span<const EmbeddedFile> starter_files();
/// words.md, model.md and cookbook.md of docs/, which `explain` reads.
[[nodiscard]] std::span<const EmbeddedFile> page_files();

} // namespace panoplon
