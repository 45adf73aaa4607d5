// Candidates in few bytes: a search remembers hundreds of thousands.
#pragma once

#include "judge/search/wardrobe.h"

#include <cstdint>
#include <string>

namespace panoplon {

/// A candidate as the bytes of its numbers, most of which need one.
class PackedCandidate {
  public:
    explicit PackedCandidate(const Candidate& candidate);

    [[nodiscard]] Candidate unpacked() const;
    [[nodiscard]] std::size_t hash() const { return hash_; } ///< CandidateHash of the candidate
    bool operator==(const PackedCandidate& other) const { return bytes_ == other.bytes_; }

  private:
    std::string bytes_;
    std::size_t hash_;
};

struct PackedCandidateHash {
    [[nodiscard]] std::size_t operator()(const PackedCandidate& candidate) const noexcept {
        return candidate.hash();
    }
};

} // namespace panoplon
