// What no candidate exceeds: bounds against trying everything, with every rule of gear in play.
#include "support/armouries.h"

#include "chance/draws.h"
#include "judge/paper/paper.h"
#include "judge/search/best.h"
#include "judge/search/ideal.h"
#include "judge/search/search.h"
#include "outfit/refusals.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// Whole numbers by a seed.
class Dice {
  public:
    explicit Dice(std::uint64_t seed) : seed_(seed) {}
    std::string operator()(int low, int high) { return std::to_string(number(low, high)); }
    int number(int low, int high) {
        return low + static_cast<int>(blow_draws({seed_, 0}, 0, drawn_++).hit * (high - low + 1));
    }

  private:
    std::uint64_t seed_, drawn_ = 0;
};

std::string gear(Dice& draw) {
    std::string items;
    for (const char* place : {"hand", "head", "charm"})
        for (int i = 0; i < 3; ++i) {
            items += "[item." + std::string(place) + std::to_string(i) + "]\nslot = \"" + place +
                     "\"\nweight = " + draw(0, 4) + "\nadd = { attack = " + draw(-2, 8) +
                     ", max_health = " + draw(-10, 60) + " }\n";
            const int extra = draw.number(0, 7);
            if (extra == 0) items += "set = \"folk\"\n";
            if (extra == 1) items += "unique = \"oath\"\n";
            if (extra == 2) items += "percent = { attack = " + draw(-20, 30) + " }\n";
            if (extra == 3) items += "times = { max_health = 1." + draw(0, 3) + " }\n";
            if (extra == 4) items += "actions = [\"shove\"]\n";
            if (extra == 5) items += "grants = { bag = 1, capacity = 2 }\n";
            if (extra == 6)
                items += "[[item." + std::string(place) + std::to_string(i) +
                         ".trigger]]\non = \"hit\"\nchance = 0.5\neffect = \"" +
                         (draw.number(0, 1) ? "rage" : "gloom") + "\"\nduration = 3\nto = \"" +
                         (draw.number(0, 1) ? "self" : "other") + "\"\n";
        }
    items += "[item.maul]\nslot = \"hand\"\ntakes = [\"head\"]\nadd = { attack = " + draw(0, 15) +
             " }\n[item.crown]\nslot = \"head\"\nsockets = [\"inlay\"]\n[item.bead]\nslot = "
             "\"inlay\"\nset = \"folk\"\nadd = { attack = " +
             draw(0, 5) + " }\n";
    return items;
}

std::string supplies(Dice& draw) {
    std::string items;
    for (int i = 0; i < 2; ++i) {
        items += "[item.drink" + std::to_string(i) + "]\nweight = " + draw(0, 2) +
                 "\nstack = 2\nmax_stacks = 1\nuse = { cooldown = " + draw(2, 9) + ", takes = 0." +
                 draw(0, 9);
        items += draw.number(0, 1) ? ", restore = { health = " + draw(10, 60) + " }"
                                   : ", effect = \"rage\", duration = " + draw(2, 9);
        items += draw.number(0, 1) ? ", group = \"drink\" }\n" : " }\n";
    }
    return items;
}

/// Few enough outfits to try them all.
Armoury stocked(std::uint64_t seed) {
    Dice draw(seed);
    const std::string more =
        "[slot.inlay]\nsocket = true\n[set.folk]\n[[set.folk.step]]"
        "\ncount = 2\nadd = { attack = " +
        draw(-3, 6) + ", max_health = " + draw(-20, 20) +
        " }\n[effect.rage]\nadd = { attack = " + draw(1, 6) + ", max_health = " + draw(-30, 10) +
        " }\n[effect.gloom]\nadd = { attack = " + draw(-6, 2) +
        " }\n[action.shove]\nevery = \"1\"\ncooldown = 4\ndeals = { blunt = "
        "\"1.5 * self.attack\" }\n" +
        gear(draw) + supplies(draw) +
        "[carry]\ncapacity = \"10\"\nlimit = 1\nbag = 1\n[[carry.band]]\nname = "
        "\"Laden\"\nfrom = 0.6\nadd = { attack = " +
        draw(-5, 0) + " }\n";
    return armoury(arena(more));
}

/// The bound and the best candidate that is found where so much is known.
struct FromBelow {
    double found = 0;
    Bounded bounded;
};

