#include "armoury/crosscheck.h"

#include "armoury/bounds.h"
#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>
#include <functional>
#include <map>
#include <optional>

namespace panoplon {

namespace {

/// Finds a circle among n things, each of which leads to others, and names it; and the first that
/// leads too far.
class Circles {
  public:
    Circles(std::vector<std::vector<std::size_t>> leads_to)
        : leads_to_(std::move(leads_to)),
          state_(leads_to_.size(), State::unseen),
          far_(leads_to_.size(), 0) {}

    /// Calls found(the things of a circle, the first again at its end) for each.
    template <class Call>
    void find(Call found) {
        for (std::size_t i = 0; i < leads_to_.size() && !too_far_; ++i) visit(i, found);
    }
    /// After find(): the first from which a chain of more than longest_chain leads.
    [[nodiscard]] const std::optional<std::size_t>& too_far() const { return too_far_; }

  private:
    enum class State { unseen, open, done };

    template <class Call>
    void visit(std::size_t at, const Call& found) {
        if (state_[at] == State::done) return;
        if (state_[at] == State::open) {
            std::vector<std::size_t> circle(std::find(path_.begin(), path_.end(), at), path_.end());
            circle.push_back(at);
            found(circle);
            return;
        }
        state_[at] = State::open;
        path_.push_back(at);
        if (path_.size() > longest_chain) too_far_ = path_.front();
        for (const std::size_t next : leads_to_[at]) {
            if (too_far_) break;
            visit(next, found);
            far_[at] = std::max(far_[at], far_[next] + 1);
        }
        if (far_[at] >= longest_chain && !too_far_) too_far_ = at;
        path_.pop_back();
        state_[at] = State::done;
    }

    std::vector<std::vector<std::size_t>> leads_to_;
    std::vector<State> state_;
    std::vector<std::size_t> path_, far_; ///< far: how many follow it at most
    std::optional<std::size_t> too_far_;
};

template <class List>
std::string circle_words(const List& list, const std::vector<std::size_t>& circle,
                         const char* between) {
    std::vector<std::string> names;
    for (const std::size_t i : circle) names.push_back(list[i].id);
    return join(names, between);
}

class GearCheck {
  public:
    GearCheck(const Armoury& armoury, Sink& sink) : armoury_(armoury), sink_(sink) {}

    void run() {
        for (const Item& item : armoury_.items) check_item(item);
        socket_circles();
        if (!content_circles()) content_sums();
    }

  private:
    void check_item(const Item& item) {
        for (const SlotId socket : item.sockets)
            if (!armoury_.at(socket).socket)
                sink_.mistake(item.span,
                              fmt::format("'{}' has '{}' among its sockets, which is a place on "
                                          "characters",
                                          item.id, armoury_.at(socket).id),
                              fmt::format("[slot.{}] with socket = true makes it a socket",
                                          armoury_.at(socket).id));
        check_takes(item);
    }

    void check_takes(const Item& item) {
        for (const SlotId slot : item.takes) {
            const auto takes = std::count(item.takes.begin(), item.takes.end(), slot);
            const int count = armoury_.at(slot).count;
            if (armoury_.at(slot).socket && item.takes.size() > 1)
                return sink_.mistake(item.span, fmt::format("'{}' goes into the socket '{}', and "
                                                            "can't take a place besides",
                                                            item.id, armoury_.at(slot).id));
            if (takes > count)
                return sink_.mistake(item.span,
                                     fmt::format("'{}' takes {} of '{}', which has {}", item.id,
                                                 counted(static_cast<std::size_t>(takes), "place"),
                                                 armoury_.at(slot).id, count));
        }
    }

    /// An item in a socket that has, to any depth, a socket that it fits itself could go on for
    /// ever.
    void socket_circles() {
        std::vector<std::vector<std::size_t>> leads_to(armoury_.slots.size());
        for (const Item& item : armoury_.items)
            if (item.slot.given() && armoury_.at(item.slot).socket)
                for (const SlotId inner : item.sockets)
                    leads_to[item.slot.index()].push_back(inner.index());
        Circles circles(std::move(leads_to));
        circles.find([&](const std::vector<std::size_t>& circle) {
            sink_.mistake(armoury_.slots[circle.front()].span,
                          fmt::format("a circle of sockets: what goes into {}",
                                      circle_words(armoury_.slots, circle, " has a socket ")),
                          "an item could hold its like for ever (M40)");
        });
        if (const auto slot = circles.too_far())
            sink_.mistake(armoury_.slots[*slot].span,
                          fmt::format("what goes into '{}' has sockets for what has sockets, more "
                                      "than {} deep",
                                      armoury_.slots[*slot].id, longest_chain));
    }

