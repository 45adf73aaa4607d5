#include "base/colour.h"
#include "base/text.h"
#include "judge/paper/doubting.h"
#include "judge/paper/tier_power.h"

#include <algorithm>

namespace panoplon {

namespace {

class TierDoubts {
  public:
    explicit TierDoubts(Doubting& doubting) : doubting_(doubting), armoury_(doubting.armoury()) {}

    void run() {
        const std::vector<TierPower> powers = tier_powers(armoury_);
        for (std::size_t high = 0; high < armoury_.tiers.size(); ++high)
            for (std::size_t low = 0; low < armoury_.tiers.size(); ++low)
                if (armoury_.tiers[high].rank > armoury_.tiers[low].rank)
                    compare(high, low, powers);
        for (const Tier& tier : armoury_.tiers)
            if (tier.colour_given) look_at_colour(tier);
    }

  private:
    void compare(std::size_t high, std::size_t low, const std::vector<TierPower>& powers) {
        const Tier& higher = armoury_.tiers[high];
        const Tier& lower = armoury_.tiers[low];
        if (higher.budget < lower.budget)
            doubting_.doubt(
                "tier_order", "tier", higher,
                fmt::format("'{}' ranks above '{}' but has the smaller budget: {} against {}",
                            higher.id, lower.id, shortest(higher.budget), shortest(lower.budget)));
        const TierPower& above = powers[high];
        const TierPower& below = powers[low];
        if (above.items >= few && below.items >= few && above.mean < below.mean)
            doubting_.doubt(
                "tier_order", "tier", higher,
                fmt::format("'{}' ranks above '{}' but its items have less on paper: {} of a "
                            "level's points against {}",
                            higher.id, lower.id, percent(above.mean), percent(below.mean)));
    }

    void look_at_colour(const Tier& tier) {
        std::vector<std::string> troubles;
        for (const auto& [ground, words] :
             {std::pair{light_ground, "a light ground"}, {dark_ground, "a dark ground"}})
            if (contrast(tier.colour, ground) < least_contrast)
                troubles.push_back(fmt::format("it has a contrast of {} with {}; {} can be read",
                                               rounded(contrast(tier.colour, ground), 1), words,
                                               rounded(least_contrast, 1)));
        std::vector<Colour> others;
        for (const Tier& other : armoury_.tiers) {
            if (&other == &tier || !other.colour_given) continue;
            others.push_back(other.colour);
            if (&other > &tier) continue; // a pair is told once, at the later
            for (const Sight sight : sights) {
                if (distance(tier.colour, other.colour, sight) >= least_distance) continue;
                troubles.push_back(fmt::format("it looks like {} of '{}' to {}",
                                               colour_text(other.colour), other.id,
                                               sight_words(sight)));
                break;
            }
        }
        if (troubles.empty()) return;
        const auto better = nearest_clear(tier.colour, others);
        std::string hint = better ? fmt::format("{} would do", colour_text(*better))
                                  : "no colour does beside the others; change them too";
        if (const std::string all = clear_colours(); !all.empty())
            hint += "; colours for all tiers that go together: " + all;
        doubting_.doubt("tier_colour", "tier", tier,
                        fmt::format("the colour {} of '{}': {}", colour_text(tier.colour), tier.id,
                                    join(troubles, "; ")),
                        std::move(hint));
    }

    /// One for each tier with a colour, near its own, by rank: each clear of those before it. Told
    /// once; empty where there are none.
    std::string clear_colours() {
        if (told_colours_) return {};
        told_colours_ = true;
        std::vector<const Tier*> tiers;
        for (const Tier& tier : armoury_.tiers)
            if (tier.colour_given) tiers.push_back(&tier);
        std::sort(tiers.begin(), tiers.end(),
                  [](const Tier* a, const Tier* b) { return a->rank < b->rank; });
        std::vector<Colour> chosen;
        std::vector<std::string> words;
        for (const Tier* tier : tiers) {
            const auto colour = is_clear(tier->colour, chosen)
                                    ? std::optional(tier->colour)
                                    : nearest_clear(tier->colour, chosen);
            if (!colour) return {};
            chosen.push_back(*colour);
            words.push_back(tier->id + " " + colour_text(*colour));
        }
        return tiers.size() > 1 ? join(words, ", ") : std::string();
    }

    static constexpr std::size_t few = 3; ///< fewer items say nothing of a tier

    Doubting& doubting_;
    const Armoury& armoury_;
    bool told_colours_ = false;
};

} // namespace

void doubt_tiers(Doubting& doubting) {
    TierDoubts(doubting).run();
}

} // namespace panoplon
