#include "editor/edited.h"

#include "armoury/table_layout.h"
#include "base/text.h"
#include "formula/formula.h"

#include <algorithm>
#include <utility>

namespace panoplon {

namespace {

Names ids_of(const Sources& sources, const std::vector<RawDefinition>& definitions) {
    Names ids;
    const auto add = [&](const std::string& kind, const std::string& id) {
        if (find_kind(kind) && is_id(id)) ids.add(kind, id);
    };
    for (const RawDefinition& definition : definitions) add(definition.kind, definition.id);
    for (std::size_t file = 0; file < sources.files().size(); ++file)
        if (sources.files()[file].path.ends_with(".toml"))
            for (const Mark& mark :
                 marks_of_toml(static_cast<std::int32_t>(file), sources.files()[file].text))
                if (mark.role == Mark::Role::id) add(mark.kind, mark.id);
    return ids;
}

constexpr std::string_view or_tag = " or tag";

/// What a key in `[worn]` names, or its value: both by the last parts of the path.
std::string kind_named_in_worn(const Mark& mark) {
    const std::vector<std::string> parts = split(mark.path, '.');
    const std::string& last = parts.back();
    const bool rolled = parts.size() > 1 && parts[parts.size() - 2] == "rolled";
    if (mark.role == Mark::Role::key) {
        if (rolled) return "stat";
        return parts.size() == 1 || is_key_of_worn(last) ? "" : "slot";
    }
    if (rolled) return {};
    return last == "affixes" ? "affix" : "item";
}

bool is_in_worn(const Mark& mark) {
    return mark.kind == "loadout" && mark.path.starts_with("worn.");
}

/// The kind of id that stands in place of a key, as in `add.guard`.
std::string kind_of_suffix(const KeyRow& row) {
    switch (row.type) {
    case Type::amounts:
    case Type::growths: return "stat";
    case Type::pool_quantities:
    case Type::pool_formulas: return "pool";
    case Type::damage_formulas: return "damage";
    case Type::counts: return std::string(row.names);
    default: return {};
    }
}

std::string kind_of_value(const KeyRow& row) {
    switch (row.type) {
    case Type::reference:
    case Type::references:
    case Type::wanted_items: return std::string(row.names);
    case Type::texts:
        return row.names.ends_with(or_tag)
                   ? std::string(row.names.substr(0, row.names.size() - or_tag.size()))
                   : std::string();
    default: return {};
    }
}

/// The words of a formula that name a stat, a pool or an effect of one side.
std::vector<Mention> mentions_in_formula(const Names& ids, const Mark& mark) {
    std::vector<Mention> list;
    const std::string& text = mark.text;
    for (std::size_t at = 0; at < text.size();) {
        if (!is_of_name(text[at])) {
            ++at;
            continue;
        }
        const std::size_t from = at;
        while (at < text.size() && is_of_name(text[at])) ++at;
        const std::string word = text.substr(from, at - from);
        const std::size_t side = word.starts_with("self.")    ? 5
                                 : word.starts_with("other.") ? 6
                                                              : word.size();
        const std::string name = word.substr(side);
        const auto names = [&](const char* kind, std::string_view ending) {
            if (!name.ends_with(ending)) return false;
            const std::string id = name.substr(0, name.size() - ending.size());
            if (ids.find(kind, id) < 0) return false;
            list.push_back({{kind, id},
                            {mark.range.file, mark.range.offset + from + side, id.size()},
                            false,
                            false});
            return true;
        };
        // In the order of Scope::find().
        if (names("stat", "") || names("pool", "") || names("pool", "_share") ||
            names("effect", "_active") || names("effect", "_copies"))
            continue;
    }
    return list;
}

/// The id that a word means: in a table, however it is written.
std::string id_meant(const Mark& mark) {
    if (!mark.in_table || is_id(mark.text)) return mark.text;
    return id_from_name(mark.text).value_or(mark.text);
}

/// A header that names a stat or the like: `add.guard`, `guard`, `Guard`, or the stat's name.
Mention mention_in_header(const Mark& mark, Thing thing) {
    const std::size_t dot = mark.text.rfind('.');
    const std::size_t from = dot == std::string::npos ? 0 : dot + 1;
    const bool by_id = plain_word(mark.text.substr(from)) == thing.id;
    return {std::move(thing),
            {mark.range.file, mark.range.offset + from, mark.range.length - from},
            false,
            !by_id};
}

} // namespace

Edited edited_of(Sources sources, Sink sink) {
    UnderstoodFiles files = understand_files(std::move(sources), std::move(sink));
    TableNames headers = files.names;
    ReadArmoury read = resolve(std::move(files), {});
    Names ids = ids_of(read.sources, read.definitions);
    return {std::move(read), std::move(headers), std::move(ids)};
}

Result<Edited> read_edited(const std::string& folder, const OpenTexts& open) {
    Sink sink;
    Result<Sources> sources = read_folder(folder, sink, open);
    if (!sources.ok()) return sources.failure();
    return edited_of(sources.take(), std::move(sink));
}

std::vector<Mark> marks_of(const Edited& edited, std::int32_t file) {
    return marks_of(edited.read.sources, file, edited.headers);
}

std::optional<Mark> mark_at(const Edited& edited, std::int32_t file, std::size_t place) {
    std::optional<Mark> found; // of two that touch the later, which begins there
    for (Mark& mark : marks_of(edited, file))
        if (mark.range.holds(place)) found = std::move(mark);
    return found;
}

const KeyRow* row_of(const Mark& mark) {
    if (is_in_worn(mark)) {
        const std::size_t dot = mark.path.rfind('.');
        const KeyRow* const own = find_key(mark.kind, "worn" + mark.path.substr(dot));
        return own ? own : find_key(mark.kind, "worn");
    }
    const auto located = locate_key(mark.kind, mark.path);
    return located ? located->row : nullptr;
}

std::string kind_named(const Mark& mark) {
    if (mark.role == Mark::Role::kind) return {};
    if (mark.role == Mark::Role::id) return mark.kind;
    if (is_in_worn(mark)) return kind_named_in_worn(mark);
    const auto located = locate_key(mark.kind, mark.path);
    if (!located) return {};
    if (mark.role == Mark::Role::key)
        return located->suffix.empty() ? std::string() : kind_of_suffix(*located->row);
    return located->suffix.empty() ? kind_of_value(*located->row) : std::string();
}

bool holds_formula(const Mark& mark) {
    if (mark.role != Mark::Role::value || is_in_worn(mark)) return false;
    const auto located = locate_key(mark.kind, mark.path);
    if (!located) return false;
    switch (located->row->type) {
    case Type::formula:
    case Type::quantity: return true;
    case Type::growths:
    case Type::pool_quantities:
    case Type::pool_formulas:
    case Type::damage_formulas: return !located->suffix.empty();
    default: return false;
    }
}

std::vector<Mention> mentions_in(const Edited& edited, const Mark& mark) {
    if (holds_formula(mark)) return mentions_in_formula(edited.ids, mark);
    const std::string kind = kind_named(mark);
    if (kind.empty()) return {};
    if (mark.role == Mark::Role::id)
        return {{{kind, mark.id}, mark.range, false, mark.text != mark.id}};
    if (mark.role == Mark::Role::key && mark.in_table) {
        Thing thing{kind, locate_key(mark.kind, mark.path)->suffix};
        if (edited.ids.find(kind, thing.id) < 0) return {};
        return {mention_in_header(mark, std::move(thing))};
    }
    const std::string id = id_meant(mark);
    if (edited.ids.find(kind, id) < 0) return {};
    return {{{kind, id}, mark.range, false, false}};
}

std::optional<Mention> mention_at(const Edited& edited, std::int32_t file, std::size_t place) {
    const std::optional<Mark> mark = mark_at(edited, file, place);
    if (!mark) return std::nullopt;
    for (const Mention& mention : mentions_in(edited, *mark))
        if (mention.range.holds(place)) return mention;
    return std::nullopt;
}

std::vector<Mention> mentions_of(const Edited& edited, const Thing& thing) {
    std::vector<Mention> list;
    bool defined = false;
    for (std::size_t file = 0; file < edited.read.sources.files().size(); ++file)
        for (const Mark& mark : marks_of(edited, static_cast<std::int32_t>(file)))
            for (Mention& mention : mentions_in(edited, mark)) {
                if (mention.thing != thing) continue;
                mention.defines = mark.role == Mark::Role::id && !std::exchange(defined, true);
                list.push_back(std::move(mention));
            }
    return list;
}

std::optional<TextRange> definition_of(const Edited& edited, const Thing& thing) {
    for (const Mention& mention : mentions_of(edited, thing))
        if (mention.defines) return mention.range;
    return std::nullopt;
}

} // namespace panoplon
