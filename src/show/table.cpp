#include "show/table.h"

#include "armoury/cells.h"
#include "base/text.h"
#include "show/column_meanings.h"
#include "show/text_table.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

template <class... Cases>
struct Overloaded : Cases... {
    using Cases::operator()...;
};
template <class... Cases>
Overloaded(Cases...) -> Overloaded<Cases...>;

Column column_of(CellKind kind, std::string key, std::string header, int places, int exact) {
    Column column;
    column.kind = kind;
    column.path = key;
    column.key = std::move(key);
    column.page = header;
    column.header = std::move(header);
    column.places = places;
    column.exact = exact;
    return column;
}

std::string number_words(const Column& column, double number) {
    switch (column.kind) {
    case CellKind::share: {
        const std::string text = fmt::format("{:.{}f} %", number * 100, column.places);
        return text.starts_with("-0") && text.find_first_of("123456789") == std::string::npos
                   ? text.substr(1)
                   : text;
    }
    case CellKind::gain: return signed_percent(number, column.places);
    case CellKind::amount: return rounded(number, column.places);
    default:
        return column.places == in_full ? shortest(number)
                                        : fmt::format("{:.{}f}", number, column.places);
    }
}

Json json_of(const Cell& cell) {
    return std::visit(Overloaded{[](std::monostate) { return Json(nullptr); },
                                 [](const std::shared_ptr<const Json>& json) { return *json; },
                                 [](const auto& value) { return Json(value); }},
                      cell.value());
}

void append_line(std::string& text, const std::vector<std::string>& cells) {
    for (std::size_t i = 0; i < cells.size(); ++i) {
        if (i > 0) text += ',';
        text += csv_cell(cells[i]);
    }
    text += '\n';
}

/// As many decimals as any cell of the column has in files, and no more than people want.
int places_seen(const Table& table, std::size_t column) {
    constexpr std::size_t most = 3;
    std::size_t places = 0;
    for (const auto& row : table.rows) {
        if (!row[column].number()) continue;
        const std::string text = file_text_of(table.columns[column], row[column]);
        const std::size_t point = text.find('.');
        if (point != std::string::npos) places = std::max(places, text.size() - point - 1);
    }
    return static_cast<int>(std::min(places, most));
}

/// The columns that a form shows, by the name that they have in it.
Table with_columns(Table table, std::string Column::*name) {
    Table chosen{table.name, {}, {}, std::move(table.caption), std::move(table.nothing)};
    chosen.rows.resize(table.rows.size());
    for (std::size_t c = 0; c < table.columns.size(); ++c) {
        if ((table.columns[c].*name).empty()) continue;
        chosen.columns.push_back(std::move(table.columns[c]));
        for (std::size_t r = 0; r < table.rows.size(); ++r)
            chosen.rows[r].push_back(std::move(table.rows[r][c]));
    }
    return chosen;
}

} // namespace

std::string file_text_of(const Column& column, const Cell& cell) {
    return std::visit(
        Overloaded{[](std::monostate) { return std::string(); },
                   [](bool truth) { return std::string(truth ? "true" : "false"); },
                   [](std::int64_t whole) { return std::to_string(whole); },
                   [&](double number) {
                       return column.exact == in_full ? shortest(number)
                                                      : rounded(number, column.exact);
                   },
                   [](const std::string& text) { return text; },
                   [](const std::vector<std::string>& texts) { return join(texts, ";"); },
                   [](const std::shared_ptr<const Json>& json) { return json->dump(); }},
        cell.value());
}

bool is_words(CellKind kind) {
    return kind == CellKind::text || kind == CellKind::right || kind == CellKind::item;
}

Column Column::json(std::string its_path) && {
    path = std::move(its_path);
    return std::move(*this);
}

Column Column::on_page(std::string its_header, std::string what_it_means) && {
    page = std::move(its_header);
    about = std::move(what_it_means);
    return std::move(*this);
}

Column Column::without_title() && {
    untitled = true;
    return std::move(*this);
}

Column Column::if_any() && {
    omitted = true;
    return std::move(*this);
}

