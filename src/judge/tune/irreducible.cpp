#include "judge/tune/irreducible.h"

#include <numeric>

namespace panoplon {

std::vector<std::size_t> irreducible(std::size_t count, const Enough& enough) {
    std::vector<std::size_t> kept(count);
    std::iota(kept.begin(), kept.end(), std::size_t{0});
    for (std::size_t one = 0; one < count; ++one) {
        std::vector<std::size_t> fewer = kept;
        std::erase(fewer, one);
        if (enough(fewer, one)) kept = std::move(fewer);
    }
    return kept;
}

} // namespace panoplon
