#include "armoury/content.h"

#include "armoury/cells.h"
#include "armoury/keys.h"
#include "armoury/write.h"
#include "base/text.h"

#include <algorithm>
#include <map>

namespace panoplon {

namespace {

constexpr std::string_view only_words[] = {"name",  "about",  "note", "todo",
                                           "allow", "accept", "like"};

RawDefinition without_words(RawDefinition definition) {
    std::erase_if(definition.body.entries, [](const Entry& entry) {
        return std::find(std::begin(only_words), std::end(only_words), entry.key) !=
               std::end(only_words);
    });
    std::sort(definition.body.entries.begin(), definition.body.entries.end(),
              [](const Entry& a, const Entry& b) { return a.key < b.key; });
    return definition;
}

/// Amounts and other tables of names one by one; everything else whole.
void list_keys(const Node& table, const std::string& parent, const std::string& kind,
               std::map<std::string, const Node*>& into) {
    for (const Entry& entry : table.entries) {
        const std::string path = parent.empty() ? entry.key : parent + "." + entry.key;
        const KeyRow* row = find_key(kind, path);
        const bool whole = row && (row->type == Type::worn || row->type == Type::wanted_items);
        if (entry.value.kind == Node::Kind::table && !whole)
            list_keys(entry.value, path, kind, into);
        else if (entry.value.given())
            into[path] = &entry.value;
    }
}

std::string value_words(const Node* value) {
    if (!value) return {};
    const bool plain =
        value->kind == Node::Kind::text && !value->text.empty() && trim(value->text) == value->text;
    return plain ? value->text : toml_value(*value);
}

std::vector<DefinitionChange::Key> changed_keys(const RawDefinition& before,
                                                const RawDefinition& after) {
    std::map<std::string, const Node*> old, now;
    list_keys(before.body, {}, before.kind, old);
    list_keys(after.body, {}, after.kind, now);
    std::map<std::string, std::pair<const Node*, const Node*>> both;
    for (const auto& [path, value] : old) both[path].first = value;
    for (const auto& [path, value] : now) both[path].second = value;
    std::vector<DefinitionChange::Key> keys;
    for (const auto& [path, values] : both) {
        const auto& [was, is] = values;
        if (was && is && same_value(*was, *is)) continue;
        keys.push_back({path, value_words(was), value_words(is)});
    }
    return keys;
}

} // namespace

Content content_of(const ReadArmoury& read) {
    Content content;
    content.rules = hash_start;
    std::map<std::pair<std::string_view, std::string_view>, std::uint64_t*> places;
    const auto provide = [&](std::string_view kind, const auto& list,
                             std::vector<std::uint64_t>& hashes) {
        hashes.assign(list.size(), 0);
        for (std::size_t i = 0; i < list.size(); ++i)
            places.emplace(std::pair(kind, std::string_view(list[i].id)), &hashes[i]);
    };
    provide("item", read.armoury.items, content.items);
    provide("character", read.armoury.characters, content.characters);
    provide("loadout", read.armoury.loadouts, content.loadouts);
    provide("encounter", read.armoury.encounters, content.encounters);
    for (const RawDefinition& definition : read.definitions) {
        if (definition.kind == "drops" || definition.kind == "journey" ||
            definition.kind == "pattern")
            continue;
        const std::string text = toml_text(without_words(definition));
        const auto at = places.find({definition.kind, definition.id});
        if (at != places.end())
            *at->second = hash_text(text);
        else
            content.rules = hash_text(text, content.rules);
    }
    return content;
}

std::vector<DefinitionChange> differences(const ReadArmoury& before, const ReadArmoury& after) {
    std::vector<DefinitionChange> list;
    for (const KindRow& kind : kind_rows()) {
        if (kind.name == "pattern") continue; // what it changes stands in its items
        std::map<std::string, const RawDefinition*> now;
        for (const RawDefinition* one : of_kind(after.definitions, kind.name))
            now.emplace(one->id, one);
        std::map<std::string, bool> old;
        for (const RawDefinition* one : of_kind(before.definitions, kind.name)) {
            old[one->id] = true;
            DefinitionChange difference{one->kind, one->id, DefinitionChange::What::removed, {}};
            if (const auto at = now.find(one->id); at != now.end()) {
                difference.what = DefinitionChange::What::changed;
                difference.keys = changed_keys(*one, *at->second);
                if (difference.keys.empty()) continue;
            }
            list.push_back(std::move(difference));
        }
        for (const RawDefinition* one : of_kind(after.definitions, kind.name))
            if (!old.contains(one->id))
                list.push_back({one->kind, one->id, DefinitionChange::What::added, {}});
    }
    return list;
}

} // namespace panoplon
