#include "report/workbook_charts.h"

#include "base/text.h"
#include "show/plot.h"

#include <fmt/format.h>
#include <optional>

namespace panoplon {

namespace {

constexpr lxw_row_t rows_a_chart = 22;

std::optional<std::size_t> column_named(const Table& table, const std::string& header) {
    for (std::size_t i = 0; i < table.columns.size(); ++i)
        if (table.columns[i].header == header) return i;
    return std::nullopt;
}

/// Rows of a table, one after the other, from 0; `last` belongs.
struct Rows {
    std::size_t first = 0, last = 0;
};

lxw_chart_series* add_series(lxw_chart* chart, const WrittenSheet& sheet, std::size_t x,
                             std::size_t y, Rows rows, const std::string& name,
                             std::size_t number) {
    lxw_chart_series* series = chart_add_series(chart, nullptr, nullptr);
    const auto first = static_cast<lxw_row_t>(rows.first + 1);
    const auto last = static_cast<lxw_row_t>(rows.last + 1);
    const auto x_column = static_cast<lxw_col_t>(x);
    const auto y_column = static_cast<lxw_col_t>(y);
    chart_series_set_categories(series, sheet.name.c_str(), first, x_column, last, x_column);
    chart_series_set_values(series, sheet.name.c_str(), first, y_column, last, y_column);
    chart_series_set_name(series, printable(name).c_str());
    lxw_chart_line line = {};
    line.color = line_look(number).colour;
    line.width = 2;
    chart_series_set_line(series, &line);
    return series;
}

/// Puts charts one below the other, to the right of the table.
class ChartColumn {
  public:
    ChartColumn(const WrittenSheet& sheet, const Table& table)
        : sheet_(sheet),
          column_(static_cast<lxw_col_t>(table.columns.size() + 1)) {}

    lxw_chart* add(lxw_workbook* workbook, const std::string& title, const std::string& x,
                   const std::string& y) {
        lxw_chart* chart = workbook_add_chart(workbook, LXW_CHART_SCATTER_STRAIGHT);
        chart_title_set_name(chart, printable(title).c_str());
        chart_axis_set_name(chart->x_axis, x.c_str());
        chart_axis_set_name(chart->y_axis, y.c_str());
        charts_.push_back(chart);
        return chart;
    }

    /// Once they have their lines.
    void place() const {
        lxw_chart_options options = {};
        options.x_scale = 1.6;
        options.y_scale = 1.4;
        lxw_row_t row = 1;
        for (lxw_chart* chart : charts_) {
            worksheet_insert_chart_opt(sheet_.sheet, row, column_, chart, &options);
            row += rows_a_chart;
        }
    }

  private:
    const WrittenSheet& sheet_;
    lxw_col_t column_;
    std::vector<lxw_chart*> charts_;
};

void chart_curves(lxw_workbook* workbook, const WrittenSheet& sheet, const Table& table) {
    const auto name = column_named(table, "name");
    const auto encounter = column_named(table, "encounter");
    const auto level = column_named(table, "level");
    const auto margin = column_named(table, "even luck");
    if (!name || !encounter || !level || !margin) return;
    const auto words = [&](std::size_t row, std::size_t column) {
        return words_of(table.columns[column], table.rows[row][column], {});
    };
    ChartColumn charts(sheet, table);
    lxw_chart* chart = nullptr;
    std::size_t number = 0;
    for (std::size_t first = 0; first < table.rows.size();) {
        std::size_t last = first;
        while (last + 1 < table.rows.size() && words(last + 1, *name) == words(first, *name))
            ++last;
        const bool another = !chart || words(first - 1, *encounter) != words(first, *encounter);
        if (another) {
            chart = charts.add(workbook, "Margin against " + words(first, *encounter), "level",
                               "margin by even luck");
            number = 0;
        }
        add_series(chart, sheet, *level, *margin, {first, last}, words(first, *name), number++);
        first = last + 1;
    }
    charts.place();
}

void chart_stages(lxw_workbook* workbook, const WrittenSheet& sheet, const Table& table) {
    const auto stage = column_named(table, "stage");
    if (!stage || table.rows.empty()) return;
    ChartColumn charts(sheet, table);
    lxw_chart* chart = nullptr;
    std::size_t number = 0;
    for (const char* percentile : {"p10", "p50", "p90"}) {
        const auto power = column_named(table, fmt::format("power {}", percentile));
        if (!power || !table.rows.front()[*power].number()) continue;
        if (!chart)
            chart = charts.add(workbook, "Power at the end of each stage", "stage", "power");
        add_series(chart, sheet, *stage, *power, {0, table.rows.size() - 1}, percentile, number++);
    }
    charts.place();
}

} // namespace

void add_charts(lxw_workbook* workbook, const WrittenSheet& sheet, const Table& table) {
    chart_curves(workbook, sheet, table);
    chart_stages(workbook, sheet, table);
}

} // namespace panoplon
