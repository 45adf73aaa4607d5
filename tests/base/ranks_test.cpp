// Pieces of work among ranks: each is done once, and all know what they came to.
#include "support/local_post.h"

#include "base/compute_each.h"

#include <atomic>
#include <catch2/catch.hpp>
#include <chrono>
#include <map>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// What comes of it on one rank.
struct Shared {
    std::vector<std::string> taken; ///< by the first
    std::string answers;
};

/// Pieces 0 … count - 1, of which each comes to its number and a comma.
SharedWork numbers(std::size_t count, Shared& into, std::map<std::size_t, std::atomic<int>>& done) {
    SharedWork work;
    for (std::size_t i = 0; i < count; ++i) work.pieces.push_back(i);
    work.run = [&](std::size_t piece, std::size_t) {
        ++done.at(piece);
        return std::to_string(piece) + ",";
    };
    work.take = [&](std::size_t piece, const std::string& text) {
        CHECK(text == std::to_string(piece) + ",");
        into.taken.push_back(text);
    };
    work.answers = [&] {
        std::sort(into.taken.begin(), into.taken.end());
        for (const std::string& text : into.taken) into.answers += text;
        return into.answers;
    };
    work.get = [&](const std::string& text) { into.answers = text; };
    work.stopped = [] { return false; };
    return work;
}

void wait_a_little() {
    std::this_thread::sleep_for(std::chrono::milliseconds(20));
}

} // namespace

TEST_CASE("each piece is done by one rank, and all get every answer", "[M98]") {
    for (const std::size_t ranks : {1, 2, 3, 5}) {
        CAPTURE(ranks);
        std::vector<std::array<Shared, 3>> shared(ranks);
        std::array<std::map<std::size_t, std::atomic<int>>, 3> done;
        for (auto& one : done)
            for (std::size_t i = 0; i < 40; ++i) one[i] = 0;
        on_ranks(ranks, [&](std::size_t rank, Ranks& all) {
            for (std::size_t round = 0; round < 3; ++round) { // as a run does, again and again
                if (rank == 2) wait_a_little();               // comes when others are done
                all.share(numbers(round == 1 ? 0 : 40, shared[rank][round], done[round]));
            }
            all.leave();
        });
        for (std::size_t round = 0; round < 3; ++round) {
            CHECK(shared[0][round].taken.size() == (round == 1 ? 0 : 40));
            for (const Shared* rank : {&shared[0][round], &shared[ranks - 1][round]})
                CHECK(rank->answers == shared[0][round].answers);
            for (const auto& [piece, times] : done[round]) CHECK(times == (round == 1 ? 0 : 1));
        }
    }
}

TEST_CASE("once the first has stopped nothing more is begun, and it takes what is done", "[M98]") {
    std::array<Shared, 3> shared;
    std::map<std::size_t, std::atomic<int>> done;
    for (std::size_t i = 0; i < 1000; ++i) done[i] = 0;
    std::atomic<int> begun = 0;
    on_ranks(3, [&](std::size_t rank, Ranks& all) {
        SharedWork work = numbers(1000, shared[rank], done);
        work.run = [&](std::size_t piece, std::size_t) {
            ++begun;
            std::this_thread::sleep_for(std::chrono::milliseconds(1));
            return std::to_string(piece) + ",";
        };
        work.stopped = [&] { return begun >= 20; };
        all.share(work);
        all.leave();
    });
    CHECK(begun < 100);
    CHECK(shared[0].taken.size() == static_cast<std::size_t>(begun));
    CHECK(shared[2].answers.empty()); // it has nothing to do any more
}

TEST_CASE("a rank that ends in the midst of a piece is told; one that has none is not missed",
          "[M98]") {
    for (const bool in_its_midst : {true, false}) {
        CAPTURE(in_its_midst);
        std::array<Shared, 2> shared;
        std::map<std::size_t, std::atomic<int>> done;
        for (std::size_t i = 0; i < 20; ++i) done[i] = 0;
        std::atomic<bool> gone = false;
        bool lost = false;
        on_ranks(2, [&](std::size_t rank, Ranks& all) {
            SharedWork work = numbers(20, shared[rank], done);
            if (rank == 1) {
                work.run = [](std::size_t, std::size_t) -> std::string {
                    throw std::runtime_error("no room");
                };
                if (in_its_midst) CHECK_THROWS_AS(all.share(work), std::runtime_error);
                gone = true;
                all.leave();
                return;
            }
            const auto run = work.run;
            work.run = [&](std::size_t piece, std::size_t thread) {
                while (!gone) wait_a_little();
                return run(piece, thread);
            };
            try {
                all.share(work);
            } catch (const RankLost& who) {
                lost = who.rank == 1;
            }
            all.leave();
        });
        CHECK(lost == in_its_midst);
        if (!in_its_midst) CHECK(shared[0].taken.size() == 20);
    }
}

