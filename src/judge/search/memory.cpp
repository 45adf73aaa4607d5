#include "judge/search/memory.h"

namespace panoplon {

std::optional<std::string> MemoryOfRun::find(std::uint64_t key) {
    const std::lock_guard lock(mutex_);
    const auto at = known_.find(key);
    if (at == known_.end()) return std::nullopt;
    ++answered_;
    return at->second;
}

void MemoryOfRun::keep(std::uint64_t key, const std::string& answer) {
    const std::lock_guard lock(mutex_);
    known_.insert_or_assign(key, answer);
}

void MemoryOfRun::reject(std::uint64_t key) {
    const std::lock_guard lock(mutex_);
    known_.erase(key);
    --answered_;
}

} // namespace panoplon
