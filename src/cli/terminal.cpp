#include "cli/terminal.h"

#include <charconv>
#include <cstdlib>
#include <fmt/format.h>
#include <regex>
#include <sys/ioctl.h>
#include <unistd.h>

namespace panoplon {

namespace {

bool is_set(const char* variable) {
    const char* value = std::getenv(variable);
    return value && *value;
}

bool terminal_has_colour() {
    const char* kind = std::getenv("TERM");
    return isatty(STDOUT_FILENO) && !is_set("NO_COLOR") && kind && std::string(kind) != "dumb";
}

} // namespace

Result<bool> wants_colour(const Invocation& invocation) {
    const std::string word = invocation.has("colour") ? invocation.value("colour") : "auto";
    if (word == "auto") return terminal_has_colour();
    if (word == "always" || word == "never") return word == "always";
    return Failure{
        Cause::usage, fmt::format("--colour is '{}'; allowed: auto, always, never", word), {}};
}

std::size_t terminal_width() {
    constexpr std::size_t least = 40;
    if (is_set("COLUMNS")) {
        const std::string text = std::getenv("COLUMNS");
        std::size_t columns = 0;
        const auto read = std::from_chars(text.data(), text.data() + text.size(), columns);
        if (read.ec == std::errc() && read.ptr == text.data() + text.size() && columns > 0)
            return std::max(columns, least);
    }
    winsize size{};
    if (!isatty(STDOUT_FILENO) || ioctl(STDOUT_FILENO, TIOCGWINSZ, &size) != 0) return 0;
    return size.ws_col > 0 ? std::max<std::size_t>(size.ws_col, least) : 0;
}

std::string coloured(const std::string& text) {
    // Bold with a dark yellow or red that reads on light and dark grounds alike.
    struct Rule {
        std::regex words;
        const char* with;
    };
    static const Rule rules[] = {
        {std::regex(
             "(  |— |→ )(dominant|useless|burden|outclassed|unreachable)\\b(?! by +nothing)"),
         "$1\x1b[1;31m$2\x1b[0m"},
        {std::regex("(: )(refused|error)\\b"), "$1\x1b[1;31m$2\x1b[0m"},
        {std::regex("(: )(doubt) \\("), "$1\x1b[1;33m$2\x1b[0m ("},
        {std::regex("(NOT borne out)"), "\x1b[1;31m$1\x1b[0m"},
    };
    std::string result = text;
    for (const Rule& rule : rules) result = std::regex_replace(result, rule.words, rule.with);
    return result;
}

} // namespace panoplon
