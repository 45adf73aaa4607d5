// What searches found, kept from run to run in SQLite. It only saves time: what is damaged, of
// another build of the program or not asked for any more is dropped, and what fails is left.
#pragma once

#include "judge/search/memory.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <memory>
#include <unordered_map>
#include <unordered_set>
#include <vector>

namespace panoplon {

class MemoryFile : public Memory {
  public:
    /// Makes the file, and its folder, where they are not there. `build` tells this program from
    /// one that may search otherwise; `today` is a day in ISO 8601: what nobody asked for in the
    /// last month is dropped, and the longest unasked where the file grows over its bound.
    MemoryFile(std::string path, std::uint64_t build, const std::string& today,
               std::int64_t most_bytes = 1 << 28);

    /// Each answer is written as it is found, with a checksum.
    [[nodiscard]] std::optional<std::string> find(std::uint64_t key) override;
    void keep(std::uint64_t key, const std::string& answer) override;
    void reject(std::uint64_t key) override;

    /// Different questions that were asked, and how many of them an earlier run had answered.
    [[nodiscard]] std::size_t asked() const { return asked_.size(); }
    [[nodiscard]] std::size_t answered() const { return answered_; }
    /// What was dropped, and why nothing is kept, in sentences.
    [[nodiscard]] std::vector<std::string> notes() const;

  private:
    void open();
    void begin_anew();
    void drop_old();
    template <class Work>
    void use(const Work& work);
    [[nodiscard]] std::uint64_t checksum(std::uint64_t key, const std::string& answer) const;
    void drop(std::uint64_t key);

    std::mutex mutex_;
    std::string path_;
    std::uint64_t build_;
    std::string today_;
    std::int64_t most_bytes_;
    std::unique_ptr<SQLite::Database> database_;
    bool opened_ = false;
    std::unordered_map<std::uint64_t, bool> asked_; ///< by key: whether it was known before
    std::size_t answered_ = 0;                      ///< of these, so many
    std::unordered_set<std::uint64_t> kept_;        ///< by this run
    int begun_anew_ = 0;
    std::size_t damaged_ = 0;   ///< answers that were dropped
    std::size_t of_others_ = 0; ///< likewise: of another build
    std::string trouble_;       ///< why nothing is kept; empty: it is
};

} // namespace panoplon
