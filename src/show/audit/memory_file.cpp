#include "show/audit/memory_file.h"

#include <charconv>
#include <fmt/format.h>

namespace panoplon {

namespace {

constexpr int oldest = 5; ///< runs

Json placed_json(const Placed& placed) {
    Json sockets = Json::array();
    for (const Placed& inner : placed.sockets) sockets.push_back(placed_json(inner));
    return Json::array({placed.item.value, std::move(sockets)});
}

Json row_json(const ItemContextRow& row) {
    return Json::array({row.item.value, row.best, row.without, row.with, row.empty, row.worth,
                        row.grip, row.shortfall, row.in_window, row.after_window, row.contested,
                        row.judged, row.units});
}

Json context_json(const RememberedContext& known) {
    Json json = {{"items", known.items},
                 {"margin", known.best.value},
                 {"reach", static_cast<int>(known.best.reach)},
                 {"found", known.found},
                 {"proven", known.proven},
                 {"missed", known.missed},
                 {"age", known.age}};
    for (const char* list : {"places", "pack", "rows", "packed"}) json[list] = Json::array();
    for (const Placed& placed : known.places) json["places"].push_back(placed_json(placed));
    for (const PackedItem& packed : known.pack)
        json["pack"].push_back(Json::array({packed.item.value, packed.count}));
    for (const ItemContextRow& row : known.rows) json["rows"].push_back(row_json(row));
    for (const ItemContextRow& row : known.packed_rows) json["packed"].push_back(row_json(row));
    return json;
}

/// Reads one context; throws what the library throws where the text is not as written.
class ContextReader {
  public:
    explicit ContextReader(const Json& json) : json_(json) {}

    RememberedContext read() {
        RememberedContext known;
        known.items = json_.at("items").get<std::vector<std::string>>();
        count_ = static_cast<std::int64_t>(known.items.size());
        known.best.value = json_.at("margin").get<double>();
        known.best.reach = static_cast<Reach>(within(json_.at("reach"), 0, 2));
        known.found = json_.at("found").get<bool>();
        known.proven = json_.at("proven").get<bool>();
        known.missed = json_.at("missed").get<double>();
        known.age = static_cast<int>(within(json_.at("age"), 0, oldest)) + 1;
        for (const Json& placed : json_.at("places")) known.places.push_back(placed_of(placed));
        for (const Json& packed : json_.at("pack"))
            known.pack.push_back({item(packed.at(0)), packed.at(1).get<std::int64_t>(), {}});
        for (const Json& row : json_.at("rows")) known.rows.push_back(row_of(row));
        for (const Json& row : json_.at("packed")) known.packed_rows.push_back(row_of(row));
        return known;
    }

  private:
    static std::int64_t within(const Json& json, std::int64_t low, std::int64_t high) {
        const auto number = json.get<std::int64_t>();
        if (number < low || number > high) throw std::out_of_range("no such number");
        return number;
    }
    [[nodiscard]] ItemId item(const Json& json) const {
        const std::int64_t place = within(json, -1, count_ - 1);
        return place < 0 ? ItemId() : ItemId(static_cast<std::size_t>(place));
    }
    [[nodiscard]] Placed placed_of(const Json& json) const {
        Placed placed{item(json.at(0)), {}};
        for (const Json& inner : json.at(1)) placed.sockets.push_back(placed_of(inner));
        return placed;
    }
    [[nodiscard]] ItemContextRow row_of(const Json& json) const {
        ItemContextRow row;
        row.item = item(json.at(0));
        if (!row.item.given()) throw std::out_of_range("a row of no item");
        double* numbers[] = {&row.best,  &row.without, &row.with,     &row.empty,
                             &row.worth, &row.grip,    &row.shortfall};
        std::size_t next = 1;
        for (double* number : numbers) *number = json.at(next++).get<double>();
        for (bool* truth : {&row.in_window, &row.after_window, &row.contested, &row.judged})
            *truth = json.at(next++).get<bool>();
        row.units = json.at(next).get<std::int64_t>();
        return row;
    }

    const Json& json_;
    std::int64_t count_ = 0;
};

} // namespace

std::string memory_text(const ContextMemory& memory) {
    std::map<std::uint64_t, const RememberedContext*> in_order;
    for (const auto& [key, known] : memory.all())
        if (known.age <= oldest) in_order.emplace(key, &known);
    std::string text = "{\"about\": \"what audits found out, kept to save time; delete it at "
                       "will\",\n\"contexts\": {";
    const char* between = "\n";
    for (const auto& [key, known] : in_order) {
        text += fmt::format("{}\"{:016x}\": {}", between, key, context_json(*known).dump());
        between = ",\n";
    }
    return text + "\n}}\n";
}

void read_memory(std::string_view text, ContextMemory& memory) {
    const Json json = Json::parse(text, nullptr, false);
    if (!json.is_object() || !json.contains("contexts") || !json["contexts"].is_object()) return;
    for (const auto& [name, context] : json["contexts"].items()) {
        std::uint64_t key = 0;
        const auto [end, error] = std::from_chars(name.data(), name.data() + name.size(), key, 16);
        if (error != std::errc() || end != name.data() + name.size()) continue;
        try {
            memory.keep(key, ContextReader(context).read());
        } catch (const std::exception&) {
            continue;
        }
    }
}

} // namespace panoplon
