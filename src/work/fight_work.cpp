#include "work/fight_work.h"

#include "fight/paired.h"
#include "outfit/needs.h"
#include "show/loadout/show_equip.h"

#include <algorithm>

namespace panoplon {

namespace {

/// Why things were so, in the first of the trials: more would tell no more.
void inquire(Engine& engine, const FightRequest& request, FightAnswer& answer) {
    constexpr std::uint64_t enough = 200;
    answer.inquired = std::min(request.trials, enough);
    for (std::uint64_t trial = 0; trial < answer.inquired; ++trial)
        engine.inquire(1, Luck{request.seed, trial}, answer.inquiry);
    if (request.trials == 0) engine.inquire(1, std::nullopt, answer.inquiry);
}

std::optional<FightError> run_many(const Armoury& armoury, const FightSetup& setup,
                                   const Watch& watch, const FightRequest& request,
                                   FightAnswer& answer) {
    const TrialsOptions options{request.trials, request.seed, 1};
    answer.trials = request.precision > 0 ? run_trials_within(armoury, setup, options,
                                                              request.precision, most_trials, watch)
                                          : run_trials(armoury, setup, options, watch);
    if (answer.trials->error) return answer.trials->error;
    if (!request.margins) return std::nullopt;
    answer.margins = run_margin_trials(armoury, setup, {answer.trials->trials, request.seed, 1},
                                       answer.even_margin.value, watch);
    for (const Margin& margin : answer.margins->margins)
        if (margin.error && !answer.fault) answer.fault = margin.error;
    if (answer.fault) answer.margins.reset();
    return std::nullopt;
}

/// By even luck, by trials, and one of them told; the first error of what it can't do without.
std::optional<FightError> fight(const Armoury& armoury, const FightSetup& setup, const Watch& watch,
                                const FightRequest& request, FightAnswer& answer) {
    Engine engine(armoury);
    engine.prepare(setup);
    answer.even = engine.run(1, std::nullopt);
    answer.fault = answer.even.error;
    if (answer.fault && request.trials == 0) return answer.fault;
    if (!answer.fault) {
        answer.even_margin = even_margin(engine);
        answer.fault = answer.even_margin.error;
    }
    answer.blows = engine.blows();
    std::optional<Luck> told;
    if (request.trials > 0) {
        if (auto error = run_many(armoury, setup, watch, request, answer)) return error;
        told = Luck{request.seed, request.told};
        answer.told_trial = request.told;
    }
    if (!answer.why.empty()) inquire(engine, request, answer);
    answer.told = engine.tell(1, told);
    return std::nullopt;
}

Margin margin_of(const ArmedSide& one) {
    Engine engine(one.armoury);
    engine.prepare(one.side.setup);
    return even_margin(engine);
}

} // namespace

FightSide make_side(const Armoury& armoury, LoadoutId loadout, EncounterId encounter, int level) {
    Deriver deriver(armoury);
    FightSide side;
    side.outfit = outfit_of(armoury, armoury.at(loadout), level);
    side.sheet = make_sheet(deriver, side.outfit);
    if (side.sheet.refused.empty())
        side.missing = missing_for(deriver, side.outfit, armoury.at(encounter));
    if (side.ready()) side.setup = set_up_fight(armoury, side.outfit, encounter);
    return side;
}

FightFound find_answer(const ReadArmoury& read, const FightSide& side, const FightRequest& request,
                       Stages& stages) {
    FightFound found;
    FightAnswer& answer = found.answer;
    answer.loadout = request.loadout;
    answer.encounter = request.encounter;
    answer.level = request.level;
    answer.seed = request.seed;
    answer.asked = request.trials;
    answer.load = load_words(read.armoury, side.sheet);
    answer.sheet = side.sheet;
    answer.sources = &read.sources;
    answer.pack = side.outfit.pack;
    answer.why = request.why;
    found.error = in_stage(stages, "trials", [&](const Watch& watch) {
        return fight(read.armoury, side.setup, watch, request, answer);
    });
    return found;
}

TwoFound find_two(const ArmedSide& first, const ArmedSide& second, const FightRequest& request,
                  Stages& stages) {
    TwoFound found;
    TwoFights& two = found.two;
    two.encounter = request.encounter;
    two.level = request.level;
    two.seed = request.seed;
    two.asked = request.trials;
    two.first_even = margin_of(first);
    two.second_even = margin_of(second);
    found.first_error = two.first_even.error;
    found.second_error = two.second_even.error;
    if (found.first_error || found.second_error) return found;
    const Contender left{first.armoury, first.side.setup, two.first_even.value};
    const Contender right{second.armoury, second.side.setup, two.second_even.value};
    const TrialsOptions options{request.trials, request.seed, 1};
    two.trials = in_stage(stages, "trials", [&](const Watch& watch) {
        return request.precision > 0
                   ? run_paired_within(left, right, options, request.precision, most_trials, watch)
                   : run_paired(left, right, options, watch);
    });
    found.first_error = two.trials.first.error;
    found.second_error = two.trials.second.error;
    return found;
}

} // namespace panoplon
