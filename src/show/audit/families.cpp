#include "show/audit/families.h"

#include "base/text.h"
#include "show/audit/verdict_words.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>

namespace panoplon {

namespace {

/// What makes two verdicts one matter, and how that is said; empty: nothing does.
std::pair<std::string, std::string> cause_of(const Armoury& armoury, const ItemVerdict& verdict) {
    const Item& item = armoury.at(verdict.item);
    switch (verdict.verdict) {
    case Verdict::idle:
    case Verdict::unreachable: return {verdict.sentence, "for the same reason"};
    case Verdict::outclassed: {
        const std::string& by = armoury.at(verdict.outclassed_by.front()).id;
        return {by, "by " + by};
    }
    default: break;
    }
    if (!verdict.twins.empty()) {
        const ItemId first = std::min(verdict.item, verdict.twins.front());
        return {armoury.at(first).id, "that are twins"};
    }
    if (item.pattern.given()) {
        const std::string& pattern = armoury.at(item.pattern).id;
        return {pattern, "of the pattern " + pattern};
    }
    if (item.set.given()) {
        const std::string& set = armoury.at(item.set).id;
        return {set, "of the set " + set};
    }
    return {};
}

} // namespace

std::vector<Family> families_of(const Armoury& armoury, const std::vector<ItemVerdict>& verdicts) {
    std::vector<Family> families;
    std::map<std::string, std::size_t> known; // by verdict and cause
    for (const ItemVerdict& verdict : verdicts) {
        const auto [cause, words] = cause_of(armoury, verdict);
        const std::string key = verdict_words(verdict) + "\n" + words + "\n" + cause;
        const auto at = known.find(key);
        if (!cause.empty() && at != known.end()) {
            families[at->second].members.push_back(&verdict);
            families[at->second].cause = words;
            continue;
        }
        known.emplace(key, families.size());
        families.push_back({{&verdict}, {}});
    }
    return families;
}

std::string names_of(const Armoury& armoury, const Family& family) {
    constexpr std::size_t most_named = 4;
    std::vector<std::string> names;
    for (std::size_t i = 0; i < std::min(most_named, family.members.size()); ++i)
        names.push_back(armoury.at(family.members[i]->item).id);
    std::string text = join(names, ", ");
    if (family.members.size() > most_named)
        text += fmt::format(" and {} more", family.members.size() - most_named);
    return text;
}

} // namespace panoplon
