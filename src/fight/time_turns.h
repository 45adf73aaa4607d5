// When a condition can turn because time passes (M60b).
#pragma once

#include "formula/formula.h"
#include "model/units.h"

#include <vector>

namespace panoplon {

/// The moments at which a condition may come true, or stop being so, while nothing but time moves.
/// Where `time` stands alone on one side of a comparison, and the other side hangs on no pool and
/// no time, that is the moment at which they meet; anything else that reads the time may turn at
/// any tenth of a unit. Not for use by two threads at once.
class TimeTurns {
  public:
    explicit TimeTurns(const Formula& condition);

    /// The first after this moment, in whole ticks; `never` where there is none.
    [[nodiscard]] Ticks next(Ticks now, const Environment& environment);

  private:
    /// What time is compared with, and on which side of their meeting the comparison turns.
    struct Meeting {
        Evaluator other;
        bool at = false;    ///< with the first tick at which time is no less
        bool after = false; ///< with the first at which it is more
    };
    std::vector<Meeting> meetings_;
    bool anywhere_ = false;
};

} // namespace panoplon
