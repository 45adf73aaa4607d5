// The text of the files that were read, and places in it.
#pragma once

#include <cstddef>
#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

namespace panoplon {

/// A place in a file. Lines and columns count from 1, columns in characters; `file` is an index
/// into Sources, -1 for a place that is no file (an option, the whole folder).
struct Span {
    std::int32_t file = -1;
    std::int32_t line = 0;
    std::int32_t column = 0;
    std::int32_t length = 0; ///< characters underlined; 0 is shown as 1

    auto operator<=>(const Span&) const = default;
};

/// Where the n-th character of a text, from 1, begins: its end where it has fewer.
[[nodiscard]] std::size_t byte_of(std::string_view text, std::int32_t character);

/// Stands between the path of a workbook and the name of one of its sheets.
inline constexpr std::string_view sheet_mark = ": ";

/// Every file of an armoury, in the order of reading. Paths are relative to the armoury's folder.
class Sources {
  public:
    struct File {
        std::string path; ///< of a sheet: `gear.xlsx: Items`
        std::string text; ///< UTF-8; of a sheet: its cells as RFC 4180 has them
        std::vector<std::size_t> line_starts;
        std::string was;              ///< the encoding that it was saved in; empty: UTF-8
        char separator = 0;           ///< of a table's cells; 0: it is none
        std::int32_t header_line = 0; ///< of a table
        [[nodiscard]] bool is_sheet() const { return path.find(sheet_mark) != std::string::npos; }
    };

    /// Keeps the text and returns the file's index.
    std::int32_t add(std::string path, std::string text, std::string was = {});
    /// Says that a file is a table.
    void is_table(std::int32_t index, char separator, std::int32_t header_line);
    [[nodiscard]] const File& file(std::int32_t index) const;
    [[nodiscard]] const std::vector<File>& files() const { return files_; }

    /// Folders that were not read, since they hold results.
    void leave_out(std::string folder) { left_out_.push_back(std::move(folder)); }
    [[nodiscard]] const std::vector<std::string>& left_out() const { return left_out_; }

    /// What was read otherwise than it stands, as `gear.csv: read as Windows-1252`.
    void note(std::string text) { notes_.push_back(std::move(text)); }
    [[nodiscard]] const std::vector<std::string>& notes() const { return notes_; }

    /// The text of a line without its end; empty when the span has no line.
    [[nodiscard]] std::string_view line(const Span& span) const;
    /// The span of `length` bytes at a byte offset of a file.
    [[nodiscard]] Span at(std::int32_t file, std::size_t offset, std::size_t length = 1) const;
    /// The byte of its file at which a place that has a line and a column begins.
    [[nodiscard]] std::size_t offset(const Span& span) const;
    /// The number of the cell of a table, from 0, that a place is in.
    [[nodiscard]] std::size_t cell_at(const Span& span) const;
    /// The header over a cell of a table; empty where there is none.
    [[nodiscard]] std::string header_over(const Span& span) const;

  private:
    std::vector<File> files_;
    std::vector<std::string> left_out_, notes_;
};

} // namespace panoplon
