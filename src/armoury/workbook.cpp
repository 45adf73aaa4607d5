#include "armoury/workbook_parts.h"

#include "armoury/bounds.h"
#include "base/text.h"

#include <charconv>
#include <cmath>
#include <fmt/format.h>
#include <zip.h>

namespace panoplon {

namespace {

constexpr std::size_t most_rows = 1u << 20;
constexpr std::size_t most_sheet_columns = 1u << 14;

void close_archive(zip* archive) {
    if (archive) zip_discard(archive);
}

} // namespace

Archive::Archive(const std::string& bytes) : zip_(nullptr, close_archive) {
    zip_error_t error;
    zip_error_init(&error);
    zip_source_t* source = zip_source_buffer_create(bytes.data(), bytes.size(), 0, &error);
    if (source) zip_.reset(zip_open_from_source(source, ZIP_RDONLY, &error));
    if (source && !zip_) zip_source_free(source);
    zip_error_fini(&error);
    if (!zip_)
        throw UnreadableWorkbook{
            "it is no workbook, or one that is locked by a password or damaged"};
}

std::optional<std::string> Archive::part(const std::string& path) const {
    const zip_int64_t index = zip_name_locate(zip_.get(), path.c_str(), 0);
    if (index < 0) return std::nullopt;
    zip_stat_t stat;
    zip_stat_init(&stat);
    const auto number = static_cast<zip_uint64_t>(index);
    if (zip_stat_index(zip_.get(), number, 0, &stat) != 0 || (stat.valid & ZIP_STAT_SIZE) == 0)
        throw UnreadableWorkbook{fmt::format("its part '{}' can't be read", printable(path))};
    constexpr std::size_t largest_part = 16 * largest_file;
    if (stat.size > largest_part)
        throw UnreadableWorkbook{fmt::format("its part '{}' has {} bytes; at most {} are read",
                                             printable(path), stat.size, largest_part)};
    std::string text(stat.size, '\0');
    zip_file_t* file = zip_fopen_index(zip_.get(), number, 0);
    const zip_int64_t read = file ? zip_fread(file, text.data(), text.size()) : -1;
    if (file) zip_fclose(file);
    if (read != static_cast<zip_int64_t>(text.size()))
        throw UnreadableWorkbook{fmt::format("its part '{}' is damaged", printable(path))};
    return text;
}

void Archive::load(const std::string& path, pugi::xml_document& into) const {
    const auto text = part(path);
    if (!text) return;
    const auto result = into.load_buffer(text->data(), text->size(),
                                         pugi::parse_default | pugi::parse_ws_pcdata_single);
    if (!result)
        throw UnreadableWorkbook{
            fmt::format("its part '{}' is damaged: {}", printable(path), result.description())};
}

void SheetFiller::put(std::size_t row, std::size_t column, std::string text) {
    if (text.empty()) return;
    if (row >= most_rows || column >= most_sheet_columns || ++cells_ > most_cells)
        throw UnreadableWorkbook{
            fmt::format("its sheet '{}' is larger than {} rows, {} columns or {} filled cells",
                        printable(sheet_.name), most_rows, most_sheet_columns, most_cells)};
    if (sheet_.rows.size() <= row) sheet_.rows.resize(row + 1);
    std::vector<std::string>& cells = sheet_.rows[row];
    if (cells.size() <= column) cells.resize(column + 1);
    cells[column] = std::move(text);
}

std::string shown_number(double value, bool as_percentage) {
    const double shown = as_percentage ? value * 100 : value;
    const std::string digits = fmt::format("{:.15g}", shown);
    double tidy = shown;
    std::from_chars(digits.data(), digits.data() + digits.size(), tidy);
    return shortest(tidy) + (as_percentage ? "%" : "");
}

Result<std::vector<WorkbookSheet>> read_workbook(const std::string& bytes) {
    try {
        const Archive archive(bytes);
        return archive.part("content.xml") ? read_open_document(archive)
                                           : read_office_open(archive);
    } catch (const UnreadableWorkbook& unreadable) {
        return Failure{Cause::file, unreadable.why, {}};
    }
}

} // namespace panoplon
