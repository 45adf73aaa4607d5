#include "show/armoury/handbook.h"

#include "show/armoury/cookbook.h"

#include "armoury/keys.h"
#include "base/text.h"
#include "diagnostic/doubt_kinds.h"
#include "judge/audit/verdict.h"

#include <algorithm>
#include <fmt/format.h>
#include <set>

namespace panoplon {

namespace {

/// A row of a page: a word of words.md, a rule of model.md.
struct PageEntry {
    std::string title, text;
};

/// "| word | meaning |" rows of a table.
std::vector<PageEntry> words_of(std::string_view page) {
    std::vector<PageEntry> list;
    for (const std::string& line : split(page, '\n')) {
        const std::vector<std::string> cells = split(line, '|');
        if (cells.size() < 4 || line.starts_with("|---") || trim(cells[1]) == "word") continue;
        for (const std::string& word : split(cells[1], ','))
            list.push_back({std::string(trim(word)), std::string(trim(cells[2]))});
    }
    return list;
}

/// "- **M51** text" lines.
std::vector<PageEntry> rules_of(std::string_view page) {
    std::vector<PageEntry> list;
    for (const std::string& line : split(page, '\n')) {
        if (!line.starts_with("- **M")) continue;
        const std::size_t end = line.find("**", 4);
        if (end == std::string::npos) continue;
        list.push_back({line.substr(4, end - 4), std::string(trim(line.substr(end + 2)))});
    }
    return list;
}

std::string value_words(const KeyRow& row) {
    switch (row.type) {
    case Type::choice: return "one of " + join(split(row.names, '|'), ", ");
    case Type::reference: return fmt::format("an id of [{}.ID]", row.names);
    case Type::references: return fmt::format("a list of ids of [{}.ID]", row.names);
    case Type::counts: return fmt::format("a table: id of [{}.ID] = whole number", row.names);
    default: return type_words(row.type);
    }
}

std::string bounds_words(const KeyRow& row) {
    constexpr double as_good_as_endless = 1e9;
    if (row.low == 0 && row.high == 0) return {};
    if (row.high >= as_good_as_endless)
        return row.low <= -as_good_as_endless ? std::string()
                                              : fmt::format("{} or more", shortest(row.low));
    return fmt::format("{} to {}", shortest(row.low), shortest(row.high));
}

/// The entry of a key in a definition, in whichever place of a list; null where it has none.
const Entry* find_own_key(const RawDefinition& definition, const std::vector<std::string>& parts) {
    std::vector<const Node*> nodes = {&definition.body};
    const Entry* found = nullptr;
    for (const std::string& part : parts) {
        std::vector<const Node*> next;
        found = nullptr;
        for (const Node* node : nodes)
            if (const Entry* entry = node->find_entry(part);
                entry && entry->value.given() && entry->from.empty()) {
                if (!found) found = entry;
                next.push_back(&entry->value);
                for (const Node& item : entry->value.items) next.push_back(&item);
            }
        nodes = std::move(next);
    }
    return found;
}

std::string line_at(const ReadArmoury& read, const Span& span) {
    return fmt::format("{}:{}: {}", read.sources.file(span.file).path, span.line,
                       trim(read.sources.line(span)));
}

/// The first place in the examples where a definition of the kind has the key.
std::string example_of(const Handbook& handbook, const KeyRow& row) {
    const std::vector<std::string> parts = split(row.path, '.');
    for (const ReadArmoury* example : handbook.examples)
        for (const RawDefinition& definition : example->definitions)
            if (definition.kind == row.kind)
                if (const Entry* found = find_own_key(definition, parts))
                    return line_at(*example, found->key_span);
    return {};
}

Explanation explain_kind(const Handbook& handbook, const KindRow& kind) {
    Explanation e{"kind", fmt::format("[{}{}]", kind.name, kind.single ? "" : ".ID"), {}};
    e.lines.emplace_back("meaning", kind.meaning);
    e.lines.emplace_back("keys", join(keys_under(kind.name, ""), ", "));
    for (const ReadArmoury* example : handbook.examples)
        for (const RawDefinition& definition : example->definitions) {
            if (definition.kind != kind.name) continue;
            e.lines.emplace_back("in the demo", line_at(*example, definition.span));
            return e;
        }
    return e;
}

Explanation explain_recipe(const Recipe& recipe) {
    Explanation e{"cookbook", recipe.title, {{"how", recipe.text}}};
    if (!recipe.example.empty()) e.lines.emplace_back("as in", recipe.example);
    return e;
}

/// "cooldown", "use.cooldown" and "item.use.cooldown" all name a key.
bool names_key(const KeyRow& row, const std::string& word) {
    const std::string full = fmt::format("{}.{}", row.kind, row.path);
    return full == word || row.path == word || full.ends_with("." + word);
}

} // namespace

Explanation explain_key(const Handbook& handbook, const KeyRow& row) {
    Explanation e{fmt::format("key of {}", row.kind), std::string(row.path), {}};
    e.lines.emplace_back("meaning", row.meaning);
    e.lines.emplace_back("value", value_words(row));
    if (!row.unit.empty()) e.lines.emplace_back("unit", row.unit);
    if (const std::string bounds = bounds_words(row); !bounds.empty())
        e.lines.emplace_back("bounds", bounds);
    e.lines.emplace_back("default", row.required           ? "none: it is needed"
                                    : row.fallback.empty() ? "not given"
                                                           : std::string(row.fallback));
    if (const std::string example = example_of(handbook, row); !example.empty())
        e.lines.emplace_back("in the demo", example);
    return e;
}

std::vector<Explanation> explain(const Handbook& handbook, const std::string& word) {
    std::vector<Explanation> list;
    for (const PageEntry& entry : words_of(handbook.words))
        if (entry.title == word) list.push_back({"word", word, {{"meaning", entry.text}}});
    for (const Recipe& recipe : recipes_of(handbook.cookbook))
        if (recipe.is_called(word)) list.push_back(explain_recipe(recipe));
    for (const KindRow& kind : kind_rows())
        if (kind.name == word) list.push_back(explain_kind(handbook, kind));
    for (const CommandSummary& command : handbook.commands)
        if (command.name == word)
            list.push_back({"command",
                            "panoplon " + word,
                            {{"meaning", command.summary}, {"example", command.example}}});
    for (const PageEntry& entry : rules_of(handbook.rules))
        if (entry.title == word || "M" + word == entry.title)
            list.push_back({"rule", entry.title, {{"says", entry.text}}});
    if (const DoubtRow* doubt = find_doubt_row(word))
        list.push_back(
            {"doubt",
             word,
             {{"meaning", std::string(doubt->meaning)},
              {"what to do", std::string(doubt->remedy)},
              {"where it is meant", fmt::format("allow = [\"{}\"], and why in `note`", word)}}});
    for (const VerdictRow& verdict : verdict_rows())
        if (verdict.name == word)
            list.push_back({"verdict", word, {{"meaning", verdict.meaning}, {"rule", "M83"}}});
    for (const KeyRow& row : key_rows())
        if (names_key(row, word) && find_kind(row.kind)->keys_of.empty())
            list.push_back(explain_key(handbook, row));
    return list;
}

std::vector<std::pair<std::string, std::vector<std::string>>>
explainable(const Handbook& handbook) {
    std::vector<std::string> commands, words, rules, doubts, verdicts;
    for (const CommandSummary& command : handbook.commands) commands.push_back(command.name);
    for (const PageEntry& entry : words_of(handbook.words)) words.push_back(entry.title);
    for (const PageEntry& entry : rules_of(handbook.rules)) rules.push_back(entry.title);
    for (const VerdictRow& verdict : verdict_rows()) verdicts.emplace_back(verdict.name);
    doubts = doubt_names();
    std::vector<std::string> keys;
    for (const KeyRow& row : key_rows())
        if (find_kind(row.kind)->keys_of.empty())
            keys.push_back(fmt::format("{}.{}", row.kind, row.path));
    std::vector<std::string> recipes;
    for (const Recipe& recipe : recipes_of(handbook.cookbook)) {
        recipes.push_back(recipe.title);
        recipes.insert(recipes.end(), recipe.synonyms.begin(), recipe.synonyms.end());
    }
    return {{"commands", commands}, {"kinds", kind_names()}, {"words", words},
            {"doubts", doubts},     {"verdicts", verdicts},  {"rules", rules},
            {"keys", keys},         {"cookbook", recipes}};
}

} // namespace panoplon
