// Letters by MPI (the Message Passing Interface, version 3): what `mpirun` and schedulers start. A
// library of its own that the program loads only then, so that nothing of MPI is there otherwise.
#include "base/post.h"

#include <algorithm>
#include <list>
#include <map>
#include <mpi.h>
#include <utility>
#include <vector>

namespace panoplon {

namespace {

class MpiPost : public Post {
  public:
    MpiPost() {
        // Letters are for the one thread that minds the post; the others fight.
        int provided = 0;
        MPI_Init_thread(nullptr, nullptr, MPI_THREAD_FUNNELED, &provided);
        MPI_Comm_size(MPI_COMM_WORLD, &count_);
        MPI_Comm_rank(MPI_COMM_WORLD, &rank_);
    }

    [[nodiscard]] std::size_t count() const override { return static_cast<std::size_t>(count_); }
    [[nodiscard]] std::size_t rank() const override { return static_cast<std::size_t>(rank_); }

    void send(std::size_t to, std::string text) override {
        Sent& sent = sent_.emplace_back(Sent{std::move(text), {}});
        std::size_t first = 0;
        do {
            const std::size_t size = std::min(most_at_once, sent.text.size() - first);
            const bool last = first + size == sent.text.size();
            MPI_Isend(sent.text.data() + first, static_cast<int>(size), MPI_BYTE,
                      static_cast<int>(to), last ? last_part : earlier_part, MPI_COMM_WORLD,
                      &sent.parts.emplace_back());
            first += size;
        } while (first < sent.text.size());
        forget_what_has_gone();
    }

    [[nodiscard]] std::optional<Letter> receive() override {
        forget_what_has_gone();
        int there = 0;
        MPI_Status status;
        MPI_Iprobe(MPI_ANY_SOURCE, MPI_ANY_TAG, MPI_COMM_WORLD, &there, &status);
        if (!there) return std::nullopt;
        int size = 0;
        MPI_Get_count(&status, MPI_BYTE, &size);
        std::string& text = arriving_[status.MPI_SOURCE];
        const std::size_t before = text.size();
        text.resize(before + static_cast<std::size_t>(size));
        MPI_Recv(text.data() + before, size, MPI_BYTE, status.MPI_SOURCE, status.MPI_TAG,
                 MPI_COMM_WORLD, MPI_STATUS_IGNORE);
        if (status.MPI_TAG == earlier_part) return std::nullopt;
        return Letter{static_cast<std::size_t>(status.MPI_SOURCE), std::exchange(text, {})};
    }

    void close() override {
        for (Sent& sent : sent_)
            MPI_Waitall(static_cast<int>(sent.parts.size()), sent.parts.data(),
                        MPI_STATUSES_IGNORE);
        sent_.clear();
        MPI_Finalize();
    }

    void end_all(int exit) override { MPI_Abort(MPI_COMM_WORLD, exit); }

  private:
    struct Sent {
        std::string text;
        std::vector<MPI_Request> parts;
    };
    /// MPI counts bytes in an int: a longer letter goes in parts, of which all but the last have
    /// this tag. Parts from one rank to another arrive in their order.
    static constexpr std::size_t most_at_once = std::size_t{1} << 30;
    static constexpr int earlier_part = 1, last_part = 2;

    void forget_what_has_gone() {
        for (auto at = sent_.begin(); at != sent_.end();) {
            int gone = 0;
            MPI_Testall(static_cast<int>(at->parts.size()), at->parts.data(), &gone,
                        MPI_STATUSES_IGNORE);
            at = gone ? sent_.erase(at) : std::next(at);
        }
    }

    int count_ = 1;
    int rank_ = 0;
    std::list<Sent> sent_;                ///< may still be on their way
    std::map<int, std::string> arriving_; ///< by rank: the parts of its letter that are here
};

} // namespace

} // namespace panoplon

/// Lives as long as the process.
extern "C" __attribute__((visibility("default"))) panoplon::Post* panoplon_mpi_post() {
    static panoplon::MpiPost post;
    return &post;
}
