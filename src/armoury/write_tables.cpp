#include "armoury/write.h"

#include "armoury/cells.h"
#include "armoury/keys.h"
#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>
#include <optional>
#include <utility>

namespace panoplon {

namespace {

/// One cell of a definition: a key with places in lists (`add`, `trigger.2.on`), the name after it
/// where it is a table of names (`guard`), and what it holds.
struct Cell {
    std::string key, name, text;
};

/// The cells of a definition, in order; none when a cell can't hold something.
class Cells {
  public:
    explicit Cells(const RawDefinition& definition) : kind_(definition.kind) {
        walk(definition.body, "");
    }
    [[nodiscard]] bool fits() const { return fits_; }
    [[nodiscard]] const std::vector<Cell>& list() const { return list_; }

  private:
    void walk(const Node& table, const std::string& parent) {
        for (const Entry& entry : table.entries)
            if (entry.value.given())
                look_at(parent.empty() ? entry.key : parent + "." + entry.key, entry.value);
    }

    void look_at(const std::string& path, const Node& value) {
        const auto located = locate_key(kind_, path);
        if (!located) {
            fits_ = false;
            return;
        }
        const Type type = located->row->type;
        if (value.hollow()) {
            fits_ = fits_ && !located->row->required;
        } else if (type == Type::tables) {
            for (std::size_t i = 0; i < value.items.size(); ++i) {
                if (value.items[i].entries.empty()) fits_ = false;
                walk(value.items[i], fmt::format("{}.{}", path, i + 1));
            }
        } else if (value.kind == Node::Kind::table) {
            if (type == Type::worn) fits_ = false;
            walk(value, path);
        } else if (const auto text = cell_text(value, *located->row, !located->suffix.empty())) {
            const std::string& name = located->suffix;
            list_.push_back(
                {path.substr(0, path.size() - name.size() - !name.empty()), name, *text});
        } else {
            fits_ = false;
        }
    }

    std::string kind_;
    bool fits_ = true;
    std::vector<Cell> list_;
};

/// Where a key stands among the columns: its rows in the table of keys, and places in lists.
using KeyOrder = std::vector<std::ptrdiff_t>;

KeyOrder order_of(const std::string& kind, const std::string& key) {
    if (key == "name") return {-1}; // beside the id, as people write it
    KeyOrder order;
    std::string path;
    for (const std::string& part : split(key, '.')) {
        std::string longer = path;
        longer += (path.empty() ? "" : ".") + part;
        const KeyRow* row = find_key(kind, longer);
        order.push_back(row ? row - key_rows().data() : std::stol(part));
        if (row) path = longer;
    }
    return order;
}

/// The columns of a table: keys, and names in an order that every row has.
class Columns {
  public:
    /// `stats`: their ids in order, which amounts follow.
    Columns(std::string kind, const std::vector<std::string>& stats)
        : kind_(std::move(kind)),
          stats_(stats) {}

    /// False, and nothing is added, where the row has its names in another order than rows before
    /// it.
    bool add(const std::vector<Cell>& row) {
        const auto before = keys_;
        const bool fits = add_cells(row);
        if (!fits) keys_ = before;
        return fits;
    }

    /// Key and name of each, in order.
    [[nodiscard]] std::vector<std::pair<std::string, std::string>> list() const {
        std::vector<std::pair<std::string, std::string>> columns;
        for (const auto& [key, names] : keys_) {
            std::vector<std::string> sorted = names;
            if (of_stats(key.second))
                std::sort(sorted.begin(), sorted.end(), [&](const auto& a, const auto& b) {
                    return std::find(stats_.begin(), stats_.end(), a) <
                           std::find(stats_.begin(), stats_.end(), b);
                });
            for (const std::string& name : sorted) columns.emplace_back(key.second, name);
        }
        return columns;
    }

  private:
    bool add_cells(const std::vector<Cell>& row) {
        std::map<std::string, std::size_t> after; // by key: the next new name goes here
        for (const Cell& cell : row) {
            std::vector<std::string>& names = keys_[{order_of(kind_, cell.key), cell.key}];
            std::size_t& next = after[cell.key];
            const auto at = std::find(names.begin(), names.end(), cell.name);
            const auto place = static_cast<std::size_t>(at - names.begin());
            if (at == names.end()) {
                names.insert(names.begin() + static_cast<std::ptrdiff_t>(next), cell.name);
                ++next;
            } else if (place < next && !of_stats(cell.key)) {
                return false;
            } else {
                next = std::max(next, place + 1);
            }
        }
        return true;
    }

    [[nodiscard]] bool of_stats(const std::string& key) const {
        const KeyRow* row = locate_key(kind_, key)->row;
        return row->type == Type::amounts || row->type == Type::growths;
    }

    std::string kind_;
    const std::vector<std::string>& stats_;
    std::map<std::pair<KeyOrder, std::string>, std::vector<std::string>> keys_;
};

/// None where there is one that no cells hold.
std::optional<WrittenTable> table_of(const std::string& kind,
                                     const std::vector<const RawDefinition*>& definitions,
                                     const std::vector<std::string>& stats) {
    std::vector<std::pair<const RawDefinition*, Cells>> rows;
    Columns columns(kind, stats);
    WrittenTable table{kind, {kind}, {}, {}};
    for (const RawDefinition* definition : definitions) {
        Cells cells(*definition);
        if (!cells.fits()) return std::nullopt;
        if (columns.add(cells.list()))
            rows.emplace_back(definition, std::move(cells));
        else
            table.elsewhere.push_back(definition);
    }
    const auto list = columns.list();
    for (const auto& [key, name] : list)
        table.headers.push_back(key + (name.empty() ? "" : "." + name));
    for (const auto& [definition, row] : rows) {
        std::map<std::pair<std::string, std::string>, std::string> cells;
        for (const Cell& cell : row.list()) cells[{cell.key, cell.name}] = cell.text;
        std::vector<std::string>& line = table.rows.emplace_back();
        line.push_back(definition->id);
        for (const auto& column : list) {
            const auto at = cells.find(column);
            line.push_back(at == cells.end() ? std::string() : at->second);
        }
    }
    return table;
}

std::string csv_line(const std::vector<std::string>& cells) {
    std::vector<std::string> written;
    for (const std::string& cell : cells) written.push_back(csv_cell(cell));
    return join(written, ",") + "\n";
}

} // namespace

WrittenTables written_tables(const std::vector<RawDefinition>& definitions) {
    WrittenTables written;
    std::vector<std::string> stats;
    for (const RawDefinition* stat : of_kind(definitions, "stat")) stats.push_back(stat->id);
    for (const KindRow& kind : kind_rows()) {
        const auto list = of_kind(definitions, kind.name);
        if (list.empty()) continue;
        auto table = kind.single ? std::nullopt : table_of(std::string(kind.name), list, stats);
        for (const RawDefinition* definition : table ? table->elsewhere : list)
            written.rest += toml_text(*definition);
        if (table) written.tables.push_back(std::move(*table));
    }
    return written;
}

std::vector<WrittenFile> csv_files(const std::vector<RawDefinition>& definitions) {
    WrittenTables written = written_tables(definitions);
    std::vector<WrittenFile> files = {{"armoury.toml", std::move(written.rest)}};
    for (WrittenTable& table : written.tables) {
        std::string text = csv_line(table.headers);
        for (const auto& row : table.rows) text += csv_line(row);
        files.push_back({table.kind + ".csv", std::move(text), std::move(table.elsewhere)});
    }
    return files;
}

} // namespace panoplon
