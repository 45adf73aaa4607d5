#include "support/armouries.h"
#include "support/audits.h"

#include "judge/audit/audit.h"
#include "judge/curve/curve.h"
#include "outfit/refusals.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <rapidcheck/catch.h>
#include <set>
#include <tbb/global_control.h>

using namespace panoplon;
using namespace panoplon::test;

namespace {

std::string outclassed(const std::string& items, const std::string& which) {
    const Armoury a = armoury(with(duel(), "[stat.haste]",
                                   "[stat.burden]\nbetter = \"lower\"\n[stat.oddity]\nbetter = "
                                   "\"neither\"\n[stat.haste]") +
                              items);
    return ids(a, compare_on_paper(a)[find_id<ItemKind>(a.items, which).index()].outclassed_by);
}

std::string piece(const std::string& id, const std::string& slot, int level, const std::string& add,
                  const std::string& more = {}) {
    return "[item." + id + "]\nslot = \"" + slot + "\"\nlevel = " + std::to_string(level) +
           "\nadd = { " + add + " }\n" + more + "\n";
}

std::string verdict_of(const Armoury& armoury, const AuditResult& result, const std::string& id) {
    for (const ItemVerdict& v : result.items)
        if (armoury.at(v.item).id == id) return verdict_name(v.verdict);
    return "not judged";
}

} // namespace

TEST_CASE("on paper, no worse anywhere and better somewhere outclasses", "[M82]") {
    const std::string low = piece("low", "hand", 2, "attack = 3");
    CHECK(outclassed(low + piece("high", "hand", 2, "attack = 4"), "low") == "high ");
    CHECK(outclassed(low + piece("high", "hand", 2, "attack = 4"), "high").empty());
    CHECK(outclassed(low + piece("elsewhere", "head", 2, "attack = 4"), "low").empty());
    CHECK(outclassed(low + piece("later", "hand", 3, "attack = 4"), "low").empty());
    CHECK(outclassed(low + piece("earlier", "hand", 1, "attack = 3"), "low") == "earlier ");
    CHECK(outclassed(low + piece("heavy", "hand", 2, "attack = 4", "weight = 1"), "low").empty());
    CHECK(outclassed(low + piece("both", "hand", 2, "attack = 3, guard = 1"), "low") == "both ");
    CHECK(outclassed(low + piece("mixed", "hand", 2, "attack = 5, guard = -1"), "low").empty());
}

TEST_CASE("paper follows each stat's own direction, and an absent modifier changes nothing",
          "[M5][M6][M82]") {
    const std::string low = piece("low", "hand", 1, "burden = 2");
    CHECK(outclassed(low + piece("light", "hand", 1, "burden = 1"), "low") == "light ");
    CHECK(outclassed(low + piece("none", "hand", 1, "guard = 0"), "low") == "none ");
    CHECK(outclassed(piece("odd", "hand", 1, "oddity = 1") +
                         piece("odder", "hand", 1, "oddity = 2, guard = 9"),
                     "odd")
              .empty());
    CHECK(outclassed(low + "[item.slow]\nslot = \"hand\"\ntimes = { attack = 0.9 }\n", "low")
              .empty());
}

TEST_CASE("paper counts actions and tiers", "[M82][M44]") {
    const std::string plain = piece("one", "hand", 1, "attack = 3", "tier = \"plain\"");
    CHECK(outclassed(plain + piece("fine", "hand", 1, "attack = 3", "tier = \"fine\""), "one") ==
          "fine ");
    const std::string acting = piece("one", "hand", 1, "attack = 3", "actions = [\"rest\"]");
    CHECK(outclassed(acting + piece("two", "hand", 1, "attack = 4"), "one").empty());
    CHECK(outclassed(acting + piece("two", "hand", 1, "attack = 4", "actions = [\"rest\"]"),
                     "one") == "two ");
}

