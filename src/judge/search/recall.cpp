#include "judge/search/recall.h"

#include "base/text.h"

#include <algorithm>
#include <set>

namespace panoplon {

namespace {

/// Numbers and names into one hash, in the order in which they come.
class Hash {
  public:
    void add(std::string_view text) {
        add(text.size());
        value = hash_text(text, value);
    }
    template <class Number>
    void add(const Number& number) requires std::is_arithmetic_v<Number> {
        value = hash_text({reinterpret_cast<const char*>(&number), sizeof number}, value);
    }

    std::uint64_t value = hash_start;
};

/// Items that bear on a context: what can be worn and used there, what has to be there, what allies
/// have, and what comes with any of these.
std::set<ItemId> items_that_bear(const Armoury& armoury, const Search& search) {
    std::set<ItemId> items;
    std::vector<ItemId> open = search.wearable();
    const auto take = [&](const auto& list) { open.insert(open.end(), list.begin(), list.end()); };
    const auto take_packed = [&](const std::vector<PackedItem>& pack) {
        for (const PackedItem& packed : pack) open.push_back(packed.item);
    };
    take(search.usable());
    take(search.limits().with);
    const Encounter& encounter = armoury.at(search.context().encounter);
    take(encounter.requires_worn);
    take(encounter.requires_carried);
    for (const LoadoutId ally : encounter.allies) {
        for_each_worn(armoury.at(ally).worn,
                      [&](const WornItem& worn) { open.push_back(worn.item); });
        take_packed(armoury.at(ally).pack);
    }
    while (!open.empty()) {
        const ItemId item = open.back();
        open.pop_back();
        if (items.insert(item).second) take_packed(armoury.at(item).contains);
    }
    return items;
}

std::uint64_t key_of(const Content& content, const Armoury& armoury,
                     const std::vector<ItemId>& groups, const Search& search,
                     std::string_view what) {
    Hash hash;
    hash.add(what);
    hash.add(content.rules);
    const Context& context = search.context();
    hash.add(content.characters[context.character.index()]);
    hash.add(content.encounters[context.encounter.index()]);
    hash.add(context.level);
    for (const LoadoutId ally : armoury.at(context.encounter).allies) {
        hash.add(content.loadouts[ally.index()]);
        hash.add(content.characters[armoury.at(ally).character.index()]);
    }
    const Limits& limits = search.limits();
    hash.add(limits.highest_rank);
    hash.add(limits.value.value_or(-1));
    hash.add(limits.endless_bag);
    for (const auto* list : {&limits.with, &limits.without}) {
        hash.add(list->size());
        for (const ItemId item : *list) hash.add(armoury.at(item).id);
    }
    for (const ItemId item : items_that_bear(armoury, search)) {
        hash.add(armoury.at(item).id);
        hash.add(armoury.at(groups[item.index()]).id);
        hash.add(content.items[item.index()]);
    }
    return hash.value;
}

} // namespace

AnswerNames::AnswerNames(const Armoury& armoury, const Wardrobe& wardrobe)
    : armoury_(armoury),
      wardrobe_(wardrobe) {
    for (std::size_t i = 0; i < armoury.items.size(); ++i)
        ids_.emplace(armoury.items[i].id, ItemId(i));
}

ItemId AnswerNames::item(const Answer& name) const {
    return ids_.at(name.get_ref<const std::string&>());
}

Answer AnswerNames::write(const Placed& placed) const {
    Answer sockets = Answer::array();
    for (const Placed& inner : placed.sockets) sockets.push_back(write(inner));
    return placed.item.given() ? Answer::array({name(placed.item), std::move(sockets)}) : Answer();
}

Placed AnswerNames::placed(const Answer& answer) const {
    if (answer.is_null()) return {};
    Placed placed{item(answer.at(0)), {}};
    for (const Answer& inner : answer.at(1)) placed.sockets.push_back(this->placed(inner));
    if (placed.sockets.size() != armoury_.at(placed.item).sockets.size())
        throw std::out_of_range("sockets");
    return placed;
}

Answer AnswerNames::write(const Found& found) const {
    if (!found.any) return nullptr;
    Answer answer = {{"margin", found.margin.value},
                     {"reach", static_cast<int>(found.margin.reach)},
                     {"places", Answer::array()},
                     {"pack", Answer::array()}};
    for (const Placed& placed : found.candidate.places) answer["places"].push_back(write(placed));
    for (const PackedItem& packed : wardrobe_.packed(found.candidate))
        answer["pack"].push_back(Answer::array({name(packed.item), packed.count}));
    answer["points"] = found.candidate.points;
    return answer;
}

Found AnswerNames::read(const Answer& answer) const {
    if (answer.is_null()) return {};
    Found found{wardrobe_.bare(), {}, true};
    found.margin.value = answer.at("margin").get<double>();
    const int reach = answer.at("reach").get<int>();
    if (reach < 0 || reach > static_cast<int>(Reach::above)) throw std::out_of_range("reach");
    found.margin.reach = static_cast<Reach>(reach);
    const Answer& places = answer.at("places");
    if (places.size() != found.candidate.places.size()) throw std::out_of_range("places");
    for (std::size_t i = 0; i < places.size(); ++i) found.candidate.places[i] = placed(places[i]);
    const std::vector<ItemId>& consumables = wardrobe_.consumables();
    for (const Answer& packed : answer.at("pack")) {
        const auto at = std::find(consumables.begin(), consumables.end(), item(packed.at(0)));
        if (at == consumables.end()) throw std::out_of_range("pack");
        found.candidate.counts[static_cast<std::size_t>(at - consumables.begin())] =
            packed.at(1).get<std::int64_t>();
    }
    auto points = answer.at("points").get<std::vector<int>>();
    if (points.size() != found.candidate.points.size()) throw std::out_of_range("points");
    found.candidate.points = std::move(points);
    return found;
}

KnownAnswer::KnownAnswer(const Recall& recall, const Armoury& armoury,
                         const std::vector<ItemId>& groups, Search& search, std::string_view what)
    : memory_(recall.memory),
      search_(search),
      names_(armoury, search.wardrobe()) {
    if (memory_) key_ = key_of(recall.content, armoury, groups, search, what);
}

std::optional<Answer> KnownAnswer::find() {
    const auto bytes = memory_ ? memory_->find(key_) : std::nullopt;
    if (!bytes) return std::nullopt;
    Answer answer = Answer::from_cbor(*bytes, true, false);
    if (answer.is_object()) return answer;
    memory_->reject(key_);
    return std::nullopt;
}

void KnownAnswer::keep(const Answer& answer) {
    if (!memory_) return;
    std::string bytes;
    Answer::to_cbor(answer, bytes);
    memory_->keep(key_, bytes);
}

} // namespace panoplon
