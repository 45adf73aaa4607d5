#include "support/armouries.h"

#include "outfit/change.h"
#include "outfit/sheet.h"

#include <catch2/catch.hpp>
#include <map>
#include <numeric>
#include <rapidcheck/catch.h>

using namespace panoplon;
using namespace panoplon::test;

namespace {

using Units = std::map<std::string, std::int64_t>;

/// Units of each item that an outfit has, worn, socketed and packed.
Units units_of(const Armoury& armoury, const Outfit& outfit) {
    Units units;
    for_each_worn(outfit.worn, [&](const WornItem& worn) { ++units[armoury.at(worn.item).id]; });
    for (const PackedItem& packed : outfit.pack) units[armoury.at(packed.item).id] += packed.count;
    return units;
}

/// A wardrobe of the duel's hero; changes are made to `outfit`.
struct Dresser {
    explicit Dresser(const std::string& definitions)
        : armoury(test::armoury(duel() + definitions)),
          deriver(armoury),
          outfit{CharacterId(0), 1, {}, {}, {}, {}, {}} {}

    ItemId id(const std::string& name) const { return find_id<ItemKind>(armoury.items, name); }
    ChangeOutcome on(const std::string& name) { return put_on(deriver, outfit, id(name)); }
    ChangeOutcome off(const std::string& name) { return take_off(deriver, outfit, id(name)); }
    ChangeOutcome find(const std::string& name, std::int64_t count) {
        return take_up(deriver, outfit, id(name), count);
    }
    std::string worn() const {
        std::string text;
        for_each_worn(outfit.worn, [&](const WornItem& w) { text += armoury.at(w.item).id + " "; });
        return text;
    }
    std::string pack() const {
        std::string text;
        for (const PackedItem& packed : outfit.pack)
            text += armoury.at(packed.item).id + "×" + std::to_string(packed.count) + " ";
        return text;
    }

    Armoury armoury;
    Deriver deriver;
    Outfit outfit;
};

const std::string wares =
    "[carry]\ncapacity = \"20\"\nbag = 2\nlimit = 1\n"
    "[slot.inlay]\nsocket = true\n"
    "[item.club]\nslot = \"hand\"\nweight = 3\n[item.pick]\nslot = \"hand\"\nweight = 3\n"
    "[item.maul]\nslot = \"hand\"\ntakes = [\"hand\", \"head\"]\nweight = 5\n"
    "[item.cap]\nslot = \"head\"\nsockets = [\"inlay\"]\n[item.bead]\nslot = \"inlay\"\n"
    "[item.ring]\nslot = \"charm\"\nunique = \"oath\"\n[item.band]\nslot = \"charm\"\nunique = "
    "\"oath\"\n"
    "[item.satchel]\nslot = \"charm\"\ngrants = { bag = 2 }\n"
    "[item.quiver]\nslot = \"charm\"\ncontains = { dart = 4 }\n[item.dart]\nstack = 6\nweight = "
    "0.5\n"
    "[item.nut]\nstack = 10\nmax_stacks = 1\n[item.rock]\nweight = 8\n"
    "[item.water]\nstack = \"unlimited\"\nweight = 1\n";

} // namespace

TEST_CASE("gear put on over other gear sends that to the pack", "[M41a]") {
    Dresser d(wares);
    CHECK(d.on("club").done());
    const ChangeOutcome outcome = d.on("pick");
    CHECK(outcome.done());
    CHECK(outcome.notes == std::vector<std::string>{"club goes to the pack", "pick is put on"});
    CHECK(d.worn() == "pick ");
    CHECK(d.pack() == "club×1 ");
    CHECK(d.on("club").notes.back() == "club is put on, from the pack");
    CHECK(d.pack() == "pick×1 ");
}

TEST_CASE("what takes two places clears both, sockets and all", "[M41a][M40]") {
    Dresser d(wares);
    CHECK(d.on("cap").done());
    CHECK(d.on("bead").done());
    CHECK(d.worn() == "cap bead ");
    CHECK(d.on("maul").done());
    CHECK(d.worn() == "maul ");
    CHECK(d.pack() == "cap×1 bead×1 ");
    CHECK(d.on("club").refused.size() == 1); // the maul would be the pack's third stack
    CHECK(d.worn() == "maul ");
    CHECK(d.on("cap").done()); // it makes room itself
    CHECK(d.worn() == "cap ");
    CHECK(d.pack() == "bead×1 maul×1 ");
}

TEST_CASE("of a unique group the other makes way, where a place is free or not", "[M41a][M41]") {
    Dresser d(wares);
    CHECK(d.on("ring").done());
    CHECK(d.on("band").done());
    CHECK(d.worn() == "band ");
    CHECK(d.pack() == "ring×1 ");
}

TEST_CASE("a change is refused when the pack has no room, and changes nothing", "[M41a][M53]") {
    Dresser d(wares);
    CHECK(d.on("club").done());
    CHECK(d.find("rock", 2).left == 0);
    const ChangeOutcome outcome = d.on("pick");
    REQUIRE_FALSE(outcome.done());
    CHECK(outcome.refused[0].thing == "pack");
    CHECK(outcome.notes.empty());
    CHECK(d.worn() == "club ");
    CHECK(d.pack() == "rock×2 ");
}

TEST_CASE("taking off what gave the room is refused too", "[M53]") {
    Dresser d(wares);
    CHECK(d.on("satchel").done());
    CHECK(d.find("nut", 3).left == 0);
    CHECK(d.find("dart", 12).left == 0);
    REQUIRE_FALSE(d.off("satchel").done());
    CHECK(d.off("satchel").refused[0].reasons[0] == "it makes 4 stacks; the bag holds 2");
    CHECK(d.off("club").refused[0].reasons[0] == "it is not worn");
}