TEST_CASE("what is equal in all of it is a twin", "[M82]") {
    const Armoury a =
        armoury(duel() + piece("x", "hand", 1, "attack = 3", "value = 5") +
                piece("y", "hand", 1, "attack = 3") + piece("z", "hand", 1, "attack = 2"));
    const auto verdicts = compare_on_paper(a);
    CHECK(ids(a, verdicts[0].twins) == "y ");
    CHECK(verdicts[2].twins.empty());
    const std::vector<ItemId> groups = twin_groups(verdicts);
    CHECK(groups[1] == groups[0]);
    CHECK(groups[2] == ItemId(2));
}

namespace {

/// Nine items in three slots with random numbers and weights that fight over the load, by a seed.
Armoury crowded(std::uint64_t seed) {
    std::uint64_t drawn = 0;
    const auto draw = [&](int low, int high) {
        return low + static_cast<int>(blow_draws({seed, 0}, 0, drawn++).hit * (high - low));
    };
    std::string items;
    for (const char* slot : {"hand", "head", "charm"})
        for (int i = 0; i < 3; ++i)
            items += piece(slot + std::to_string(i), slot, 1,
                           "attack = " + std::to_string(draw(0, 8)) +
                               ", max_health = " + std::to_string(draw(0, 60)) +
                               ", haste = " + std::to_string(draw(-10, 20)),
                           "weight = " + std::to_string(draw(0, 6)));
    items += "[carry]\ncapacity = \"10\"\nlimit = 1.2\n[[carry.band]]\nname = \"Laden\"\nfrom = "
             "0.6\nadd = { haste = -25 }\n";
    return armoury(with(arena(items), "every = \"1\"", "every = \"1 / (1 + self.haste / 100)\""));
}

/// The highest margin of all that can be worn, by trying everything.
double best_of_all(const Armoury& a, const Context& context) {
    Engine engine(a);
    double best = 0;
    const auto option = [](int i, int first) {
        return i == 3 ? ItemId() : ItemId(static_cast<std::size_t>(first + i));
    };
    for (int code = 0; code < 256; ++code) {
        Outfit outfit{context.character, 1, {}, {}, {}, {}, {}};
        for (const ItemId pick : {option(code & 3, 0), option((code >> 2) & 3, 3),
                                  option((code >> 4) & 3, 6), option((code >> 6) & 3, 6)})
            if (pick.given()) outfit.worn.push_back({a.at(pick).slot, pick, {}, {}});
        if (!refusals(engine.deriver(), outfit).empty()) continue;
        const FightSetup setup = set_up_fight(a, outfit, context.encounter);
        engine.prepare(setup);
        best = std::max(best, even_margin(engine).value);
    }
    return best;
}

} // namespace

TEST_CASE("the search finds what trying everything finds, in all but few crowded armouries",
          "[M80][M86]") {
    constexpr int armouries = 100;
    int found = 0;
    for (std::uint64_t seed = 0; seed < armouries; ++seed) {
        const Armoury a = crowded(seed);
        const Context context{CharacterId(0), 1, find_id<EncounterKind>(a.encounters, "bites")};
        const std::vector<ItemId> groups = twin_groups(compare_on_paper(a));
        Search search(a, groups);
        search.enter(context);
        REQUIRE(search.find_best());
        const double best = best_of_all(a, context);
        INFO("seed " << seed);
        CHECK(search.best().margin.value > best * 0.95);
        CHECK(search.best().margin.value < best * 1.001);
        found += search.best().margin.value > best * 0.999;
    }
    CHECK(found >= 98);
}

TEST_CASE("a search packs consumables as far as the bag and the limit go", "[M52][M53]") {
    const std::string vial =
        "[item.vial]\nweight = 2\nstack = 2\nuse = { restore = { health = 20 } }\n";
    const auto packed = [&](const std::string& carry) {
        const Armoury a = armoury(arena(vial + carry));
        const std::vector<ItemId> groups = twin_groups(compare_on_paper(a));
        Search search(a, groups);
        search.enter({CharacterId(0), 1, find_id<EncounterKind>(a.encounters, "bites")});
        REQUIRE(search.find_best());
        return search.best().candidate.counts.at(0);
    };
    CHECK(packed("[carry]\ncapacity = \"11\"\nlimit = 1\n") == 5);
    CHECK(packed("[carry]\ncapacity = \"100\"\nbag = 2\n") == 4);
}

