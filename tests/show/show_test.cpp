#include "support/armouries.h"
#include "support/tables.h"

#include "show/armoury/show_card.h"
#include "show/audit/show_audit.h"
#include "show/curve/show_curve.h"
#include "show/fight/show_fight.h"
#include "show/loadout/show_equip.h"
#include "show/tune/show_round.h"
#include "show/words.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <tuple>

using namespace panoplon;
using namespace panoplon::test;

TEST_CASE("what a glance can't be sure of is told where its verdict would be another", "[M86d]") {
    const auto shift = [](const char* id, Verdict before, Verdict after) {
        VerdictShift one{id, ItemVerdict(), ItemVerdict()};
        one.before->verdict = before;
        one.after->verdict = after;
        return one;
    };
    CHECK(unsure_text({}).empty());
    CHECK(unsure_text({shift("cap", Verdict::useless, Verdict::useless)}).empty());
    const std::string text = unsure_text({shift("cap", Verdict::useless, Verdict::useless),
                                          shift("hood", Verdict::sound, Verdict::useless)});
    CHECK(has(text, "tells: hood (sound → useless)"));
}

TEST_CASE("a card shows the tier's part, the stack and the use") {
    const Armoury a = armoury(
        duel() +
        "[budget]\npoints = \"10\"\n[item.cap]\nname = \"Cap\"\nslot = \"head\"\ntier = "
        "\"fine\"\nadd = { guard = 3 }\npercent = { haste = -2 }\ntimes = { attack = 0.9 }\n"
        "weight = 0.5\nnote = \"light on purpose\"\n[item.drop]\nstack = \"unlimited\"\nuse = { "
        "restore = { health = 5 }, takes = 0.5 }\n[item.twin]\nslot = \"head\"\n"
        "tier = \"fine\"\nadd = { guard = 3 }\npercent = { haste = -2 }\ntimes = { attack = 0.9 "
        "}\nweight = 0.5\n[item.rag]\nslot = \"head\"\nlevel = 11\n");
    const Document cards = show_cards(a, {ItemId(0), ItemId(1), ItemId(3)}, compare_on_paper(a));
    for (const char* part :
         {"+6 guard", "-2 % haste", "× 0.9 attack", "from the tier fine", "(3 × 2 by the tier)",
          "+1 keen", "0 of 10 points", "light on purpose", "twins          twin",
          "gives          0 points a unit of weight", "restores 5 health, takes 0.5",
          "any number stack", "never hero: it is for level 11; hero is level 10"}) {
        INFO(cards.text);
        INFO(part);
        CHECK(has(cards.text, part));
    }
    CHECK(cards.json["items"][0]["modifiers"].size() == 4);
    CHECK(cards.json["items"][0]["modifiers"][0]["amount"] == 6);
    CHECK(cards.json["items"][1]["stack"] == "unlimited");
    CHECK(cards.json["items"][1]["stack_weight"].is_null());
    CHECK(cards.json["items"][2]["wearable_by"].empty());
    CHECK(cards.tables[0].rows.size() == 3);
}

TEST_CASE("an equip sheet lists empty places and every refusal", "[M42]") {
    const Armoury a =
        armoury(duel() + "[item.ring]\nslot = \"charm\"\nlevel = 4\nadd = { guard = 1 "
                         "}\n[loadout.l]\ncharacter = \"hero\"\nworn = { charm = \"ring\" }\n");
    Deriver deriver(a);
    const Loadout& loadout = a.loadouts[1];
    const Outfit outfit = outfit_of(a, loadout, 2);
    const Document document = show_equip(a, loadout, outfit, make_sheet(deriver, outfit));
    CHECK(has(document.text, "charm 1 of 2  ring"));
    CHECK(has(document.text, "charm 2 of 2  —"));
    CHECK(has(document.text, "refused: ring\n    it is for level 4; hero is level 2"));
    CHECK(has(document.text, "the armoury weighs nothing"));
    CHECK(document.json["refused"][0]["reasons"].size() == 1);
    CHECK(document.json["bag"]["slots"] == "unlimited");
}

TEST_CASE("a timeline has the columns that others rely on") {
    const Armoury demo = demo_armoury();
    Bout bout(demo, "ringer_early", "causeway", 6);
    const Table table = timeline_table(bout.tell());
    CHECK(keys_of(table) == Texts{"time", "side", "actor", "event", "source", "target", "amount",
                                  "pool_after", "load_share", "note"});
    REQUIRE(table.rows.size() > 20);
    CHECK(row_texts(table, 0)[3] == "arrives");
    CHECK(row_texts(table, 0)[8] == "0.58913");
}

TEST_CASE("figures name every curve and carry their data") {
    const Armoury demo = demo_armoury();
    CurveOptions options;
    options.levels = {16, 20};
    options.trials = 0;
    const CurveResult result = draw_curves(demo, options);
    const std::vector<Figure> figures = curve_figures(demo, options, result);
    REQUIRE(figures.size() == 6);
    CHECK(figures[0].name == "curve-power");
    for (const Figure& figure : figures) {
        CHECK(has(figure.script, "Ringer, middle"));
        CHECK(has(figure.script, "Warden, both hands"));
        CHECK_FALSE(has(figure.script, "Ringer, early")); // it has no level here
        CHECK(figure.data.rows.size() == 18);
    }
    CHECK(has(figures[1].script, "wanted"));
}

