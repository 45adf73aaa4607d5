#include "support/planted.h"

#include "armoury/read.h"
#include "judge/audit/audit.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <random>
#include <set>
#include <stdexcept>

namespace panoplon::test {

namespace {

constexpr const char* slots[] = {"hand", "body", "off", "head", "gloves", "feet", "belt", "charm"};
constexpr int levels_a_generation = 5;
/// What an item is worth of what the character has by itself at that level.
constexpr double worth = 0.12;

/// What all grow by from one generation to the next: by more than what is dominant is better.
constexpr double growth_rate = 1.8;

/// What is added to a base at each level.
std::string growth(double health, double attack) {
    const std::string factor =
        fmt::format("({}^((level - 1) / {}) - 1)", growth_rate, levels_a_generation);
    return fmt::format("max_health = \"{} * {}\", attack = \"{} * {}\"", health, factor, attack,
                       factor);
}

/// What a blade gives of the attack that goes with its generation, where hands are bare.
constexpr double of_blade = 0.8;

/// The fight and who is in it; `levels` in all.
std::string frame(int levels, const PlantedSize& size) {
    const bool bare = size.layout == Layout::bare_hands;
    std::string text = fmt::format(
        "[armoury]\nformat = 1\nname = \"Planted\"\nlevels = [1, {}]\n"
        "[combat]\nhealth = \"health\"\n"
        "[stat.attack]\n[stat.max_health]\n[stat.deafness]\nmax = 90\n"
        "[stat.glint]\n[stat.hum]\n[stat.scent]\n[stat.weave]\n[stat.grain]\n"
        "[pool.health]\nmax = \"max_health\"\n"
        "[damage.blunt]\nmitigated = \"amount\"\n"
        "[damage.tone]\nmitigated = \"amount * (1 - other.deafness / 100)\"\n"
        "[action.strike]\nevery = \"1\"\ndeals = {{ blunt = \"self.attack\" }}\n"
        "[action.ring]\nevery = \"1\"\ndeals = {{ tone = \"self.attack\" }}\n"
        "[character.hero]\nbase = {{ max_health = 200, attack = {} }}\n"
        "growth = {{ {} }}\nactions = [\"strike\"]\n",
        levels, bare ? 20 * (1 - of_blade) : 20, growth(200, bare ? 20 * (1 - of_blade) : 20));
    for (int s = 0; s < size.slots; ++s) text += fmt::format("[slot.{}]\n", slots[s]);
    if (size.layout == Layout::rings) text += "[slot.ring]\ncount = 2\n";
    if (size.layout == Layout::tiers) text += "[tier.common]\nrank = 1\n[tier.rare]\nrank = 2\n";
    struct Kind {
        const char *foe, *action;
        double health, attack;
        int count;
    };
    for (const Kind& kind : {Kind{"brute", "strike", 260, 15, 1}, Kind{"bell", "ring", 260, 15, 1},
                             Kind{"pack", "strike", 90, 5, 3}})
        text += fmt::format("[foe.{0}]\nbase = {{ max_health = {1}, attack = {2} }}\n"
                            "growth = {{ {3} }}\nactions = [\"{4}\"]\n"
                            "[encounter.{0}s]\nfoes = [ {{ foe = \"{0}\", count = {5} }} ]\n",
                            kind.foe, kind.health, kind.attack, growth(kind.health, kind.attack),
                            kind.action, kind.count);
    if (size.layout == Layout::potions) text += "[carry]\ncapacity = \"1\"\nbag = 2\n";
    return text + "[audit]\nstep = 2\n";
}

class Planter {
  public:
    Planter(std::uint64_t seed, const PlantedSize& size) : random_(seed), size_(size) {}

    PlantedArmoury make() {
        result_.text = frame(size_.generations * levels_a_generation, size_);
        result_.ladder = size_.layout == Layout::ladder;
        for (const bool rare : {false, true}) {
            if (rare && size_.layout != Layout::tiers) break;
            rare_ = rare;
            for (int slot = 0; slot < size_.slots + (size_.layout == Layout::rings); ++slot) {
                slot_ = slot == size_.slots ? "ring" : slots[slot];
                for (int generation = 0; generation < size_.generations; ++generation)
                    plant_group(slot, generation);
            }
        }
        if (size_.layout == Layout::potions) plant_potions();
        return std::move(result_);
    }

  private:
    /// Nothing of a group can be used twice in a fight.
    void potion(const std::string& group, const std::string& name, double percent) {
        last_ = group + "_" + name;
        result_.text += fmt::format("[effect.{0}]\npercent = {{ attack = {2:.3f} }}\n"
                                    "[item.{0}]\n[item.{0}.use]\neffect = \"{0}\"\n"
                                    "duration = \"always\"\ncooldown = 100000\ngroup = \"{1}\"\n",
                                    last_, group, percent);
    }

