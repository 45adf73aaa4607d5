// What the files of doubts share; used by judge/doubts*.cpp only.
#pragma once

#include "diagnostic/diagnostic.h"
#include "diagnostic/doubt_kinds.h"
#include "model/armoury.h"

#include <algorithm>
#include <cassert>
#include <fmt/format.h>
#include <set>
#include <string>
#include <utility>

namespace panoplon {

/// Tells doubts unless the thing allows them, and remembers which `allow` was of use.
class Doubting {
  public:
    Doubting(const Armoury& armoury, Sink& sink) : armoury_(armoury), sink_(sink) {}

    [[nodiscard]] const Armoury& armoury() const { return armoury_; }

    void doubt(const char* doubt_kind, const char* kind, const Definition& thing,
               std::string message, std::string hint = {}) {
        doubt_at(thing.span, doubt_kind, kind, thing, std::move(message), std::move(hint));
    }
    void doubt_at(const Span& span, const char* doubt_kind, const char* kind,
                  const Definition& thing, std::string message, std::string hint = {}) {
        const DoubtRow* row = find_doubt_row(doubt_kind);
        assert(row && "a doubt that is not in the table");
        if (std::find(thing.allow.begin(), thing.allow.end(), doubt_kind) != thing.allow.end()) {
            silenced_.emplace(&thing, doubt_kind);
            return;
        }
        sink_.doubt(doubt_kind, fmt::format("{}.{}", kind, thing.id), span, std::move(message),
                    hint.empty() ? std::string(row->remedy) : std::move(hint));
    }
    [[nodiscard]] bool silenced(const Definition& thing, const std::string& kind) const {
        return silenced_.contains({&thing, kind});
    }

  private:
    const Armoury& armoury_;
    Sink& sink_;
    std::set<std::pair<const Definition*, std::string>> silenced_;
};

// doubts_items.cpp
void doubt_items(Doubting& doubting);
// doubts_groups.cpp
void doubt_groups(Doubting& doubting);
// doubts_tiers.cpp
void doubt_tiers(Doubting& doubting);

} // namespace panoplon
