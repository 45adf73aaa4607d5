// Answers that searches found before, by what they hang on. A search is a function of that alone,
// so what is known needs no search, and says the same to the last bit.
#pragma once

#include <cstdint>
#include <mutex>
#include <optional>
#include <string>
#include <unordered_map>

namespace panoplon {

/// May be asked and told by several threads at once. What an answer's bytes say is for those who
/// ask.
class Memory {
  public:
    Memory() = default;
    Memory(const Memory&) = delete;
    Memory& operator=(const Memory&) = delete;
    virtual ~Memory() = default;

    [[nodiscard]] virtual std::optional<std::string> find(std::uint64_t key) = 0;
    virtual void keep(std::uint64_t key, const std::string& answer) = 0;
    /// Forgets an answer that was found and can't be true.
    virtual void reject(std::uint64_t key) = 0;
};

/// Lasts as long as the run.
class MemoryOfRun : public Memory {
  public:
    [[nodiscard]] std::optional<std::string> find(std::uint64_t key) override;
    void keep(std::uint64_t key, const std::string& answer) override;
    void reject(std::uint64_t key) override;

    [[nodiscard]] std::size_t size() const { return known_.size(); }
    /// How often it was asked for what it knew.
    [[nodiscard]] std::size_t answered() const { return answered_; }

  private:
    std::mutex mutex_;
    std::unordered_map<std::uint64_t, std::string> known_;
    std::size_t answered_ = 0;
};

} // namespace panoplon
