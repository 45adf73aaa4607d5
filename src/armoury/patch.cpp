#include "armoury/patch.h"

#include "armoury/cell_numbers.h"
#include "armoury/files.h"
#include "armoury/table_layout.h"
#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>
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

/// A file with its edits, line by line.
class PatchedFile {
  public:
    explicit PatchedFile(const Sources::File& file) : file_(file) {
        for (std::size_t n = 0; n < file.line_starts.size(); ++n) {
            const std::size_t from = file.line_starts[n];
            if (from >= file.text.size()) break;
            std::size_t to = file.text.find('\n', from);
            if (to == std::string::npos) to = file.text.size();
            lines_.push_back({file.text.substr(from, to - from), {}, {}});
        }
    }

    void add(const Edit& edit) {
        Line& line = lines_[static_cast<std::size_t>(edit.at.line - 1)];
        if (edit.new_line)
            line.after.push_back(edit.text);
        else
            line.edits.push_back(edit);
    }

    /// Hunks with three lines around each change.
    [[nodiscard]] std::string text() const {
        std::string text = fmt::format("--- {0}\n+++ {0}\n", file_.path);
        std::size_t added = 0; // lines, in the hunks before
        for (std::size_t first = 0; first < lines_.size();) {
            const std::size_t change = next_change(first);
            if (change == lines_.size()) break;
            const std::size_t from = change < context ? 0 : change - context;
            std::size_t last = change; // change of the hunk
            for (std::size_t next = next_change(last + 1);
                 next < lines_.size() && next - last <= 2 * context; next = next_change(last + 1))
                last = next;
            const std::size_t to = std::min(lines_.size(), last + context + 1);
            std::size_t inserted = 0;
            std::string body;
            for (std::size_t n = from; n < to; ++n) {
                body += hunk_line(n);
                inserted += lines_[n].after.size();
            }
            text += fmt::format("@@ -{},{} +{},{} @@\n{}", from + 1, to - from, from + 1 + added,
                                to - from + inserted, body);
            added += inserted;
            first = to;
        }
        return text;
    }

  private:
    static constexpr std::size_t context = 3;

    struct Line {
        std::string text;
        std::vector<Edit> edits;
        std::vector<std::string> after;
        [[nodiscard]] bool changes() const { return !edits.empty() || !after.empty(); }
    };

    [[nodiscard]] std::size_t next_change(std::size_t from) const {
        while (from < lines_.size() && !lines_[from].changes()) ++from;
        return from;
    }

    [[nodiscard]] static std::string edited(const Line& line) {
        std::vector<Edit> edits = line.edits; // from the right, so that places stay
        std::sort(edits.begin(), edits.end(),
                  [](const Edit& a, const Edit& b) { return a.at.column > b.at.column; });
        std::string text = line.text;
        for (const Edit& edit : edits)
            text.replace(byte_of(text, edit.at.column), edit.removed, edit.text);
        return text;
    }

    [[nodiscard]] std::string hunk_line(std::size_t n) const {
        const Line& line = lines_[n];
        const bool ends_file = n + 1 == lines_.size() && !file_.text.ends_with('\n');
        const std::string end = ends_file ? "\n\\ No newline at end of file\n" : "\n";
        std::string text = line.edits.empty() ? " " + line.text + end
                                              : "-" + line.text + end + "+" + edited(line) + end;
        for (const std::string& after : line.after) text += "+" + after + "\n";
        return text;
    }

    const Sources::File& file_;
    std::vector<Line> lines_;
};

const Entry* own_entry(const Node& table, const std::string& key) {
    const Entry* entry = table.find_entry(key);
    return entry && entry->from.empty() && entry->value.given() ? entry : nullptr;
}

/// Characters of a cell, with its quotes. A number's cell has none inside of it.
std::size_t cell_length(std::string_view line, const Span& at) {
    const std::size_t from = byte_of(line, at.column);
    if (from >= line.size() || line[from] != '"') return static_cast<std::size_t>(at.length);
    const std::size_t closing = line.find('"', from + 1);
    return (closing == std::string_view::npos ? line.size() : closing + 1) - from;
}

/// Whether a table between semicolons or tabs writes decimals after commas.
bool decimal_commas(const RawTable& table) {
    return table.separator != ',' &&
           std::any_of(table.rows.begin(), table.rows.end(), [](const auto& row) {
               return std::any_of(row.begin(), row.end(), [](const RawTable::Cell& cell) {
                   return is_decimal_comma(cell.text);
               });
           });
}

std::string with_comma(std::string number) {
    std::replace(number.begin(), number.end(), '.', ',');
    return number;
}

/// The cell of a table for it, filled or not.
Result<Edit> edit_cell(const ReadArmoury& read, const RawDefinition& item, const std::string& key,
                       const std::string& number) {
    const Sources::File& file = read.sources.file(item.span.file);
    Sink sink;
    const std::optional<RawTable> table = read_csv(read.sources, item.span.file, sink);
    for (const auto& row : table ? table->rows : std::vector<std::vector<RawTable::Cell>>()) {
        if (row.front().text != item.id) continue;
        for (std::size_t c = 0; c < table->headers.size() && c + 1 < row.size(); ++c) {
            const std::string header = plain_word(table->headers[c].text);
            if (header != key && "add." + header != key) continue;
            const Span& at = row[c + 1].span;
            if (file.is_sheet() || !file.was.empty())
                return Failure{Cause::refused,
                               fmt::format("{} of {} stands at {}, and no patch can change {}", key,
                                           item.id, place(at, read.sources),
                                           file.is_sheet() ? "a workbook" : file.was + " text"),
                               fmt::format("write {} there", number)};
            return Edit{at, cell_length(read.sources.line(at), at),
                        decimal_commas(*table) ? with_comma(number) : number, false};
        }
    }
    return Failure{Cause::refused, fmt::format("{} has no column for {}", file.path, key),
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
            return {entry->value.span, 1, fmt::format("{{ {} = {},", inner, number), false};
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

Result<Edit> edit_of(const ReadArmoury& read, const NumberChange& change) {
    const auto at = std::find_if(
        read.definitions.begin(), read.definitions.end(), [&](const RawDefinition& definition) {
            return definition.kind == change.kind && definition.id == change.id;
        });
    if (at == read.definitions.end())
        return Failure{Cause::refused, fmt::format("no {} '{}'", change.kind, change.id), {}};
    const std::string number = shortest(change.value);
    const bool in_table = read.sources.file(at->span.file).separator != 0;
    if (const Node* own = own_value(*at, change.key)) {
        if (read.sources.file(own->span.file).path == "--set")
            return Failure{Cause::refused,
                           fmt::format("{} of {} is a what-if; there is no line to change",
                                       change.key, change.id),
                           "leave out --set for it"};
        if (!in_table)
            return Edit{own->span, static_cast<std::size_t>(own->span.length), number, false};
    }
    return in_table ? edit_cell(read, *at, change.key, number)
                    : Result<Edit>(edit_table(read, *at, change.key, number));
}

} // namespace

Result<std::string> patch_text(const ReadArmoury& read, const std::vector<NumberChange>& changes) {
    std::map<std::int32_t, PatchedFile> files;
    for (const NumberChange& change : changes) {
        const Result<Edit> edit = edit_of(read, change);
        if (!edit.ok()) return edit.failure();
        const std::int32_t file = edit.value().at.file;
        files.try_emplace(file, read.sources.file(file)).first->second.add(edit.value());
    }
    std::string text;
    for (const auto& [file, patched] : files) text += patched.text();
    return text;
}

} // namespace panoplon
