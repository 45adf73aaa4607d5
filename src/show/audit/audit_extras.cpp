#include "base/text.h"
#include "show/audit/audit_parts.h"
#include "show/text_table.h"
#include "show/words.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// Upgrades of which no level adds anything that a designer would see, anywhere.
std::string idle_upgrades(const Armoury& armoury, const std::vector<UpgradeWorth>& upgrades) {
    constexpr double least_seen = 5e-4;
    std::string text;
    for (std::size_t u = 0; u < armoury.upgrades.size(); ++u) {
        double most = 0;
        std::size_t contexts = 0;
        for (const UpgradeWorth& one : upgrades) {
            if (one.upgrade.index() != u) continue;
            most = std::max(most, one.most);
            contexts = std::max(contexts, one.contexts);
        }
        if (contexts > 0 && most < least_seen)
            text += fmt::format("  {} adds nothing to the margin in any of {}.\n",
                                armoury.upgrades[u].id, counted(contexts, "context"));
    }
    return text;
}

Json number_or_null(const std::optional<double>& number) {
    return number ? Json(*number) : Json(nullptr);
}

} // namespace

AuditPart upgrades_part(const Armoury& armoury, const std::vector<UpgradeWorth>& upgrades) {
    AuditPart part{
        {},
        Json::array(),
        {"audit-upgrades",
         {"upgrade", "level", "cost", "gain", "per_hundred_coin", "least", "most", "contexts"},
         {}}};
    TextTable text({{"upgrade"},
                    {"level", Align::right},
                    {"cost", Align::right},
                    {"adds", Align::right},
                    {"for 100 coin", Align::right},
                    {"least", Align::right},
                    {"most", Align::right}});
    for (const UpgradeWorth& one : upgrades) {
        const std::string& id = armoury.at(one.upgrade).id;
        const auto per_hundred = one.per_hundred();
        text.row({id, std::to_string(one.level), one.cost ? rounded(*one.cost, 0) : "—",
                  signed_percent(one.gain, 2), per_hundred ? signed_percent(*per_hundred, 2) : "—",
                  signed_percent(one.least, 2), signed_percent(one.most, 2)});
        part.table.rows.push_back(
            {id, std::to_string(one.level), one.cost ? rounded(*one.cost, 3) : "",
             rounded(one.gain, 6), per_hundred ? rounded(*per_hundred, 6) : "",
             rounded(one.least, 6), rounded(one.most, 6), std::to_string(one.contexts)});
        part.json.push_back({{"id", id},
                             {"level", one.level},
                             {"cost", number_or_null(one.cost)},
                             {"gain", one.gain},
                             {"per_hundred_coin", number_or_null(per_hundred)},
                             {"least", one.least},
                             {"most", one.most},
                             {"contexts", one.contexts}});
    }
    if (!text.empty())
        part.text = "\nUpgrades: what each level adds to the margin of the best, bought alone\n" +
                    text.text() + idle_upgrades(armoury, upgrades);
    return part;
}

AuditPart groups_part(const Armoury& armoury, const std::vector<GroupWorth>& groups) {
    AuditPart part{
        {},
        Json::array(),
        {"audit-groups",
         {"group", "items", "contexts", "picked", "pieces", "ban_loss", "worst", "sentence"},
         {}}};
    TextTable text({{"group"},
                    {"items", Align::right},
                    {"contexts", Align::right},
                    {"picked", Align::right},
                    {"pieces", Align::right},
                    {"ban loss", Align::right},
                    {"worst", Align::right}});
    for (const GroupWorth& one : groups) {
        text.row({one.group.name, std::to_string(one.group.items.size()),
                  std::to_string(one.contexts), fmt::format("{:.0f} %", one.picked * 100),
                  rounded(one.pieces, 1), percent(one.ban_loss), percent(one.worst)});
        part.table.rows.push_back({one.group.name, join(ids_of(armoury, one.group.items), ";"),
                                   std::to_string(one.contexts), rounded(one.picked, 4),
                                   rounded(one.pieces, 3), rounded(one.ban_loss, 5),
                                   rounded(one.worst, 5), one.sentence});
        part.json.push_back({{"name", one.group.name},
                             {"items", ids_of(armoury, one.group.items)},
                             {"contexts", one.contexts},
                             {"picked", one.picked},
                             {"pieces", one.pieces},
                             {"ban_loss", {{"mean", one.ban_loss}, {"max", one.worst}}},
                             {"sentence", one.sentence}});
    }
    part.text =
        "\nGroups: what is lost where all of one is banned\n" +
        (text.empty() ? std::string("  there is no group of two items or more\n") : text.text());
    return part;
}

AuditPart tier_steps_part(const Armoury& armoury, const std::vector<TierStep>& steps) {
    AuditPart part{{},
                   Json::array(),
                   {"audit-tier-steps", {"character", "tier", "levels", "from", "sentence"}, {}}};
    if (!steps.empty()) part.text = "\nWhat a tier is worth in levels, against the yardstick\n";
    for (const TierStep& step : steps) {
        const std::string& character = armoury.at(step.character).id;
        const std::string& tier = armoury.at(step.tier).id;
        part.text += "  " + folded(step.sentence, 108, 4) + "\n";
        part.table.rows.push_back(
            {character, tier, rounded(step.levels, 2), std::to_string(step.from), step.sentence});
        part.json.push_back({{"character", character},
                             {"tier", tier},
                             {"levels", step.levels},
                             {"from", step.from},
                             {"sentence", step.sentence}});
    }
    return part;
}

AuditPart pairs_part(const Armoury& armoury, const std::vector<PairWorth>& pairs) {
    AuditPart part{
        {},
        Json::array(),
        {"audit-pairs",
         {"first", "second", "seen", "together", "low", "high", "first_gain", "second_gain"},
         {}}};
    constexpr std::size_t most_shown = 24;
    TextTable text({{"pair"},
                    {"together", Align::right},
                    {"interval", Align::right},
                    {"first gives", Align::right},
                    {"second gives", Align::right},
                    {"seen", Align::right}});
    for (const PairWorth& one : pairs) {
        const std::string& first = armoury.at(one.first).id;
        const std::string& second = armoury.at(one.second).id;
        if (part.table.rows.size() < most_shown)
            text.row({first + " + " + second, signed_percent(one.together.mean),
                      fmt::format("{} to {}", signed_percent(one.together.low),
                                  signed_percent(one.together.high)),
                      signed_percent(one.first_gain), signed_percent(one.second_gain),
                      std::to_string(one.seen)});
        part.table.rows.push_back({first, second, std::to_string(one.seen),
                                   rounded(one.together.mean, 5), rounded(one.together.low, 5),
                                   rounded(one.together.high, 5), rounded(one.first_gain, 5),
                                   rounded(one.second_gain, 5)});
        part.json.push_back({{"first", first},
                             {"second", second},
                             {"seen", one.seen},
                             {"together",
                              {{"mean", one.together.mean},
                               {"low", one.together.low},
                               {"high", one.together.high}}},
                             {"first_gain", one.first_gain},
                             {"second_gain", one.second_gain}});
    }
    part.text = "\nPairs: what two do together beyond the product of what each does alone\n";
    part.text += text.empty() ? "  none that can be told from none\n" : text.text();
    if (pairs.size() > most_shown)
        part.text +=
            fmt::format("  … and {} more, in the files of -o\n", pairs.size() - most_shown);
    return part;
}

} // namespace panoplon
