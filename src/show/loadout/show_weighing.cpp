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
    /// Of a margin against that of now.
    [[nodiscard]] double change(double margin) const { return margin / weighing_.margin.value - 1; }
    [[nodiscard]] std::string gain(double margin) const { return signed_percent(change(margin)); }

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
        Table table{"weigh-capacity",
                    {as::number("capacity", 4), as::number("load_share", 5), as::text("band"),
                     as::number("margin", 5)}};
        for (const CapacityPoint& point : weighing_.capacities)
            table.row({point.capacity, point.load.share, band_or_none(armoury_, point.load.band),
                       point.margin});
        document_.json["capacities"] = rows_json(table);
        if (table.rows.empty()) return;
        document_.tables.push_back(std::move(table));
        TextTable text({{"capacity"},
                        {"band at the start"},
                        {"margin", Align::right},
                        {"against now", Align::right}});
        for (const BandStretch& one : stretches_of(weighing_.capacities))
            text.row({fmt::format("{}–{}", rounded(one.from, 1), rounded(one.to, 1)),
                      band_or_none(armoury_, one.band),
                      one.highest / one.lowest < 1.001
                          ? rounded(one.highest, 3)
                          : fmt::format("{}–{}", rounded(one.lowest, 3), rounded(one.highest, 3)),
                      one.highest / one.lowest < 1.001
                          ? gain(one.highest)
                          : fmt::format("{} to {}", gain(one.lowest), gain(one.highest))});
        document_.text += "\nWith the same things and another capacity\n" + text.text();
    }

    void consumables() {
        Table units{"weigh-units",
                    {as::item("item").json(""), as::whole("count"), as::number("load_share", 5),
                     as::text("band"), as::number("margin", 5),
                     as::number("margin_across", 5).json("")}};
        Table table{"",
                    {as::text("", "consumable").json("item"), as::whole("", "now").json("now"),
                     as::whole("", "best").json("best"), as::amount("", "margin then", 3),
                     as::gain("", "against now", 1), as::gain("", "the next one", 1),
                     as::text("", "and no more since").json("ends"), as::json("points")}};
        for (const ConsumableCurve& curve : weighing_.consumables) {
            const std::string& id = armoury_.at(curve.item).id;
            Json points = Json::array();
            for (const UnitPoint& point : curve.points) {
                units.row({id, point.count, point.load.share,
                           band_or_none(armoury_, point.load.band), point.margin, point.across});
                points.push_back(row_json(units, units.rows.back()));
            }
            const double best = curve.at(curve.best)->margin;
            const UnitPoint* const next = curve.at(curve.now + 1);
            table.row({id, curve.now, curve.best, best, change(best),
                       next ? Cell(change(next->margin)) : Cell(),
                       curve.ends.empty() ? Cell("").said("they no longer pay") : Cell(curve.ends),
                       Cell::of(std::move(points))});
        }
        document_.json["consumables"] = rows_json(table);
        if (table.rows.empty()) return;
        document_.text += "\nHow many are worth carrying, each by itself\n" + terminal_text(table);
        document_.tables.push_back(std::move(units));
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

Document show_weighing(const Armoury& armoury, LoadoutId loadout, EncounterId encounter,
                       const Weighing& weighing) {
    Document document = View(armoury, armoury.at(loadout).id, encounter, weighing).show();
    if (auto figure = weighing_figure(armoury, loadout, encounter, weighing))
        document.figures.push_back(std::move(*figure));
    return document;
}

} // namespace panoplon
