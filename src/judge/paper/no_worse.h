// Which rows of a table are no worse than which, in every column at once.
#pragma once

#include "model/armoury.h"

#include <cstdint>
#include <vector>

namespace panoplon {

/// A column of a table and which way is better; where none is, only equal values are no worse.
struct Column {
    std::vector<double> values; ///< by row
    Better better = Better::higher;
};

/// Takes rows × rows bits of memory, and time in proportion to that and to the columns in which
/// rows differ.
class NoWorse {
  public:
    NoWorse(std::size_t rows, const std::vector<Column>& columns);

    /// Calls visit(a) for every row but `b` that is no worse than `b` in any column; by rising a.
    /// May be called from several threads.
    template <class Visit>
    void for_each(std::size_t b, const Visit& visit) const {
        for (std::size_t w = 0; w < words_; ++w)
            for (std::uint64_t bits = at(b)[w]; bits != 0; bits &= bits - 1) {
                const auto a = w * 64 + static_cast<std::size_t>(__builtin_ctzll(bits));
                if (a != b) visit(a);
            }
    }

  private:
    static constexpr std::size_t stripe = 16; ///< words

    void keep(const std::vector<std::uint32_t>& order, const std::vector<std::uint32_t>& ends,
              bool alone, std::size_t first_word);
    [[nodiscard]] std::uint64_t* at(std::size_t row) { return &bits_[row * words_]; }
    [[nodiscard]] const std::uint64_t* at(std::size_t row) const { return &bits_[row * words_]; }

    std::size_t rows_;
    std::size_t words_;               ///< of a row's bits
    std::vector<std::uint64_t> bits_; ///< by row: those that are no worse than it
};

} // namespace panoplon
