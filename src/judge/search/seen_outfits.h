// Outfits that the search of a context came by, as bytes and by names: so they can be kept, and
// looked at again in an armoury whose numbers are others.
#pragma once

#include "judge/search/recall.h"

#include <string>
#include <vector>

namespace panoplon {

class SeenOutfits {
  public:
    SeenOutfits() = default; ///< none
    SeenOutfits(const std::vector<Found>& outfits, const AnswerNames& names);
    explicit SeenOutfits(std::string bytes) : bytes_(std::move(bytes)) {}

    /// CBOR (RFC 8949).
    [[nodiscard]] const std::string& bytes() const { return bytes_; }
    [[nodiscard]] bool empty() const { return bytes_.empty(); }
    /// With the margins that they had. What the armoury at hand lacks is left out of an outfit,
    /// which is marked by `any` then; what has other sockets takes the outfit with it.
    [[nodiscard]] std::vector<Found> read(const AnswerNames& names) const;

  private:
    std::string bytes_;
};

} // namespace panoplon
