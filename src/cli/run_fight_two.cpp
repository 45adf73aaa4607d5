#include "cli/fight_side.h"

#include "fight/paired.h"
#include "show/fight/show_fight_two.h"

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

std::optional<FightError> even_margins(const Contender& one, Margin& into) {
    Engine engine(one.armoury);
    engine.prepare(one.setup);
    into = even_margin(engine);
    return into.error;
}

} // namespace

int run_fight_two(const Invocation& invocation, const Opened& opened, const FightAsked& asked) {
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

    TwoFights report;
    report.first = first_id;
    report.second = other_name(invocation, other.at(second).id);
    report.encounter = asked.encounter;
    report.level = asked.level;
    report.seed = asked.seed;
    report.asked = asked.trials;
    Contender left{armoury, one->setup};
    Contender right{other, two->setup};
    if (const auto error = even_margins(left, report.first_even))
        return report_fight_error(*opened.read, *error);
    if (const auto error = even_margins(right, report.second_even))
        return report_fight_error(*changed.read, *error);
    left.guess = report.first_even.value;
    right.guess = report.second_even.value;
    const TrialsOptions options{asked.trials, asked.seed, 1};
    report.trials = watched(invocation, "trials", [&](const Watch& watch) {
        return asked.precision > 0
                   ? run_paired_within(left, right, options, asked.precision, most_trials, watch)
                   : run_paired(left, right, options, watch);
    });
    if (report.trials.first.error)
        return report_fight_error(*opened.read, *report.trials.first.error);
    if (report.trials.second.error)
        return report_fight_error(*changed.read, *report.trials.second.error);
    if (report.trials.first.trials == 0) return Exit::interrupted;
    return show(invocation, armoury, show_fight_two(armoury, report), report.seed);
}

} // namespace panoplon
