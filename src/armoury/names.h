// Every id of an armoury by kind: what references are looked up in, and what "did you mean" offers.
#pragma once

#include "armoury/node.h"

#include <map>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

namespace panoplon {

class Names {
  public:
    /// The index that the id has in its kind's list, or -1.
    [[nodiscard]] int find(std::string_view kind, const std::string& id) const;
    [[nodiscard]] const std::vector<std::string>& all(std::string_view kind) const;
    /// Returns false, and changes nothing, when the id is there already.
    bool add(const std::string& kind, const std::string& id);

  private:
    struct Kind {
        std::vector<std::string> ids;
        std::unordered_map<std::string, int> index;
    };
    std::map<std::string, Kind, std::less<>> kinds_;
};

/// Adds the words that are in use without a definition of their own: "calling" (of characters),
/// "tag" (of items and patterns) and "doubt" (what `allow` may name).
void add_words(const std::vector<RawDefinition>& definitions, Names& names);

} // namespace panoplon
