// The one table: columns say what their cells are, cells hold values. A table is shown to people on
// a terminal, a page and in a workbook, and kept for programs as CSV, JSON and SQLite; each form is
// made from it by one function.
#pragma once

#include "base/colour.h"

#include <concepts>
#include <cstdint>
#include <memory>
#include <nlohmann/json.hpp>
#include <optional>
#include <string>
#include <variant>
#include <vector>

namespace panoplon {

using Json = nlohmann::ordered_json;

/// How the cells of a column read.
enum class CellKind {
    text,
    right,  ///< text that stands to the right, as numbers do
    item,   ///< an item's id: leads to its card
    whole,  ///< a count
    number, ///< with so many decimals
    amount, ///< with at most so many
    share,  ///< of 1, shown in percent
    gain,   ///< the same, with its sign
};
/// Of words, not of numbers.
[[nodiscard]] bool is_words(CellKind kind);

/// Decimals in files of a number that is written in full.
inline constexpr int in_full = -1;

/// A column has a name for each form that shows it; where that is empty, the form leaves it out.
struct Column {
    std::string key;    ///< in files: CSV, SQLite
    std::string header; ///< on a terminal
    CellKind kind = CellKind::text;
    int places = 0;        ///< decimals for people; of a share or gain, in percent
    int exact = in_full;   ///< decimals in CSV
    std::string path;      ///< in JSON, with `/` where objects nest
    std::string page;      ///< header on a page and in a workbook
    std::string about;     ///< what it means, in a sentence
    bool untitled = false; ///< stands on a terminal without a header
    bool omitted = false;  ///< in JSON: no key where there is nothing, in place of null

    [[nodiscard]] Column json(std::string its_path) &&;
    [[nodiscard]] Column on_page(std::string its_header, std::string what_it_means = {}) &&;
    [[nodiscard]] Column without_title() &&;
    /// Omitted in JSON where there is nothing, and for people where no row has anything.
    [[nodiscard]] Column if_any() &&;
};

/// Columns by what they hold: `key` for files and JSON, `header` for people; empty: not shown
/// there.
namespace as {
[[nodiscard]] Column text(std::string key, std::string header = {});
[[nodiscard]] Column right(std::string key, std::string header = {});
[[nodiscard]] Column item(std::string key, std::string header = {});
[[nodiscard]] Column whole(std::string key, std::string header = {});
[[nodiscard]] Column number(std::string key, int exact);
[[nodiscard]] Column number(std::string key, std::string header, int places, int exact = in_full);
[[nodiscard]] Column amount(std::string key, std::string header, int places, int exact = in_full);
[[nodiscard]] Column share(std::string key, std::string header, int places, int exact = in_full);
[[nodiscard]] Column gain(std::string key, std::string header, int places, int exact = in_full);
[[nodiscard]] Column json(std::string path); ///< in JSON alone
} // namespace as

/// A value: nothing, a truth, a number, a text, a list of texts; or JSON, for columns of JSON
/// alone.
class Cell {
  public:
    using Value = std::variant<std::monostate, bool, std::int64_t, double, std::string,
                               std::vector<std::string>, std::shared_ptr<const Json>>;

    Cell();
    Cell(std::string text);
    Cell(const char* text);
    Cell(double number);
    Cell(std::int64_t whole);
    Cell(bool truth);
    template <std::integral Whole>
    requires(!std::same_as<Whole, bool>) Cell(Whole whole)
        : Cell(static_cast<std::int64_t>(whole)) {}
    template <class Known>
    Cell(const std::optional<Known>& known) : Cell(known ? Cell(*known) : Cell()) {}
    Cell(std::vector<std::string> texts);
    Cell(const Cell&);
    Cell(Cell&&) noexcept;
    Cell& operator=(const Cell&);
    Cell& operator=(Cell&&) noexcept;
    ~Cell();
    [[nodiscard]] static Cell of(Json json);

    /// People read these words; files and JSON have the value.
    [[nodiscard]] Cell said(std::string words) &&;
    /// People see it only if this is so; files and JSON have it in any case.
    [[nodiscard]] Cell shown_if(bool shown) &&;
    [[nodiscard]] Cell in(const Ink& ink) &&;
    /// A page says this of it, too.
    [[nodiscard]] Cell explained(std::string meaning) &&;

    [[nodiscard]] const Value& value() const { return value_; }
    [[nodiscard]] bool empty() const;
    [[nodiscard]] std::optional<double> number() const; ///< none where people see none
    [[nodiscard]] std::optional<Ink> ink() const;
    [[nodiscard]] std::string meaning() const;      ///< empty: nothing is said of it
    [[nodiscard]] const std::string* words() const; ///< said in place of the value; null: none

  private:
    struct Look {
        std::string words, meaning;
        bool has_words = false, hidden = false;
        std::optional<Ink> ink;
    };
    Look& look();

    Value value_;
    std::shared_ptr<Look> look_; ///< few have one
};

struct Table {
    std::string name; ///< file name without ending: lower-case letters, digits, `_` and `-`
    std::vector<Column> columns;
    std::vector<std::vector<Cell>> rows = {};
    std::string caption = {};  ///< over it on a page
    std::string nothing = "—"; ///< what a terminal shows where a number is missing

    void row(std::vector<Cell> cells) { rows.push_back(std::move(cells)); }
    /// The rows of another with the same columns, below these.
    void append(const Table& other);
};

/// The cell as people read it: "53 %", "0.47", "+7.8 %".
[[nodiscard]] std::string words_of(const Column& column, const Cell& cell,
                                   const std::string& nothing);
/// The cell as files have it: numbers with the column's decimals, lists joined by `;`.
[[nodiscard]] std::string file_text_of(const Column& column, const Cell& cell);

/// A line for the headers and one a row; empty where there is no row. `indent`: blanks before each.
[[nodiscard]] std::string terminal_text(const Table& table, std::size_t indent = 2);
/// A line for each column of a terminal that says what it means: "  picks  share of …".
[[nodiscard]] std::string terminal_key(const Table& table, std::size_t indent = 2);
/// RFC 4180, with line feeds; cells are quoted where they have to be.
[[nodiscard]] std::string csv_text(const Table& table);
/// An array with an object for each row; numbers in full.
[[nodiscard]] Json rows_json(const Table& table);
/// The object of one row.
[[nodiscard]] Json row_json(const Table& table, const std::vector<Cell>& row);

/// What a page shows: the columns that have a header there.
[[nodiscard]] Table page_table(Table table, std::string name, std::string caption);
/// A table as files have it, for a page: every column of theirs, under its key.
[[nodiscard]] Table page_of_files(Table table, std::string name, std::string caption);

} // namespace panoplon
