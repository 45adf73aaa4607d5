// A checked table of keys, read by type. Absent keys give the fallback of the table of keys.
#pragma once

#include "armoury/keys.h"
#include "armoury/names.h"
#include "armoury/node.h"
#include "diagnostic/diagnostic.h"
#include "model/armoury.h"

#include <string>
#include <utility>
#include <vector>

namespace panoplon {

/// What building needs besides the record itself.
struct Building {
    Armoury& armoury;
    const Names& names;
    Sink& sink;
    const Sources& sources;

    [[nodiscard]] Scope scope() const {
        return {names.all("stat"), names.all("pool"), names.all("effect"), true, true, true, false};
    }
};

class Record {
  public:
    Record(Building& building, std::string kind, const Node& table, std::string parent = {})
        : building_(building),
          kind_(std::move(kind)),
          parent_(std::move(parent)),
          table_(table) {}

    [[nodiscard]] bool has(std::string_view key) const { return value(key) != nullptr; }
    /// The key was written, soundly or not: what is wrong with it has been told.
    [[nodiscard]] bool wrote(std::string_view key) const { return table_.find_entry(key); }
    [[nodiscard]] Span span(std::string_view key) const;
    [[nodiscard]] const Span& span() const { return table_.span; }

    [[nodiscard]] std::string text(std::string_view key) const;
    [[nodiscard]] double number(std::string_view key) const;
    [[nodiscard]] int whole(std::string_view key) const { return static_cast<int>(number(key)); }
    [[nodiscard]] std::int64_t whole_or_unlimited(std::string_view key) const;
    [[nodiscard]] Ticks time(std::string_view key) const { return to_ticks(number(key)); }
    [[nodiscard]] Ticks timed(std::string_view key) const; ///< `never` for "always"
    [[nodiscard]] int choice(std::string_view key) const;  ///< place among the row's choices
    [[nodiscard]] bool truth(std::string_view key) const;
    [[nodiscard]] int targets(std::string_view key) const;
    [[nodiscard]] Formula formula(std::string_view key, const Scope& scope) const;
    [[nodiscard]] Quantity quantity(std::string_view key, const Scope& scope) const;
    [[nodiscard]] std::vector<std::string> texts(std::string_view key) const;
    [[nodiscard]] LevelRange levels(std::string_view key, LevelRange otherwise) const;
    [[nodiscard]] std::pair<double, double> two(std::string_view key) const;
    [[nodiscard]] std::vector<Growth> growths(std::string_view key) const;
    [[nodiscard]] std::vector<Amount> amounts(std::string_view key) const;
    [[nodiscard]] Modifiers modifiers() const;
    [[nodiscard]] const Node* value(std::string_view key) const;
    [[nodiscard]] Record table(std::string_view key) const;
    [[nodiscard]] std::vector<Record> tables(std::string_view key) const;

    template <class IdType>
    [[nodiscard]] IdType reference(std::string_view key) const {
        const Node* node = value(key);
        if (!node) return {};
        return named<IdType>(row(key).names, node->text);
    }
    template <class IdType>
    [[nodiscard]] std::vector<IdType> references(std::string_view key) const {
        std::vector<IdType> ids;
        for (const std::string& id : texts(key)) ids.push_back(named<IdType>(row(key).names, id));
        return ids;
    }
    template <class IdType>
    [[nodiscard]] std::vector<std::pair<IdType, Quantity>>
    quantities_by(std::string_view kind, std::string_view key, const Scope& scope) const {
        return values_by<IdType, Quantity>(
            kind, key, [&](const Node& node) { return quantity_of(node, scope); });
    }
    template <class IdType>
    [[nodiscard]] std::vector<std::pair<IdType, double>> numbers_by(std::string_view kind,
                                                                    std::string_view key) const {
        return values_by<IdType, double>(kind, key, [](const Node& node) { return node.number; });
    }
    template <class IdType>
    [[nodiscard]] std::vector<std::pair<IdType, Formula>>
    formulas_by(std::string_view kind, std::string_view key, const Scope& scope) const {
        return values_by<IdType, Formula>(
            kind, key, [&](const Node& node) { return formula_of(node, scope); });
    }
    template <class IdType>
    [[nodiscard]] IdType named(std::string_view kind, const std::string& id) const {
        const int index = building_.names.find(kind, id);
        return index < 0 ? IdType{} : IdType(static_cast<std::size_t>(index));
    }
    [[nodiscard]] Building& building() const { return building_; }
    [[nodiscard]] const Node& node() const { return table_; }

  private:
    [[nodiscard]] const KeyRow& row(std::string_view key) const;
    /// A table of names of one kind, each with what `read` makes of its value.
    template <class IdType, class Value, class Read>
    [[nodiscard]] std::vector<std::pair<IdType, Value>>
    values_by(std::string_view kind, std::string_view key, const Read& read) const {
        std::vector<std::pair<IdType, Value>> list;
        if (const Node* node = value(key))
            for (const Entry& entry : node->entries)
                list.emplace_back(named<IdType>(kind, entry.key), read(entry.value));
        return list;
    }
    [[nodiscard]] Formula formula_of(const Node& node, const Scope& scope) const;
    [[nodiscard]] Quantity quantity_of(const Node& node, const Scope& scope) const;

    Building& building_;
    std::string kind_;
    std::string parent_;
    const Node& table_;
};

} // namespace panoplon
