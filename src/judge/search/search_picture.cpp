// The picture of a context: around its best, the centre, what each single exchange does to the log
// margin, as if the load's share and the pieces of sets stayed the centre's and no limit were kept.
// Log margins nearly add up over places and packed things, so what is best under all limits at
// once, whatever is asked for besides, is a choice of one option for each place and consumable
// (choices.h): it leads to where climbs by single exchanges can't go, since weight, the bag or what
// is asked for stands in their way. A picture is rough (one fight tells a gain), so what it sees is
// only where a search looks: the first few choices are fought, and what beats the best so far is
// climbed from.
#include "judge/search/picture.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

namespace {

constexpr double no_limit = 1e12;

} // namespace

Search::Search(Search&&) noexcept = default;
Search::~Search() = default;

/// The load share above which the next band, or nothing, is to be had.
double Search::upper_edge(int band) const {
    const auto next = static_cast<std::size_t>(band + 1);
    double edge = armoury_.carry.limit;
    if (next < armoury_.carry.bands.size()) edge = std::min(edge, armoury_.carry.bands[next].edge);
    return edge;
}

/// What one fight at the centre's margin leaves over, or leaves the foes.
double Search::held_remainder(const Candidate& candidate, const Held& held, double strength) {
    Outfit outfit = outfit_of(candidate);
    outfit.held_pieces = held.pieces;
    set_up_character(armoury_, outfit, base_, character_);
    if (armoury_.carry.capacity.given()) {
        Deriver& deriver = engine_.deriver();
        deriver.derive(base_, character_.sums, context_.level, stats_);
        const double capacity = deriver.capacity(stats_, context_.level) + character_.granted;
        const Load load = weigh(armoury_.carry, worn_weight(armoury_, outfit),
                                pack_weight(armoury_, outfit), capacity);
        if (capacity > 0 && std::isfinite(held.share))
            character_.worn += to_thousandths(held.share * capacity) - load.carried;
    }
    prepared_ = nullptr;
    // An outfit that no limit is kept for may well be one that can't fight: then it wins nothing.
    double most = -1;
    orders_ = orders_of(outfit);
    const bool known = knows_order();
    for (std::size_t i = known ? first_order() : 0; i < orders_.size(); ++i) {
        character_.actions = orders_[i];
        engine_.prepare_character(character_);
        const FightResult& result = engine_.run(strength, std::nullopt, Detail::outcome);
        if (!result.error) most = std::max(most, result.remainder);
        if (known) break;
    }
    return most;
}

double Search::held_gain(const Candidate& candidate, const Held& held, const Picture& picture) {
    const double left = held_remainder(candidate, held, picture.strength);
    return left * (left > 0 ? picture.up : picture.down);
}

/// What an outfit uses of what is limited under a band.
ChoiceAmounts Search::amounts_of(const Outfit& outfit, int band) {
    ChoiceAmounts amounts = {};
    if (armoury_.carry.capacity.given()) {
        set_up_character(armoury_, outfit, base_, character_);
        Deriver& deriver = engine_.deriver();
        deriver.derive(base_, character_.sums, context_.level, stats_);
        const double capacity = deriver.capacity(stats_, context_.level) + character_.granted;
        const double carried = to_weight(worn_share(armoury_.carry, worn_weight(armoury_, outfit)) +
                                         pack_weight(armoury_, outfit));
        const double upper = upper_edge(band);
        if (upper < no_limit) amounts[over_edge] = carried - upper * capacity;
        if (const Band* lower = armoury_.carry.band(band))
            amounts[under_edge] = lower->edge * capacity - carried;
    }
    const std::int64_t bag = bag_of(outfit);
    if (bag != unlimited)
        amounts[stack_amount] = static_cast<double>(pack_stacks(armoury_, outfit) - bag);
    if (limits_.value) amounts[value_amount] = value_of(armoury_, outfit);
    return amounts;
}

std::vector<std::int64_t> Search::counts_to_try(std::size_t consumable, std::int64_t now) const {
    const ItemId item = wardrobe_.consumables()[consumable];
    const std::int64_t stack = one_stack(item);
    const std::int64_t most = most_units(item);
    std::vector<std::int64_t> counts = {0, 1, 2, now - 1, now, now + 1, stack, now + stack};
    std::erase_if(counts, [&](std::int64_t count) {
        return count < 0 || (most != unlimited && count > most);
    });
    std::sort(counts.begin(), counts.end());
    counts.erase(std::unique(counts.begin(), counts.end()), counts.end());
    return counts;
}

