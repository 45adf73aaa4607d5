// Modifiers and what carries them. Every bearer has the same body.
#pragma once

#include "diagnostic/source.h"
#include "formula/quantity.h"
#include "model/ids.h"
#include "model/units.h"

#include <compare>
#include <string>
#include <vector>

namespace panoplon {

/// How a modifier changes a stat: the three lists of M1.
enum class Change { add, percent, times };
inline constexpr const char* change_names[] = {"add", "percent", "times"};

struct Amount {
    StatId stat;
    double amount = 0; ///< points for add; percent points for percent; a factor for times

    auto operator<=>(const Amount&) const = default;
};

/// At most one amount a stat in each list, in the order of the stats.
struct Modifiers {
    std::vector<Amount> add, percent, times;

    [[nodiscard]] const std::vector<Amount>& of(Change change) const {
        return change == Change::add ? add : change == Change::percent ? percent : times;
    }
    [[nodiscard]] std::vector<Amount>& of(Change change) {
        return change == Change::add ? add : change == Change::percent ? percent : times;
    }
    bool operator==(const Modifiers&) const = default;
    [[nodiscard]] bool empty() const { return add.empty() && percent.empty() && times.empty(); }
};

/// What every definition has.
struct Definition {
    std::string id;
    std::string name;               ///< the id where none is given
    std::string about;              ///< may be empty
    std::string note;               ///< why it is so; shown in reports
    std::string todo;               ///< listed by `check`
    std::vector<std::string> allow; ///< kinds of doubts that are meant here
    Span span;                      ///< where it begins
};

enum class TriggerEvent { start, hit, crit, hurt, kill, use, life_lost };
inline constexpr const char* trigger_event_names[] = {"start", "hit", "crit",     "hurt",
                                                      "kill",  "use", "life_lost"};

/// When something happens to who bears it, with a chance, an effect is applied.
struct Trigger {
    TriggerEvent on = TriggerEvent::start;
    EffectId effect;
    Ticks duration = 0;  ///< `never` for always
    Quantity chance = 1; ///< of who bears it and the other in the event
    Ticks cooldown = 0;
    bool to_self = true; ///< else to the other in the event
    Span span;
};

struct Bearer : Definition {
    Modifiers modifiers;
    std::vector<Trigger> triggers;
};

} // namespace panoplon
