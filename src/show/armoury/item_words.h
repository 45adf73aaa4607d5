// What an item asks for and does, in words.
#pragma once

#include "model/armoury.h"

#include <string>

namespace panoplon {

/// "+8 fire, +10 % haste", with what amounts that are added are multiplied by; "nothing" for none.
[[nodiscard]] std::string modifiers_words(const Armoury& armoury, const Modifiers& modifiers,
                                          double add_factor);
/// A number rounded for people, or the formula that gives it.
[[nodiscard]] std::string amount_words(const Quantity& amount);

/// "restores 70 health, cooldown 12 (group draught)".
[[nodiscard]] std::string use_words(const Armoury& armoury, const Use& use);
/// "level 5, for ringer or warden, 12 might"; empty where it asks for nothing.
[[nodiscard]] std::string needs_words(const Armoury& armoury, const Needs& needs);
/// "+12 % attack, 2 health each 1, piles up to 3": what an effect does to who has it; "nothing"
/// where it does not.
[[nodiscard]] std::string effect_does_words(const Armoury& armoury, EffectId effect);
/// "on hurt, 15 %: braced for 4 on itself, again after 8".
[[nodiscard]] std::string trigger_words(const Armoury& armoury, const Trigger& trigger);
/// "2 stacks in the bag, 8 of capacity"; empty for none.
[[nodiscard]] std::string grants_words(const Grants& grants);

} // namespace panoplon
