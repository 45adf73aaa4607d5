#include "judge/tune/tuned_number.h"

#include "armoury/keys.h"
#include "base/text.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <fmt/format.h>
#include <limits>

namespace panoplon {

namespace {

constexpr double no_limit = std::numeric_limits<double>::max();

/// What an absent key counts as.
double absent_value(const KeyRow& row, const std::string& key) {
    if (key.find("times.") != std::string::npos) return 1;
    double number = 0;
    std::from_chars(row.fallback.data(), row.fallback.data() + row.fallback.size(), number);
    return number;
}

bool is_number(Type type) {
    switch (type) {
    case Type::number:
    case Type::whole:
    case Type::unlimited_whole:
    case Type::time:
    case Type::timed:
    case Type::amounts:
    case Type::quantity:
    case Type::pool_quantities:
    case Type::counts: return true;
    default: return false;
    }
}

/// The value at a dotted path; a list's places count from 1.
const Node* find_node(const Node& body, const std::string& path) {
    const Node* node = &body;
    for (const std::string& part : split(path, '.')) {
        std::size_t place = 0;
        const auto [end, error] = std::from_chars(part.data(), part.data() + part.size(), place);
        if (node->kind == Node::Kind::list && error == std::errc() &&
            end == part.data() + part.size() && place >= 1 && place <= node->items.size())
            node = &node->items[place - 1];
        else
            node = node->find(part);
        if (!node) return nullptr;
    }
    return node;
}

/// The definition that a whole path begins with, and what is left of the path.
std::optional<std::pair<const RawDefinition*, std::string>> definition_of(const ReadArmoury& read,
                                                                          const std::string& word) {
    for (const RawDefinition& definition : read.definitions) {
        const std::string name =
            definition.kind + "." + (definition.id.empty() ? "" : definition.id + ".");
        if (word.starts_with(name)) return std::pair(&definition, word.substr(name.size()));
    }
    return std::nullopt;
}

/// Where a whole path names a definition that is not there.
std::optional<Failure> no_definition(const ReadArmoury& read, const std::string& word) {
    const std::vector<std::string> parts = split(word, '.');
    if (parts.size() < 3 || !find_kind(parts[0]) || find_key("item", parts[0])) return std::nullopt;
    std::vector<std::string> ids;
    for (const RawDefinition& definition : read.definitions)
        if (definition.kind == parts[0]) ids.push_back(definition.id);
    const auto near = nearest_name(parts[1], ids);
    return Failure{Cause::refused,
                   fmt::format("unknown {} '{}'{}", parts[0], parts[1],
                               near ? fmt::format("; did you mean '{}'?", *near) : ""),
                   {}};
}

Failure no_number(const ReadArmoury& read, const std::string& word) {
    if (const auto failure = no_definition(read, word); failure && !definition_of(read, word))
        return *failure;
    std::vector<std::string> names;
    for (const Stat& stat : read.armoury.stats) names.push_back(stat.id);
    for (const KeyRow& row : key_rows())
        if (row.kind == "item" && is_number(row.type) && row.type != Type::amounts)
            names.emplace_back(row.path);
    const auto near = nearest_name(word, names);
    return {Cause::refused,
            fmt::format("'{}' is no stat and no number of an item{}", word,
                        near ? fmt::format("; did you mean '{}'?", *near) : ""),
            "a stat (guard), one kind of modifier of it (percent.guard), a key (weight, "
            "use.restore.health), or a whole path (effect.ID.percent.guard)"};
}

/// The key of an item that a word means.
Result<std::string> key_of(const ReadArmoury& read, const Item& item, const std::string& word) {
    const auto stat = std::find_if(read.armoury.stats.begin(), read.armoury.stats.end(),
                                   [&](const Stat& one) { return one.id == word; });
    if (stat == read.armoury.stats.end()) return word;
    const StatId id(static_cast<std::size_t>(stat - read.armoury.stats.begin()));
    std::vector<std::string> own;
    for (const Change change : {Change::add, Change::percent, Change::times})
        for (const Amount& amount : item.modifiers.of(change))
            if (amount.stat == id)
                own.push_back(fmt::format("{}.{}", change_names[static_cast<int>(change)], word));
    if (own.size() > 1)
        return Failure{Cause::refused,
                       fmt::format("'{}' has more than one modifier of {}", item.id, word),
                       "say which: " + join(own, ", ")};
    return own.empty() ? "add." + word : own.front();
}

/// What others in its slot have of it, in the middle; 0 for none.
double usual_size(const Armoury& armoury, const TunedNumber& number) {
    const std::vector<std::string> parts = split(number.key, '.');
    std::vector<double> sizes;
    for (const Change change : {Change::add, Change::percent, Change::times}) {
        if (parts.front() != change_names[static_cast<int>(change)]) continue;
        for (const Item& item : armoury.items)
            for (const Amount& amount : item.modifiers.of(change))
                if (item.slot == armoury.at(number.item).slot &&
                    armoury.at(amount.stat).id == parts.back() && amount.amount != 0)
                    sizes.push_back(std::abs(amount.amount));
    }
    if (sizes.empty()) return 0;
    std::sort(sizes.begin(), sizes.end());
    return sizes[sizes.size() / 2];
}

/// What counts as much of it: what it is, what is usual, or 10.
double size_of(const Armoury& armoury, const TunedNumber& number) {
    if (number.key.find("times.") != std::string::npos) return 1;
    if (number.now != 0) return std::abs(number.now);
    const double usual = usual_size(armoury, number);
    constexpr double otherwise = 10;
    return usual > 0 ? usual : otherwise;
}

} // namespace

std::string TunedNumber::name() const {
    if (kind == "item") return key;
    return id.empty() ? kind + "." + key : kind + "." + id + "." + key;
}

std::string TunedNumber::what_if(double value) const {
    return fmt::format("{}.{}{}={}", kind, id.empty() ? "" : id + ".", key, shortest(value));
}

Result<TunedNumber> find_number(const ReadArmoury& read, ItemId item, const std::string& word) {
    const Armoury& armoury = read.armoury;
    TunedNumber number;
    number.item = item;
    number.kind = "item";
    number.id = armoury.at(item).id;
    std::string key;
    if (const auto other = definition_of(read, word)) {
        number.kind = other->first->kind;
        number.id = other->first->id;
        key = other->second;
    } else {
        const Result<std::string> own = key_of(read, armoury.at(item), word);
        if (!own.ok()) return own.failure();
        key = own.value();
    }
    number.key = with_places(number.kind, key);
    const auto located = locate_key(number.kind, without_places(number.kind, number.key));
    if (!located || !is_number(located->row->type)) return no_number(read, word);
    const bool of_table = located->row->type == Type::amounts ||
                          located->row->type == Type::pool_quantities ||
                          located->row->type == Type::counts;
    if (of_table == located->suffix.empty()) return no_number(read, word);
    if (located->row->type == Type::amounts &&
        std::none_of(armoury.stats.begin(), armoury.stats.end(),
                     [&](const Stat& stat) { return stat.id == located->suffix; }))
        return no_number(read, word);
    number.unit = located->row->unit;
    number.whole = located->row->type == Type::whole ||
                   located->row->type == Type::unlimited_whole ||
                   located->row->type == Type::counts;
    number.least = of_table ? -no_limit : std::max(-no_limit, located->row->low);
    number.most = of_table ? no_limit : std::min(no_limit, located->row->high);
    number.now = absent_value(*located->row, number.key);
    for (const RawDefinition& definition : read.definitions) {
        if (definition.kind != number.kind || definition.id != number.id) continue;
        const Node* node = find_node(definition.body, number.key);
        if (!node || !node->given()) continue;
        if (node->kind != Node::Kind::number)
            return Failure{Cause::refused,
                           fmt::format("'{}' is {}: no number to tune", number.name(), node->text),
                           {}};
        number.now = node->number;
        number.given = true;
    }
    return number;
}

std::optional<double> step_of_stat(const Armoury& armoury, const TunedNumber& number) {
    const std::vector<std::string> parts = split(number.key, '.');
    if (parts.size() < 2 || parts[parts.size() - 2] != "add") return std::nullopt;
    for (const Stat& stat : armoury.stats)
        if (stat.id == parts.back() && stat.step > 0) return stat.step;
    return std::nullopt;
}

bool is_whole_everywhere(const Armoury& armoury, const TunedNumber& number) {
    std::size_t whole = 0;
    for (const Change change : {Change::add, Change::percent})
        for (const Item& item : armoury.items)
            for (const Amount& amount : item.modifiers.of(change)) {
                const std::string key = fmt::format("{}.{}", change_names[static_cast<int>(change)],
                                                    armoury.at(amount.stat).id);
                if (number.key != key) continue;
                if (amount.amount != std::floor(amount.amount)) return false;
                ++whole;
            }
    constexpr std::size_t enough = 2;
    return whole >= enough;
}

double resolution(const Armoury& armoury, const TunedNumber& number) {
    if (const std::optional<double> step = step_of_stat(armoury, number)) return *step;
    const double size = size_of(armoury, number);
    constexpr double whole_from = 20; // and larger: nobody writes 20.1
    if (number.whole ||
        (size >= whole_from && size < whole_from * 10 && number.now == std::floor(number.now)))
        return 1;
    constexpr double fine = 100;
    const double power = std::pow(10, std::floor(std::log10(size / fine)));
    const double share = size / fine / power;
    return power * (share >= 5 ? 5 : share >= 2 ? 2 : 1);
}

double on_grid(double value, double step) {
    constexpr double places = 1e9; // so that 3 × 0.1 is 0.3
    return std::round(std::round(value / step) * step * places) / places;
}

std::vector<double> values_to_try(const Armoury& armoury, const TunedNumber& number) {
    constexpr double shares[] = {0,   0.1, 0.2,  0.3, 0.4,  0.5, 0.6, 0.7, 0.8, 0.9, 1,
                                 1.1, 1.2, 1.35, 1.5, 1.75, 2,   2.5, 3,   4,   6,   8};
    const double size = size_of(armoury, number);
    const double step = resolution(armoury, number);
    const double sign = number.now < 0 ? -1 : 1;
    std::vector<double> values = {number.now};
    const auto add = [&](double value) {
        values.push_back(std::clamp(on_grid(value, step), number.least, number.most));
    };
    for (const double share : shares) add(sign * share * size);
    if (number.now < 0)
        for (const double share : {0.25, 0.5, 1.0, 2.0}) add(share * size);
    std::sort(values.begin(), values.end());
    values.erase(std::unique(values.begin(), values.end()), values.end());
    return values;
}

} // namespace panoplon
