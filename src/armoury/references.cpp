#include "armoury/references.h"

#include "armoury/keys.h"

#include <algorithm>
#include <map>

namespace panoplon {

namespace {

/// Ids by kind and by a tag of theirs, for kinds that are meant by either ("effect or tag").
using Tagged = std::map<std::pair<std::string, std::string>, std::vector<std::string>>;

Tagged tagged_ids(const std::vector<RawDefinition>& definitions) {
    Tagged tagged;
    for (const RawDefinition& definition : definitions) {
        if (definition.kind != "effect" && definition.kind != "affix") continue;
        tagged[{definition.kind, definition.id}].push_back(definition.id);
        const Node* tags = definition.body.find("tags");
        if (!tags) continue;
        for (const Node& tag : tags->items)
            tagged[{definition.kind, tag.text}].push_back(definition.id);
    }
    return tagged;
}

/// Walks a definition along the table of keys.
class Walk {
  public:
    Walk(const RawDefinition& definition, const Tagged& tagged, std::vector<Reference>& into)
        : kind_(definition.kind),
          from_(full_name(definition)),
          tagged_(tagged),
          into_(into) {
        walk(definition.body, "");
    }

  private:
    void walk(const Node& table, const std::string& parent) {
        for (const Entry& entry : table.entries) {
            const std::string path = parent.empty() ? entry.key : parent + "." + entry.key;
            const KeyRow* row = find_key(kind_, path);
            if (row && entry.value.given()) look_at(entry.value, *row, path);
        }
    }

    void look_at(const Node& value, const KeyRow& row, const std::string& path) {
        switch (row.type) {
        case Type::reference: return add(path, row.names, value.text, value.span);
        case Type::references: return list(value, path, row.names);
        case Type::texts: return meant(value, path, row.names);
        case Type::quantity:
        case Type::formula: return formula(value, path);
        case Type::amounts: return keys(value, path, "stat");
        case Type::growths:
        case Type::pool_quantities:
        case Type::pool_formulas:
        case Type::damage_formulas: return named(value, row, path);
        case Type::counts: return keys(value, path, row.names);
        case Type::worn: return worn(value, path);
        case Type::wanted_items:
            if (value.kind == Node::Kind::list) return list(value, path, row.names);
            return walk(value, path);
        case Type::table: return walk(value, path);
        case Type::tables:
            for (const Node& item : value.items) walk(item, path);
            return;
        default: return;
        }
    }

    void add(const std::string& path, std::string_view kind, const std::string& id,
             const Span& span) {
        into_.push_back({from_, path, std::string(kind) + "." + id, span});
    }

    void list(const Node& value, const std::string& path, std::string_view kind) {
        for (const Node& item : value.items) add(path, kind, item.text, item.span);
    }

    /// By id or tag.
    void meant(const Node& value, const std::string& path, std::string_view names) {
        constexpr std::string_view or_tag = " or tag";
        if (!names.ends_with(or_tag)) return;
        const std::string kind(names.substr(0, names.size() - or_tag.size()));
        for (const Node& word : value.items)
            if (const auto at = tagged_.find({kind, word.text}); at != tagged_.end())
                for (const std::string& id : at->second) add(path, kind, id, word.span);
    }

    void keys(const Node& value, const std::string& path, std::string_view kind) {
        for (const Entry& entry : value.entries) add(path, kind, entry.key, entry.key_span);
    }

    void named(const Node& value, const KeyRow& row, const std::string& path) {
        const char* kind = row.type == Type::growths           ? "stat"
                           : row.type == Type::damage_formulas ? "damage"
                                                               : "pool";
        keys(value, path, kind);
        for (const Entry& entry : value.entries) formula(entry.value, path);
    }

    void worn(const Node& value, const std::string& path) {
        for (const Entry& slot : value.entries) {
            if (slot.key == "rolled") keys(slot.value, path, "stat");
            if (slot.key == "affixes") list(slot.value, path, "affix");
            if (is_key_of_worn(slot.key)) continue;
            for (const Node& item : slot.value.items) {
                if (const Node* id = item.find("item")) add(path, "item", id->text, id->span);
                worn(item, path);
            }
        }
    }

    /// `self.x` and `other.x` name a stat, a pool or an effect; which, the reader knows by what
    /// there is.
    void formula(const Node& value, const std::string& path) {
        if (value.kind != Node::Kind::text) return;
        const std::string& text = value.text;
        for (const std::string_view side : {"self.", "other."})
            for (std::size_t at = text.find(side); at != std::string::npos;
                 at = text.find(side, at + 1)) {
                const std::size_t start = at + side.size();
                const std::size_t end =
                    text.find_first_not_of("abcdefghijklmnopqrstuvwxyz0123456789_", start);
                const std::string name = text.substr(start, end - start);
                const auto without = [&](std::string_view ending) {
                    return name.ends_with(ending) ? name.substr(0, name.size() - ending.size())
                                                  : name;
                };
                add(path, "stat", name, value.span);
                add(path, "pool", without("_share"), value.span);
                for (const std::string_view ending : {"_active", "_copies"})
                    if (name.ends_with(ending)) add(path, "effect", without(ending), value.span);
            }
    }

    std::string kind_, from_;
    const Tagged& tagged_;
    std::vector<Reference>& into_;
};

} // namespace

std::string full_name(const RawDefinition& definition) {
    return definition.id.empty() ? definition.kind : definition.kind + "." + definition.id;
}

std::vector<Reference> find_references(const std::vector<RawDefinition>& definitions) {
    std::vector<Reference> list;
    const Tagged tagged = tagged_ids(definitions);
    for (const RawDefinition& definition : definitions) Walk(definition, tagged, list);
    return list;
}

Users users_of(const std::vector<Reference>& references, const std::string& name) {
    Users list;
    for (const Reference& reference : references) {
        if (reference.to != name) continue;
        if (list.empty() || list.back().first != reference.from)
            list.push_back({reference.from, {}});
        std::vector<std::string>& paths = list.back().second;
        if (std::find(paths.begin(), paths.end(), reference.path) == paths.end())
            paths.push_back(reference.path);
    }
    return list;
}

} // namespace panoplon
