#include "cli/command.h"

#include <csignal>
#include <cstdio>
#include <exception>

int main(int count, char** arguments) {
    // A file that may not grow is a failure to write, told as such.
    std::signal(SIGXFSZ, SIG_IGN);
    try {
        return panoplon::run_program({arguments + 1, arguments + count});
    } catch (const std::exception& error) {
        std::fprintf(stderr, "panoplon: a fault of its own: %s\n", error.what());
        return panoplon::Exit::refused;
    }
}
