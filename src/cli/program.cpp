#include "base/parallel.h"
#include "base/ranks.h"
#include "cli/session.h"
#include "cli/started_ranks.h"
#include "cli/terminal.h"
#include "show/text_table.h"

#include <algorithm>
#include <array>
#include <filesystem>

namespace panoplon {

namespace {

int unknown_command(const std::string& name) {
    std::vector<std::string> names;
    for (const CommandRow& row : command_rows()) names.emplace_back(row.name);
    const auto near = nearest_name(name, names);
    return report_failure({Cause::usage,
                           fmt::format("unknown command '{}'{}", name,
                                       near ? fmt::format("; did you mean '{}'?", *near) : ""),
                           "commands: " + join(names, ", ")});
}

/// Options that name a file or a folder to be written.
constexpr std::array<std::string_view, 4> writing_options = {"o", "detail", "timeline", "sqlite"};

/// What would write into an armoury that the command reads.
std::optional<Failure> writes_into_armoury(const Invocation& invocation) {
    for (const std::string& operand : invocation.operands()) {
        std::error_code error;
        if (!std::filesystem::exists(std::filesystem::path(operand) / "armoury.toml", error))
            continue;
        for (const std::string_view option : writing_options)
            if (invocation.has(option))
                if (auto refused = refuse_into_armoury(invocation.value(option), operand))
                    return refused;
    }
    return std::nullopt;
}

/// The same, with nothing to write.
Invocation without_files(const Invocation& invocation) {
    auto options = invocation.given();
    std::erase_if(options, [](const auto& option) {
        return std::find(writing_options.begin(), writing_options.end(), option.first) !=
               writing_options.end();
    });
    return Invocation(invocation.command(), invocation.operands(), options);
}

/// Where a rank says what the first one says, too.
class UnheardOutlet : public Outlet {
  public:
    [[nodiscard]] bool say(std::string_view) override { return true; }
    void complain(std::string_view) override {}
    [[nodiscard]] bool watched() const override { return true; }
};

int run_command(const CommandRow& command, const std::vector<std::string>& arguments) {
    const Result<Invocation> invocation = parse_arguments(command, arguments);
    if (!invocation.ok()) return report_failure(invocation.failure());
    if (invocation.value().has("help"))
        return outlet().say(help_text(command)) ? Exit::done : Exit::file_trouble;
    if (const auto refused = writes_into_armoury(invocation.value()))
        return report_failure(*refused);
    constexpr std::uint64_t most_threads = 1024;
    const Result<std::uint64_t> threads =
        whole_option(invocation.value(), "threads", 1, most_threads, 0);
    if (!threads.ok()) return report_failure(threads.failure());
    const Result<bool> colour = wants_colour(invocation.value());
    if (!colour.ok()) return report_failure(colour.failure());
    set_text_width(outlet().on_terminal() ? terminal_width() : 0);
    const ThreadLimit limit(threads.value());
    if (!only_helps()) return command.run(invocation.value());
    return command.shared ? command.run(without_files(invocation.value())) : Exit::done;
}

} // namespace

int run_program(const std::vector<std::string>& arguments) {
    if (arguments.empty()) {
        outlet().complain(help_text());
        return Exit::usage;
    }
    const std::string& name = arguments.front();
    if (name == "--help" || name == "-h" || name == "help")
        return outlet().say(help_text()) ? Exit::done : Exit::file_trouble;
    if (name == "--version")
        return outlet().say("panoplon " PANOPLON_VERSION "\n") ? Exit::done : Exit::file_trouble;
    const auto rows = command_rows();
    const auto at = std::find_if(rows.begin(), rows.end(),
                                 [&](const CommandRow& row) { return row.name == name; });
    if (at == rows.end()) return unknown_command(name);
    return run_command(*at, {arguments.begin() + 1, arguments.end()});
}

int run_started(const std::vector<std::string>& arguments) {
    const Result<Post*> started = started_post();
    if (!started.ok()) return report_failure(started.failure());
    if (!started.value()) return run_program(arguments);
    Post& post = *started.value();
    Ranks all(post);
    const RanksScope scope(all);
    try {
        int exit = Exit::done;
        if (all.is_first()) {
            exit = run_program(arguments);
        } else {
            UnheardOutlet unheard;
            const OutletScope to(unheard);
            (void)run_program(arguments); // the first one's exit code is the run's
        }
        all.leave();
        return exit;
    } catch (const RunEnded&) {
        all.leave();
        return Exit::done;
    } catch (const RankLost& lost) {
        outlet().complain(fmt::format("panoplon: rank {} has ended in the midst of its work; what "
                                      "was found by then is known to the next run\n",
                                      lost.rank));
        post.end_all(Exit::file_trouble);
        return Exit::file_trouble;
    } catch (const std::exception& error) {
        outlet().complain(fmt::format("panoplon: a fault of its own: {}\n", error.what()));
        post.end_all(Exit::refused);
        return Exit::refused;
    }
}

} // namespace panoplon
