#include "base/ranks.h"

#include "base/parallel.h"

#include <chrono>
#include <condition_variable>
#include <cstring>
#include <deque>
#include <exception>
#include <mutex>
#include <thread>

namespace panoplon {

namespace {

/// What a letter is about: its first byte. The number of the work follows, then a piece or text.
enum class Kind : char {
    wish = 'w',   ///< for a piece, by one thread
    piece = 'p',  ///< its number
    result = 'r', ///< the number of a piece, and what it came to
    answers = 'a',
    stopped = 's', ///< in the midst of the work: there are no answers
    leaving = 'l', ///< by one of the others
    end = 'e'      ///< of the run, by the first
};

template <class Number>
void append(std::string& text, Number number) {
    text.append(reinterpret_cast<const char*>(&number), sizeof number);
}

std::string letter(Kind kind, std::uint32_t round, const std::string& text = {}) {
    std::string all(1, static_cast<char>(kind));
    append(all, round);
    return all + text;
}

struct Opened {
    Kind kind;
    std::uint32_t round = 0;
    std::string text;
};

Opened opened(const std::string& text) {
    Opened open{static_cast<Kind>(text.at(0)), 0, text.substr(1 + sizeof(std::uint32_t))};
    std::memcpy(&open.round, text.data() + 1, sizeof open.round);
    return open;
}

/// How long is waited before the post is looked at again.
constexpr std::chrono::microseconds pause(200);

thread_local Ranks* of_this_thread = nullptr;

} // namespace

/// What a piece came to.
struct Ranks::Done {
    std::uint64_t piece = 0;
    std::string result;

    [[nodiscard]] std::string text() const {
        std::string text;
        append(text, piece);
        return text + result;
    }
    static Done from(const std::string& text) {
        Done done;
        std::memcpy(&done.piece, text.data(), sizeof done.piece);
        done.result = text.substr(sizeof done.piece);
        return done;
    }
};

/// Threads that work through pieces, while the thread that made them minds the post.
class Ranks::Crew {
  public:
    Crew(const SharedWork& work, std::size_t threads) : work_(work) {
        for (std::size_t i = 0; i < threads; ++i) threads_.emplace_back([this, i] { run(i); });
    }
    ~Crew() {
        {
            const std::lock_guard<std::mutex> lock(guard_);
            over_ = true;
        }
        begun_.notify_all();
        for (std::thread& thread : threads_) thread.join();
    }
    Crew(const Crew&) = delete;
    Crew& operator=(const Crew&) = delete;

    [[nodiscard]] bool has_room() const { return under_way_ < threads_.size(); }
    [[nodiscard]] std::size_t under_way() const { return under_way_; }

    void begin(std::size_t piece) {
        ++under_way_;
        {
            const std::lock_guard<std::mutex> lock(guard_);
            waiting_.push_back(piece);
        }
        begun_.notify_one();
    }

    /// What is done, if anything is; waits for it a little.
    std::optional<Done> done() {
        std::unique_lock<std::mutex> lock(guard_);
        done_.wait_for(lock, pause, [&] { return !results_.empty() || failure_; });
        if (failure_) std::rethrow_exception(failure_);
        if (results_.empty()) return std::nullopt;
        Done done = std::move(results_.front());
        results_.pop_front();
        --under_way_;
        return done;
    }

  private:
    void run(std::size_t thread) {
        std::unique_lock<std::mutex> lock(guard_);
        for (;;) {
            begun_.wait(lock, [&] { return over_ || !waiting_.empty(); });
            if (over_) return;
            const std::size_t piece = waiting_.front();
            waiting_.pop_front();
            lock.unlock();
            std::string result;
            std::exception_ptr failure;
            try {
                result = work_.run(piece, thread);
            } catch (...) {
                failure = std::current_exception();
            }
            lock.lock();
            if (failure) failure_ = failure;
            results_.push_back({piece, std::move(result)});
            done_.notify_one();
        }
    }

