// How files, places and what is found there are said to an editor (Language Server Protocol 3.17).
#pragma once

#include "diagnostic/diagnostic.h"
#include "editor/suggest.h"
#include "show/table.h"

#include <filesystem>
#include <optional>
#include <string>

namespace panoplon {

/// `file:` with a path in percent encoding (RFC 8089).
[[nodiscard]] std::string uri_of(const std::filesystem::path& path);
/// And back; none where it leads to no file of this machine.
[[nodiscard]] std::optional<std::filesystem::path> path_of(const std::string& uri);

/// A range of the text that it lies in.
[[nodiscard]] Json range_json(const std::string& text, const TextRange& range);
/// `range`: of what it takes the place of.
[[nodiscard]] Json suggestion_json(const Suggestion& suggestion, const Json& range);

/// A mistake or a doubt, and the file that it is told at: its own, or where that is no text
/// (a workbook, an option) armoury.toml, with its place in words.
struct ToldTrouble {
    std::string path;
    Json json;
};
[[nodiscard]] ToldTrouble trouble_of(const Sources& sources, const Diagnostic& diagnostic);

} // namespace panoplon
