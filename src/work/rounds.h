// An armoury that is looked at again after each save: what the save did, at a glance, and then by
// a whole search.
#pragma once

#include "judge/tune/comparison.h"
#include "work/stages.h"

#include <memory>
#include <optional>

namespace panoplon {

/// A reading that was looked at.
struct Looked {
    ReadArmoury read;
    AuditOptions scope;
    AuditResult audit;
    bool whole = false; ///< its audit is a search, and no glance
};

class Rounds {
  public:
    explicit Rounds(Memory& memory) : memory_(memory) {}

    /// What stands now; none before begin().
    [[nodiscard]] const std::shared_ptr<const Looked>& present() const { return present_; }

    /// Searches the whole of a reading: the state that the first save is compared with. False where
    /// that was stopped: then it has to begin again.
    bool begin(ReadArmoury read, AuditOptions scope, Stages& stages);
    /// What a save did against what stood before, at a glance (audit_again()); it is the present
    /// then. None where that was stopped: then the former stays.
    [[nodiscard]] std::optional<Comparison> glance(ReadArmoury read, AuditOptions scope,
                                                   Stages& stages);
    /// What stands now by a whole search, against what was searched last. None where that was
    /// stopped.
    [[nodiscard]] std::optional<Comparison> search(Stages& stages);

  private:
    [[nodiscard]] Comparison compare(const Looked& before, const Looked& after,
                                     Stages& stages) const;

    Memory& memory_;
    std::shared_ptr<const Looked> present_, searched_;
};

} // namespace panoplon
