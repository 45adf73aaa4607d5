#include "diagnostic/source.h"

#include "base/text.h"

#include <algorithm>

namespace panoplon {

std::int32_t Sources::add(std::string path, std::string text) {
    File file{std::move(path), std::move(text), {0}};
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
