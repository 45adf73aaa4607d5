// The best legal loadout of a context, and the best under a condition: without an item, with an
// item, with a place left empty (M80, M81). A simple search: several starts, then exchanges of one
// thing and of two at a time, until nothing helps.
#pragma once

#include "fight/margin.h"
#include "model/armoury.h"

#include <optional>
#include <vector>

namespace panoplon {

/// A character at a level against an encounter.
struct Context {
    CharacterId character;
    int level = 1;
    EncounterId encounter;
};

/// What is worn in each place (a slot with a count of 2 has two) and how many of each consumable
/// are packed. Places and consumables are those of the Search that made it.
struct Candidate {
    std::vector<ItemId> places;
    std::vector<std::int64_t> counts;

    auto operator<=>(const Candidate&) const = default;
};

struct Found {
    Candidate candidate;
    Margin margin;
    bool any = false; ///< false: no legal candidate was seen
};

/// Searches one context after another of the same armoury; one for each thread. It remembers, for
/// its current context, the best that any part of the work has seen (M80).
class Search {
  public:
    /// `groups`: twin_groups(); twins count as one item in every condition.
    Search(const Armoury& armoury, const std::vector<ItemId>& groups);

    /// Turns to a context. `hint`, where given, is a start: the best of a level below, say.
    void enter(const Context& context, const std::optional<Candidate>& hint);

    /// Finds the best of the context. False when a fight ends in an error, which `error()` then
    /// has.
    bool find_best();
    /// Looks for the best without an item and its twins; with an item; with so many places of a
    /// slot empty (1 … its count).
    void find_without(ItemId item);
    void find_with(ItemId item);
    void find_empty(SlotId slot, int places);

    [[nodiscard]] const Found& best() const { return best_; }
    /// The best seen that does not wear the item, that wears it, that leaves at least so many
    /// places of the slot empty.
    [[nodiscard]] const Found& without(ItemId item) const { return without_[group(item).index()]; }
    [[nodiscard]] const Found& with(ItemId item) const { return with_[group(item).index()]; }
    [[nodiscard]] const Found& empty(SlotId slot, int places) const {
        return empty_[slot.index()][static_cast<std::size_t>(places - 1)];
    }
    /// How many places the item and its twins take in the best; 0 when they are not worn there.
    [[nodiscard]] int worn_in_best(ItemId item) const;
    /// Items that the character can wear here, in the armoury's order.
    [[nodiscard]] const std::vector<ItemId>& wearable() const { return wearable_; }
    [[nodiscard]] const std::optional<FightError>& error() const { return error_; }
    [[nodiscard]] Outfit outfit_of(const Candidate& candidate) const;

  private:
    static constexpr int any_band = 1000;

    /// What a climb may do.
    struct Condition {
        std::vector<bool> banned;      ///< by item; empty: none
        std::vector<int> fixed_places; ///< these do not change
        bool lively_only = false; ///< outside of `open_slot` only exchanges that come near the best
        SlotId open_slot;
        int highest_band = any_band; ///< no load above this band
    };
    struct Move {
        int place = -1;  ///< or
        int packed = -1; ///< index of a consumable
        ItemId item;
        std::int64_t count = 0;
    };

    // search_moves.cpp: where climbs start, and what they may exchange
    [[nodiscard]] Candidate bare() const;
    [[nodiscard]] Candidate dressed_by_level() const;
    [[nodiscard]] Candidate from_loadout(const Loadout& loadout) const;
    [[nodiscard]] std::vector<Candidate> starts() const;
    void find_lively();
    [[nodiscard]] const std::vector<ItemId>& options_in(SlotId slot,
                                                        const Condition& condition) const;
    [[nodiscard]] std::vector<Move> moves(const Candidate& from, const Condition& condition) const;
    [[nodiscard]] static Candidate moved(Candidate candidate, const Move& move);

    // search.cpp: what candidates are worth, and climbing
    enum class Ready { yes, too_heavy, no };
    [[nodiscard]] Ready make_ready(const Candidate& candidate, const Condition& condition);
    [[nodiscard]] std::optional<Margin> margin_of(const Candidate& candidate,
                                                  const Condition& condition, double guess);
    [[nodiscard]] bool beats(const Candidate& candidate, const Condition& condition, double margin);
    [[nodiscard]] bool hopeless(const Candidate& candidate, const Condition& condition,
                                double margin);
    void note(const Candidate& candidate, const Margin& margin);
    void climb(Candidate start, const Condition& condition, bool pairs);
    bool step(Found& from, const Condition& condition);
    bool pair_step(Found& from, const Condition& condition);
    bool try_candidate(Found& from, const Candidate& candidate, const Condition& condition);
    [[nodiscard]] int place_of(SlotId slot) const;
    [[nodiscard]] ItemId group(ItemId item) const { return groups_[item.index()]; }

    const Armoury& armoury_;
    const std::vector<ItemId>& groups_;
    Engine engine_;
    std::vector<SlotId> places_; ///< slot of each place
    std::vector<ItemId>
        consumables_; ///< every item with a use, so that a hint of another level fits
    std::vector<std::vector<ItemId>> options_; ///< by slot: what can be worn
    std::vector<std::vector<ItemId>> lively_;  ///< by slot: what comes near the best, or is in it
    std::vector<ItemId> wearable_;
    Context context_;
    std::optional<Candidate> hint_;
    FightSetup setup_;
    std::vector<double> base_;
    std::vector<double> stats_; ///< room for a derivation
    ActorSetup character_;
    Found best_;
    std::vector<Found> without_, with_;     ///< by the first of its twins
    std::vector<std::vector<Found>> empty_; ///< by slot, by number of empty places less 1
    std::optional<FightError> error_;
};

} // namespace panoplon
