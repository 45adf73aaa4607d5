#include "show/written_files.h"

#include "armoury/files.h"
#include "base/disk.h"
#include "base/text.h"

#include <cerrno>
#include <charconv>
#include <csignal>
#include <cstring>
#include <fcntl.h>
#include <filesystem>
#include <fmt/format.h>
#include <fstream>
#include <spawn.h>
#include <sstream>
#include <sys/wait.h>
#include <tuple>
#include <unistd.h>

extern char** environ;

namespace panoplon {

namespace fs = std::filesystem;

namespace {

Failure file_failure(const std::string& what, const std::string& path, const std::string& why) {
    return {Cause::file, fmt::format("can't {} '{}': {}", what, path, why), {}};
}

/// The first line of what a program complained of.
std::string first_line(const std::string& text) {
    return text.substr(0, text.find('\n'));
}

/// Runs gnuplot on a script in a folder. It is no part of the group that a terminal's Ctrl-C is
/// for: a figure that is begun is finished.
std::optional<Failure> run_gnuplot(const fs::path& folder, const std::string& script) {
    const std::string log = (folder / (script + ".log")).string();
    const std::string directory = folder.string();
    posix_spawn_file_actions_t actions;
    posix_spawn_file_actions_init(&actions);
    posix_spawn_file_actions_addopen(&actions, STDIN_FILENO, "/dev/null", O_RDONLY, 0);
    posix_spawn_file_actions_addopen(&actions, STDOUT_FILENO, "/dev/null", O_WRONLY, 0);
    posix_spawn_file_actions_addopen(&actions, STDERR_FILENO, log.c_str(),
                                     O_WRONLY | O_CREAT | O_TRUNC, 0644);
    posix_spawn_file_actions_addchdir_np(&actions, directory.c_str());
    posix_spawnattr_t attributes;
    posix_spawnattr_init(&attributes);
    posix_spawnattr_setflags(&attributes, POSIX_SPAWN_SETPGROUP);
    posix_spawnattr_setpgroup(&attributes, 0);
    std::string program = "gnuplot";
    std::string no_startup = "-d";
    std::string file = script;
    char* arguments[] = {program.data(), no_startup.data(), file.data(), nullptr};
    pid_t child = 0;
    const int failed = posix_spawnp(&child, "gnuplot", &actions, &attributes, arguments, environ);
    posix_spawn_file_actions_destroy(&actions);
    posix_spawnattr_destroy(&attributes);
    if (failed != 0)
        return Failure{
            Cause::file,
            fmt::format("can't run gnuplot, which draws the figures: {}", std::strerror(failed)),
            "install the package gnuplot-nox"};
    int status = 0;
    while (waitpid(child, &status, 0) < 0 && errno == EINTR) {
    }
    if (WIFEXITED(status) && WEXITSTATUS(status) == 0) return std::nullopt;
    return Failure{Cause::file,
                   fmt::format("gnuplot could not draw '{}'", (folder / script).string()),
                   first_line(file_text(log))};
}

constexpr std::string_view png_begins = "\x89PNG\r\n\x1a\n";
constexpr std::string_view png_ends = "IEND\xae\x42\x60\x82"; // its last chunk
constexpr std::string_view svg_begins = "<?xml", svg_ends = "</svg>";

/// Whether a picture is all there: gnuplot does not tell when the disk is full.
bool is_whole_picture(const std::string& path, std::string_view begins, std::string_view ends) {
    const std::string bytes = file_text(path);
    const std::string_view text = trim(bytes);
    return text.starts_with(begins) && text.ends_with(ends);
}

/// Draws what stands in the workshop, and syncs it.
std::optional<Failure> draw_figure(const fs::path& workshop, const std::string& name) {
    if (auto failure = run_gnuplot(workshop, name + ".gp")) return failure;
    for (const auto& [ending, begins, ends] :
         {std::tuple(".png", png_begins, png_ends), std::tuple(".svg", svg_begins, svg_ends)}) {
        const std::string path = (workshop / (name + ending)).string();
        if (!is_whole_picture(path, begins, ends))
            return Failure{Cause::file,
                           fmt::format("gnuplot could not write all of '{}{}'", name, ending),
                           "is the disk full?"};
        if (const auto why = sync_file(path)) return file_failure("write", path, *why);
    }
    return std::nullopt;
}

/// What this process calls something on its way to `name`.
std::string unfinished_name(std::string_view name, pid_t process) {
    return fmt::format("{}-{}", name, process);
}

std::string workshop_of(const std::string& figure) {
    return "." + figure;
}

std::string part_of(const fs::path& file) {
    return file.filename().string() + ".part";
}

/// Takes away what runs that were killed left on the way to `name`.
void clear_unfinished(const fs::path& folder, const std::string& name) {
    std::error_code error;
    for (const fs::directory_entry& entry : fs::directory_iterator(folder, error)) {
        const std::string there = entry.path().filename().string();
        if (!there.starts_with(name + "-")) continue;
        pid_t process = 0;
        const char* const end = there.data() + there.size();
        const auto [at, fault] = std::from_chars(there.data() + name.size() + 1, end, process);
        const bool made_by_process = fault == std::errc() && at == end && process > 0;
        if (made_by_process && kill(process, 0) != 0 && errno == ESRCH)
            fs::remove_all(entry.path(), error);
    }
}

} // namespace

Result<std::string> write_whole(const std::string& path, const std::string& content) {
    const fs::path target(path);
    const fs::path folder = target.has_parent_path() ? target.parent_path() : ".";
    if (is_no_file(path)) return file_failure("write", path, "what is there is no file");
    clear_unfinished(folder, part_of(target));
    const std::string beside = (folder / unfinished_name(part_of(target), getpid())).string();
    std::error_code ignored;
    if (const auto why = write_synced(beside, content)) {
        fs::remove(beside, ignored);
        return file_failure("write", path, *why);
    }
    std::error_code error;
    fs::rename(beside, path, error);
    if (!error) return path;
    fs::remove(beside, ignored);
    return file_failure("write", path, error.message());
}

// Draws into a folder of its own inside of the target, then moves what is whole.
Result<std::vector<std::string>> write_figure(const std::string& target_folder,
                                              const Figure& figure) {
    const fs::path folder(target_folder);
    clear_unfinished(folder, workshop_of(figure.name));
    std::error_code error;
    const fs::path workshop = folder / unfinished_name(workshop_of(figure.name), getpid());
    fs::create_directory(workshop, error);
    if (error) return file_failure("make the folder", workshop.string(), error.message());
    std::vector<std::string> written;
    std::optional<Failure> failure;
    for (const auto& [ending, content] :
         {std::pair(".gp", figure.script), std::pair(".csv", csv_text(figure.data))}) {
        const std::string file = figure.name + ending;
        if (failure) break;
        if (const auto why = write_synced((workshop / file).string(), content))
            failure = file_failure("write", (folder / file).string(), *why);
    }
    if (!failure) failure = draw_figure(workshop, figure.name);
    for (const char* ending : {".png", ".svg", ".csv", ".gp"}) {
        if (failure) break;
        const fs::path target = folder / (figure.name + ending);
        fs::rename(workshop / (figure.name + ending), target, error);
        if (error)
            failure = file_failure("write", target.string(), error.message());
        else
            written.push_back(target.string());
    }
    fs::remove_all(workshop, error);
    if (failure) return *failure;
    return written;
}

std::string file_text(const std::string& path) {
    std::ifstream file(path, std::ios::binary);
    std::ostringstream text;
    if (file) text << file.rdbuf();
    return text.str();
}

Result<WrittenDocument> write_document(const std::string& folder, const std::string& name,
                                       const Json& framed, const Document& document,
                                       const Watch& watch) {
    std::error_code error;
    fs::create_directories(folder, error);
    if (error) return file_failure("make the folder", folder, error.message());
    WrittenDocument written;
    const fs::path root(folder);
    const auto put = [&](const std::string& file,
                         const std::string& content) -> std::optional<Failure> {
        const Result<std::string> done = write_whole((root / file).string(), content);
        if (!done.ok()) return done.failure();
        written.paths.push_back(done.value());
        return std::nullopt;
    };
    // So that whoever reads an armoury around it knows it for results.
    const Result<std::string> marked =
        write_whole((root / results_mark).string(),
                    "This folder holds results of panoplon. An armoury around it leaves it out.\n");
    if (!marked.ok()) return marked.failure();
    if (const auto failure =
            put(name + ".json", framed.dump(2, ' ', false, Json::error_handler_t::replace) + "\n"))
        return *failure;
    for (const Table& table : document.tables)
        if (const auto failure = put(table.name + ".csv", csv_text(table))) return *failure;
    for (const TextFile& file : document.files) {
        fs::create_directories((root / file.path).parent_path(), error);
        if (error) return file_failure("make the folder for", file.path, error.message());
        if (const auto failure = put(file.path, file.text)) return *failure;
    }
    for (const Figure& figure : document.figures) {
        if (watch.stopped()) {
            written.left_out.push_back(figure.name);
            continue;
        }
        const Result<std::vector<std::string>> drawn = write_figure(folder, figure);
        if (!drawn.ok()) return drawn.failure();
        written.paths.insert(written.paths.end(), drawn.value().begin(), drawn.value().end());
    }
    return written;
}

} // namespace panoplon
