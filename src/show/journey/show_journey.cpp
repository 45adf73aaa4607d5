#include "show/journey/show_journey.h"

#include "base/text.h"
#include "show/journey/journey_progress.h"
#include "show/measures.h"
#include "show/text_table.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

const char* policy_words(Policy policy) {
    switch (policy) {
    case Policy::best: return "puts on what is best for the stage";
    case Policy::first: return "wears what came first";
    case Policy::tier: break;
    }
    return "puts on what has the higher tier";
}

/// What is found at the end of a stage is there only of trials that passed it.
Json mean_json(const Moments& moments) {
    return moments.count > 0 ? estimate_json(estimate_mean(moments)) : Json();
}

class View {
  public:
    View(const Armoury& armoury, const Journey& journey, const JourneyOptions& options,
         const JourneySummary& summary)
        : armoury_(armoury),
          journey_(journey),
          options_(options),
          summary_(summary),
          trials_(static_cast<double>(summary.trials)) {}

    Document show() {
        document_.partial = summary_.partial;
        head();
        stages();
        add_progress(armoury_, summary_, document_);
        items();
        add_stocks(armoury_, journey_, summary_, document_);
        upgrades();
        return std::move(document_);
    }

  private:
    void head() {
        const Estimate finished = estimate_share(static_cast<double>(summary_.finished), trials_);
        document_.text = fmt::format(
            "{}: {} from {}, {}{}\nIt {}. {} reach the end.\n", journey_.id,
            armoury_.at(journey_.character).id, armoury_.at(journey_.start).id,
            counted(summary_.trials, "trial"),
            summary_.partial ? fmt::format(" ({} were asked for)", options_.trials) : "",
            policy_words(journey_.policy), share_words(finished));
        for (std::size_t s = 0; s < summary_.stages.size(); ++s) {
            const StageSummary& stage = summary_.stages[s];
            const std::uint64_t ended = stage.reached - stage.passed;
            if (ended == 0) continue;
            document_.text += fmt::format("{} end at stage {}, {}.\n",
                                          percent(static_cast<double>(ended) / trials_), s + 1,
                                          armoury_.at(journey_.stages[s].encounter).id);
            for (const auto& [reason, trials] : stage.missing)
                document_.text +=
                    fmt::format("  {} for want of gear: {}.\n",
                                percent(static_cast<double>(trials) / trials_), reason);
        }
        document_.json = {
            {"journey", journey_.id},
            {"character", armoury_.at(journey_.character).id},
            {"trials", summary_.trials},
            {"finished",
             {{"share", finished.mean}, {"low", finished.low}, {"high", finished.high}}},
            {"fights", summary_.fights / trials_}};
    }

    void stages() {
        TextTable table({{"stage", Align::right},
                         {"encounter"},
                         {"reached", Align::right},
                         {"passed", Align::right},
                         {"fights", Align::right},
                         {"level", Align::right},
                         {fmt::format("time, {}", unit_of(armoury_)), Align::right},
                         {"coin", Align::right},
                         {"power p10", Align::right},
                         {"p50", Align::right},
                         {"p90", Align::right}});
        CsvTable csv{"journey-stages",
                     {"stage", "encounter", "reached", "passed", "tries", "level", "time", "coin",
                      "power_p10", "power_p50", "power_p90"},
                     {}};
        document_.json["stages"] = Json::array();
        for (std::size_t s = 0; s < summary_.stages.size(); ++s) {
            const StageSummary& stage = summary_.stages[s];
            const std::string& encounter = armoury_.at(journey_.stages[s].encounter).id;
            const auto power = [&](double q) {
                return stage.power.empty() ? std::string()
                                           : fmt::format("{:.2f}", quantile(stage.power, q));
            };
            // At its end, of those that passed it: of none there is no mean.
            const auto mean = [&](const Moments& moments, int places) {
                return moments.count > 0 ? rounded(moments.mean(), places) : std::string();
            };
            const double reached = static_cast<double>(stage.reached) / trials_;
            const double passed = static_cast<double>(stage.passed) / trials_;
            table.row({std::to_string(s + 1), encounter, percent(reached), percent(passed),
                       mean(stage.tries, 1), mean(stage.level, 1), mean(stage.time, 0),
                       mean(stage.coin, 1), power(0.1), power(0.5), power(0.9)});
            csv.rows.push_back({std::to_string(s + 1), encounter, rounded(reached, 5),
                                rounded(passed, 5), mean(stage.tries, 4), mean(stage.level, 3),
                                mean(stage.time, 3), mean(stage.coin, 3), power(0.1), power(0.5),
                                power(0.9)});
            Json missing = Json::object();
            for (const auto& [reason, trials] : stage.missing)
                missing[reason] = static_cast<double>(trials) / trials_;
            Json json = {{"stage", s + 1},
                         {"encounter", encounter},
                         {"reached", reached},
                         {"passed", passed},
                         {"tries", mean_json(stage.tries)},
                         {"level", stage.level.count > 0 ? Json(stage.level.mean()) : Json()},
                         {"time", mean_json(stage.time)},
                         {"coin", stage.coin.count > 0 ? Json(stage.coin.mean()) : Json()},
                         {"missing", std::move(missing)}};
            if (!stage.power.empty())
                json["power"] = {{"p10", quantile(stage.power, 0.1)},
                                 {"p50", quantile(stage.power, 0.5)},
                                 {"p90", quantile(stage.power, 0.9)}};
            document_.json["stages"].push_back(std::move(json));
        }
        document_.text += "\n" + table.text();
        document_.tables.push_back(std::move(csv));
    }

