// Ranks that are threads of one process, with letters that lie in memory.
#pragma once

#include "base/ranks.h"

#include <deque>
#include <functional>
#include <mutex>
#include <thread>
#include <vector>

namespace panoplon::test {

/// Of all ranks.
class Mailboxes {
  public:
    explicit Mailboxes(std::size_t count) : letters_(count) {}

    [[nodiscard]] std::size_t count() const { return letters_.size(); }
    void put(std::size_t to, Letter letter) {
        const std::lock_guard<std::mutex> lock(guard_);
        letters_[to].push_back(std::move(letter));
    }
    std::optional<Letter> take(std::size_t rank) {
        const std::lock_guard<std::mutex> lock(guard_);
        if (letters_[rank].empty()) return std::nullopt;
        Letter letter = std::move(letters_[rank].front());
        letters_[rank].pop_front();
        return letter;
    }

  private:
    std::mutex guard_;
    std::vector<std::deque<Letter>> letters_;
};

class LocalPost : public Post {
  public:
    LocalPost(Mailboxes& boxes, std::size_t rank) : boxes_(boxes), rank_(rank) {}

    [[nodiscard]] std::size_t count() const override { return boxes_.count(); }
    [[nodiscard]] std::size_t rank() const override { return rank_; }
    void send(std::size_t to, std::string text) override {
        boxes_.put(to, {rank_, std::move(text)});
    }
    [[nodiscard]] std::optional<Letter> receive() override { return boxes_.take(rank_); }
    void close() override {}
    void end_all(int) override {}

  private:
    Mailboxes& boxes_;
    std::size_t rank_;
};

/// Runs `work(rank, ranks)` on so many ranks at once; it leaves at its end.
inline void on_ranks(std::size_t count, const std::function<void(std::size_t, Ranks&)>& work) {
    Mailboxes boxes(count);
    std::vector<std::thread> threads;
    for (std::size_t rank = 0; rank < count; ++rank)
        threads.emplace_back([&, rank] {
            LocalPost post(boxes, rank);
            Ranks ranks(post);
            const RanksScope scope(ranks);
            try {
                work(rank, ranks);
            } catch (const RunEnded&) { // as the program does
                ranks.leave();
            }
        });
    for (std::thread& thread : threads) thread.join();
}

} // namespace panoplon::test
