#include "support/planted.h"

#include "armoury/read.h"
#include "judge/audit/audit.h"

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

/// The fight and who is in it; `levels` in all.
std::string frame(int levels, int slot_count) {
    std::string text =
        fmt::format("[armoury]\nformat = 1\nname = \"Planted\"\nlevels = [1, {}]\n"
                    "[combat]\nhealth = \"health\"\n"
                    "[stat.attack]\n[stat.max_health]\n[stat.deafness]\nmax = 90\n"
                    "[stat.glint]\n[stat.hum]\n[stat.scent]\n[stat.weave]\n[stat.grain]\n"
                    "[pool.health]\nmax = \"max_health\"\n"
                    "[damage.blunt]\nmitigated = \"amount\"\n"
                    "[damage.tone]\nmitigated = \"amount * (1 - other.deafness / 100)\"\n"
                    "[action.strike]\nevery = \"1\"\ndeals = {{ blunt = \"self.attack\" }}\n"
                    "[action.ring]\nevery = \"1\"\ndeals = {{ tone = \"self.attack\" }}\n"
                    "[character.hero]\nbase = {{ max_health = 200, attack = 20 }}\n"
                    "growth = {{ {} }}\nactions = [\"strike\"]\n",
                    levels, growth(200, 20));
    for (int s = 0; s < slot_count; ++s) text += fmt::format("[slot.{}]\n", slots[s]);
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
    return text + "[audit]\nstep = 2\n";
}

class Planter {
  public:
    Planter(std::uint64_t seed, const PlantedSize& size) : random_(seed), size_(size) {}

    PlantedArmoury make() {
        result_.text = frame(size_.generations * levels_a_generation, size_.slots);
        for (int slot = 0; slot < size_.slots; ++slot)
            for (int generation = 0; generation < size_.generations; ++generation)
                plant_group(slot, generation);
        return std::move(result_);
    }

  private:
    double uniform(double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(random_);
    }

    void plant_group(int slot, int generation) {
        for (int n = 0; n < size_.alike; ++n)
            item(slot, generation, fmt::format("fair{}", n), uniform(0.98, 1.02), n);
        // What overstays fills the next generation's place, where nothing else is planted.
        if (uniform(0, 1) >= size_.share || blocked_ == std::pair(slot, generation)) return;
        const auto kind = static_cast<Planted>(std::uniform_int_distribution<int>(0, 5)(random_));
        if (!has_room(slot, kind)) return;
        switch (kind) {
        case Planted::dominant: plant(slot, generation, kind, 1.55); break;
        case Planted::useless: plant(slot, generation, kind, 0.3); break;
        case Planted::burden: plant(slot, generation, kind, -0.3); break;
        case Planted::twin:
            plant(slot, generation, kind, 1);
            twin();
            break;
        case Planted::niche: niche(slot, generation); break;
        case Planted::overstaying:
            if (generation + 1 == size_.generations) return;
            plant(slot, generation, kind, growth_rate * 1.05);
            blocked_ = {slot, generation + 1};
            break;
        }
    }

    /// What is good against one encounter is so at any level: in its slot there is no other, and
    /// nothing that it would keep from being the best everywhere.
    bool has_room(int slot, Planted kind) {
        const bool niche = kind == Planted::niche;
        const bool best = kind == Planted::dominant || kind == Planted::overstaying;
        if ((niche || best) && niches_.contains(slot)) return false;
        if (niche && bests_.contains(slot)) return false;
        if (niche) niches_.insert(slot);
        if (best) bests_.insert(slot);
        return true;
    }

    /// What the character has by itself, against what it has at level 1.
    static double base(int generation) { return std::pow(growth_rate, generation); }

    void item(int slot, int generation, const std::string& name, double factor, int words) {
        static constexpr const char* unseen[] = {"glint", "hum", "scent", "weave", "grain"};
        const double share = worth * factor * base(generation);
        const bool attacks = slot % 2 == 0;
        last_ = fmt::format("{}{}_{}", slots[slot], generation, name);
        body_ =
            fmt::format("slot = \"{}\"\nlevel = {}\nadd = {{ {} = {:.3f}, {} = 1 }}\n", slots[slot],
                        1 + generation * levels_a_generation, attacks ? "attack" : "max_health",
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
        last_ = fmt::format("{}{}_niche", slots[slot], generation);
        result_.text +=
            fmt::format("[item.{}]\nslot = \"{}\"\nlevel = {}\nadd = {{ deafness = 16 }}\n", last_,
                        slots[slot], 1 + generation * levels_a_generation);
        result_.planted.emplace(last_, Planted::niche);
    }

    std::mt19937_64 random_;
    PlantedSize size_;
    PlantedArmoury result_;
    std::string last_, body_;
    std::pair<int, int> blocked_ = {-1, -1};
    std::set<int> niches_, bests_; ///< slots that have one
};

/// What a verdict tells of an item.
std::set<Planted> told_of(const ItemVerdict& verdict) {
    std::set<Planted> told;
    if (verdict.verdict == Verdict::dominant) told.insert(Planted::dominant);
    if (verdict.verdict == Verdict::useless) told.insert(Planted::useless);
    if (verdict.verdict == Verdict::burden) told.insert(Planted::burden);
    if (verdict.verdict == Verdict::niche) told.insert(Planted::niche);
    if (!verdict.twins.empty()) told.insert(Planted::twin);
    if (verdict.overstays) told.insert(Planted::overstaying);
    return told;
}

/// What was planted in an item; what overstays is dominant while it is new.
std::set<Planted> planted_in(const PlantedArmoury& planted, const std::string& id) {
    const auto at = planted.planted.find(id);
    if (at == planted.planted.end()) return {};
    if (at->second == Planted::overstaying) return {Planted::overstaying, Planted::dominant};
    return {at->second};
}

} // namespace

PlantedArmoury make_planted(std::uint64_t seed, const PlantedSize& size) {
    return Planter(seed, size).make();
}

void Found::add(const Found& other) {
    planted += other.planted;
    found += other.found;
    told += other.told;
    rightly += other.rightly;
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
    for (const ItemVerdict& verdict : audit(read.armoury, options).items) {
        const std::string& id = read.armoury.at(verdict.item).id;
        const std::set<Planted> told = told_of(verdict);
        const std::set<Planted> is = planted_in(planted, id);
        const auto name = [](Planted kind) { return planted_names[static_cast<int>(kind)]; };
        for (const Planted kind : is) {
            ++found.planted;
            found.found += told.contains(kind);
            if (!told.contains(kind))
                found.wrong += fmt::format("{}: not told to be {} but {}\n", id, name(kind),
                                           verdict_name(verdict.verdict));
        }
        for (const Planted kind : told) {
            ++found.told;
            found.rightly += is.contains(kind);
            if (!is.contains(kind)) found.wrong += fmt::format("{}: told {}\n", id, name(kind));
        }
    }
    return found;
}

} // namespace panoplon::test