TEST_CASE("what a rank asked for too late gives it no more pieces of the next work", "[M98]") {
    constexpr std::size_t count = 40;
    std::array<std::array<Shared, 2>, 2> shared;
    std::map<std::size_t, std::atomic<int>> done;
    for (std::size_t i = 0; i < count; ++i) done[i] = 0;
    std::atomic<std::size_t> by_first = 0;
    const std::size_t at_once = threads_at_work();
    on_ranks(2, [&](std::size_t rank, Ranks& all) {
        if (rank == 1) wait_a_little(); // there is nothing to do, and the first has said so
        all.share(numbers(0, shared[rank][0], done));
        for (int i = 0; rank == 0 && i < 5; ++i) wait_a_little(); // what was asked for is there
        SharedWork work = numbers(count, shared[rank][1], done);
        work.run = [&, rank](std::size_t piece, std::size_t) {
            if (rank == 0) ++by_first;
            for (int i = 0; rank == 1 && i < 50 && by_first < count - at_once; ++i) wait_a_little();
            return std::to_string(piece) + ",";
        };
        all.share(work);
        all.leave();
    });
    CHECK(by_first >= count - at_once);
}

TEST_CASE("what is done for one piece is no work for all ranks", "[M98]") {
    on_ranks(1, [](std::size_t, Ranks& all) {
        CHECK(ranks() == &all);
        std::atomic<int> shared = 0;
        for_each_in_parallel(8, [&](std::size_t) { shared += ranks() != nullptr; });
        CHECK(shared == 0);
        CHECK(ranks() == &all);
    });
    CHECK(ranks() == nullptr);
}

TEST_CASE("where the first one ends before the work begins the others end, too", "[M98]") {
    std::array<Shared, 3> shared;
    std::map<std::size_t, std::atomic<int>> done;
    std::atomic<int> ended = 0;
    on_ranks(3, [&](std::size_t rank, Ranks& all) {
        if (rank > 0) {
            try {
                all.share(numbers(5, shared[rank], done));
            } catch (const RunEnded&) {
                ++ended;
            }
        }
        all.leave();
    });
    CHECK(ended == 2);
}

namespace {

struct Named {
    std::string name;
    std::vector<std::optional<double>> halves;
    std::array<int, 2> both = {};

    template <class Archive>
    void serialize(Archive& archive) {
        archive(name, halves, both);
    }
    bool operator==(const Named&) const = default;
};

Named named(std::size_t i) {
    const int number = static_cast<int>(i);
    return {std::to_string(i), {std::nullopt, static_cast<double>(i) / 2}, {number, -number}};
}

struct Nothing {};

} // namespace

TEST_CASE("results by number are the same on every rank, and each is computed by one", "[M98]") {
    constexpr std::size_t count = 37;
    for (const std::size_t ranks : {1, 2, 3, 5}) {
        CAPTURE(ranks);
        std::vector<std::vector<std::optional<Named>>> results(ranks);
        std::vector<std::size_t> progress;
        std::array<std::atomic<int>, count> computed = {};
        on_ranks(ranks, [&](std::size_t rank, Ranks& all) {
            Watch watch;
            if (rank == 0)
                watch.progress = [&](std::size_t done, std::size_t) { progress.push_back(done); };
            results[rank] = compute_each(
                count, [] { return Nothing(); }, watch,
                [&](Nothing&, std::size_t i) {
                    ++computed[i];
                    return named(i);
                });
            all.leave();
        });
        for (const auto& on_rank : results) {
            REQUIRE(on_rank.size() == count);
            for (std::size_t i = 0; i < count; ++i) CHECK(on_rank[i] == named(i));
        }
        for (const std::atomic<int>& times : computed) CHECK(times == 1);
        REQUIRE(progress.size() == count);
        CHECK(progress.back() == count);
    }
}

TEST_CASE("what a rank computed while it was stopped is not believed", "[M98]") {
    std::vector<std::optional<int>> results;
    on_ranks(2, [&](std::size_t rank, Ranks& all) {
        std::atomic<bool> stopped = false;
        const Watch watch{{}, &stopped};
        const auto found = compute_each(
            40, [] { return Nothing(); }, watch,
            [&](Nothing&, std::size_t i) {
                wait_a_little();
                stopped = rank == 1;
                return rank == 1 ? -1 : static_cast<int>(i);
            });
        if (rank == 0) results = found;
        all.leave();
    });
    for (std::size_t i = 0; i < results.size(); ++i) CHECK(results[i] == static_cast<int>(i));
}

TEST_CASE("once the watch stops nothing more is computed, and what is known stays known", "[M98]") {
    std::vector<std::optional<int>> results;
    std::atomic<int> computed = 0;
    std::atomic<bool> stopped = false;
    on_ranks(2, [&](std::size_t rank, Ranks& all) {
        const Watch watch{{}, &stopped};
        const auto found = compute_each(
            1000, [] { return Nothing(); }, watch,
            [&](Nothing&, std::size_t i) {
                if (++computed == 20) stopped = true;
                return static_cast<int>(i);
            });
        if (rank == 0) results = found;
        all.leave();
    });
    CHECK(computed < 100);
    CHECK(results.size() == 1000);
    CHECK(std::count_if(results.begin(), results.end(),
                        [](const auto& one) { return one.has_value(); }) < 20);
}
