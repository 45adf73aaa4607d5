#include "judge/audit/verdict_sentence.h"

#include "base/text.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

std::string in_levels(const LevelRange& levels) {
    return levels.first == levels.last ? fmt::format("at level {}", levels.first)
                                       : fmt::format("in levels {}–{}", levels.first, levels.last);
}

/// A share of contexts, as a whole percentage; neither 0 nor 100 % where it is not.
std::string share_words(double share) {
    if (share > 0 && share < 0.005) return "under 1 %";
    if (share < 1 && share > 0.995) return "over 99 %";
    return fmt::format("{:.0f} %", share * 100);
}

class Sentence {
  public:
    Sentence(const Judging& judging, const ItemVerdict& verdict)
        : judging_(judging),
          armoury_(judging.armoury),
          verdict_(verdict),
          item_(armoury_.at(verdict.item)) {}

    [[nodiscard]] std::string text() const {
        std::string text = of_verdict();
        if (verdict_.contexts > 0 && verdict_.contexts * 10 < verdict_.seen)
            text += fmt::format(" It matters in {} of {} only.", verdict_.contexts,
                                counted(verdict_.seen, "context"));
        const bool lacks =
            verdict_.verdict == Verdict::burden || verdict_.verdict == Verdict::useless;
        if (lacks && verdict_.weight_binds && item_.weight > 0)
            text += fmt::format(" Weight binds there, and it weighs {}.",
                                rounded(to_weight(item_.weight), 3));
        if (verdict_.rolled) text += of_rolls(*verdict_.rolled);
        if (verdict_.edge_of)
            text += fmt::format(" On the edge of {}: a difference within roughness would make it "
                                "that.",
                                verdict_name(*verdict_.edge_of));
        if (verdict_.overstays)
            text += fmt::format(" Still best in {} of its contexts {}, though newer things are "
                                "there.",
                                share_words(verdict_.overstay_share),
                                in_levels(verdict_.overstay_levels));
        return text;
    }

  private:
    [[nodiscard]] std::string place() const {
        if (item_.worn()) return armoury_.at(item_.slot).id;
        if (!item_.group().empty()) return "the group " + item_.group();
        return item_.use ? "its use" : "what is spent of it";
    }
    /// What losses are measured by.
    [[nodiscard]] std::string worth() const {
        return verdict_.capped ? "what four typical places are worth"
                               : fmt::format("what {} is worth", place());
    }
    [[nodiscard]] std::string when() const {
        if (verdict_.contexts > 0) return in_levels(verdict_.judged_levels);
        const int first = arrival_of(armoury_, item_);
        int last = armoury_.levels.last;
        if (item_.worn()) last = std::min(last, first + armoury_.audit.window - 1);
        if (verdict_.successor.given())
            last =
                std::min(last, std::max(arrival_of(armoury_, armoury_.at(verdict_.successor)) - 1,
                                        first + armoury_.audit.grace));
        return in_levels({first, std::max(first, last)});
    }
    /// Of the contexts that count.
    [[nodiscard]] std::string picks() const {
        return fmt::format("Best in {} of its contexts {}", share_words(verdict_.pick_share),
                           when());
    }

    [[nodiscard]] std::string of_verdict() const {
        if (verdict_.overshadowed_by.given())
            return fmt::format("It loses {:.0f} % of {} {} at the least, but to {} alone, which is "
                               "dominant: look at that first.",
                               verdict_.shortfall.min * 100, worth(), when(),
                               armoury_.at(verdict_.overshadowed_by).id);
        switch (verdict_.verdict) {
        case Verdict::unreachable:
            return fmt::format("Nobody gets to {} it: {}.", item_.worn() ? "wear" : "use",
                               judging_.paper[verdict_.item.index()].unreachable);
        case Verdict::idle: return idle();
        case Verdict::unjudged: return unjudged();
        case Verdict::burden:
            return fmt::format("{} is better everywhere {}; give it something, or take off what "
                               "it costs.",
                               item_.worn() ? fmt::format("Wearing nothing on {}", place())
                                            : "Packing nothing",
                               when());
        case Verdict::useless:
            return fmt::format("Even where it does best it loses {:.0f} % of {} {}; it needs "
                               "more, or to come earlier.",
                               verdict_.shortfall.min * 100, worth(), when());
        case Verdict::outclassed:
            return fmt::format("{} is no worse in anything and better in something; give this one "
                               "something of its own.",
                               armoury_.at(verdict_.outclassed_by.front()).id);
        case Verdict::dominant: return dominant();
        case Verdict::strong:
            return fmt::format("{}, and without it {:.0f} % of {} is lost.", picks(),
                               verdict_.grip.mean * 100, worth());
        case Verdict::niche:
            if (verdict_.only_against.given())
                return fmt::format("Best against {} only, {}.",
                                   armoury_.at(verdict_.only_against).id, when());
            return picks() + ": seldom, but then the one to wear.";
        case Verdict::sound: return sound();
        case Verdict::weak:
            return fmt::format("Never comes within {:.0f} % of {} {}; a little more would do.",
                               verdict_.shortfall.min * 100, worth(), when());
        }
        return {};
    }

