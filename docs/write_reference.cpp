// Writes the reference pages from the tables of keys and of commands; with --shell, what shells and
// `man` read. usage: write_reference [--shell] DIR
#include "armoury/bounds.h"
#include "armoury/keys.h"
#include "base/text.h"
#include "cli/command.h"
#include "cli/shell_files.h"
#include "diagnostic/doubt_kinds.h"
#include "show/written_files.h"

#include <cstdio>
#include <fmt/format.h>

namespace panoplon {

namespace {

std::string bounds_text() {
    return fmt::format(
        "What is beyond is refused with a word. At most {} files, of {} bytes each (TOML {}) and "
        "{} "
        "together, in folders {} deep; {} definitions, of which {} are stats, {} pools, {} "
        "effects; {} cells of a table; "
        "{} "
        "letters of an id; {} parts of a key; {} patterns like one another, things in things, "
        "sockets in "
        "sockets and stats made from stats; {} foes of an encounter. Links are read as what they "
        "are called, and folders that they lead to once.\n\n",
        most_files, largest_file, largest_toml, most_bytes, deepest_folder, most_definitions,
        most_stats, most_pools, most_effects, most_cells, longest_id, deepest_key, longest_chain,
        most_foes);
}

/// A `|` would end a table cell.
std::string cell(std::string_view text) {
    std::string safe;
    for (const char c : text) safe += c == '|' ? std::string("\\|") : std::string(1, c);
    return safe;
}

std::string value_words(const KeyRow& row) {
    switch (row.type) {
    case Type::choice: return "`" + join(split(row.names, '|'), "` or `") + "`";
    case Type::reference: return fmt::format("{} id", row.names);
    case Type::references: return fmt::format("list of {} ids", row.names);
    case Type::counts: return fmt::format("table of {} ids and whole numbers", row.names);
    case Type::texts:
        return row.names.empty() ? type_words(row.type) : fmt::format("list of {}s", row.names);
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

constexpr const char* table_head =
    "| key | value | bounds | unit | default | meaning |\n|---|---|---|---|---|---|\n";

std::string row_text(const KeyRow& row) {
    const std::string otherwise = row.required           ? "**needed**"
                                  : row.fallback.empty() ? ""
                                                         : fmt::format("`{}`", cell(row.fallback));
    return fmt::format("| `{}` | {} | {} | {} | {} | {} |\n", row.path, cell(value_words(row)),
                       bounds_words(row), row.unit, otherwise, cell(row.meaning));
}

std::string rows_text(std::span<const KeyRow> rows) {
    std::string text = table_head;
    for (const KeyRow& row : rows) text += row_text(row);
    return text + "\n";
}

/// A kind's own keys; what all bearers have stands once for all.
std::string keys_text(const KindRow& kind) {
    if (!kind.keys_of.empty())
        return fmt::format("It has the keys of [{0}.ID](#{0}id).\n\n", kind.keys_of);
    std::string text = table_head;
    for (const KeyRow& row : written_rows()) {
        if (row.kind != kind.name) continue;
        text += row.type != Type::bearer
                    ? row_text(row)
                    : fmt::format("| `{0}add` `{0}percent` `{0}times` `{0}trigger` | | | | | [what "
                                  "every bearer has](#what-every-bearer-has) |\n",
                                  row.path.empty() ? "" : std::string(row.path) + ".");
    }
    return text + "\n";
}

std::string doubts_text() {
    std::string text = "## Doubts\n\nWhat is legal but surely not meant. `check` tells them, "
                       "`check --strict` fails on them; `allow = [\"twin\"]` in a thing's "
                       "definition silences one there, and `note` says why.\n\n"
                       "| doubt | what it is | what to do |\n|---|---|---|\n";
    for (const DoubtRow& row : doubt_rows())
        text += fmt::format("| `{}` | {} | {} |\n", row.name, cell(row.meaning), cell(row.remedy));
    return text;
}

std::string format_page() {
    std::string page = R"(# The format of an armoury

An armoury is a folder. Every `*.toml`, `*.csv` and `*.tsv` below it is read, and each sheet of every workbook (`*.xlsx`, `*.ods`); `armoury.toml` must be there. A thing is `[kind.id]`; an id is lower-case letters, digits and `_`. A path like `use.cooldown` is a key inside of a table: `use = { cooldown = 10 }`; `band.from` a key of each table in a list: `[[carry.band]]`.

In a table the first header names the kind and its column holds the ids; other headers are the paths below, with the name of a stat, pool, item or damage type after a table of them (`percent.haste`, `use.restore.health`), and with a number, from 1, after a list of tables (`trigger.1.on`). The bare id of a stat, or its name, means `add.STAT`. Lists are separated by `;`, an empty cell is a key not given, and so is one that says `n/a` or `-`.

Tables are read as spreadsheets save them:

- Cells stand between commas, semicolons or tabs; a line `sep=;` may say which. UTF-8, UTF-16 and Windows-1252 are told apart, and what was not UTF-8 is noted.
- Rows above the headers are titles. Rows and columns that begin with `#` are left out, and columns that `ignore` in `[armoury]` names.
- Headers and words in any case: `Max Health` is `max_health`, `Plain` is `plain`. Where a reference is no id it is a name: `Old guard` is `old_guard`.
- In a file or a sheet that is named after a kind (`items.csv`, a sheet `Items`, `items.xlsx`) the column of ids may be headed `id` or be missing: then ids are made from `name`, without marks and apostrophes (`Fool's cap` is `fools_cap`), which is noted.
- Numbers as `+3`, `2,5`, `1.200,50` or `5 %`. What could be two, as `1,200`, is a mistake that names both; in a table that has decimals after commas `1.200` is one too. A percentage is a hundredth in a column of shares, chances or factors and stands as it is in one of percent points; elsewhere it is a mistake.
- In a workbook a formula is its result, a number is what is shown of it, with at most 15 digits, and a percentage has its sign. A sheet without a table is left out, which is noted.
- A `'` before `=`, `+`, `-` or `@` at the beginning of a cell, which keeps a spreadsheet from computing it, is none of it.

`panoplon new FILE.csv --table item --for ARMOURY` writes an empty table with its headers; `panoplon export ARMOURY --xlsx DIR` an armoury as a workbook, with lists to choose from.

Formulas have `+ - * / ^`, comparisons, `&&`, `||`, `a ? b : c`, and the functions abs, ceil, clamp(x, low, high), exp, floor, ln, max, min, round, sqrt. They see `self.STAT`, `self.POOL`, `self.POOL_share` and `level`; in a fight also `self.EFFECT_active` (1 or 0), `self.EFFECT_copies`, `self.load`, `time` and `strength`, and where there is a target the same of `other`; `mitigated` sees `amount`.

This page is made from the table that the reader itself uses (src/armoury/key_table.cpp).

)";
    page += "## How much an armoury may hold\n\n";
    page += bounds_text();
    page += "## What every definition with an id has\n\n";
    page += rows_text(common_rows());
    page += "## What every bearer has\n\nA bearer is anything that changes stats and triggers "
            "effects.\n\n";
    page += rows_text(bearer_rows());
    for (const KindRow& kind : kind_rows()) {
        page += fmt::format("## [{}{}]\n\n{}{}.\n\n", kind.name, kind.single ? "" : ".ID",
                            static_cast<char>(std::toupper(kind.meaning.front())),
                            kind.meaning.substr(1));
        page += keys_text(kind);
    }
    return page + doubts_text();
}

std::string commands_page() {
    std::string page = "# Commands\n\nThis page is made from the table that the program itself "
                       "uses (src/cli/commands.cpp).\n\n```\n" +
                       help_text() + "```\n\n";
    for (const CommandRow& command : command_rows())
        page += fmt::format("## {}\n\n```\n{}```\n\n", command.name, help_text(command));
    return page;
}

using Pages = std::vector<std::pair<std::string, std::string>>;

int write(const std::string& folder, const Pages& pages) {
    for (const auto& [name, text] : pages)
        if (!write_whole(folder + "/" + name, text).ok()) return 1;
    return 0;
}

int run(const std::vector<std::string>& arguments) {
    if (arguments.size() == 1)
        return write(arguments[0],
                     {{"format.md", format_page()}, {"commands.md", commands_page()}});
    if (arguments.size() == 2 && arguments[0] == "--shell")
        return write(arguments[1], {{"panoplon.1", man_page_text()},
                                    {"panoplon.bash", bash_completion_text()},
                                    {"_panoplon", zsh_completion_text()}});
    std::fputs("usage: write_reference [--shell] DIR\n", stderr);
    return 2;
}

} // namespace

} // namespace panoplon

int main(int count, char** arguments) {
    return panoplon::run({arguments + 1, arguments + count});
}
