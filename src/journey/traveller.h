// One trial of a journey, as it goes on. For the files of this folder.
#pragma once

#include "journey/finds.h"
#include "journey/journey.h"
#include "journey/kit.h"
#include "outfit/change.h"

namespace panoplon {

/// What one trial came to at a stage.
struct StageTrial {
    double tries = 0, wins = 0, level = 0, time = 0, coin = 0;
    std::optional<double> power;
    std::vector<double> stock;        ///< by item, as StageSummary has it; empty: not passed
    std::vector<std::string> missing; ///< what the encounter asks for and is not there
    bool passed = false;
};

/// What became of an item in one trial, in units and fights.
struct ItemTrial {
    double had = 0; ///< set out with, found, bought or given
    double found = 0, used = 0, left = 0;
    double bought = 0, sold = 0; ///< sold: of what was left
    double broken = 0;           ///< of what was used up: gear that wore out
    double grown = 0;            ///< times that one grew, the most of any
    double fights_worn = 0;
    std::vector<double> fights_worn_at; ///< by level; empty: never
    int first_worn = 0;                 ///< level; 0: never
    bool worn_last = false;
};

class Traveller {
  public:
    Traveller(JourneyKit& kit, const Journey& journey, const Luck& luck);

    /// Plays the whole journey.
    void go();

    [[nodiscard]] const Way& way() const { return way_; }
    [[nodiscard]] const std::vector<StageTrial>& stages() const { return stages_; }
    [[nodiscard]] const std::vector<ItemTrial>& items() const { return items_; }
    [[nodiscard]] const std::vector<int>& upgrades() const { return bought_; }
    [[nodiscard]] double fights() const { return fights_; }
    [[nodiscard]] const std::vector<double>& fights_at() const { return fights_at_; }
    [[nodiscard]] bool finished() const { return finished_; }
    [[nodiscard]] const std::optional<FightError>& error() const { return error_; }

  private:
    bool pass(const Stage& stage);
    bool fight(const Stage& stage);
    void spend(const FightResult& result);
    void carry_over(const FightResult& result);
    [[nodiscard]] std::vector<int> foes_that_came(const Stage& stage) const;
    void find(const Stage& stage, const std::vector<int>& came);
    void find_in(const Stage& stage, DropsId drops, std::uint64_t first_draw);
    void give(const Stage& stage);
    void visit_shop(const Stage& stage);
    void sell(const Shop& shop);
    void mend(const Shop& shop);
    void refill(const Shop& shop, std::vector<PackedItem>& stock);
    void buy_gear(const Stage& stage, std::vector<PackedItem>& stock);
    void wear_out();
    void grow(int felled);
    void leave(ItemId item, double units);
    void take(const Stage& stage, ItemId item, std::int64_t units, Drawn drawn);
    bool put_on_if_better(const Stage& stage, ItemId item, Drawn drawn);
    [[nodiscard]] bool prefers(const Stage& stage, const Outfit& changed, ItemId item);
    [[nodiscard]] bool beats_now(const Stage& stage, const Outfit& changed);
    void leave_taken_off(Outfit& changed);
    void buy();
    void spend_points();
    void raise(UpgradeId id);
    [[nodiscard]] double worth_of(ItemId item) const;
    void count_had(ItemId item, std::int64_t units);
    void count_worn();
    void check_units();
    [[nodiscard]] std::vector<double> stock() const;
    void stand(const std::optional<Margin>& power);
    void outfit_changed();
    void make_ready(const Stage& stage);
    /// A guess of the power now.
    [[nodiscard]] double last_power() const {
        return way_.back().power > 0 ? way_.back().power : 1;
    }

    JourneyKit& kit_;
    const Armoury& armoury_;
    const Journey& journey_;
    Luck luck_;
    Outfit outfit_;
    std::vector<PackedItem> kept_; ///< gear that the start has in the pack: it stays there
    double coin_ = 0;
    double time_ = 0;
    double fights_ = 0;
    std::vector<double> fights_at_; ///< by level
    bool ready_ = false; ///< the kit's engine is, for the outfit against the stage's encounter
    std::optional<double> margin_; ///< of that fight
    double last_margin_ = 1;       ///< near which the next is looked for
    std::optional<Margin> power_;  ///< of the outfit against the yardstick, while it holds
    Way way_;
    std::vector<StageTrial> stages_;
    std::vector<ItemTrial> items_;
    std::vector<int> bought_;
    std::vector<PackedItem> first_pack_; ///< what shops fill up to
    std::vector<double> unsold_;         ///< by item: gear left since the last shop
    std::vector<int> worn_out_;          ///< by item: fights since it was put on, or mended
    Luck last_luck_;                     ///< of the last fight
    std::vector<double> begins_;         ///< of the next fight; empty: as the pools say
    bool finished_ = false;
    std::optional<FightError> error_;
};

} // namespace panoplon
