#include "show/written_files.h"

#include "armoury/files.h"

#include <cerrno>
#include <cstring>
#include <filesystem>
#include <fmt/format.h>
#include <fstream>
#include <spawn.h>
#include <sstream>
#include <sys/wait.h>
#include <unistd.h>

extern char** environ;

namespace panoplon {

namespace fs = std::filesystem;

namespace {

Failure file_failure(const std::string& what, const std::string& path, const std::string& why) {
    return {Cause::file, fmt::format("can't {} '{}': {}", what, path, why), {}};
}

/// Runs gnuplot on a script in a folder; its messages go into gnuplot.log there, which is removed
/// when all is well.
Result<std::string> run_gnuplot(const fs::path& folder, const std::string& script) {
    const std::string log = (folder / (script + ".log")).string();
    const std::string directory = folder.string();
    posix_spawn_file_actions_t actions;
    posix_spawn_file_actions_init(&actions);
    posix_spawn_file_actions_addopen(&actions, STDIN_FILENO, "/dev/null", 0, 0);
    posix_spawn_file_actions_addopen(&actions, STDOUT_FILENO, "/dev/null", 1, 0);
    constexpr int write_create_truncate = 01 | 0100 | 01000;
    posix_spawn_file_actions_addopen(&actions, STDERR_FILENO, log.c_str(), write_create_truncate,
                                     0644);
    posix_spawn_file_actions_addchdir_np(&actions, directory.c_str());
    std::string program = "gnuplot";
    std::string no_startup = "-d";
    std::string file = script;
    char* arguments[] = {program.data(), no_startup.data(), file.data(), nullptr};
    pid_t child = 0;
    const int failed = posix_spawnp(&child, "gnuplot", &actions, nullptr, arguments, environ);
    posix_spawn_file_actions_destroy(&actions);
    std::error_code ignored;
    if (failed != 0) {
        fs::remove(log, ignored);
        return Failure{
            Cause::file,
            fmt::format("can't run gnuplot, which draws the figures: {}", std::strerror(failed)),
            "install the package gnuplot-nox"};
    }
    int status = 0;
    while (waitpid(child, &status, 0) < 0 && errno == EINTR) {
    }
    if (!WIFEXITED(status) || WEXITSTATUS(status) != 0)
        return Failure{Cause::file,
                       fmt::format("gnuplot could not draw '{}'", (folder / script).string()),
                       fmt::format("its message is in {}", log)};
    fs::remove(log, ignored);
    return log;
}

} // namespace

Result<std::string> write_whole(const std::string& path, const std::string& content) {
    const std::string beside = fmt::format("{}.part-{}", path, getpid());
    {
        std::ofstream out(beside, std::ios::binary | std::ios::trunc);
        out.write(content.data(), static_cast<std::streamsize>(content.size()));
        out.close();
        if (!out) {
            const std::string why = std::strerror(errno);
            std::error_code ignored;
            fs::remove(beside, ignored);
            return file_failure("write", path, why);
        }
    }
    std::error_code error;
    fs::rename(beside, path, error);
    if (!error) return path;
    std::error_code ignored;
    fs::remove(beside, ignored);
    return file_failure("write", path, error.message());
}

// Draws into a folder of its own inside of the target, then moves what is whole.
Result<std::vector<std::string>> write_figure(const std::string& target_folder,
                                              const Figure& figure) {
    const fs::path folder(target_folder);
    std::error_code error;
    const fs::path workshop = folder / fmt::format(".{}-{}", figure.name, getpid());
    fs::create_directory(workshop, error);
    if (error) return file_failure("make the folder", workshop.string(), error.message());
    std::vector<std::string> written;
    std::optional<Failure> failure;
    const auto put = [&](const std::string& name, const std::string& content) {
        const Result<std::string> done = write_whole((workshop / name).string(), content);
        if (!done.ok() && !failure) failure = done.failure();
    };
    put(figure.name + ".gp", figure.script);
    put(figure.name + ".csv", csv_text(figure.data));
    if (!failure) {
        const Result<std::string> drawn = run_gnuplot(workshop, figure.name + ".gp");
        if (!drawn.ok()) failure = drawn.failure();
    }
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

Result<std::vector<std::string>> write_document(const std::string& folder, const std::string& name,
                                                const Json& framed, const Document& document) {
    std::error_code error;
    fs::create_directories(folder, error);
    if (error) return file_failure("make the folder", folder, error.message());
    std::vector<std::string> written;
    const fs::path root(folder);
    const auto put = [&](const std::string& file,
                         const std::string& content) -> std::optional<Failure> {
        const Result<std::string> done = write_whole((root / file).string(), content);
        if (!done.ok()) return done.failure();
        written.push_back(done.value());
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
        const Result<std::vector<std::string>> drawn = write_figure(folder, figure);
        if (!drawn.ok()) return drawn.failure();
        written.insert(written.end(), drawn.value().begin(), drawn.value().end());
    }
    return written;
}

} // namespace panoplon
