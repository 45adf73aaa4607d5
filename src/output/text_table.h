// Tables and sheets for a terminal: columns aligned, numbers to the right, units in the headers.
#pragma once

#include <string>
#include <vector>

namespace panoplon {

enum class Align { left, right };

class TextTable {
  public:
    struct Column {
        std::string header;
        Align align = Align::left;
    };

    explicit TextTable(std::vector<Column> columns) : columns_(std::move(columns)) {}
    void row(std::vector<std::string> cells) { rows_.push_back(std::move(cells)); }
    [[nodiscard]] bool empty() const { return rows_.empty(); }
    /// One line for the headers and one a row, each indented by `indent` blanks.
    [[nodiscard]] std::string text(std::size_t indent = 2) const;

  private:
    std::vector<Column> columns_;
    std::vector<std::vector<std::string>> rows_;
};

/// Text folded at blanks to a width in characters; lines after the first are indented.
[[nodiscard]] std::string folded(const std::string& text, std::size_t width, std::size_t indent);

} // namespace panoplon
