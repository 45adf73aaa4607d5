#include "cli/command.h"
#include "cli/shell_files.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// The code point that begins at `at`, which moves to its last byte. The text is well-formed UTF-8.
unsigned code_point(std::string_view text, std::size_t& at) {
    const auto first = static_cast<unsigned char>(text[at]);
    const unsigned more = first >= 0xF0 ? 3 : first >= 0xE0 ? 2 : 1;
    unsigned point = first & (0x3Fu >> more);
    for (unsigned i = 0; i < more; ++i)
        point = point << 6 | (static_cast<unsigned char>(text[++at]) & 0x3Fu);
    return point;
}

/// Text as the macros take it: a dash that can be copied, no line that begins a request, and
/// letters beyond ASCII by their numbers.
std::string escaped(std::string_view text) {
    std::string safe;
    for (std::size_t at = 0; at < text.size(); ++at) {
        const char c = text[at];
        if (static_cast<unsigned char>(c) >= 0x80) {
            safe += fmt::format("\\[u{:04X}]", code_point(text, at));
            continue;
        }
        if ((c == '.' || c == '\'') && (safe.empty() || safe.back() == '\n')) safe += "\\&";
        if (c == '\\')
            safe += "\\e";
        else if (c == '-')
            safe += "\\-";
        else
            safe += c;
    }
    return safe;
}

std::string bold(std::string_view text) {
    return "\\fB" + escaped(text) + "\\fR";
}
std::string placed(std::string_view text) {
    return "\\fI" + escaped(text) + "\\fR";
}

std::string option_text(const OptionRow& row) {
    const std::string dashes = row.name.size() == 1 ? "-" : "--";
    return ".TP\n" + bold(dashes + std::string(row.name)) +
           (row.value.empty() ? "" : " " + placed(row.value)) + "\n" + escaped(row.help) + ".\n";
}

std::string command_text(const CommandRow& command) {
    std::string text =
        fmt::format(".SS {} {}\n{}.\n.PP\n{}\n", bold(command.name), placed(command.operands),
                    escaped(command.summary), escaped(command.details));
    for (const OptionRow& row : command.options) text += option_text(row);
    return text + fmt::format(".PP\nExample: {}\n", bold(command.example));
}

} // namespace

std::string man_page_text() {
    std::string text =
        ".\\\" Made from the program's table of commands.\n"
        ".TH PANOPLON 1 \"\" \"panoplon " PANOPLON_VERSION "\" \"User Commands\"\n"
        ".SH NAME\npanoplon \\- judges combat gear\n"
        ".SH SYNOPSIS\n.B panoplon\n.I COMMAND ARMOURY\n[\\fITHING\\fR ...] [\\fIoptions\\fR]\n"
        ".SH DESCRIPTION\n"
        "Panoplon wears the gear of an armoury, fights with it and plays characters through "
        "levels, thousands of times, to chart power and to find gear that is dominant or useless. "
        "An armoury is a folder of plain files, TOML and CSV, with armoury.toml in it.\n"
        ".PP\nBegin with \\fBpanoplon demo\\fR.\n"
        ".SH COMMANDS\n";
    for (const CommandRow& command : command_rows()) text += command_text(command);
    text += ".SH OPTIONS OF EVERY COMMAND\n";
    for (const OptionRow& row : common_options()) text += option_text(row);
    text += ".PP\nEvery command that reads an armoury also takes \\fB\\-\\-set\\fR "
            "\\fIKEY=VALUE\\fR, a what\\-if for that run.\n"
            ".SH EXIT STATUS\n";
    constexpr std::pair<const char*, const char*> exits[] = {
        {"0", "done"},
        {"1", "the armoury has mistakes, or what was asked is refused"},
        {"2", "wrong usage"},
        {"3", "a file can't be read or written"},
        {"4", "a comparison or a check failed"},
        {"130", "stopped by the user"}};
    for (const auto& [number, meaning] : exits)
        text += fmt::format(".TP\n.B {}\n{}.\n", number, escaped(meaning));
    return text + ".SH ENVIRONMENT\n"
                  ".TP\n.B NO_COLOR\nWhen set and not empty, nothing is coloured.\n"
                  ".TP\n.B COLUMNS\nThe width of tables on a terminal; its own when not set.\n";
}

} // namespace panoplon
