// Where what a command says goes: the terminal, or whoever runs it within a program.
#pragma once

#include <string>
#include <string_view>

namespace panoplon {

class Outlet {
  public:
    Outlet() = default;
    Outlet(const Outlet&) = delete;
    Outlet& operator=(const Outlet&) = delete;
    virtual ~Outlet() = default;

    /// What the command is for: its text or its JSON. False when it can't be written.
    [[nodiscard]] virtual bool say(std::string_view text) = 0;
    /// What went wrong or is said on the way.
    virtual void complain(std::string_view text) = 0;
    /// Whether it shows on the terminal: then text is fitted to that, and coloured.
    [[nodiscard]] virtual bool on_terminal() const { return false; }
    /// Whether somebody watches: then progress is told, and Ctrl-C is for the command.
    [[nodiscard]] virtual bool watched() const { return on_terminal(); }
};

/// That of the command that this thread runs; the terminal where nobody set another.
[[nodiscard]] Outlet& outlet();

/// Makes an outlet that of this thread, as long as it lives.
class OutletScope {
  public:
    explicit OutletScope(Outlet& outlet);
    OutletScope(const OutletScope&) = delete;
    OutletScope& operator=(const OutletScope&) = delete;
    ~OutletScope();

  private:
    Outlet* before_;
};

/// Keeps what is said.
class KeptOutlet : public Outlet {
  public:
    [[nodiscard]] bool say(std::string_view text) override {
        text_ += text;
        return true;
    }
    void complain(std::string_view text) override { complaints_ += text; }

    [[nodiscard]] const std::string& text() const { return text_; }
    [[nodiscard]] const std::string& complaints() const { return complaints_; }

  private:
    std::string text_, complaints_;
};

} // namespace panoplon
