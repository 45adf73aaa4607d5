#include "cli/session.h"

#include "cli/terminal.h"
#include "show/armoury/show_check.h"
#include "show/text_table.h"
#include "show/written_files.h"

#include <algorithm>
#include <charconv>
#include <filesystem>
#include <limits>

namespace panoplon {

namespace fs = std::filesystem;

namespace {

std::optional<std::uint64_t> whole_number(const std::string& text) {
    std::uint64_t number = 0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), number);
    if (error != std::errc() || end != text.data() + text.size() || text.empty())
        return std::nullopt;
    return number;
}

Json mistakes_document(const Invocation& invocation, const ReadArmoury& read) {
    Json json = {{"panoplon", PANOPLON_VERSION}, {"command", invocation.command().name}};
    json["mistakes"] = rows_json(diagnostics_table(read, Severity::mistake));
    json["mistake_count"] = read.sink.mistake_count();
    return json;
}

std::string dump(const Json& json) {
    return json.dump(2, ' ', false, Json::error_handler_t::replace) + "\n";
}

} // namespace

int report_failure(const Failure& failure) {
    outlet().complain(fmt::format("panoplon: {}\n", printable(failure.message)));
    if (!failure.hint.empty())
        outlet().complain(fmt::format("    hint: {}\n", printable(failure.hint)));
    return static_cast<int>(failure.cause);
}

std::string text_for_outlet(const Invocation& invocation, const std::string& text) {
    const Result<bool> colour = wants_colour(invocation);
    std::string shown = printable_lines(text);
    if (!outlet().on_terminal()) return shown;
    shown = fitted(shown, terminal_width());
    return colour.ok() && colour.value() ? coloured(shown) : shown;
}

void tell_beside(const Invocation& invocation, const std::string& text) {
    if (invocation.has("json"))
        outlet().complain(text);
    else
        static_cast<void>(outlet().say(printable_lines(text)));
}

bool lies_in(const std::string& path, const std::string& folder) {
    std::error_code error;
    // What is not there yet is only found canonical from the root on.
    const auto canonical = [&](const std::string& some) {
        const fs::path whole = error ? fs::path() : fs::absolute(some, error);
        return error ? fs::path() : fs::weakly_canonical(whole, error);
    };
    const fs::path inner = canonical(path);
    const fs::path outer = canonical(folder);
    if (error || outer.empty()) return false;
    const auto [in_outer, in_inner] =
        std::mismatch(outer.begin(), outer.end(), inner.begin(), inner.end());
    return in_outer == outer.end();
}

std::optional<Failure> refuse_into_armoury(const std::string& path, const std::string& armoury) {
    if (!lies_in(path, armoury)) return std::nullopt;
    return Failure{
        Cause::refused,
        fmt::format("'{}' lies in the armoury '{}', into which nothing is written", path, armoury),
        "name a folder beside it"};
}

Opened open_armoury(const Invocation& invocation, const std::vector<std::string>& more) {
    std::vector<std::string> changes = invocation.values("set");
    changes.insert(changes.end(), more.begin(), more.end());
    return open_folder(invocation, invocation.operands().front(), changes);
}

void tell_left_out(const Sources& sources) {
    const std::vector<std::string>& folders = sources.left_out();
    if (!folders.empty())
        outlet().complain(fmt::format("note: left out, since {} results: {}\n",
                                      folders.size() == 1 ? "it holds" : "they hold",
                                      join(folders, ", ")));
}

Opened open_folder(const Invocation& invocation, const std::string& folder,
                   const std::vector<std::string>& changes) {
    Opened opened;
    Result<ReadArmoury> read = read_armoury(folder, changes);
    if (!read.ok()) {
        opened.exit = report_failure(read.failure());
        return opened;
    }
    ReadArmoury taken = read.take();
    tell_left_out(taken.sources);
    if (taken.usable()) {
        opened.read = std::move(taken);
        return opened;
    }
    outlet().complain(mistakes_text(taken));
    opened.exit = Exit::refused;
    if (invocation.has("json") && !outlet().say(dump(mistakes_document(invocation, taken))))
        opened.exit = Exit::file_trouble;
    return opened;
}

Result<std::uint64_t> whole_option(const Invocation& invocation, std::string_view name,
                                   std::uint64_t low, std::uint64_t high, std::uint64_t otherwise) {
    if (!invocation.has(name)) return otherwise;
    const std::string text = invocation.value(name);
    const auto number = whole_number(text);
    if (number && *number >= low && *number <= high) return *number;
    return Failure{
        Cause::usage,
        fmt::format("--{} is '{}'; allowed: a whole number from {} to {}", name, text, low, high),
        {}};
}

Result<std::optional<double>> number_option(const Invocation& invocation, std::string_view name,
                                            double low, double high) {
    if (!invocation.has(name)) return std::optional<double>();
    const std::string text = invocation.value(name);
    double number = 0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), number);
    const bool whole = error == std::errc() && end == text.data() + text.size();
    if (whole && number >= low && number <= high) return std::optional<double>(number);
    const bool bounded = high < std::numeric_limits<double>::max();
    return Failure{Cause::usage,
                   fmt::format("--{} is '{}'; allowed: a number from {} {}", name, text,
                               shortest(low), bounded ? "to " + shortest(high) : "on"),
                   {}};
}

Result<std::uint64_t> seed_option(const Invocation& invocation) {
    return whole_option(invocation, "seed", 0, std::numeric_limits<std::uint64_t>::max(), 1);
}

