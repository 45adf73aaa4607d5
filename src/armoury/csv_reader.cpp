#include "armoury/cells.h"

#include "base/text.h"

#include <algorithm>
#include <csv.h>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// Cells with their places. libcsv tells no positions, so it is fed byte by byte and a cell begins
/// where the one before it ended.
class CellReader {
  public:
    using Row = std::vector<RawTable::Cell>;

    CellReader(const Sources& sources, std::int32_t file)
        : text_(sources.file(file).text),
          here_{file, 1, 1, 1},
          cell_(here_) {
        csv_init(&parser_, CSV_STRICT | CSV_STRICT_FINI);
    }
    CellReader(const CellReader&) = delete;
    CellReader& operator=(const CellReader&) = delete;
    ~CellReader() { csv_free(&parser_); }

    std::vector<Row> read(Sink& sink) {
        for (at_ = 0; at_ < text_.size(); ++at_) {
            if (csv_parse(&parser_, &text_[at_], 1, on_cell, on_row, this) != 1) {
                fail(sink, here_, "a quote stands where none may");
                return std::move(rows_);
            }
            step();
        }
        if (csv_fini(&parser_, on_cell, on_row, this) != 0)
            fail(sink, cell_, "a quoted cell is not closed");
        return std::move(rows_);
    }
    [[nodiscard]] bool failed() const { return failed_; }

  private:
    void fail(Sink& sink, const Span& span, const char* what) {
        failed_ = true;
        sink.mistake(span, what, "quotes inside a quoted cell are doubled (RFC 4180)");
    }

    /// Moves past the byte that was read. A line end where a cell would begin is none of it.
    void step() {
        const char byte = text_[at_];
        const bool line_end = byte == '\n' || byte == '\r';
        const bool begins_next = cell_ended_ || (line_end && at_ == cell_offset_);
        if (byte == '\n') {
            ++here_.line;
            here_.column = 1;
        } else if ((static_cast<unsigned char>(byte) & 0xc0) != 0x80) {
            ++here_.column;
        }
        if (!begins_next) return;
        cell_ = here_;
        cell_offset_ = at_ + 1;
        cell_ended_ = false;
    }

    static void on_cell(void* data, std::size_t size, void* self) {
        auto& reader = *static_cast<CellReader*>(self);
        const std::string_view text(static_cast<const char*>(data), size);
        Span span = reader.cell_;
        span.length = static_cast<std::int32_t>(characters(text));
        reader.row_.push_back({unguarded(std::string(trim(text))), span});
        reader.cell_ended_ = true;
    }

    static void on_row(int, void* self) {
        auto& reader = *static_cast<CellReader*>(self);
        reader.rows_.push_back(std::move(reader.row_));
        reader.row_.clear();
    }

    const std::string& text_;
    csv_parser parser_{};
    std::size_t at_ = 0;
    Span here_;                   ///< of the byte at `at_`
    Span cell_;                   ///< where the cell that is being read begins,
    std::size_t cell_offset_ = 0; ///< and its byte
    bool cell_ended_ = false;
    Row row_;
    std::vector<Row> rows_;
    bool failed_ = false;
};

bool blank(const CellReader::Row& row) {
    for (const RawTable::Cell& cell : row)
        if (!cell.text.empty()) return false;
    return true;
}

bool known_kind(const RawTable::Cell& first, Sink& sink) {
    const KindRow* kind = find_kind(first.text);
    if (kind && !kind->single) return true;
    const auto near = nearest_name(first.text, kind_names());
    std::string message =
        kind ? fmt::format("'{}' is no kind for a table: there is only one", first.text)
             : fmt::format("the first header is '{}'; it names the kind of thing in the rows{}",
                           first.text, near ? fmt::format("; did you mean '{}'?", *near) : "");
    const bool semicolons = first.text.find(';') != std::string::npos;
    sink.mistake(first.span, std::move(message),
                 semicolons ? "the cells are separated by ';'; save the table with commas"
                            : "as in: item,slot,tier,level,weight");
    return false;
}

constexpr std::size_t most_columns = 1000;

struct Column {
    std::vector<std::string> path; ///< empty: the column is left out
    std::string plain;             ///< the path without the places in lists
    Type type = Type::text;
    bool has_suffix = false;
    std::string kind;
};

Column understand_header(const RawTable::Cell& header, const std::string& kind,
                         std::span<const std::string> stats, bool names_are_known, Sink& sink) {
    std::string path = header.text;
    if (path.empty()) return {};
    const bool bare_stat = std::find(stats.begin(), stats.end(), path) != stats.end();
    if (bare_stat && !find_key(kind, path) && find_key(kind, "add")) path = "add." + path;
    const auto located = locate_key(kind, path);
    if (!located && !names_are_known) return {};
    if (!located) {
        std::vector<std::string> known = keys_under(kind, "");
        known.insert(known.end(), stats.begin(), stats.end());
        const auto near = nearest_name(header.text, known);
        sink.mistake(header.span,
                     fmt::format("unknown header '{}' in a table of {}s{}", header.text, kind,
                                 near ? fmt::format("; did you mean '{}'?", *near) : ""),
                     near ? "" : "headers: " + join(known, ", "));
        return {};
    }
    if (const std::string placed = with_places(kind, path); placed != path) {
        sink.mistake(header.span, fmt::format("'{}' is in a list, and names no place in it", path),
                     fmt::format("the first is {}", placed));
        return {};
    }
    const Type type = located->row->type;
    const bool needs_more =
        located->suffix.empty() && type != Type::text && locate_key(kind, path + ".x");
    if (needs_more || type == Type::tables || type == Type::table || type == Type::worn) {
        sink.mistake(header.span,
                     fmt::format("'{}' is {}: a cell can't hold it", path, type_words(type)),
                     needs_more             ? fmt::format("name one of them: {}.NAME", path)
                     : type == Type::tables ? fmt::format("name a key of one: {}.1.KEY", path)
                     : type == Type::table  ? fmt::format("name a key of it: {}.KEY", path)
                                            : "write it in a .toml file");
        return {};
    }
    return {split(path, '.'), without_places(kind, path), type, !located->suffix.empty(), kind};
}

