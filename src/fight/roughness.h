// How rough even luck is near an outfit (M69b).
#pragma once

#include "fight/engine.h"

namespace panoplon {

/// By how much (a share) a margin can be off by chance: of the engine's prepared fight, whose
/// character this is. Each of its pools is made up to 0.5 % smaller and larger, and the margins are
/// compared with the straight line through them, on a logarithmic scale: a change so small may move
/// a margin, but not to and fro. What counts is the furthest from that line. 0 where a margin is
/// not within 1/64 and 64, or a fight ends in an error. The engine is left prepared for the
/// character as it is.
[[nodiscard]] double roughness_near(Engine& engine, const ActorSetup& character, double margin);

} // namespace panoplon
