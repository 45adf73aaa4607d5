#include "judge/search/packed_candidate.h"

namespace panoplon {

namespace {

constexpr unsigned bits_a_byte = 7; // the eighth says that more follow
constexpr std::uint64_t more = 1U << bits_a_byte;

void append(std::string& bytes, std::uint64_t number) {
    for (; number >= more; number >>= bits_a_byte)
        bytes.push_back(static_cast<char>(number % more + more));
    bytes.push_back(static_cast<char>(number));
}

void append(std::string& bytes, const Placed& placed) {
    append(bytes, static_cast<std::uint64_t>(placed.item.value + 1));
    if (!placed.item.given()) return;
    append(bytes, placed.sockets.size());
    for (const Placed& inner : placed.sockets) append(bytes, inner);
}

/// Takes numbers off the front.
class Unpacking {
  public:
    explicit Unpacking(const std::string& bytes) : bytes_(bytes) {}

    std::uint64_t number() {
        std::uint64_t number = 0;
        for (unsigned shift = 0;; shift += bits_a_byte) {
            const auto byte = static_cast<unsigned char>(bytes_[next_++]);
            number |= byte % more << shift;
            if (byte < more) return number;
        }
    }

    Placed placed() {
        Placed placed;
        const std::uint64_t item = number();
        if (item == 0) return placed;
        placed.item = ItemId(item - 1);
        placed.sockets.resize(number());
        for (Placed& inner : placed.sockets) inner = this->placed();
        return placed;
    }

  private:
    const std::string& bytes_;
    std::size_t next_ = 0;
};

} // namespace

PackedCandidate::PackedCandidate(const Candidate& candidate) : hash_(CandidateHash()(candidate)) {
    append(bytes_, candidate.places.size());
    for (const Placed& placed : candidate.places) append(bytes_, placed);
    append(bytes_, candidate.counts.size());
    for (std::size_t next = 0; next < candidate.counts.size();) { // most are 0
        const std::size_t first = next;
        while (next < candidate.counts.size() && candidate.counts[next] == 0) ++next;
        append(bytes_, next - first);
        if (next < candidate.counts.size())
            append(bytes_, static_cast<std::uint64_t>(candidate.counts[next++]));
    }
    append(bytes_, candidate.points.size());
    for (const int levels : candidate.points) append(bytes_, static_cast<std::uint64_t>(levels));
    bytes_.shrink_to_fit();
}

Candidate PackedCandidate::unpacked() const {
    Unpacking from(bytes_);
    Candidate candidate;
    candidate.places.resize(from.number());
    for (Placed& placed : candidate.places) placed = from.placed();
    candidate.counts.resize(from.number());
    for (std::size_t next = 0; next < candidate.counts.size();) {
        next += from.number();
        if (next < candidate.counts.size())
            candidate.counts[next++] = static_cast<std::int64_t>(from.number());
    }
    candidate.points.resize(from.number());
    for (int& levels : candidate.points) levels = static_cast<int>(from.number());
    return candidate;
}

} // namespace panoplon