namespace as {

Column text(std::string key, std::string header) {
    return column_of(CellKind::text, std::move(key), std::move(header), 0, in_full);
}
Column right(std::string key, std::string header) {
    return column_of(CellKind::right, std::move(key), std::move(header), 0, in_full);
}
Column item(std::string key, std::string header) {
    return column_of(CellKind::item, std::move(key), std::move(header), 0, in_full);
}
Column whole(std::string key, std::string header) {
    return column_of(CellKind::whole, std::move(key), std::move(header), 0, 0);
}
Column number(std::string key, int exact) {
    return column_of(CellKind::number, std::move(key), {}, 0, exact);
}
Column number(std::string key, std::string header, int places, int exact) {
    return column_of(CellKind::number, std::move(key), std::move(header), places, exact);
}
Column amount(std::string key, std::string header, int places, int exact) {
    return column_of(CellKind::amount, std::move(key), std::move(header), places, exact);
}
Column share(std::string key, std::string header, int places, int exact) {
    return column_of(CellKind::share, std::move(key), std::move(header), places, exact);
}
Column gain(std::string key, std::string header, int places, int exact) {
    return column_of(CellKind::gain, std::move(key), std::move(header), places, exact);
}
Column json(std::string path) {
    return column_of(CellKind::text, {}, {}, 0, in_full).json(std::move(path));
}

} // namespace as

Cell::Cell() = default;
Cell::Cell(std::string text) : value_(std::move(text)) {}
Cell::Cell(const char* text) : value_(std::string(text)) {}
Cell::Cell(double number) : value_(number) {}
Cell::Cell(std::int64_t whole) : value_(whole) {}
Cell::Cell(std::vector<std::string> texts) : value_(std::move(texts)) {}
Cell::Cell(bool truth) : value_(truth) {}
Cell::Cell(const Cell&) = default;
Cell::Cell(Cell&&) noexcept = default;
Cell& Cell::operator=(const Cell&) = default;
Cell& Cell::operator=(Cell&&) noexcept = default;
Cell::~Cell() = default;

Cell Cell::of(Json json) {
    Cell cell;
    cell.value_ = std::make_shared<const Json>(std::move(json));
    return cell;
}

Cell::Look& Cell::look() {
    if (!look_) look_ = std::make_shared<Look>();
    return *look_;
}

Cell Cell::said(std::string words) && {
    look().words = std::move(words);
    look().has_words = true;
    return std::move(*this);
}

Cell Cell::shown_if(bool shown) && {
    if (!shown) look().hidden = true;
    return std::move(*this);
}

Cell Cell::explained(std::string meaning) && {
    look().meaning = std::move(meaning);
    return std::move(*this);
}

Cell Cell::in(const Ink& ink) && {
    look().ink = ink;
    return std::move(*this);
}

bool Cell::empty() const {
    return std::holds_alternative<std::monostate>(value_);
}

std::optional<double> Cell::number() const {
    if (look_ && look_->hidden) return std::nullopt;
    if (const auto* number = std::get_if<double>(&value_)) return *number;
    if (const auto* whole = std::get_if<std::int64_t>(&value_)) return static_cast<double>(*whole);
    return std::nullopt;
}

std::string Cell::meaning() const {
    return look_ ? look_->meaning : std::string();
}

std::optional<Ink> Cell::ink() const {
    return look_ ? look_->ink : std::nullopt;
}

const std::string* Cell::words() const {
    return look_ && look_->has_words ? &look_->words : nullptr;
}

void Table::append(const Table& other) {
    rows.insert(rows.end(), other.rows.begin(), other.rows.end());
}

std::string words_of(const Column& column, const Cell& cell, const std::string& nothing) {
    if (const std::string* words = cell.words()) return *words;
    if (const auto number = cell.number())
        return is_words(column.kind) ? file_text_of(column, cell) : number_words(column, *number);
    if (!is_words(column.kind)) return nothing;
    if (const auto* texts = std::get_if<std::vector<std::string>>(&cell.value()))
        return join(*texts, ", ");
    return file_text_of(column, cell);
}

