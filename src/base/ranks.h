// Several processes that do the work of one run: each runs the same command on the same armoury,
// and where work is shared each piece of it is done by one of them. What it comes to reaches all,
// so that they go on alike; the first alone writes, and knows what earlier runs found.
//
// The first hands pieces out, and does some itself; the others ask for one for each of their
// threads, send back what it comes to, and ask for the next. At the end of the work the first sends
// all answers to everybody. Every letter of some work has its number: a rank that comes late to
// work that is done already finds the answers, and what it asked for then is not heard any more.
#pragma once

#include "base/post.h"

#include <cstdint>
#include <functional>
#include <string>
#include <utility>
#include <vector>

namespace panoplon {

struct SharedWork {
    /// Numbers of pieces, in the order in which they are begun. The first rank's are done; what the
    /// others have is not looked at.
    std::vector<std::size_t> pieces;
    /// What a piece comes to; several threads call it at once, threads_at_work() of them.
    std::function<std::string(std::size_t piece, std::size_t thread)> run;
    /// On the first rank: takes what a piece came to, as soon as that is known.
    std::function<void(std::size_t piece, const std::string&)> take;
    /// On the first rank, at the end: what all get. On the others: gets it.
    std::function<std::string()> answers;
    std::function<void(const std::string&)> get;
    /// Nothing more is begun then; where the first has stopped, the others have nothing to do any
    /// more.
    std::function<bool()> stopped;
};

/// The first rank has ended or stopped, and with it the run.
struct RunEnded {};
/// Another has, in the midst of a piece.
struct RankLost {
    std::size_t rank;
};

class Ranks {
  public:
    explicit Ranks(Post& post) : post_(post) {}
    Ranks(const Ranks&) = delete;
    Ranks& operator=(const Ranks&) = delete;

    [[nodiscard]] std::size_t count() const { return post_.count(); }
    [[nodiscard]] bool is_first() const { return post_.rank() == 0; }

    /// All ranks call it for the same work. Throws what `run` throws, RunEnded, or RankLost.
    void share(const SharedWork& work);
    /// To be called once, when this rank has nothing more to do: waits for the first.
    void leave();

  private:
    class Crew;
    struct Done;
    void hand_out(const SharedWork& work, Crew& crew);
    void help(const SharedWork& work, Crew& crew);

    Post& post_;
    std::uint32_t round_ = 0; ///< number of the work
    bool ended_ = false;      ///< the first has said so
};

/// Those that the run of this thread belongs to; none where its process works alone.
[[nodiscard]] Ranks* ranks();

/// Makes ranks those of this thread, as long as it lives.
class RanksScope {
  public:
    explicit RanksScope(Ranks& ranks);
    RanksScope(const RanksScope&) = delete;
    RanksScope& operator=(const RanksScope&) = delete;
    ~RanksScope();
};

/// Within it a thread works alone: what is done for one piece of some work is no work for all.
class AloneScope {
  public:
    AloneScope();
    AloneScope(const AloneScope&) = delete;
    AloneScope& operator=(const AloneScope&) = delete;
    ~AloneScope();

  private:
    Ranks* before_;
};

/// Whether this is one of several ranks, and not the first: then it writes nothing.
[[nodiscard]] inline bool only_helps() {
    return ranks() && !ranks()->is_first();
}

} // namespace panoplon
