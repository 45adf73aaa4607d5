#include "armoury/bounds.h"
#include "armoury/cells.h"
#include "armoury/encoding.h"
#include "armoury/files.h"
#include "armoury/table_layout.h"
#include "armoury/workbook.h"

#include "base/disk.h"
#include "base/text.h"

#include <algorithm>
#include <filesystem>
#include <fmt/format.h>
#include <set>

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

/// What stands below a folder, so that every machine reads in one order; a link is called what it
/// is called, wherever it leads, and followed once.
class FolderWalk {
  public:
    explicit FolderWalk(fs::path root) : root_(std::move(root)) {}

    /// Files of tables, relative and sorted; why one could not be told, where that is so.
    std::optional<Failure> walk() {
        if (auto failure = walk(root_, 0)) return failure;
        std::sort(files_.begin(), files_.end());
        std::sort(left_out_.begin(), left_out_.end());
        return std::nullopt;
    }
    [[nodiscard]] const std::vector<fs::path>& files() const { return files_; }
    /// Folders of results.
    [[nodiscard]] const std::vector<std::string>& left_out() const { return left_out_; }

  private:
    std::optional<Failure> walk(const fs::path& folder, std::size_t depth) {
        std::error_code error;
        const fs::path itself = fs::canonical(folder, error);
        if (!error && !seen_.insert(itself).second) return std::nullopt;
        if (depth > deepest_folder)
            return Failure{Cause::refused,
                           fmt::format("folders in '{}' lie more than {} deep", root_.string(),
                                       deepest_folder),
                           {}};
        std::vector<fs::path> entries;
        auto at = fs::directory_iterator(folder, error);
        for (; !error && at != fs::directory_iterator(); at.increment(error))
            if (!hidden(at->path())) entries.push_back(at->path());
        if (error)
            return Failure{
                Cause::file,
                fmt::format("can't read the folder '{}': {}", folder.string(), error.message()),
                {}};
        std::sort(entries.begin(), entries.end());
        for (const fs::path& path : entries) {
            std::error_code unknown; // of a link that leads nowhere: its name tells what it is
            const bool is_folder = fs::is_directory(path, unknown);
            const fs::path relative = path.lexically_relative(root_);
            if (is_folder && fs::exists(path / results_mark, unknown)) {
                left_out_.push_back(relative.generic_string());
                continue;
            }
            if (has_table_name(path)) files_.push_back(relative);
            if (files_.size() > most_files)
                return Failure{
                    Cause::refused,
                    fmt::format("'{}' has more than {} files", root_.string(), most_files),
                    {}};
            if (!is_folder) continue;
            if (auto failure = walk(path, depth + 1)) return failure;
        }
        return std::nullopt;
    }

    fs::path root_;
    std::vector<fs::path> files_;
    std::vector<std::string> left_out_;
    std::set<fs::path> seen_; ///< folders, by where they lie
};

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
    FolderReader(fs::path root, const OpenTexts& open, Sources& sources, Sink& sink)
        : root_(std::move(root)),
          open_(open),
          sources_(sources),
          sink_(sink) {}

    /// Adds a file, or a mistake in its place; a Failure where the disk does not give it.
    std::optional<Failure> read(const fs::path& relative) {
        path_ = relative.generic_string();
        if (is_other_workbook(relative)) {
            sources_.note(fmt::format("{}: not read; save it as .xlsx, .ods or .csv", path_));
            return std::nullopt;
        }
        if (const auto open = open_.find(path_); open != open_.end()) {
            if (is_short_enough(relative, open->second.size())) add_text(open->second);
            return std::nullopt;
        }
        if (!can_be_read(relative)) return std::nullopt;
        const std::string full = (root_ / relative).string();
        std::string bytes;
        if (const auto why = read_bytes(full, bytes))
            return Failure{Cause::file, fmt::format("can't read '{}': {}", full, *why), {}};
        if (is_workbook(relative))
            add_workbook(bytes);
        else if (bytes.starts_with("\xff\xfe") || bytes.starts_with("\xfe\xff"))
            is_text_table(relative) ? add_table(bytes)
                                    : refuse("it is UTF-16", "save the file as UTF-8");
        else if (is_text_table(relative))
            add_table(bytes);
        else
            add_text(bytes.starts_with("\xef\xbb\xbf") ? bytes.substr(3) : bytes);
        return std::nullopt;
    }

  private:
    /// A file, and not too long; otherwise a mistake says so.
    bool can_be_read(const fs::path& relative) {
        std::error_code error;
        const fs::path full = root_ / relative;
        if (fs::is_directory(full, error))
            refuse("a folder with the name of a file", "rename it, or move its files up");
        else if (!fs::is_regular_file(full, error))
            refuse("not a file that can be read");
        else if (const auto size = fs::file_size(full, error);
                 error || is_short_enough(relative, size))
            return true;
        return false;
    }

    bool is_short_enough(const fs::path& relative, std::size_t size) {
        const std::size_t most = relative.extension() == ".toml" ? largest_toml : largest_file;
        if (size > most) refuse(fmt::format("{} bytes; at most {} are read", size, most));
        return size <= most;
    }

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
        bytes_ += text.size();
        if (bytes_ > most_bytes)
            return refuse(fmt::format("with it the armoury has more than {} bytes", most_bytes));
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
    const OpenTexts& open_;
    Sources& sources_;
    Sink& sink_;
    std::string path_;      ///< of what is read now
    std::size_t bytes_ = 0; ///< of all texts
};

/// Also what can't be read, or a link that leads nowhere.
bool is_there(const fs::path& path) {
    std::error_code error;
    return fs::exists(fs::symlink_status(path, error));
}

/// Files of tables directly in a folder.
std::size_t count_files(const fs::path& folder) {
    std::size_t count = 0;
    std::error_code error;
    for (auto it = fs::directory_iterator(folder, error); !error && it != fs::directory_iterator();
         it.increment(error))
        count += has_table_name(it->path()) && !hidden(it->path());
    return count;
}

} // namespace

Result<Sources> read_folder(const std::string& folder, Sink& sink, const OpenTexts& open) {
    const fs::path root(folder);
    std::error_code error;
    if (!fs::exists(root, error))
        return Failure{Cause::file, fmt::format("there is no folder '{}'", folder),
                       "`panoplon demo DIR` writes an example armoury into DIR/armoury"};
    if (!fs::is_directory(root, error))
        return Failure{Cause::file, fmt::format("'{}' is not a folder", folder),
                       "name the folder that holds armoury.toml"};
    Sources sources;
    FolderWalk walk(root);
    if (!is_there(root / "armoury.toml")) {
        const std::size_t others = count_files(root);
        const std::string found = others == 0
                                      ? "it has no file of an armoury at all"
                                      : fmt::format("it has {}", counted(others, "other file"));
        sink.mistake({}, fmt::format("'{}' has no armoury.toml; {}", folder, found),
                     "an armoury is a folder whose root file is armoury.toml; "
                     "`panoplon demo DIR` writes an example");
        return sources;
    }
    if (auto failure = walk.walk()) return *failure;
    for (const std::string& path : walk.left_out()) sources.leave_out(path);
    FolderReader reader(root, open, sources, sink);
    for (const fs::path& path : walk.files())
        if (auto failure = reader.read(path)) return *failure;
    return sources;
}

} // namespace panoplon
