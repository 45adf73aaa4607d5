#include "bench/reference_fight.h"

#include <algorithm>
#include <cstdint>
#include <limits>

namespace panoplon::bench {

std::string reference_armoury() {
    return R"toml([armoury]
format = 1
name = "Reference"
levels = [1, 1]
[combat]
health = "health"
hit = "self.sure / 100"
crit = "self.keen / 100"
crit_factor = "self.bite"
time_limit = 180
[stat.attack]
[stat.armour]
[stat.keen]
[stat.bite]
[stat.sure]
[stat.mending]
[stat.max_health]
[pool.health]
max = "max_health"
regen = "self.mending"
[damage.blunt]
mitigated = "amount * 100 / (100 + other.armour)"
[action.strike]
every = "1.4"
deals = { blunt = "self.attack" }
drains = { health = "0.08" }
[action.maul]
every = "2.0"
deals = { blunt = "self.attack" }
applies = { effect = "burn", duration = 6 }
[effect.burn]
per_time = { health = -12 }
[effect.fury]
percent = { attack = 30 }
[item.draught]
stack = 5
use = { restore = { health = 260 }, cooldown = 12 }
[item.brew]
stack = 3
use = { effect = "fury", duration = 20, cooldown = 25 }
[character.hero]
base = { max_health = 1200, attack = 90, armour = 140, keen = 20, bite = 1.75, sure = 95, mending = 4 }
actions = ["strike"]
[foe.beast]
base = { max_health = 2800, attack = 150, armour = 120, keen = 10, bite = 1.5, sure = 90 }
actions = ["maul"]
[encounter.fight]
foes = [ { foe = "beast" } ]
[loadout.hero]
character = "hero"
pack = { draught = 5, brew = 3 }
[[loadout.hero.use]]
item = "draught"
when = "self.health_share < 0.45"
)toml";
}

namespace {

using Time = std::int64_t; // millionths

constexpr Time unit = 1'000'000;
constexpr Time late = std::numeric_limits<Time>::max();
constexpr double hero_ceiling = 1200;

/// The state of the fight and what moves it, each step once.
class ByHand {
  public:
    explicit ByHand(const Luck& luck) : luck_(luck) {}

    Outcome run() {
        constexpr Time limit = 180 * unit;
        while (true) {
            if (instant()) break;
            now_ = next();
            if (now_ >= limit) return {false, 180, dealt_};
        }
        return {foe_ <= 0, static_cast<double>(now_) / unit, dealt_};
    }

  private:
    /// True when somebody is felled.
    bool instant() {
        if (tick_ == now_) {
            tick_ += unit;
            hero_ -= 12;
            if (hero_ <= 0) return true;
        }
        if (now_ > 0 && now_ % unit == 0) hero_ = std::min(hero_ceiling, hero_ + 4);
        if (burn_end_ == now_) burn_end_ = tick_ = late;
        if (fury_end_ == now_) fury_end_ = late;
        use();
        if (strike_ == now_) {
            strike_ += 1'400'000;
            if (strike()) return true;
            use();
        }
        if (maul_ == now_) {
            maul_ += 2 * unit;
            if (maul()) return true;
            use();
        }
        return false;
    }

    void use() {
        if (draughts_ > 0 && draught_ready_ <= now_ && hero_ < 0.45 * hero_ceiling) {
            --draughts_;
            draught_ready_ = now_ + 12 * unit;
            hero_ = std::min(hero_ceiling, hero_ + 260);
        }
        if (brews_ > 0 && brew_ready_ <= now_ && fury_end_ == late) {
            --brews_;
            brew_ready_ = now_ + 25 * unit;
            fury_end_ = now_ + 20 * unit;
        }
    }

    bool strike() {
        const BlowDraws draws = blow_draws(luck_, 0, strikes_++);
        if (draws.hit >= 0.95) return false;
        const double attack = fury_end_ == late ? 90.0 : 90.0 * 1.3;
        const double raw = draws.crit < 0.2 ? attack * 1.75 : attack;
        const double lost = std::min(foe_, raw * 100 / (100 + 120));
        foe_ -= lost;
        dealt_ += lost;
        hero_ = std::min(hero_ceiling, hero_ + lost * 0.08);
        return foe_ <= 0;
    }

    bool maul() {
        const BlowDraws draws = blow_draws(luck_, 1, mauls_++);
        if (draws.hit >= 0.9) return false;
        const double raw = draws.crit < 0.1 ? 150.0 * 1.5 : 150.0;
        hero_ -= raw * 100 / (100 + 140);
        if (hero_ <= 0) return true;
        if (burn_end_ == late) tick_ = now_ + unit;
        burn_end_ = now_ + 6 * unit;
        return false;
    }

    [[nodiscard]] Time next() const {
        Time next = std::min({strike_, maul_, tick_, burn_end_, fury_end_});
        next = std::min(next, (now_ / unit + 1) * unit); // regen
        if (draughts_ > 0 && draught_ready_ > now_) next = std::min(next, draught_ready_);
        if (brews_ > 0 && brew_ready_ > now_) next = std::min(next, brew_ready_);
        return next;
    }

    Luck luck_;
    Time now_ = 0, strike_ = 0, maul_ = 0, tick_ = late, burn_end_ = late, fury_end_ = late;
    Time draught_ready_ = 0, brew_ready_ = 0;
    double hero_ = hero_ceiling, foe_ = 2800, dealt_ = 0;
    std::uint64_t strikes_ = 0, mauls_ = 0;
    int draughts_ = 5, brews_ = 3;
};

} // namespace

Outcome fight_by_hand(const Luck& luck) {
    return ByHand(luck).run();
}

} // namespace panoplon::bench