    [[nodiscard]] bool content_circles() {
        bool found = false;
        std::vector<std::vector<std::size_t>> leads_to(armoury_.items.size());
        for (std::size_t i = 0; i < armoury_.items.size(); ++i)
            for (const PackedItem& inner : armoury_.items[i].contains)
                leads_to[i].push_back(inner.item.index());
        Circles circles(std::move(leads_to));
        circles.find([&](const std::vector<std::size_t>& circle) {
            found = true;
            sink_.mistake(armoury_.items[circle.front()].span,
                          fmt::format("a circle of contents: {}",
                                      circle_words(armoury_.items, circle, " contains ")),
                          "an item can't come with itself");
        });
        if (const auto item = circles.too_far())
            sink_.mistake(armoury_.items[*item].span,
                          fmt::format("'{}' contains what contains others, more than {} deep",
                                      armoury_.items[*item].id, longest_chain));
        return found || circles.too_far();
    }

    /// Why things come to more than is counted; empty: they do not.
    [[nodiscard]] std::string too_many(const std::vector<PackedItem>& things) const {
        std::int64_t weight = 0;
        for (const PackedItem& one : things) {
            const Item& item = armoury_.at(one.item);
            if (one.count >= most_counted)
                return fmt::format("{} {} or more", most_counted, item.id);
            weight = bounded_sum(weight, bounded_product(item.weight, one.count));
        }
        return weight < most_counted
                   ? std::string()
                   : fmt::format("a weight of {:.0f} or more", to_weight(most_counted));
    }

    /// Counts and weights multiply from what comes with what: no sum may run over.
    void content_sums() {
        for (std::size_t i = 0; i < armoury_.items.size(); ++i) {
            const std::string many = too_many(contents_of(armoury_, ItemId(i)));
            const auto& contains = armoury_.items[i].contains;
            const bool told = std::any_of(contains.begin(), contains.end(), [&](const auto& inner) {
                return !too_many(contents_of(armoury_, inner.item)).empty();
            });
            if (!many.empty() && !told)
                sink_.mistake(armoury_.items[i].span,
                              fmt::format("'{}' comes with {} in all", armoury_.items[i].id, many),
                              "that is more than can be counted");
        }
        for (const Loadout& loadout : armoury_.loadouts) {
            const std::string many = too_many(all_of(loadout));
            if (!many.empty())
                sink_.mistake(loadout.span, fmt::format("'{}' has {} in all", loadout.id, many),
                              "that is more than can be counted");
        }
    }

    /// What is packed, and all that comes with what is worn or packed; each thing once.
    [[nodiscard]] std::vector<PackedItem> all_of(const Loadout& loadout) const {
        std::map<std::size_t, std::int64_t> units;
        const auto add = [&](ItemId item, std::int64_t count) {
            units[item.index()] = bounded_sum(units[item.index()], count);
        };
        const auto add_contents = [&](ItemId item, std::int64_t count) {
            for (const PackedItem& inner : contents_of(armoury_, item))
                add(inner.item, bounded_product(inner.count, count));
        };
        const std::function<void(const WornItem&)> wear = [&](const WornItem& worn) {
            if (worn.item.given()) add_contents(worn.item, 1);
            for (const WornItem& inner : worn.socketed) wear(inner);
        };
        for (const WornItem& worn : loadout.worn) wear(worn);
        for (const PackedItem& packed : loadout.pack) {
            add(packed.item, packed.count);
            add_contents(packed.item, packed.count);
        }
        std::vector<PackedItem> things;
        for (const auto& [item, count] : units) things.push_back({ItemId(item), count, {}});
        return things;
    }

    const Armoury& armoury_;
    Sink& sink_;
};

} // namespace

void cross_check_gear(const Armoury& armoury, Sink& sink) {
    GearCheck(armoury, sink).run();
}

} // namespace panoplon
