// Writes a document's files into a folder: each whole or not at all.
#pragma once

#include "base/result.h"
#include "base/watch.h"
#include "show/document.h"

#include <string>
#include <vector>

namespace panoplon {

/// Writes a file beside its place, syncs it and then renames it. A Failure (Cause::file) names the
/// file.
[[nodiscard]] Result<std::string> write_whole(const std::string& path, const std::string& content);

struct WrittenDocument {
    std::vector<std::string> paths;
    std::vector<std::string> left_out; ///< figures that were not drawn
};

/// Writes NAME.json, every table as CSV, and every figure as a script, its data, a PNG and an SVG
/// (the last two by gnuplot) into the folder, which is made when absent. Stopped, it draws no
/// further figure.
[[nodiscard]] Result<WrittenDocument> write_document(const std::string& folder,
                                                     const std::string& name, const Json& framed,
                                                     const Document& document,
                                                     const Watch& watch = {});

/// Writes a figure's script, data, PNG and SVG into a folder that is there; pictures are checked to
/// be whole, and all is synced before it has its name. What a killed run left of it goes.
[[nodiscard]] Result<std::vector<std::string>> write_figure(const std::string& folder,
                                                            const Figure& figure);

/// What a file holds; empty where it can't be read.
[[nodiscard]] std::string file_text(const std::string& path);

} // namespace panoplon
