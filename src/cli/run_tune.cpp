#include "armoury/files.h"
#include "armoury/patch.h"
#include "cli/earlier_runs.h"
#include "show/armoury/show_check.h"
#include "show/tune/show_tuning.h"

namespace panoplon {

namespace {

/// The armoury's files once more, for readings with other values.
Result<WhatIfs> what_ifs_of(const Invocation& invocation) {
    Sink sink;
    Result<Sources> sources = read_folder(invocation.operands().front(), sink);
    if (!sources.ok()) return sources.failure();
    return WhatIfs(sources.take(), invocation.values("set"));
}

/// With --write. Where no patch can be made that is said, and what was found is shown all the same.
struct Patch {
    std::string text;
    int exit = Exit::done;
};
Patch patch_of(const Invocation& invocation, const ReadArmoury& read,
               const std::vector<NumberChange>& changes) {
    if (!invocation.has("write") || changes.empty()) return {};
    const Result<std::string> text = patch_text(read, changes);
    if (!text.ok()) return {{}, report_failure(text.failure())};
    return {text.value()};
}

int run_tune_all(const Invocation& invocation, const ReadArmoury& read, const WhatIfs& what_ifs,
                 const ContextScope& scope) {
    EarlierRuns earlier(invocation);
    WatchedStages stages(invocation);
    const TuneAll all = tune_all(what_ifs, scope, earlier.memory(), stages);
    const Patch patch = patch_of(invocation, read, all.numbers());
    Document document = show_tune_all(read.armoury, all, patch.text);
    earlier.tell();
    return show(invocation, read.armoury, document, 0,
                all.left().empty() ? patch.exit : static_cast<int>(Exit::refused));
}

/// What a change of one number does to everything else, and the patch that makes it.
struct Upset {
    std::optional<Comparison> comparison; ///< none with --alone
    Patch patch;
    bool refused = false; ///< the armoury can't be read with it, which has been said
};

Upset upset_by(const Invocation& invocation, const ReadArmoury& read, const WhatIfs& what_ifs,
               const ContextScope& scope, const TunedNumber& number, double value,
               EarlierRuns& earlier) {
    Upset upset;
    const ReadArmoury changed = what_ifs.read({number.what_if(value)});
    upset.refused = !changed.usable();
    if (upset.refused) {
        outlet().complain(mistakes_text(changed));
        return upset;
    }
    if (!invocation.has("alone"))
        upset.comparison = watched(invocation, "contexts", [&](const Watch& watch) {
            return compare_readings({read, scope}, {changed, scope}, earlier.memory(), watch);
        });
    upset.patch = patch_of(invocation, read, {number.change(value)});
    return upset;
}

/// Without a number: each that the item could be mended by.
int run_tune_item(const Invocation& invocation, const ReadArmoury& read, const WhatIfs& what_ifs,
                  const ContextScope& scope, ItemId item) {
    const Armoury& armoury = read.armoury;
    EarlierRuns earlier(invocation);
    std::optional<JudgedItem> present;
    const NumbersTried numbers = watched(invocation, "numbers", [&](const Watch& watch) {
        ItemJudge judge(armoury, scope, item);
        present = judge.judge(armoury, {{}, watch.stop}, Recall(earlier.memory(), read));
        return try_numbers(read, what_ifs, judge, *present, every_number, watch);
    });
    for (const ContextRow& row : present->contexts)
        if (row.error) return report_fight_error(read, *row.error);
    Upset upset;
    if (numbers.smallest) {
        const Tuning& best = numbers.tried[*numbers.smallest];
        if (!best.partial)
            upset =
                upset_by(invocation, read, what_ifs, scope, best.number, *best.proposal, earlier);
        if (upset.refused) return Exit::refused;
    }
    Document document =
        show_numbers(armoury, present->verdict, numbers, upset.comparison, upset.patch.text);
    earlier.tell();
    return show(invocation, armoury, document, 0, upset.patch.exit);
}

/// The value that a patch is for: --at, or what is proposed.
std::optional<double> value_to_write(const std::optional<double>& at, const Tuning& tuning) {
    return at ? at : tuning.proposal;
}

} // namespace

int run_tune(const Invocation& invocation) {
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    const Armoury& armoury = opened.armoury();
    ContextScope scope;
    FirstFailure take;
    narrow_by_step(invocation, armoury, take, scope);
    const WhatIfs what_ifs = take(what_ifs_of(invocation));
    if (take.failure()) return report_failure(*take.failure());
    const bool all = invocation.has("all");
    const std::size_t operands = invocation.operands().size();
    if (all ? operands != 1 : operands < 2 || operands > 3)
        return report_failure(
            {Cause::usage, all ? "'tune --all' takes no item" : "'tune' needs an item",
             "panoplon tune ARMOURY reed_coat, or: panoplon tune ARMOURY reed_coat guard, or: "
             "panoplon tune ARMOURY --all"});
    if (all) return run_tune_all(invocation, *opened.read, what_ifs, scope);
    const auto item = take(look_up<ItemId>("item", armoury.items, invocation.operands()[1]));
    const auto at = take(number_option(invocation, "at", -1e12, 1e12));
    if (take.failure()) return report_failure(*take.failure());
    if (!armoury.at(item).worn() && !armoury.at(item).use)
        return report_failure(
            {Cause::refused,
             fmt::format("'{}' is neither worn nor used: nothing judges it", armoury.at(item).id),
             {}});
    if (operands == 2 && at)
        return report_failure({Cause::usage, "--at needs a number of the item",
                               "panoplon tune ARMOURY ITEM STAT --at"});
    if (operands == 2) return run_tune_item(invocation, *opened.read, what_ifs, scope, item);
    const TunedNumber number = take(find_number(*opened.read, item, invocation.operands()[2]));
    if (take.failure()) return report_failure(*take.failure());
    EarlierRuns earlier(invocation);
    const Tuning tuning = watched(invocation, "values", [&](const Watch& watch) {
        ItemJudge judge(armoury, scope, item);
        const JudgedItem present =
            judge.judge(armoury, watch, Recall(earlier.memory(), *opened.read));
        return tune(*opened.read, what_ifs, number, judge, present, {}, watch);
    });
    for (const ContextRow& row : tuning.contexts)
        if (row.error) return report_fight_error(*opened.read, *row.error);
    const auto value = value_to_write(at, tuning);
    const Upset upset = value && !tuning.partial ? upset_by(invocation, *opened.read, what_ifs,
                                                            scope, number, *value, earlier)
                                                 : Upset();
    if (upset.refused) return Exit::refused;
    const Patch& patch = upset.patch;
    Document document = show_tuning(armoury, tuning, at, upset.comparison, patch.text);
    earlier.tell();
    return show(invocation, armoury, document, 0, patch.exit);
}

} // namespace panoplon
