#include "show/fight/fight_tables.h"

#include "base/text.h"
#include "show/measures.h"

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
    Table table{"fight-damage",
                {as::text("side"), as::text("kind"), as::text("", "damage"), as::text("source"),
                 as::text("", "by"), as::text("", "type"), as::text("type").if_any(),
                 as::json("dealt"), as::json("share")}};
    // Counts of an action stand with the first of its types; JSON has them with each.
    for (const char* count : {"done", "hits", "crits", "misses", "warded"}) {
        table.columns.push_back(as::json(count).if_any());
        table.columns.push_back(
            as::amount(count, count == std::string("misses") ? "missed" : count, 2, 2).json(""));
    }
    table.columns.push_back(as::json("returned").if_any());
    table.columns.push_back(as::amount("returned", "came back", 1, 4).json("").if_any());
    table.columns.push_back(as::amount("dealt", "points", 1, 4).json(""));
    table.columns.push_back(as::share("share", "share", 1, 5).json(""));
    table.nothing = "";
    const TrialsSummary& trials = *answer.trials;
    for (const bool ours : {true, false}) {
        std::string who = ours ? armoury.at(armoury.at(answer.loadout).character).id : "foes";
        for (const DamageRow& row : damage_rows(armoury, trials, ours)) {
            const ActionCount& c = row.count;
            std::vector<Cell> cells = {ours ? "character" : "foes",
                                       kind_word(row.kind),
                                       std::exchange(who, ""),
                                       row.source,
                                       row.first ? row.source : "",
                                       row.kind == Kind::effect ? "ticks" : row.type,
                                       row.type.empty() ? Cell() : Cell(row.type),
                                       row.dealt,
                                       row.share};
            for (const double count : {c.done, c.hits, c.crits, c.misses, c.warded}) {
                const bool of_action = row.kind == Kind::action;
                const double each = trials.per_trial(count);
                cells.push_back(of_action ? Cell(each) : Cell());
                cells.push_back(of_action && row.first ? Cell(each) : Cell());
            }
            const double returned = trials.per_trial(row.count.returned);
            const bool came_back = row.kind == Kind::action && returned > 0;
            cells.push_back(came_back ? Cell(returned) : Cell());
            cells.push_back(came_back && row.first ? Cell(returned) : Cell());
            cells.emplace_back(row.dealt);
            cells.emplace_back(row.share);
            table.row(std::move(cells));
        }
    }
    add_table(document, "damage", std::move(table));
}

void show_given(const Armoury& armoury, const FightAnswer& answer, Document& document) {
    Table table{"fight-restored",
                {as::text("kind"), as::text("source", "restored by"), as::text("pool", "pool"),
                 as::amount("restored", "points", 1, 4), as::amount("wasted", "wasted", 1, 4),
                 as::share("", "share wasted", 1)}};
    for (const GivenRow& row : given_rows(armoury, answer))
        table.row({kind_word(row.kind), row.source, row.pool, row.restored, row.wasted,
                   row.wasted_share()});
    add_table(document, "given", std::move(table));
}

void show_noticed(const Armoury& armoury, const FightAnswer& answer, Document& document) {
    Table table{"",
                {as::text("", "what a player notices"), as::json("target"), as::json("actor"),
                 as::json("action"), as::whole("", "hits").json("hits"),
                 as::whole("", "critical").json("critical_hits"),
                 as::amount("", "points a hit", 1).json("damage"), as::amount("", "of health", 1)}};
    const auto hits = [](const std::optional<int>& count) {
        return count ? Cell(*count) : Cell().said("never");
    };
    for (const BlowCount& blow : answer.blows) {
        const std::string& action = armoury.at(blow.action).id;
        table.row(
            {fmt::format("{} falls to {}'s {}", blow.target, blow.actor, action), blow.target,
             blow.actor, action, hits(blow.plain_hits()),
             blow.critical > 0 ? hits(blow.critical_hits()) : Cell(blow.critical_hits()).said(""),
             blow.plain, blow.health});
    }
    document.json["noticed"] = rows_json(table);
    // What never fells anybody is nothing to notice.
    std::vector<std::vector<Cell>> felling;
    for (std::size_t i = 0; i < answer.blows.size(); ++i)
        if (answer.blows[i].plain_hits() || answer.blows[i].critical_hits())
            felling.push_back(std::move(table.rows[i]));
    table.rows = std::move(felling);
    if (const std::string text = terminal_text(table); !text.empty()) document.text += "\n" + text;
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
