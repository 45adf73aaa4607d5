#include "show/loadout/show_weighing.h"

#include "base/text.h"
#include "show/text_table.h"
#include "show/words.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

std::string band_or_none(const Armoury& armoury, int band) {
    const Band* one = armoury.carry.band(band);
    return one ? one->name : "none";
}

/// A run of capacities with one band.
struct BandStretch {
    int band;
    double from, to;        ///< capacity
    double lowest, highest; ///< margin
};

std::vector<BandStretch> stretches_of(const std::vector<CapacityPoint>& points) {
    std::vector<BandStretch> list;
    for (const CapacityPoint& point : points) {
        if (list.empty() || list.back().band != point.load.band)
            list.push_back(
                {point.load.band, point.capacity, point.capacity, point.margin, point.margin});
        BandStretch& last = list.back();
        last.to = point.capacity;
        last.lowest = std::min(last.lowest, point.margin);
        last.highest = std::max(last.highest, point.margin);
    }
    return list;
}

class View {
  public:
    View(const Armoury& armoury, const std::string& name, EncounterId encounter,
         const Weighing& weighing)
        : armoury_(armoury),
          name_(name),
          encounter_(encounter),
          weighing_(weighing) {}

    Document show() {
        head();
        capacities();
        consumables();
        edges();
        fillings();
        return std::move(document_);
    }

  private:
    [[nodiscard]] std::string gain(double margin) const {
        return signed_percent(margin / weighing_.margin.value - 1);
    }

    void head() {
        const Load& load = weighing_.load;
        document_.text = fmt::format("{} at level {} against {}: margin {}, by even luck\n", name_,
                                     weighing_.outfit.level, armoury_.at(encounter_).id,
                                     rounded(weighing_.margin.value, 3));
        document_.json = {{"loadout", name_},
                          {"level", weighing_.outfit.level},
                          {"encounter", armoury_.at(encounter_).id},
                          {"margin", weighing_.margin.value}};
        if (!armoury_.carry.capacity.given()) {
            document_.text += "The armoury weighs nothing.\n";
            return;
        }
        document_.text += fmt::format("It carries {} of {}: {}, band {}",
                                      rounded(to_weight(load.carried)), rounded(load.capacity),
                                      percent(load.share), band_or_none(armoury_, load.band));
        if (load.above)
            document_.text +=
                fmt::format("; {} more until {}", rounded(load.above->weight_away),
                            load.above->limit ? "nothing more can be carried"
                                              : band_or_none(armoury_, load.above->band));
        document_.text += "\n";
        document_.json["load"] = {{"weight", to_weight(load.carried)},
                                  {"capacity", load.capacity},
                                  {"share", load.share},
                                  {"band", band_or_none(armoury_, load.band)}};
    }

    void capacities() {
        document_.json["capacities"] = Json::array();
        CsvTable csv{"weigh-capacity", {"capacity", "load_share", "band", "margin"}, {}};
        for (const CapacityPoint& point : weighing_.capacities) {
            csv.rows.push_back({rounded(point.capacity, 4), rounded(point.load.share, 5),
                                band_or_none(armoury_, point.load.band), rounded(point.margin, 5)});
            document_.json["capacities"].push_back(
                {{"capacity", point.capacity},
                 {"load_share", point.load.share},
                 {"band", band_or_none(armoury_, point.load.band)},
                 {"margin", point.margin}});
        }
        if (csv.rows.empty()) return;
        TextTable table({{"capacity"},
                         {"band at the start"},
                         {"margin", Align::right},
                         {"against now", Align::right}});
        for (const BandStretch& one : stretches_of(weighing_.capacities))
            table.row({fmt::format("{}–{}", rounded(one.from, 1), rounded(one.to, 1)),
                       band_or_none(armoury_, one.band),
                       one.highest / one.lowest < 1.001
                           ? rounded(one.highest, 3)
                           : fmt::format("{}–{}", rounded(one.lowest, 3), rounded(one.highest, 3)),
                       one.highest / one.lowest < 1.001
                           ? gain(one.highest)
                           : fmt::format("{} to {}", gain(one.lowest), gain(one.highest))});
        document_.text += "\nWith the same things and another capacity\n" + table.text();
        document_.tables.push_back(std::move(csv));
    }

