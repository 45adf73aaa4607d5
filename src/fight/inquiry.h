// Why things of a fight happened or did not (M90).
#pragma once

#include "diagnostic/source.h"
#include "fight/setup.h"

#include <functional>
#include <string>
#include <vector>

namespace panoplon {

/// What can be asked about: a use, an action, a swap, or an effect from one who gives it.
enum class Matter { use, action, swap, effect };
inline constexpr const char* matter_names[] = {"use", "action", "swap", "effect"};

/// Counts, over the fights that it is handed to, how often each thing happened and why it did not.
/// What could have happened and never came up stands in it with nothing counted.
class Inquiry {
  public:
    struct Reason {
        std::string words;   ///< "cooling down"
        std::string example; ///< values at the first time; may be empty
        Span span;           ///< of what decides it
        double times = 0;
        double first = 0; ///< time in the first fight in which it was so
    };
    struct Entry {
        Matter matter = Matter::use;
        std::string actor; ///< id of the character, a kind of foe, or an ally's loadout
        std::string thing; ///< id of the item, the action, the loadout, the effect
        std::string by;    ///< of an effect: the action, item or bearer that gives it
        std::string event; ///< of an effect by a trigger: what it waits for
        Span span;
        double happened = 0;
        double first = 0; ///< time at which it first happened
        std::vector<Reason> reasons;
    };

    /// The entry, made where there is none yet. `event` may be empty.
    Entry& entry(Matter matter, const std::string& actor, const std::string& thing,
                 const std::string& by, const std::string& event, const Span& span);
    static void happened(Entry& entry, double time);
    static void denied(Entry& entry, const std::string& words, const Span& span, double time,
                       const std::function<std::string()>& example = {});

    [[nodiscard]] const std::vector<Entry>& entries() const { return entries_; }

  private:
    std::vector<Entry> entries_;
};

} // namespace panoplon
