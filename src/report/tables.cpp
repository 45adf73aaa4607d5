#include "report/report.h"

#include "base/text.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

std::optional<double> number_in(const std::string& text) {
    double number = 0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), number);
    if (error != std::errc() || end != text.data() + text.size() || !std::isfinite(number))
        return std::nullopt;
    return number;
}

/// What the cells of a column say of it: numbers with as many decimals as any of them has.
ReportColumn column_of(const CsvTable& csv, std::size_t at,
                       const std::vector<std::string>& shares) {
    const std::string& header = csv.headers[at];
    ReportColumn column;
    column.header = header;
    std::replace(column.header.begin(), column.header.end(), '_', ' ');
    if (header == "item") {
        column.kind = CellKind::item;
        return column;
    }
    std::size_t places = 0;
    bool any = false;
    for (const auto& row : csv.rows) {
        const std::string& text = row[at];
        if (text.empty()) continue;
        if (!number_in(text)) return column;
        any = true;
        const std::size_t point = text.find('.');
        if (point != std::string::npos) places = std::max(places, text.size() - point - 1);
    }
    if (!any) return column;
    constexpr std::size_t most_places = 3;
    const bool share = std::find(shares.begin(), shares.end(), header) != shares.end();
    column.places = share ? 0 : static_cast<int>(std::min(places, most_places));
    column.kind = share ? CellKind::share : places == 0 ? CellKind::whole : CellKind::number;
    return column;
}

} // namespace

std::string cell_words(const ReportColumn& column, const Cell& cell) {
    if (column.kind == CellKind::text || column.kind == CellKind::item)
        return cell.text.empty() ? "—" : printable(cell.text);
    if (!cell.number) return "—";
    constexpr double in_percent = 100;
    switch (column.kind) {
    case CellKind::whole: return fmt::format("{:.0f}", *cell.number);
    case CellKind::share: return fmt::format("{:.{}f} %", *cell.number * in_percent, column.places);
    case CellKind::gain: return signed_percent(*cell.number, column.places);
    default: return fmt::format("{:.{}f}", *cell.number, column.places);
    }
}

ReportTable table_of(const CsvTable& csv, std::string name, std::string caption,
                     const std::vector<std::string>& shares) {
    ReportTable table{std::move(name), std::move(caption), {}, {}};
    for (std::size_t i = 0; i < csv.headers.size(); ++i)
        table.columns.push_back(column_of(csv, i, shares));
    for (const auto& row : csv.rows) {
        std::vector<Cell> cells;
        for (std::size_t i = 0; i < row.size(); ++i) {
            const CellKind kind = table.columns[i].kind;
            const bool words = kind == CellKind::text || kind == CellKind::item;
            cells.push_back(words ? Cell(row[i]) : Cell(number_in(row[i])));
        }
        table.rows.push_back(std::move(cells));
    }
    return table;
}

} // namespace panoplon
