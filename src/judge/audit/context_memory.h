// What was measured in contexts before, kept by what it hangs on: a context none of whose items and
// rules has changed needs no new search.
#pragma once

#include "armoury/content.h"
#include "judge/audit/measured_context.h"

#include <mutex>
#include <unordered_map>

namespace panoplon {

/// A context as it was measured. Its item ids are places in `items`, so that it means the same in
/// another armoury, where the items stand in another order.
struct RememberedContext {
    std::vector<std::string> items;
    Margin best; ///< without an error
    bool found = false;
    bool proven = false;
    double missed = 0;
    std::vector<Placed> places; ///< of the best
    std::vector<PackedItem> pack;
    std::vector<ItemContextRow> rows, packed_rows;
    int age = 0; ///< readings of the memory since it was last asked for
};

/// May be asked and told by several threads at once.
class ContextMemory {
  public:
    /// Counts as asked for.
    [[nodiscard]] const RememberedContext* find(std::uint64_t key);
    void keep(std::uint64_t key, RememberedContext context);
    [[nodiscard]] const std::unordered_map<std::uint64_t, RememberedContext>& all() const {
        return known_;
    }

  private:
    std::mutex mutex_;
    std::unordered_map<std::uint64_t, RememberedContext> known_;
};

/// A memory and what the armoury at hand says.
struct Recall {
    ContextMemory* memory = nullptr; ///< none: nothing is known and nothing is kept
    Content content;
    std::uint64_t edition = 0; ///< of the program: another may search otherwise
};

[[nodiscard]] RememberedContext remember(const Armoury& armoury, const Search& search,
                                         const MeasuredContext& measured);
/// In the armoury at hand; `search` has entered the context. None where it names what is not here.
[[nodiscard]] std::optional<MeasuredContext> recall(const Armoury& armoury, const Search& search,
                                                    const RememberedContext& known);

} // namespace panoplon