    const SharedWork& work_;
    std::vector<std::thread> threads_;
    std::size_t under_way_ = 0; ///< begun, and not yet taken by done(); of the thread that begins
    std::mutex guard_;          ///< of what follows
    std::condition_variable begun_, done_;
    std::deque<std::size_t> waiting_;
    std::deque<Done> results_;
    std::exception_ptr failure_;
    bool over_ = false;
};

void Ranks::share(const SharedWork& work) {
    ++round_;
    Crew crew(work, threads_at_work());
    is_first() ? hand_out(work, crew) : help(work, crew);
}

void Ranks::hand_out(const SharedWork& work, Crew& crew) {
    std::size_t next = 0;
    std::deque<std::size_t> wishes;                 // ranks, each for one of its threads
    std::vector<std::size_t> pieces_at(count(), 0); // by rank
    std::size_t elsewhere = 0;                      // the sum of these
    const auto has_more = [&] { return next < work.pieces.size() && !work.stopped(); };
    while (has_more() || elsewhere > 0 || crew.under_way() > 0) {
        while (has_more() && crew.has_room()) crew.begin(work.pieces[next++]);
        while (has_more() && !wishes.empty()) {
            std::string number;
            append(number, static_cast<std::uint64_t>(work.pieces[next++]));
            post_.send(wishes.front(), letter(Kind::piece, round_, number));
            ++pieces_at[wishes.front()];
            ++elsewhere;
            wishes.pop_front();
        }
        while (const std::optional<Letter> arrived = post_.receive()) {
            const Opened open = opened(arrived->text);
            if (open.kind == Kind::leaving && pieces_at[arrived->from] > 0)
                throw RankLost{arrived->from};
            if (open.round != round_) continue;
            if (open.kind == Kind::wish) wishes.push_back(arrived->from);
            if (open.kind != Kind::result) continue;
            const Done done = Done::from(open.text);
            work.take(done.piece, done.result);
            --pieces_at[arrived->from];
            --elsewhere;
        }
        if (const std::optional<Done> done = crew.done()) work.take(done->piece, done->result);
    }
    const std::string answers = work.stopped() ? letter(Kind::stopped, round_)
                                               : letter(Kind::answers, round_, work.answers());
    for (std::size_t rank = 1; rank < count(); ++rank) post_.send(rank, answers);
}

void Ranks::help(const SharedWork& work, Crew& crew) {
    if (ended_) throw RunEnded();
    const std::string wish = letter(Kind::wish, round_);
    for (std::size_t i = 0; i < threads_at_work(); ++i) post_.send(0, wish);
    for (;;) {
        if (const std::optional<Done> done = crew.done()) {
            post_.send(0, letter(Kind::result, round_, done->text()));
            if (!work.stopped()) post_.send(0, wish);
        }
        const std::optional<Letter> arrived = post_.receive();
        if (!arrived) continue;
        const Opened open = opened(arrived->text);
        if (open.kind == Kind::end) {
            ended_ = true;
            throw RunEnded();
        }
        if (open.round != round_) continue;
        if (open.kind == Kind::answers) return work.get(open.text);
        if (open.kind == Kind::stopped) throw RunEnded();
        std::uint64_t piece = 0;
        std::memcpy(&piece, open.text.data(), sizeof piece);
        crew.begin(piece);
    }
}

void Ranks::leave() {
    if (is_first()) {
        for (std::size_t rank = 1; rank < count(); ++rank) post_.send(rank, letter(Kind::end, 0));
    } else {
        post_.send(0, letter(Kind::leaving, 0));
        while (!ended_) {
            if (const std::optional<Letter> arrived = post_.receive())
                ended_ = opened(arrived->text).kind == Kind::end;
            else
                std::this_thread::sleep_for(pause);
        }
    }
    post_.close();
}

Ranks* ranks() {
    return of_this_thread;
}

RanksScope::RanksScope(Ranks& ranks) {
    of_this_thread = &ranks;
}

RanksScope::~RanksScope() {
    of_this_thread = nullptr;
}

AloneScope::AloneScope() : before_(of_this_thread) {
    of_this_thread = nullptr;
}

AloneScope::~AloneScope() {
    of_this_thread = before_;
}

} // namespace panoplon