/// Nothing, and each thing that can be worn there, with its sockets empty and with the best
/// fillings. What other places lose to it is their own "nothing", which comes first.
void Search::paint_place(std::size_t place, const Held& held, Picture& picture) {
    const SlotId slot = wardrobe_.places()[place];
    std::vector<Candidate> candidates;
    const auto add = [&](Candidate candidate) {
        const bool known =
            std::any_of(candidates.begin(), candidates.end(), [&](const Candidate& one) {
                return one.places[place] == candidate.places[place];
            });
        if (!known) candidates.push_back(std::move(candidate));
    };
    for (const ItemId item : options_[slot.index()]) {
        Candidate with = picture.centre;
        wardrobe_.put(with, {slot, place, {}}, item);
        add(with);
        for (const SlotId socket : armoury_.at(item).sockets)
            for (const ItemId filling : fillings_[socket.index()]) {
                Candidate filled = with;
                for (const Position& position : wardrobe_.positions(with))
                    if (position.place == place && position.path.empty())
                        wardrobe_.fill(filled, position, filling);
                add(std::move(filled));
            }
    }
    // Of what stands there, each socket by itself.
    for (const Position& position : wardrobe_.positions(picture.centre)) {
        if (position.place != place || position.path.empty()) continue;
        for (const ItemId filling : options_[position.slot.index()]) {
            Candidate with = picture.centre;
            wardrobe_.put(with, position, filling);
            add(std::move(with));
        }
        Candidate without = picture.centre;
        wardrobe_.put(without, position, {});
        add(std::move(without));
    }
    PictureGroup& group = picture.groups[place];
    for (const Candidate& candidate : candidates) {
        PictureGroup::Option option;
        option.placed = candidate.places[place];
        ChoiceOption& choice = option.choice;
        choice.gain = candidate == picture.centre ? 0 : held_gain(candidate, held, picture);
        option.outfit = outfit_of(candidate);
        for (std::size_t other = 0; other < candidate.places.size(); ++other) {
            if (other == place || candidate.places[other] == picture.centre.places[other]) continue;
            choice.gain -= picture.groups[other].options.front().choice.gain;
            option.pushed_out.push_back(other);
        }
        for_each_item(option.placed, [&](ItemId item) {
            const Item& one = armoury_.at(item);
            for (const SlotId taken : one.takes) choice.takes.push_back(taken.index());
            const auto unique = std::find(uniques_.begin(), uniques_.end(), one.unique);
            if (unique != uniques_.end())
                choice.takes.push_back(armoury_.slots.size() +
                                       static_cast<std::size_t>(unique - uniques_.begin()));
            if (one.set.given()) choice.pieces.push_back(one.set.index());
        });
        group.options.push_back(std::move(option));
    }
}

/// Numbers of a consumable.
void Search::paint_pack(std::size_t consumable, const Held& held, Picture& picture) {
    PictureGroup group;
    group.packed = static_cast<int>(consumable);
    group.consumable = wardrobe_.consumables()[consumable];
    const std::int64_t now = picture.centre.counts[consumable];
    for (const std::int64_t count : counts_to_try(consumable, now)) {
        PictureGroup::Option option;
        option.count = count;
        Candidate candidate = picture.centre;
        candidate.counts[consumable] = count;
        if (count != now) option.choice.gain = held_gain(candidate, held, picture) - picture.level;
        option.outfit = outfit_of(candidate);
        group.options.push_back(std::move(option));
    }
    picture.groups.push_back(std::move(group));
}

/// What each number of pieces of a set gains against the centre's, by its steps alone.
void Search::paint_sets(const Held& held, Picture& picture) {
    for (std::size_t s = 0; s < armoury_.sets.size(); ++s) {
        const auto& steps = armoury_.sets[s].steps;
        int most = 0;
        for (const SetStep& step : steps) most = std::max(most, step.count);
        std::vector<double> gains(static_cast<std::size_t>(most) + 1, 0);
        const auto reached = [&](int pieces) {
            return std::count_if(steps.begin(), steps.end(),
                                 [&](const SetStep& step) { return step.count <= pieces; });
        };
        const bool any = std::any_of(wearable_.begin(), wearable_.end(), [&](ItemId item) {
            return armoury_.at(item).set == SetId(s);
        });
        for (int pieces = 0; pieces <= most && any; ++pieces) {
            const auto at = static_cast<std::size_t>(pieces);
            if (reached(pieces) == reached(held.pieces[s])) continue;
            if (pieces > 0 && reached(pieces) == reached(pieces - 1)) {
                gains[at] = gains[at - 1];
                continue;
            }
            Held other = held;
            other.pieces[s] = pieces;
            gains[at] = held_gain(picture.centre, other, picture);
        }
        picture.sets.push_back(std::move(gains));
    }
}

Search::Held Search::held_by(const Candidate& centre) {
    const Outfit outfit = outfit_of(centre);
    Held held{0, set_pieces(armoury_, outfit)};
    if (armoury_.carry.capacity.given()) held.share = outfit_load(engine_.deriver(), outfit).share;
    return held;
}

