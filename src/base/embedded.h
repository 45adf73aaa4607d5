// A file that is compiled into the program.
#pragma once

#include <string_view>

namespace panoplon {

struct EmbeddedFile {
    std::string_view path; ///< relative to their folder
    std::string_view text;
};

} // namespace panoplon
