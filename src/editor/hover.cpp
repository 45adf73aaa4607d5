#include "editor/hover.h"

#include "armoury/live_keys.h"
#include "armoury/references.h"
#include "base/text.h"
#include "judge/appraise/appraisal.h"
#include "show/armoury/abilities.h"
#include "show/armoury/card_text.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

constexpr std::size_t most_sentences = 4; ///< of what a thing does,
constexpr std::size_t most_keys = 8;      ///< and of its keys

bool is_of_word(char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9');
}

/// Text that Markdown shows as it stands; ids that have a `_` as code, for it would be a sign of
/// its own.
std::string as_it_stands(std::string_view given) {
    const std::string text = printable(given);
    std::string shown;
    for (std::size_t i = 0; i < text.size();) {
        std::size_t end = i;
        while (end < text.size() && (is_of_word(text[end]) || text[end] == '_')) ++end;
        const std::string word = text.substr(i, end - i);
        if (word.find('_') != std::string::npos) {
            shown += '`' + word + '`';
        } else if (!word.empty()) {
            shown += word;
        } else {
            if (std::string_view("\\`*<#|").find(text[i]) != std::string_view::npos) shown += '\\';
            shown += text[i];
            ++end;
        }
        i = end;
    }
    return shown;
}

/// Lines that stay lines.
std::string lines_of(const std::vector<std::string>& lines) {
    std::string text;
    for (const std::string& line : lines)
        if (!line.empty()) text += (text.empty() ? "" : "  \n") + line;
    return text;
}

/// Words that stand beside one another on a line.
std::string beside(const std::vector<std::string>& words) {
    return join(words, " · ");
}

/// What the rows of a card say that have one of these labels.
std::vector<std::string> card_words(const CardFacts& facts,
                                    std::initializer_list<std::string_view> labels,
                                    bool with_labels = true) {
    std::vector<std::string> words;
    for (const auto& [label, text] : facts)
        if (std::find(labels.begin(), labels.end(), label) != labels.end())
            words.push_back(as_it_stands(with_labels ? label + " " + text : text));
    return words;
}

/// From which level each character has it, and what it does to power there.
std::string wearers_words(const Armoury& armoury, const Appraisal& appraisal) {
    std::vector<std::string> words;
    for (const Wearer& wearer : appraisal.wearers) {
        const std::string& id = armoury.at(wearer.character).id;
        if (wearer.first == 0)
            words.push_back(
                as_it_stands(fmt::format("never {}: {}", id, join(wearer.reasons, "; "))));
        else if (wearer.bare && wearer.wearing)
            words.push_back(fmt::format("{} from level {}: power {}", id, wearer.first,
                                        signed_percent(*wearer.wearing / *wearer.bare - 1)));
        else
            words.push_back(fmt::format("{} from level {}", id, wearer.first));
    }
    return beside(words);
}

std::string verdict_line(const SoundArmoury& sound, const ToldAudit& told, const Item& item,
                         std::size_t index) {
    const auto found = told.items.find(item.id);
    if (found == told.items.end())
        return told.time.empty() ? "*no verdict yet: `audit` or `watch` finds one*"
                                 : fmt::format("*not judged by the audit of {}*", told.time);
    const bool changed = found->second.content != sound.contents[index];
    return fmt::format("**{}**: {} *(audit of {}{})*", found->second.verdict,
                       as_it_stands(found->second.sentence), told.time,
                       changed ? "; the item has changed since" : "");
}

std::string item_card(const SoundArmoury& sound, const ToldAudit& told, std::size_t index) {
    const Armoury& armoury = sound.read.armoury;
    const Item& item = armoury.items[index];
    const PaperVerdict& paper = sound.paper[index];
    const Appraisal appraisal = appraise(armoury, ItemId(index), sound.paper);
    const CardFacts facts = card_facts(armoury, item, paper, appraisal);
    std::vector<std::string> does = card_words(facts, {"modifier"}, false);
    for (std::string& words : card_words(facts, {"affix", "trigger", "action", "use", "grows",
                                                 "spent on", "sockets", "set", "grants"}))
        does.push_back(std::move(words));
    for (const auto& [label, text] : facts) // what the effects do that it gives
        if (std::any_of(armoury.effects.begin(), armoury.effects.end(),
                        [&label = label](const Effect& effect) { return effect.id == label; }))
            does.push_back(as_it_stands(label + ": " + text));
    std::string cost = beside(card_words(facts, {"weight", "value", "budget"}));
    std::string wearers = wearers_words(armoury, appraisal);
    if (!paper.outclassed_by.empty())
        wearers += " · " + beside(card_words(facts, {"outclassed by"}));
    return lines_of(
        {fmt::format("**{}** `item.{}` · {}", as_it_stands(item.name), item.id,
                     beside(card_words(facts, {"slot", "takes", "tier", "level", "needs"}))),
         beside(does), cost, wearers, verdict_line(sound, told, item, index)});
}

