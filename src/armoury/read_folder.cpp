#include "armoury/cells.h"
#include "armoury/encoding.h"
#include "armoury/files.h"
#include "armoury/table_layout.h"
#include "armoury/workbook.h"

#include "base/text.h"

#include <algorithm>
#include <filesystem>
#include <fmt/format.h>
#include <fstream>

namespace panoplon {

namespace fs = std::filesystem;

namespace {

bool is_workbook(const fs::path& path) {
    return path.extension() == ".xlsx" || path.extension() == ".ods";
}

bool is_text_table(const fs::path& path) {
    return path.extension() == ".csv" || path.extension() == ".tsv";
}

/// Formats of spreadsheets that are not read; passing them over without a word would lose a table.
bool is_other_workbook(const fs::path& path) {
    const fs::path extension = path.extension();
    return extension == ".xls" || extension == ".xlsm" || extension == ".xlsb" ||
           extension == ".fods" || extension == ".numbers";
}

bool has_table_name(const fs::path& path) {
    return path.extension() == ".toml" || is_text_table(path) || is_workbook(path) ||
           is_other_workbook(path);
}

/// Also what a spreadsheet keeps beside a workbook that it has open.
bool hidden(const fs::path& path) {
    const std::string name = path.filename().string();
    return name.starts_with('.') || name.starts_with("~$");
}

/// Paths below the folder, relative and sorted, so that every machine reads in one order; a link is
/// called what it is called, wherever it leads. Folders
/// of results are left out, and added to `left_out`.
std::vector<fs::path> table_paths(const fs::path& root, std::vector<std::string>& left_out,
                                  std::error_code& error) {
    std::vector<fs::path> found;
    const auto options = fs::directory_options::skip_permission_denied;
    for (auto it = fs::recursive_directory_iterator(root, options, error);
         !error && it != fs::recursive_directory_iterator(); it.increment(error)) {
        if (hidden(it->path())) {
            if (it->is_directory(error)) it.disable_recursion_pending();
            error.clear();
            continue;
        }
        if (fs::exists(it->path() / results_mark, error)) {
            it.disable_recursion_pending();
            left_out.push_back(it->path().lexically_relative(root).generic_string());
            continue;
        }
        if (has_table_name(it->path())) found.push_back(it->path().lexically_relative(root));
    }
    std::sort(found.begin(), found.end());
    std::sort(left_out.begin(), left_out.end());
    return found;
}

/// The sheet as a table of text: a row a line.
std::string text_of(const WorkbookSheet& sheet) {
    std::string text;
    for (const std::vector<std::string>& row : sheet.rows) {
        for (std::size_t i = 0; i < row.size(); ++i) {
            std::string cell = row[i];
            std::replace_if(
                cell.begin(), cell.end(), [](char c) { return c == '\n' || c == '\r'; }, ' ');
            text += (i > 0 ? "," : "") + csv_cell(cell);
        }
        text += '\n';
    }
    return text;
}

/// Reads the files of one armoury into its sources.
class FolderReader {
  public:
    FolderReader(fs::path root, Sources& sources, Sink& sink)
        : root_(std::move(root)),
          sources_(sources),
          sink_(sink) {}

    /// Adds a file, or a mistake in its place.
    void read(const fs::path& relative) {
        path_ = relative.generic_string();
        if (is_other_workbook(relative))
            return sources_.note(
                fmt::format("{}: not read; save it as .xlsx, .ods or .csv", path_));
        std::error_code error;
        const fs::path full = root_ / relative;
        if (fs::is_directory(full, error))
            return refuse("a folder with the name of a file", "rename it, or move its files up");
        if (!fs::is_regular_file(full, error)) return refuse("not a file that can be read");
        const auto size = fs::file_size(full, error);
        if (!error && size > largest_file)
            return refuse(
                fmt::format("{} bytes; files of at most {} are read", size, largest_file));
        std::ifstream in(full, std::ios::binary);
        const std::string bytes((std::istreambuf_iterator<char>(in)),
                                std::istreambuf_iterator<char>());
        if (!in) return refuse("can't be read");
        if (is_workbook(relative)) return add_workbook(bytes);
        if (is_text_table(relative)) return add_table(bytes);
        add_text(bytes.starts_with("\xef\xbb\xbf") ? bytes.substr(3) : bytes);
    }

