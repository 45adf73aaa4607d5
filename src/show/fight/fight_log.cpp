// A fight told line by line.
#include "show/fight/show_fight.h"

#include "base/text.h"
#include "show/text_table.h"

#include <fmt/format.h>

namespace panoplon {

namespace {

std::string left_words(const TimelineEvent& e) {
    return fmt::format("{} left", rounded(e.pool_after, 1));
}

/// How an event reads, after the name of who it is told of.
struct Phrase {
    const char* event;
    std::string (*words)(const TimelineEvent&);
};

using E = const TimelineEvent&;

// One row an event of the timeline.
constexpr Phrase phrases[] = {
    {"arrives", [](E e) { return "arrives with " + rounded(e.pool_after, 1); }},
    {"hits",
     [](E e) {
         return fmt::format("{} hits {} for {}; {}", e.source, e.target, rounded(e.amount, 1),
                            left_words(e));
     }},
    {"crits",
     [](E e) {
         return fmt::format("{} hits {} critically for {}; {}", e.source, e.target,
                            rounded(e.amount, 1), left_words(e));
     }},
    {"misses", [](E e) { return fmt::format("{} misses {}", e.source, e.target); }},
    {"warded", [](E e) { return fmt::format("{} is warded off by {}", e.source, e.target); }},
    {"tick",
     [](E e) {
         return fmt::format("loses {} to {}; {}", rounded(e.amount, 1), e.source, left_words(e));
     }},
    {"restores",
     [](E e) {
         return fmt::format("gains {} {} from {}; now {}{}", rounded(e.amount, 1), e.target,
                            e.source, rounded(e.pool_after, 1),
                            e.note.empty() ? "" : ", " + e.note);
     }},
    {"effect",
     [](E e) {
         return fmt::format("is {} for {}, by {}", e.source, rounded(e.amount, 2), e.note);
     }},
    {"effect_again",
     [](E e) {
         return fmt::format("is {} again, for {}, by {}", e.source, rounded(e.amount, 2), e.note);
     }},
    {"effect_ends", [](E e) { return fmt::format("is no longer {}", e.source); }},
    {"effect_removed", [](E e) { return fmt::format("is rid of {}", e.source); }},
    {"immune", [](E e) { return fmt::format("is immune to {}", e.source); }},
    {"returns",
     [](E e) {
         return fmt::format("gives {} of {} back to {}; {}", rounded(e.amount, 1), e.source,
                            e.target, left_words(e));
     }},
    {"trigger", [](E e) { return fmt::format("{} triggers on {}", e.source, e.note); }},
    {"uses", [](E e) { return "uses " + e.source; }},
    {"use_refused", [](E e) { return fmt::format("can't use {}: {}", e.source, e.note); }},
    {"swaps", [](E e) { return "swaps to " + e.source; }},
    {"swap_refused", [](E e) { return fmt::format("can't swap to {}: {}", e.source, e.note); }},
    {"band", [](E e) { return e.source == "none" ? "is under no load band" : "is " + e.source; }},
    {"life_lost", [](E e) { return "loses a life, and rises with " + rounded(e.pool_after, 1); }},
    {"calls", [](E e) { return fmt::format("calls {} by {}", e.target, e.source); }},
    {"leaves", [](E) { return std::string("leaves"); }},
    {"falls", [](E) { return std::string("falls"); }},
};

std::string words_of(const TimelineEvent& e) {
    for (const Phrase& phrase : phrases)
        if (e.event == phrase.event) return phrase.words(e);
    return e.event;
}

} // namespace

std::string log_text(const Armoury& armoury, const Timeline& timeline) {
    TextTable table({{armoury.clock == Clock::seconds ? "seconds" : "rounds", Align::right},
                     {"who"},
                     {"what"}});
    double last = -1;
    for (const TimelineEvent& e : timeline.events) {
        table.row({e.time == last ? "" : rounded(e.time, 3), e.actor, words_of(e)});
        last = e.time;
    }
    return table.text();
}

} // namespace panoplon
