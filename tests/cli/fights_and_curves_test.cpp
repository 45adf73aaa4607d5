// The built program's fights and curves: what they tell, and what they refuse.
#include "support/program.h"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

using namespace panoplon;
using namespace panoplon::test;
using Json = nlohmann::ordered_json;

namespace {

Json fight_json(const TempFolder& demo, const std::string& arguments) {
    const Run run = run_program(demo, "fight a " + arguments + " --json");
    INFO(run.err);
    REQUIRE(run.exit == 0);
    return Json::parse(run.out);
}

} // namespace

TEST_CASE("program: a fight tells where its damage, restoration and waste come from", "[M91]") {
    const DemoFolder demo;
    const Json json = fight_json(demo, "warden_middle long_watch --level 18 --trials 200");
    double share = 0;
    double dealt = 0;
    for (const Json& row : json["damage"]) {
        if (row["side"] != "character") continue;
        share += row["share"].get<double>();
        dealt += row["dealt"].get<double>();
    }
    CHECK(share == Approx(1));
    CHECK(dealt == Approx(json["dealt"]["mean"].get<double>()));
    double restored = 0;
    for (const Json& row : json["given"])
        if (row["pool"] == "health") restored += row["restored"].get<double>();
    CHECK(restored == Approx(json["restored"]["health"]["mean"].get<double>()));
    for (const Json& row : json["waste"])
        if (row["kind"] == "left_over" && row["thing"] == "strong_draught")
            CHECK(row["amount"].get<double>() ==
                  Approx(json["uses"]["strong_draught"]["left"].get<double>()));
    CHECK(json["noticed"][0]["target"] == "sour_eel");
    CHECK(has(json["sentence"].get<std::string>(), "warden_middle always wins"));
}

TEST_CASE("program: --why answers for a use, an action, an effect, a stat, a pool, a damage type",
          "[M90]") {
    const DemoFolder demo;
    const Json json = fight_json(
        demo, "ringer_early causeway --level 6 --trials 100 --why wax_draught --why low_toll --why "
              "effect.honeyed --why threat --why health --why blunt --why reed_coat");
    const Json& why = json["why"];
    REQUIRE(why.size() == 7);
    CHECK(why[0]["entries"][0]["matter"] == "use");
    CHECK(has(why[0]["entries"][0]["place"].get<std::string>(), "loadouts.toml:"));
    CHECK(why[0]["entries"][0]["reasons"][0]["reason"] ==
          "its rule 'self.health_share < 0.45' is false");
    CHECK(why[1]["entries"][0]["happened"] == Approx(2).margin(0.1));
    CHECK(why[2]["entries"][0]["by"] == "honey_brew");
    CHECK(why[3]["parts"][0]["bearer"] == "stat.threat");
    CHECK(why[4]["ceiling"] == "max_health");
    CHECK(has(why[5]["formula"].get<std::string>(), "amount"));
    CHECK(has(why[6]["answer"].get<std::string>(), "wears it"));
    // By even luck, and in words.
    const Run even =
        run_program(demo, "fight a warden_middle ford --level 18 --even-luck --why warden_bell");
    CHECK(has(even.out, "Why warden_bell, by even luck"));
    CHECK(has(even.out, "its time, 30, has not come"));
}

TEST_CASE("program: --why of what is not there, or not in the fight", "[M90]") {
    const DemoFolder demo;
    const Run wrong = run_program(demo, "fight a ringer_early causeway --why reed_cot");
    CHECK(wrong.exit == 1);
    CHECK(has(wrong.err, "did you mean 'reed_coat'?"));
    const Run elsewhere =
        run_program(demo, "fight a ringer_early causeway --trials 10 --why nave_draught");
    CHECK(elsewhere.exit == 0);
    CHECK(has(elsewhere.out, "nobody in this fight uses, does, gives or wears it"));
}

TEST_CASE("program: two loadouts share their luck", "[M67][M94]") {
    const DemoFolder demo;
    const Json json =
        fight_json(demo, "ringer_early causeway --level 12 --other warden_early --trials 200");
    const Json alone = fight_json(demo, "warden_early causeway --level 12 --trials 200");
    CHECK(json["measures"]["wins"]["second"] == alone["wins"]["share"]);
    CHECK(json["measures"]["time"]["second"].get<double>() ==
          Approx(alone["time"]["mean"].get<double>()));
    CHECK(json["measures"]["margin"]["told_apart"] == true);
    const Json same =
        fight_json(demo, "ringer_early causeway --level 6 --other ringer_early --trials 50");
    CHECK(same["measures"]["margin"]["ratio"] == 1);
    CHECK(same["measures"]["wins"]["trials_needed"].is_null());
    CHECK(has(same["sentence"].get<std::string>(), "come to the same"));
}

