// Writes the reference pages from the tables of keys and of commands. usage: write_reference DIR
#include "armoury/keys.h"
#include "base/text.h"
#include "cli/command.h"
#include "output/folder.h"

#include <cstdio>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// A `|` would end a table cell.
std::string cell(std::string_view text) {
    std::string safe;
    for (const char c : text) safe += c == '|' ? std::string("\\|") : std::string(1, c);
    return safe;
}

std::string value_words(const KeyRow& row) {
    switch (row.type) {
    case Type::choice: return "`" + join(split(row.names, '|'), "` or `") + "`";
    case Type::reference: return fmt::format("id of a {}", row.names);
    case Type::references: return fmt::format("list of ids of {}s", row.names);
    default: return type_words(row.type);
    }
}

std::string bounds_words(const KeyRow& row) {
    const bool bounded = row.low != 0 || row.high != 0;
    if (!bounded) return "";
    constexpr double as_good_as_endless = 1e9;
    if (row.high < as_good_as_endless)
        return fmt::format("{} to {}", shortest(row.low), shortest(row.high));
    return row.low > -as_good_as_endless ? fmt::format("{} or more", shortest(row.low)) : "";
}

void append_keys(std::string& page, std::string_view kind) {
    page += "| key | value | bounds | unit | default | meaning |\n|---|---|---|---|---|---|\n";
    for (const KeyRow& row : key_rows()) {
        if (row.kind != kind) continue;
        const std::string otherwise = row.required ? "**needed**"
                                      : row.fallback.empty()
                                          ? ""
                                          : fmt::format("`{}`", cell(row.fallback));
        page += fmt::format("| `{}` | {} | {} | {} | {} | {} |\n", row.path, cell(value_words(row)),
                            bounds_words(row), row.unit, otherwise, cell(row.meaning));
    }
    page += "\n";
}

std::string format_page() {
    std::string page =
        "# The format of an armoury\n\n"
        "An armoury is a folder. Every `*.toml` and `*.csv` below it is read; `armoury.toml` must "
        "be there. A thing is `[kind.id]`; an id is "
        "lower-case letters, digits and `_`. A path like `use.cooldown` is a key inside of a "
        "table: `use = { cooldown = 10 }`; `band.from` a key of each "
        "table in a list: `[[carry.band]]`.\n\n"
        "In a CSV table the first header names the kind and its column holds the ids; other "
        "headers are the paths below, with the name of a stat, pool, "
        "item or damage type after a table of them (`percent.haste`, `use.restore.health`). The "
        "bare id of a stat means `add.STAT`. Lists are separated by "
        "`;`, an empty cell is a key not given.\n\n"
        "Formulas have `+ - * / ^`, comparisons, `&&`, `||`, `a ? b : c`, and the functions abs, "
        "ceil, clamp(x, low, high), exp, floor, ln, max, min, round, "
        "sqrt. They see `self.STAT`, `self.POOL`, `self.POOL_share` and `level`; in a fight also "
        "`time` and `strength`, and where there is a target the same "
        "of `other`; `mitigated` sees `amount`.\n\n"
        "This page is made from the table that the reader itself uses (src/armoury/keys.cpp).\n\n";
    page += "Every kind with an id also has `name`, `about`, `note` (why it is so) and `todo` "
            "(listed by `check`), all texts.\n\n";
    for (const KindRow& kind : kind_rows()) {
        page += fmt::format("## [{}{}]\n\n{}{}.\n\n", kind.name, kind.single ? "" : ".ID",
                            static_cast<char>(std::toupper(kind.meaning.front())),
                            kind.meaning.substr(1));
        append_keys(page, kind.name);
    }
    return page;
}

std::string commands_page() {
    std::string page = "# Commands\n\nThis page is made from the table that the program itself "
                       "uses (src/cli/commands.cpp).\n\n```\n" +
                       help_text() + "```\n\n";
    for (const CommandRow& command : command_rows())
        page += fmt::format("## {}\n\n```\n{}```\n\n", command.name, help_text(command));
    return page;
}

int write(const std::string& folder) {
    for (const auto& [name, text] :
         {std::pair{"format.md", format_page()}, {"commands.md", commands_page()}})
        if (!write_whole(folder + "/" + name, text).ok()) return 1;
    return 0;
}

} // namespace

} // namespace panoplon

int main(int count, char** arguments) {
    if (count == 2) return panoplon::write(arguments[1]);
    std::fputs("usage: write_reference DIR\n", stderr);
    return 2;
}
