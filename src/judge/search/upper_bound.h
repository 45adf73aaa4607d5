// What no candidate of a context exceeds, on paper: places and packs combined under a bound (M80).
#pragma once

#include "fight/engine.h"
#include "judge/search/place_options.h"

#include <functional>
#include <memory>
#include <optional>
#include <queue>
#include <vector>

namespace panoplon {

/// A context, its best so far, and what may be worn and packed there.
struct BoundTask {
    CharacterId character;
    int level = 1;
    EncounterId encounter;
    const Wardrobe& wardrobe;
    PlaceChoice choice;
    std::vector<std::int64_t> most_units; ///< by consumable; 0: not usable
    std::vector<ItemId> carried;          ///< one of each is packed whatever else is
    std::optional<double> value_limit;
    Candidate best;
    double margin = 1; ///< of the best, within the strengths that are looked at
    int most_fights = 0;
    std::function<void(const Candidate&)> try_it; ///< told of each that is left by itself
};

struct Bounded {
    double bound = 0; ///< no candidate has a margin above it, on paper; ≥ the task's
    int fights = 0;   ///< that it took
    /// Nothing that is left could be better than the best by more than a margin's precision.
    bool closed = false;
};

/// Best first. What is still open are sets of candidates: some options for each place and a range
/// of counts for each consumable. One character with the best of all of these, fought at rising
/// strengths, tells what none of its candidates exceeds. The set that may hold the most is split,
/// until nothing is left or the fights are used up. That is true on paper: where more of a stat in
/// its own direction and more to use never harm in a fight.
class UpperBound {
  public:
    explicit UpperBound(const Armoury& armoury);

    /// None where something can't be bounded: consumables with contents, sets that change a stat of
    /// no direction, too many fillings of sockets.
    [[nodiscard]] std::optional<Bounded> find(const BoundTask& task);

  private:
    /// Some options of a place, and the best of them in everything.
    struct PlaceSet {
        std::vector<int> indices;        ///< into options_ of the slot, rising
        std::vector<double> most, least; ///< of each column
        std::vector<int> pieces;         ///< at most so many of each set
        Thousandths capacity = 0;        ///< at most
        double value = 0;                ///< at least
        std::int64_t bag = 0;            ///< at most
        bool alone = false;              ///< one is PlaceOption::alone
        [[nodiscard]] bool single() const { return indices.size() == 1; }
    };
    struct Range {
        std::int64_t low = 0, high = 0;
        [[nodiscard]] bool single() const { return low == high; }
    };
    /// What a column may come to in sum over the places.
    struct Reach {
        double low = 0, high = 0;
    };
    /// A set of candidates.
    struct Node {
        std::vector<std::shared_ptr<const PlaceSet>> places;
        std::vector<Reach> pivots; ///< by pivot
        std::vector<Range> counts; ///< by consumable
        int step = 0;              ///< of the ladder: none of them wins there
        int depth = 0;             ///< splits that led to it
    };
    struct LessUrgent {
        bool operator()(const Node& a, const Node& b) const {
            return a.step != b.step ? a.step < b.step : a.depth < b.depth;
        }
    };
    enum class Kind { place, consumable, pivot };
    /// What a set can be split by.
    struct Part {
        Kind kind = Kind::place;
        std::size_t index = 0;
        int slack = 0; ///< steps by which the bound falls where it is as the best has it
    };

    [[nodiscard]] bool can_be_bounded() const;
    [[nodiscard]] bool list_options();
    void set_up();
    [[nodiscard]] Node everything();
    void list_parts(const Node& all);
    [[nodiscard]] double openness(const Node& node, const Part& part) const;
    [[nodiscard]] Node with_best(Node node, const Part& part);
    void split(const Node& node);
    void split_place(const Node& node, std::size_t place);
    void split_counts(const Node& node, std::size_t consumable);
    void open(Node node);
    void split_pivot(const Node& node, std::size_t pivot);
    [[nodiscard]] Part next_part(const Node& node) const;
    [[nodiscard]] std::optional<Candidate> candidate_of(const Node& node) const;
    [[nodiscard]] bool leave_room(Node& node, std::size_t place);
    [[nodiscard]] bool in_order(const Node& node, std::size_t place) const;
    [[nodiscard]] int step_of(Node node);
    [[nodiscard]] const PlaceOption& option(std::size_t place, int index) const {
        return options_[slot(place).index()][static_cast<std::size_t>(index)];
    }
    [[nodiscard]] ItemId host_of(std::size_t place, int index) const {
        return option(place, index).placed.item;
    }
    [[nodiscard]] SlotId slot(std::size_t place) const { return task_->wardrobe.places()[place]; }

    // upper_bound_dream.cpp: one character that stands for a set of candidates
    [[nodiscard]] std::shared_ptr<const PlaceSet> place_set(SlotId slot, std::vector<int> indices);
    [[nodiscard]] static bool can_dream(const Node& node);
    [[nodiscard]] bool dream(Node& node);
    void dream_of_sets(const Node& node);
    void dream_of_pack(const Node& node);
    [[nodiscard]] Thousandths worn_weight() const;
    [[nodiscard]] bool possible(const Node& node);
    // upper_bound_pivots.cpp: what else there can be where one column is held
    void choose_pivots(const Node& all, Node together);
    [[nodiscard]] double pivot_openness(const Node& node, std::size_t pivot) const;
    [[nodiscard]] double held_by_best(std::size_t column) const;
    [[nodiscard]] bool hold_pivots(Node& node);
    void lower(const Node& node, std::size_t pivot, std::size_t column);
    [[nodiscard]] double most_with(const Node& node, std::size_t pivot, std::size_t column,
                                   double price) const;

    [[nodiscard]] bool wins(int step);
    [[nodiscard]] int lowest_lost(int lost);
    [[nodiscard]] int top_step() const;
    [[nodiscard]] double strength(int step) const;

    Ideal ideal_;
    Columns columns_;
    Engine engine_;
    FightSetup setup_;
    ActorSetup naked_, character_;
    std::vector<std::vector<ActionId>> orders_; ///< in which the dreamt of may act
    std::vector<double> stats_;                 ///< room for a derivation
    const BoundTask* task_ = nullptr;
    std::vector<std::vector<PlaceOption>> options_; ///< by slot
    std::vector<std::size_t> live_;                 ///< columns in which options of a place differ
    std::vector<std::size_t> pivots_;               ///< columns that sets are split by
    std::vector<Reach> whole_;                      ///< by pivot: what everything reaches
    std::vector<double> most_; ///< by column: of what is dreamt of, sets left out
    std::vector<Part> parts_;
    std::priority_queue<Node, std::vector<Node>, LessUrgent> open_;
    int fights_ = 0;
};

} // namespace panoplon
