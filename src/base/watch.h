// How a long piece of work tells how far it is, and is told to stop.
#pragma once

#include <atomic>
#include <cstddef>
#include <functional>

namespace panoplon {

/// Both may be left out.
struct Watch {
    std::function<void(std::size_t done, std::size_t of)> progress; ///< called from any thread
    const std::atomic<bool>* stop = nullptr;

    [[nodiscard]] bool stopped() const { return stop && stop->load(std::memory_order_relaxed); }
};

} // namespace panoplon
