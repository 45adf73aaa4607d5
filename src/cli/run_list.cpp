#include "armoury/keys.h"
#include "cli/session.h"
#include "show/armoury/show_list.h"

#include <algorithm>

namespace panoplon {

namespace {

/// What was meant by a word that is no kind: a slot, a tier or a tag of items.
std::string items_meant_by(const std::string& word, const Armoury& armoury) {
    const auto is_meant = [&](const std::string& id) { return word == id || word == id + "s"; };
    const auto list_with = [](const char* option, const std::string& id) {
        return fmt::format("items of it: panoplon list ARMOURY item --{} {}", option, id);
    };
    for (const Slot& slot : armoury.slots)
        if (is_meant(slot.id)) return list_with("slot", slot.id);
    for (const Tier& tier : armoury.tiers)
        if (is_meant(tier.id)) return list_with("tier", tier.id);
    for (const Item& item : armoury.items)
        for (const std::string& tag : item.tags)
            if (is_meant(tag)) return list_with("tag", tag);
    return {};
}

/// The kind that was asked for: its name, or that with an `s`.
Result<std::string> kind_operand(const std::string& word, const Armoury& armoury) {
    std::vector<std::string> names;
    for (const KindRow& kind : kind_rows()) {
        if (word == kind.name || word == std::string(kind.name) + "s")
            return std::string(kind.name);
        names.emplace_back(kind.name);
    }
    const std::string meant = items_meant_by(word, armoury);
    const auto near = meant.empty() ? nearest_name(word, names) : std::nullopt;
    return Failure{Cause::usage,
                   fmt::format("unknown kind '{}'{}", word,
                               near ? fmt::format("; did you mean '{}'?", *near) : ""),
                   !meant.empty()
                       ? meant
                       : fmt::format("kinds: {}; gear, draughts and whatever else is worn or used "
                                     "are of the kind item",
                                     join(names, ", "))};
}

ListOptions read_options(const Invocation& invocation, const Armoury& armoury, FirstFailure& take) {
    ListOptions options;
    if (invocation.has("tier"))
        options.tier = take(look_up<TierId>("tier", armoury.tiers, invocation.value("tier")));
    if (invocation.has("slot"))
        options.slot = take(look_up<SlotId>("slot", armoury.slots, invocation.value("slot")));
    if (invocation.has("level"))
        options.levels = take(levels_option(invocation, armoury, options.levels));
    options.tag = invocation.value("tag");
    options.sort = invocation.value("sort");
    return options;
}

std::optional<Failure> check_words(const ListOptions& options, const Armoury& armoury) {
    std::vector<std::string> known = sort_keys();
    for (const Stat& stat : armoury.stats) known.push_back(stat.id);
    if (!options.sort.empty() &&
        std::find(known.begin(), known.end(), options.sort) == known.end()) {
        const auto near = nearest_name(options.sort, known);
        return Failure{Cause::usage,
                       fmt::format("--sort is '{}'{}", options.sort,
                                   near ? fmt::format("; did you mean '{}'?", *near) : ""),
                       "allowed: " + join(known, ", ")};
    }
    std::vector<std::string> tags;
    for (const Item& item : armoury.items)
        tags.insert(tags.end(), item.tags.begin(), item.tags.end());
    if (options.tag.empty() || std::find(tags.begin(), tags.end(), options.tag) != tags.end())
        return std::nullopt;
    const auto near = nearest_name(options.tag, tags);
    return Failure{Cause::refused,
                   fmt::format("no item has the tag '{}'{}", options.tag,
                               near ? fmt::format("; did you mean '{}'?", *near) : ""),
                   {}};
}

} // namespace

int run_list(const Invocation& invocation) {
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    const Armoury& armoury = opened.armoury();
    const bool all = invocation.operands().size() < 2;
    FirstFailure take;
    const std::string kind =
        all ? std::string() : take(kind_operand(invocation.operands()[1], armoury));
    const ListOptions options = read_options(invocation, armoury, take);
    if (take.failure()) return report_failure(*take.failure());
    if (const auto failure = check_words(options, armoury)) return report_failure(*failure);
    for (const char* option : {"tier", "slot", "level", "tag", "sort"})
        if (invocation.has(option) && kind != "item")
            return report_failure(
                {Cause::usage,
                 fmt::format("--{} is for items: panoplon list ARMOURY item", option),
                 {}});
    if (all && invocation.has("ids"))
        return report_failure({Cause::usage, "--ids needs a kind", "panoplon list ARMOURY item"});
    Document document = all                       ? show_kinds(*opened.read)
                        : kind == "item"          ? show_items(*opened.read, options)
                        : find_kind(kind)->single ? show_single(*opened.read, kind)
                                                  : show_definitions(*opened.read, kind);
    if (invocation.has("ids")) {
        const Table& table = document.tables.front();
        document.text.clear();
        for (const auto& row : table.rows)
            document.text += file_text_of(table.columns.front(), row.front()) + "\n";
    }
    return show(invocation, armoury, document, 0);
}

} // namespace panoplon
