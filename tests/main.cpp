#define CATCH_CONFIG_RUNNER
#include <catch2/catch.hpp>
#include <cstdlib>

int main(int count, char** arguments) {
    // What commands run in this process find out is kept nowhere: there is no cache folder.
    setenv("XDG_CACHE_HOME", "", 1);
    setenv("HOME", "", 1);
    return Catch::Session().run(count, arguments);
}

#ifdef __SANITIZE_ADDRESS__
/// What a library never frees: libxlsxwriter 1.1.5 loses the formula of each list that is offered
/// in a column, as a program of eight lines that does nothing else shows.
extern "C" __attribute__((visibility("default"))) const char* __lsan_default_suppressions() {
    return "leak:lxw_strdup\n";
}
#endif
