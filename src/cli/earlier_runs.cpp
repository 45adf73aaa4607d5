#include "cli/earlier_runs.h"

#include "base/ranks.h"
#include "show/written_files.h"

#include <cstdlib>
#include <ctime>
#include <filesystem>
#include <fmt/chrono.h>

namespace panoplon {

namespace {

/// Tells this program from one that was built from other sources, which may search otherwise.
std::uint64_t this_build() {
    static const std::uint64_t hash =
        hash_text(file_text("/proc/self/exe"), hash_text(PANOPLON_VERSION));
    return hash;
}

/// $XDG_CACHE_HOME, or ~/.cache; empty where neither is known. (XDG Base Directory Specification)
std::filesystem::path cache_folder() {
    const auto folder = [](const char* variable) {
        const char* value = std::getenv(variable);
        return std::filesystem::path(value ? value : "");
    };
    if (const auto cache = folder("XDG_CACHE_HOME"); cache.is_absolute()) return cache;
    const auto home = folder("HOME");
    return home.is_absolute() ? home / ".cache" : std::filesystem::path();
}

} // namespace

EarlierRuns::EarlierRuns(const Invocation& invocation) : invocation_(invocation) {
    const std::filesystem::path cache = cache_folder();
    if (cache.empty() || invocation.has("anew") || only_helps()) return;
    file_ =
        std::make_unique<MemoryFile>((cache / "panoplon" / "known.sqlite").string(), this_build(),
                                     fmt::format("{:%Y-%m-%d}", fmt::gmtime(std::time(nullptr))));
}

Memory& EarlierRuns::memory() {
    if (file_) return *file_;
    return of_run_;
}

void EarlierRuns::tell() const {
    if (!file_) return;
    for (const std::string& note : file_->notes())
        outlet().complain(fmt::format("note: {}\n", note));
    if (file_->answered() > 0 && !invocation_.has("q"))
        outlet().complain(fmt::format(
            "note: {} of {} {} known from before; --anew searches again\n", file_->answered(),
            counted(file_->asked(), "search", "searches"), file_->asked() == 1 ? "was" : "were"));
}

} // namespace panoplon
