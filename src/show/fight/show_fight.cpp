#include "show/fight/show_fight.h"

#include "base/text.h"
#include "show/fight/fight_tables.h"
#include "show/fight/show_fight_two.h"
#include "show/fight/show_why.h"
#include "show/measures.h"
#include "show/text_table.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

const char* outcome_words(const FightResult& even) {
    return even.won ? "won" : even.timed_out ? "not won at the time limit" : "lost";
}

/// The line that even luck comes to; `after`: its time, and what else is told of it.
std::string even_words(const FightAnswer& answer, const std::string& after) {
    if (answer.even.error)
        return fmt::format("By even luck: no result; {}.\n", answer.even.error->message);
    return fmt::format("By even luck: {} after {}; margin {}.\n", outcome_words(answer.even), after,
                       answer.even_margin.error
                           ? fmt::format("unknown ({})", answer.even_margin.error->message)
                           : margin_words(answer.even_margin));
}

bool wields(const Armoury& armoury, const Loadout& loadout, ActionId action) {
    const auto has = [&](const std::vector<ActionId>& list) {
        return std::find(list.begin(), list.end(), action) != list.end();
    };
    bool found = has(armoury.at(loadout.character).actions);
    for_each_worn(loadout.worn, [&](const WornItem& worn) {
        found = found || has(armoury.at(worn.item).actions);
    });
    return found;
}

/// Tables of the summary, each for the text and the JSON at once.
class Summary {
  public:
    Summary(const Armoury& armoury, const FightAnswer& answer, Document& document)
        : armoury_(armoury),
          answer_(answer),
          document_(document),
          trials_(*answer.trials) {}

    void show() {
        outcome();
        margins();
        amounts();
        uses();
        actions();
        effects();
    }

  private:
    void outcome() {
        const double n = static_cast<double>(trials_.trials);
        const Estimate wins = estimate_share(static_cast<double>(trials_.won), n);
        const Estimate time = estimate_mean(trials_.time);
        const char* unit = unit_of(armoury_);
        const std::vector<double> times = trials_.times();
        std::string& text = document_.text;
        text += fmt::format(
            "Wins {} of {}{}. Time {} {}; half within {:.1f}, nine of ten within {:.1f}.",
            share_words(wins), counted(trials_.trials, "trial"), partial_words(),
            estimate_words(time), unit, quantile(times, 0.5), quantile(times, 0.9));
        if (trials_.timed_out > 0)
            text += fmt::format(" The time limit ended {}.",
                                percent(static_cast<double>(trials_.timed_out) / n));
        text += "\n" + even_words(answer_, fmt::format("{:.1f} {}", answer_.even.time, unit));
        Json& json = document_.json;
        json["trials"] = trials_.trials;
        json["wins"] = {{"share", wins.mean}, {"low", wins.low}, {"high", wins.high}};
        json["time"] = estimate_json(time);
        for (const auto& [name, q] : {std::pair{"p10", 0.1}, {"p50", 0.5}, {"p90", 0.9}})
            json["time"][name] = quantile(times, q);
        json["timed_out"] = static_cast<double>(trials_.timed_out) / n;
        if (trials_.won > 0)
            json["health_left"] = estimate_json(estimate_mean(trials_.health_left));
        if (!trials_.times_lost.empty())
            json["foes_left"] = estimate_json(estimate_mean(trials_.foes_left));
        json["sentence"] = fight_sentence(armoury_, answer_);
        text += folded(fight_sentence(armoury_, answer_), 100, 0) + "\n";
    }

    /// The margins of the trials, and the check of M70: as many are at least 1 as are won.
    void margins() {
        if (!answer_.margins || answer_.margins->margins.empty()) return;
        std::vector<double> values;
        std::size_t bounded = 0;
        for (const Margin& margin : answer_.margins->margins) {
            values.push_back(margin.value);
            bounded += margin.reach != Reach::within;
        }
        std::sort(values.begin(), values.end());
        const auto matched =
            static_cast<double>(values.end() - std::lower_bound(values.begin(), values.end(), 1.0));
        const double share = matched / static_cast<double>(values.size());
        const double won = static_cast<double>(trials_.won) / static_cast<double>(trials_.trials);
        // A bisection leaves 0.5 % of a margin open, so trials that close to 1 may differ.
        const auto near = std::upper_bound(values.begin(), values.end(), 1.005) -
                          std::lower_bound(values.begin(), values.end(), 0.995);
        const double open = static_cast<double>(near) / static_cast<double>(values.size());
        const bool agree = std::abs(share - won) <= open + 1e-12;
        document_.text += fmt::format(
            "Margins of the trials: half at least {:.3f}, nine of ten at least {:.3f}, one of ten "
            "at least {:.3f}.\n{} are at least 1, {} are won: {}.\n",
            quantile(values, 0.5), quantile(values, 0.1), quantile(values, 0.9), percent(share),
            percent(won),
            agree ? "they agree"
                  : "they differ, so some fights are won against foes that are stronger and lost "
                    "against weaker ones");
        if (bounded > 0)
            document_.text += fmt::format("{} of them are not between 1/64 and 64.\n", bounded);
        document_.json["margin"] = {{"p10", quantile(values, 0.1)},
                                    {"p50", quantile(values, 0.5)},
                                    {"p90", quantile(values, 0.9)},
                                    {"share_at_least_1", share},
                                    {"agrees", agree},
                                    {"out_of_bounds", bounded}};
    }

