#include "show/tune/show_round.h"

#include "base/text.h"
#include "judge/paper/doubts.h"
#include "show/audit/verdict_words.h"
#include "show/text_table.h"
#include "show/tune/comparison_words.h"

#include <fmt/format.h>
#include <set>

namespace panoplon {

namespace {

constexpr std::size_t line_width = 108;

std::string line(const std::string& text) {
    return "  " + folded(text, line_width, 4) + "\n";
}

/// The first of a list, and how many more there are.
std::string first_of(const std::vector<std::string>& list, std::size_t most,
                     const char* separator) {
    const std::size_t told = std::min(list.size(), most);
    std::string text =
        join({list.begin(), list.begin() + static_cast<std::ptrdiff_t>(told)}, separator);
    if (list.size() > told) text += fmt::format("{}and {} more", separator, list.size() - told);
    return text;
}

std::string change_of(const DefinitionChange& change) {
    const std::string thing =
        change.id.empty() ? change.kind : fmt::format("{}.{}", change.kind, change.id);
    if (change.what != DefinitionChange::What::changed)
        return fmt::format("{} {}", thing, definition_change_names[static_cast<int>(change.what)]);
    std::vector<std::string> keys;
    const auto value = [](const std::string& text) { return text.empty() ? "not given" : text; };
    for (const DefinitionChange::Key& key : change.keys)
        keys.push_back(fmt::format("{} {} → {}", key.path, value(key.before), value(key.after)));
    constexpr std::size_t most_keys = 3;
    return fmt::format("{}: {}", thing, first_of(keys, most_keys, ", "));
}

std::string loadouts_line(const Comparison& comparison) {
    constexpr std::size_t most_told = 3;
    const auto moved = moved_rows(comparison.curves);
    if (moved.empty()) return {};
    std::vector<std::string> words;
    for (const CurveShift* curve : moved)
        words.push_back(fmt::format("{} against {} {} at level {}", curve->loadout,
                                    curve->encounter, signed_percent(curve->most().ratio() - 1),
                                    curve->most().level));
    return line(fmt::format("loadouts that moved most: {}", first_of(words, most_told, ", ")));
}

std::vector<Diagnostic> doubts_of(const ReadArmoury& read) {
    Sink sink = read.sink;
    find_doubts(read.armoury, sink);
    return sink.sorted(Severity::doubt);
}

/// The most urgent first.
std::vector<const ItemVerdict*> calling_in(const AuditResult& audit) {
    std::vector<const ItemVerdict*> calling;
    const auto look = [&](const ItemVerdict& verdict) {
        if (verdict.calls()) calling.push_back(&verdict);
    };
    for (const ItemVerdict& one : audit.items) look(one);
    for (const ConsumableVerdict& one : audit.consumables) look(one.judged);
    std::stable_sort(
        calling.begin(), calling.end(),
        [](const ItemVerdict* a, const ItemVerdict* b) { return urgency(*a) < urgency(*b); });
    return calling;
}

} // namespace

Json standing_json(const Armoury& armoury, const AuditResult& audit,
                   const Comparison::Corridors& corridors) {
    Json calls = Json::array();
    for (const ItemVerdict* one : calling_in(audit))
        calls.push_back({{"id", armoury.at(one->item).id}, {"verdict", verdict_words(*one)}});
    return {{"contexts", audit.whole_contexts()},
            {"calls", std::move(calls)},
            {"in_corridor", {{"after", corridors.kept}, {"of", corridors.wanted}}}};
}

std::string standing_text(const Armoury& armoury, const AuditResult& audit,
                          const Comparison::Corridors& corridors) {
    const std::vector<const ItemVerdict*> calling = calling_in(audit);
    std::vector<std::string> words;
    for (const ItemVerdict* one : calling)
        words.push_back(fmt::format("{} ({})", armoury.at(one->item).id, verdict_words(*one)));
    constexpr std::size_t most_told = 12;
    return line(fmt::format("{} and {} in {}: {}{}", counted(audit.items.size(), "worn item"),
                            counted(audit.consumables.size(), "consumable"),
                            counted(audit.whole_contexts(), "context"),
                            calling.empty() ? "nothing calls for a hand"
                                            : fmt::format("{} {} for a hand: ", calling.size(),
                                                          calling.size() == 1 ? "calls" : "call"),
                            first_of(words, most_told, ", "))) +
           (corridors.wanted == 0 ? std::string()
                                  : line(fmt::format("{} of {} {} to {} corridor", corridors.kept,
                                                     counted(corridors.wanted, "curve"),
                                                     corridors.wanted == 1 ? "keeps" : "keep",
                                                     corridors.wanted == 1 ? "its" : "their")));
}

std::string saved_words(const Comparison& comparison) {
    constexpr std::size_t most_told = 4;
    std::vector<std::string> words;
    for (const DefinitionChange& change : comparison.changes) words.push_back(change_of(change));
    return words.empty() ? "nothing that counts" : first_of(words, most_told, "; ");
}

std::string round_text(const Comparison& comparison) {
    return line(headline(comparison)) + calling_text(comparison) + changed_items_text(comparison) +
           loadouts_line(comparison);
}

std::string unsure_text(const std::vector<VerdictShift>& shifts) {
    constexpr std::size_t most_told = 8;
    std::vector<std::string> words;
    for (const VerdictShift& shift : shifts) {
        const std::string before = verdict_or_absence(shift.before);
        const std::string after = verdict_or_absence(shift.after);
        // The same by name, and only another's doing now or no longer: nothing to wait for.
        if (before != after) words.push_back(fmt::format("{} ({} → {})", shift.id, before, after));
    }
    if (words.empty()) return {};
    return line(
        fmt::format("perhaps, which the whole search tells: {}", first_of(words, most_told, ", ")));
}

std::string new_doubts_text(const ReadArmoury& before, const ReadArmoury& now) {
    constexpr std::size_t most_told = 5;
    std::set<std::pair<std::string, std::string>> known;
    for (const Diagnostic& doubt : doubts_of(before)) known.emplace(doubt.kind, doubt.thing);
    std::string text;
    std::size_t found = 0;
    for (const Diagnostic& doubt : doubts_of(now)) {
        if (known.contains({doubt.kind, doubt.thing}) || ++found > most_told) continue;
        text += line(fmt::format("newly doubted: {}: {}", place(doubt.span, now.sources),
                                 message_of(doubt, now.sources)));
    }
    if (found > most_told) text += fmt::format("  … and {} more doubts\n", found - most_told);
    return text;
}

} // namespace panoplon
