#include "panoplon/run.h"

#include "cli/command.h"
#include "cli/outlet.h"

#include <cstdlib>
#include <cstring>
#include <nlohmann/json.hpp>
#include <stdexcept>

namespace panoplon {

namespace {

using Json = nlohmann::ordered_json;

std::string word_of(const Json& value) {
    return value.is_string() ? value.get<std::string>() : value.dump();
}

/// The command line that options in JSON stand for.
std::vector<std::string> arguments_of(const std::string& armoury, const std::string& command,
                                      const Json& options) {
    if (!options.is_object()) throw std::invalid_argument("the options are no JSON object");
    std::vector<std::string> arguments = {command, armoury};
    for (const Json& operand : options.value("operands", Json::array()))
        arguments.push_back(word_of(operand));
    for (const auto& [name, value] : options.items()) {
        if (name == "operands" || name == "json") continue;
        const auto add = [&, option = dashed(name)](const Json& one) {
            if (one.is_boolean() && !one.get<bool>()) return;
            arguments.push_back(option);
            if (!one.is_boolean()) arguments.push_back(word_of(one));
        };
        if (value.is_array())
            for (const Json& one : value) add(one);
        else
            add(value);
    }
    arguments.emplace_back("--json");
    return arguments;
}

std::string run_to_json(const char* armoury, const char* command, const char* options) {
    KeptOutlet kept;
    const OutletScope scope(kept);
    Json reply = Json::object();
    int exit = Exit::usage;
    try {
        if (!armoury || !command) throw std::invalid_argument("no armoury, or no command");
        exit = run_program(
            arguments_of(armoury, command, options ? Json::parse(options) : Json::object()));
        if (!kept.text().empty()) reply = Json::parse(kept.text());
    } catch (const std::exception& error) {
        kept.complain(std::string("panoplon: ") + error.what() + "\n");
    }
    reply["exit"] = exit;
    reply["complaints"] = kept.complaints();
    return reply.dump(-1, ' ', false, Json::error_handler_t::replace);
}

} // namespace

} // namespace panoplon

char* panoplon_run(const char* armoury, const char* command, const char* options) {
    try {
        const std::string reply = panoplon::run_to_json(armoury, command, options);
        auto* text = static_cast<char*>(std::malloc(reply.size() + 1));
        if (text) std::memcpy(text, reply.c_str(), reply.size() + 1);
        return text;
    } catch (const std::exception&) { // of memory only
        return nullptr;
    }
}

void panoplon_free(char* text) {
    std::free(text);
}
