// How long an audit takes on many ranks, from the times of its pieces: measured on one thread, then
// handed out to so many ranks as they become free. FOLDER [SAMPLE] [PIECES] [FIGURE.png]
//
// What all ranks do alike (reading, taking answers as known, verdicts) and what rank 0 does with
// each answer (keeping it in the store) is measured, too, and counted in full.
#include "armoury/read.h"
#include "base/parallel.h"
#include "judge/audit/audit.h"
#include "store/memory_file.h"

#include <algorithm>
#include <chrono>
#include <cstdlib>
#include <filesystem>
#include <fmt/format.h>
#include <fstream>
#include <queue>
#include <string>

using namespace panoplon;

namespace {

double seconds() {
    return std::chrono::duration<double>(std::chrono::steady_clock::now().time_since_epoch())
        .count();
}

template <class Work>
double time_of(const Work& work) {
    const double before = seconds();
    work();
    return seconds() - before;
}

/// Keeps what it is told, and in a file, too; adds up how long that takes.
class TimedMemory : public MemoryOfRun {
  public:
    explicit TimedMemory(const std::string& path) : file_(path, 1, "2026-01-01") {}
    void keep(std::uint64_t key, const std::string& answer) override {
        keeping += time_of([&] { file_.keep(key, answer); });
        bytes += answer.size();
        MemoryOfRun::keep(key, answer);
    }

    double keeping = 0;
    std::size_t bytes = 0;

  private:
    MemoryFile file_;
};

/// A context with the worlds of its tiers.
struct Piece {
    int level;
    double time;
};

/// When the last of the pieces is done, which are begun in their order by whoever is free.
double last_done(const std::vector<Piece>& pieces, std::size_t ranks) {
    std::priority_queue<double, std::vector<double>, std::greater<>> free;
    for (std::size_t i = 0; i < ranks; ++i) free.push(0);
    double last = 0;
    for (const Piece& piece : pieces) {
        const double done = free.top() + piece.time;
        free.pop();
        free.push(done);
        last = std::max(last, done);
    }
    return last;
}

/// Draws how many times as fast so many ranks are, by gnuplot.
void draw(const std::string& figure, const std::string& data, std::size_t pieces) {
    const std::string script = figure + ".gnuplot";
    std::ofstream(script) << fmt::format(
        "$speed << END\n{}END\n"
        "set terminal pngcairo size 1280,800 font 'Inter,16'\nset output '{}'\n"
        "set title 'An audit of {} contexts, handed out to ranks of one thread'\n"
        "set logscale xy 2\nset xrange [1:512]\nset yrange [1:512]\nset grid\n"
        "set xlabel 'ranks'\nset ylabel 'times as fast as one'\nset key top left\n"
        "plot x with lines dashtype 2 linecolor '#787878' title 'all ranks busy all the time', "
        "$speed using 1:3 with linespoints linewidth 2 pointtype 6 linecolor '#6c6cd8' "
        "title 'searches alone', "
        "$speed using 1:2 with linespoints linewidth 2 pointtype 7 linecolor '#b44890' "
        "title 'with what all ranks do alike'\n",
        data, figure, pieces);
    if (std::system(fmt::format("gnuplot '{}'", script).c_str()) != 0)
        fmt::print("'{}' could not be drawn\n", figure);
    std::filesystem::remove(script);
}

} // namespace

int main(int count, char** words) {
    if (count < 2) {
        fmt::print("usage: panoplon_ranks FOLDER [SAMPLE] [PIECES] [FIGURE.png]\n");
        return 2;
    }
    const auto number = [&](int at, std::size_t otherwise) {
        return count > at ? std::strtoull(words[at], nullptr, 10) : otherwise;
    };
    const ThreadLimit one(1);
    Result<ReadArmoury> read = read_armoury(words[1]);
    if (!read.ok() || !read.value().usable()) {
        fmt::print("'{}' can't be read\n", words[1]);
        return 3;
    }
    const double reading = time_of([&] { (void)read_armoury(words[1]); });
    const Armoury& armoury = read.value().armoury;
    const Judging judging(armoury);
    AuditOptions options;
    options.levels = armoury.levels;
    options.step = armoury.audit.step;
    options.sample = number(2, 40);
    const std::vector<Context> contexts = contexts_of(armoury, options);

    const std::string path = std::filesystem::temp_directory_path() / "panoplon_ranks.sqlite";
    std::filesystem::remove(path);
    TimedMemory memory(path);
    const Recall recall(memory, read.value());
    std::vector<Piece> measured;
    for (const Context& context : contexts) {
        AuditOptions alone;
        alone.characters = {context.character};
        alone.encounters = {context.encounter};
        alone.levels = {context.level, context.level};
        measured.push_back(
            {context.level, time_of([&] { (void)audit(judging, alone, {}, recall); })});
    }
    const double known = time_of([&] { (void)audit(judging, options, {}, recall); });
    const auto of_each = [&](double sum) { return sum / static_cast<double>(contexts.size()); };
    double sum = 0, longest = 0;
    for (const Piece& piece : measured) {
        sum += piece.time;
        longest = std::max(longest, piece.time);
    }
    fmt::print("{} contexts of {}: {:.3f} s each, {:.2f} s the longest; taken as known {:.4f} s, "
               "kept {:.5f} s, {:.1f} kB; read in {:.2f} s\n\n",
               contexts.size(), words[1], of_each(sum), longest, of_each(known),
               of_each(memory.keeping), of_each(static_cast<double>(memory.bytes)) / 1000, reading);

    std::vector<Piece> pieces;
    for (std::size_t i = 0; i < number(3, 30'000); ++i)
        pieces.push_back(measured[i % measured.size()]);
    std::stable_sort(pieces.begin(), pieces.end(),
                     [](const Piece& a, const Piece& b) { return a.level > b.level; });
    const double all = of_each(sum) * static_cast<double>(pieces.size());
    const double alike = reading + of_each(known) * static_cast<double>(pieces.size());
    const double keeping = of_each(memory.keeping) * static_cast<double>(pieces.size());
    fmt::print("{} contexts, {:.1f} h of searches\n\n  ranks  searches s  alike s  in all s  times "
               "as fast  used\n",
               pieces.size(), all / 3600);
    double alone = 0;
    std::string drawn; // of the figure: ranks, times as fast, without what is done alike
    for (const std::size_t ranks : {1, 2, 4, 8, 16, 32, 64, 128, 256, 512}) {
        const double searching = std::max(last_done(pieces, ranks), keeping);
        const double whole = searching + alike;
        if (ranks == 1) alone = whole;
        fmt::print("  {:5}  {:10.0f}  {:7.0f}  {:8.0f}  {:13.1f}  {:3.0f} %\n", ranks, searching,
                   alike, whole, alone / whole, 100 * all / (whole * static_cast<double>(ranks)));
        drawn += fmt::format("{} {} {}\n", ranks, alone / whole, all / searching);
    }
    if (count > 4) draw(words[4], drawn, pieces.size());
    std::filesystem::remove(path);
    return 0;
}