TEST_CASE("a fight's figure draws a short fight, a long one and one with many foes") {
    const std::string crowd = with(duel(), "foes = [ { foe = \"dummy\" } ]",
                                   "foes = [ { foe = \"dummy\", count = 40 } ]");
    for (const std::string& text :
         {duel(), crowd,
          with(duel(), "base = { max_health = 100 }", "base = { max_health = 1 }")}) {
        const Armoury a = armoury(text);
        Bout bout(a, "bare", "spar");
        FightAnswer report;
        report.loadout = LoadoutId(0);
        report.encounter = EncounterId(0);
        report.told = bout.tell();
        report.told_trial = 0;
        const Figure figure = fight_figure(a, report);
        CHECK(has(figure.script, "moment by moment"));
        CHECK_FALSE(has(figure.script, "nan"));
        CHECK_FALSE(has(figure.script, "inf"));
        CHECK_FALSE(figure.data.rows.empty());
    }
}

TEST_CASE("an audit's map splits where there are more items than rows") {
    std::string items;
    for (int i = 0; i < 60; ++i)
        items += "[item.i" + std::to_string(i) +
                 "]\nslot = \"hand\"\nadd = { attack = " + std::to_string(i % 7) + " }\n";
    const Armoury a = armoury(duel() + items);
    AuditResult result;
    for (std::size_t i = 0; i < a.items.size(); ++i) {
        ItemVerdict verdict;
        verdict.item = ItemId(i);
        result.items.push_back(verdict);
    }
    AuditOptions options;
    options.levels = a.levels;
    const std::vector<Figure> figures = audit_figures(a, options, result);
    REQUIRE(figures.size() == 2);
    CHECK(figures[0].name == "audit-map-1");
    CHECK(has(figures[1].script, "(2 of 2)"));
}

TEST_CASE("an audit's text puts first what asks for the designer's hand") {
    const Armoury a = armoury(duel() + "[item.fine]\nslot = \"hand\"\nadd = { attack = 1 "
                                       "}\n[item.awful]\nslot = \"hand\"\nadd = { keen = 1 }\n");
    AuditResult result;
    for (const auto& [item, verdict] : {std::pair{0, Verdict::strong}, {1, Verdict::burden}}) {
        ItemVerdict judged;
        judged.item = ItemId(static_cast<std::size_t>(item));
        judged.verdict = verdict;
        judged.sentence = "Said of it.";
        result.items.push_back(judged);
    }
    AuditOptions options;
    options.levels = a.levels;
    const Document document = show_audit(a, options, result);
    CHECK(document.text.find("awful") < document.text.find("fine "));
    CHECK(has(document.text, "awful — burden: Said of it."));
    CHECK(has(document.text, "1 burden, 1 strong"));
    CHECK(document.json["items"][1]["verdict"] == "burden");
    CHECK(document.json["items"][0]["confirmed"].is_null());
}

TEST_CASE("a fight's log has words for every event of a timeline") {
    const Armoury demo = demo_armoury();
    std::string all;
    for (const auto& [loadout, encounter, level] : {std::tuple{"warden_middle", "long_watch", 18},
                                                    {"runner_late", "drip_cellar", 30},
                                                    {"ringer_late", "skim_reach", 24},
                                                    {"warden_early", "muster", 9}}) {
        Bout bout(demo, loadout, encounter, level);
        for (std::uint64_t trial = 0; trial < 5; ++trial) {
            const Timeline told = bout.tell(trial);
            const std::string log = log_text(demo, told);
            all += log;
            // A line an event, and the headers.
            CHECK(static_cast<std::size_t>(std::count(log.begin(), log.end(), '\n')) ==
                  told.events.size() + 1);
        }
    }
    for (const char* words :
         {"arrives with", " hits ", " critically for", " misses ", "gains ", "uses strong_draught",
          "is thick_skin for 20, by thick_brew", "is no longer", " triggers on ", "swaps to ",
          "loses ", " to soaked", "can't use ", "falls"}) {
        INFO(words);
        CHECK(has(all, words));
    }
}

TEST_CASE("what changes nothing that is shown has no sign", "[M70]") {
    CHECK(signed_percent(0.056) == "+5.6 %");
    CHECK(signed_percent(-0.02) == "-2.0 %");
    CHECK(signed_percent(-0.00001) == "0.0 %");
    CHECK(signed_percent(0.00001) == "0.0 %");
    CHECK(signed_percent(-0.00004, 2) == "0.00 %");
    CHECK(percent(-0.0004) == "0.0 %");
}

TEST_CASE("on the edge above which a band begins, anything more reaches it", "[M55][M51]") {
    const auto words = [](const char* edge) {
        const Armoury a =
            armoury(with(duel(), "[loadout.bare]\n", "[loadout.bare]\npack = { stone = 5 }\n") +
                    "[item.stone]\nweight = 1\nstack = 9\n[carry]\ncapacity = \"10\"\n"
                    "[[carry.band]]\nname = \"Laden\"\n" +
                    edge + " = 0.5\nadd = { haste = -5 }\n");
        Deriver deriver(a);
        return load_words(a, make_sheet(deriver, outfit_of(a, a.loadouts[0], 1)));
    };
    CHECK(has(words("above"), "; anything more reaches Laden (above 50.0 %)"));
    CHECK(has(words("from"), "; anything less reaches its lower edge (from 50.0 %)"));
}
