// Tables and sheets for a terminal: columns aligned, numbers to the right, units in the headers.
#pragma once

#include <string>
#include <vector>

namespace panoplon {

enum class Align { left, right };

/// How many characters a line of text may have, for tables and folded text that are made from here
/// on; 0, as it is at first, is without a bound. For the whole program, set before any work.
void set_text_width(std::size_t width);

class TextTable {
  public:
    struct Column {
        std::string header;
        Align align = Align::left;
    };

    explicit TextTable(std::vector<Column> columns) : columns_(std::move(columns)) {}
    void row(std::vector<std::string> cells) { rows_.push_back(std::move(cells)); }
    [[nodiscard]] bool empty() const { return rows_.empty(); }
    /// One line for the headers and one a row, each indented by `indent` blanks. Where that would
    /// be too wide, the widest columns of words are folded at blanks, onto further lines.
    [[nodiscard]] std::string text(std::size_t indent = 2) const;

  private:
    [[nodiscard]] std::vector<std::size_t>
    widths(const std::vector<std::vector<std::string>>& lines, std::size_t indent) const;

    std::vector<Column> columns_;
    std::vector<std::vector<std::string>> rows_;
};

/// Text folded at blanks to a width in characters, or to the program's where that is narrower;
/// lines after the first are indented.
[[nodiscard]] std::string folded(const std::string& text, std::size_t width, std::size_t indent);

/// Prose that is wider is folded at blanks; lines of tables (with two blanks in them), and what a
/// caret points at, stay as they are. 0: without a bound.
[[nodiscard]] std::string fitted(const std::string& text, std::size_t width);

} // namespace panoplon
