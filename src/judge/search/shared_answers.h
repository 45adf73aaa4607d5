// Answers of searches, found by all ranks of a run together.
#pragma once

#include "base/parallel.h"
#include "base/ranks.h"
#include "judge/search/recall.h"

#include <memory>
#include <vector>

namespace panoplon {

/// What is found in another memory or kept, and that as bytes; nothing is kept in the other.
class AnswersFound : public Memory {
  public:
    explicit AnswersFound(Memory& known) : known_(known) {}
    [[nodiscard]] std::optional<std::string> find(std::uint64_t key) override;
    void keep(std::uint64_t key, const std::string& answer) override;
    void reject(std::uint64_t key) override;

    [[nodiscard]] const std::string& bytes() const { return bytes_; }

  private:
    Memory& known_;
    std::string bytes_;
};

/// Keeps what bytes of AnswersFound say.
void keep_answers(const std::string& bytes, Memory& into);

/// Pieces of work on all ranks: each is done by one of them, and every answer that it keeps is kept
/// in the memory of each. So whoever does the same work afterwards finds all of it known. Where
/// this process is alone nothing is done. `make_worker()` gives a thread's working space;
/// `known(worker, i, recall)` tells whether the answers of a piece are known, and
/// `find(worker, i, recall)` finds them. Pieces are begun in the order of their numbers. Progress
/// counts pieces.
template <class MakeWorker, class IsKnown, class Find>
void find_on_all_ranks(const Recall& recall, std::size_t count, const MakeWorker& make_worker,
                       const Watch& watch, const IsKnown& known, const Find& find) {
    Ranks* all = ranks();
    if (!all || !recall.memory) return;
    using Worker = decltype(make_worker());
    std::string answers;
    std::size_t done = 0;
    SharedWork work;
    work.stopped = [&] { return watch.stopped(); };
    if (all->is_first()) {
        std::vector<std::optional<std::string>> before(count);
        for_each_with_worker(count, make_worker, {{}, watch.stop},
                             [&](Worker& worker, std::size_t i) {
                                 AnswersFound found(*recall.memory);
                                 Recall own = recall;
                                 own.memory = &found;
                                 if (known(worker, i, own)) before[i] = found.bytes();
                             });
        for (std::size_t i = 0; i < count; ++i)
            if (before[i])
                answers += *before[i];
            else
                work.pieces.push_back(i);
        done = count - work.pieces.size();
    }
    std::vector<std::unique_ptr<Worker>> workers(threads_at_work());
    work.run = [&](std::size_t piece, std::size_t thread) {
        if (!workers[thread]) workers[thread] = std::make_unique<Worker>(make_worker());
        AnswersFound found(*recall.memory);
        Recall own = recall;
        own.memory = &found;
        find(*workers[thread], piece, own);
        return found.bytes();
    };
    work.take = [&](std::size_t, const std::string& bytes) {
        keep_answers(bytes, *recall.memory);
        answers += bytes;
        if (watch.progress) watch.progress(++done, count);
    };
    work.answers = [&] { return answers; };
    work.get = [&](const std::string& bytes) { keep_answers(bytes, *recall.memory); };
    all->share(work);
}

/// The answers that the first rank knows, of those asked for, reach all; as above.
template <class MakeWorker, class IsKnown>
void tell_all_ranks(const Recall& recall, std::size_t count, const MakeWorker& make_worker,
                    const Watch& watch, const IsKnown& known) {
    find_on_all_ranks(recall, count, make_worker, {{}, watch.stop}, known,
                      [](auto&, std::size_t, const Recall&) {});
}

} // namespace panoplon
