#include "cli/command.h"

#include "base/text.h"

#include <algorithm>
#include <cxxopts.hpp>
#include <fmt/format.h>

namespace panoplon {

std::string dashed(std::string_view name) {
    return (name.size() == 1 ? "-" : "--") + std::string(name);
}

namespace {

struct OperandCount {
    std::size_t least = 0;
    std::size_t most = 0;
};

OperandCount count_operands(const CommandRow& command) {
    OperandCount count;
    for (const std::string& word : operands_of(command)) {
        if (!word.starts_with('[')) ++count.least;
        ++count.most;
        if (word.ends_with("…")) count.most = 10000;
    }
    return count;
}

Failure usage_failure(const CommandRow& command, std::string message) {
    return {Cause::usage, std::move(message),
            fmt::format("{} [options]; see panoplon {} --help", typed(command), command.name)};
}

/// Options that no row has, with what may have been meant.
std::optional<Failure> unknown_option(const CommandRow& command,
                                      const std::vector<std::string>& arguments) {
    std::vector<std::string> known;
    for (const OptionRow& row : options_of(command)) known.push_back(dashed(row.name));
    for (const std::string& argument : arguments) {
        if (argument == "--") break;
        if (argument.size() < 2 || argument[0] != '-' || (argument[1] >= '0' && argument[1] <= '9'))
            continue;
        const bool long_one = argument.starts_with("--");
        const std::string name =
            long_one ? argument.substr(0, argument.find('=')) : argument.substr(0, 2);
        if (std::find(known.begin(), known.end(), name) != known.end()) continue;
        const auto near = nearest_name(name, known);
        return usage_failure(command,
                             fmt::format("unknown option '{}'{}", name,
                                         near ? fmt::format("; did you mean '{}'?", *near) : ""));
    }
    return std::nullopt;
}

} // namespace

bool Invocation::has(std::string_view option) const {
    return std::any_of(options_.begin(), options_.end(),
                       [&](const auto& entry) { return entry.first == option; });
}

std::string Invocation::value(std::string_view option) const {
    const std::vector<std::string> all = values(option);
    return all.empty() ? std::string() : all.back();
}

std::vector<std::string> Invocation::values(std::string_view option) const {
    std::vector<std::string> all;
    for (const auto& [name, value] : options_)
        if (name == option) all.push_back(value);
    return all;
}

Result<Invocation> parse_arguments(const CommandRow& command,
                                   const std::vector<std::string>& arguments) {
    if (const auto failure = unknown_option(command, arguments)) return *failure;
    cxxopts::Options parser("panoplon");
    for (const OptionRow& row : options_of(command)) {
        if (row.value.empty())
            parser.add_options()(std::string(row.name), "", cxxopts::value<bool>());
        else
            parser.add_options()(std::string(row.name), "", cxxopts::value<std::string>());
    }
    parser.add_options()("operands", "", cxxopts::value<std::vector<std::string>>());
    parser.parse_positional({"operands"});
    std::vector<const char*> raw = {"panoplon"};
    for (const std::string& argument : arguments) raw.push_back(argument.c_str());
    std::vector<std::string> operands;
    std::vector<std::pair<std::string, std::string>> options;
    try {
        const cxxopts::ParseResult parsed = parser.parse(static_cast<int>(raw.size()), raw.data());
        for (const cxxopts::KeyValue& given : parsed.arguments()) {
            if (given.key() == "operands")
                operands.push_back(given.value());
            else
                options.emplace_back(given.key(), given.value());
        }
    } catch (const cxxopts::exceptions::exception& error) {
        return usage_failure(command, error.what());
    }
    Invocation invocation(command, operands, options);
    if (invocation.has("help")) return invocation;
    for (const auto& [option, value] : options)
        if (value.empty())
            return usage_failure(command, fmt::format("{} is empty", dashed(option)));
    if (std::find(operands.begin(), operands.end(), "") != operands.end())
        return usage_failure(command,
                             fmt::format("'{}' has no use for an empty name", command.name));
    const OperandCount count = count_operands(command);
    if (operands.size() < count.least)
        return usage_failure(command, fmt::format("'{}' needs {}", command.name, command.operands));
    if (operands.size() > count.most)
        return usage_failure(
            command, fmt::format("'{}' has no use for '{}'", command.name, operands[count.most]));
    return invocation;
}

std::vector<std::string> operands_of(const CommandRow& command) {
    std::vector<std::string> words;
    for (const std::string& word : split(command.operands, ' '))
        if (!word.empty()) words.push_back(word);
    return words;
}

std::string typed(const CommandRow& command) {
    std::string text = fmt::format("panoplon {}", command.name);
    for (const std::string& operand : operands_of(command)) text += " " + operand;
    return text;
}

std::string help_text() {
    std::string text = "panoplon judges combat gear: it wears it, fights with it and tells what is "
                       "dominant or useless.\n\n"
                       "usage: panoplon COMMAND ARMOURY [THING …] [options]\n\ncommands:\n";
    for (const CommandRow& row : command_rows())
        text += fmt::format("  {:<9}{}\n", row.name, row.summary);
    text += "\nARMOURY is a folder with armoury.toml. Begin with: panoplon demo\nEach command has "
            "--help with an example.\n"
            "Exit: 0 done; 1 mistakes, or refused; 2 wrong usage; 3 a file can't be read or "
            "written; 4 a check failed; 130 stopped.\n";
    return text;
}

std::string help_text(const CommandRow& command) {
    std::string text = fmt::format("{} [options]\n\n{}.\n{}\n\noptions:\n", typed(command),
                                   command.summary, command.details);
    for (const OptionRow& row : options_of(command)) {
        const std::string left =
            dashed(row.name) + (row.value.empty() ? "" : " " + std::string(row.value));
        constexpr std::size_t column = 18;
        text +=
            fmt::format("  {:<{}}{}{}\n", left, column, left.size() < column ? "" : "  ", row.help);
    }
    return text + fmt::format("\nexample:\n  {}\n", command.example);
}

} // namespace panoplon
