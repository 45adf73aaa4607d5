// Armouries that are fair by construction but for what is planted in them.
#pragma once

#include <cstdint>
#include <map>
#include <string>

namespace panoplon::test {

enum class Planted { dominant, useless, burden, twin, niche, overstaying };
inline constexpr const char* planted_names[] = {"dominant", "useless", "burden",
                                                "twin",     "niche",   "overstaying"};

struct PlantedArmoury {
    std::string text;                       ///< armoury.toml
    std::map<std::string, Planted> planted; ///< by item; a twin and its twin are both in it
};

struct PlantedSize {
    int slots = 8;       ///< 1 to 8
    int generations = 6; ///< of gear: one each five levels
    int alike = 4;       ///< items of a slot and generation that are worth nearly the same
    double share = 0.3;  ///< of the groups that have something planted
};

/// Items of a slot and generation differ by a few percent and by what no fight sees. In some groups
/// one is worth half as much again (dominant), a third (useless), less than nothing (burden), is
/// there twice (twin), is good against one of three encounters (niche), or is as good as the next
/// generation (overstaying, and dominant while it is new).
[[nodiscard]] PlantedArmoury make_planted(std::uint64_t seed, const PlantedSize& size = {});

/// What an audit found of it.
struct Found {
    int planted = 0, found = 0; ///< planted things, and those of them that were told
    int told = 0, rightly = 0;  ///< things told, and those of them that were planted
    std::string wrong;          ///< what was missed or invented, one a line

    [[nodiscard]] double recall() const { return planted == 0 ? 1 : double(found) / planted; }
    [[nodiscard]] double precision() const { return told == 0 ? 1 : double(rightly) / told; }
    void add(const Found& other);
};
[[nodiscard]] Found audit_planted(const PlantedArmoury& planted);

} // namespace panoplon::test
