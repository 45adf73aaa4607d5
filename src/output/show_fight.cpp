#include "output/show_fight.h"

#include "base/text.h"
#include "output/text_table.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

Json estimate_json(const Estimate& e) {
    return {{"mean", e.mean}, {"low", e.low}, {"high", e.high}};
}

std::string estimate_words(const Estimate& e, int places = 1) {
    return fmt::format("{:.{}f} ({:.{}f}–{:.{}f})", e.mean, places, e.low, places, e.high, places);
}

std::string share_words(const Estimate& e) {
    return fmt::format("{} ({}–{})", percent(e.mean), rounded(e.low * 100, 1), percent(e.high));
}

std::string margin_words(const Margin& margin) {
    switch (margin.reach) {
    case Reach::below:
        return "under 1/64: lost even against foes at a sixty-fourth of their strength";
    case Reach::above: return "over 64: won even against foes 64 times as strong";
    case Reach::within: break;
    }
    return fmt::format("{:.3f}", margin.value);
}

const char* unit_of(const Armoury& armoury) {
    return armoury.clock == Clock::seconds ? "s" : "rounds";
}

bool wields(const Armoury& armoury, const Loadout& loadout, ActionId action) {
    const auto has = [&](const std::vector<ActionId>& list) {
        return std::find(list.begin(), list.end(), action) != list.end();
    };
    if (has(armoury.at(loadout.character).actions)) return true;
    return std::any_of(loadout.worn.begin(), loadout.worn.end(),
                       [&](const WornItem& worn) { return has(armoury.at(worn.item).actions); });
}

/// Tables of the summary, each for the text and the JSON at once.
class Summary {
  public:
    Summary(const Armoury& armoury, const FightReport& report, Document& document)
        : armoury_(armoury),
          report_(report),
          document_(document),
          trials_(*report.trials) {}

    void show() {
        outcome();
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
        std::string& text = document_.text;
        text += fmt::format(
            "Wins {} of {}{}. Time {} {}; half within {:.1f}, nine of ten within {:.1f}.",
            share_words(wins), counted(trials_.trials, "trial"), partial_words(),
            estimate_words(time), unit, quantile(trials_.times, 0.5), quantile(trials_.times, 0.9));
        if (trials_.timed_out > 0)
            text += fmt::format(" The time limit ended {}.",
                                percent(static_cast<double>(trials_.timed_out) / n));
        text += fmt::format("\nBy even luck: {} after {:.1f} {}; margin {}.\n",
                            report_.even.won         ? "won"
                            : report_.even.timed_out ? "not won at the time limit"
                                                     : "lost",
                            report_.even.time, unit, margin_words(report_.even_margin));
        Json& json = document_.json;
        json["trials"] = trials_.trials;
        json["wins"] = {{"share", wins.mean}, {"low", wins.low}, {"high", wins.high}};
        json["time"] = estimate_json(time);
        for (const auto& [name, q] : {std::pair{"p10", 0.1}, {"p50", 0.5}, {"p90", 0.9}})
            json["time"][name] = quantile(trials_.times, q);
        json["timed_out"] = static_cast<double>(trials_.timed_out) / n;
    }

    [[nodiscard]] std::string partial_words() const {
        if (!trials_.partial) return {};
        if (trials_.trials >= report_.asked) return " (stopped before they told it as closely)";
        return fmt::format(" ({} were asked for)", report_.asked);
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
        for (const PackedItem& packed : report_.pack) {
            const Item& item = armoury_.at(packed.item);
            if (!item.use) continue;
            const std::size_t i = packed.item.index();
            document_.json["uses"][item.id] = {{"mean", trials_.used[i].mean()},
                                               {"refused", trials_.refused[i].mean()},
                                               {"left", trials_.left[i].mean()}};
            table.row({item.id, std::to_string(packed.count), rounded(trials_.used[i].mean()),
                       rounded(trials_.refused[i].mean()), rounded(trials_.left[i].mean())});
        }
        if (!table.empty()) document_.text += "\n" + table.text();
    }

