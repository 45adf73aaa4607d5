#include "cli/outlet.h"

#include "base/text.h"

#include <cstdio>

namespace panoplon {

namespace {

class TerminalOutlet : public Outlet {
  public:
    [[nodiscard]] bool say(std::string_view text) override {
        return std::fwrite(text.data(), 1, text.size(), stdout) == text.size() &&
               std::fflush(stdout) == 0;
    }
    void complain(std::string_view text) override {
        const std::string shown = printable_lines(text);
        std::fwrite(shown.data(), 1, shown.size(), stderr);
    }
    [[nodiscard]] bool on_terminal() const override { return true; }
};

TerminalOutlet terminal;
thread_local Outlet* current = &terminal;

} // namespace

Outlet& outlet() {
    return *current;
}

OutletScope::OutletScope(Outlet& outlet) : before_(current) {
    current = &outlet;
}

OutletScope::~OutletScope() {
    current = before_;
}

} // namespace panoplon
