// What journeys of one armoury need again and again, made once for each thread. For the files of
// this folder.
#pragma once

#include "fight/engine.h"
#include "fight/margin.h"
#include "journey/finds.h"

#include <map>
#include <optional>
#include <utility>
#include <vector>

namespace panoplon {

class JourneyKit {
  public:
    explicit JourneyKit(const Armoury& armoury);

    [[nodiscard]] const Armoury& armoury() const { return engine_.armoury(); }
    [[nodiscard]] Engine& engine() { return engine_; }
    [[nodiscard]] Deriver& deriver() { return engine_.deriver(); }

    /// The outfit against an encounter. Swaps are left out: their loadouts are not what is worn by
    /// then. Valid until the next call.
    const FightSetup& set_up(const Outfit& outfit, EncounterId encounter);
    /// A fight of what set_up() was last called for, which the engine is ready for; `begins`: as
    /// ActorSetup has it.
    const FightResult& fight(const std::vector<double>& begins, const Luck& luck);
    /// Readies rival() for another outfit in the fight that set_up() was last called for.
    void set_up_rival(const Outfit& outfit, EncounterId encounter);
    [[nodiscard]] Engine& rival() { return rival_; }
    /// What the next level of an upgrade costs; none where it has no price or no next level.
    [[nodiscard]] std::optional<double> cost(std::size_t upgrade, int bought, int level);
    [[nodiscard]] double luck(DropsId drops, const Outfit& outfit);
    [[nodiscard]] const FindTable& finds(DropsId drops, int level);
    /// The margin of even luck against the yardstick; none without one. `guess`: near it.
    std::optional<Margin> power(const Outfit& outfit, double guess = 1);
    /// The power of the outfit that every trial sets out with.
    std::optional<Margin> start_power(const Outfit& start);

  private:
    FightSetup& fight_of(EncounterId encounter, int level);

    Engine engine_, rival_;
    FightSetup* set_up_ = nullptr; ///< what set_up() was last called for
    ActorSetup rival_character_;
    const FightSetup* rival_fight_ = nullptr; ///< whose foes rival() is ready for
    std::optional<Margin> start_power_;
    std::map<std::pair<DropsId, int>, FindTable> finds_;       ///< by level
    std::map<std::pair<EncounterId, int>, FightSetup> fights_; ///< by level; whose turn it is first
    std::vector<std::optional<Evaluator>> costs_;              ///< by upgrade
    std::vector<std::optional<Evaluator>> lucks_;              ///< by drops
};

} // namespace panoplon
