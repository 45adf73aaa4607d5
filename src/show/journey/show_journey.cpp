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
Cell mean_json(const Moments& moments) {
    return moments.count > 0 ? Cell::of(estimate_json(estimate_mean(moments))) : Cell();
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
        Table table{"journey-stages",
                    {as::whole("stage", "stage"), as::text("encounter", "encounter"),
                     as::share("reached", "reached", 1, 5), as::share("passed", "passed", 1, 5),
                     as::amount("tries", "fights", 1, 4).json(""), as::json("tries"),
                     as::amount("level", "level", 1, 3),
                     as::amount("time", fmt::format("time, {}", unit_of(armoury_)), 0, 3).json(""),
                     as::json("time"), as::amount("coin", "coin", 1, 3), as::json("missing")}};
        for (const auto& [name, header] :
             {std::pair{"p10", "power p10"}, {"p50", "p50"}, {"p90", "p90"}})
            table.columns.push_back(
                as::number(std::string("power_") + name, header, 2, 2).json(""));
        table.columns.push_back(as::json("power").if_any());
        table.nothing = "";
        for (std::size_t s = 0; s < summary_.stages.size(); ++s) {
            const StageSummary& stage = summary_.stages[s];
            const auto power = [&](double q) {
                return stage.power.empty() ? Cell() : Cell(quantile(stage.power, q));
            };
            // At its end, of those that passed it: of none there is no mean.
            const auto mean = [&](const Moments& moments) {
                return moments.count > 0 ? Cell(moments.mean()) : Cell();
            };
            Json missing = Json::object();
            for (const auto& [reason, trials] : stage.missing)
                missing[reason] = static_cast<double>(trials) / trials_;
            table.row({s + 1, armoury_.at(journey_.stages[s].encounter).id,
                       static_cast<double>(stage.reached) / trials_,
                       static_cast<double>(stage.passed) / trials_, mean(stage.tries),
                       mean_json(stage.tries), mean(stage.level), mean(stage.time),
                       mean_json(stage.time), mean(stage.coin), Cell::of(std::move(missing)),
                       power(0.1), power(0.5), power(0.9),
                       stage.power.empty() ? Cell()
                                           : Cell::of({{"p10", quantile(stage.power, 0.1)},
                                                       {"p50", quantile(stage.power, 0.5)},
                                                       {"p90", quantile(stage.power, 0.9)}})});
        }
        add_table(document_, "stages", std::move(table));
    }

    /// Gear first by how much of the fights it was worn in; then what was found or used.
    void items() {
        std::vector<std::size_t> order;
        for (std::size_t i = 0; i < summary_.items.size(); ++i)
            if (const ItemSummary& item = summary_.items[i];
                item.found_in > 0 || item.worn_in > 0 || item.used.sum > 0 || item.bought.sum > 0)
                order.push_back(i);
        std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
            return summary_.items[a].fights_worn > summary_.items[b].fights_worn;
        });
        Table worn{"journey-items",
                   {as::item("item", "worn").json("id"), as::share("found_in", "found in", 1, 5),
                    as::share("worn_in", "worn in", 1, 5),
                    as::amount("first_worn", "first at level", 1, 3),
                    as::share("fights_worn", "share of fights", 1, 5),
                    as::share("kept", "never taken off", 1, 5), as::number("found", 4),
                    as::number("used", 4), as::number("left", 4), as::number("bought", 4),
                    as::number("sold", 4), as::number("broken", 4), as::number("grown", 4)}};
        const bool bought = any_bought();
        Table used{"", {as::text("", "consumable"), as::amount("", "found", 2)}};
        if (bought) used.columns.push_back(as::amount("", "bought", 2));
        used.columns.push_back(as::amount("", "used", 2));
        used.columns.push_back(as::amount("", "left behind", 2));
        Table shown{"", worn.columns, {}};
        std::vector<std::string> never;
        for (const std::size_t i : order) {
            const ItemSummary& item = summary_.items[i];
            const std::string& id = armoury_.items[i].id;
            const double trials_worn = static_cast<double>(item.worn_in);
            worn.row({id, static_cast<double>(item.found_in) / trials_, trials_worn / trials_,
                      item.worn_in > 0 ? Cell(item.first_worn.mean()) : Cell(),
                      summary_.fights > 0 ? item.fights_worn / summary_.fights : 0.0,
                      item.worn_in > 0 ? static_cast<double>(item.kept_in) / trials_worn : 0.0,
                      item.found.mean(), item.used.mean(), item.left.mean(), item.bought.mean(),
                      item.sold.mean(), item.broken.mean(), item.grown.mean()});
            if (item.worn_in > 0)
                shown.rows.push_back(worn.rows.back());
            else if (armoury_.items[i].worn())
                never.push_back(id);
            if (armoury_.items[i].worn()) continue;
            std::vector<Cell> cells{id, item.found.mean()};
            if (bought) cells.emplace_back(item.bought.mean());
            cells.emplace_back(item.used.mean());
            cells.emplace_back(item.left.mean());
            used.rows.push_back(std::move(cells));
        }
        document_.json["items"] = rows_json(worn);
        for (const Table* table : {&shown, &used})
            if (!table->rows.empty()) document_.text += "\n" + terminal_text(*table);
        if (!never.empty())
            document_.text +=
                "\n" + folded("Found and never worn: " + join(never, ", "), 100, 2) + "\n";
        told_of_gear("Gear bought, pieces a trial", order, &ItemSummary::bought);
        told_of_gear("Gear sold, pieces a trial", order, &ItemSummary::sold);
        told_of_gear("Worn out, pieces a trial", order, &ItemSummary::broken);
        told_of_gear("Grown, times where it was worn", order, &ItemSummary::grown);
        document_.json["never_worn"] = never;
        document_.tables.push_back(std::move(worn));
    }

    [[nodiscard]] bool any_bought() const {
        return std::any_of(summary_.items.begin(), summary_.items.end(),
                           [](const ItemSummary& item) { return item.bought.sum > 0; });
    }

    /// A line of the gear to which something happened in shops or in fights.
    void told_of_gear(const char* what, const std::vector<std::size_t>& order,
                      Moments ItemSummary::*happened) {
        std::vector<std::string> list;
        for (const std::size_t i : order) {
            const Moments& units = summary_.items[i].*happened;
            if (units.sum > 0 && armoury_.items[i].worn())
                list.push_back(fmt::format("{} ({})", armoury_.items[i].id, rounded(units.mean())));
        }
        if (!list.empty())
            document_.text +=
                "\n" + folded(fmt::format("{}: {}", what, join(list, ", ")), 100, 2) + "\n";
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