    void consumables() {
        document_.json["consumables"] = Json::array();
        CsvTable csv{
            "weigh-units", {"item", "count", "load_share", "band", "margin", "margin_across"}, {}};
        TextTable table({{"consumable"},
                         {"now", Align::right},
                         {"best", Align::right},
                         {"margin then", Align::right},
                         {"against now", Align::right},
                         {"the next one", Align::right},
                         {"and no more since"}});
        for (const ConsumableCurve& curve : weighing_.consumables) {
            const std::string& id = armoury_.at(curve.item).id;
            const double best = curve.at(curve.best)->margin;
            const UnitPoint* const next = curve.at(curve.now + 1);
            table.row({id, std::to_string(curve.now), std::to_string(curve.best), rounded(best, 3),
                       gain(best), next ? gain(next->margin) : "—",
                       curve.ends.empty() ? "they no longer pay" : curve.ends});
            Json points = Json::array();
            for (const UnitPoint& point : curve.points) {
                points.push_back({{"count", point.count},
                                  {"load_share", point.load.share},
                                  {"band", band_or_none(armoury_, point.load.band)},
                                  {"margin", point.margin}});
                csv.rows.push_back({id, std::to_string(point.count), rounded(point.load.share, 5),
                                    band_or_none(armoury_, point.load.band),
                                    rounded(point.margin, 5),
                                    point.across ? rounded(*point.across, 5) : ""});
            }
            document_.json["consumables"].push_back({{"item", id},
                                                     {"now", curve.now},
                                                     {"best", curve.best},
                                                     {"ends", curve.ends},
                                                     {"points", std::move(points)}});
        }
        if (table.empty()) return;
        document_.text += "\nHow many are worth carrying, each by itself\n" + table.text();
        document_.tables.push_back(std::move(csv));
    }

    /// Where `from` or `above` decides.
    void edges() {
        document_.json["edges"] = Json::array();
        for (const ConsumableCurve& curve : weighing_.consumables)
            for (const UnitPoint& point : curve.points) {
                if (!point.across) continue;
                const std::string& id = armoury_.at(curve.item).id;
                document_.text += fmt::format(
                    "With {} {} the load stands on the very edge of a band: margin {}, and {} on "
                    "its other side.\n",
                    point.count, id, rounded(point.margin, 3), rounded(*point.across, 3));
                document_.json["edges"].push_back({{"item", id},
                                                   {"count", point.count},
                                                   {"margin", point.margin},
                                                   {"across", *point.across}});
            }
        const bool weighed = armoury_.carry.capacity.given() && !armoury_.carry.bands.empty();
        if (weighed && document_.json["edges"].empty())
            document_.text += "No number of these stands on the very edge of a band: whether it is "
                              "`from` or `above` changes nothing here.\n";
    }

    void fillings() {
        document_.json["fillings"] = Json::array();
        if (weighing_.fillings.empty()) {
            document_.text += "Nothing that fits before the next band would help.\n";
            return;
        }
        std::vector<std::string> words;
        for (const Filling& one : weighing_.fillings) {
            const std::string& id = armoury_.at(one.item).id;
            words.push_back(fmt::format("{} {} ({})", one.units, id, gain(one.margin)));
            document_.json["fillings"].push_back(
                {{"item", id}, {"units", one.units}, {"margin", one.margin}});
        }
        document_.text +=
            folded("In the room that is left before the next band: " + join(words, ", or ") + ".",
                   108, 2) +
            "\n";
    }

    const Armoury& armoury_;
    const std::string& name_;
    EncounterId encounter_;
    const Weighing& weighing_;
    Document document_;
};

} // namespace

Document show_weighing(const Armoury& armoury, const std::string& name, EncounterId encounter,
                       const Weighing& weighing) {
    Document document = View(armoury, name, encounter, weighing).show();
    if (auto figure = weighing_figure(armoury, name, encounter, weighing))
        document.figures.push_back(std::move(*figure));
    return document;
}

} // namespace panoplon
