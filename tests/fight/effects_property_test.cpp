#include "support/armouries.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <rapidcheck/catch.h>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// Three effects with odd modifiers, each given by a consumable of its own at odd times.
std::string storm() {
    const char* agains[] = {"refresh", "extend", "pile", "keep"};
    std::string text = with(duel(), "[foe.dummy]\nbase = { max_health = 100 }",
                            "[foe.dummy]\nbase = { max_health = 1e7 }");
    text = with(text, "health = \"health\"\n", "health = \"health\"\ntime_limit = 80\n");
    std::string pack;
    std::string rules;
    for (int i = 0; i < 3; ++i) {
        const std::string n = std::to_string(i);
        text += "[effect.e" + n +
                "]\nadd = { attack = " + std::to_string(*rc::gen::inRange(-30, 70) / 7.0) +
                " }\npercent = { attack = " + std::to_string(*rc::gen::inRange(-20, 60) / 3.0) +
                " }\ntimes = { attack = " + std::to_string(*rc::gen::inRange(5, 20) / 11.0) +
                " }\nagain = \"" + agains[*rc::gen::inRange(0, 4)] +
                "\"\npile_max = " + std::to_string(*rc::gen::inRange(1, 4)) + "\n";
        text += "[item.v" + n + "]\nstack = 9\nuse = { effect = \"e" + n +
                "\", duration = " + std::to_string(*rc::gen::inRange(5, 120) / 10.0) +
                ", cooldown = " + std::to_string(*rc::gen::inRange(1, 90) / 10.0) + " }\n";
        pack += (i > 0 ? ", v" : "v") + n + " = " + std::to_string(*rc::gen::inRange(0, 5));
        rules += "[[loadout.l.use]]\nitem = \"v" + n + "\"\nwhen = \"time > " +
                 std::to_string(*rc::gen::inRange(0, 50) / 10.0) + "\"\n";
    }
    return text + "[loadout.l]\ncharacter = \"hero\"\npack = { " + pack + " }\n" + rules;
}

} // namespace

TEST_CASE("when no effect is on, every blow is bitwise the first without any", "[M2][M20][M21]") {
    rc::prop("three effects, piled up at any times", [] {
        const Armoury a = armoury(storm());
        Bout bout(a, "l", "spar");
        const Timeline told = bout.tell();
        const auto covered = [&](double time) {
            for (const EffectBar& bar : told.bars)
                if (bar.from <= time && time < bar.to) return true;
            return false;
        };
        int bare_blows = 0;
        for (const TimelineEvent& e : told.events) {
            if (e.event != "hits" || e.actor != "hero" || covered(e.time)) continue;
            ++bare_blows;
            RC_ASSERT(e.amount == 10.0);
        }
        RC_ASSERT(bare_blows > 0); // the last use is long over by 80
    });
}

TEST_CASE("blows under the same effects are bitwise the same blow", "[M1][M2]") {
    rc::prop("whatever came before", [] {
        const Armoury a = armoury(storm());
        Bout bout(a, "l", "spar");
        const Timeline told = bout.tell();
        std::map<std::map<int, int>, double> seen; // by how many of each effect are on
        for (const TimelineEvent& e : told.events) {
            if (e.event != "hits" || e.actor != "hero") continue;
            std::map<int, int> on;
            for (const EffectBar& bar : told.bars)
                if (bar.from <= e.time && e.time < bar.to) ++on[bar.effect.value];
            const auto [at, fresh] = seen.emplace(on, e.amount);
            RC_ASSERT(fresh || at->second == e.amount);
        }
    });
}

TEST_CASE("an effect never has more copies than its pile, nor one where it does not pile",
          "[M20]") {
    rc::prop("at any moment", [] {
        const Armoury a = armoury(storm());
        Bout bout(a, "l", "spar");
        const Timeline told = bout.tell();
        for (const EffectBar& one : told.bars) {
            int together = 0;
            for (const EffectBar& other : told.bars)
                together +=
                    other.effect == one.effect && other.from <= one.from && one.from < other.to;
            const Effect& effect = a.at(one.effect);
            RC_ASSERT(together <= (effect.again == Again::pile ? effect.pile_max : 1));
        }
    });
}

TEST_CASE("uptime is the time under at least one copy, by trials and by even luck alike",
          "[M20][M68]") {
    rc::prop("no chance is in it, so both tell the same", [] {
        const Armoury a = armoury(storm());
        Bout bout(a, "l", "spar");
        const FightResult trial = bout.trial(0);
        const FightResult even = bout.even();
        const Timeline told = bout.tell();
        for (std::size_t e = 0; e < a.effects.size(); ++e) {
            double covered = 0;
            double until = 0;
            std::vector<std::pair<double, double>> bars;
            for (const EffectBar& bar : told.bars)
                if (bar.effect.index() == e) bars.emplace_back(bar.from, bar.to);
            std::sort(bars.begin(), bars.end());
            for (const auto& [from, to] : bars) {
                covered += std::max(0.0, to - std::max(from, until));
                until = std::max(until, to);
            }
            RC_ASSERT(std::abs(trial.effects[e].uptime - covered) < 1e-6);
            RC_ASSERT(trial.effects[e].uptime == even.effects[e].uptime);
        }
    });
}