  private:
    void refuse(std::string why, std::string hint = {}) {
        const std::int32_t index = sources_.add(path_, "");
        sink_.mistake({index, 0, 0, 0}, std::move(why), std::move(hint));
    }

    void refuse_byte(const std::string& text, std::size_t at) {
        const auto line =
            std::count(text.begin(), text.begin() + static_cast<std::ptrdiff_t>(at), '\n');
        const std::int32_t index = sources_.add(path_, "");
        sink_.mistake(
            {index, static_cast<std::int32_t>(line + 1), 1, 0},
            fmt::format("byte 0x{:02x} is not UTF-8 text", static_cast<unsigned char>(text[at])),
            "save the file as UTF-8");
    }

    void add_text(const std::string& text, const std::string& was = {}) {
        if (const auto invalid = invalid_utf8(text)) return refuse_byte(text, *invalid);
        if (text.find('\0') != std::string::npos)
            return refuse("holds a NUL byte: not a text file");
        sources_.add(path_, text, was);
    }

    void add_table(const std::string& bytes) {
        const DecodedText decoded = decode_table(bytes);
        if (decoded.bad_byte && decoded.was.empty()) return refuse_byte(bytes, *decoded.bad_byte);
        if (decoded.bad_byte)
            return refuse(fmt::format("begins as {} and is damaged", decoded.was),
                          "save the file as UTF-8");
        if (!decoded.was.empty()) sources_.note(fmt::format("{}: read as {}", path_, decoded.was));
        add_text(decoded.text, decoded.was);
    }

    void add_workbook(const std::string& bytes) {
        const Result<std::vector<WorkbookSheet>> sheets = read_workbook(bytes);
        if (!sheets.ok()) return refuse(sheets.failure().message);
        const std::string workbook = path_;
        std::vector<std::string> left_out;
        for (const WorkbookSheet& sheet : sheets.value()) {
            path_ = workbook + std::string(sheet_mark) + sheet.name;
            const bool has_table =
                std::any_of(sheet.rows.begin(), sheet.rows.end(),
                            [&](const auto& row) { return has_headers(row, table_name(path_)); });
            if (has_table)
                add_text(text_of(sheet));
            else if (!sheet.rows.empty())
                left_out.push_back(fmt::format("'{}'", sheet.name));
        }
        if (!left_out.empty())
            sources_.note(
                fmt::format("{}: left out, since neither {} nor a row in {} names a kind: {}",
                            workbook, left_out.size() == 1 ? "its name" : "their names",
                            left_out.size() == 1 ? "it" : "them", join(left_out, ", ")));
    }

    fs::path root_;
    Sources& sources_;
    Sink& sink_;
    std::string path_; ///< of what is read now
};

} // namespace

Result<Sources> read_folder(const std::string& folder, Sink& sink) {
    const fs::path root(folder);
    std::error_code error;
    if (!fs::exists(root, error))
        return Failure{Cause::file, fmt::format("there is no folder '{}'", folder),
                       "`panoplon demo DIR` writes an example armoury into DIR/armoury"};
    if (!fs::is_directory(root, error))
        return Failure{Cause::file, fmt::format("'{}' is not a folder", folder),
                       "name the folder that holds armoury.toml"};
    std::vector<std::string> left_out;
    const std::vector<fs::path> paths = table_paths(root, left_out, error);
    if (error)
        return Failure{Cause::file,
                       fmt::format("can't read the folder '{}': {}", folder, error.message()),
                       {}};
    Sources sources;
    for (std::string& path : left_out) sources.leave_out(std::move(path));
    if (std::find(paths.begin(), paths.end(), "armoury.toml") == paths.end()) {
        const std::string found =
            paths.empty() ? "it has no file of an armoury at all"
                          : fmt::format("it has {}", counted(paths.size(), "other file"));
        sink.mistake({}, fmt::format("'{}' has no armoury.toml; {}", folder, found),
                     "an armoury is a folder whose root file is armoury.toml; "
                     "`panoplon demo DIR` writes an example");
        return sources;
    }
    FolderReader reader(root, sources, sink);
    for (const fs::path& path : paths) reader.read(path);
    return sources;
}

} // namespace panoplon
