// An armoury that is looked at again after each save: what the save did, at a glance, and then by
// a whole search.
#pragma once

#include "base/stages.h"
#include "judge/tune/comparison.h"

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

/// What a save did, as far as a glance can tell.
struct Glance {
    Comparison comparison;
    /// What was not changed and looks as if it called for a hand now, or no longer did: the best
    /// without it was found for other numbers, so that is for a search to tell. In the comparison,
    /// and from there on, it stays what it was.
    std::vector<VerdictShift> unsure;
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
    [[nodiscard]] std::optional<Glance> glance(ReadArmoury read, AuditOptions scope,
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
