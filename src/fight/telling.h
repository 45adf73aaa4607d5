// What a timeline is told. Cold, so that what calls it stays small. Not for others.
#pragma once

#include "fight/field.h"

namespace panoplon::fighting {

[[gnu::cold, gnu::noinline]] void tell(Field& f, const Actor& actor, const char* event,
                                       std::string_view source, std::string_view target,
                                       double amount, double pool_after,
                                       std::string_view note = {});
[[gnu::cold, gnu::noinline]] void tell_restored(Field& f, const Actor& actor, std::size_t pool,
                                                double restored, double wasted,
                                                const std::string& source);
[[gnu::cold, gnu::noinline]] void tell_application(Field& f, const Actor& target, EffectId id,
                                                   bool running, Ticks duration,
                                                   const std::string& source);
void sample(Field& f);

} // namespace panoplon::fighting
