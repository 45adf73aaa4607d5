#include "show/text_table.h"

#include "base/text.h"

#include <algorithm>
#include <atomic>
#include <numeric>

namespace panoplon {

namespace {

std::atomic<std::size_t> bound = 0;

constexpr std::size_t between_columns = 2;
constexpr std::size_t narrowest = 12; ///< that a column of words is folded to

std::string padded(const std::string& cell, std::size_t width, Align align) {
    const std::size_t length = characters(cell);
    const std::string blanks(width > length ? width - length : 0, ' ');
    return align == Align::right ? blanks + cell : cell + blanks;
}

void trim_end(std::string& line) {
    line.erase(line.find_last_not_of(' ') + 1);
}

std::string fold(const std::string& text, std::size_t width, std::size_t indent) {
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

} // namespace

void set_text_width(std::size_t width) {
    bound = width;
}

std::vector<std::size_t> TextTable::widths(const std::vector<std::vector<std::string>>& lines,
                                           std::size_t indent) const {
    std::vector<std::size_t> widths(columns_.size(), 0);
    for (const auto& line : lines)
        for (std::size_t i = 0; i < line.size(); ++i)
            widths[i] = std::max(widths[i], characters(line[i]));
    if (bound == 0 || widths.empty()) return widths;
    const auto total = [&] {
        return indent + between_columns * (widths.size() - 1) +
               std::accumulate(widths.begin(), widths.end(), std::size_t{0});
    };
    while (total() > bound) {
        std::size_t widest = widths.size();
        for (std::size_t i = 0; i < widths.size(); ++i)
            if (columns_[i].align == Align::left && widths[i] > narrowest &&
                (widest == widths.size() || widths[i] > widths[widest]))
                widest = i;
        if (widest == widths.size()) break; // numbers are not cut
        widths[widest] -= std::min(total() - bound, widths[widest] - narrowest);
    }
    return widths;
}

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
    const std::vector<std::size_t> width = widths(lines, indent);
    std::string text;
    for (const auto& cells : lines) {
        std::vector<std::vector<std::string>> parts; // of each cell, one below the other
        std::size_t height = 1;
        for (std::size_t i = 0; i < cells.size(); ++i) {
            parts.push_back(characters(cells[i]) > width[i]
                                ? split(fold(cells[i], width[i], 0), '\n')
                                : std::vector<std::string>{cells[i]});
            height = std::max(height, parts.back().size());
        }
        for (std::size_t h = 0; h < height; ++h) {
            std::string line(indent, ' ');
            for (std::size_t i = 0; i < cells.size(); ++i)
                line += std::string(i > 0 ? between_columns : 0, ' ') +
                        padded(h < parts[i].size() ? parts[i][h] : "", width[i], columns_[i].align);
            trim_end(line);
            text += line + "\n";
        }
    }
    return text;
}

std::string fitted(const std::string& text, std::size_t width) {
    if (width == 0) return text;
    std::vector<std::string> lines = split(text, '\n');
    for (std::size_t i = 0; i < lines.size(); ++i) {
        const std::size_t indent = lines[i].find_first_not_of(' ');
        if (indent == std::string::npos || characters(lines[i]) <= width) continue;
        const bool table = lines[i].find("  ", indent) != std::string::npos;
        const bool pointed_at = i + 1 < lines.size() && trim(lines[i + 1]).starts_with('^');
        if (table || pointed_at || indent + narrowest > width) continue;
        const std::size_t hanging = indent + between_columns;
        lines[i] =
            std::string(indent, ' ') + fold(lines[i].substr(indent), width - hanging, hanging);
    }
    return join(lines, "\n");
}

std::string folded(const std::string& text, std::size_t width, std::size_t indent) {
    const std::size_t narrow = bound > indent + narrowest ? bound - indent : width;
    return fold(text, std::min(width, narrow), indent);
}

} // namespace panoplon
