// Runs the built program as its users do.
#pragma once

#include "support/armouries.h"

#include <filesystem>
#include <string>
#include <vector>

namespace panoplon::test {

struct Run {
    int exit = -1;
    std::string out, err;
};

/// How many times longer everything may take: under a sanitizer.
#if defined(__SANITIZE_ADDRESS__) || defined(__SANITIZE_THREAD__)
inline constexpr int patience = 10;
#else
inline constexpr int patience = 1;
#endif
/// So many seconds, and longer under a sanitizer: a word for `sleep` and `timeout`.
[[nodiscard]] inline std::string seconds(int usual) {
    return std::to_string(usual * patience);
}

/// Runs the program in a folder, through a shell; `before` stands in front of it.
[[nodiscard]] Run run_program(const TempFolder& folder, const std::string& arguments,
                              const std::string& before = {});

/// Starts the program, kills it (SIGKILL) after some seconds, and waits until it is gone: exit 137,
/// or its own where it was quicker.
[[nodiscard]] Run run_and_kill(const TempFolder& folder, const std::string& arguments,
                               const std::string& seconds);

/// Runs any other command in a folder, through a shell.
[[nodiscard]] Run run_command(const TempFolder& folder, const std::string& command);

/// What a run that was broken off left in a folder: files whose names begin with a full stop or
/// hold
/// ".part-".
[[nodiscard]] std::vector<std::string> leftovers(const std::string& folder);

/// A folder with the duel in it, as `a/`.
struct DuelFolder : TempFolder {
    DuelFolder();
};

/// A folder with the demo armoury in it, as `a/`.
struct DemoFolder : TempFolder {
    DemoFolder();
};

} // namespace panoplon::test
