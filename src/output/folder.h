// Writes a document's files into a folder: each whole or not at all.
#pragma once

#include "base/result.h"
#include "output/document.h"

#include <string>
#include <vector>

namespace panoplon {

/// Writes a file beside its place and then renames it. A Failure (Cause::file) names the file.
[[nodiscard]] Result<std::string> write_whole(const std::string& path, const std::string& content);

/// Writes NAME.json, every table as CSV, and every figure as a script, its data, a PNG and an SVG
/// (the last two by gnuplot) into the folder, which is made when absent. Returns the paths written.
[[nodiscard]] Result<std::vector<std::string>> write_document(const std::string& folder,
                                                              const std::string& name,
                                                              const Json& framed,
                                                              const Document& document);

} // namespace panoplon
