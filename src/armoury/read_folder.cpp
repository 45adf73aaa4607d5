#include "armoury/files.h"

#include "base/text.h"

#include <algorithm>
#include <filesystem>
#include <fmt/format.h>
#include <fstream>

namespace panoplon {

namespace fs = std::filesystem;

namespace {

bool has_table_name(const fs::path& path) {
    return path.extension() == ".toml" || path.extension() == ".csv";
}

bool hidden(const fs::path& path) {
    return path.filename().string().starts_with('.');
}

/// Paths below the folder, relative and sorted, so that every machine reads in one order. Folders
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
            left_out.push_back(fs::relative(it->path(), root, error).generic_string());
            continue;
        }
        if (has_table_name(it->path())) found.push_back(fs::relative(it->path(), root, error));
    }
    std::sort(found.begin(), found.end());
    std::sort(left_out.begin(), left_out.end());
    return found;
}

/// Adds a file, or a mistake in its place.
void read_file(const fs::path& root, const fs::path& relative, Sources& sources, Sink& sink) {
    const std::string path = relative.generic_string();
    const auto refuse = [&](std::string why, std::string hint = {}) {
        const std::int32_t index = sources.add(path, "");
        sink.mistake({index, 0, 0, 0}, std::move(why), std::move(hint));
    };
    std::error_code error;
    const fs::path full = root / relative;
    if (fs::is_directory(full, error))
        return refuse("a folder with the name of a file", "rename it, or move its files up");
    if (!fs::is_regular_file(full, error)) return refuse("not a file that can be read");
    const auto size = fs::file_size(full, error);
    if (!error && size > largest_file)
        return refuse(fmt::format("{} bytes; files of at most {} are read", size, largest_file));
    std::ifstream in(full, std::ios::binary);
    std::string text((std::istreambuf_iterator<char>(in)), std::istreambuf_iterator<char>());
    if (!in) return refuse("can't be read");
    if (text.starts_with("\xef\xbb\xbf")) text.erase(0, 3);
    const auto invalid = invalid_utf8(text);
    const auto nul = text.find('\0');
    const std::int32_t index =
        sources.add(path, invalid || nul != std::string::npos ? std::string() : text);
    if (invalid) {
        const auto line =
            std::count(text.begin(), text.begin() + static_cast<std::ptrdiff_t>(*invalid), '\n');
        sink.mistake({index, static_cast<std::int32_t>(line + 1), 1, 0},
                     fmt::format("byte 0x{:02x} is not UTF-8 text",
                                 static_cast<unsigned char>(text[*invalid])),
                     "save the file as UTF-8");
    } else if (nul != std::string::npos) {
        sink.mistake({index, 0, 0, 0}, "holds a NUL byte: not a text file");
    }
}

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
            paths.empty() ? "it has no .toml or .csv file at all"
                          : fmt::format("it has {}", counted(paths.size(), "other file"));
        sink.mistake({}, fmt::format("'{}' has no armoury.toml; {}", folder, found),
                     "an armoury is a folder whose root file is armoury.toml; "
                     "`panoplon demo DIR` writes an example");
        return sources;
    }
    for (const fs::path& path : paths) read_file(root, path, sources, sink);
    return sources;
}

} // namespace panoplon
