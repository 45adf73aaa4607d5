// Letters by MPI (the Message Passing Interface, version 3): what `mpirun` and schedulers start. A
// library of its own that the program loads only then, so that nothing of MPI is there otherwise.
#include "base/post.h"

#include <list>
#include <mpi.h>

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
        Sent& sent = sent_.emplace_back(Sent{std::move(text), MPI_REQUEST_NULL});
        MPI_Isend(sent.text.data(), static_cast<int>(sent.text.size()), MPI_BYTE,
                  static_cast<int>(to), tag, MPI_COMM_WORLD, &sent.request);
        forget_what_has_gone();
    }

    [[nodiscard]] std::optional<Letter> receive() override {
        forget_what_has_gone();
        int there = 0;
        MPI_Status status;
        MPI_Iprobe(MPI_ANY_SOURCE, tag, MPI_COMM_WORLD, &there, &status);
        if (!there) return std::nullopt;
        int size = 0;
        MPI_Get_count(&status, MPI_BYTE, &size);
        Letter letter{static_cast<std::size_t>(status.MPI_SOURCE),
                      std::string(static_cast<std::size_t>(size), '\0')};
        MPI_Recv(letter.text.data(), size, MPI_BYTE, status.MPI_SOURCE, tag, MPI_COMM_WORLD,
                 MPI_STATUS_IGNORE);
        return letter;
    }

    void close() override {
        for (Sent& sent : sent_) MPI_Wait(&sent.request, MPI_STATUS_IGNORE);
        sent_.clear();
        MPI_Finalize();
    }

    void end_all(int exit) override { MPI_Abort(MPI_COMM_WORLD, exit); }

  private:
    struct Sent {
        std::string text;
        MPI_Request request;
    };
    static constexpr int tag = 1;

    void forget_what_has_gone() {
        for (auto at = sent_.begin(); at != sent_.end();) {
            int gone = 0;
            MPI_Test(&at->request, &gone, MPI_STATUS_IGNORE);
            at = gone ? sent_.erase(at) : std::next(at);
        }
    }

    int count_ = 1;
    int rank_ = 0;
    std::list<Sent> sent_; ///< may still be on their way
};

} // namespace

} // namespace panoplon

/// Lives as long as the process.
extern "C" __attribute__((visibility("default"))) panoplon::Post* panoplon_mpi_post() {
    static panoplon::MpiPost post;
    return &post;
}