    [[nodiscard]] std::string idle() const {
        std::vector<std::string> names;
        for (const StatId stat : verdict_.unread) names.push_back(armoury_.at(stat).id);
        return fmt::format("No formula of a fight reads {}: fights say nothing of it.",
                           join(names, ", "));
    }

    [[nodiscard]] std::string unjudged() const {
        if (verdict_.shut_out)
            return fmt::format("No legal loadout has it {}: whatever else is worn, weight, the "
                               "bag or what is asked for leaves no room.",
                               when());
        if (verdict_.needed) return fmt::format("No legal loadout does without it {}.", when());
        if (verdict_.seen == 0) return fmt::format("No context {} was looked at.", when());
        return fmt::format("{} matters by 0.5 % {}.",
                           item_.worn()            ? "Nothing on " + place()
                           : item_.group().empty() ? "It nowhere"
                                                   : "Nothing of " + place(),
                           when());
    }

    [[nodiscard]] std::string of_rolls(const RolledVerdicts& rolled) const {
        std::string text;
        if (rolled.worst != verdict_.verdict || rolled.best != verdict_.verdict)
            text = fmt::format(" With its worst rolls it is {}, with its best {}.",
                               verdict_name(rolled.worst), verdict_name(rolled.best));
        if (rolled.outweigh())
            text += fmt::format(" The rolls matter more than the thing: from the worst to the best "
                                "they move the margin by {}, having it by {}.",
                                percent(std::expm1(rolled.spread)),
                                percent(std::expm1(std::max(0.0, rolled.thing))));
        return text;
    }

    [[nodiscard]] std::string dominant() const {
        if (verdict_.contested > 0 && verdict_.grip.mean >= armoury_.audit.dominant_grip)
            return fmt::format("Best in {} of its contexts beside rivals {}, and without it "
                               "{:.0f} % of {} is lost: it leaves no choice.",
                               share_words(verdict_.contested_pick_share), when(),
                               verdict_.grip.mean * 100, worth()) +
                   overshadows();
        return fmt::format("{}, and one unit is worth {:.1f} times a typical place of gear.",
                           picks(), verdict_.unit_of_place);
    }

    [[nodiscard]] std::string overshadows() const {
        if (verdict_.overshadows.empty()) return "";
        std::vector<std::string> names;
        for (const ItemId item : verdict_.overshadows) names.push_back(armoury_.at(item).id);
        return fmt::format(" Without it {} would be fair, which beside it {} not.",
                           join(names, ", "), names.size() == 1 ? "is" : "are");
    }

    [[nodiscard]] std::string sound() const {
        if (verdict_.unrivalled) {
            std::string text = picks();
            if (item_.worn()) text += ": the one to wear on " + place();
            if (verdict_.successor.given())
                text += fmt::format(" until {} at level {}", armoury_.at(verdict_.successor).id,
                                    arrival_of(armoury_, armoury_.at(verdict_.successor)));
            return text + ". It has no rival.";
        }
        if (verdict_.pick_share >= 0.5) return picks() + ", and others come close.";
        if (verdict_.pick_share > 0)
            return fmt::format("{}, and elsewhere it loses {:.0f} % of {}.", picks(),
                               verdict_.shortfall_elsewhere * 100, worth());
        return fmt::format("Never best {}, but comes within {:.0f} % of {}.", when(),
                           verdict_.shortfall.min * 100, worth());
    }

    const Judging& judging_;
    const Armoury& armoury_;
    const ItemVerdict& verdict_;
    const Item& item_;
};

} // namespace

std::string sentence_of(const Judging& judging, const ItemVerdict& verdict) {
    return Sentence(judging, verdict).text();
}

} // namespace panoplon