TEST_CASE("one much better than its rivals is dominant, one that gives nothing is a burden",
          "[M83]") {
    const Armoury a = armoury(arena(
        piece("good", "hand", 1, "attack = 5") + piece("rival", "hand", 1, "max_health = 26") +
        piece("huge", "head", 1, "attack = 9") + piece("poor", "head", 1, "attack = 3") +
        piece("dead", "head", 1, "attack = -1", "weight = 1") +
        piece("late", "hand", 11, "attack = 50") +
        "[carry]\ncapacity = \"10\"\n[[carry.band]]\nname = \"Laden\"\nfrom = 0.05\nadd = { attack "
        "= -1 }\n"));
    const AuditResult result = audited(a);
    CHECK(result.contexts.size() == 10);
    CHECK(verdict_of(a, result, "huge") == "dominant");
    CHECK(verdict_of(a, result, "dead") == "burden");
    CHECK(verdict_of(a, result, "late") == "unreachable");
    const std::string good = verdict_of(a, result, "good");
    CHECK((good == "strong" || good == "sound"));
}

TEST_CASE("what has no rival of its age is sound, not dominant", "[M81b][M83]") {
    const Armoury a = armoury(arena(piece("only", "hand", 1, "attack = 5")));
    CHECK(verdict_of(a, audited(a), "only") == "sound");
    CHECK(audited(a).items[0].unrivalled);
    const Armoury old = armoury(
        arena(piece("first", "hand", 1, "attack = 2") + piece("second", "hand", 3, "attack = 5")));
    CHECK(verdict_of(old, audited(old), "second") ==
          "sound"); // the other is older by more than the grace
    const Armoury near = armoury(
        arena(piece("first", "hand", 1, "attack = 2") + piece("second", "hand", 2, "attack = 5")));
    CHECK(verdict_of(near, audited(near), "second") == "dominant");
}

TEST_CASE("twins are banned together and share a verdict", "[M82]") {
    const Armoury a =
        armoury(arena(piece("x", "hand", 1, "attack = 5") + piece("y", "hand", 1, "attack = 5") +
                      piece("weak", "hand", 1, "attack = 1")));
    const AuditResult result = audited(a);
    CHECK(verdict_of(a, result, "x") == "dominant");
    CHECK(verdict_of(a, result, "y") == "dominant");
    CHECK(verdict_of(a, result, "weak") == "useless");
}

TEST_CASE(
    "an item that is outclassed by something no dearer is told so, a dearer one does not count",
    "[M83]") {
    const std::string low = piece("low", "hand", 1, "attack = 5, keen = 1", "value = 10");
    const Armoury a =
        armoury(arena(low + piece("high", "hand", 1, "attack = 5, keen = 2", "value = 10")));
    CHECK(verdict_of(a, audited(a), "low") == "outclassed");
    const Armoury dear =
        armoury(arena(low + piece("high", "hand", 1, "attack = 5, keen = 2", "value = 11")));
    CHECK(verdict_of(dear, audited(dear), "low") == "sound");
}

TEST_CASE("a successor ends an item's time; what is still best then overstays", "[M81b][M83]") {
    const std::string window = "[audit]\nwindow = 3\n";
    const Armoury a = armoury(arena(window + piece("stays", "hand", 1, "attack = 9") +
                                    piece("young", "hand", 3, "attack = 2")));
    const AuditResult result = audited(a);
    CHECK(result.items[0].judged_levels.last == 2);
    CHECK(result.items[0].successor == ItemId(1));
    CHECK(result.items[0].overstays);
    CHECK(result.items[0].overstay_levels.first == 3);
    CHECK_FALSE(result.items[1].overstays);
    CHECK(verdict_of(a, result, "young") == "useless");
    // Where nothing newer comes, a hole in the offer is not the item's fault.
    const Armoury alone = armoury(arena(window + piece("stays", "hand", 1, "attack = 9")));
    CHECK_FALSE(audited(alone).items[0].overstays);
    CHECK(audited(alone).items[0].judged_levels.last == 3);
}

