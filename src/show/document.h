// What a command gives, in every form that it can be shown in.
#pragma once

#include <nlohmann/json.hpp>
#include <string>
#include <vector>

namespace panoplon {

using Json = nlohmann::ordered_json;

/// A table as a file. Cells are text already.
struct CsvTable {
    std::string name; ///< file name without ending: lower-case letters, digits, `_` and `-`
    std::vector<std::string> headers;
    std::vector<std::vector<std::string>> rows;
};

/// RFC 4180, with line feeds; cells are quoted where they have to be.
[[nodiscard]] std::string csv_text(const CsvTable& table);

/// A figure: a gnuplot script that makes NAME.png and NAME.svg, and the table it shows.
struct Figure {
    std::string name;
    std::string title;
    std::string script;
    CsvTable data;
    /// What a page says of each thing drawn, in the order of the script's plots; empty: nothing.
    std::vector<std::string> hovers;
};

/// Any other file that a command writes with -o; the path may have folders in it.
struct TextFile {
    std::string path, text;
};

struct Document {
    std::string text; ///< for a person on a terminal
    Json json;        ///< what the command adds to the frame that all share
    std::vector<CsvTable> tables;
    std::vector<Figure> figures;
    std::vector<TextFile> files;
    bool partial = false;
};

} // namespace panoplon