Node& inner_node(Node& table, const std::string& key, Node::Kind kind, const Span& span) {
    for (Entry& entry : table.entries)
        if (entry.key == key) return entry.value;
    Node inner;
    inner.kind = kind;
    inner.span = span;
    table.entries.push_back({key, span, std::move(inner), {}});
    return table.entries.back().value;
}

/// The table at a place, from 1, of a list of tables; places that no cell fills go again later.
Node& place_in(Node& list, std::size_t place, const Span& span) {
    while (list.items.size() < place) {
        Node table;
        table.kind = Node::Kind::table;
        table.span = span;
        list.items.push_back(std::move(table));
    }
    return list.items[place - 1];
}

void place_cell(Node& body, const Column& column, Node value) {
    Node* table = &body;
    std::string plain;
    for (std::size_t i = 0; i + 1 < column.path.size(); ++i) {
        plain += (plain.empty() ? "" : ".") + column.path[i];
        const KeyRow* row = find_key(column.kind, plain);
        const bool list = row && row->type == Type::tables;
        Node& inner = inner_node(*table, column.path[i],
                                 list ? Node::Kind::list : Node::Kind::table, value.span);
        table = list ? &place_in(inner, std::stoul(column.path[++i]), value.span) : &inner;
    }
    const Span span = value.span;
    table->entries.push_back({column.path.back(), span, std::move(value), {}});
}

/// A row may fill fewer places of a list than the headers name.
void drop_empty_places(Node& body) {
    for (Entry& entry : body.entries)
        std::erase_if(entry.value.items, [](const Node& item) {
            return item.kind == Node::Kind::table && item.entries.empty();
        });
}

} // namespace

void read_csv(const Sources& sources, std::int32_t file, RawArmoury& into, Sink& sink) {
    // Headers between semicolons are told as such, before the quotes between them are misread.
    const std::string_view headers_line = sources.line({file, 1, 1, 0});
    if (const std::size_t semicolon = headers_line.find(';'); semicolon < headers_line.find(',')) {
        const auto length = static_cast<std::int32_t>(characters(headers_line));
        static_cast<void>(
            known_kind({std::string(trim(headers_line)), {file, 1, 1, length}}, sink));
        into.cut_short = true;
        return;
    }
    CellReader reader(sources, file);
    std::vector<CellReader::Row> rows = reader.read(sink);
    if (reader.failed()) into.cut_short = true;
    if (rows.empty() || rows.front().empty()) {
        if (!reader.failed())
            sink.mistake({file, 0, 0, 0}, "an empty table",
                         "the first row holds the headers: item,slot,tier,level");
        return;
    }
    RawTable table;
    CellReader::Row& headers = rows.front();
    if (!known_kind(headers.front(), sink)) {
        into.cut_short = true;
        return;
    }
    table.kind = headers.front().text;
    table.headers.assign(headers.begin() + 1, headers.end());
    for (std::size_t i = 1; i < rows.size(); ++i)
        if (!blank(rows[i])) table.rows.push_back(std::move(rows[i]));
    into.tables.push_back(std::move(table));
}

void understand_table(const RawTable& table, std::span<const std::string> stats,
                      bool names_are_known, std::vector<RawDefinition>& into, Sink& sink) {
    std::vector<Column> columns;
    if (table.headers.size() > most_columns) {
        sink.mistake(table.headers[most_columns].span,
                     fmt::format("a table of {} columns; at most {} are read",
                                 table.headers.size() + 1, most_columns));
        return;
    }
    for (const RawTable::Cell& header : table.headers) {
        Column column = understand_header(header, table.kind, stats, names_are_known, sink);
        for (const Column& earlier : columns)
            if (!column.path.empty() && column.path == earlier.path)
                sink.mistake(header.span, fmt::format("the header '{}' stands twice", header.text));
        columns.push_back(std::move(column));
    }
    for (const auto& row : table.rows) {
        const RawTable::Cell& id = row.front();
        if (!is_id(id.text)) {
            sink.mistake(id.span,
                         id.text.empty() ? "a row without an id"
                                         : fmt::format("'{}' is not an id", id.text),
                         "an id is lower-case letters, digits and '_'");
            continue;
        }
        Node body;
        body.kind = Node::Kind::table;
        body.span = id.span;
        for (std::size_t i = 1; i < row.size(); ++i) {
            if (row[i].text.empty()) continue;
            if (i > columns.size()) {
                sink.mistake(row[i].span,
                             fmt::format("the cell '{}' has no header above it", row[i].text));
                continue;
            }
            const Column& column = columns[i - 1];
            if (!column.path.empty())
                place_cell(body, column, cell_node(row[i], column.type, column.has_suffix));
        }
        drop_empty_places(body);
        into.push_back({table.kind, id.text, id.span, std::move(body)});
    }
}

} // namespace panoplon
