// The engine: one fight, by trial or by even luck (M60-M69).
#pragma once

#include "chance/draws.h"
#include "fight/result.h"
#include "fight/setup.h"

#include <memory>
#include <optional>

namespace panoplon {

class Arena;

/// How much of a fight is written down. `outcome` leaves won, time and remainder only, and is
/// faster.
enum class Detail { outcome, ledger };

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

    [[nodiscard]] const Armoury& armoury() const;
    [[nodiscard]] Deriver& deriver();

  private:
    std::unique_ptr<Arena> arena_;
};

} // namespace panoplon
