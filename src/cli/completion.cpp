#include "cli/shell_files.h"

#include "base/text.h"
#include "cli/command.h"
#include "judge/curve/curve.h"
#include "report/sections.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

struct WordRow {
    const char* word;
    Completion completion;
};

using What = Completion::What;

const std::vector<WordRow>& operand_words() {
    static const std::vector<WordRow> rows = {
        {"ARMOURY", {What::folder, ""}},
        {"CHANGED", {What::folder, ""}},
        {"DIR", {What::folder, ""}},
        {"LOADOUT", {What::ids, "loadout"}},
        {"OTHER", {What::ids, "loadout"}},
        {"ENCOUNTER", {What::ids, "encounter"}},
        {"JOURNEY", {What::ids, "journey"}},
        {"ITEM", {What::ids, "item"}},
        {"STAT", {What::ids, "stat"}},
        {"KIND",
         {What::words, "item foe tier slot stat "
                       "character loadout encounter "
                       "journey effect set"}},
    };
    return rows;
}

std::string section_words() {
    std::vector<std::string> words;
    for (const SectionRow& row : section_rows()) words.emplace_back(row.id);
    return join(words, " ");
}

/// Options whose value's word does not say what it is.
const std::vector<WordRow>& option_words() {
    static const std::vector<WordRow> rows = {
        {"character", {What::ids, "character"}},
        {"encounter", {What::ids, "encounter"}},
        {"loadout", {What::ids, "loadout"}},
        {"tier", {What::ids, "tier"}},
        {"slot", {What::ids, "slot"}},
        {"for", {What::folder, ""}},
        {"compare", {What::folder, ""}},
        {"only", {What::words, section_words()}},
        {"colour", {What::words, "auto always never"}},
        {"by",
         {What::words,
          join(std::vector<std::string>(std::begin(curve_by_names), std::end(curve_by_names)),
               " ")}},
    };
    return rows;
}

Completion found_in(const std::vector<WordRow>& rows, const std::string& word) {
    for (const WordRow& row : rows)
        if (row.word == word) return row.completion;
    return {};
}

/// "[OTHER]" and "ITEM…" without what is around them.
std::string bare(std::string word) {
    std::erase_if(word, [](char c) { return c == '[' || c == ']'; });
    if (word.ends_with("…")) word.resize(word.size() - std::string("…").size());
    return word;
}

/// A shell function call that offers what completes a word.
std::string bash_offer(const Completion& completion) {
    switch (completion.what) {
    case What::folder: return "_panoplon_offer -d";
    case What::file: return "_panoplon_offer -f";
    case What::ids: return fmt::format("_panoplon_ids {}", completion.detail);
    case What::words: return fmt::format("_panoplon_offer -W \"{}\"", completion.detail);
    case What::nothing: break;
    }
    return ":";
}

/// A command's branch: its options, those that take a value, and its operands.
std::string bash_branch(const CommandRow& command) {
    std::vector<std::string> options;
    std::vector<std::string> valued;
    for (const OptionRow& row : options_of(command)) {
        options.push_back(dashed(row.name));
        if (!row.value.empty()) valued.push_back(dashed(row.name));
    }
    std::vector<std::string> operands;
    for (const std::string& word : operands_of(command)) operands.push_back(bare(word));
    return fmt::format("        {})\n            options=\"{}\"\n            valued=\"{}\"\n"
                       "            operands=({})\n            endless={}\n            ;;\n",
                       command.name, join(options, " "), join(valued, " "), join(operands, " "),
                       command.operands.ends_with("…") ? "1" : "");
}

/// Every option with a value that can be completed, once.
std::string bash_values() {
    std::string text;
    std::vector<std::string> done;
    for (const CommandRow& command : command_rows())
        for (const OptionRow& row : options_of(command)) {
            const std::string name(row.name);
            const Completion completion = completion_of_option(name, std::string(row.value));
            if (completion.what == What::nothing ||
                std::find(done.begin(), done.end(), name) != done.end())
                continue;
            done.push_back(name);
            text +=
                fmt::format("        {}) {}; return ;;\n", dashed(name), bash_offer(completion));
        }
    return text;
}

std::string bash_operands() {
    std::string text;
    for (const WordRow& row : operand_words())
        text += fmt::format("        {}) {} ;;\n", row.word, bash_offer(row.completion));
    return text;
}

/// Text within single quotes of a zsh specification.
std::string zsh_words(std::string_view text) {
    std::string safe;
    for (const char c : text) {
        if (c == '[' || c == ']' || c == ':') safe += '\\';
        safe += c == '\'' ? std::string("'\\''") : std::string(1, c);
    }
    return safe;
}

std::string zsh_action(const Completion& completion) {
    switch (completion.what) {
    case What::folder: return "_files -/";
    case What::file: return "_files";
    case What::ids: return fmt::format("{{_panoplon_ids {}}}", completion.detail);
    case What::words: return fmt::format("({})", completion.detail);
    case What::nothing: break;
    }
    return " ";
}

