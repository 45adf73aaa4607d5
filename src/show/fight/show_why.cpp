#include "show/fight/show_why.h"

#include "base/text.h"
#include "diagnostic/diagnostic.h"
#include "show/measures.h"
#include "show/text_table.h"
#include "show/words.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

using Entry = Inquiry::Entry;

/// Whether a thing is asked about by its id, or by kind and id.
bool is_asked(const std::string& asked, std::string_view kind, const std::string& id) {
    return asked == id || asked == fmt::format("{}.{}", kind, id);
}

bool about(const std::string& asked, const Entry& entry) {
    constexpr const char* kinds[] = {"item", "action", "loadout", "effect"};
    if (is_asked(asked, kinds[static_cast<int>(entry.matter)], entry.thing)) return true;
    // What gives an effect: an item, an action, a step of a set, a character, a foe.
    if (entry.by.empty()) return false;
    return entry.by == asked || asked.ends_with("." + entry.by) ||
           entry.by.starts_with(asked + ".");
}

std::string title(const Entry& entry) {
    switch (entry.matter) {
    case Matter::use: return fmt::format("{} uses {}", entry.actor, entry.thing);
    case Matter::action: return fmt::format("{} does {}", entry.actor, entry.thing);
    case Matter::swap: return fmt::format("{} swaps to {}", entry.actor, entry.thing);
    case Matter::effect: break;
    }
    return fmt::format("{} gives {} by {}{}", entry.actor, entry.thing, entry.by,
                       entry.event.empty() ? "" : " on " + entry.event);
}

/// What an entry without a single reason comes to.
std::string never_came(const Entry& entry) {
    switch (entry.matter) {
    case Matter::use: return "it was never considered";
    case Matter::action: return fmt::format("{} was never free to act", entry.actor);
    case Matter::swap: return "it was never considered";
    case Matter::effect: break;
    }
    return entry.event.empty() ? fmt::format("{} never came that far", entry.by)
                               : fmt::format("'{}' never happened to {} while it bore that",
                                             entry.event, entry.actor);
}

class Answer {
  public:
    Answer(const Armoury& armoury, const FightAnswer& answer, const std::string& asked,
           Document& document)
        : armoury_(armoury),
          answer_(answer),
          asked_(asked),
          document_(document),
          json_({{"thing", asked}, {"entries", Json::array()}}) {}

    void show() {
        document_.text += fmt::format(
            "\nWhy {}{}\n", asked_,
            answer_.inquired > 0 ? fmt::format(", in {}", counted(answer_.inquired, "trial"))
                                 : ", by even luck");
        bool found = false;
        for (const Entry& entry : answer_.inquiry.entries())
            if (about(asked_, entry)) {
                found = true;
                show_entry(entry);
            }
        found = show_stat() || found;
        found = show_damage() || found;
        found = show_pool() || found;
        if (!found) not_here();
        document_.json["why"].push_back(std::move(json_));
    }

  private:
    void show_entry(const Entry& entry) {
        const double fights = std::max<double>(1, static_cast<double>(answer_.inquired));
        const std::string stands = place_of(entry.span);
        document_.text +=
            fmt::format("  {}: {}{}\n", title(entry),
                        entry.happened > 0
                            ? fmt::format("{} times a fight, the first at {}",
                                          rounded(entry.happened / fights), rounded(entry.first, 3))
                            : std::string("never"),
                        fmt::format("  [{}]", stands));
        TextTable table({{"", Align::right}, {""}, {""}});
        Json reasons = Json::array();
        for (const Inquiry::Reason& reason : entry.reasons) {
            const std::string first =
                fmt::format("first at {}{}", rounded(reason.first, 3),
                            reason.example.empty() ? "" : ": " + reason.example);
            table.row({fmt::format("{} ×", rounded(reason.times / fights)), reason.words,
                       fmt::format("{}  [{}]", first, place_of(reason.span))});
            reasons.push_back({{"reason", reason.words},
                               {"times", reason.times / fights},
                               {"first", reason.first},
                               {"example", reason.example},
                               {"place", place_of(reason.span)}});
        }
        document_.text += table.text(4);
        if (entry.happened == 0 && entry.reasons.empty())
            document_.text += fmt::format("    {}\n", never_came(entry));
        json_["entries"].push_back({{"matter", matter_names[static_cast<int>(entry.matter)]},
                                    {"actor", entry.actor},
                                    {"thing", entry.thing},
                                    {"by", entry.by},
                                    {"on", entry.event},
                                    {"happened", entry.happened / fights},
                                    {"first", entry.happened > 0 ? Json(entry.first) : Json()},
                                    {"place", stands},
                                    {"reasons", std::move(reasons)}});
    }

    /// A stat has the parts of the sheet.
    bool show_stat() {
        for (std::size_t i = 0; i < armoury_.stats.size(); ++i) {
            if (!is_asked(asked_, "stat", armoury_.stats[i].id)) continue;
            const Sheet::Line& line = answer_.sheet.stats[i];
            document_.text += fmt::format("  {} starts with {} {}\n", character(),
                                          rounded(line.value), armoury_.stats[i].id);
            TextTable table({{"", Align::right}, {""}, {""}});
            for (const Part& part : line.parts) {
                const std::string amount =
                    part.kind == "percent" ? change_words(Change::percent, part.amount)
                    : part.kind == "times" ? change_words(Change::times, part.amount)
                                           : change_words(Change::add, part.amount);
                const std::string formula =
                    part.kind == "formula" ? ": " + armoury_.stats[i].value.text : "";
                const std::string stands = place_of(bearer_span(part.bearer));
                table.row({amount, part.bearer + formula, fmt::format("[{}]", stands)});
                json_["parts"].push_back({{"bearer", part.bearer},
                                          {"kind", part.kind},
                                          {"amount", part.amount},
                                          {"place", stands}});
            }
            document_.text += table.text(4);
            return true;
        }
        return false;
    }

