// The field of a fight: who fights, when it is, and what is kept of it. Plain data, which the
// functions of each matter move: instants.h has the order of moments, and every other header of
// this folder that names the field one matter. Not for others.
#pragma once

#include "chance/draws.h"
#include "fight/actor.h"
#include "fight/engine.h"

#include <cstdint>
#include <deque>
#include <string>
#include <vector>

namespace panoplon::fighting {

/// Ends a fight from wherever the fault shows; caught by run() (M66).
struct FightStopped {
    FightError error;
};
/// A fight has to be fought again with its ledger kept, which tells what its fault is.
struct Uncounted {};

/// What timelines call a pool's regen.
inline const std::string regen_word = "regen";
/// Why an effect was not given, as `--why` tells it.
inline constexpr const char* chance_failed = "its chance did not come true";

/// Who fights.
struct Cast {
    const FightSetup* setup = nullptr;
    std::vector<Actor> actors;    ///< the character's side, then the foes
    std::size_t ours = 1;         ///< how many are of the character's side
    PoolRows rows;                ///< their pools
    std::vector<Actor*> active;   ///< those who are there and stand
    bool all_came = false;        ///< nobody is still to arrive
    std::vector<Actor*> in_order; ///< first to act first
    std::vector<Actor*> users;    ///< those of them with use rules
    bool order_changed = true;
    // What nobody has is not looked at.
    bool anybody_swaps = false, anybody_hears = false;
    bool anybody_reads_time = false; ///< in a condition
    std::uint64_t last_version = 0;  ///< of a state of anybody
};

/// The first moments at which anybody has something due; never too late.
struct Clock {
    Ticks first_tick = never, first_end = never; ///< of effects
    Ticks first_regen = never;
    Ticks first_leave = never; ///< of who was called
    Ticks first_ready = 0;     ///< to act again
    Ticks first_cooldown = 0;  ///< end of one; 0: to be found anew
    bool regenerated = false;  ///< at this instant, already
    std::int64_t events = 0;
};

/// What a fight gives.
struct Kept {
    FightResult result;
    Ledger unread;            ///< what is counted where nobody reads it
    Ledger* counts = &result; ///< the one of them that is written
    bool kept = true;         ///< somebody reads it
    std::vector<int> holders; ///< by effect: how many have it,
    std::vector<Ticks> since; ///< and since when one has
};

/// Who looks on; null where nobody does.
struct Watching {
    Timeline* timeline = nullptr;
    Inquiry* inquiry = nullptr;
    bool any = false;
};

/// Why use rules have to be looked at.
struct UsesAsked {
    bool stirred = true;  ///< somebody was touched since they were considered
    bool uneasy = true;   ///< somebody's are looked at at every instant
    bool restless = true; ///< one hangs on what becomes of others
};

/// By even luck.
struct Flowing {
    std::vector<Actor*> falling; ///< who falls at fall_moment
    Ticks fall_moment = never;
    bool healths_moved = true;     ///< otherwise than by what flows: falls are to be found anew
    bool rates_stirred = true;     ///< rates could be others
    bool prolonged = false;        ///< an effect was, by a beginning that was passed over
    std::vector<Renewal> renewals; ///< of those that set something off, in their order
    std::size_t renewal_count = 0;
    Flow flow_of_now; ///< room for one
};

/// Room for what is found in between.
struct Room {
    StatSums sums;
    std::vector<EffectId> changing;        ///< those of an actor's effects that change stats
    std::vector<double> amounts;           ///< of what an action costs
    std::deque<std::vector<double>> rates; ///< of effects whose formulas were reckoned,
    std::size_t rates_used = 0;            ///< and how many of this fight
};

struct Field {
    explicit Field(const Armoury& armoury) : rules(armoury) {
        ledger.holders.resize(armoury.effects.size());
        ledger.since.resize(armoury.effects.size());
    }
    Field(const Field&) = delete; // its actors point into each other
    Field& operator=(const Field&) = delete;

    Rules rules;
    Cast cast;
    Clock clock;
    Ticks now = 0;
    double strength = 1; ///< of the foes (M69)
    Luck luck;
    bool even = false; ///< no luck: flows (M68)
    bool over = false; ///< a side has nobody left
    Kept ledger;
    Watching watch;
    UsesAsked uses;
    Flowing flows;
    Room room;
};

} // namespace panoplon::fighting
