#include "output/text_table.h"

#include "base/text.h"

#include <algorithm>

namespace panoplon {

namespace {

std::string padded(const std::string& cell, std::size_t width, Align align) {
    const std::size_t length = characters(cell);
    const std::string blanks(width > length ? width - length : 0, ' ');
    return align == Align::right ? blanks + cell : cell + blanks;
}

void trim_end(std::string& line) {
    line.erase(line.find_last_not_of(' ') + 1);
}

} // namespace

std::string TextTable::text(std::size_t indent) const {
    std::vector<std::vector<std::string>> lines;
    std::vector<std::string> headers;
    for (const Column& column : columns_) headers.push_back(column.header);
    const bool titled = std::any_of(headers.begin(), headers.end(),
                                    [](const std::string& h) { return !h.empty(); });
    if (titled) lines.push_back(headers);
    for (const auto& row : rows_) {
        lines.emplace_back();
        for (const std::string& cell : row) lines.back().push_back(printable(cell));
    }
    std::vector<std::size_t> widths(columns_.size(), 0);
    for (const auto& line : lines)
        for (std::size_t i = 0; i < line.size(); ++i)
            widths[i] = std::max(widths[i], characters(line[i]));
    std::string text;
    for (const auto& cells : lines) {
        std::string line(indent, ' ');
        for (std::size_t i = 0; i < cells.size(); ++i)
            line += (i > 0 ? "  " : "") + padded(cells[i], widths[i], columns_[i].align);
        trim_end(line);
        text += line + "\n";
    }
    return text;
}

std::string folded(const std::string& text, std::size_t width, std::size_t indent) {
    std::string result;
    std::size_t at = 0;
    for (const std::string& word : split(text, ' ')) {
        const std::size_t length = characters(word);
        if (at > 0 && at + 1 + length > width) {
            result += "\n" + std::string(indent, ' ');
            at = 0;
        } else if (at > 0) {
            result += ' ';
            ++at;
        }
        result += word;
        at += length;
    }
    return result;
}

} // namespace panoplon
