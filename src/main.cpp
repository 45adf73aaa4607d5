#include "cli/command.h"

#include <csignal>
#include <cstdio>
#include <exception>
#include <new>
#include <string_view>
#include <unistd.h>

namespace {

/// Without memory nothing can be unwound for certain: libraries allocate on the way. Files have
/// their names only when they are whole.
void end_without_memory() {
    constexpr std::string_view words = "panoplon: there is not enough memory for this\n";
    const ssize_t written = write(STDERR_FILENO, words.data(), words.size());
    _exit(written < 0 ? panoplon::Exit::refused : panoplon::Exit::file_trouble);
}

} // namespace

int main(int count, char** arguments) {
    // A file that may not grow is a failure to write, told as such.
    std::signal(SIGXFSZ, SIG_IGN);
    std::set_new_handler(end_without_memory);
    try {
        return panoplon::run_started({arguments + 1, arguments + count});
    } catch (const std::exception& error) {
        std::fprintf(stderr, "panoplon: a fault of its own: %s\n", error.what());
        return panoplon::Exit::refused;
    }
}