    /// Gear first by how much of the fights it was worn in; then what was found or used.
    void items() {
        std::vector<std::size_t> order;
        for (std::size_t i = 0; i < summary_.items.size(); ++i)
            if (const ItemSummary& item = summary_.items[i];
                item.found_in > 0 || item.worn_in > 0 || item.used.sum > 0)
                order.push_back(i);
        std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
            return summary_.items[a].fights_worn > summary_.items[b].fights_worn;
        });
        TextTable worn({{"worn"},
                        {"found in", Align::right},
                        {"worn in", Align::right},
                        {"first at level", Align::right},
                        {"share of fights", Align::right},
                        {"never taken off", Align::right}});
        TextTable used({{"consumable"},
                        {"found", Align::right},
                        {"used", Align::right},
                        {"left behind", Align::right}});
        CsvTable csv{"journey-items",
                     {"item", "found_in", "worn_in", "first_worn", "fights_worn", "kept", "found",
                      "used", "left"},
                     {}};
        document_.json["items"] = Json::array();
        std::vector<std::string> never;
        for (const std::size_t i : order) {
            const ItemSummary& item = summary_.items[i];
            const std::string& id = armoury_.items[i].id;
            const double found_in = static_cast<double>(item.found_in) / trials_;
            const double worn_in = static_cast<double>(item.worn_in) / trials_;
            const double share = summary_.fights > 0 ? item.fights_worn / summary_.fights : 0;
            const double kept = item.worn_in > 0 ? static_cast<double>(item.kept_in) /
                                                       static_cast<double>(item.worn_in)
                                                 : 0;
            if (item.worn_in > 0)
                worn.row({id, percent(found_in), percent(worn_in),
                          rounded(item.first_worn.mean(), 1), percent(share), percent(kept)});
            else if (armoury_.items[i].worn())
                never.push_back(id);
            if (!armoury_.items[i].worn())
                used.row({id, rounded(item.found.mean()), rounded(item.used.mean()),
                          rounded(item.left.mean())});
            csv.rows.push_back({id, rounded(found_in, 5), rounded(worn_in, 5),
                                item.worn_in > 0 ? rounded(item.first_worn.mean(), 3) : "",
                                rounded(share, 5), rounded(kept, 5), rounded(item.found.mean(), 4),
                                rounded(item.used.mean(), 4), rounded(item.left.mean(), 4)});
            document_.json["items"].push_back(
                {{"id", id},
                 {"found_in", found_in},
                 {"worn_in", worn_in},
                 {"first_worn", item.worn_in > 0 ? Json(item.first_worn.mean()) : Json()},
                 {"fights_worn", share},
                 {"kept", kept},
                 {"found", item.found.mean()},
                 {"used", item.used.mean()},
                 {"left", item.left.mean()}});
        }
        if (!worn.empty()) document_.text += "\n" + worn.text();
        if (!used.empty()) document_.text += "\n" + used.text();
        if (!never.empty())
            document_.text +=
                "\n" + folded("Found and never worn: " + join(never, ", "), 100, 2) + "\n";
        document_.json["never_worn"] = never;
        document_.tables.push_back(std::move(csv));
    }

    void upgrades() {
        document_.json["upgrades"] = Json::object();
        std::vector<std::string> bought;
        for (std::size_t u = 0; u < summary_.upgrades.size(); ++u) {
            if (summary_.upgrades[u] == 0) continue;
            const double levels = static_cast<double>(summary_.upgrades[u]) / trials_;
            document_.json["upgrades"][armoury_.upgrades[u].id] = levels;
            bought.push_back(fmt::format("{} ({})", armoury_.upgrades[u].id, rounded(levels)));
        }
        if (!bought.empty())
            document_.text += fmt::format("\nBought, levels a trial: {}\n", join(bought, ", "));
    }

    const Armoury& armoury_;
    const Journey& journey_;
    const JourneyOptions& options_;
    const JourneySummary& summary_;
    double trials_;
    Document document_;
};

} // namespace

Document show_journey(const Armoury& armoury, const Journey& journey, const JourneyOptions& options,
                      const JourneySummary& summary) {
    Document document = View(armoury, journey, options, summary).show();
    document.figures.push_back(journey_figure(armoury, journey, options, summary));
    if (auto figure = journey_power_figure(armoury, journey, options, summary))
        document.figures.push_back(std::move(*figure));
    document.figures.push_back(item_life_figure(armoury, journey, options, summary));
    if (auto figure = journey_stock_figure(armoury, journey, options, summary))
        document.figures.push_back(std::move(*figure));
    return document;
}

} // namespace panoplon
