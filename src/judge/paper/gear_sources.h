// How gear is had: by drops, by what it comes with, or as its `source` says.
#pragma once

#include "model/armoury.h"

#include <string>
#include <vector>

namespace panoplon {

/// Of one armoury, which outlives it.
class GearSources {
  public:
    explicit GearSources(const Armoury& armoury);

    /// Why nothing gives the item, in an armoury that says of any item how it is had; empty:
    /// something does, or the armoury says of none.
    [[nodiscard]] std::string why_not_had(ItemId item) const;

  private:
    [[nodiscard]] bool drops_anywhere(ItemId item) const;

    const Armoury& armoury_;
    bool says_ = false;              ///< of any item how it is had
    std::vector<bool> comes_along_;  ///< by item: with another
    std::vector<bool> in_a_loadout_; ///< by item
};

} // namespace panoplon