TEST_CASE("an item is judged in the world of its own tier", "[M81c]") {
    const std::string items =
        piece("sword", "hand", 1, "attack = 5", "tier = \"plain\"") +
        piece("mace", "hand", 1, "attack = 4.9, keen = 1", "tier = \"plain\"") +
        piece("relic", "hand", 1, "attack = 20", "tier = \"fine\"");
    const Armoury a = armoury(arena(items));
    const AuditResult result = audited(a);
    CHECK(verdict_of(a, result, "sword") == "sound");
    CHECK(verdict_of(a, result, "mace") == "sound");
    CHECK(verdict_of(a, result, "relic") == "sound");             // rarer, and alone of its rank
    CHECK(result.contexts.size() == result.whole_contexts() + 5); // while the common are new
    const Armoury all = armoury(arena("[audit]\namong = \"all\"\n" + items));
    CHECK(verdict_of(all, audited(all), "sword") == "useless");
    CHECK(verdict_of(all, audited(all), "relic") == "dominant");
    CHECK(audited(all).contexts.size() == result.whole_contexts());
}

TEST_CASE("a place that is worth much counts as four typical ones at most", "[M81a]") {
    // A bare hand does next to nothing: beside it every blade is worth ten times a helmet.
    const std::string bare = with(arena(""), "attack = 10", "attack = 0.1");
    std::string items;
    for (const char* slot : {"head", "charm"})
        items += piece(std::string(slot) + "_piece", slot, 1, "max_health = 12");
    const Armoury a = armoury(bare + items + piece("axe", "hand", 1, "attack = 13") +
                              piece("saw", "hand", 1, "attack = 10"));
    const AuditResult result = audited(a);
    const auto row = [&](const char* id) {
        return *std::find_if(result.rows.begin(), result.rows.end(),
                             [&](const ItemContextRow& r) { return a.at(r.item).id == id; });
    };
    CHECK(row("axe").capped);
    CHECK(row("axe").worth == Approx(4 * row("axe").typical_worth));
    CHECK(verdict_of(a, result, "axe") == "dominant");
    CHECK_FALSE(row("head_piece").capped);
}

TEST_CASE("what is useless beside one dominant rival alone says so and calls for nothing",
          "[M83]") {
    // Against a dummy the margin goes with attack, 10 with nothing worn.
    const Armoury a = armoury(flat(piece("giant", "hand", "add = { attack = 20 }") +
                                   piece("fair", "hand", "add = { attack = 5, keen = 1 }") +
                                   piece("alike", "hand", "add = { attack = 5, guard = 1 }") +
                                   piece("meek", "hand", "add = { attack = 3.2, guard = 2 }") +
                                   piece("blunt", "hand", "add = { attack = 0.5 }")));
    std::map<std::string, ItemVerdict> verdicts;
    for (const ItemVerdict& v : audited(a).items) verdicts[a.at(v.item).id] = v;
    CHECK(verdicts["fair"].verdict == Verdict::useless);
    CHECK(ids(a, {verdicts["fair"].overshadowed_by}) == "giant ");
    CHECK_FALSE(verdicts["fair"].calls());
    CHECK(verdicts["giant"].calls());
    CHECK(ids(a, verdicts["giant"].overshadows) == "fair alike ");
    CHECK(has(verdicts["giant"].sentence, "Without it fair, alike would be fair"));
    // Without the giant the place is worth ln(15 / 10), of which this one loses a third.
    CHECK_FALSE(verdicts["meek"].overshadowed_by.given());
    // And this one loses most of it.
    CHECK_FALSE(verdicts["blunt"].overshadowed_by.given());
    CHECK(verdicts["blunt"].calls());
}

