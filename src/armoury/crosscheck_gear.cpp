#include "armoury/crosscheck.h"

#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// Finds a circle among n things, each of which leads to others, and names it.
class Circles {
  public:
    Circles(std::vector<std::vector<std::size_t>> leads_to)
        : leads_to_(std::move(leads_to)),
          state_(leads_to_.size(), State::unseen) {}

    /// Calls found(the things of a circle, the first again at its end) for each.
    template <class Call>
    void find(Call found) {
        for (std::size_t i = 0; i < leads_to_.size(); ++i) visit(i, found);
    }

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
        for (const std::size_t next : leads_to_[at]) visit(next, found);
        path_.pop_back();
        state_[at] = State::done;
    }

    std::vector<std::vector<std::size_t>> leads_to_;
    std::vector<State> state_;
    std::vector<std::size_t> path_;
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
        content_circles();
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
        Circles(std::move(leads_to)).find([&](const std::vector<std::size_t>& circle) {
            sink_.mistake(armoury_.slots[circle.front()].span,
                          fmt::format("a circle of sockets: what goes into {}",
                                      circle_words(armoury_.slots, circle, " has a socket ")),
                          "an item could hold its like for ever (M40)");
        });
    }

    void content_circles() {
        std::vector<std::vector<std::size_t>> leads_to(armoury_.items.size());
        for (std::size_t i = 0; i < armoury_.items.size(); ++i)
            for (const PackedItem& inner : armoury_.items[i].contains)
                leads_to[i].push_back(inner.item.index());
        Circles(std::move(leads_to)).find([&](const std::vector<std::size_t>& circle) {
            sink_.mistake(armoury_.items[circle.front()].span,
                          fmt::format("a circle of contents: {}",
                                      circle_words(armoury_.items, circle, " contains ")),
                          "an item can't come with itself");
        });
    }

    const Armoury& armoury_;
    Sink& sink_;
};

} // namespace

void cross_check_gear(const Armoury& armoury, Sink& sink) {
    GearCheck(armoury, sink).run();
}

} // namespace panoplon