    void plant_potions() {
        for (int n = 0; n < size_.alike; ++n)
            potion("draught", fmt::format("fair{}", n), 5 * uniform(0.98, 1.02));
        if (uniform(0, 1) < 0.5) {
            potion("draught", "dominant", 8);
            result_.planted.emplace(last_, Planted::dominant);
        }
        if (uniform(0, 1) < 0.5) {
            potion("draught", "useless", 0.2);
            result_.planted.emplace(last_, Planted::useless);
        }
        const bool strong = uniform(0, 1) < 0.5;
        potion("tonic", "alone", strong ? 30 : 2);
        if (strong) result_.planted.emplace(last_, Planted::dominant);
    }

    double uniform(double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(random_);
    }

    void plant_group(int slot, int generation) {
        // What overstays fills the next generation's place, where nothing else is planted.
        const bool planted = uniform(0, 1) < size_.share && blocked_ != std::pair(slot, generation);
        const auto kind = static_cast<Planted>(
            std::uniform_int_distribution<int>(0, static_cast<int>(planted_kinds) - 1)(random_));
        const bool room = planted && has_room(slot, generation, kind);
        const int alike = result_.ladder ? (room ? 0 : 1) : size_.alike;
        for (int n = 0; n < alike; ++n)
            item(slot, generation, fmt::format("fair{}", n), uniform(0.98, 1.02), n);
        if (!room) return;
        const bool never_worn = kind == Planted::useless || kind == Planted::burden;
        if (result_.ladder && never_worn)
            result_.planted.emplace(fmt::format("{}{}_fair0", slot_, generation - 1),
                                    Planted::overstaying);
        planted_ = {slot, generation};
        switch (kind) {
        case Planted::dominant: plant(slot, generation, kind, is_blade(slot) ? 1.3 : 1.55); break;
        case Planted::useless:
            plant(slot, generation, kind, is_blade(slot) ? 0.02 : result_.ladder ? 0.1 : 0.3);
            break;
        case Planted::burden: plant(slot, generation, kind, -0.3); break;
        case Planted::twin:
            plant(slot, generation, kind, 1);
            twin();
            break;
        case Planted::niche: niche(slot, generation); break;
        case Planted::overstaying:
            plant(slot, generation, kind, growth_rate * 1.05);
            blocked_ = {slot, generation + 1};
            break;
        case Planted::idle: idle(slot, generation); break;
        }
    }

    /// What is good against one encounter is so at any level: in its slot there is no other, and
    /// nothing that it would keep from being the best everywhere.
    bool has_room(int slot, int generation, Planted kind) {
        const bool niche = kind == Planted::niche;
        const bool best = kind == Planted::dominant || kind == Planted::overstaying;
        // On a ladder what is wrong is seen beside what came before it and was fair.
        if (result_.ladder && (generation == 0 || planted_ == std::pair(slot, generation - 1) ||
                               blocked_ == std::pair(slot, generation - 1) || niche ||
                               kind == Planted::dominant || kind == Planted::twin))
            return false;
        if (niche && (is_blade(slot) || rare_)) return false;
        // What is left of a common thing once rare ones of the next generation are there?
        if (kind == Planted::overstaying &&
            (generation + 1 == size_.generations || (size_.layout == Layout::tiers && !rare_) ||
             common_dominants_.contains({slot, generation + 1})))
            return false;
        if ((niche || best) && niches_.contains(slot)) return false;
        if (niche && bests_.contains(slot)) return false;
        if (niche) niches_.insert(slot);
        if (best) bests_.insert(slot);
        if (kind == Planted::dominant && !rare_) common_dominants_.insert({slot, generation});
        return true;
    }

    [[nodiscard]] bool is_blade(int slot) const {
        return slot == 0 && size_.layout == Layout::bare_hands;
    }

    /// On a ladder slots take turns.
    [[nodiscard]] int level_of(int slot, int generation) const {
        return 1 + generation * levels_a_generation + (result_.ladder ? slot % 4 : 0);
    }

    std::string head(int slot, int generation, const std::string& name) {
        last_ = fmt::format("{}{}_{}{}", slot_, generation, rare_ ? "rare_" : "", name);
        std::string text =
            fmt::format("slot = \"{}\"\nlevel = {}\n", slot_, level_of(slot, generation));
        if (size_.layout == Layout::tiers)
            text += fmt::format("tier = \"{}\"\n", rare_ ? "rare" : "common");
        return text;
    }

    /// What the character has by itself, against what it has at level 1.
    static double base(int generation) { return std::pow(growth_rate, generation); }

    void item(int slot, int generation, const std::string& name, double factor, int words) {
        static constexpr const char* unseen[] = {"glint", "hum", "scent", "weave", "grain"};
        const double share =
            (is_blade(slot) ? of_blade : worth) * factor * base(generation) * (rare_ ? 1.33 : 1);
        const bool attacks = slot % 2 == 0;
        body_ = head(slot, generation, name) +
                fmt::format("add = {{ {} = {:.3f}, {} = 1 }}\n", attacks ? "attack" : "max_health",
                            share * (attacks ? 20 : 200), unseen[words % 5]);
        result_.text += fmt::format("[item.{}]\n{}", last_, body_);
    }

    void plant(int slot, int generation, Planted kind, double factor) {
        item(slot, generation, planted_names[static_cast<int>(kind)], factor, size_.alike);
        result_.planted.emplace(last_, kind);
    }