namespace {

/// Whether people see a column: it has a header, and is not one that is left out with nothing in
/// it.
bool is_shown(const Table& table, std::size_t n) {
    const Column& column = table.columns[n];
    const bool nothing =
        column.omitted && std::all_of(table.rows.begin(), table.rows.end(),
                                      [&](const auto& row) { return row[n].empty(); });
    return (!column.header.empty() || column.untitled) && !nothing;
}

} // namespace

std::string terminal_text(const Table& table, std::size_t indent) {
    std::vector<bool> shown;
    for (std::size_t i = 0; i < table.columns.size(); ++i) shown.push_back(is_shown(table, i));
    std::vector<TextTable::Column> columns;
    for (std::size_t i = 0; i < table.columns.size(); ++i) {
        const CellKind kind = table.columns[i].kind;
        const bool left = kind == CellKind::text || kind == CellKind::item;
        if (shown[i])
            columns.push_back({table.columns[i].header, left ? Align::left : Align::right});
    }
    if (columns.empty() || table.rows.empty()) return {};
    TextTable text(std::move(columns));
    for (const auto& row : table.rows) {
        std::vector<std::string> cells;
        for (std::size_t i = 0; i < row.size(); ++i)
            if (shown[i]) cells.push_back(words_of(table.columns[i], row[i], table.nothing));
        text.row(std::move(cells));
    }
    return text.text(indent);
}

std::string terminal_key(const Table& table, std::size_t indent) {
    std::size_t widest = 0;
    const auto told = [](const Column& column) {
        return !column.header.empty() && !column.about.empty();
    };
    for (const Column& column : table.columns)
        if (told(column)) widest = std::max(widest, characters(column.header));
    std::string text;
    for (const Column& column : table.columns) {
        if (!told(column)) continue;
        const std::string label =
            column.header + std::string(widest - characters(column.header) + 2, ' ');
        text += std::string(indent, ' ') + folded(label + column.about, 108, indent + widest + 2) +
                "\n";
    }
    return text;
}

std::string csv_text(const Table& table) {
    std::string text;
    std::vector<std::string> headers;
    for (const Column& column : table.columns)
        if (!column.key.empty()) headers.push_back(column.key);
    append_line(text, headers);
    for (const auto& row : table.rows) {
        std::vector<std::string> cells;
        for (std::size_t i = 0; i < row.size(); ++i)
            if (!table.columns[i].key.empty())
                cells.push_back(file_text_of(table.columns[i], row[i]));
        append_line(text, cells);
    }
    return text;
}

Json row_json(const Table& table, const std::vector<Cell>& row) {
    Json object = Json::object();
    for (std::size_t i = 0; i < row.size(); ++i) {
        const Column& column = table.columns[i];
        if (column.path.empty() || (column.omitted && row[i].empty())) continue;
        Json* place = &object;
        for (const std::string& part : split(column.path, '/')) place = &(*place)[part];
        *place = json_of(row[i]);
    }
    return object;
}

Json rows_json(const Table& table) {
    Json list = Json::array();
    for (const auto& row : table.rows) list.push_back(row_json(table, row));
    return list;
}

Table page_table(Table table, std::string name, std::string caption) {
    Table page = with_columns(std::move(table), &Column::page);
    for (Column& column : page.columns) column.header = column.page;
    page.name = std::move(name);
    page.caption = std::move(caption);
    return page;
}

Table page_of_files(Table table, std::string name, std::string caption) {
    Table page = with_columns(std::move(table), &Column::key);
    for (std::size_t c = 0; c < page.columns.size(); ++c) {
        Column& column = page.columns[c];
        if (column.about.empty()) column.about = meaning_of_column(page.name, column.key);
        column.header = column.key;
        std::replace(column.header.begin(), column.header.end(), '_', ' ');
        if (column.key == "item") column.kind = CellKind::item;
        if (column.kind == CellKind::right) column.kind = CellKind::text;
        if (column.kind == CellKind::share) column.places = 0;
        if (column.kind != CellKind::number && column.kind != CellKind::amount) continue;
        column.places = places_seen(page, c);
        column.kind = column.places == 0 ? CellKind::whole : CellKind::number;
    }
    page.name = std::move(name);
    page.caption = std::move(caption);
    return page;
}

} // namespace panoplon