TEST_CASE("program: a what-if for the other side alone", "[M94]") {
    const DemoFolder demo;
    const Json json = fight_json(demo, "ringer_early causeway --level 6 --trials 100 --other-set "
                                       "item.oak_clapper.add.attack=60");
    CHECK(json["second"] == "ringer_early with item.oak_clapper.add.attack=60");
    CHECK(json["measures"]["margin"]["ratio"].get<double>() > 1.1);
    const Json alone = fight_json(demo, "ringer_early causeway --level 6 --trials 100 --set "
                                        "item.oak_clapper.add.attack=60");
    CHECK(json["measures"]["wins"]["second"] == alone["wins"]["share"]);
    const Run files =
        run_program(demo, "fight a ringer_early causeway --level 6 --trials 50 --other-set "
                          "item.oak_clapper.add.attack=60 -o out");
    CHECK(files.exit == 0);
    CHECK(demo.has("out/fight-margins.png"));
    CHECK(demo.has("out/fight-two.csv"));
}

TEST_CASE("program: what two fights refuse") {
    const DemoFolder demo;
    struct Case {
        const char* arguments;
        int exit;
        const char* says;
    };
    for (const Case& one : {
             Case{"--other nobody", 1, "unknown loadout 'nobody'"},
             Case{"--other ringer_late --level 5", 1, "it is for level 21"},
             Case{"--other-set item.nothing.add.guard=1", 1, "unknown item 'nothing'"},
             Case{"--other-set nonsense", 1, "--set:1:1"},
             Case{"--other warden_early --log", 2, "--log tells of one fight"},
             Case{"--other warden_early --even-luck", 2, "--even-luck tells of one fight"},
         }) {
        INFO(one.arguments);
        const Run run =
            run_program(demo, std::string("fight a ringer_early causeway ") + one.arguments);
        CHECK(run.exit == one.exit);
        CHECK(has(run.err, one.says));
        CHECK(run.out.empty());
    }
}

TEST_CASE("program: --margin tells how the trials' margins lie, and checks them", "[M70]") {
    const DemoFolder demo;
    const Json json = fight_json(demo, "ringer_early causeway --level 7 --trials 200 --margin");
    CHECK(json["margin"]["p10"] <= json["margin"]["p50"]);
    CHECK(json["margin"]["p50"] <= json["margin"]["p90"]);
    CHECK(json["margin"]["agrees"] == true);
    CHECK(json["margin"]["share_at_least_1"].get<double>() ==
          Approx(json["wins"]["share"].get<double>()).margin(0.02));
    const Run files =
        run_program(demo, "fight a ringer_early causeway --level 7 --trials 50 --margin -q -o out");
    CHECK(files.exit == 0);
    for (const char* figure : {"fight", "fight-spread", "fight-margins"}) {
        CHECK(demo.has(std::string("out/") + figure + ".png"));
        CHECK(demo.has(std::string("out/") + figure + ".csv"));
    }
}

TEST_CASE("program: curve by tier draws the ladder, and refuses what it does not know", "[M95]") {
    const DemoFolder demo;
    const Run run = run_program(demo, "curve a --by tier --character runner --encounter "
                                      "proving_post --level 12-14 --even-luck --json -o out");
    REQUIRE(run.exit == 0);
    const Json json = Json::parse(run.out);
    CHECK(json["by"] == "tier");
    REQUIRE(json["curves"].size() == 6);
    CHECK(json["curves"][0]["tier"] == "plain");
    CHECK(json["curves"][0]["loadout"].is_null());
    CHECK(json["curves"][4]["points"][0]["margin"]["p50"] >=
          json["curves"][0]["points"][0]["margin"]["p50"]);
    CHECK(demo.has("out/curve-tiers-runner-power.png"));
    CHECK(demo.has("out/curve-findings.csv"));
    const Run wrong = run_program(demo, "curve a --by colour");
    CHECK(wrong.exit == 2);
    CHECK(has(wrong.err, "allowed: loadout, tier, character, encounter"));
    demo.write("b/armoury.toml",
               with(duel(),
                    "[tier.plain]\nrank = 1\n[tier.fine]\nrank = 2\nstat_factor = 2\nadd = { "
                    "keen = 1 }\n",
                    ""));
    const Run tierless = run_program(demo, "curve b --by tier --even-luck");
    CHECK(tierless.exit == 1);
    CHECK(has(tierless.err, "the armoury has no tier to make a ladder of"));
    const Run linear = run_program(
        demo, "curve a --loadout ringer_early --encounter ford --even-luck --linear -q -o lin");
    CHECK(linear.exit == 0);
    CHECK(demo.has("lin/curve-ford.png"));
}

