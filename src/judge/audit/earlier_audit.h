// What an audit before a change found, for a look at the same contexts after it.
#pragma once

#include "judge/audit/audit.h"

#include <map>
#include <string>
#include <tuple>
#include <vector>

namespace panoplon {

class EarlierAudit {
  public:
    /// `read`: what `result` is an audit of. Both have to last.
    EarlierAudit(const ReadArmoury& read, const AuditResult& result);

    /// The outfits that a context's numbers rest on, in the world of a tier or in all; none where
    /// it was not looked at.
    [[nodiscard]] const SeenOutfits* find(const Armoury& now, const Context& context,
                                          int highest_rank) const;

    /// What differs in an armoury after the change.
    struct Changed {
        std::vector<bool> items; ///< by item: whether anything of it is new
        std::vector<bool> characters, encounters;
        bool rules = false; ///< anything else

        /// By item, for a context; empty: anything may be otherwise there.
        [[nodiscard]] std::vector<bool> in(const Context& context) const;
    };
    [[nodiscard]] Changed changed(const Armoury& now, const Content& content) const;

  private:
    using Place = std::tuple<std::string, std::string, int, int>;
    [[nodiscard]] static Place place_of(const Armoury& armoury, const Context& context,
                                        int highest_rank);

    const Armoury& armoury_;
    Content content_;
    std::map<Place, const SeenOutfits*> seen_;
};

} // namespace panoplon
