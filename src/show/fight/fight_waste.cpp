#include "show/fight/fight_tables.h"

#include "base/text.h"
#include "show/measures.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

using Kind = Origin::Kind;

const char* kind_word(Origin::Kind kind) {
    switch (kind) {
    case Kind::action: return "action";
    case Kind::effect: return "effect";
    case Kind::packed: return "item";
    case Kind::others: return "allies";
    default: return "regen";
    }
}

std::vector<GivenRow> given_rows(const Armoury& armoury, const FightAnswer& answer) {
    const TrialsSummary& trials = *answer.trials;
    std::vector<GivenRow> rows;
    const auto add = [&](Kind kind, std::size_t index, const std::string& source) {
        for (std::size_t p = 0; p < armoury.pools.size(); ++p) {
            const Given& given = trials.sums.given_by(kind, index, PoolId(p));
            if (given.restored + given.wasted > 0)
                rows.push_back({kind, source, armoury.pools[p].id, trials.per_trial(given.restored),
                                trials.per_trial(given.wasted)});
        }
    };
    for (std::size_t i = 0; i < answer.pack.size(); ++i)
        add(Kind::packed, i, armoury.at(answer.pack[i].item).id);
    for (std::size_t e = 0; e < armoury.effects.size(); ++e)
        add(Kind::effect, e, armoury.effects[e].id);
    for (std::size_t a = 0; a < armoury.actions.size(); ++a)
        add(Kind::action, a, armoury.actions[a].id);
    add(Kind::others, 0, "allies' consumables");
    add(Kind::regen, 0, "regen");
    return rows;
}

namespace {

/// Something that came to nothing (M91).
struct WasteRow {
    std::string kind, thing;
    double amount = 0;
    std::string unit;
    std::optional<double> share; ///< of what there was
    std::string words;           ///< what happened to it
};

class Waste {
  public:
    Waste(const Armoury& armoury, const FightAnswer& answer)
        : armoury_(armoury),
          answer_(answer),
          trials_(*answer.trials) {}

    std::vector<WasteRow> rows() {
        restoration();
        packed();
        effects();
        blows();
        worn();
        return std::move(rows_);
    }

  private:
    void add(const char* kind, const std::string& thing, double amount, const std::string& unit,
             std::optional<double> share, const std::string& words) {
        if (amount > 0) rows_.push_back({kind, thing, amount, unit, share, words});
    }

    void restoration() {
        for (const GivenRow& row : given_rows(armoury_, answer_))
            add("over_ceiling", row.source, row.wasted, row.pool, row.wasted_share(),
                fmt::format("{} past the ceiling", row.pool));
    }

    void packed() {
        for (std::size_t i = 0; i < answer_.pack.size(); ++i) {
            const Item& item = armoury_.at(answer_.pack[i].item);
            if (!item.consumed()) continue;
            const UseCount& count = trials_.sums.uses[i];
            const auto units = static_cast<double>(answer_.pack[i].count);
            const double left = trials_.per_trial(count.left);
            add("left_over", item.id, left, "units", left / units, "still packed at the end");
            add("refused", item.id, trials_.per_trial(count.refused), "uses", std::nullopt,
                "uses wanted and refused");
            if (item.use) lost_time(item.id, count, to_units(item.use->duration) * count.used);
        }
    }

    template <class Count>
    void lost_time(const std::string& thing, const Count& count, double given) {
        const auto share = [&](double time) {
            return given > 0 && given < 1e18 ? std::optional(time / given) : std::nullopt;
        };
        add("cut_short", thing, trials_.per_trial(count.cut), unit_of(armoury_), share(count.cut),
            "time of its effect cut off by itself, begun again");
        add("overlapped", thing, trials_.per_trial(count.overlap), unit_of(armoury_),
            share(count.overlap), "time of its effect kept out by what ran already");
    }

    void effects() {
        for (std::size_t e = 0; e < armoury_.effects.size(); ++e)
            lost_time(armoury_.effects[e].id, trials_.sums.effects[e], 0);
    }

    void blows() {
        const double dealt = trials_.sums.all_dealt();
        const double over = trials_.sums.overkill;
        add("overkill", "damage", trials_.per_trial(over), "points", over / (dealt + over),
            "past the foes' last health");
        for (std::size_t a = 0; a < armoury_.actions.size(); ++a) {
            const ActionCount& count = trials_.sums.actions[a];
            add("warded", armoury_.actions[a].id, trials_.per_trial(count.warded), "hits",
                count.warded / std::max(1.0, count.warded + count.hits), "taken by a foe's ward");
        }
    }

    void worn() {
        for (std::size_t i = 0; i < armoury_.stats.size(); ++i) {
            const Stat& stat = armoury_.stats[i];
            const double beyond = beyond_cap(stat, answer_.sheet.stats[i].parts);
            add("beyond_cap", stat.id, beyond, "points", beyond / (beyond + stat.max),
                fmt::format("beyond its cap of {}", rounded(stat.max)));
        }
        for (const Sheet::SetStanding& set : answer_.sheet.sets) {
            const int idle = set.pieces - set.reached;
            if (set.next > 0)
                add("set_short", armoury_.at(set.set).id, idle, "pieces",
                    static_cast<double>(idle) / set.pieces,
                    fmt::format("worn towards its step of {}, not reached", set.next));
        }
    }

    const Armoury& armoury_;
    const FightAnswer& answer_;
    const TrialsSummary& trials_;
    std::vector<WasteRow> rows_;
};

} // namespace

void show_waste(const Armoury& armoury, const FightAnswer& answer, Document& document) {
    Table table{"fight-waste",
                {as::text("kind"), as::text("thing", "waste"), as::amount("amount", "amount", 2, 4),
                 as::text("unit", "unit"), as::share("share", "share", 1, 5),
                 as::text("what", "what happened to it").json("")}};
    table.nothing = "";
    for (const WasteRow& row : Waste(armoury, answer).rows())
        table.row({row.kind, row.thing, row.amount, row.unit, row.share, row.words});
    add_table(document, "waste", std::move(table));
}

} // namespace panoplon