TEST_CASE("program: journey tells how far it leads, and what can't set out", "[M97]") {
    const DemoFolder demo;
    const Run run = run_program(demo, "journey a marsh_road --trials 64 --json -o out");
    REQUIRE(run.exit == 0);
    const Json json = Json::parse(run.out);
    CHECK(json["stages"].size() == 7);
    CHECK(json["stages"][0]["reached"] == 1);
    double before = 1;
    for (const Json& stage : json["stages"]) {
        CHECK(stage["reached"].get<double>() <= before);
        before = stage["passed"].get<double>();
    }
    CHECK(json["finished"]["share"] == before);
    CHECK(demo.has("out/journey.png"));
    CHECK(demo.has("out/journey-life.png"));
    CHECK(demo.has("out/journey-items.csv"));
    CHECK(has(run_program(demo, "journey a marsh_rode").err, "did you mean 'marsh_road'?"));
    const Run refused =
        run_program(demo, "journey a marsh_road --set item.oak_clapper.level=20 --trials 1");
    CHECK(refused.exit == 1);
    CHECK(has(refused.err, "can't set out"));
}

TEST_CASE("program: best tells a loadout and its rivals, and keeps to what is asked for", "[M80]") {
    const DemoFolder demo;
    const std::string context = "best a --character ringer --level 21 --encounter ford ";
    const Run run = run_program(demo, context + "--json -o out");
    REQUIRE(run.exit == 0);
    const Json best = Json::parse(run.out)["contexts"][0];
    CHECK(best["rivals"].size() > 5);
    for (const Json& rival : best["rivals"])
        CHECK(rival["margin"].get<double>() <= best["margin"].get<double>());
    CHECK(demo.has("out/best.csv"));
    const Run poor = run_program(demo, context + "--value-limit 300 --without oak_clapper --json");
    const Json cheap = Json::parse(poor.out)["contexts"][0];
    CHECK(cheap["value"].get<double>() <= 300);
    CHECK(cheap["margin"].get<double>() < best["margin"].get<double>());
    CHECK(best["proven"] == false);
    CHECK(best["searched"].get<double>() <= best["margin"].get<double>());
    CHECK(best["bound"].get<double>() > best["margin"].get<double>());
    // 2.35 times the margin where what goes with the sum of a stat is not looked at.
    CHECK(best["bound"].get<double>() < 2.2 * best["margin"].get<double>());
    const Run unbounded = run_program(demo, context + "--bound-fights 0 --json");
    CHECK(Json::parse(unbounded.out)["contexts"][0]["bound"].is_null());
    CHECK(run_program(demo, context + "--bound-fights some").exit == 2);
    CHECK(run_program(demo, context + "--with oath_bell").exit == 1);
    CHECK(has(run_program(demo, context + "--with oath_bel").err, "did you mean 'oath_bell'?"));
    CHECK(run_program(demo, context + "--value-limit much").exit == 2);
    CHECK(has(run_program(demo, "best a --encounter muster --level 30").err, "no such context"));
}

TEST_CASE("program: best tells what bounding proves, and what it leaves", "[M80]") {
    const DemoFolder demo;
    const auto best = [&](const std::string& options) {
        return run_program(demo, "best a --character ringer --encounter ford " + options).out;
    };
    CHECK(has(best("--level 1"), "; proven: of 1.9e+05 outfits none is better on paper\n"));
    CHECK(has(best("--level 12 --bound-fights 0"), "outfits, too many to try them all\n"));
    CHECK(has(best("--level 12"), "; not proven: of 1.9e+16 outfits none exceeds "));
}