FromBelow from_below(const Armoury& a, Search& search, double margin, int fights) {
    std::vector<std::vector<ItemId>> options(a.slots.size());
    for (const ItemId item : search.wearable()) options[a.at(item).slot.index()].push_back(item);
    const std::vector<ItemId> none;
    Deriver deriver(a);
    FromBelow result;
    BoundTask task{CharacterId(0),
                   1,
                   search.context().encounter,
                   search.wardrobe(),
                   {options, none, false},
                   std::vector<std::int64_t>(search.wardrobe().consumables().size(), 2),
                   {},
                   {},
                   search.wardrobe().bare(),
                   margin,
                   fights,
                   [&](const Candidate& candidate) {
                       const auto one = search.turn(candidate);
                       if (!one) return;
                       CHECK(refusals(deriver, search.outfit_of(candidate)).empty());
                       result.found = std::max(result.found, one->value);
                   }};
    result.bounded = UpperBound(a).find(task).value();
    return result;
}

/// The best of all candidates, each tried.
double best_of_all(Search& search, const Armoury& a) {
    search.enter({CharacterId(0), 1, find_id<EncounterKind>(a.encounters, "bites")});
    REQUIRE(search.find_best());
    REQUIRE(search.proven());
    return search.best().margin.value;
}

} // namespace

// On paper only: one in a hundred of these armouries has a pack that is better for having less in
// it, since a use comes at another moment then.
TEST_CASE("from less than the best, bounding leads to it", "[M80]") {
    constexpr int armouries = 60;
    int found = 0;
    for (std::uint64_t seed = 0; seed < armouries; ++seed) {
        INFO("seed " << seed);
        const Armoury a = stocked(seed);
        const std::vector<ItemId> groups = twin_groups(compare_on_paper(a));
        Search search(a, groups);
        const double best = best_of_all(search, a);
        const FromBelow far = from_below(a, search, best * 0.8, 1000000);
        const FromBelow near = from_below(a, search, best * 0.999, 1000000);
        CHECK(far.bounded.closed);
        CHECK(near.bounded.closed);
        CHECK(near.bounded.fights < far.bounded.fights);
        CHECK(far.found > best * 0.94);
        const double precise = best * (1 - 3e-4);
        found += far.found > precise && near.found > precise;
    }
    CHECK(found >= armouries - 1);
}

TEST_CASE("a bound that is broken off is above the best, and the lower the more is fought",
          "[M80]") {
    for (std::uint64_t seed = 0; seed < 20; ++seed) {
        INFO("seed " << seed);
        const Armoury a = stocked(seed);
        const std::vector<ItemId> groups = twin_groups(compare_on_paper(a));
        Search search(a, groups);
        const double best = best_of_all(search, a);
        double before = HUGE_VAL;
        for (const int fights : {0, 200, 600, 1000000}) {
            const auto bounded = search.find_bound(fights);
            REQUIRE(bounded);
            CHECK(bounded->bound >= best);
            CHECK(bounded->bound <= before);
            if (fights == 0) CHECK_FALSE(bounded->closed);
            if (fights == 1000000) CHECK(bounded->closed);
            before = bounded->bound;
        }
        CHECK(before == Approx(best * (1 + 3e-4)).epsilon(1e-9)); // a margin's precision
    }
}

TEST_CASE("what has contents and sets without a direction are not bounded", "[M80]") {
    const auto bounded = [](const std::string& more) {
        const Armoury a = armoury(arena(more));
        const std::vector<ItemId> groups = twin_groups(compare_on_paper(a));
        Search search(a, groups);
        best_of_all(search, a);
        return search.find_bound(1000).has_value();
    };
    const std::string nut =
        "[item.nut]\nstack = 1\nmax_stacks = 1\nuse = { restore = { health = 9 } }\n";
    CHECK(bounded(nut));
    CHECK_FALSE(bounded(nut + "contains = { shell = 1 }\n[item.shell]\n"));
    const std::string set = "[set.folk]\n[[set.folk.step]]\ncount = 1\nadd = { hue = 1 }\n";
    CHECK(bounded("[stat.hue]\n" + set));
    CHECK_FALSE(bounded("[stat.hue]\nbetter = \"neither\"\n" + set));
}

