// Long work in stages, each under a watch of its own: whoever asks for the work says how it is
// watched.
#pragma once

#include "base/watch.h"

#include <functional>
#include <optional>
#include <type_traits>
#include <utility>

namespace panoplon {

class Stages {
  public:
    virtual ~Stages() = default;
    /// Calls the stage once. `what`: the things that it goes through, for who waits.
    virtual void run(const char* what, const std::function<void(const Watch&)>& stage) = 0;
};

/// Nobody waits for them.
class Unwatched : public Stages {
  public:
    void run(const char*, const std::function<void(const Watch&)>& stage) override { stage({}); }
};

/// Runs a stage and returns what it found.
template <class Work>
auto in_stage(Stages& stages, const char* what, const Work& work) {
    using Outcome = std::invoke_result_t<Work, const Watch&>;
    if constexpr (std::is_void_v<Outcome>) {
        stages.run(what, work);
    } else {
        std::optional<Outcome> found;
        stages.run(what, [&](const Watch& watch) { found.emplace(work(watch)); });
        return std::move(*found);
    }
}

} // namespace panoplon