TEST_CASE("a place that is worth nothing judges nobody", "[M81a]") {
    const Armoury a = armoury(arena("[effect.idle]\nabsorbs = \"self.keen\"\n" +
                                    piece("dull", "hand", 1, "keen = 1") +
                                    piece("duller", "hand", 1, "keen = 2")));
    const AuditResult result = audited(a);
    CHECK(verdict_of(a, result, "duller") == "unjudged");
    for (const ItemContextRow& row : result.rows) CHECK_FALSE(row.judged);
}

TEST_CASE("grip and shortfall are shares of the place's worth", "[M81a]") {
    // Margins against a foe that does nothing are damage over health, so logarithms are of attacks.
    const std::string harmless = with(duel(), "levels = [1, 10]", "levels = [1, 1]");
    const Armoury a = armoury(harmless + piece("five", "hand", 1, "attack = 5") +
                              piece("two", "hand", 1, "attack = 2"));
    const AuditResult result = audited(a);
    const auto row = [&](const char* id) {
        return *std::find_if(result.rows.begin(), result.rows.end(),
                             [&](const ItemContextRow& r) { return a.at(r.item).id == id; });
    };
    CHECK(row("five").worth == Approx(std::log(15.0 / 10)).epsilon(1e-3));
    CHECK(row("five").grip == Approx(std::log(15.0 / 12) / std::log(15.0 / 10)).epsilon(2e-3));
    CHECK(row("five").shortfall == Approx(0).margin(1e-3));
    CHECK(row("two").shortfall == Approx(std::log(15.0 / 12) / std::log(15.0 / 10)).epsilon(2e-3));
    CHECK(row("two").grip == Approx(0).margin(1e-3));
}

TEST_CASE("a place of several is worth its share of all of them", "[M81a]") {
    const std::string harmless = with(duel(), "levels = [1, 10]", "levels = [1, 1]");
    const Armoury a = armoury(harmless + piece("bell", "charm", 1, "attack = 5"));
    const AuditResult result = audited(a);
    REQUIRE(result.rows.size() == 1);
    CHECK(result.rows[0].worth == Approx(std::log(20.0 / 10) / 2).epsilon(1e-3));
    CHECK(result.rows[0].grip == Approx(1).epsilon(1e-3));
}

TEST_CASE("no later search beats the best of a context unnoticed", "[M80]") {
    const Armoury demo = demo_armoury();
    AuditOptions options;
    options.levels = {13, 13};
    for (const ItemContextRow& row : audit(demo, options).rows) {
        CHECK(row.with <= row.best);
        CHECK(row.without <= row.best);
        CHECK(row.empty <= row.best);
        CHECK(std::max(row.with, row.without) == row.best);
    }
}

TEST_CASE("the demo's audit finds the planted items, all of them and no others") {
    const Armoury demo = demo_armoury();
    const AuditResult result = audited(demo);
    std::map<std::string, std::set<std::string>> found;
    for (const ItemVerdict& v : result.items)
        found[verdict_name(v.verdict)].insert(demo.at(v.item).id);
    CHECK(found["dominant"] ==
          std::set<std::string>{"choir_mallet", "deep_clapper", "reed_crest", "ringing_gloves"});
    CHECK(found["useless"] == std::set<std::string>{"tally_charm", "felt_gloves", "fog_horn",
                                                    "slab_coat",
                                                    "toy_clapper"}); // the last is accepted
    CHECK(found["idle"] == std::set<std::string>{"marsh_lantern", "toll_purse"});
    for (const ItemVerdict& v : result.items)
        CHECK(v.accepted == (demo.at(v.item).id == "toy_clapper"));
    CHECK(found["burden"].empty());
    CHECK(found["outclassed"] == std::set<std::string>{"grease_hood", "mud_boots"});
    CHECK(found["unreachable"] == std::set<std::string>{"oath_bell"});
    CHECK(found["unjudged"].empty());
    std::set<std::string> dominant;
    for (const ConsumableVerdict& one : result.consumables)
        if (one.judged.verdict == Verdict::dominant) dominant.insert(demo.at(one.judged.item).id);
    CHECK(dominant == std::set<std::string>{"storm_brew"});
    CHECK_FALSE(result.partial);
}

