#include "armoury/bounds.h"
#include "armoury/cells.h"
#include "armoury/table_layout.h"

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

    CellReader(const Sources& sources, std::int32_t file, char separator)
        : text_(sources.file(file).text),
          here_{file, 1, 1, 1},
          cell_(here_) {
        csv_init(&parser_, CSV_STRICT | CSV_STRICT_FINI);
        csv_set_delim(&parser_, static_cast<unsigned char>(separator));
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
            const bool rows = rows_.size() > most_definitions;
            if (rows || cells_ > most_cells) {
                failed_ = true;
                sink.mistake(here_,
                             rows ? fmt::format("more than {} rows", most_definitions)
                                  : fmt::format("more than {} cells", most_cells),
                             "the rest of this file was not read");
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
        ++reader.cells_;
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
    std::size_t cells_ = 0; ///< of all rows
    bool failed_ = false;
};

constexpr std::string_view separators = ",;\t";

/// The texts between separators of a line, whatever quotes stand around them: for a look at it.
std::vector<std::string> roughly_split(std::string_view line, char separator) {
    std::vector<std::string> cells;
    for (const std::string& cell : split(line, separator)) {
        std::string_view text = trim(cell);
        if (text.size() > 1 && text.front() == '"' && text.back() == '"')
            text = text.substr(1, text.size() - 2);
        cells.emplace_back(text);
    }
    return cells;
}

/// How a table is written: what separates its cells, and how many lines before it say only that.
struct Writing {
    char separator = ',';
    std::int32_t lines_before = 0;
};

/// The separator by which some line could be the headers; else the commonest of the first line.
/// Spreadsheets may say it in a line of its own: `sep=;`.
Writing writing_of(const Sources& sources, std::int32_t file, std::string_view name) {
    const std::string_view first = sources.line({file, 1, 1, 0});
    if (first.size() == 5 && first.starts_with("sep=") &&
        separators.find(first.back()) != std::string_view::npos)
        return {first.back(), 1};
    const auto lines = static_cast<std::int32_t>(sources.file(file).line_starts.size());
    constexpr std::int32_t most_above = 200;
    for (std::int32_t line = 1; line <= std::min(lines, most_above); ++line) {
        const std::string_view text = sources.line({file, line, 1, 0});
        std::size_t most_cells = 1;
        std::optional<char> best;
        for (const char separator : separators) {
            const auto cells = roughly_split(text, separator);
            if (cells.size() > most_cells && has_headers(cells, name)) {
                most_cells = cells.size();
                best = separator;
            }
        }
        if (best) return {*best, 0};
    }
    return {*std::max_element(separators.begin(), separators.end(),
                              [&](char a, char b) {
                                  return std::count(first.begin(), first.end(), a) <
                                         std::count(first.begin(), first.end(), b);
                              }),
            0};
}

} // namespace

std::optional<RawTable> read_csv(const Sources& sources, std::int32_t file, Sink& sink) {
    const std::string_view name = table_name(sources.file(file).path);
    const Writing writing = writing_of(sources, file, name);
    CellReader reader(sources, file, writing.separator);
    std::vector<CellReader::Row> rows = reader.read(sink);
    if (writing.lines_before > 0 && !rows.empty()) rows.erase(rows.begin());
    if (reader.failed() && rows.empty()) return std::nullopt;
    auto table = lay_out_table(std::move(rows), name, sink);
    if (!table) return std::nullopt;
    table->cut_short = reader.failed();
    table->separator = writing.separator;
    if (!table->kind.empty() || reader.failed()) return table;
    sink.mistake({file, 0, 0, 0}, "an empty table",
                 "the first row holds the headers: item,slot,tier,level");
    return std::nullopt;
}

} // namespace panoplon