/// Around what was found.
Search::Picture Search::paint(const Found& found) {
    Picture picture;
    picture.centre = picture.dressed = found.candidate;
    picture.band = look_at(found.candidate).band;
    picture.strength = found.margin.value;
    const Held held = held_by(picture.centre);
    // How a gain shows in what remains: against foes that are a little weaker, and stronger.
    constexpr double little = 1.1;
    const double weaker = held_remainder(picture.centre, held, picture.strength / little);
    const double stronger = held_remainder(picture.centre, held, picture.strength * little);
    if (weaker > 0) picture.up = std::log(little) / weaker;
    if (stronger < 0) picture.down = -std::log(little) / stronger;
    picture.groups.resize(wardrobe_.places().size());
    for (std::size_t p = 0; p < wardrobe_.places().size(); ++p) {
        picture.groups[p].place = p;
        PictureGroup::Option nothing;
        Candidate empty = picture.centre;
        wardrobe_.put(empty, {wardrobe_.places()[p], p, {}}, {});
        if (empty != picture.centre) nothing.choice.gain = held_gain(empty, held, picture);
        nothing.outfit = outfit_of(empty);
        picture.groups[p].options.push_back(std::move(nothing));
    }
    for (std::size_t p = 0; p < wardrobe_.places().size() && !ended(); ++p)
        paint_place(p, held, picture);
    for (std::size_t c = 0; c < usable_.size() && !ended(); ++c)
        if (usable_[c]) paint_pack(c, held, picture);
    if (!error_) paint_sets(held, picture);
    measure_amounts(picture, picture.band);
    return picture;
}

/// The same of places, with what each number of a consumable gains by itself, in a pack that is
/// empty otherwise. Beside others it gains less than alone, and what it takes the place of is worth
/// more without it: between the two pictures lies the truth.
Search::Picture Search::with_empty_pack(const Picture& full) {
    Picture picture = full;
    std::erase_if(picture.groups, [](const PictureGroup& group) { return group.packed >= 0; });
    std::fill(picture.centre.counts.begin(), picture.centre.counts.end(), 0);
    const Held held = held_by(full.centre);
    picture.level = held_gain(picture.centre, held, picture);
    for (std::size_t c = 0; c < usable_.size() && !ended(); ++c)
        if (usable_[c]) paint_pack(c, held, picture);
    measure_amounts(picture, picture.band);
    return picture;
}

/// What each option uses of what is limited under a band, against the centre.
void Search::measure_amounts(Picture& picture, int band) {
    const ChoiceAmounts own = amounts_of(outfit_of(picture.centre), band);
    const ChoiceAmounts dressed = amounts_of(outfit_of(picture.dressed), band);
    for (PictureGroup& group : picture.groups)
        for (PictureGroup::Option& option : group.options) {
            ChoiceAmounts& uses = option.choice.uses;
            uses = amounts_of(option.outfit, band);
            for (std::size_t a = 0; a < choice_amounts; ++a)
                uses[a] -= (group.packed >= 0 ? own : dressed)[a];
            for (const std::size_t other : option.pushed_out)
                for (std::size_t a = 0; a < choice_amounts; ++a)
                    uses[a] -= picture.groups[other].options.front().choice.uses[a];
            uses[changes] =
                group.packed >= 0
                    ? option.count != picture.centre.counts[static_cast<std::size_t>(group.packed)]
                    : option.placed != picture.centre.places[group.place];
        }
    prepared_ = nullptr;
    const double least = to_weight(1) / 2; // half of the least weight: edges are whole weights
    picture.room.fill(no_limit);
    if (armoury_.carry.capacity.given()) {
        const auto next = static_cast<std::size_t>(band + 1);
        const bool next_includes = next < armoury_.carry.bands.size() &&
                                   armoury_.carry.bands[next].edge <= armoury_.carry.limit &&
                                   armoury_.carry.bands[next].includes;
        if (upper_edge(band) < no_limit)
            picture.room[over_edge] = -own[over_edge] + (next_includes ? -least : least);
        if (const Band* lower = armoury_.carry.band(band))
            picture.room[under_edge] = -own[under_edge] + (lower->includes ? least : -least);
    }
    if (bag_of(outfit_of(picture.centre)) != unlimited)
        picture.room[stack_amount] = -own[stack_amount];
    if (limits_.value) picture.room[value_amount] = *limits_.value - own[value_amount];
}

/// Pictures around what was found: under each load band, and with an empty pack beside the full
/// one.
void Search::paint_all(const Found& found) {
    pictures_.clear();
    if (!found.any || found.margin.reach != Reach::within) return;
    const Picture own = paint(found);
    own_band_ = own.band;
    const bool packs = std::any_of(own.centre.counts.begin(), own.centre.counts.end(),
                                   [](std::int64_t count) { return count > 0; });
    const int bands = static_cast<int>(armoury_.carry.bands.size());
    for (int band = no_band; band < bands && !ended(); ++band) {
        Picture picture = own;
        if (band != own.band) {
            // What the centre would gain or lose by standing under that band.
            const Band* lower = armoury_.carry.band(band);
            const double from = lower ? lower->edge : 0;
            Held held = held_by(own.centre);
            held.share = (from + std::min(upper_edge(band), 2 * from + 1)) / 2;
            picture.level = held_gain(own.centre, held, own);
            picture.band = band;
            measure_amounts(picture, band);
        }
        if (packs) {
            Picture alone = with_empty_pack(picture);
            alone.level += picture.level;
            pictures_.push_back(std::move(alone));
        }
        pictures_.push_back(std::move(picture));
    }
    for (Picture& picture : pictures_) set_prices(picture);
}

} // namespace panoplon
