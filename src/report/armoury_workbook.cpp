#include "report/armoury_workbook.h"

#include "armoury/cell_numbers.h"
#include "armoury/keys.h"
#include "armoury/workbook_parts.h"
#include "base/text.h"
#include "report/workbook_memory.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// What a column's cells may be: words, or the ids in another sheet.
struct Choices {
    std::vector<std::string> words;
    std::string range;
};

class ArmouryWorkbook {
  public:
    ArmouryWorkbook(lxw_workbook* workbook, const WrittenTables& written)
        : workbook_(workbook),
          written_(written),
          header_(workbook_add_format(workbook)) {
        format_set_bold(header_);
        format_set_bottom(header_, LXW_BORDER_THIN);
    }

    void write(const WrittenTable& table) {
        lxw_worksheet* const sheet = workbook_add_worksheet(workbook_, table.kind.c_str());
        worksheet_freeze_panes(sheet, 1, 1);
        for (std::size_t c = 0; c < table.headers.size(); ++c) {
            const auto column = static_cast<lxw_col_t>(c);
            worksheet_write_string(sheet, 0, column, table.headers[c].c_str(), header_);
            worksheet_set_column(sheet, column, column, width_of(table, c), nullptr);
            if (c > 0) offer_choices(sheet, column, choices_of(table, table.headers[c]));
        }
        for (std::size_t r = 0; r < table.rows.size(); ++r)
            for (std::size_t c = 0; c < table.rows[r].size(); ++c)
                write_cell(sheet, static_cast<lxw_row_t>(r + 1), static_cast<lxw_col_t>(c),
                           table.rows[r][c]);
    }

  private:
    static constexpr lxw_row_t last_offered_row = 5000;
    static constexpr std::size_t most_letters_of_choices = 255; ///< as the format has it

    static double width_of(const WrittenTable& table, std::size_t column) {
        std::size_t letters = characters(table.headers[column]);
        for (const auto& row : table.rows) letters = std::max(letters, characters(row[column]));
        constexpr std::size_t widest = 50;
        return static_cast<double>(std::min(letters, widest)) * 1.15 + 1;
    }

    /// A number as one, unless the workbook would round it.
    static void write_cell(lxw_worksheet* sheet, lxw_row_t row, lxw_col_t column,
                           const std::string& text) {
        if (text.empty()) return;
        const auto number = plain_number(text);
        if (number && shown_number(*number, false) == shortest(*number))
            worksheet_write_number(sheet, row, column, *number, nullptr);
        else
            worksheet_write_string(sheet, row, column, text.c_str(), nullptr);
    }

    [[nodiscard]] Choices choices_of(const WrittenTable& table, const std::string& header) const {
        const auto key = locate_key(table.kind, header);
        if (!key) return {};
        const KeyRow& row = *key->row;
        if (row.type == Type::choice) return {split(row.names, '|'), {}};
        if (row.type == Type::truth) return {{"true", "false"}, {}};
        if (row.type != Type::reference) return {};
        for (const WrittenTable& other : written_.tables)
            if (other.kind == row.names)
                return {{}, fmt::format("='{}'!$A$2:$A${}", other.kind, other.rows.size() + 1)};
        return {};
    }

    static void offer_choices(lxw_worksheet* sheet, lxw_col_t column, Choices choices) {
        if (choices.words.empty() && choices.range.empty()) return;
        if (join(choices.words, ",").size() > most_letters_of_choices) return;
        lxw_data_validation offered = {};
        std::vector<char*> words;
        for (std::string& word : choices.words) words.push_back(word.data());
        words.push_back(nullptr);
        if (choices.range.empty()) {
            offered.validate = LXW_VALIDATION_TYPE_LIST;
            offered.value_list = words.data();
        } else {
            offered.validate = LXW_VALIDATION_TYPE_LIST_FORMULA;
            offered.value_formula = choices.range.data();
        }
        // What is new may be written in another sheet first, or afterwards.
        offered.error_type = LXW_VALIDATION_ERROR_TYPE_WARNING;
        worksheet_data_validation_range(sheet, 1, column, last_offered_row, column, &offered);
    }

    lxw_workbook* workbook_;
    const WrittenTables& written_;
    lxw_format* header_;
};

} // namespace

Result<std::string> armoury_workbook(const WrittenTables& written) {
    return workbook_in_memory([&](lxw_workbook* workbook) {
        ArmouryWorkbook sheets(workbook, written);
        for (const WrittenTable& table : written.tables) sheets.write(table);
    });
}

} // namespace panoplon
