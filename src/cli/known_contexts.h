// What audits found out before, from the folder that -o names and back into it.
#pragma once

#include "cli/session.h"
#include "judge/audit/context_memory.h"

namespace panoplon {

class KnownContexts {
  public:
    /// Reads what the folder has; nothing without -o.
    explicit KnownContexts(const Invocation& invocation);

    [[nodiscard]] ContextMemory& memory() { return memory_; }
    /// Tells this program from one that was built from other sources, which may search otherwise.
    [[nodiscard]] static std::uint64_t edition();
    /// For an audit of this reading of the armoury.
    [[nodiscard]] Recall recall(const ReadArmoury& read);
    /// Adds the file to what is written into the folder.
    void keep_in(Document& document) const;

  private:
    ContextMemory memory_;
    bool has_folder_;
};

} // namespace panoplon
