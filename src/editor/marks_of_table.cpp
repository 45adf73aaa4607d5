#include "editor/marks.h"

#include "armoury/cells.h"
#include "base/text.h"

#include <algorithm>

namespace panoplon {

namespace {

struct MarkedColumn {
    std::string path; ///< without places; empty: the column is left out
    bool is_list = false;
};

class TableMarks {
  public:
    TableMarks(const Sources& sources, const RawTable& table) : sources_(sources), table_(table) {}

    std::vector<Mark> read(const TableNames& names) {
        for (const RawTable::Cell& header : table_.headers) add_header(header, names);
        for (const auto& row : table_.rows) add_row(row);
        return std::move(marks_);
    }

  private:
    void add_header(const RawTable::Cell& header, const TableNames& names) {
        MarkedColumn& column = columns_.emplace_back();
        if (const auto key = key_of_header(header.text, table_.kind, names)) {
            column.path = without_places(table_.kind, *key);
            const auto located = locate_key(table_.kind, *key);
            column.is_list = located && holds_list(located->row->type);
        }
        Mark& mark = add(Mark::Role::key, header.text, header.span, column.path);
        mark.in_header = true;
    }

    void add_row(const std::vector<RawTable::Cell>& row) {
        if (row.empty()) return;
        id_ = row.front().text;
        const auto named = table_.names.find(id_);
        // An id that was made from a name stands nowhere: the name does.
        Mark& mark = named == table_.names.end()
                         ? add(Mark::Role::id, id_, row.front().span, "")
                         : add(Mark::Role::id, named->second.text, named->second.span, "");
        mark.id = id_;
        for (std::size_t i = 1; i < row.size() && i <= columns_.size(); ++i) {
            const MarkedColumn& column = columns_[i - 1];
            if (column.path.empty()) continue;
            if (column.is_list)
                add_parts(row[i], column.path);
            else
                add(Mark::Role::value, row[i].text, row[i].span, column.path).id = id_;
        }
    }

    void add_parts(const RawTable::Cell& cell, const std::string& path) {
        std::size_t from = 0; // what is found before it is another part
        for (const std::string& part : split(cell.text, ';')) {
            Mark& mark = add(Mark::Role::value, std::string(trim(part)), cell.span, path, from);
            mark.id = id_;
            from = mark.range.offset + mark.range.length;
        }
    }

    /// The text stands in the cell behind spaces, a quote or a `'` that guards it; a text that does
    /// not stand there was made from what does.
    Mark& add(Mark::Role role, const std::string& text, const Span& cell, const std::string& path,
              std::size_t from = 0) {
        const std::string& whole = sources_.file(cell.file).text;
        const std::size_t begin = std::max(sources_.offset(cell), from);
        const std::size_t found = whole.find(text, begin);
        const std::size_t line_end = std::min(whole.find('\n', begin), whole.size());
        Span end = cell;
        end.column += cell.length;
        Mark mark;
        mark.role = role;
        mark.range = found < line_end ? TextRange{cell.file, found, text.size()}
                                      : TextRange{cell.file, begin,
                                                  std::max(sources_.offset(end), begin) - begin};
        mark.text = whole.substr(mark.range.offset, mark.range.length);
        mark.kind = table_.kind;
        mark.path = path;
        mark.quoted = mark.range.offset > 0 && whole[mark.range.offset - 1] == '"';
        mark.in_table = true;
        marks_.push_back(std::move(mark));
        return marks_.back();
    }

    const Sources& sources_;
    const RawTable& table_;
    std::vector<MarkedColumn> columns_;
    std::string id_; ///< of the row
    std::vector<Mark> marks_;
};

} // namespace

std::vector<Mark> marks_of_table(const Sources& sources, std::int32_t file,
                                 const TableNames& names) {
    Sink what_check_tells;
    const std::optional<RawTable> table = read_csv(sources, file, what_check_tells);
    return table ? TableMarks(sources, *table).read(names) : std::vector<Mark>();
}

std::vector<Mark> marks_of(const Sources& sources, std::int32_t file, const TableNames& names) {
    const Sources::File& in = sources.file(file);
    return in.path.ends_with(".toml") ? marks_of_toml(file, in.text)
                                      : marks_of_table(sources, file, names);
}

} // namespace panoplon