    [[nodiscard]] std::string partial_words() const {
        if (!trials_.partial) return {};
        if (trials_.trials >= answer_.asked) return " (stopped before they told it as closely)";
        return fmt::format(" ({} were asked for)", answer_.asked);
    }

    void amounts() {
        TextTable table({{"a fight's mean"}, {"points", Align::right}});
        const auto damage = [&](const char* key, const Moments& all,
                                const std::vector<Moments>& by_type) {
            const Estimate estimate = estimate_mean(all);
            table.row({key, estimate_words(estimate)});
            Json& json = document_.json[key] = estimate_json(estimate);
            for (std::size_t t = 0; t < by_type.size(); ++t) {
                const Estimate part = estimate_mean(by_type[t]);
                json["by_type"][armoury_.damages[t].id] = estimate_json(part);
                if (part.mean > 0)
                    table.row({fmt::format("  {}", armoury_.damages[t].id), estimate_words(part)});
            }
        };
        damage("dealt", trials_.dealt, trials_.dealt_by_type);
        document_.json["dealt"]["overkill"] = estimate_json(estimate_mean(trials_.overkill));
        table.row({"overkill", estimate_words(estimate_mean(trials_.overkill))});
        damage("taken", trials_.taken, trials_.taken_by_type);
        for (std::size_t p = 0; p < armoury_.pools.size(); ++p) {
            const std::string& pool = armoury_.pools[p].id;
            const Estimate restored = estimate_mean(trials_.restored[p]);
            const Estimate wasted = estimate_mean(trials_.wasted[p]);
            document_.json["restored"][pool] = estimate_json(restored);
            document_.json["wasted"][pool] = estimate_json(wasted);
            if (restored.mean == 0 && wasted.mean == 0) continue;
            table.row({fmt::format("{} restored", pool), estimate_words(restored)});
            table.row({fmt::format("{} wasted", pool), estimate_words(wasted)});
        }
        document_.text += "\n" + table.text();
    }

    void uses() {
        document_.json["uses"] = Json::object();
        TextTable table({{"consumable"},
                         {"packed", Align::right},
                         {"used", Align::right},
                         {"refused", Align::right},
                         {"left over", Align::right}});
        for (std::size_t i = 0; i < answer_.pack.size(); ++i) {
            const Item& item = armoury_.at(answer_.pack[i].item);
            if (!item.consumed()) continue;
            const UseCount& count = trials_.sums.uses[i];
            const double used = trials_.per_trial(count.used);
            const double refused = trials_.per_trial(count.refused);
            const double left = trials_.per_trial(count.left);
            document_.json["uses"][item.id] = {
                {"mean", used}, {"refused", refused}, {"left", left}};
            table.row({item.id, std::to_string(answer_.pack[i].count), rounded(used),
                       rounded(refused), rounded(left)});
        }
        if (!table.empty()) document_.text += "\n" + table.text();
    }

    /// Those of the loadout, done or not; show_fight_tables() tells what they dealt.
    void actions() {
        document_.json["actions"] = Json::object();
        const Loadout& loadout = armoury_.at(answer_.loadout);
        std::vector<std::string> idle;
        for (std::size_t a = 0; a < armoury_.actions.size(); ++a) {
            const ActionCount& count = trials_.sums.actions[a];
            if (count.done == 0 && !wields(armoury_, loadout, ActionId(a))) continue;
            document_.json["actions"][armoury_.actions[a].id] = {
                {"mean", trials_.per_trial(count.done)}, {"dealt", trials_.per_trial(count.dealt)}};
            if (count.done == 0) idle.push_back(armoury_.actions[a].id);
        }
        if (!idle.empty())
            document_.text += fmt::format("\nNever done: {} (--why {} tells why)\n",
                                          join(idle, ", "), idle.front());
    }

