#include "judge/search/seen_outfits.h"

#include <map>

namespace panoplon {

namespace {

/// Numbers in place of names, which are written once: most outfits of a context share most things.
class NameList {
  public:
    [[nodiscard]] Answer number(const Answer& name) {
        const auto& text = name.get_ref<const std::string&>();
        return numbers_.emplace(text, numbers_.size()).first->second;
    }
    [[nodiscard]] Answer names() const {
        std::vector<std::string> list(numbers_.size());
        for (const auto& [name, number] : numbers_) list[number] = name;
        return list;
    }

  private:
    std::map<std::string, std::size_t> numbers_;
};

/// Gives what stands in a place, and in its sockets, other names: `rename(name)`.
template <class Rename>
void rename_placed(Answer& placed, const Rename& rename) {
    if (placed.is_null()) return;
    placed.at(0) = rename(placed.at(0));
    for (Answer& inner : placed.at(1)) rename_placed(inner, rename);
}

template <class Rename>
void rename_outfit(Answer& outfit, const Rename& rename) {
    for (Answer& placed : outfit.at("places")) rename_placed(placed, rename);
    for (Answer& packed : outfit.at("pack")) packed.at(0) = rename(packed.at(0));
}

/// Whether there was anything to leave out.
bool leave_out_unknown(Answer& outfit, const AnswerNames& names) {
    bool any = false;
    for (Answer& placed : outfit.at("places")) {
        if (placed.is_null()) continue;
        if (!names.knows(placed.at(0))) {
            placed = nullptr;
            any = true;
            continue;
        }
        for (Answer& inner : placed.at(1))
            if (!inner.is_null() && !names.knows(inner.at(0))) {
                inner = nullptr;
                any = true;
            }
    }
    Answer pack = Answer::array();
    for (Answer& packed : outfit.at("pack"))
        if (names.knows(packed.at(0)))
            pack.push_back(std::move(packed));
        else
            any = true;
    outfit["pack"] = std::move(pack);
    return any;
}

/// Keys of an outfit are known by their place.
constexpr const char* keys_of_outfit[] = {"margin", "reach", "places", "pack", "points"};

} // namespace

SeenOutfits::SeenOutfits(const std::vector<Found>& outfits, const AnswerNames& names) {
    NameList list;
    Answer written = Answer::array();
    for (const Found& found : outfits) {
        Answer outfit = names.write(found);
        rename_outfit(outfit, [&](const Answer& name) { return list.number(name); });
        Answer values = Answer::array();
        for (const char* key : keys_of_outfit) values.push_back(std::move(outfit.at(key)));
        written.push_back(std::move(values));
    }
    Answer::to_cbor(Answer::array({list.names(), std::move(written)}), bytes_);
}

std::vector<Found> SeenOutfits::read(const AnswerNames& names) const {
    std::vector<Found> outfits;
    if (bytes_.empty()) return outfits;
    const Answer all = Answer::from_cbor(bytes_);
    const Answer& list = all.at(0);
    for (const Answer& values : all.at(1)) {
        Answer outfit;
        for (std::size_t i = 0; i < std::size(keys_of_outfit); ++i)
            outfit[keys_of_outfit[i]] = values.at(i);
        rename_outfit(outfit,
                      [&](const Answer& number) { return list.at(number.get<std::size_t>()); });
        const bool whole = !leave_out_unknown(outfit, names);
        try {
            outfits.push_back(names.read(outfit));
            outfits.back().any = whole;
        } catch (const std::out_of_range&) { // it has another shape now
        }
    }
    return outfits;
}

} // namespace panoplon