TEST_CASE("program: an audit that is to fail on verdicts names what has them") {
    const DemoFolder demo;
    const std::string audit = "audit a --level 20 --character ringer --encounter ford ";
    const Run failed = run_program(demo, audit + "--fail-on useless,dominant");
    CHECK(failed.exit == 4);
    CHECK(has(failed.err, "tally_charm (useless)"));
    const Run dominant = run_program(
        demo,
        "audit a --level 22 --character ringer --encounter causeway --trials 0 --fail-on dominant");
    CHECK(has(dominant.err, "deep_clapper (dominant)"));
    // What is accepted fails nothing, and is told where it is not so.
    const Run accepted =
        run_program(demo, audit + "--fail-on useless --trials 0 --item tally_charm --set "
                                  "item.tally_charm.accept=useless");
    CHECK(accepted.exit == 0);
    const Run untrue = run_program(demo, audit + "--trials 0 --item tally_charm --set "
                                                 "item.tally_charm.accept=dominant");
    CHECK(has(untrue.out, "tally_charm accepts 'dominant' and is useless"));
    const Run unknown = run_program(demo, audit + "--set item.tally_charm.accept=dominnt");
    CHECK(unknown.exit == 1);
    CHECK(has(unknown.err, "did you mean 'dominant'?"));
    CHECK(run_program(demo, audit + "--fail-on niche").exit == 0);
    const Run wrong = run_program(demo, audit + "--fail-on dominnt");
    CHECK(wrong.exit == 2);
    CHECK(has(wrong.err, "did you mean 'dominant'?"));
}

TEST_CASE("program: an audit of some items or of a sample tells of these what the whole tells") {
    const DemoFolder demo;
    const std::string audit = "audit a --level 16-20 --character ringer --json ";
    const Json whole = Json::parse(run_program(demo, audit).out);
    Json some = Json::parse(run_program(demo, audit + "--slot hands --tier chorus").out);
    REQUIRE(some["items"].size() == 3);
    CHECK(some["consumables"].empty());
    REQUIRE(some["contexts"].size() + some["contexts_of_tiers"].size() > 0);
    for (const char* list : {"contexts", "contexts_of_tiers"})
        for (Json context : some[list]) {
            // What fewer searches came upon beyond the best may be less.
            const auto same =
                std::find_if(whole[list].begin(), whole[list].end(), [&](const Json& one) {
                    return one["encounter"] == context["encounter"] &&
                           one["level"] == context["level"] &&
                           one.value("highest_rank", 0) == context.value("highest_rank", 0);
                });
            REQUIRE(same != whole[list].end());
            CHECK(context["missed"] <= (*same)["missed"]);
            context["missed"] = (*same)["missed"];
            CHECK(context == *same);
        }
    for (const Json& item : some["items"])
        CHECK(std::find(whole["items"].begin(), whole["items"].end(), item) !=
              whole["items"].end());
    const Json sample = Json::parse(run_program(demo, audit + "--sample 4").out);
    CHECK(sample["contexts"].size() == 4);
    for (const Json& context : sample["contexts"])
        CHECK(std::find(whole["contexts"].begin(), whole["contexts"].end(), context) !=
              whole["contexts"].end());
    CHECK(has(sample["remarks"].dump(), "4 of 10 contexts, spread over all, were looked at"));
    const Run wrong = run_program(demo, audit + "--slot hands --item choir_mallet");
    CHECK(wrong.exit == 2);
    CHECK(has(wrong.err, "no item is all of what is asked for"));
    CHECK(run_program(demo, audit + "--sample 0").exit == 2);
}

TEST_CASE("program: an audit by tier tells what each is worth, in margin and in levels", "[M82]") {
    const DemoFolder demo;
    const std::string audit = "audit a --by tier --level 5-7 --character ringer --encounter ford "
                              "--trials 0 ";
    const Run text = run_program(demo, audit);
    CHECK(has(text.out, "What a tier is worth in levels, against the yardstick"));
    CHECK(has(text.out, "ringer: tuned over plain is worth"));
    const Json told = Json::parse(run_program(demo, audit + "--json").out);
    REQUIRE(told["tier_steps"].size() == 5);
    CHECK(told["tier_steps"][0]["tier"] == "tuned");
    CHECK(told["tier_steps"][0]["levels"].get<double>() > 0);
    CHECK(told["tier_steps"][3]["levels"] == 0); // nobody wears cathedral gear at level 7
    CHECK(told["groups"][0]["name"] == "plain");
    CHECK(has(run_program(demo, "audit a --by tear").err, "allowed: pattern, tag, set, tier"));
}

TEST_CASE("program: a journey's power, stocks and endings", "[M96][M97]") {
    const DemoFolder demo;
    const Run run = run_program(demo, "journey a marsh_road --trials 128 --json -o out");
    REQUIRE(run.exit == 0);
    const Json json = Json::parse(run.out);
    double before = 0;
    for (const Json& level : json["levels"]) {
        CHECK(level["time"]["p50"].get<double>() >= before);
        before = level["time"]["p50"].get<double>();
        CHECK(level["power"]["p10"].get<double>() <= level["power"]["p90"].get<double>());
    }
    CHECK(json["straying"][0]["side"] == "below");
    CHECK(json["over_time"].size() > 30);
    CHECK(demo.has("out/journey-power.png"));
    CHECK(demo.has("out/journey-stocks.svg"));
    CHECK(demo.has("out/journey-levels.csv"));
    const Run shut = run_program(demo, "journey a marsh_road --trials 1 --set "
                                       "encounter.causeway.requires.worn=oath_bell");
    CHECK(shut.exit == 1);
    CHECK(has(shut.err, "asks for oath_bell to be worn"));
}

