#include "show/loadout/show_equip.h"

#include "base/text.h"
#include "show/text_table.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// The items that an outfit has in a slot's places, none where one is empty.
std::vector<ItemId> worn_in(const Armoury& armoury, const Outfit& outfit, SlotId slot) {
    std::vector<ItemId> items;
    for (const WornItem& worn : outfit.worn)
        if (worn.slot == slot) items.push_back(worn.item);
    items.resize(static_cast<std::size_t>(armoury.at(slot).count));
    return items;
}

class SeveralView {
  public:
    SeveralView(const Armoury& armoury, const SeveralOutfits& several)
        : armoury_(armoury),
          several_(several) {
        for (const LoadoutId loadout : several.loadouts) ids_.push_back(armoury.at(loadout).id);
    }

    Document show() {
        document_.text = fmt::format("{} at level {}\n\n", join(ids_, ", "), several_.level);
        document_.json["loadouts"] = ids_;
        document_.json["level"] = several_.level;
        places();
        stats();
        loads();
        for (std::size_t i = 0; i < ids_.size(); ++i)
            if (!several_.sheets[i].refused.empty())
                document_.text +=
                    fmt::format("\n{}:\n{}", ids_[i], refusals_text(several_.sheets[i].refused));
        document_.tables.push_back(std::move(data_));
        return std::move(document_);
    }

  private:
    /// A table with a column for each loadout.
    [[nodiscard]] TextTable table_of(const char* what, Align align) const {
        std::vector<TextTable::Column> columns = {{what}};
        for (const std::string& id : ids_) columns.push_back({id, align});
        return TextTable(std::move(columns));
    }

    void places() {
        TextTable table = table_of("place", Align::left);
        document_.json["places"] = Json::array();
        for (std::size_t s = 0; s < armoury_.slots.size(); ++s) {
            const Slot& slot = armoury_.slots[s];
            if (slot.socket) continue;
            std::vector<std::vector<ItemId>> worn;
            for (const Outfit& outfit : several_.outfits)
                worn.push_back(worn_in(armoury_, outfit, SlotId(s)));
            for (std::size_t place = 0; place < static_cast<std::size_t>(slot.count); ++place) {
                std::vector<std::string> row = {
                    slot.count == 1 ? slot.id : fmt::format("{} {}", slot.id, place + 1)};
                Json items = Json::object();
                for (std::size_t i = 0; i < ids_.size(); ++i) {
                    const ItemId item = worn[i][place];
                    row.push_back(item.given() ? armoury_.at(item).id : "—");
                    items[ids_[i]] = item.given() ? Json(armoury_.at(item).id) : Json(nullptr);
                }
                table.row(std::move(row));
                document_.json["places"].push_back({{"place", slot.id}, {"worn", items}});
            }
        }
        document_.text += table.text() + "\n";
    }

    void stats() {
        TextTable table = table_of("stat", Align::right);
        std::vector<std::string> none;
        for (std::size_t s = 0; s < armoury_.stats.size(); ++s) {
            const std::string& stat = armoury_.stats[s].id;
            std::vector<std::string> row = {stat};
            bool any = false;
            for (std::size_t i = 0; i < ids_.size(); ++i) {
                const double value = several_.sheets[i].stats[s].value;
                any = any || value != 0;
                row.push_back(rounded(value, 3));
                data_.row({ids_[i], stat, value});
                document_.json["stats"][stat][ids_[i]] = value;
            }
            if (any)
                table.row(std::move(row));
            else
                none.push_back(stat);
        }
        document_.text += table.text();
        if (!none.empty()) document_.text += fmt::format("  none has any {}\n", join(none, ", "));
        document_.text += "\n";
    }

    void loads() {
        TextTable table = table_of("", Align::right);
        std::vector<std::string> load = {"load"}, power = {"power"};
        for (std::size_t i = 0; i < ids_.size(); ++i) {
            const std::optional<double>& one = several_.powers[i];
            load.push_back(percent(several_.sheets[i].load.share));
            power.push_back(!several_.sheets[i].refused.empty() ? "refused"
                            : one                               ? rounded(*one, 3)
                                                                : "—");
            data_.row({ids_[i], "load_share", several_.sheets[i].load.share});
            data_.row({ids_[i], "power", one});
            document_.json["load_share"][ids_[i]] = several_.sheets[i].load.share;
            document_.json["power"][ids_[i]] = one ? Json(*one) : Json(nullptr);
        }
        table.row(std::move(load));
        table.row(std::move(power));
        document_.text += table.text();
        if (armoury_.yardstick.given())
            document_.text += fmt::format("Power: the margin against {} by even luck.\n",
                                          armoury_.at(armoury_.yardstick).id);
    }

    const Armoury& armoury_;
    const SeveralOutfits& several_;
    std::vector<std::string> ids_;
    Document document_;
    Table data_{"equip-several",
                {as::text("loadout"), as::text("what"), as::number("value", in_full)}};
};

} // namespace

Document show_equip_several(const Armoury& armoury, const SeveralOutfits& several) {
    return SeveralView(armoury, several).show();
}

} // namespace panoplon
