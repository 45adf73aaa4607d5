// What searches of earlier runs found, for this one: in the user's cache folder, or, with --anew,
// nowhere.
#pragma once

#include "cli/session.h"
#include "judge/search/recall.h"
#include "store/memory_file.h"

namespace panoplon {

class EarlierRuns {
  public:
    explicit EarlierRuns(const Invocation& invocation);

    [[nodiscard]] Memory& memory();
    /// For searches in this reading of the armoury.
    [[nodiscard]] Recall recall(const ReadArmoury& read) { return {memory(), read}; }
    /// Says to standard error what was known and what was dropped; to be called once the searches
    /// are done.
    void tell() const;

  private:
    const Invocation& invocation_;
    MemoryOfRun of_run_;
    std::unique_ptr<MemoryFile> file_; ///< none: nothing is kept
};

} // namespace panoplon