TEST_CASE("a bead wants a free socket on something worn", "[M40]") {
    Dresser d(wares);
    CHECK(d.on("bead").refused[0].reasons[0] == "no free socket inlay on anything that is worn");
    CHECK(d.on("rock").refused[0].reasons[0] == "it has no slot: it is carried, not worn");
    CHECK(d.on("cap").done());
    CHECK(d.on("bead").done());
    CHECK_FALSE(d.on("bead").done());
}

TEST_CASE("a find tops up stacks first, then starts new ones; the rest is left and said", "[M54]") {
    Dresser d(wares);
    CHECK(d.find("dart", 4).left == 0);
    CHECK(pack_stacks(d.armoury, d.outfit) == 1);
    CHECK(d.find("dart", 2).left == 0);
    CHECK(pack_stacks(d.armoury, d.outfit) == 1);
    const ChangeOutcome many = d.find("dart", 9);
    CHECK(many.left == 3);
    CHECK(many.notes == std::vector<std::string>{"6 of 9 dart taken up; 3 left: the bag is full"});
    CHECK(d.pack() == "dart×12 ");
    Dresser own(wares);
    CHECK(own.find("nut", 25).left == 15);
    CHECK(own.find("nut", 1).notes[0] == "0 of 1 nut taken up; 1 left: at most 1 stack of it are "
                                         "allowed");
    Dresser heavy(wares);
    CHECK(heavy.find("water", 1000).left == 980);
    CHECK(heavy.find("dart", 1).notes[0].ends_with("it would be over the limit of what can be "
                                                   "carried"));
}

TEST_CASE("what an item comes with comes once: from a find or a new thing, not from the pack",
          "[M54]") {
    Dresser d(wares);
    CHECK(d.on("satchel").done());
    CHECK(d.on("quiver").done());
    CHECK(units_of(d.armoury, d.outfit)["dart"] == 4);
    CHECK(d.off("quiver").done());
    CHECK(d.on("quiver").done());
    CHECK(units_of(d.armoury, d.outfit)["dart"] == 4);
}

TEST_CASE("units are conserved through any changes: found is carried and left", "[M41a]") {
    rc::prop("random finds, puttings on and takings off", [] {
        static Dresser fresh(wares);
        Outfit outfit{CharacterId(0), 1, {}, {}, {}, {}, {}};
        const Armoury& a = fresh.armoury;
        Units expected;
        for (int i = 0; i < 30; ++i) {
            const ItemId item(*rc::gen::inRange<std::size_t>(0, a.items.size()));
            const std::string& id = a.at(item).id;
            const Outfit before = outfit;
            switch (*rc::gen::inRange(0, 3)) {
            case 0: {
                const std::int64_t count = *rc::gen::inRange<std::int64_t>(1, 8);
                const ChangeOutcome outcome = take_up(fresh.deriver, outfit, item, count);
                expected[id] += count - outcome.left;
                // What it contains comes too, as far as it fits: that is the one other change.
                if (!a.at(item).contains.empty()) expected["dart"] = units_of(a, outfit)["dart"];
                break;
            }
            case 1: {
                const bool packed = units_of(a, before)[id] > 0;
                const bool in_pack =
                    std::any_of(before.pack.begin(), before.pack.end(),
                                [&](const PackedItem& p) { return p.item == item; });
                RC_ASSERT(packed || !in_pack);
                if (put_on(fresh.deriver, outfit, item).done() && !in_pack) {
                    ++expected[id];
                    for (const PackedItem& inner : a.at(item).contains)
                        expected[a.at(inner.item).id] += inner.count;
                }
                break;
            }
            default: {
                const ChangeOutcome outcome = take_off(fresh.deriver, outfit, item);
                if (!outcome.done()) RC_ASSERT(units_of(a, outfit) == units_of(a, before));
            }
            }
            Units now = units_of(a, outfit);
            std::erase_if(now, [](const auto& one) { return one.second == 0; });
            Units wanted = expected;
            std::erase_if(wanted, [](const auto& one) { return one.second == 0; });
            RC_ASSERT(now == wanted);
            RC_ASSERT(refusals(fresh.deriver, outfit).empty());
        }
    });
}

TEST_CASE("putting anything on and taking all off leaves the bare sheet, bitwise", "[M2][M41a]") {
    const Armoury demo = demo_armoury();
    Deriver deriver(demo);
    rc::prop("the demo's gear", [&] {
        Outfit outfit{CharacterId(*rc::gen::inRange<std::size_t>(0, 3)), 30, {}, {}, {}, {}, {}};
        const std::vector<double> bare = outfit_stats(deriver, outfit, no_band);
        for (int i = 0; i < 12; ++i)
            static_cast<void>(put_on(deriver, outfit,
                                     ItemId(*rc::gen::inRange<std::size_t>(0, demo.items.size()))));
        while (!outfit.worn.empty()) {
            outfit.pack.clear(); // dropped, so that there is room for the rest
            const std::size_t worn = outfit.worn.size();
            static_cast<void>(take_off(deriver, outfit, outfit.worn.back().item));
            RC_ASSERT(outfit.worn.size() == worn - 1);
        }
        outfit.pack.clear();
        RC_ASSERT(outfit_stats(deriver, outfit, no_band) == bare);
    });
}
