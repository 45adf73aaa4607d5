#include "show/fight/fight_tables.h"

#include "base/text.h"
#include "show/measures.h"
#include "show/text_table.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

using Kind = Origin::Kind;

/// Damage of one type by one action, or by the ticks of one effect.
struct DamageRow {
    bool ours = true;
    Kind kind = Kind::action;
    std::string source, type; ///< no type: ticks of an effect
    ActionCount count;        ///< of the action, whatever the type
    bool first = true;        ///< of its action
    double dealt = 0, share = 0;
};

std::vector<DamageRow> damage_rows(const Armoury& armoury, const TrialsSummary& trials, bool ours) {
    const Ledger& sums = trials.sums;
    const double all = ours ? sums.all_dealt() : sums.all_taken();
    std::vector<DamageRow> rows;
    const auto add = [&](DamageRow row, double dealt) {
        row.ours = ours;
        row.dealt = trials.per_trial(dealt);
        row.share = all > 0 ? dealt / all : 0;
        rows.push_back(std::move(row));
    };
    for (std::size_t a = 0; a < armoury.actions.size(); ++a) {
        const ActionCount& count = (ours ? sums.actions : sums.foe_actions)[a];
        if (count.done == 0) continue;
        const auto& by_action = ours ? sums.dealt_by_action : sums.taken_by_action;
        bool first = true;
        for (std::size_t t = 0; t < armoury.damages.size(); ++t) {
            const double dealt = by_action[a * armoury.damages.size() + t];
            if (dealt == 0) continue;
            add({ours, Kind::action, armoury.actions[a].id, armoury.damages[t].id, count, first},
                dealt);
            first = false;
        }
        if (first) add({ours, Kind::action, armoury.actions[a].id, "", count}, 0);
    }
    for (std::size_t e = 0; e < armoury.effects.size(); ++e) {
        const double dealt = (ours ? sums.dealt_by_effect : sums.taken_by_effect)[e];
        if (dealt > 0) add({ours, Kind::effect, armoury.effects[e].id, "", {}}, dealt);
    }
    return rows;
}

void show_damage(const Armoury& armoury, const FightAnswer& answer, Document& document) {
    TextTable text({{"damage"},
                    {"by"},
                    {"type"},
                    {"done", Align::right},
                    {"hits", Align::right},
                    {"crits", Align::right},
                    {"missed", Align::right},
                    {"warded", Align::right},
                    {"points", Align::right},
                    {"share", Align::right}});
    CsvTable csv{"fight-damage",
                 {"side", "kind", "source", "type", "done", "hits", "crits", "misses", "warded",
                  "dealt", "share"},
                 {}};
    document.json["damage"] = Json::array();
    const TrialsSummary& trials = *answer.trials;
    for (const bool ours : {true, false}) {
        const std::string who = ours ? armoury.at(armoury.at(answer.loadout).character).id : "foes";
        bool named = false;
        for (const DamageRow& row : damage_rows(armoury, trials, ours)) {
            const ActionCount& c = row.count;
            const bool counted = row.kind == Kind::action && row.first;
            const auto number = [&](double sum) {
                return counted ? rounded(trials.per_trial(sum)) : std::string();
            };
            text.row({named ? "" : who, row.first ? row.source : "",
                      row.kind == Kind::effect ? "ticks" : row.type, number(c.done), number(c.hits),
                      number(c.crits), number(c.misses), number(c.warded), rounded(row.dealt, 1),
                      percent(row.share)});
            named = true;
            csv.rows.push_back({ours ? "character" : "foes", kind_word(row.kind), row.source,
                                row.type, number(c.done), number(c.hits), number(c.crits),
                                number(c.misses), number(c.warded), rounded(row.dealt, 4),
                                rounded(row.share, 5)});
            Json json = {{"side", ours ? "character" : "foes"},
                         {"kind", kind_word(row.kind)},
                         {"source", row.source}};
            if (!row.type.empty()) json["type"] = row.type;
            json["dealt"] = row.dealt;
            json["share"] = row.share;
            if (row.kind == Kind::action)
                json["done"] = trials.per_trial(c.done), json["hits"] = trials.per_trial(c.hits),
                json["crits"] = trials.per_trial(c.crits),
                json["misses"] = trials.per_trial(c.misses),
                json["warded"] = trials.per_trial(c.warded);
            document.json["damage"].push_back(std::move(json));
        }
    }
    document.text += "\n" + text.text();
    document.tables.push_back(std::move(csv));
}

