// The engine: one fight, by trial or by even luck (M60-M69).
#pragma once

#include "chance/draws.h"
#include "fight/inquiry.h"
#include "fight/result.h"
#include "fight/setup.h"

#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace panoplon {

namespace fighting {
struct Field;
}

/// How much of a fight is written down. `outcome` leaves won, time and remainder only, and is
/// faster.
enum class Detail { outcome, ledger };

/// How many hits of an action take a whole health away: what a player notices (M92).
struct BlowCount {
    bool ours = true;          ///< the character's own action, else a foe's
    std::string actor, target; ///< ids of the character, or of a kind of foe
    ActionId action;
    double plain = 0;    ///< points of a hit, its spread in the middle, effects not counted
    double critical = 0; ///< of a critical hit; 0 where none can be
    double health = 0;   ///< the target's ceiling

    /// None where the damage never does it.
    [[nodiscard]] static std::optional<int> hits(double health, double damage);
    [[nodiscard]] std::optional<int> plain_hits() const { return hits(health, plain); }
    [[nodiscard]] std::optional<int> critical_hits() const { return hits(health, critical); }
};

/// Compiled formulas and working space for fights of one armoury; one for each thread. A result
/// depends only on the setup, the strength and the luck, never on what ran before.
class Engine {
  public:
    explicit Engine(const Armoury& armoury);
    Engine(Engine&&) noexcept;
    Engine& operator=(Engine&&) noexcept;
    ~Engine();

    /// Makes ready for fights of this setup, which must outlive them.
    void prepare(const FightSetup& setup);
    /// Changes the character only; the foes are those of the last prepare().
    void prepare_character(const ActorSetup& character);

    /// One fight. `strength` > 0 (M69). No luck means even luck (M68). The result is valid until
    /// the next run.
    const FightResult& run(double strength, const std::optional<Luck>& luck,
                           Detail detail = Detail::ledger);
    /// The same, told moment by moment.
    Timeline tell(double strength, const std::optional<Luck>& luck);
    /// The same, with why things happened and did not added to the inquiry.
    const FightResult& inquire(double strength, const std::optional<Luck>& luck, Inquiry& inquiry);

    /// How many hits fell whom, as the prepared fight starts (M92): first the character's own
    /// actions on a foe of each kind, then theirs on it.
    /// Empty where a formula gives no number: a fight tells which.
    [[nodiscard]] std::vector<BlowCount> blows();

    [[nodiscard]] const Armoury& armoury() const;
    [[nodiscard]] Deriver& deriver();

  private:
    std::unique_ptr<fighting::Field> field_;
};

} // namespace panoplon
