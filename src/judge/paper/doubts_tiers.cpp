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
        if (tier.ink.ground) look_at_ground(tier);
        std::vector<std::string> troubles;
        for (const auto& [ground, words] :
             {std::pair{light_ground, "a light ground"}, {dark_ground, "a dark ground"}})
            if (!tier.ink.ground && contrast(tier.ink.colour, ground) < least_contrast)
                troubles.push_back(fmt::format("it has a contrast of {} with {}; {} can be read",
                                               rounded(contrast(tier.ink.colour, ground), 1), words,
                                               rounded(least_contrast, 1)));
        std::vector<Colour> others;
        for (const Tier& other : armoury_.tiers) {
            if (&other == &tier || !other.colour_given) continue;
            if (!other.ink.ground) others.push_back(other.ink.colour);
            if (&other > &tier) continue; // a pair is told once, at the later
            for (const Sight sight : all_sights) {
                if (!alike(tier.ink, other.ink, sight)) continue;
                troubles.push_back(fmt::format("it looks like {} of '{}' to {}",
                                               colour_text(other.ink.colour), other.id,
                                               sight_words(sight)));
                break;
            }
        }
        if (troubles.empty()) return;
        const std::string colour =
            fmt::format("the colour {} of '{}': {}", colour_text(tier.ink.colour), tier.id,
                        join(troubles, "; "));
        if (tier.ink.ground) return doubting_.doubt("tier_colour", "tier", tier, colour);
        const auto better = nearest_clear(tier.ink.colour, others);
        std::string hint = better ? fmt::format("{} would do", colour_text(*better))
                                  : "no colour does beside the others; change them too";
        if (const std::string all = clear_colours(); !all.empty())
            hint += "; colours for all tiers that go together: " + all;
        doubting_.doubt("tier_colour", "tier", tier, colour, std::move(hint));
    }

    /// Neither their colours nor what these stand on tell them apart.
    static bool alike(const Ink& a, const Ink& b, Sight sight) {
        return distance(a.colour, b.colour, sight) < least_distance &&
               distance(a.ground.value_or(light_ground), b.ground.value_or(light_ground), sight) <
                   least_distance;
    }

    void look_at_ground(const Tier& tier) {
        const Ink& ink = tier.ink;
        if (contrast(ink.colour, *ink.ground) < least_contrast_of_text)
            doubting_.doubt(
                "tier_colour", "tier", tier,
                fmt::format("the colour {} of '{}' has a contrast of {} with its ground "
                            "{}; {} can be read",
                            colour_text(ink.colour), tier.id,
                            rounded(contrast(ink.colour, *ink.ground), 1), colour_text(*ink.ground),
                            rounded(least_contrast_of_text, 1)),
                fmt::format("the ground {} would do",
                            colour_text(nearest_ground(*ink.ground, ink.colour))));
    }

    /// One for each tier with a colour, near its own, by rank: each clear of those before it. Told
    /// once; empty where there are none.
    std::string clear_colours() {
        if (told_colours_) return {};
        told_colours_ = true;
        std::vector<const Tier*> tiers;
        for (const Tier& tier : armoury_.tiers)
            if (tier.colour_given && !tier.ink.ground) tiers.push_back(&tier);
        std::sort(tiers.begin(), tiers.end(),
                  [](const Tier* a, const Tier* b) { return a->rank < b->rank; });
        std::vector<Colour> chosen;
        std::vector<std::string> words;
        for (const Tier* tier : tiers) {
            const auto colour = is_clear(tier->ink.colour, chosen)
                                    ? std::optional(tier->ink.colour)
                                    : nearest_clear(tier->ink.colour, chosen);
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
