// Armouries that are fair by construction but for what is planted in them.
#pragma once

#include <cstddef>
#include <cstdint>
#include <iterator>
#include <map>
#include <string>

namespace panoplon::test {

enum class Planted { dominant, useless, burden, twin, niche, overstaying, idle };
inline constexpr const char* planted_names[] = {"dominant", "useless",     "burden", "twin",
                                                "niche",    "overstaying", "idle"};
inline constexpr std::size_t planted_kinds = std::size(planted_names);

/// How gear is laid out.
enum class Layout {
    generations, ///< several items alike, each five levels
    ladder,      ///< one item at a time in a slot, the next three to four levels later
    tiers,       ///< two tiers side by side, of which the rarer is a third better
    bare_hands,  ///< who has no weapon does next to nothing
    rings,       ///< one slot with two places
    potions      ///< consumables of shares in a bag of two stacks
};
inline constexpr const char* layout_names[] = {"generations", "a ladder", "two tiers",
                                               "bare hands",  "rings",    "potions"};

struct PlantedArmoury {
    std::string text;                       ///< armoury.toml
    std::map<std::string, Planted> planted; ///< by item; a twin and its twin are both in it
    bool ladder = false;
};

struct PlantedSize {
    int slots = 8;       ///< 1 to 8
    int generations = 6; ///< of gear: one each five levels
    int alike = 4;       ///< items of a slot and generation that are worth nearly the same
    double share = 0.3;  ///< of the groups that have something planted
    Layout layout = Layout::generations;
};

/// Items of a slot and generation (and tier) differ by a few percent and by what no fight sees. In
/// some groups one is worth half as much again (dominant; a weapon where hands are bare by 30 %), a
/// third (useless; there a weapon without an edge), less than nothing (burden), is there twice
/// (twin), is good against one of three encounters (niche), gives only what no fight reads (idle),
/// or is as good as the next generation (overstaying, and dominant while it is new). On a ladder
/// such a thing stands in the place of the fair one, and nothing is dominant, a twin or a niche.
/// Potions give a share of attack at every level: four of one group by about 5 %, and beside them
/// one by 8 % (dominant) or next to nothing (useless); and one without a rival, by 2 % or by 30 %
/// (dominant).
[[nodiscard]] PlantedArmoury make_planted(std::uint64_t seed, const PlantedSize& size = {});

/// What an audit found of it.
struct Found {
    struct OfKind {
        int planted = 0, found = 0; ///< planted things, and those of them that were told
        int told = 0, rightly = 0;  ///< things told, and those of them that were planted
    };
    OfKind kinds[planted_kinds];
    int items = 0;
    std::string wrong; ///< what was missed or invented, one a line

    [[nodiscard]] OfKind all() const;
    [[nodiscard]] double recall() const;
    [[nodiscard]] double precision() const;
    void add(const Found& other);
};
[[nodiscard]] Found audit_planted(const PlantedArmoury& planted);

} // namespace panoplon::test
