// Why things happen or do not, where somebody asks (M90). Cold, so that what calls it stays small.
// Not for others.
#pragma once

#include "fight/field.h"

namespace panoplon::fighting {

Inquiry::Entry& asked_use(Field& f, const Actor& actor, std::size_t rule);
/// Everything that could happen has its entry, though nothing of it ever comes up.
void list_possible(Field& f);
void list_possible(Field& f, const Actor& actor);
/// Why a use that was considered is not done; `refused` is empty where it is not even wanted.
[[gnu::cold, gnu::noinline]] void note_unused(Field& f, Actor& actor, std::size_t rule,
                                              const char* refused);
void note_swap(Field& f, const Actor& actor, const SetupSwap& swap, bool due);
/// Why each action before the chosen one, and each after it, is not done.
[[gnu::cold, gnu::noinline]] void note_choice(Field& f, Actor& actor, const Place* chosen);
[[gnu::cold, gnu::noinline]] void note_effect(Field& f, const Actor& giver, EffectId effect,
                                              const std::string& by, const Trigger* trigger,
                                              const Span& span, const char* refused);

} // namespace panoplon::fighting
