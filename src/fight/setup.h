// Who fights: actors with everything about them that a fight does not change.
#pragma once

#include "model/armoury.h"
#include "outfit/derive.h"
#include "outfit/outfit.h"

#include <string>
#include <vector>

namespace panoplon {

enum class Side { character, foes };

/// When a packed consumable is used. Without a formula it is the default rule of M33.
struct SetupRule {
    std::size_t packed = 0; ///< index into ActorSetup::pack
    Formula when;
};

struct ActorSetup {
    Side side = Side::character;
    std::string name;
    int level = 1;
    std::vector<double> base; ///< by stat
    StatSums sums;            ///< own and worn modifiers, without band and effects
    std::vector<ActionId> actions;
    Ticks arrival = 0;

    // What only the character has.
    bool carries = false;
    Thousandths worn = 0; ///< what worn items count
    double granted = 0;   ///< carry capacity that gear adds
    std::vector<PackedItem> pack;
    std::vector<SetupRule> rules;
};

struct FightSetup {
    std::vector<ActorSetup> actors; ///< the character first, foes in the order of arrival
    EncounterId encounter;
};

/// Level of an encounter's foes when the character has `level`: nearest whole number, at least 1.
[[nodiscard]] int foe_level(const Encounter& encounter, int level);

/// An outfit against an encounter. The outfit is legal (refusals() is empty).
[[nodiscard]] FightSetup set_up_fight(const Armoury& armoury, const Outfit& outfit,
                                      EncounterId encounter);
/// The two halves of it, for those who change one and keep the other.
[[nodiscard]] ActorSetup set_up_character(const Armoury& armoury, const Outfit& outfit);
/// With base_stats() of the character at that level known already.
[[nodiscard]] ActorSetup set_up_character(const Armoury& armoury, const Outfit& outfit,
                                          std::vector<double> base);
[[nodiscard]] std::vector<ActorSetup> set_up_foes(const Armoury& armoury,
                                                  const Encounter& encounter, int level);

} // namespace panoplon
