// The table of commands: what there is to run, with its operands and options. Help, the reference
// in docs/ and the parsing of arguments come from it. A new command is a row in commands.cpp.
#pragma once

#include "base/result.h"

#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace panoplon {

/// The exit codes of the program.
enum Exit : int {
    done = 0,
    refused = 1,
    usage = 2,
    file_trouble = 3,
    failed_check = 4,
    interrupted = 130
};

struct OptionRow {
    std::string_view name;  ///< without dashes; one letter is a short option
    std::string_view value; ///< word for its value; empty: a switch
    std::string_view help;
};

class Invocation;

struct CommandRow {
    std::string_view name;
    std::string_view
        operands; ///< "ARMOURY LOADOUT"; "[DIR]" may be left out; "ITEM…" is one or more
    std::string_view summary;
    std::string_view details;
    std::string_view example;
    std::vector<OptionRow> options; ///< its own; common_options() are for all
    int (*run)(const Invocation&);
    bool shared = false; ///< its work is done by all ranks, where there are several
};

[[nodiscard]] std::span<const CommandRow> command_rows();
[[nodiscard]] std::span<const OptionRow> common_options();
/// Every option that a command takes: its own, those of every command that reads an armoury, and
/// the common ones.
[[nodiscard]] std::vector<OptionRow> options_of(const CommandRow& command);
/// Its operands, one by one.
[[nodiscard]] std::vector<std::string> operands_of(const CommandRow& command);
/// "panoplon card ARMOURY ITEM…": a command as it is typed, without its options.
[[nodiscard]] std::string typed(const CommandRow& command);
/// "--level", "-o": an option as it is typed.
[[nodiscard]] std::string dashed(std::string_view name);
[[nodiscard]] std::string help_text();
[[nodiscard]] std::string help_text(const CommandRow& command);

/// Arguments of one command, taken apart and checked against its row.
class Invocation {
  public:
    Invocation(const CommandRow& command, std::vector<std::string> operands,
               std::vector<std::pair<std::string, std::string>> options)
        : command_(command),
          operands_(std::move(operands)),
          options_(std::move(options)) {}

    [[nodiscard]] const CommandRow& command() const { return command_; }
    [[nodiscard]] const std::vector<std::string>& operands() const { return operands_; }
    [[nodiscard]] bool has(std::string_view option) const;
    [[nodiscard]] std::string
    value(std::string_view option) const; ///< the last one given; empty without
    [[nodiscard]] std::vector<std::string> values(std::string_view option) const;
    /// Every option with its value, in the order of the command line.
    [[nodiscard]] const std::vector<std::pair<std::string, std::string>>& given() const {
        return options_;
    }

  private:
    const CommandRow& command_;
    std::vector<std::string> operands_;
    std::vector<std::pair<std::string, std::string>> options_;
};

[[nodiscard]] Result<Invocation> parse_arguments(const CommandRow& command,
                                                 const std::vector<std::string>& arguments);

/// Runs the program with the arguments that follow its name; returns the exit code.
[[nodiscard]] int run_program(const std::vector<std::string>& arguments);
/// The same in a process that a launcher may have started as one of several: they do its work
/// together, and the first alone says and writes what comes of it.
[[nodiscard]] int run_started(const std::vector<std::string>& arguments);

/// Says to standard error what failed; returns the exit code of its cause.
int report_failure(const Failure& failure);

int run_check(const Invocation& invocation);
int run_card(const Invocation& invocation);
int run_equip(const Invocation& invocation);
int run_fight(const Invocation& invocation);
int run_curve(const Invocation& invocation);
int run_journey(const Invocation& invocation);
int run_best(const Invocation& invocation);
int run_weigh(const Invocation& invocation);
int run_audit(const Invocation& invocation);
int run_tune(const Invocation& invocation);
int run_compare(const Invocation& invocation);
int run_demo(const Invocation& invocation);
int run_list(const Invocation& invocation);
int run_explain(const Invocation& invocation);
int run_new(const Invocation& invocation);
int run_export(const Invocation& invocation);
int run_report(const Invocation& invocation);
int run_watch(const Invocation& invocation);
int run_editor(const Invocation& invocation);
int run_history(const Invocation& invocation);

} // namespace panoplon
