#include "cli/command.h"

#include <cstdio>
#include <exception>

int main(int count, char** arguments) {
    try {
        return panoplon::run_program({arguments + 1, arguments + count});
    } catch (const std::exception& error) {
        std::fprintf(stderr, "panoplon: a fault of its own: %s\n", error.what());
        return panoplon::Exit::refused;
    }
}