TEST_CASE("program: weigh tells the price of weight", "[M51][M84]") {
    const DemoFolder demo;
    const Run run = run_program(demo, "weigh a warden_middle long_watch --level 18 --json -o out");
    REQUIRE(run.exit == 0);
    const Json json = Json::parse(run.out);
    CHECK(json["capacities"].size() == 61);
    for (const Json& one : json["consumables"])
        CHECK(one["points"][one["best"].get<std::size_t>()]["margin"].get<double>() >=
              one["points"][0]["margin"].get<double>());
    CHECK(demo.has("out/weigh.png"));
    CHECK(demo.has("out/weigh-units.csv"));
    CHECK(has(run_program(demo, "weigh a warden_midle long_watch").err,
              "did you mean 'warden_middle'?"));
    CHECK(run_program(demo, "weigh a warden_middle long_watch --level 3").exit == 1);
}

TEST_CASE("program: an error of a margin leaves the trials told", "[M66][M70]") {
    const TempFolder folder;
    // Sound at strength 1; at 1.5 a formula gives no number, so the margin can't be found.
    folder.write("a/armoury.toml", with(duel() + biter(50), "mitigated = \"amount\"",
                                        "mitigated = \"amount / (strength < 1.5 ? 1 : 0)\""));
    const Run run = run_program(folder, "fight a bare bites --level 1 --trials 20");
    CHECK(run.exit == 1);
    CHECK(has(run.err, "gives inf"));
    CHECK(has(run.out, "Wins 100.0 %"));
    CHECK(has(run.out, "By even luck: won after"));
    CHECK(has(run.out, "margin unknown (the formula"));
    const Run json_run = run_program(folder, "fight a bare bites --level 1 --trials 20 --json");
    const Json json = Json::parse(json_run.out);
    CHECK(json["trials"] == 20);
    CHECK(has(json["even_luck"]["error"].get<std::string>(), "gives inf"));
    CHECK_FALSE(json["even_luck"].contains("margin"));
}

TEST_CASE("program: even luck fills the keys of its JSON as trials do", "[M68]") {
    const DemoFolder demo;
    const std::string fight = "warden_middle long_watch --level 18";
    const Json trials = fight_json(demo, fight + " --trials 50");
    const Json even = fight_json(demo, fight + " --even-luck");
    for (const char* key : {"dealt", "taken", "restored", "wasted", "uses", "effects", "actions",
                            "damage", "given", "waste"}) {
        INFO(key);
        REQUIRE(even.contains(key));
        CHECK(even[key].size() > 0);
    }
    const auto keys = [](const Json& object) {
        std::vector<std::string> names;
        for (const auto& [name, value] : object.items()) names.push_back(name);
        return names;
    };
    for (const char* key : {"restored", "wasted", "uses", "effects"})
        CHECK(keys(even[key]) == keys(trials[key]));
    CHECK(even["dealt"]["mean"] == even["even_luck"]["dealt"]);
    CHECK_FALSE(even.contains("wins"));
}

TEST_CASE("program: curves are the same for one thread and for two", "[M67][M95]") {
    const DemoFolder demo;
    const std::string curve = "curve a --even-luck --level 22-28 --json --threads ";
    CHECK(run_program(demo, curve + "1").out == run_program(demo, curve + "2").out);
}

TEST_CASE("program: a journey that nobody gets far on has no level and no power there") {
    const DemoFolder demo;
    const std::string file = demo.read("a/journeys.toml");
    demo.write("a/journeys.toml", with(file, "[[journey.marsh_road.stage]]\n",
                                       "[[journey.marsh_road.stage]]\nencounter = \"ford\"\nwins = "
                                       "2\ntries = 1\n[[journey.marsh_road.stage]]\n"));
    const Run run = run_program(demo, "journey a marsh_road --trials 10 --json");
    REQUIRE(run.exit == 0);
    const Json stages = Json::parse(run.out)["stages"];
    REQUIRE(stages[0]["passed"] == 0);
    for (const char* key : {"level", "time", "coin"}) {
        CHECK(stages[0][key].is_null());
        CHECK(stages[1][key].is_null());
    }
    CHECK(stages[1]["tries"].is_null());
    CHECK_FALSE(stages[0].contains("power"));
}
