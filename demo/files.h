// Files that are compiled into the program.
#pragma once

#include <span>
#include <string_view>

namespace panoplon {

struct EmbeddedFile {
    std::string_view path; ///< relative to their folder
    std::string_view text;
};

/// The demo armoury.
[[nodiscard]] std::span<const EmbeddedFile> demo_files();
/// The armoury that `new` starts with.
[[nodiscard]] std::span<const EmbeddedFile> starter_files();
/// words.md and model.md of docs/, which `explain` reads.
[[nodiscard]] std::span<const EmbeddedFile> page_files();

} // namespace panoplon
