#include "cli/fight_sides.h"

namespace panoplon {

namespace {

/// The other loadout as the other armoury has it; the first one's where none is named.
Result<LoadoutId> other_loadout(const Invocation& invocation, const Armoury& other,
                                const std::string& first) {
    const std::string name = invocation.has("other") ? invocation.value("other") : first;
    return look_up<LoadoutId>("loadout", other.loadouts, name);
}

std::string other_name(const Invocation& invocation, const std::string& loadout) {
    const std::vector<std::string> changes = invocation.values("other-set");
    if (changes.empty()) return loadout;
    return fmt::format("{} with {}", loadout, join(changes, " and "));
}

} // namespace

int run_fight_two(const Invocation& invocation, const Opened& opened, const FightRequest& asked) {
    for (const char* option : {"why", "log", "timeline", "trial", "even-luck", "margin"})
        if (invocation.has(option))
            return report_failure({Cause::usage,
                                   fmt::format("--{} tells of one fight; two are compared", option),
                                   {}});
    const Opened changed = open_armoury(invocation, invocation.values("other-set"));
    if (!changed.read) return changed.exit;
    const Armoury& armoury = opened.armoury();
    const Armoury& other = changed.armoury();
    FirstFailure take;
    const std::string& first_id = armoury.at(asked.loadout).id;
    const LoadoutId second = take(other_loadout(invocation, other, first_id));
    const EncounterId encounter =
        take(look_up<EncounterId>("encounter", other.encounters, armoury.at(asked.encounter).id));
    if (take.failure()) return report_failure(*take.failure());
    const auto one = fight_side(armoury, asked.loadout, asked.encounter, asked.level);
    const auto two = fight_side(other, second, encounter, asked.level);
    if (!one || !two) return Exit::refused;

    WatchedStages stages(invocation);
    auto [found, first_error, second_error] =
        find_two({armoury, *one}, {other, *two}, asked, stages);
    if (first_error) return report_fight_error(*opened.read, *first_error);
    if (second_error) return report_fight_error(*changed.read, *second_error);
    if (found.trials.first.trials == 0) return Exit::interrupted;
    found.first = first_id;
    found.second = other_name(invocation, other.at(second).id);
    return show(invocation, armoury, show_fight_two(armoury, found), found.seed);
}

} // namespace panoplon