/// A thing that is no item, or one of an armoury that never was without a mistake.
std::string thing_words(const Edited& edited, const SoundArmoury* sound, const Thing& thing) {
    const ReadArmoury& read = sound ? sound->read : edited.read;
    const auto at = std::find_if(
        read.definitions.begin(), read.definitions.end(), [&](const RawDefinition& definition) {
            return definition.kind == thing.kind && definition.id == thing.id;
        });
    if (at == read.definitions.end()) return {};
    const std::string full = full_name(*at);
    const auto text_of = [&](const char* key) {
        const Node* const text = at->body.find(key);
        return text ? as_it_stands(text->text) : std::string();
    };
    const Users users = users_of(find_references(read.definitions), full);
    const std::string name = text_of("name");
    std::vector<std::string> lines = {
        fmt::format("**{}** `{}`: named by {}", name.empty() ? as_it_stands(thing.id) : name, full,
                    users.empty() ? "nothing" : counted(users.size(), "definition")),
        text_of("note")};
    std::vector<std::string> keys;
    for (const KeyState& key : key_states(read.armoury, *at))
        if (key.path != "name" && key.path != "note" && key.ignored.empty() &&
            keys.size() < most_keys)
            keys.push_back(as_it_stands(key.path + " " + key.value));
    lines.push_back(beside(keys));
    if (sound) {
        const Abilities abilities = abilities_of(read, *at, users.empty());
        for (std::size_t i = 0; i < std::min(abilities.can.size(), most_sentences); ++i)
            lines.push_back(as_it_stands(abilities.can[i]));
        for (const std::string& cannot : abilities.cannot) lines.push_back(as_it_stands(cannot));
    }
    return lines_of(lines);
}

std::string explanation_words(const Explanation& explanation) {
    std::vector<std::string> lines = {
        fmt::format("**{}** ({})", as_it_stands(explanation.title), explanation.what)};
    for (const auto& [label, text] : explanation.lines)
        lines.push_back(label == "meaning" || label == "says"
                            ? as_it_stands(text)
                            : fmt::format("{}: {}", label, as_it_stands(text)));
    return lines_of(lines);
}

/// What else a word may be: a kind, a key, a doubt or a verdict.
std::string word_words(const Handbook& handbook, const Mark& mark) {
    if (mark.role == Mark::Role::kind)
        for (const Explanation& one : explain(handbook, mark.text))
            if (one.what == "kind") return explanation_words(one);
    if (mark.role == Mark::Role::value && (mark.path == "allow" || mark.path == "accept"))
        for (const Explanation& one : explain(handbook, mark.text))
            if (one.what == "doubt" || one.what == "verdict") return explanation_words(one);
    const KeyRow* const row = row_of(mark);
    const bool is_key = mark.role == Mark::Role::key;
    return row && (is_key || mark.role == Mark::Role::value)
               ? explanation_words(explain_key(handbook, *row))
               : std::string();
}

} // namespace

std::string hover_text(const Edited& edited, const SoundArmoury* sound, const ToldAudit& told,
                       const Handbook& handbook, std::int32_t file, std::size_t place) {
    if (const auto mention = mention_at(edited, file, place)) {
        const Thing& thing = mention->thing;
        if (sound && thing.kind == "item") {
            const auto& items = sound->read.armoury.items;
            const auto at = std::find_if(items.begin(), items.end(),
                                         [&](const Item& item) { return item.id == thing.id; });
            if (at != items.end())
                return item_card(*sound, told, static_cast<std::size_t>(at - items.begin()));
        }
        return thing_words(edited, sound, thing);
    }
    const std::optional<Mark> mark = mark_at(edited, file, place);
    return mark ? word_words(handbook, *mark) : std::string();
}

} // namespace panoplon
