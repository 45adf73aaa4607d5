// A fight from its start to its end. Not for others.
#pragma once

#include "fight/field.h"

namespace panoplon::fighting {

void prepare(Field& f, const FightSetup& setup);
void prepare_character(Field& f, const ActorSetup& character);
const FightResult& run(Field& f, double strength, const std::optional<Luck>& luck, Detail detail,
                       Timeline* timeline, Inquiry* inquiry);
/// How many hits fell whom, as the prepared fight starts (M92).
[[nodiscard]] std::vector<BlowCount> blows(Field& f);

/// Whatever a fight starts from is set here, so that nothing stays from the fight before.
void begin(Field& f);
void find_what_there_is(Field& f);
/// Whether a condition of what the actor has now reads the time.
[[nodiscard]] bool reads_time(const Actor& actor);
[[nodiscard]] bool someone_left(const Field& f, Side side);

} // namespace panoplon::fighting