    /// Where a bearer of the sheet's parts stands: `item.reed_coat`, `set.reed`, `band.Laden`.
    [[nodiscard]] Span bearer_span(const std::string& bearer) const {
        const std::size_t dot = bearer.find('.');
        const std::string kind = bearer.substr(0, dot);
        const std::string id = bearer.substr(dot + 1);
        const auto span_in = [&](const auto& list) {
            for (const auto& one : list)
                if (one.id == id) return one.span;
            return Span{};
        };
        if (kind == "character") return span_in(armoury_.characters);
        if (kind == "stat") return span_in(armoury_.stats);
        if (kind == "item" || kind == "growth") return span_in(armoury_.items);
        if (kind == "affix") return span_in(armoury_.affixes);
        if (kind == "affixes") return draw_span(id);
        if (kind == "tier") return span_in(armoury_.tiers);
        if (kind == "upgrade") return span_in(armoury_.upgrades);
        if (kind == "band") return span_in(armoury_.carry.bands);
        for (const ItemSet& set : armoury_.sets)
            if (id == set.id || id.starts_with(set.id + ".")) return set.span;
        return {};
    }

    /// Where an item names the affixes of a draw.
    [[nodiscard]] Span draw_span(const std::string& word) const {
        for (const Item& item : armoury_.items)
            for (const AffixDraw& draw : item.affixes)
                if (draw.id == word) return draw.span;
        return {};
    }

    /// A damage type: the actions that deal it and the formula that takes from it.
    bool show_damage() {
        for (std::size_t t = 0; t < armoury_.damages.size(); ++t) {
            const DamageType& type = armoury_.damages[t];
            if (!is_asked(asked_, "damage", type.id)) continue;
            document_.text += fmt::format("  what is left of it: {}  [{}]\n", type.mitigated.text,
                                          place_of(type.mitigated.span));
            for (const Action& action : armoury_.actions)
                for (const auto& [dealt, raw] : action.deals)
                    if (dealt == DamageId(t) && is_here(action.id))
                        document_.text += fmt::format("  {} deals {}  [{}]\n", action.id, raw.text,
                                                      place_of(raw.span));
            json_["formula"] = type.mitigated.text;
            return true;
        }
        return false;
    }

    /// A pool: its ceiling and regen; what gives to it stands in the tables above.
    bool show_pool() {
        for (const Pool& pool : armoury_.pools) {
            if (!is_asked(asked_, "pool", pool.id)) continue;
            document_.text += fmt::format("  its ceiling is the stat {}  [{}]\n",
                                          armoury_.at(pool.max).id, place_of(pool.span));
            if (pool.regen.given())
                document_.text +=
                    fmt::format("  it regains {} each {}  [{}]\n", pool.regen.text,
                                rounded(to_units(pool.period)), place_of(pool.regen.span));
            json_["ceiling"] = armoury_.at(pool.max).id;
            return true;
        }
        return false;
    }

    /// In this fight: somebody can do it.
    [[nodiscard]] bool is_here(const std::string& action) const {
        const auto& entries = answer_.inquiry.entries();
        return std::any_of(entries.begin(), entries.end(), [&](const Entry& e) {
            return e.matter == Matter::action && e.thing == action;
        });
    }

    [[nodiscard]] const std::string& character() const {
        return armoury_.at(armoury_.at(answer_.loadout).character).id;
    }

    /// Defined, and nothing that acts by itself in this fight.
    void not_here() {
        const Loadout& loadout = armoury_.at(answer_.loadout);
        std::string words = fmt::format("nobody in this fight uses, does, gives or wears it");
        for (const PackedItem& packed : answer_.pack)
            if (is_asked(asked_, "item", armoury_.at(packed.item).id))
                words = "it is in the pack and has no use of its own";
        for_each_worn(loadout.worn, [&](const WornItem& worn) {
            const Item& item = armoury_.at(worn.item);
            if (is_asked(asked_, "item", item.id))
                words = fmt::format("{} wears it: it acts by its modifiers alone (--why STAT, or "
                                    "equip, tells what they add)",
                                    character());
        });
        document_.text += "  " + words + "\n";
        json_["answer"] = words;
    }

    [[nodiscard]] std::string place_of(const Span& span) const {
        return place(span, *answer_.sources);
    }

    const Armoury& armoury_;
    const FightAnswer& answer_;
    const std::string& asked_;
    Document& document_;
    Json json_;
};

} // namespace

void show_why(const Armoury& armoury, const FightAnswer& answer, Document& document) {
    for (const std::string& asked : answer.why) Answer(armoury, answer, asked, document).show();
}

std::vector<std::string> askable(const Armoury& armoury) {
    std::vector<std::string> ids;
    const auto add = [&](const char* kind, const auto& list) {
        for (const auto& one : list) {
            ids.push_back(one.id);
            ids.push_back(fmt::format("{}.{}", kind, one.id));
        }
    };
    add("item", armoury.items);
    add("action", armoury.actions);
    add("effect", armoury.effects);
    add("loadout", armoury.loadouts);
    add("set", armoury.sets);
    for (const ItemSet& set : armoury.sets)
        for (const SetStep& step : set.steps) ids.push_back(step.id);
    add("character", armoury.characters);
    add("foe", armoury.foes);
    add("upgrade", armoury.upgrades);
    add("stat", armoury.stats);
    add("pool", armoury.pools);
    add("damage", armoury.damages);
    return ids;
}

} // namespace panoplon
