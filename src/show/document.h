// What a command gives, in every form that it can be shown in.
#pragma once

#include "show/table.h"

#include <string>
#include <vector>

namespace panoplon {

/// A figure: a gnuplot script that makes NAME.png and NAME.svg, and the table it shows.
struct Figure {
    std::string name;
    std::string title;
    std::string script;
    Table data;
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
    std::vector<Table> tables;
    std::vector<Figure> figures;
    std::vector<TextFile> files;
    bool partial = false;
};

/// Adds a table in each form: on the terminal after an empty line, where it has a row; in JSON
/// under `name`; as a file, where the table is named.
void add_table(Document& document, const char* name, Table table);

} // namespace panoplon