    void effects() {
        document_.json["effects"] = Json::object();
        TextTable table({{"effect"},
                         {"uptime", Align::right},
                         {"time cut off", Align::right},
                         {"overlap", Align::right}});
        for (std::size_t e = 0; e < armoury_.effects.size(); ++e) {
            const Estimate uptime = estimate_mean(trials_.uptime[e]);
            const double cut = trials_.per_trial(trials_.sums.effects[e].cut);
            const double overlap = trials_.per_trial(trials_.sums.effects[e].overlap);
            document_.json["effects"][armoury_.effects[e].id] = {{"uptime", uptime.mean},
                                                                 {"low", uptime.low},
                                                                 {"high", uptime.high},
                                                                 {"cut", cut},
                                                                 {"overlap", overlap}};
            if (uptime.mean > 0)
                table.row(
                    {armoury_.effects[e].id, percent(uptime.mean), rounded(cut), rounded(overlap)});
        }
        if (!table.empty()) document_.text += "\n" + table.text();
        const Estimate events = estimate_mean(trials_.events);
        document_.json["events_per_trial"] = events.mean;
    }

    const Armoury& armoury_;
    const FightAnswer& answer_;
    Document& document_;
    const TrialsSummary& trials_;
};

void show_even_only(const Armoury& armoury, const FightAnswer& answer, Document& document) {
    document.text += even_words(
        answer, fmt::format("{:.1f} {}; {:.1f} dealt, {:.1f} taken", answer.even.time,
                            unit_of(armoury), answer.even.all_dealt(), answer.even.all_taken()));
    // The rest as trials have it, of this one fight, but for what only many trials can tell.
    FightAnswer as_trials = answer;
    as_trials.trials = summary_of(answer.even);
    Document rest;
    Summary(armoury, as_trials, rest).show();
    show_fight_tables(armoury, as_trials, rest);
    for (const char* key : {"trials", "wins", "timed_out", "health_left", "foes_left", "sentence"})
        rest.json.erase(key);
    document.json.update(rest.json);
    document.tables = std::move(rest.tables);
}

Json even_json(const FightAnswer& answer) {
    if (answer.even.error) return {{"error", answer.even.error->message}};
    Json json = {{"won", answer.even.won}, {"time", answer.even.time}};
    if (answer.even_margin.error)
        json["error"] = answer.even_margin.error->message;
    else
        json["margin"] = answer.even_margin.value;
    json["dealt"] = answer.even.all_dealt();
    json["taken"] = answer.even.all_taken();
    return json;
}

Figure margins_of_one(const Armoury& armoury, const FightAnswer& answer) {
    NamedMargins own{armoury.at(answer.loadout).id, {}};
    for (const Margin& margin : answer.margins->margins) own.margins.push_back(margin.value);
    std::sort(own.margins.begin(), own.margins.end());
    return margin_figure(fmt::format("{} against {}, over their strength",
                                     armoury.at(answer.loadout).name,
                                     armoury.at(answer.encounter).name),
                         fmt::format("{} · level {} · {}, seed {}", armoury.name, answer.level,
                                     counted(own.margins.size(), "trial"), answer.seed),
                         {own});
}

} // namespace

Table timeline_table(const Timeline& timeline) {
    Table table{"fight-timeline",
                {as::number("time", 6), as::text("side"), as::text("actor"), as::text("event"),
                 as::text("source"), as::text("target"), as::number("amount", 4),
                 as::number("pool_after", 4), as::number("load_share", 5), as::text("note")}};
    for (const TimelineEvent& e : timeline.events)
        table.row({e.time, e.side, e.actor, e.event, e.source, e.target, e.amount, e.pool_after,
                   e.load_share, e.note});
    return table;
}

Document show_fight(const Armoury& armoury, const FightAnswer& answer) {
    Document document;
    document.text = fmt::format("{} at level {} against {}\n", armoury.at(answer.loadout).id,
                                answer.level, armoury.at(answer.encounter).id);
    document.text += fmt::format("Load: {}\n", answer.load);
    document.json["loadout"] = armoury.at(answer.loadout).id;
    document.json["encounter"] = armoury.at(answer.encounter).id;
    document.json["level"] = answer.level;
    if (answer.trials) {
        document.partial = answer.trials->partial;
        Summary(armoury, answer, document).show();
        show_fight_tables(armoury, answer, document);
    } else {
        show_even_only(armoury, answer, document);
        document.json["trials"] = 0;
    }
    document.json["even_luck"] = even_json(answer);
    show_why(armoury, answer, document);
    if (answer.log)
        document.text +=
            fmt::format("\n{}\n", answer.told_trial ? fmt::format("Trial {}:", *answer.told_trial)
                                                    : std::string("By even luck:")) +
            log_text(armoury, answer.told);
    document.tables.push_back(timeline_table(answer.told));
    document.figures.push_back(fight_figure(armoury, answer));
    if (answer.trials) document.figures.push_back(spread_figure(armoury, answer));
    if (answer.margins) document.figures.push_back(margins_of_one(armoury, answer));
    return document;
}

} // namespace panoplon