void show_given(const Armoury& armoury, const FightAnswer& answer, Document& document) {
    TextTable text({{"restored by"},
                    {"pool"},
                    {"points", Align::right},
                    {"wasted", Align::right},
                    {"share wasted", Align::right}});
    CsvTable csv{"fight-restored", {"kind", "source", "pool", "restored", "wasted"}, {}};
    document.json["given"] = Json::array();
    for (const GivenRow& row : given_rows(armoury, answer)) {
        text.row({row.source, row.pool, rounded(row.restored, 1), rounded(row.wasted, 1),
                  percent(row.wasted_share())});
        csv.rows.push_back({kind_word(row.kind), row.source, row.pool, rounded(row.restored, 4),
                            rounded(row.wasted, 4)});
        document.json["given"].push_back({{"kind", kind_word(row.kind)},
                                          {"source", row.source},
                                          {"pool", row.pool},
                                          {"restored", row.restored},
                                          {"wasted", row.wasted}});
    }
    if (!text.empty()) document.text += "\n" + text.text();
    document.tables.push_back(std::move(csv));
}

void show_noticed(const Armoury& armoury, const FightAnswer& answer, Document& document) {
    TextTable text({{"what a player notices"},
                    {"hits", Align::right},
                    {"critical", Align::right},
                    {"points a hit", Align::right},
                    {"of health", Align::right}});
    document.json["noticed"] = Json::array();
    const auto hits = [](const std::optional<int>& count) {
        return count ? std::to_string(*count) : std::string("never");
    };
    for (const BlowCount& blow : answer.blows) {
        const std::string& action = armoury.at(blow.action).id;
        text.row({fmt::format("{} falls to {}'s {}", blow.target, blow.actor, action),
                  hits(blow.plain_hits()), blow.critical > 0 ? hits(blow.critical_hits()) : "",
                  rounded(blow.plain, 1), rounded(blow.health, 1)});
        const auto number = [](const std::optional<int>& count) {
            return count ? Json(*count) : Json();
        };
        document.json["noticed"].push_back({{"target", blow.target},
                                            {"actor", blow.actor},
                                            {"action", action},
                                            {"hits", number(blow.plain_hits())},
                                            {"critical_hits", number(blow.critical_hits())},
                                            {"damage", blow.plain}});
    }
    if (!text.empty()) document.text += "\n" + text.text();
}

const char* how_often(double share) {
    if (share == 1) return "always wins";
    if (share > 0.95) return "nearly always wins";
    if (share > 0.6) return "mostly wins";
    if (share >= 0.4) return "wins about as often as not";
    if (share > 0.05) return "mostly loses";
    return share > 0 ? "nearly always loses" : "never wins";
}

/// "wax_draught (1.07) and honey_brew (1)".
std::string used_words(const Armoury& armoury, const FightAnswer& answer) {
    std::vector<std::string> used;
    for (std::size_t i = 0; i < answer.pack.size(); ++i) {
        const double count = answer.trials->per_trial(answer.trials->sums.uses[i].used);
        if (count > 0)
            used.push_back(
                fmt::format("{} ({})", armoury.at(answer.pack[i].item).id, rounded(count)));
    }
    return join(used, ", ");
}

} // namespace

std::string fight_sentence(const Armoury& armoury, const FightAnswer& answer) {
    const TrialsSummary& trials = *answer.trials;
    const double share = static_cast<double>(trials.won) / static_cast<double>(trials.trials);
    std::string words = fmt::format("{} {}", armoury.at(answer.loadout).id, how_often(share));
    if (trials.won > 0)
        words += fmt::format(": a win takes {:.1f} {} and leaves {} of its health",
                             quantile(trials.times_won, 0.5), unit_of(armoury),
                             percent(trials.health_left.mean()));
    if (!trials.times_lost.empty())
        words += fmt::format("{} a loss leaves the foes {} of theirs", trials.won > 0 ? ";" : ":",
                             percent(trials.foes_left.mean()));
    const std::vector<DamageRow> rows = damage_rows(armoury, trials, true);
    const auto most =
        std::max_element(rows.begin(), rows.end(),
                         [](const DamageRow& a, const DamageRow& b) { return a.dealt < b.dealt; });
    if (most != rows.end() && most->dealt > 0)
        words +=
            fmt::format("; {} of what it deals comes from {}", percent(most->share), most->source);
    const std::string used = used_words(armoury, answer);
    words += used.empty() ? "; it uses nothing up" : "; it uses up " + used;
    return words + ".";
}

void show_fight_tables(const Armoury& armoury, const FightAnswer& answer, Document& document) {
    show_damage(armoury, answer, document);
    show_given(armoury, answer, document);
    show_waste(armoury, answer, document);
    show_noticed(armoury, answer, document);
}

} // namespace panoplon