TEST_CASE("an audit is the same for any number of threads") {
    const Armoury demo = demo_armoury();
    AuditOptions options;
    options.levels = {20, 20};
#if defined(__SANITIZE_THREAD__)
    options.sample = 6; // contexts; each takes a minute there
#endif
    const auto run = [&](std::size_t threads) {
        const tbb::global_control limit(tbb::global_control::max_allowed_parallelism, threads);
        return audit(demo, options);
    };
    const AuditResult one = run(1);
    const AuditResult two = run(2);
    REQUIRE(one.rows.size() == two.rows.size());
    for (std::size_t i = 0; i < one.rows.size(); ++i) {
        CHECK(one.rows[i].with == two.rows[i].with);
        CHECK(one.rows[i].without == two.rows[i].without);
    }
}

TEST_CASE("work that is told to stop gives what is finished, marked partial") {
    const Armoury demo = demo_armoury();
    std::atomic<bool> stop = false;
    Watch watch;
    watch.stop = &stop;
    watch.progress = [&](std::size_t done, std::size_t) { stop = done >= 3; };
    AuditOptions options;
    options.levels = demo.levels;
    options.step = 3;
    const AuditResult result = audit(demo, options, watch);
    CHECK(result.partial);
    CHECK(result.contexts.size() >= 3);
    CHECK(result.contexts.size() < 150);
}

TEST_CASE("a curve has its levels, its gaps with reasons, and leaves the corridor where it does") {
    const std::string text =
        arena(piece("blade", "hand", 3, "attack = 5")) +
        "[loadout.l]\ncharacter = \"hero\"\nlevels = [2, 6]\nworn = { hand = \"blade\" }\n";
    const Armoury a = armoury(
        with(text, "[encounter.bites]\n", "[encounter.bites]\nwanted_margin = [0.5, 1.2]\n"));
    CurveOptions options;
    options.levels = a.levels;
    options.loadouts = {find_id<LoadoutKind>(a.loadouts, "l")};
    options.trials = 20;
    const CurveResult result = draw_curves(a, options);
    REQUIRE(result.curves.size() == 1);
    const Curve& curve = result.curves[0];
    REQUIRE(curve.points.size() == 4);
    CHECK(curve.points[0].level == 3);
    CHECK(curve.points[0].even.value ==
          Approx(std::sqrt((17.0 / 116) * (120.0 / 11))).epsilon(1e-3));
    REQUIRE(curve.gaps.size() == 1);
    CHECK(curve.gaps[0].levels.first == 2);
    CHECK(curve.gaps[0].reason == "blade: it is for level 3; hero is level 2");
    std::vector<std::string> kinds;
    for (const Finding& finding : result.findings) kinds.push_back(finding.kind);
    CHECK(std::count(kinds.begin(), kinds.end(), "corridor") == 1);
    REQUIRE(kinds.front() == "corridor");
    CHECK(result.findings[0].level == 3);
    CHECK(result.findings[0].sentence.find(
              "rises above the wanted corridor of 0.5–1.2 at level 3") != std::string::npos);
    for (const CurvePoint& point : curve.points) {
        CHECK(point.p10 <= point.p50);
        CHECK(point.p50 <= point.p90);
        CHECK(point.trials == 20);
    }
}

TEST_CASE("power is the margin against the yardstick, and comes first") {
    const Armoury demo = demo_armoury();
    CurveOptions options;
    options.levels = {20, 20};
    options.trials = 0;
    const CurveResult result = draw_curves(demo, options);
    REQUIRE(result.curves.size() == 6 * demo.loadouts.size());
    for (std::size_t i = 0; i < result.curves.size(); ++i)
        CHECK(result.curves[i].power == (i < demo.loadouts.size()));
}