    void twin() {
        result_.text += fmt::format("[item.{}_too]\n{}", last_, body_);
        result_.planted.emplace(last_ + "_too", Planted::twin);
    }

    void niche(int slot, int generation) {
        result_.text += adding(slot, generation, "niche", "deafness = 16");
        result_.planted.emplace(last_, Planted::niche);
    }

    void idle(int slot, int generation) {
        result_.text +=
            adding(slot, generation, "idle", rare_ ? "glint = 25, hum = 3" : "glint = 20, hum = 3");
        result_.planted.emplace(last_, Planted::idle);
    }

    std::string adding(int slot, int generation, const std::string& name, const char* amounts) {
        const std::string text = head(slot, generation, name);
        return fmt::format("[item.{}]\n{}add = {{ {} }}\n", last_, text, amounts);
    }

    std::mt19937_64 random_;
    PlantedSize size_;
    PlantedArmoury result_;
    std::string last_, body_, slot_;
    bool rare_ = false;
    std::pair<int, int> blocked_ = {-1, -1}, planted_ = {-1, -1};
    std::set<int> niches_, bests_;                   ///< slots that have one
    std::set<std::pair<int, int>> common_dominants_; ///< slot and generation; a common thing
};

/// What a verdict tells of an item.
std::set<Planted> told_of(const ItemVerdict& verdict) {
    std::set<Planted> told;
    if (verdict.verdict == Verdict::dominant) told.insert(Planted::dominant);
    if (verdict.verdict == Verdict::useless && !verdict.overshadowed_by.given())
        told.insert(Planted::useless);
    if (verdict.verdict == Verdict::burden) told.insert(Planted::burden);
    if (verdict.verdict == Verdict::niche) told.insert(Planted::niche);
    if (!verdict.twins.empty()) told.insert(Planted::twin);
    if (verdict.verdict == Verdict::idle) told.insert(Planted::idle);
    if (verdict.overstays) told.insert(Planted::overstaying);
    return told;
}

/// What was planted in an item; what overstays is dominant while it is new.
std::set<Planted> planted_in(const PlantedArmoury& planted, const std::string& id) {
    const auto at = planted.planted.find(id);
    if (at == planted.planted.end()) return {};
    if (at->second == Planted::overstaying && !planted.ladder)
        return {Planted::overstaying, Planted::dominant};
    return {at->second};
}

} // namespace

PlantedArmoury make_planted(std::uint64_t seed, const PlantedSize& size) {
    return Planter(seed, size).make();
}

Found::OfKind Found::all() const {
    OfKind sum;
    for (const OfKind& one : kinds) {
        sum.planted += one.planted;
        sum.found += one.found;
        sum.told += one.told;
        sum.rightly += one.rightly;
    }
    return sum;
}

double Found::recall() const {
    return all().planted == 0 ? 1 : double(all().found) / all().planted;
}

double Found::precision() const {
    return all().told == 0 ? 1 : double(all().rightly) / all().told;
}

void Found::add(const Found& other) {
    for (std::size_t k = 0; k < planted_kinds; ++k) {
        kinds[k].planted += other.kinds[k].planted;
        kinds[k].found += other.kinds[k].found;
        kinds[k].told += other.kinds[k].told;
        kinds[k].rightly += other.kinds[k].rightly;
    }
    items += other.items;
    wrong += other.wrong;
}

Found audit_planted(const PlantedArmoury& planted) {
    Sources sources;
    sources.add("armoury.toml", planted.text);
    const ReadArmoury read = read_sources(std::move(sources), {});
    if (!read.usable()) throw std::runtime_error("the planted armoury has mistakes");
    AuditOptions options;
    options.levels = read.armoury.levels;
    options.step = read.armoury.audit.step;
    Found found;
    const AuditResult result = audit(read.armoury, options);
    std::vector<ItemVerdict> verdicts = result.items;
    for (const ConsumableVerdict& one : result.consumables) verdicts.push_back(one.judged);
    for (const ItemVerdict& verdict : verdicts) {
        const std::string& id = read.armoury.at(verdict.item).id;
        const std::set<Planted> told = told_of(verdict);
        const std::set<Planted> is = planted_in(planted, id);
        ++found.items;
        for (std::size_t k = 0; k < planted_kinds; ++k) {
            const auto kind = static_cast<Planted>(k);
            Found::OfKind& of_kind = found.kinds[k];
            of_kind.planted += is.contains(kind);
            of_kind.told += told.contains(kind);
            of_kind.found += is.contains(kind) && told.contains(kind);
            of_kind.rightly += is.contains(kind) && told.contains(kind);
            if (is.contains(kind) && !told.contains(kind))
                found.wrong +=
                    fmt::format("{}: not told to be {} but {}: {}\n", id, planted_names[k],
                                verdict_name(verdict.verdict), verdict.sentence);
            if (told.contains(kind) && !is.contains(kind))
                found.wrong +=
                    fmt::format("{}: told {}: {}\n", id, planted_names[k], verdict.sentence);
        }
    }
    return found;
}

} // namespace panoplon::test
