#include "cli/session.h"
#include "judge/appraise/power.h"
#include "outfit/change.h"
#include "show/loadout/show_equip.h"

#include <charconv>

namespace panoplon {

namespace {

/// --find ITEM=N, or ITEM for one.
Result<ChangeOutcome> find_some(Deriver& deriver, Outfit& outfit, const std::string& value) {
    const std::size_t equals = value.find('=');
    const Result<ItemId> item =
        look_up<ItemId>("item", deriver.armoury().items, value.substr(0, equals));
    if (!item.ok()) return item.failure();
    std::int64_t count = 1;
    if (equals != std::string::npos) {
        const char* end = value.data() + value.size();
        const auto [stopped, error] = std::from_chars(value.data() + equals + 1, end, count);
        constexpr std::int64_t most = 1'000'000;
        if (error != std::errc() || stopped != end || count < 1 || count > most)
            return Failure{
                Cause::usage,
                fmt::format("--find is '{}'; allowed: ITEM=N with N from 1 to {}", value, most),
                {}};
    }
    return take_up(deriver, outfit, item.value(), count);
}

/// One --wear, --off or --find.
Result<ChangeOutcome> change(Deriver& deriver, Outfit& outfit, const std::string& option,
                             const std::string& value) {
    if (option == "find") return find_some(deriver, outfit, value);
    const Result<ItemId> item = look_up<ItemId>("item", deriver.armoury().items, value);
    if (!item.ok()) return item.failure();
    return option == "wear" ? put_on(deriver, outfit, item.value())
                            : take_off(deriver, outfit, item.value());
}

Failure refused_change(const std::string& option, const std::string& value,
                       const std::vector<Refusal>& refused) {
    std::vector<std::string> reasons;
    for (const Refusal& refusal : refused)
        for (const std::string& reason : refusal.reasons)
            reasons.push_back(refusal.thing + ": " + reason);
    return {Cause::refused,
            fmt::format("--{} {} is refused: {}", option, value, join(reasons, "; ")),
            {}};
}

/// What the options change, in their order; the first that is refused stops.
Result<std::vector<std::string>> change_all(const Invocation& invocation, Deriver& deriver,
                                            Outfit& outfit) {
    std::vector<std::string> notes;
    for (const auto& [option, value] : invocation.given()) {
        if (option != "wear" && option != "off" && option != "find") continue;
        Result<ChangeOutcome> outcome = change(deriver, outfit, option, value);
        if (!outcome.ok()) return outcome.failure();
        if (!outcome.value().done()) return refused_change(option, value, outcome.value().refused);
        const std::vector<std::string>& told = outcome.value().notes;
        notes.insert(notes.end(), told.begin(), told.end());
    }
    return notes;
}

/// Whether an option is there that changes one loadout, where there are several: then it is told.
bool changes_one(const Invocation& invocation) {
    for (const char* option : {"wear", "off", "find"})
        if (invocation.has(option)) {
            report_failure({Cause::usage,
                            fmt::format("--{} changes one loadout; {} are given", option,
                                        invocation.operands().size() - 1),
                            {}});
            return true;
        }
    return false;
}

int equip_several(const Invocation& invocation, const Armoury& armoury) {
    const std::vector<std::string> ids(invocation.operands().begin() + 1,
                                       invocation.operands().end());
    FirstFailure take;
    SeveralOutfits several;
    several.loadouts = take(look_up_all<LoadoutId>("loadout", armoury.loadouts, ids));
    if (take.failure()) return report_failure(*take.failure());
    several.level = take(level_option(invocation, armoury, armoury.at(several.loadouts.back())));
    if (take.failure()) return report_failure(*take.failure());
    if (changes_one(invocation)) return Exit::usage;
    Deriver deriver(armoury);
    Engine engine(armoury);
    bool refused = false;
    for (const LoadoutId loadout : several.loadouts) {
        several.outfits.push_back(outfit_of(armoury, armoury.at(loadout), several.level));
        several.sheets.push_back(make_sheet(deriver, several.outfits.back()));
        several.powers.push_back(power_of(engine, armoury, several.outfits.back()));
        refused = refused || !several.sheets.back().refused.empty();
    }
    return show(invocation, armoury, show_equip_several(armoury, several), 0,
                refused ? Exit::refused : Exit::done);
}

int equip_two(const Invocation& invocation, const Armoury& armoury, LoadoutId first) {
    FirstFailure take;
    TwoOutfits two;
    two.first = first;
    two.second = take(look_up<LoadoutId>("loadout", armoury.loadouts, invocation.operands()[2]));
    if (take.failure()) return report_failure(*take.failure());
    two.level = take(level_option(invocation, armoury, armoury.at(two.second)));
    if (take.failure()) return report_failure(*take.failure());
    if (changes_one(invocation)) return Exit::usage;
    Deriver deriver(armoury);
    const Outfit one = outfit_of(armoury, armoury.at(two.first), two.level);
    const Outfit other = outfit_of(armoury, armoury.at(two.second), two.level);
    two.first_sheet = make_sheet(deriver, one);
    two.second_sheet = make_sheet(deriver, other);
    two.comparison = compare_outfits(armoury, one, other);
    const bool refused = !two.first_sheet.refused.empty() || !two.second_sheet.refused.empty();
    return show(invocation, armoury, show_equip_two(armoury, two), 0,
                refused ? Exit::refused : Exit::done);
}

} // namespace

int run_equip(const Invocation& invocation) {
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    const Armoury& armoury = opened.armoury();
    FirstFailure take;
    const LoadoutId id =
        take(look_up<LoadoutId>("loadout", armoury.loadouts, invocation.operands()[1]));
    if (take.failure()) return report_failure(*take.failure());
    if (invocation.operands().size() > 3) return equip_several(invocation, armoury);
    if (invocation.operands().size() > 2) return equip_two(invocation, armoury, id);
    const Loadout& loadout = armoury.at(id);
    const int level = take(level_option(invocation, armoury, loadout));
    if (take.failure()) return report_failure(*take.failure());
    Deriver deriver(armoury);
    Outfit outfit = outfit_of(armoury, loadout, level);
    const auto notes = take(change_all(invocation, deriver, outfit));
    if (take.failure()) return report_failure(*take.failure());
    const Sheet sheet = make_sheet(deriver, outfit);
    return show(invocation, armoury, show_equip(armoury, loadout, outfit, sheet, notes), 0,
                sheet.refused.empty() ? Exit::done : Exit::refused);
}

} // namespace panoplon
