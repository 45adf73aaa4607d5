#include "armoury/references.h"
#include "cli/program_handbook.h"
#include "cli/session.h"
#include "show/armoury/show_explain.h"

#include <filesystem>

namespace panoplon {

namespace {

int explain_word(const Invocation& invocation, const std::string& word) {
    const ProgramHandbook of_program;
    const Handbook& handbook = of_program.handbook();
    if (word.empty()) return show_plain(invocation, show_explainable(handbook));
    const std::vector<Explanation> found = explain(handbook, word);
    if (!found.empty()) return show_plain(invocation, show_explanations(found));
    std::vector<std::string> known;
    for (const auto& [what, names] : explainable(handbook)) {
        known.insert(known.end(), names.begin(), names.end());
        if (what == "keys")
            for (const std::string& name : names) known.push_back(name.substr(name.rfind('.') + 1));
    }
    const auto near = nearest_name(word, known);
    return report_failure({Cause::refused,
                           fmt::format("nothing is called '{}'{}", word,
                                       near ? fmt::format("; did you mean '{}'?", *near) : ""),
                           "panoplon explain lists what there is; panoplon explain ARMOURY THING "
                           "is about a thing of an armoury"});
}

int explain_thing(const Invocation& invocation, const std::string& name) {
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    const auto found = find_things(*opened.read, name);
    if (found.size() == 1)
        return show(invocation, opened.armoury(), show_thing(*opened.read, *found.front()), 0);
    std::vector<std::string> names;
    for (const RawDefinition* definition : found) names.push_back(full_name(*definition));
    if (!found.empty())
        return report_failure({Cause::usage,
                               fmt::format("{} things are called '{}'", found.size(), name),
                               "say which: " + join(names, ", ")});
    for (const RawDefinition& definition : opened.read->definitions) {
        names.push_back(full_name(definition));
        names.push_back(definition.id);
    }
    const auto near = nearest_name(name, names);
    return report_failure({Cause::refused,
                           fmt::format("the armoury has no '{}'{}", name,
                                       near ? fmt::format("; did you mean '{}'?", *near) : ""),
                           "as in item.reed_coat, or its id alone"});
}

} // namespace

int run_explain(const Invocation& invocation) {
    const auto& operands = invocation.operands();
    if (operands.size() == 2) return explain_thing(invocation, operands[1]);
    if (operands.empty()) return explain_word(invocation, "");
    std::error_code ignored;
    if (std::filesystem::is_directory(operands[0], ignored))
        return report_failure(
            {Cause::usage,
             fmt::format("'{}' is a folder; what of it is to be explained?", operands[0]),
             "as in: panoplon explain ARMOURY item.reed_coat"});
    return explain_word(invocation, operands[0]);
}

} // namespace panoplon
