#include "armoury/patch.h"

#include "armoury/files.h"
#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>
#include <optional>

namespace panoplon {

namespace {

/// Text of a line that gives way to another; with `new_line` the text is a line after it.
struct Edit {
    Span at;
    std::size_t removed = 0; ///< characters
    std::string text;
    bool new_line = false;
};

/// Where the n-th character begins.
std::size_t byte_of(std::string_view line, std::int32_t column) {
    std::size_t at = 0;
    for (std::int32_t n = 1; n < column && at < line.size(); ++n) {
        ++at;
        while (at < line.size() && (static_cast<unsigned char>(line[at]) & 0xc0) == 0x80) ++at;
    }
    return at;
}

std::string edited(std::string_view line, const Edit& edit) {
    const std::size_t at = byte_of(line, edit.at.column);
    return std::string(line.substr(0, at)) + edit.text + std::string(line.substr(at + edit.removed));
}

std::string unified(const Sources& sources, const Edit& edit) {
    constexpr std::int32_t context = 3;
    const Sources::File& file = sources.file(edit.at.file);
    auto lines = static_cast<std::int32_t>(file.line_starts.size());
    if (lines > 0 && file.line_starts.back() >= file.text.size()) --lines;
    const std::int32_t line = edit.at.line;
    const std::int32_t first = std::max(1, line - context);
    const std::int32_t last = std::min(lines, line + context);
    std::string text = fmt::format("--- {0}\n+++ {0}\n@@ -{1},{2} +{1},{3} @@\n", file.path, first,
                                   last - first + 1, last - first + 1 + (edit.new_line ? 1 : 0));
    const auto add = [&](char mark, std::string_view here, std::int32_t n) {
        text += fmt::format("{}{}\n", mark, here);
        if (n == lines && !file.text.ends_with('\n')) text += "\\ No newline at end of file\n";
    };
    for (std::int32_t n = first; n <= last; ++n) {
        const std::string_view here = sources.line({edit.at.file, n, 1, 0});
        const bool changes = n == line && !edit.new_line;
        add(changes ? '-' : ' ', here, n);
        if (changes) add('+', edited(here, edit), n);
        if (n == line && edit.new_line) add('+', edit.text, n);
    }
    return text;
}

const Entry* own_entry(const Node& table, const std::string& key) {
    const Entry* entry = table.find_entry(key);
    return entry && entry->from.empty() && entry->value.given() ? entry : nullptr;
}

/// The cell of a table for it, filled or not.
Result<Edit> edit_cell(const ReadArmoury& read, const RawDefinition& item, const std::string& key,
                       const std::string& number) {
    RawArmoury raw;
    Sink sink;
    read_csv(read.sources, item.span.file, raw, sink);
    for (const RawTable& table : raw.tables)
        for (const auto& row : table.rows) {
            if (row.front().text != item.id) continue;
            for (std::size_t c = 0; c < table.headers.size() && c + 1 < row.size(); ++c) {
                const std::string& header = table.headers[c].text;
                if (header != key && "add." + header != key) continue;
                const RawTable::Cell& cell = row[c + 1];
                return Edit{cell.span, static_cast<std::size_t>(cell.span.length), number, false};
            }
        }
    return Failure{Cause::refused,
                   fmt::format("{} has no column for {}",
                               read.sources.file(item.span.file).path, key),
                   fmt::format("add a column headed '{}'", key)};
}

Edit edit_table(const ReadArmoury& read, const RawDefinition& item, const std::string& key,
                const std::string& number) {
    const std::size_t dot = key.find('.');
    const std::string outer = key.substr(0, dot);
    const std::string inner = dot == std::string::npos ? std::string() : key.substr(dot + 1);
    const Entry* entry = own_entry(item.body, outer);
    if (entry && !inner.empty() && entry->value.span.file == item.span.file) {
        const std::string_view line = read.sources.line(entry->value.span);
        const std::size_t at = byte_of(line, entry->value.span.column);
        if (at < line.size() && line[at] == '{')
            return {entry->value.span, 1,
                    fmt::format("{{ {} = {},", inner, number), false};
        if (at < line.size() && line[at] == '[')
            return {entry->value.span, 0, fmt::format("{} = {}", inner, number), true};
    }
    return {item.span, 0, fmt::format("{} = {}", key, number), true};
}

/// The value where the item has it itself, in a file.
const Node* own_value(const RawDefinition& item, const std::string& key) {
    const Node* node = &item.body;
    for (const std::string& part : split(key, '.')) {
        if (node->kind == Node::Kind::list) {
            const std::size_t place = std::strtoul(part.c_str(), nullptr, 10);
            if (place < 1 || place > node->items.size()) return nullptr;
            node = &node->items[place - 1];
            continue;
        }
        const Entry* entry = own_entry(*node, part);
        if (!entry) return nullptr;
        node = &entry->value;
    }
    return node->kind == Node::Kind::number ? node : nullptr;
}

} // namespace

Result<std::string> patch_text(const ReadArmoury& read, const std::string& item,
                               const std::string& key, double value) {
    const auto at = std::find_if(read.definitions.begin(), read.definitions.end(),
                                 [&](const RawDefinition& definition) {
                                     return definition.kind == "item" && definition.id == item;
                                 });
    if (at == read.definitions.end())
        return Failure{Cause::refused, fmt::format("no item '{}'", item), {}};
    const std::string number = shortest(value);
    if (const Node* own = own_value(*at, key)) {
        if (read.sources.file(own->span.file).path == "--set")
            return Failure{Cause::refused,
                           fmt::format("{} of {} is a what-if; there is no line to change", key, item),
                           "leave out --set for it"};
        return unified(read.sources,
                       {own->span, static_cast<std::size_t>(own->span.length), number, false});
    }
    if (read.sources.file(at->span.file).path.ends_with(".csv")) {
        const Result<Edit> edit = edit_cell(read, *at, key, number);
        if (!edit.ok()) return edit.failure();
        return unified(read.sources, edit.value());
    }
    return unified(read.sources, edit_table(read, *at, key, number));
}

} // namespace panoplon