Result<LevelRange> levels_option(const Invocation& invocation, const Armoury& armoury,
                                 LevelRange otherwise) {
    if (!invocation.has("level")) return otherwise;
    const std::string text = invocation.value("level");
    const std::vector<std::string> ends = split(text, '-');
    const auto first = whole_number(ends.front());
    const auto last = whole_number(ends.back());
    if (ends.size() > 2 || !first || !last || *first > 100000 || *last > 100000)
        return Failure{Cause::usage,
                       fmt::format("--level is '{}'; allowed: a level, or two as in 3-12", text),
                       {}};
    const LevelRange range{static_cast<int>(*first), static_cast<int>(*last)};
    if (range.first > range.last)
        return Failure{Cause::usage, fmt::format("--level is '{}': it runs downwards", text),
                       fmt::format("write {}-{}", range.last, range.first)};
    if (!armoury.levels.holds(range.first) || !armoury.levels.holds(range.last))
        return Failure{Cause::refused,
                       fmt::format("--level is '{}'; the armoury has levels {} to {}", text,
                                   armoury.levels.first, armoury.levels.last),
                       {}};
    return range;
}

Result<int> level_option(const Invocation& invocation, const Armoury& armoury,
                         const Loadout& loadout) {
    const int last = std::clamp(loadout.levels.last, armoury.levels.first, armoury.levels.last);
    const Result<LevelRange> range = levels_option(invocation, armoury, {last, last});
    if (!range.ok()) return range.failure();
    if (range.value().first != range.value().last)
        return Failure{
            Cause::usage, fmt::format("'{}' takes one level", invocation.command().name), {}};
    return range.value().first;
}

Json framed(const Invocation& invocation, const Armoury& armoury, const Document& document,
            std::uint64_t seed) {
    Json json = {{"panoplon", PANOPLON_VERSION},
                 {"command", invocation.command().name},
                 {"armoury", {{"name", armoury.name}, {"hash", armoury.hash}}},
                 {"seed", seed},
                 {"partial", document.partial || was_interrupted()}};
    json.update(document.json);
    return json;
}

namespace {

/// Text or JSON on standard output, files into the folder where there is one.
int show_framed(const std::string& folder, const Invocation& invocation, const Document& document,
                const Json& json, int otherwise) {
    if (!outlet().say(invocation.has("json") ? dump(json)
                                             : text_for_outlet(invocation, document.text)))
        return report_failure({Cause::file, "can't write to standard output", {}});
    const bool partial = document.partial || was_interrupted();
    if (partial) outlet().complain("panoplon: stopped before the end; what is shown is partial\n");
    if (!folder.empty()) {
        const StopWish stop;
        const Result<WrittenDocument> written = write_document(
            folder, std::string(invocation.command().name), json, document, stop.later());
        if (!written.ok()) return report_failure(written.failure());
        if (!invocation.has("q"))
            for (const std::string& path : written.value().paths)
                tell_beside(invocation, fmt::format("wrote {}\n", path));
        if (const auto& left_out = written.value().left_out; !left_out.empty()) {
            outlet().complain(
                fmt::format("panoplon: stopped; not drawn: {}\n", join(left_out, ", ")));
            return Exit::interrupted;
        }
    }
    return partial ? static_cast<int>(Exit::interrupted) : otherwise;
}

} // namespace

int show_into(const std::string& folder, const Invocation& invocation, const Armoury& armoury,
              const Document& document, std::uint64_t seed, int otherwise) {
    return show_framed(folder, invocation, document, framed(invocation, armoury, document, seed),
                       otherwise);
}

int show(const Invocation& invocation, const Armoury& armoury, const Document& document,
         std::uint64_t seed, int otherwise) {
    const std::string folder = invocation.value("o");
    const int exit = show_into(folder, invocation, armoury, document, seed, otherwise);
    if (folder.empty() || exit == Exit::file_trouble) return exit;
    return keep_results(folder, invocation, armoury, document, seed, exit);
}

int show_plain(const Invocation& invocation, const Document& document) {
    Json json = {{"panoplon", PANOPLON_VERSION}, {"command", invocation.command().name}};
    json.update(document.json);
    return show_framed(invocation.value("o"), invocation, document, json, Exit::done);
}

int report_fight_error(const ReadArmoury& read, const FightError& error) {
    Diagnostic diagnostic;
    diagnostic.span = error.span;
    diagnostic.message = error.message;
    outlet().complain(render(diagnostic, read.sources));
    return Exit::refused;
}

Result<std::vector<std::string>> write_embedded(std::span<const EmbeddedFile> files,
                                                const std::string& folder) {
    const fs::path root(folder);
    std::error_code error;
    if (fs::exists(root, error) && (!fs::is_directory(root, error) || !fs::is_empty(root, error)))
        return Failure{Cause::refused,
                       fmt::format("'{}' is there already and is not an empty folder", folder),
                       "name one that is absent or empty"};
    fs::create_directories(root, error);
    if (error)
        return Failure{Cause::file,
                       fmt::format("can't make the folder '{}': {}", folder, error.message()),
                       {}};
    std::vector<std::string> written;
    for (const EmbeddedFile& file : files) {
        const Result<std::string> done =
            write_whole((root / file.path).string(), std::string(file.text));
        if (!done.ok()) return done.failure();
        written.push_back(done.value());
    }
    return written;
}

} // namespace panoplon