TEST_CASE("options that another outclasses whatever else is worn are left out", "[M80][M82]") {
    // Whether `weak` is an option beside `strong`.
    const auto stays = [](const std::string& weak, bool required = false, bool value = false) {
        const Armoury a =
            armoury(arena("[set.folk]\n[[set.folk.step]]\ncount = 2\nadd = { attack = 9 }\n"
                          "[effect.glow]\nadd = { attack = 1 }\n" +
                          piece("strong", "hand", "weight = 2\nvalue = 5\nadd = { attack = 5 }") +
                          piece("weak", "hand", weak)));
        const auto item = [&](const char* id) { return find_id<ItemKind>(a.items, id); };
        const SlotId hand = a.at(item("weak")).slot;
        std::vector<std::vector<ItemId>> options(a.slots.size());
        options[hand.index()] = {item("strong"), item("weak")};
        const std::vector<ItemId> needed(required ? 1 : 0, item("weak"));
        const auto kept = place_options(ideal_of(a), {options, needed, value}, hand).value();
        CHECK_FALSE(kept.front().placed.item.given());
        CHECK(kept[1].placed.item == item("strong"));
        return kept.size() == 3;
    };
    const std::string same = "weight = 2\nvalue = 5\n";
    const std::string less = same + "add = { attack = 3 }\n";
    CHECK_FALSE(stays(less));
    CHECK_FALSE(stays(same + "add = { attack = 5 }\n")); // a twin: the first stays
    CHECK(stays(same + "add = { attack = 3, guard = 1 }\n"));
    CHECK(stays(less + "set = \"folk\"\n"));
    CHECK(stays(less + "unique = \"oath\"\n"));
    CHECK(stays(less + "takes = [\"head\"]\n"));
    CHECK(stays(less + "grants = { capacity = 1 }\n"));
    CHECK(stays(less + "grants = { bag = 1 }\n"));
    CHECK(stays(less + "[[item.weak.trigger]]\non = \"hit\"\neffect = \"glow\"\nduration = 1\n"));
    CHECK(stays(less, true));
    CHECK(stays("weight = 1\nvalue = 5\nadd = { attack = 3 }\n"));
    const std::string cheap = "weight = 2\nvalue = 4\nadd = { attack = 3 }\n";
    CHECK_FALSE(stays(cheap));
    CHECK(stays(cheap, false, true));
}

TEST_CASE("what goes together: no slot holds more than it can, and one of each unique", "[M40]") {
    const Armoury a = armoury(arena(
        piece("maul", "hand", "takes = [\"charm\"]") + piece("oak", "charm", "unique = \"oath\"") +
        piece("elm", "charm", "unique = \"oath\"") + piece("ash", "charm", "")));
    const Wardrobe wardrobe(a);
    const auto together = [&](const std::vector<std::string>& worn) {
        Candidate candidate = wardrobe.bare();
        for (const std::string& id : worn) {
            const ItemId item = find_id<ItemKind>(a.items, id);
            for (std::size_t p = 0; p < candidate.places.size(); ++p)
                if (wardrobe.places()[p] == a.at(item).slot && !candidate.places[p].item.given()) {
                    candidate.places[p].item = item;
                    break;
                }
        }
        return wardrobe.goes_together(candidate);
    };
    CHECK(together({}));
    CHECK(together({"ash", "oak"}));
    CHECK_FALSE(together({"elm", "oak"}));
    CHECK(together({"maul", "ash"})); // there are two places for charms
    CHECK_FALSE(together({"maul", "ash", "ash"}));
}

TEST_CASE("ideal gear has no drawbacks, and foes keep what they do", "[M80]") {
    const Armoury a = armoury(arena(
        "[effect.rage]\nadd = { attack = 5, guard = -3 }\n[effect.venom]\nper_time = { health = -2 "
        "}\nrestore_factor = 0.5\n[item.axe]\nslot = \"hand\"\n[[item.axe.trigger]]\non = "
        "\"hit\"\neffect = \"rage\"\nduration = 3\nto = \"self\"\n[[item.axe.trigger]]\non = "
        "\"hit\"\neffect = \"venom\"\nduration = 3\nto = \"other\"\n[item.brew]\nweight = 1\nuse "
        "= { effect = \"rage\", duration = 9, takes = 1, group = \"brew\" }\n"));
    const Ideal ideal = ideal_of(a);
    const auto item = [&](const char* id) { return find_id<ItemKind>(a.items, id); };
    const auto& triggers = ideal.armoury.at(item("axe")).triggers;
    const Effect& rage = ideal.armoury.at(triggers[0].effect);
    CHECK(rage.modifiers.add.size() == 1);
    CHECK(rage.modifiers.add[0].amount == 5);
    const Effect& venom = ideal.armoury.at(triggers[1].effect);
    CHECK(venom.per_time.size() == 1);
    CHECK(venom.restore_factor == 0.5);
    for (std::size_t e = 0; e < a.effects.size(); ++e)
        CHECK(ideal.armoury.effects[e].modifiers.add.size() == a.effects[e].modifiers.add.size());
    const Item& free = ideal.armoury.at(ideal.free[item("brew").index()]);
    CHECK(free.weight == 0);
    CHECK(free.use->takes.is(0));
    CHECK(free.use->group.empty());
    CHECK_FALSE(ideal.free[item("axe").index()].given());
    CHECK(ideal.armoury.at(item("brew")).weight == a.at(item("brew")).weight);
}
