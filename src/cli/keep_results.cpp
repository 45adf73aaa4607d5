#include "cli/session.h"
#include "store/results_file.h"

#include <algorithm>
#include <ctime>
#include <filesystem>
#include <fmt/chrono.h>

namespace panoplon {

namespace {

/// What was asked for beside the armoury, as far as it bears on what is found.
std::string asked_words(const Invocation& invocation) {
    constexpr std::string_view without_bearing[] = {
        "json",  "o",      "threads", "q",       "help",      "detail", "timeline", "log",
        "write", "colour", "ids",     "fail-on", "tolerance", "title",  "anew",     "once"};
    std::vector<std::string> words(invocation.operands().begin() + 1, invocation.operands().end());
    for (const OptionRow& row : options_of(invocation.command())) {
        if (std::find(std::begin(without_bearing), std::end(without_bearing), row.name) !=
            std::end(without_bearing))
            continue;
        for (const std::string& value : invocation.values(row.name))
            words.push_back(row.value.empty() ? fmt::format("--{}", row.name)
                                              : fmt::format("--{} {}", row.name, value));
    }
    return join(words, " ");
}

std::string time_now() {
    return fmt::format("{:%Y-%m-%dT%H:%M:%SZ}", fmt::gmtime(std::time(nullptr)));
}

} // namespace

int keep_results(const std::string& folder, const Invocation& invocation, const Armoury& armoury,
                 const Document& document, std::uint64_t seed, int otherwise) {
    if (document.tables.empty()) return otherwise;
    const Run run{std::string(invocation.command().name),
                  asked_words(invocation),
                  armoury.name,
                  armoury.hash,
                  PANOPLON_VERSION,
                  seed,
                  time_now(),
                  document.partial || was_interrupted()};
    const Result<std::string> kept = keep_run(
        (std::filesystem::path(folder) / results_file_name).string(), run, document.tables);
    if (!kept.ok()) return report_failure(kept.failure());
    if (!invocation.has("q")) tell_beside(invocation, fmt::format("added to {}\n", kept.value()));
    return otherwise;
}

} // namespace panoplon