    void actions() {
        document_.json["actions"] = Json::object();
        const Loadout& loadout = armoury_.at(report_.loadout);
        const double dealt = trials_.dealt.mean();
        TextTable table(
            {{"action"}, {"done", Align::right}, {"dealt", Align::right}, {"share", Align::right}});
        for (std::size_t a = 0; a < armoury_.actions.size(); ++a) {
            if (!wields(armoury_, loadout, ActionId(a))) continue;
            const double done = trials_.action_done[a].mean();
            const double by_it = trials_.action_dealt[a].mean();
            document_.json["actions"][armoury_.actions[a].id] = {{"mean", done}, {"dealt", by_it}};
            table.row({armoury_.actions[a].id, rounded(done), rounded(by_it, 1),
                       percent(dealt > 0 ? by_it / dealt : 0)});
        }
        document_.text += "\n" + table.text();
    }

    void effects() {
        document_.json["effects"] = Json::object();
        TextTable table({{"effect"},
                         {"uptime", Align::right},
                         {"time cut off", Align::right},
                         {"overlap", Align::right}});
        for (std::size_t e = 0; e < armoury_.effects.size(); ++e) {
            const Estimate uptime = estimate_mean(trials_.uptime[e]);
            const double cut = trials_.effect_cut[e].mean();
            const double overlap = trials_.overlap[e].mean();
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
    const FightReport& report_;
    Document& document_;
    const TrialsSummary& trials_;
};

void show_even_only(const Armoury& armoury, const FightReport& report, Document& document) {
    document.text +=
        fmt::format("By even luck: {} after {:.1f} {}; {:.1f} dealt, {:.1f} taken; margin {}.\n",
                    report.even.won         ? "won"
                    : report.even.timed_out ? "not won at the time limit"
                                            : "lost",
                    report.even.time, unit_of(armoury), report.even.all_dealt(),
                    report.even.all_taken(), margin_words(report.even_margin));
}

} // namespace

CsvTable timeline_table(const Timeline& timeline) {
    CsvTable table{"fight-timeline",
                   {"time", "side", "actor", "event", "source", "target", "amount", "pool_after",
                    "load_share", "note"},
                   {}};
    for (const TimelineEvent& e : timeline.events)
        table.rows.push_back({rounded(e.time, 6), e.side, e.actor, e.event, e.source, e.target,
                              rounded(e.amount, 4), rounded(e.pool_after, 4),
                              rounded(e.load_share, 5), e.note});
    return table;
}

Document show_fight(const Armoury& armoury, const FightReport& report) {
    Document document;
    document.text = fmt::format("{} at level {} against {}\n", armoury.at(report.loadout).id,
                                report.level, armoury.at(report.encounter).id);
    document.text += fmt::format("Load: {}\n", report.load);
    document.json["loadout"] = armoury.at(report.loadout).id;
    document.json["encounter"] = armoury.at(report.encounter).id;
    document.json["level"] = report.level;
    if (report.trials) {
        document.partial = report.trials->partial;
        Summary(armoury, report, document).show();
    } else {
        show_even_only(armoury, report, document);
        document.json["trials"] = 0;
    }
    document.json["even_luck"] = {{"won", report.even.won},
                                  {"time", report.even.time},
                                  {"margin", report.even_margin.value},
                                  {"dealt", report.even.all_dealt()},
                                  {"taken", report.even.all_taken()}};
    if (report.log)
        document.text +=
            fmt::format("\n{}\n", report.told_trial ? fmt::format("Trial {}:", *report.told_trial)
                                                    : std::string("By even luck:")) +
            log_text(armoury, report.told);
    document.tables.push_back(timeline_table(report.told));
    document.figures.push_back(fight_figure(armoury, report));
    return document;
}

} // namespace panoplon
