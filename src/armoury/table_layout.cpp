#include "armoury/table_layout.h"

#include "armoury/keys.h"
#include "base/text.h"

#include <algorithm>
#include <cstdlib>
#include <fmt/format.h>
#include <memory>
#include <utf8proc.h>

namespace panoplon {

namespace {

using Row = std::vector<RawTable::Cell>;

char lower(char c) {
    return c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c;
}

bool is_letter_or_digit(char c) {
    return (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9');
}

/// Letters without their marks and in lower case, as far as Unicode takes them apart.
std::string without_marks(std::string_view text) {
    utf8proc_uint8_t* folded = nullptr;
    const auto options = static_cast<utf8proc_option_t>(UTF8PROC_COMPAT | UTF8PROC_DECOMPOSE |
                                                        UTF8PROC_STRIPMARK | UTF8PROC_CASEFOLD);
    const utf8proc_ssize_t size =
        utf8proc_map(reinterpret_cast<const utf8proc_uint8_t*>(text.data()),
                     static_cast<utf8proc_ssize_t>(text.size()), &folded, options);
    const std::unique_ptr<utf8proc_uint8_t, void (*)(void*)> owner(folded, std::free);
    if (size < 0) return std::string(text);
    return {reinterpret_cast<const char*>(folded), static_cast<std::size_t>(size)};
}

bool blank(const Row& row) {
    return std::all_of(row.begin(), row.end(),
                       [](const RawTable::Cell& cell) { return cell.text.empty(); });
}

bool is_remark(const Row& row) {
    const auto first =
        std::find_if(row.begin(), row.end(), [](const auto& cell) { return !cell.text.empty(); });
    return first != row.end() && first->text.starts_with('#');
}

/// A kind of which there are several, and so tables.
bool has_tables(std::string_view kind) {
    const KindRow* row = find_kind(kind);
    return row && !row->single;
}

void tell_no_headers(const RawTable::Cell& first, Sink& sink) {
    const std::string word = plain_word(first.text);
    const KindRow* kind = find_kind(word);
    const auto near = nearest_name(word, kind_names());
    sink.mistake(
        first.span,
        kind ? fmt::format("'{}' is no kind for a table: there is only one", first.text)
             : fmt::format("the first header is '{}'; it names the kind of thing in the rows{}",
                           first.text, near ? fmt::format("; did you mean '{}'?", *near) : ""),
        "as in: item,slot,tier,level,weight; or name the file items.csv");
}

/// The kind that the headers name, by the first of them or by the sheet's name; empty where neither
/// does. A first header that is a key of what the sheet is named after is that key: `Slot` in a
/// sheet of items.
std::string kind_of(const std::vector<std::string>& headers, std::string_view name) {
    const auto first = std::find_if(headers.begin(), headers.end(),
                                    [](const auto& cell) { return !trim(cell).empty(); });
    if (first == headers.end()) return {};
    const std::string word = plain_word(*first);
    const std::string by_name = kind_of_name(name).value_or("");
    if (has_tables(word) && (by_name.empty() || !find_key(by_name, word))) return word;
    const bool tells_apart =
        std::any_of(headers.begin(), headers.end(), [&](const std::string& cell) {
            const std::string header = plain_word(cell);
            return header == "id" || header == "name" || header == by_name;
        });
    if (!by_name.empty() && tells_apart) return by_name;
    return has_tables(word) ? word : std::string();
}

std::vector<std::string> texts_of(const Row& row) {
    std::vector<std::string> texts;
    for (const RawTable::Cell& cell : row) texts.push_back(cell.text);
    return texts;
}

/// The place of a header in a row; its size where it has none.
std::size_t find_header(const Row& headers, std::string_view word) {
    const auto at = std::find_if(headers.begin(), headers.end(), [&](const RawTable::Cell& cell) {
        return plain_word(cell.text) == word;
    });
    return static_cast<std::size_t>(at - headers.begin());
}

/// Puts the id of each row first: from its column, or made from the name.
class IdColumn {
  public:
    IdColumn(const Row& headers, const std::string& kind) {
        none_ = headers.size();
        ids_ = find_header(headers, kind);
        if (ids_ == none_) ids_ = find_header(headers, "id");
        names_ = find_header(headers, "name");
    }
    [[nodiscard]] bool is_own() const { return ids_ != none_; }

    /// Takes the header of the ids out.
    void take_from(Row& headers) const {
        if (is_own()) headers.erase(headers.begin() + static_cast<std::ptrdiff_t>(ids_));
    }

    void lead(Row& row, RawTable& table) const {
        const std::size_t from = is_own() ? ids_ : names_;
        RawTable::Cell id = from < row.size() ? row[from] : RawTable::Cell{"", row.front().span};
        if (is_own() && from < row.size())
            row.erase(row.begin() + static_cast<std::ptrdiff_t>(from));
        if (!is_id(id.text)) {
            const auto made = id_from_name(id.text);
            if (made && (!is_own() || plain_word(id.text) != *made) && table.made_id.empty())
                table.made_id = fmt::format("'{}' is {}", id.text, *made);
            // Whoever wrote a name for an id is shown that name.
            if (made && is_own() && names_ == none_) table.names.emplace(*made, id);
            if (made) id.text = *made;
        }
        row.insert(row.begin(), std::move(id));
    }

  private:
    std::size_t ids_ = 0, names_ = 0, none_ = 0;
};

} // namespace

std::optional<std::string> kind_of_name(std::string_view name) {
    std::string word = plain_word(name);
    if (has_tables(word)) return word;
    if (!word.ends_with('s')) return std::nullopt;
    word.pop_back();
    return has_tables(word) ? std::optional(word) : std::nullopt;
}

std::string_view table_name(std::string_view path) {
    if (const std::size_t mark = path.find(sheet_mark); mark != std::string_view::npos) {
        const std::string_view sheet = path.substr(mark + sheet_mark.size());
        if (kind_of_name(sheet)) return sheet;
        path = path.substr(0, mark);
    }
    path = path.substr(path.rfind('/') + 1);
    return path.substr(0, path.rfind('.'));
}

std::string plain_word(std::string_view text) {
    std::string word;
    for (const char c : trim(text)) {
        const bool gap = c == ' ' || c == '\t';
        if (!gap)
            word += lower(c);
        else if (!word.empty() && word.back() != '_')
            word += '_';
    }
    return word;
}

std::optional<std::string> id_from_name(std::string_view name) {
    std::string id;
    const std::string folded = without_marks(name);
    for (std::size_t i = 0; i < folded.size(); ++i) {
        const char c = folded[i];
        const bool apostrophe = c == '\'' || folded.compare(i, 3, "\xe2\x80\x99") == 0;
        if (apostrophe && c != '\'') i += 2;
        if (apostrophe) continue;
        if (is_letter_or_digit(c))
            id += c;
        else if (!id.empty() && id.back() != '_')
            id += '_';
    }
    while (!id.empty() && id.back() == '_') id.pop_back();
    return id.empty() ? std::nullopt : std::optional(id);
}

bool has_headers(const std::vector<std::string>& row, std::string_view name) {
    return !kind_of(row, name).empty();
}

std::optional<RawTable> lay_out_table(std::vector<Row> rows, std::string_view name, Sink& sink) {
    std::erase_if(rows, [](const Row& row) { return blank(row) || is_remark(row); });
    if (rows.empty()) return RawTable{};
    const auto at = std::find_if(rows.begin(), rows.end(),
                                 [&](const Row& row) { return has_headers(texts_of(row), name); });
    if (at == rows.end()) {
        const auto first = std::find_if(rows.front().begin(), rows.front().end(),
                                        [](const auto& cell) { return !cell.text.empty(); });
        tell_no_headers(*first, sink);
        return std::nullopt;
    }
    RawTable table;
    Row headers = std::move(*at);
    // Columns may begin further to the right.
    const auto margin = std::find_if(headers.begin(), headers.end(),
                                     [](const auto& cell) { return !cell.text.empty(); }) -
                        headers.begin();
    headers.erase(headers.begin(), headers.begin() + margin);
    table.kind = kind_of(texts_of(headers), name);
    table.header_line = headers.front().span.line;
    const IdColumn ids(headers, table.kind);
    ids.take_from(headers);
    table.headers = std::move(headers);
    for (auto row = at + 1; row != rows.end(); ++row) {
        row->erase(row->begin(),
                   row->begin() +
                       std::min<std::ptrdiff_t>(margin, static_cast<std::ptrdiff_t>(row->size())));
        if (blank(*row)) continue;
        ids.lead(*row, table);
        table.rows.push_back(std::move(*row));
    }
    return table;
}

} // namespace panoplon
