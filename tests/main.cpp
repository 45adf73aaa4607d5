#define CATCH_CONFIG_RUNNER
#include <catch2/catch.hpp>
#include <cstdlib>

int main(int count, char** arguments) {
    // What commands run in this process find out is kept nowhere: there is no cache folder.
    setenv("XDG_CACHE_HOME", "", 1);
    setenv("HOME", "", 1);
    return Catch::Session().run(count, arguments);
}
