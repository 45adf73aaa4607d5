#include "support/armouries.h"

#include "judge/search/packed_candidate.h"
#include "outfit/refusals.h"

#include <catch2/catch.hpp>
#include <rapidcheck/catch.h>

using namespace panoplon;
using namespace panoplon::test;

namespace {

const std::string racks =
    "[slot.inlay]\nsocket = true\n"
    "[item.club]\nslot = \"hand\"\n[item.cap]\nslot = \"head\"\n"
    "[item.maul]\nslot = \"hand\"\ntakes = [\"head\"]\n"
    "[item.crown]\nslot = \"head\"\nsockets = [\"inlay\", \"inlay\"]\n"
    "[item.hood]\nslot = \"head\"\nsockets = [\"inlay\"]\n"
    "[item.bead]\nslot = \"inlay\"\n[item.jet]\nslot = \"inlay\"\nunique = \"oath\"\n"
    "[item.ring]\nslot = \"charm\"\nunique = \"oath\"\n[item.knot]\nslot = \"charm\"\n";

struct Fixture {
    Armoury armoury = test::armoury(duel() + racks);
    Wardrobe wardrobe{armoury};
    Candidate candidate = wardrobe.bare();

    ItemId id(const std::string& name) const { return find_id<ItemKind>(armoury.items, name); }
    /// Puts the item into the n-th place of its slot, sockets included.
    void put(const std::string& name, int n = 0) {
        for (const Position& position : wardrobe.positions(candidate))
            if (position.slot == armoury.at(id(name)).slot && n-- == 0)
                return wardrobe.put(candidate, position, id(name));
        FAIL("no place for " << name);
    }
    std::string words() const {
        std::string text;
        for_each_item(candidate, [&](ItemId item) { text += armoury.at(item).id + " "; });
        return text;
    }
};

} // namespace

TEST_CASE("a wardrobe has a place for each of a slot's count, and none for sockets", "[M40]") {
    const Fixture f;
    CHECK(f.wardrobe.places().size() == 4); // hand, head and two charms
    CHECK(f.wardrobe.positions(f.candidate).size() == 4);
}

TEST_CASE("what takes two places empties the other, and is put off by it", "[M40]") {
    Fixture f;
    f.put("club");
    f.put("cap");
    f.put("maul");
    CHECK(f.words() == "maul ");
    f.put("cap");
    CHECK(f.words() == "cap ");
}

TEST_CASE("sockets come with what has them, keep what they hold, and go with it", "[M40]") {
    Fixture f;
    f.put("crown");
    CHECK(f.wardrobe.positions(f.candidate).size() == 6);
    f.put("bead", 0);
    f.put("bead", 1);
    CHECK(f.words() == "crown bead bead ");
    f.put("hood");
    CHECK(f.words() == "hood bead "); // it has one socket
    f.put("cap");
    CHECK(f.words() == "cap ");
}

TEST_CASE("a filling goes into every empty socket, one of a unique group into one", "[M41]") {
    Fixture f;
    f.put("crown");
    const Position head = f.wardrobe.positions(f.candidate)[1];
    f.wardrobe.fill(f.candidate, head, f.id("bead"));
    CHECK(f.words() == "crown bead bead ");
    f.put("hood");
    f.put("crown");
    CHECK(f.words() == "crown bead ");
    f.wardrobe.fill(f.candidate, head, f.id("jet"));
    CHECK(f.words() == "crown bead jet ");
}

TEST_CASE("of a unique group the newcomer stays, wherever the other is", "[M41]") {
    Fixture f;
    f.put("ring");
    f.put("crown");
    f.put("jet");
    CHECK(f.words() == "crown jet ");
    f.put("ring", 1);
    CHECK(f.words() == "crown ring ");
}

TEST_CASE("no exchange ever leaves two things in one place", "[M40][M41]") {
    rc::prop("random puttings", [] {
        Fixture f;
        for (int i = 0; i < 20; ++i) {
            const std::vector<Position> positions = f.wardrobe.positions(f.candidate);
            const Position& at = positions[*rc::gen::inRange<std::size_t>(0, positions.size())];
            std::vector<ItemId> fits = {{}};
            for (std::size_t item = 0; item < f.armoury.items.size(); ++item)
                if (f.armoury.items[item].slot == at.slot) fits.emplace_back(item);
            f.wardrobe.put(f.candidate, at, fits[*rc::gen::inRange<std::size_t>(0, fits.size())]);
            int oaths = 0;
            for_each_item(f.candidate,
                          [&](ItemId item) { oaths += f.armoury.at(item).unique == "oath"; });
            RC_ASSERT(oaths <= 1);
            const std::vector<int> held = f.wardrobe.occupied(f.candidate);
            for (std::size_t s = 0; s < held.size(); ++s)
                if (!f.armoury.slots[s].socket) RC_ASSERT(held[s] <= f.armoury.slots[s].count);
            Deriver deriver(f.armoury);
            RC_ASSERT(
                refusals(deriver, {CharacterId(0), 1, f.wardrobe.worn(f.candidate), {}, {}, {}, {}})
                    .empty());
        }
    });
}

TEST_CASE("a loadout becomes a candidate with what its sockets hold") {
    const Armoury a = armoury(duel() + racks +
                              "[loadout.l]\ncharacter = \"hero\"\nworn = { head = { item = "
                              "\"crown\", inlay = [\"bead\", \"jet\"] }, charm = \"knot\" }\n");
    const Wardrobe wardrobe(a);
    const auto all = [](ItemId) { return true; };
    const Candidate candidate = wardrobe.from_loadout(a.loadouts.back(), all);
    CHECK(wardrobe.worn(candidate).size() == 2);
    CHECK(wardrobe.worn(candidate)[0].socketed.size() == 2);
    const ItemId jet = find_id<ItemKind>(a.items, "jet");
    const Candidate without =
        wardrobe.from_loadout(a.loadouts.back(), [&](ItemId item) { return item != jet; });
    CHECK(wardrobe.worn(without)[0].socketed.size() == 1);
}

TEST_CASE("a packed candidate is what was packed, and two are equal where they are", "[M80]") {
    const auto some = [](int most) { return *rc::gen::inRange(-1, most); };
    const auto placed = [&](const auto& self, int depth) -> Placed {
        Placed one;
        one.item.value = some(70000);
        if (one.item.given() && depth > 0)
            for (int i = *rc::gen::inRange(0, 3); i > 0; --i)
                one.sockets.push_back(self(self, depth - 1));
        return one;
    };
    const auto candidate = [&] {
        Candidate one;
        for (int i = *rc::gen::inRange(0, 6); i > 0; --i) one.places.push_back(placed(placed, 2));
        for (int i = *rc::gen::inRange(0, 6); i > 0; --i)
            one.counts.push_back(
                *rc::gen::element<std::int64_t>(0, 1, 127, 128, 1'000'000'000'000));
        for (int i = *rc::gen::inRange(0, 3); i > 0; --i) one.points.push_back(some(300) + 1);
        return one;
    };
    rc::prop("round trip", [&] {
        const Candidate one = candidate();
        const Candidate other = *rc::gen::arbitrary<bool>() ? one : candidate();
        const PackedCandidate packed(one);
        RC_ASSERT(packed.unpacked() == one);
        RC_ASSERT(packed.hash() == CandidateHash()(one));
        RC_ASSERT((packed == PackedCandidate(other)) == (one == other));
    });
}
