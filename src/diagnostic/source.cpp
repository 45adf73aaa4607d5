#include "diagnostic/source.h"

#include "base/text.h"

#include <algorithm>

namespace panoplon {

namespace {

/// Calls `see(begin, end)` for each cell of a line, in bytes; quotes hold a cell together.
template <class See>
void each_cell(std::string_view line, char separator, const See& see) {
    std::size_t begin = 0;
    bool quoted = false;
    for (std::size_t i = 0; i <= line.size(); ++i) {
        if (i < line.size() && line[i] == '"') quoted = !quoted;
        if (i < line.size() && (quoted || line[i] != separator)) continue;
        see(begin, i);
        begin = i + 1;
    }
}

} // namespace

std::size_t byte_of(std::string_view text, std::int32_t character) {
    std::size_t at = 0;
    for (std::int32_t n = 1; n < character && at < text.size(); ++n) {
        ++at;
        while (at < text.size() && (static_cast<unsigned char>(text[at]) & 0xc0) == 0x80) ++at;
    }
    return at;
}

std::int32_t Sources::add(std::string path, std::string text, std::string was) {
    File file{std::move(path), std::move(text), {0}, std::move(was)};
    for (std::size_t i = 0; i < file.text.size(); ++i)
        if (file.text[i] == '\n') file.line_starts.push_back(i + 1);
    files_.push_back(std::move(file));
    return static_cast<std::int32_t>(files_.size() - 1);
}

const Sources::File& Sources::file(std::int32_t index) const {
    return files_.at(static_cast<std::size_t>(index));
}

std::string_view Sources::line(const Span& span) const {
    if (span.file < 0 || span.line < 1) return {};
    const File& in = file(span.file);
    const auto number = static_cast<std::size_t>(span.line - 1);
    if (number >= in.line_starts.size()) return {};
    const std::size_t start = in.line_starts[number];
    std::string_view text = std::string_view(in.text).substr(start);
    text = text.substr(0, text.find('\n'));
    if (!text.empty() && text.back() == '\r') text.remove_suffix(1);
    return text;
}

std::size_t Sources::offset(const Span& span) const {
    const File& in = file(span.file);
    const auto number = static_cast<std::size_t>(std::max(span.line, 1) - 1);
    if (number >= in.line_starts.size()) return in.text.size();
    return in.line_starts[number] + byte_of(line(span), span.column);
}

void Sources::is_table(std::int32_t index, char separator, std::int32_t header_line) {
    File& table = files_.at(static_cast<std::size_t>(index));
    table.separator = separator;
    table.header_line = header_line;
}

std::size_t Sources::cell_at(const Span& span) const {
    const std::string_view text = line(span);
    std::size_t cell = 0;
    std::size_t number = 0;
    each_cell(text, file(span.file).separator, [&](std::size_t begin, std::size_t) {
        if (characters(text.substr(0, begin)) < static_cast<std::size_t>(span.column))
            cell = number;
        ++number;
    });
    return cell;
}

std::string Sources::header_over(const Span& span) const {
    if (span.file < 0 || span.line < 1) return {};
    const File& in = file(span.file);
    if (in.separator == 0 || span.line <= in.header_line) return {};
    const std::size_t wanted = cell_at(span);
    const std::string_view headers = line({span.file, in.header_line, 1, 0});
    std::string header;
    std::size_t number = 0;
    each_cell(headers, in.separator, [&](std::size_t begin, std::size_t end) {
        if (number++ != wanted) return;
        std::string_view text = trim(headers.substr(begin, end - begin));
        if (text.size() > 1 && text.front() == '"' && text.back() == '"')
            text = text.substr(1, text.size() - 2);
        header = text;
    });
    return header;
}

Span Sources::at(std::int32_t index, std::size_t offset, std::size_t length) const {
    const File& in = file(index);
    const auto after = std::upper_bound(in.line_starts.begin(), in.line_starts.end(), offset);
    const auto number = after - in.line_starts.begin();
    const std::size_t start = *(after - 1);
    const std::string_view before = std::string_view(in.text).substr(start, offset - start);
    return Span{index, static_cast<std::int32_t>(number),
                static_cast<std::int32_t>(characters(before) + 1),
                static_cast<std::int32_t>(length)};
}

} // namespace panoplon
