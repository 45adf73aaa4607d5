#include "fight/inquiry.h"

#include <algorithm>

namespace panoplon {

Inquiry::Entry& Inquiry::entry(Matter matter, const std::string& actor, const std::string& thing,
                               const std::string& by, const std::string& event, const Span& span) {
    const auto known = std::find_if(entries_.begin(), entries_.end(), [&](const Entry& e) {
        return e.matter == matter && e.thing == thing && e.by == by && e.event == event &&
               e.actor == actor;
    });
    if (known != entries_.end()) return *known;
    return entries_.emplace_back(Entry{matter, actor, thing, by, event, span, 0, 0, {}});
}

void Inquiry::happened(Entry& entry, double time) {
    if (entry.happened == 0) entry.first = time;
    entry.happened += 1;
}

void Inquiry::denied(Entry& entry, const std::string& words, const Span& span, double time,
                     const std::function<std::string()>& example) {
    auto known = std::find_if(entry.reasons.begin(), entry.reasons.end(),
                              [&](const Reason& reason) { return reason.words == words; });
    if (known == entry.reasons.end())
        known = entry.reasons.insert(
            known, Reason{words, example ? example() : std::string(), span, 0, time});
    known->times += 1;
}

} // namespace panoplon
