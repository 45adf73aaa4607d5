// What a search's answer hangs on, and answers as bytes: items have their names there, so that they
// mean the same in an armoury whose items stand in another order.
#pragma once

#include "armoury/content.h"
#include "judge/search/memory.h"
#include "judge/search/search.h"

#include <nlohmann/json.hpp>
#include <string_view>

namespace panoplon {

/// A memory, and what the armoury at hand says.
struct Recall {
    Recall() = default; ///< nothing is known, and nothing is kept
    Recall(Memory& of, const ReadArmoury& read) : memory(&of), content(content_of(read)) {}

    Memory* memory = nullptr;
    Content content;
};

/// Answers are kept as CBOR (RFC 8949).
using Answer = nlohmann::json;

/// Writes what was found by names, and reads it back into the armoury at hand. Reading throws what
/// the library throws, or std::out_of_range, where the answer is none of this armoury.
class AnswerNames {
  public:
    AnswerNames(const Armoury& armoury, const Wardrobe& wardrobe);

    [[nodiscard]] std::string name(ItemId item) const { return armoury_.at(item).id; }
    [[nodiscard]] ItemId item(const Answer& name) const;
    [[nodiscard]] bool knows(const Answer& name) const {
        return ids_.contains(name.get_ref<const std::string&>());
    }
    [[nodiscard]] Answer write(const Found& found) const;
    [[nodiscard]] Found read(const Answer& answer) const;

  private:
    [[nodiscard]] Answer write(const Placed& placed) const;
    [[nodiscard]] Placed placed(const Answer& answer) const;

    const Armoury& armoury_;
    const Wardrobe& wardrobe_;
    std::unordered_map<std::string_view, ItemId> ids_;
};

/// One question about the context and the limits that a search has entered, and where its answer is
/// kept: the key takes in every definition that could move it.
class KnownAnswer {
  public:
    /// `what`: what is asked, and whatever it hangs on beside the context and the limits.
    KnownAnswer(const Recall& recall, const Armoury& armoury, const std::vector<ItemId>& groups,
                Search& search, std::string_view what);

    /// Calls read(answer, best) with what is known, where that holds: its best, which stands at
    /// "best", is fought once more. False where nothing is known; then the answer is for keep().
    template <class Read>
    [[nodiscard]] bool known(const Read& read) {
        const std::optional<Answer> answer = find();
        if (!answer) return false;
        try {
            const Found best = names_.read(answer->at("best"));
            if (search_.bears_out(best)) {
                read(*answer, best);
                return true;
            }
        } catch (const std::exception&) { // not as it was written: rejected like what is not true
        }
        memory_->reject(key_);
        return false;
    }
    void keep(const Answer& answer);
    [[nodiscard]] const AnswerNames& names() const { return names_; }

  private:
    [[nodiscard]] std::optional<Answer> find();

    Memory* memory_;
    Search& search_;
    AnswerNames names_;
    std::uint64_t key_ = 0;
};

} // namespace panoplon
