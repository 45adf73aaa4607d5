#include "show/armoury/show_explain.h"

#include "armoury/live_keys.h"
#include "armoury/references.h"
#include "base/text.h"
#include "show/armoury/abilities.h"
#include "show/text_table.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

constexpr std::size_t text_width = 100;

std::string listed_words(const std::vector<std::string>& words) {
    return folded(join(words, ", "), text_width - 2, 2);
}

} // namespace

Document show_explainable(const Handbook& handbook) {
    Document document;
    document.text = "panoplon explain WORD says what a word, key, kind, rule, doubt, verdict or "
                    "command is;\npanoplon explain ARMOURY THING what a thing of an armoury does "
                    "and does not, and why.\n";
    for (const auto& [what, names] : explainable(handbook)) {
        document.json[what] = names;
        if (what != "keys")
            document.text += fmt::format("\n{}:\n  {}\n", what, listed_words(names));
        else
            document.text += fmt::format(
                "\nand {} keys, as in: panoplon explain item.use.cooldown\n", names.size());
    }
    return document;
}

Document show_explanations(const std::vector<Explanation>& list) {
    Document document;
    document.json["explanations"] = Json::array();
    for (const Explanation& explanation : list) {
        if (!document.text.empty()) document.text += "\n";
        document.text += fmt::format("{} ({})\n", explanation.title, explanation.what);
        Json lines = Json::object();
        std::size_t widest = 0;
        for (const auto& [label, text] : explanation.lines) widest = std::max(widest, label.size());
        for (const auto& [label, text] : explanation.lines) {
            lines[label] = text;
            if (text.find('\n') != std::string::npos) { // lines of a file stay as they are
                document.text += fmt::format("  {}\n", label);
                for (const std::string& line : split(trim(text), '\n'))
                    document.text += "      " + line + "\n";
                continue;
            }
            document.text += fmt::format("  {:<{}}  {}\n", label, widest,
                                         folded(text, text_width - widest - 4, widest + 4));
        }
        document.json["explanations"].push_back(
            {{"what", explanation.what}, {"title", explanation.title}, {"says", lines}});
    }
    return document;
}

std::vector<const RawDefinition*> find_things(const ReadArmoury& read, const std::string& name) {
    std::vector<const RawDefinition*> found;
    for (const RawDefinition& definition : read.definitions)
        if (full_name(definition) == name || definition.id == name) found.push_back(&definition);
    return found;
}

namespace {

Table keys_table(const std::vector<KeyState>& keys) {
    constexpr std::size_t longest = 46;
    Table table{"explain",
                {as::text("key", "key"), as::text("value", "value"),
                 as::text("from", "from").json("pattern"), as::text("ignored", "counts")}};
    const auto if_any = [](const std::string& text) { return text.empty() ? Cell() : Cell(text); };
    for (const KeyState& key : keys) {
        std::string value = key.value;
        if (characters(value) > longest) value = value.substr(0, longest) + "…";
        table.row(
            {key.path, Cell(key.value).said(value),
             if_any(key.pattern).said(key.pattern.empty() ? "its own" : "pattern." + key.pattern),
             if_any(key.ignored).said(key.ignored.empty() ? "yes" : "no: " + key.ignored)});
    }
    return table;
}

} // namespace

Document show_thing(const ReadArmoury& read, const RawDefinition& definition) {
    Document document;
    const std::string name = full_name(definition);
    document.text = fmt::format("{}, at {}\n", name, place(definition.span, read.sources));
    Table table = keys_table(key_states(read.armoury, definition));
    document.text +=
        "\nIts keys:\n" + (table.rows.empty() ? "  it has no keys\n" : terminal_text(table));
    Json& json = document.json;
    json["thing"] = name;
    json["keys"] = rows_json(table);
    const auto users = users_of(find_references(read.definitions), name);
    json["used_by"] = Json::object();
    document.text += users.empty() ? "\nNothing names it.\n" : "\nNamed by:\n";
    constexpr std::size_t most_shown = 20;
    for (std::size_t i = 0; i < users.size(); ++i) {
        json["used_by"][users[i].first] = users[i].second;
        if (i < most_shown)
            document.text +=
                fmt::format("  {} ({})\n", users[i].first, join(users[i].second, ", "));
    }
    if (users.size() > most_shown)
        document.text += fmt::format("  and {} more\n", users.size() - most_shown);
    const Abilities abilities = abilities_of(read, definition, users.empty());
    for (const auto& [title, key, lines] : {std::tuple{"It can:", "can", &abilities.can},
                                            {"It can't:", "cannot", &abilities.cannot}}) {
        json[key] = *lines;
        if (lines->empty()) continue;
        document.text += fmt::format("\n{}\n", title);
        for (const std::string& line : *lines)
            document.text += "  " + folded(line, text_width - 2, 4) + "\n";
    }
    document.tables.push_back(std::move(table));
    return document;
}

} // namespace panoplon
