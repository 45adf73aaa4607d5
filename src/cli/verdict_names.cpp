#include "cli/verdict_names.h"

#include <algorithm>

namespace panoplon {

Result<std::set<Verdict>> verdicts_to_fail_on(const Invocation& invocation) {
    std::set<Verdict> chosen;
    std::vector<std::string> names;
    for (const VerdictRow& row : verdict_rows()) names.emplace_back(row.name);
    for (const std::string& list : invocation.values("fail-on"))
        for (const std::string& name : split(list, ',')) {
            const auto row = std::find_if(verdict_rows().begin(), verdict_rows().end(),
                                          [&](const VerdictRow& one) { return one.name == name; });
            if (row == verdict_rows().end()) {
                const auto near = nearest_name(name, names);
                return Failure{Cause::usage,
                               fmt::format("unknown verdict '{}'{}", name,
                                           near ? fmt::format("; did you mean '{}'?", *near) : ""),
                               "there is: " + join(names, ", ")};
            }
            chosen.insert(row->verdict);
        }
    return chosen;
}

bool passed(const std::vector<std::string>& failing) {
    if (!failing.empty())
        outlet().complain(fmt::format("panoplon: failed: {}\n", join(failing, ", ")));
    return failing.empty();
}

} // namespace panoplon