std::string zsh_branch(const CommandRow& command) {
    std::string text = fmt::format("    ({})\n      _arguments \\\n", command.name);
    for (const OptionRow& row : options_of(command)) {
        text += fmt::format("        '*{}[{}]", dashed(row.name), zsh_words(row.help));
        if (!row.value.empty())
            text += fmt::format(
                ":{}:{}", zsh_words(row.value),
                zsh_action(completion_of_option(std::string(row.name), std::string(row.value))));
        text += "' \\\n";
    }
    for (const std::string& word : operands_of(command))
        text += fmt::format("        '{}:{}:{}' \\\n", word.ends_with("…") ? "*" : "",
                            zsh_words(bare(word)), zsh_action(completion_of_operand(bare(word))));
    return text + "        && return\n      ;;\n";
}

} // namespace

Completion completion_of_operand(const std::string& word) {
    return found_in(operand_words(), word);
}

Completion completion_of_option(const std::string& option, const std::string& value) {
    if (value.empty()) return {};
    const Completion named = found_in(option_words(), option);
    if (named.what != What::nothing) return named;
    if (value == "FILE") return {What::file, ""};
    return completion_of_operand(value.substr(0, value.find('=')));
}

std::string bash_completion_text() {
    std::vector<std::string> commands;
    for (const CommandRow& command : command_rows()) commands.emplace_back(command.name);
    std::string branches;
    for (const CommandRow& command : command_rows()) branches += bash_branch(command);
    return "# Completes panoplon in bash. Made from the program's table of commands.\n\n"
           "_panoplon_offer() {\n"
           "    mapfile -t COMPREPLY < <(compgen \"$@\" -- \"${COMP_WORDS[COMP_CWORD]}\")\n"
           "}\n\n"
           "# Ids of a kind in the armoury that stands on the line.\n"
           "_panoplon_ids() {\n"
           "    [[ -n $armoury ]] || return\n"
           "    _panoplon_offer -W \"$(\"${COMP_WORDS[0]}\" list \"$armoury\" \"$1\" --ids "
           "2>/dev/null)\"\n"
           "}\n\n"
           "_panoplon() {\n"
           "    local current=${COMP_WORDS[COMP_CWORD]} previous=${COMP_WORDS[COMP_CWORD - 1]}\n"
           "    local options=\"\" valued=\"\" endless=\"\" operands=() given=() skip=\"\" at "
           "armoury\n"
           "    COMPREPLY=()\n"
           "    if ((COMP_CWORD == 1)); then\n"
           "        _panoplon_offer -W \"" +
           join(commands, " ") +
           " --help --version\"\n"
           "        return\n"
           "    fi\n"
           "    case ${COMP_WORDS[1]} in\n" +
           branches +
           "        *) return ;;\n"
           "    esac\n"
           "    for ((at = 2; at < COMP_CWORD; ++at)); do\n"
           "        if [[ -n $skip ]]; then\n"
           "            skip=\"\"\n"
           "        elif [[ \" $valued \" == *\" ${COMP_WORDS[at]} \"* ]]; then\n"
           "            skip=1\n"
           "        elif [[ ${COMP_WORDS[at]} != -* ]]; then\n"
           "            given+=(\"${COMP_WORDS[at]}\")\n"
           "        fi\n"
           "    done\n"
           "    armoury=${given[0]}\n"
           "    [[ \" $valued \" == *\" $previous \"* ]] && case $previous in\n" +
           bash_values() +
           "        *) return ;;\n"
           "    esac\n"
           "    if [[ $current == -* ]]; then\n"
           "        _panoplon_offer -W \"$options\"\n"
           "        return\n"
           "    fi\n"
           "    at=${#given[@]}\n"
           "    [[ -n $endless ]] && ((at >= ${#operands[@]})) && at=$((${#operands[@]} - 1))\n"
           "    case ${operands[at]} in\n" +
           bash_operands() +
           "    esac\n"
           "}\n\n"
           "complete -F _panoplon panoplon\n";
}

std::string zsh_completion_text() {
    std::string commands;
    for (const CommandRow& command : command_rows())
        commands += fmt::format("    '{}:{}'\n", command.name, zsh_words(command.summary));
    std::string branches;
    for (const CommandRow& command : command_rows()) branches += zsh_branch(command);
    return "#compdef panoplon\n"
           "# Completes panoplon in zsh. Made from the program's table of commands.\n\n"
           "# Ids of a kind in the armoury that stands on the line: the first folder.\n"
           "_panoplon_ids() {\n"
           "  local word\n"
           "  local -a ids\n"
           "  for word in ${words[2,-1]}; do\n"
           "    [[ -d ${(Q)word} ]] || continue\n"
           "    ids=(${(f)\"$(panoplon list ${(Q)word} $1 --ids 2>/dev/null)\"})\n"
           "    compadd -a ids\n"
           "    return\n"
           "  done\n"
           "}\n\n"
           "_panoplon() {\n"
           "  local -a commands=(\n" +
           commands +
           "  )\n"
           "  if ((CURRENT == 2)); then\n"
           "    _describe command commands\n"
           "    return\n"
           "  fi\n"
           "  ((CURRENT--))\n"
           "  shift words\n"
           "  case $words[1] in\n" +
           branches +
           "  esac\n"
           "}\n\n"
           "_panoplon \"$@\"\n";
}

} // namespace panoplon
