// The demo armoury's files, compiled into the program.
#pragma once

#include <span>
#include <string_view>

namespace panoplon {

struct DemoFile {
    std::string_view path; ///< relative to the armoury's folder
    std::string_view text;
};

[[nodiscard]] std::span<const DemoFile> demo_files();

} // namespace panoplon
